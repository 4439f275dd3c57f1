"""Windows on a real typical year and on both hemispheres."""

from datetime import date
from functools import cache

import numpy as np
import pytest

from amber_gable.core.weather.judged.windows import Windows, slot_readings
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.domain.grid import SLOT_H, SLOTS_PER_HOUR
from tests.weather_cases import (
    EAST,
    NORTH,
    NORTHERN,
    SOUTH,
    SOUTHERN,
    WEST,
    at_hour,
    clear_days,
    climate_of,
    day_slots,
    real_year,
    utc,
    walls,
    windows_of,
)

GREENSBORO = (36.1, -79.95, -5.0)


@cache
def _week(start: date, code: str = "wood-lap") -> Climate:
    return climate_of(stretch(real_year(), start, 7), GREENSBORO, walls(NORTH, EAST, SOUTH, WEST, code=code))


@pytest.mark.parametrize("month", range(1, 13))
def test_any_week_of_a_real_year_gives_numbers_everywhere(month: int) -> None:
    climate = _week(date(2025, month, 6))
    slots = day_slots(climate.steps, utc(f"2025-{month:02d}-06"), 7, GREENSBORO[2])
    windows, readings = windows_of(climate, slots), slot_readings(climate, slots)
    assert windows.ok.shape == (4, 7 * 24 * SLOTS_PER_HOUR)
    for name in ("air", "rh", "dew", "surface", "dew_margin", "poa_direct", "water_film"):
        assert np.isfinite(getattr(readings, name)).all(), name
    assert windows.touch_at is not None
    assert not np.isnan(windows.touch_at).any()
    assert not windows.ok[:, slots.daylight < 0].any()


def test_a_day_tells_its_stretches_and_not_only_its_ends() -> None:
    climate = _week(date(2025, 6, 6))
    slots = day_slots(climate.steps, utc("2025-06-06"), 2, GREENSBORO[2])
    open_ = np.zeros((1, len(slots)), dtype=bool)
    for first, last in ((7.0, 9.0), (14.5, 17.0)):
        open_[0, at_hour(first) : at_hour(last)] = True
    today, tomorrow = Windows(slots, (), open_).days(0)
    told = [(f"{begin:%H:%M}", f"{end:%H:%M}") for begin, end in today.stretches]
    assert told == [("07:00", "09:00"), ("14:30", "17:00")]
    assert today.workable_h == 4.5 and today.first is not None and today.last_stroke is not None
    assert (today.first.hour, today.last_stroke.hour) == (7, 17)
    assert (tomorrow.workable_h, tomorrow.first, tomorrow.stretches) == (0.0, None, ())


def test_clear_nights_stop_for_dew_and_the_stop_lasts_into_the_morning() -> None:
    climate = _week(date(2025, 10, 6))
    slots = day_slots(climate.steps, utc("2025-10-06"), 7, GREENSBORO[2])
    windows = windows_of(climate, slots)
    clear = climate.steps.cloud[slots.first] < 0.2
    night = clear & (slots.hours < 5) & (slot_readings(climate, slots).rh[0] > 85)
    assert night.sum() > 5
    for i in np.flatnonzero(night):
        assert "D" in windows.letters(0, int(i))
    morning = windows.first_letters()[0][(slots.hours >= 7) & (slots.hours < 8)]
    assert (morning == "D").mean() > 0.4


@pytest.mark.parametrize(
    ("place", "last"), [(NORTHERN, NORTH), (SOUTHERN, SOUTH)], ids=["northern hemisphere", "southern hemisphere"]
)
def test_the_wall_away_from_the_sun_dries_later_than_the_east_wall(
    place: tuple[float, float, float], last: float
) -> None:
    climate = climate_of(clear_days(place, utc("2026-03-18"), 8, dew_c=9.5), place, walls(EAST, last))
    slots = day_slots(climate.steps, utc("2026-03-20"), 3, place[2])
    windows = windows_of(climate, slots)
    dry = next(c for c in windows.checks if c.rule.id == "dry-surface")
    first_dry = [
        min(slots.hours[i] for i in np.flatnonzero(~dry.stops[row] & (slots.day == 1) & (slots.hours > 5)))
        for row in (0, 1)
    ]
    assert first_dry[0] < first_dry[1]


@pytest.mark.parametrize(("place", "shaded", "sunny"), [(NORTHERN, NORTH, SOUTH), (SOUTHERN, SOUTH, NORTH)])
def test_following_the_shade_comes_out_of_the_sun_and_mirrors_with_the_hemisphere(
    place: tuple[float, float, float], shaded: float, sunny: float
) -> None:
    """West is free of sun in the forenoon, east in the afternoon, the shaded wall all day."""
    climate = climate_of(
        clear_days(place, utc("2026-03-18"), 8, mean_c=20, dew_c=4), place, walls(EAST, WEST, shaded, sunny)
    )
    slots = day_slots(climate.steps, utc("2026-03-20"), 1, place[2])
    sun = next(c for c in windows_of(climate, slots).checks if c.rule.id == "sun")
    forenoon, afternoon = at_hour(9.5), at_hour(15.5)
    assert sun.stops[0, forenoon]
    assert not sun.stops[0, afternoon]
    assert not sun.stops[1, forenoon]
    assert sun.stops[1, afternoon]
    assert not sun.stops[2].any()
    assert sun.stops[3, at_hour(12)]


def test_seasons_of_a_north_wall_rank_as_painters_know_them() -> None:
    hours = {}
    for month in (1, 5, 7, 11):
        climate = _week(date(2025, month, 6))
        slots = day_slots(climate.steps, utc(f"2025-{month:02d}-06"), 7, GREENSBORO[2])
        hours[month] = windows_of(climate, slots).ok[0].sum() * SLOT_H / 7
    assert hours[1] < 1 < hours[11] < hours[5]
    assert 3 < hours[7] < 11


def test_days_add_up_to_the_open_slots_and_name_first_and_last_stroke() -> None:
    climate = _week(date(2025, 10, 6))
    slots = day_slots(climate.steps, utc("2025-10-06"), 7, GREENSBORO[2])
    windows = windows_of(climate, slots)
    days = windows.days(0)
    assert [d.date for d in days] == [f"2025-10-{d:02d}" for d in range(6, 13)]
    assert sum(d.workable_h for d in days) == windows.ok[0].sum() * SLOT_H
    for day in days:
        assert (day.first is None) == (day.workable_h == 0)
        if day.first and day.last_stroke:
            assert (day.last_stroke - day.first).total_seconds() / 3600 >= day.workable_h
