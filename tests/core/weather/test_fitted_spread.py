"""The spread of a source's futures, fitted to what was measured where its forecasts were for."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from amber_gable.core.weather.futures.ensemble import draw_members, spread
from amber_gable.core.weather.futures.fitted import MOST, fitted_spread
from amber_gable.domain.weather.series import HOUR, WeatherSeries
from tests.weather_cases import steady, utc

FIRST = utc("2026-05-01")


def _measured(days: int) -> WeatherSeries:
    hours = np.arange(24 * days)
    return replace(steady(FIRST, 24 * days), air_c=14.0 + 6.0 * np.sin(2 * np.pi * (hours - 9) / 24))


def _told(real: WeatherSeries, days: int, scale: float, bias: float = 0.0) -> list[WeatherSeries]:
    """Forecasts of every noon, off by `scale` times what is assumed of any service."""
    out = []
    for day in range(1, days):
        first = 24 * day + 12
        count = min(240, len(real) - first)
        issued = int((FIRST + timedelta(hours=first)).timestamp())
        here = replace(real.take(np.arange(first, first + count), issued), issued=issued, doubt=scale)
        off = draw_members(here, 2, seed=day)[1].air_c - here.air_c
        out.append(replace(here, air_c=here.air_c + off + bias, doubt=1.0))
    return out


@pytest.mark.parametrize(
    ("days", "scale", "least", "most"),
    [(60, 1.0, 0.85, 1.15), (60, 1.6, 1.4, 1.7), (60, 0.6, 0.6, 0.8), (5, 2.0, 1.05, 1.95), (60, 6.0, MOST, MOST)],
    ids=["as assumed", "wider", "narrower", "little was measured: held towards one", "never beyond twice"],
)
def test_the_factor_is_that_of_the_errors(days: int, scale: float, least: float, most: float) -> None:
    real = _measured(days)
    fit = fitted_spread(_told(real, days, scale), real)
    assert fit is not None and least <= fit.factor <= most
    assert [lead.first for lead in fit.leads] == [3, 24, 72]
    for lead in fit.leads if days == 60 else ():
        middle = spread("state", np.array([(lead.first + lead.end) / 2]))
        assert lead.assumed_k == pytest.approx(float(middle[0]), rel=0.25)


def test_a_bias_is_told_and_widens() -> None:
    real = _measured(60)
    fit = fitted_spread(_told(real, 60, 1.0, bias=2.0), real)
    assert fit is not None and fit.factor > 1.2
    assert all(1.5 < lead.bias_k < 2.5 for lead in fit.leads)


def test_hours_that_were_not_measured_count_for_nothing() -> None:
    real = _measured(30)
    holes = np.where(np.arange(len(real)) % 24 < 20, np.nan, real.air_c)
    whole, some = (fitted_spread(_told(real, 30, 1.6), replace(real, air_c=air)) for air in (real.air_c, holes))
    assert whole is not None and some is not None
    assert some.cases < 0.25 * whole.cases and 1.0 < some.factor < whole.factor + 0.1
    assert fitted_spread(_told(real, 30, 1.6), replace(real, air_c=np.full(len(real), np.nan))) is None
    later = replace(real, start=real.start + 400 * 24 * HOUR)
    assert fitted_spread(_told(real, 30, 1.6), later) is None
