"""Measured hours laid over a forecast."""

from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest

from amber_gable.core.weather.outdoors.air import dew_point, vapour_pressure
from amber_gable.core.weather.outdoors.observed import apart, as_measured, joined
from amber_gable.domain.weather.series import WeatherSeries
from tests.weather_cases import steady

START = datetime(2026, 9, 14, tzinfo=UTC)
T0 = int(START.timestamp())
H = 3600
NAN = float("nan")
FORECAST = steady(START, 48)


def _measured(first_h: int, air: list[float], rh: list[float] | None = None, **others: list[float]) -> WeatherSeries:
    none = np.full(len(air), NAN)
    return WeatherSeries(
        start=T0 + first_h * H,
        air_c=np.array(air),
        rh_pct=none if rh is None else np.array(rh),
        wind_ms=none,
        wind_from_deg=none,
        source="box",
        **{n: np.array(v) for n, v in others.items()},  # type: ignore[arg-type]
    )


def test_what_is_over_is_as_measured_and_what_is_to_come_as_forecast() -> None:
    seen = as_measured(FORECAST, _measured(10, [25.0, NAN, 26.0, 27.0], [40.0, 41.0, 42.0, 43.0]), T0 + 13 * H)
    assert seen.air_c[9:15].tolist() == [20, 25, 20, 26, 20, 20]
    assert seen.rh_pct[9:15].tolist() == [50, 40, 41, 42, 50, 50]
    assert (FORECAST.air_c == 20).all(), "the forecast itself stays"


def test_where_the_air_alone_was_measured_its_water_is_the_forecasts() -> None:
    seen = as_measured(FORECAST, _measured(10, [25.0, 5.0]), T0 + 40 * H)
    dew = dew_point(vapour_pressure(seen.air_c, seen.rh_pct))
    assert dew[10] == pytest.approx(dew[9], abs=1e-9)
    # Air measured below the forecast's dew point is at its own: it holds no more.
    assert seen.rh_pct[11] == 100


@pytest.mark.parametrize("first", [-10, 47, 60])
def test_hours_outside_the_forecast_are_left_alone(first: int) -> None:
    seen = as_measured(FORECAST, _measured(first, [25.0] * 5), T0 + 100 * H)
    inside = [h for h in range(first, first + 5) if 0 <= h < 48]
    assert np.flatnonzero(seen.air_c == 25).tolist() == inside


def test_a_quantity_the_forecast_does_not_tell_is_not_brought_in() -> None:
    dry = replace(FORECAST, rain_mm=None)
    assert as_measured(dry, _measured(1, [20.0], rain_mm=[3.0]), T0 + 9 * H).rain_mm is None


def test_how_far_a_forecast_was_off() -> None:
    found = apart(FORECAST, _measured(0, [18.0] * 30, [60.0] * 30), T0 + 30 * H)
    assert found is not None and (found.hours, found.air, found.rh) == (24, 2.0, -10.0)
    assert apart(FORECAST, _measured(0, [18.0] * 5), T0 + 30 * H) is None, "a day ago, and too little"


def test_a_second_file_goes_on_where_the_first_ended_and_says_what_both_know() -> None:
    first = _measured(0, [1.0, 2.0, NAN], rain_mm=[0.5, 0.0, 0.0])
    both = joined(first, _measured(1, [20.0, 30.0, 40.0], [50.0, 51.0, 52.0]), 100)
    assert both.air_c.tolist() == [1, 20, 30, 40] and both.start == T0
    assert both.rain_mm is not None and both.rain_mm[:3].tolist() == [0.5, 0, 0] and np.isnan(both.rain_mm[3])
    assert np.isnan(both.rh_pct[0]) and both.rh_pct[3] == 52
    assert joined(both, _measured(50, [9.0]), 10).start == T0 + 41 * H
