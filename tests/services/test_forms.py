"""What people type into forms, and what is said where it cannot be read."""

from collections.abc import Callable
from datetime import date
from typing import Annotated

import pytest

from amber_gable.domain.errors import Refused
from amber_gable.domain.units import Quantity, UnitSystem
from amber_gable.services.forms.form import Form, read_all
from amber_gable.services.forms.types import (
    Bearing,
    Day,
    Length,
    Number,
    Tick,
    TimeOfDay,
    Version,
    amount,
    colour,
    day,
    number,
    number_from,
    one_of,
    text_of,
    time_of_day,
    whole_number,
)

M, US = UnitSystem.METRIC, UnitSystem.US


class Everything(Form):
    name: Annotated[str, text_of("say its name", most=8)]
    kind: Annotated[str, one_of(["a", "b"], "choose a or b")]
    count: Annotated[int, whole_number(1, 9, "a number from 1 to 9")]
    share: Annotated[float, number_from(0, 100, "a share")]
    height: Length | None = None
    litres: Annotated[float, amount(Quantity.VOLUME)] | None = None
    looks: Bearing | None = None
    on: Day | None = None
    begins: TimeOfDay | None = None
    paint: Annotated[str, colour("choose a colour")] | None = None
    offset: Number = 0.0
    ticked: Tick = False
    version: Version = -1


FORM = {"name": " Shed ", "kind": "a", "count": "3", "share": "25 %"}

# What is typed into which field, in which units, and the value it means.
READ = [
    ("height", "8", M, 8.0),
    ("height", "8", US, 2.4384),
    ("height", "27' 6\"", M, 8.382),
    ("litres", "1", US, 3.785412),
    ("litres", "1 gal", M, 3.785412),
    ("looks", "NE", M, 45.0),
    ("on", "2026-09-15", M, date(2026, 9, 15)),
    ("begins", "07:30", M, 7.5),
    ("begins", "7:30:00", M, 7.5),
    ("begins", "2 pm", M, 14.0),
    ("begins", "12 am", M, 0.0),
    ("begins", "24", M, 24.0),
    ("paint", "#A0B0C0", M, "#a0b0c0"),
    ("offset", "-1,5", M, -1.5),
    ("offset", "−1.5", M, -1.5),
    ("share", "12,5", M, 12.5),
    ("ticked", "on", M, True),
    ("version", "12", M, 12),
    ("version", "²", M, -1),
    ("height", "   ", M, None),
]


@pytest.mark.parametrize(("field", "typed", "system", "value"), READ)
def test_what_is_typed_is_read_in_the_readers_units(field: str, typed: str, system: UnitSystem, value: object) -> None:
    found = getattr(Everything.read(FORM | {field: typed}, system), field)
    assert found == (pytest.approx(value, abs=1e-5) if isinstance(value, float) else value)


REFUSED = [
    ("name", "", "say its name"),
    ("name", "a long name", "at most 8 letters"),
    ("kind", "c", "choose a or b"),
    ("kind", "", "choose a or b"),
    ("count", "0", "“0” is not a number from 1 to 9"),
    ("count", "²", "“²” is not a number from 1 to 9"),
    ("count", "", "is needed: a number from 1 to 9"),
    ("share", "nan", "“nan” is not a share"),
    ("share", "101", "“101” is not a share"),
    ("height", "8 stone", "not a unit"),
    ("litres", "much", "not a number of L"),
    ("looks", "up", "up"),
    ("on", "soon", "“soon” is not a day"),
    ("begins", "25", "no time of the day"),
    ("begins", "7:60", "no time of the day"),
    ("paint", "red", "choose a colour"),
    ("offset", "inf", "is not a number"),
]


@pytest.mark.parametrize(("field", "typed", "words"), REFUSED)
def test_what_cannot_be_read_is_refused_at_its_field(field: str, typed: str, words: str) -> None:
    with pytest.raises(Refused) as error:
        Everything.read(FORM | {field: typed})
    assert list(error.value.fields) == [field]
    assert words in error.value.fields[field]


def test_all_that_is_wrong_is_told_at_once() -> None:
    with pytest.raises(Refused) as error:
        Everything.read({"kind": "c", "count": "x", "share": "1"})
    assert set(error.value.fields) == {"name", "kind", "count"}


def test_fields_of_a_line_are_named_as_on_the_page() -> None:
    class Line(Form):
        width: Length

    assert Line.read({"wing_width3": "2"}, before="wing_", after="3").width == 2.0
    with pytest.raises(Refused) as error:
        Line.read({"wing_width3": "wide"}, before="wing_", after="3")
    assert list(error.value.fields) == ["wing_width3"]


def test_several_readers_are_all_asked_before_anything_is_refused() -> None:
    def refuses(field: str) -> Callable[[], int]:
        def reader() -> int:
            raise Refused({field: "no"})

        return reader

    with pytest.raises(Refused) as error:
        read_all(refuses("a"), refuses("b"), lambda: 1)
    assert error.value.fields == {"a": "no", "b": "no"}
    assert read_all(lambda: 1, lambda: "x") == (1, "x")


@pytest.mark.parametrize(("reader", "text"), [(number, "1e999"), (day, "2026-02-30"), (time_of_day, "-1")])
def test_what_is_no_figure_day_or_time_is_a_fault_of_the_text(reader: Callable[[str], object], text: str) -> None:
    with pytest.raises(ValueError, match="“"):
        reader(text)
