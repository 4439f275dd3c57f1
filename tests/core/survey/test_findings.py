"""Findings of many surfaces at once: shares in words, which surfaces are meant, how often each answer was given."""

import pytest

from amber_gable.core.survey.amounts.measures import parse_share, said_share
from amber_gable.core.survey.findings.answers import Tally, surface_kinds, surfaces_of, tallies
from amber_gable.core.survey.findings.essentials import open_tests
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS
from tests.jobs import coopers_rise


@pytest.mark.parametrize(
    ("text", "pct"),
    [
        ("none", 0), ("nothing", 0), ("edges", 5), ("The edges", 5), ("a quarter", 25), ("Quarter", 25), ("half", 50),
        ("about half", 50), ("most", 80), ("most of it", 80), ("all", 100), ("a third", 33), ("20%", 20), ("20 %", 20),
        ("7,5", 7.5), ("12.5 per cent", 12.5), ("1/4", 25), ("3 / 4", 75), ("0", 0), ("100", 100),
    ],
)  # fmt: skip
def test_a_share_as_people_say_it(text: str, pct: float) -> None:
    assert parse_share(text) == pytest.approx(pct)


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("-3", "less than nothing"), ("−3 %", "less than nothing"), ("120%", "more than all"), ("5/4", "more than all"),
        ("1/0", "less than nothing"), ("some", "edges, a quarter, half, most"), ("3 m", "no share"), ("", "no share"),
        ("20 20", "no share"),
    ],
)  # fmt: skip
def test_what_is_no_share_is_told_why(text: str, why: str) -> None:
    with pytest.raises(ValueError, match=why):
        parse_share(text)


@pytest.mark.parametrize(
    ("pct", "word"),
    # 15 is as far from edges as from a quarter; the lower word, which asks for less, must not take what is beyond.
    [(0, "none"), (0.4, "edges"), (14, "edges"), (16, "a quarter"), (24.3, "a quarter"), (40, "half"), (100, "most")],
)
def test_a_share_is_told_by_the_word_that_is_nearest(pct: float, word: str) -> None:
    assert said_share(pct) == word


def _by_code(*scope: str) -> dict[str, Tally]:
    return {t.test.code: t for t in tallies(surfaces_of(coopers_rise().property, *scope))}


def test_what_is_meant_by_kind_and_face() -> None:
    house = coopers_rise().property
    kinds = {k.key: (k.name, k.count) for k in surface_kinds(house)}
    assert kinds["zone.wood-lap"][1] == 7 and kinds["item.sash-window"] == ("Sash window", 9)
    assert sum(n for _, n in kinds.values()) == len(house.zones) + len(house.items) == len(surfaces_of(house))
    assert [s.name for s in surfaces_of(house, "item.sash-window", "back")] == ["Sash 7", "Sash 8"]
    assert surfaces_of(house, "item.sash-window", "wing-east") == []


def test_answers_are_counted_and_what_is_open_is_what_the_survey_misses() -> None:
    """Counted by eye in the demo's survey: four siding zones tested, the two of the kitchen wing not."""
    siding = _by_code("zone.wood-lap")
    assert siding["coating"].given == {"oil": 4} and (siding["coating"].open, siding["coating"].needed) == (3, 3)
    # 24 % and 25 % painted on front and west, none on east and back; the wing was not looked at.
    assert siding["scrape"].given == {"none": 2, "a quarter": 2} and siding["scrape"].drawn == 2
    assert siding["coats"].given == {"5": 4}
    # Metres and counts belong to one surface; masonry's finger test fits no wood.
    assert not {"joints", "putty", "nails", "probe", "finger", "meter"} & set(siding)
    house = coopers_rise().property
    missed = sum(len([t for t in open_tests(s) if t.field != "moisture"]) for s in surfaces_of(house))
    assert sum(t.needed for t in _by_code().values()) == missed > 0


def test_only_what_can_be_true_on_a_surface_is_offered() -> None:
    coating = next(t for t in GUIDED_TESTS if t.code == "coating")
    assert "lime-wash" not in coating.answers_on(("wood",)) and "factory-primer" in coating.answers_on(("wood",))
    assert "penetrating-stain" not in coating.answers_on(("masonry",)) and "lime-wash" in coating.answers_on(
        ("masonry",)
    )
    assert set(coating.answers_on(("wood", "masonry"))) == set(coating.answers), "of a house of both, all"
    assert "lime-wash" not in _by_code("zone.wood-lap")["coating"].answers
