"""Slots and stretches: clock changes, year's end, leap days, and weather that is not there."""

from dataclasses import replace
from datetime import date, datetime
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.weather.judged.extremes import greatest_over, least_over
from amber_gable.core.weather.judged.slots import make_slots
from amber_gable.core.weather.outdoors.typical import at_place, stretch
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.grid import SLOTS_PER_HOUR
from tests.weather_cases import real_year, steady, utc

HALIFAX = ZoneInfo("America/Halifax")


@pytest.mark.parametrize(
    ("day", "hours"),
    [("2026-03-08", 23), ("2026-11-01", 25), ("2026-06-10", 24)],
    ids=["spring", "autumn", "plain"],
)
def test_a_day_with_a_clock_change_has_its_true_length(day: str, hours: int) -> None:
    steps = to_steps(steady(utc(day) - (utc(day) - utc(day)), 96), 45.25, -62.1, 0.0)
    slots = make_slots(steps, datetime.fromisoformat(day).replace(tzinfo=HALIFAX), 1, HALIFAX)
    assert len(slots) == hours * SLOTS_PER_HOUR
    assert slots.time(0).hour == 0
    assert set(slots.day.tolist()) == {0}


def test_a_stretch_outside_the_weather_is_refused_with_what_there_is() -> None:
    with pytest.raises(NoClimate, match=r"covers 2026-06-10 to 2026-06-12"):
        stretch(steady(utc("2026-06-10"), 72), date(2026, 7, 1), 3)


def test_a_typical_year_is_read_as_the_year_asked_for_and_runs_round_at_its_end() -> None:
    series = stretch(real_year(), date(2025, 12, 30), 4)
    assert series.start_time.isoformat() == "2025-12-28T05:00:00+00:00"
    assert len(series) == (4 + 2 + 5) * 24
    year = real_year()
    assert series.air_c[:24] == pytest.approx(year.air_c[(365 - 4) * 24 : (365 - 3) * 24])
    assert series.air_c[4 * 24 : 5 * 24] == pytest.approx(year.air_c[:24]), "after 31 December comes 1 January"


@pytest.mark.parametrize(
    ("longitude", "zone", "offset_h"),
    [
        # Greensboro stands at 79.95° W on UTC-5: a degree of longitude is four minutes of sun.
        (-79.95, "America/New_York", -5),
        (-74.0, "America/New_York", -5),
        (-63.6, "America/Halifax", -4),
        (8.5, "Europe/Zurich", 1),
        (174.8, "Pacific/Auckland", -12),
    ],
)
def test_a_typical_year_keeps_its_place_in_the_day_at_another_place(longitude: float, zone: str, offset_h: int) -> None:
    assert at_place(real_year(), longitude, ZoneInfo(zone)).utc_offset_h == offset_h


def test_of_a_typical_year_of_unknown_place_the_clock_is_standard_time() -> None:
    unknown = replace(real_year(), longitude=None)
    assert at_place(unknown, 151.2, ZoneInfo("Australia/Sydney")).utc_offset_h == 10, "in January it is summer there"
    measured = replace(unknown, typical_year=False)
    assert at_place(measured, 151.2, ZoneInfo("Australia/Sydney")) is measured


def test_the_leap_day_repeats_the_day_before() -> None:
    series = stretch(real_year(), date(2028, 2, 28), 2)
    day = 2 * 24
    assert series.air_c[day : day + 24] == pytest.approx(series.air_c[day + 24 : day + 48])


@given(
    values=st.lists(st.floats(-50, 50), min_size=2, max_size=60),
    spans=st.lists(st.tuples(st.integers(0, 70), st.integers(0, 70)), min_size=1, max_size=10),
)
def test_extremes_agree_with_looking_at_every_value(values: list[float], spans: list[tuple[int, int]]) -> None:
    table = np.array([values])
    first = np.array([min(a, len(values) - 1) for a, _ in spans])
    end = np.array([min(max(b, 1), len(values)) for _, b in spans])
    end = np.maximum(end, first + 1)
    least, greatest = least_over(table, first, end)[0], greatest_over(table, first, end)[0]
    for i, (a, b) in enumerate(zip(first, end, strict=True)):
        assert least[i] == min(values[a:b])
        assert greatest[i] == max(values[a:b])
