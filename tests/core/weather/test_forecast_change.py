"""Two forecasts of one place, and what a painter is told of the difference."""

from dataclasses import replace
from datetime import datetime, timedelta, timezone

import numpy as np
import pytest

from amber_gable.core.weather.futures.forecast_change import changes, spells
from amber_gable.domain.weather.series import WeatherSeries
from tests.weather_cases import steady

TZ = timezone(timedelta(hours=-3))
MONDAY = datetime(2026, 9, 14, 6, tzinfo=TZ)
H = 24 * 7


def _at(day: int, hour: int) -> int:
    """Index of an hour; day 0 is Monday."""
    return day * 24 + hour - 6


def _calm(**columns: float) -> WeatherSeries:
    return steady(MONDAY, H, -3.0, **columns)


def _with(series: WeatherSeries, **hours: tuple[int, int, float]) -> WeatherSeries:
    """The series with other values in stretches of hours."""
    changed = {}
    for name, (begin, end, value) in hours.items():
        column = getattr(series, name).copy()
        column[begin:end] = value
        changed[name] = column
    return replace(series, **changed)


def _rain(begin: int, end: int, mm: float = 1.5) -> WeatherSeries:
    return _with(_calm(), rain_mm=(begin, end, mm))


def _day(day: int) -> tuple[int, int]:
    return _at(day, 0), _at(day + 1, 0)


DRY = _calm()
FRONT = _rain(_at(3, 14), _at(3, 22))


@pytest.mark.parametrize(
    ("then", "now", "told"),
    [
        (FRONT, FRONT, []),
        (FRONT, _rain(_at(3, 13), _at(3, 21)), []),
        (
            FRONT,
            _rain(_at(3, 8), _at(3, 16)),
            ["the front of Thursday comes 6 hours earlier (at 08:00, not 14:00)"],
        ),
        (
            FRONT,
            _rain(_at(4, 1), _at(4, 9)),
            ["the front of Friday comes 11 hours later (at 01:00, not Thursday 14:00)"],
        ),
        (FRONT, _rain(_at(3, 14), _at(4, 2)), ["the front of Thursday lasts 4 hours longer"]),
        (
            FRONT,
            _rain(_at(3, 11), _at(3, 22), 3.0),
            [
                "the front of Thursday comes 3 hours earlier (at 11:00, not 14:00), lasts 3 hours longer and"
                " brings 33 mm instead of 12 mm"
            ],
        ),
        (FRONT, DRY, ["the front of Thursday 14:00 to 22:00 (12 mm) is no longer expected"]),
        (DRY, _rain(_at(1, 15), _at(1, 16), 0.6), ["new: a shower Tuesday 15:00 to 16:00 (0.6 mm)"]),
        # Two days apart it is not the same rain.
        (
            FRONT,
            _rain(_at(1, 14), _at(1, 18)),
            [
                "new: rain Tuesday 14:00 to 18:00 (6 mm)",
                "the front of Thursday 14:00 to 22:00 (12 mm) is no longer expected",
            ],
        ),
        (
            DRY,
            _with(DRY, wind_ms=(*_day(2), 9.0)),
            ["Wednesday windier: up to 9 m/s instead of 1 m/s"],
        ),
        (
            DRY,
            _with(DRY, air_c=(_at(2, 8), _at(2, 18), 14.0)),
            ["Wednesday colder: up to 14 °C instead of 20 °C"],
        ),
        (
            DRY,
            _with(DRY, air_c=(_at(1, 20), _at(2, 7), 4.0)),
            ["the night to Wednesday colder: down to 4 °C instead of 20 °C"],
        ),
        (DRY, _with(DRY, air_c=(*_day(2), 21.5)), []),
        (DRY, _with(DRY, cloud=(*_day(2), 0.2)), ["Wednesday sunnier"]),
        # Damp under cloud wets nothing; under an open sky it does.
        (DRY, _with(DRY, rh_pct=(_at(1, 20), _at(2, 7), 95.0)), []),
        (
            _with(DRY, cloud=(_at(1, 20), _at(2, 8), 0.1)),
            _with(DRY, cloud=(_at(1, 20), _at(2, 8), 0.1), rh_pct=(_at(1, 20), _at(2, 7), 95.0)),
            ["the night to Wednesday turns dewy"],
        ),
    ],
)  # fmt: skip
def test_what_is_told_of_two_forecasts(then: WeatherSeries, now: WeatherSeries, told: list[str]) -> None:
    assert [c.words for c in changes(then, now, MONDAY)] == told


def test_the_weightiest_is_told_first() -> None:
    now = _with(DRY, air_c=(*_day(1), 30.0), wind_ms=(*_day(2), 9.0), rain_mm=(_at(4, 9), _at(4, 12), 1.0))
    assert [c.words for c in changes(DRY, now, MONDAY)] == [
        "new: rain Friday 09:00 to 12:00 (3 mm)",
        "Wednesday windier: up to 9 m/s instead of 1 m/s",
        "Tuesday warmer: up to 30 °C instead of 20 °C",
    ]


def test_what_is_past_or_beyond_either_is_not_told() -> None:
    now = _rain(_at(1, 8), _at(1, 10))
    assert not changes(DRY, now, MONDAY + timedelta(days=2))
    assert not changes(replace(DRY.take(np.arange(20), DRY.start)), now, MONDAY)


def test_rain_known_by_its_chance_alone_has_spells_too() -> None:
    chance = replace(DRY, rain_mm=None, rain_pct=np.where(np.arange(H) // 4 == 3, 60.0, 10.0))
    (spell,) = spells(chance, DRY.start, DRY.end)
    assert (spell.start - DRY.start, spell.end - DRY.start, spell.mm) == (12 * 3600, 16 * 3600, None)
