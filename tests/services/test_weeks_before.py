"""A forecast that tells little of the weeks before it is run back by those that were had then."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from amber_gable.domain.weather.series import HOUR, WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.weather.held.before import with_weeks_before
from amber_gable.store.weather.versions import keep_version
from tests.weather_cases import steady

PLACE = "14-coopers-rise"


def _had(ctx: Context, days_ago: int, air_c: float, **more: float) -> WeatherSeries:
    """A forecast of ten days from then on, of one and the same air."""
    begin = ctx.now - timedelta(days=days_ago)
    begin = begin.replace(minute=0, second=0, microsecond=0)
    return replace(steady(begin, 240, air_c=air_c, **more), issued=int(begin.timestamp()))


@pytest.mark.parametrize("asked_on", [(40, 36, 31, 25, 20, 15, 10, 6, 3), (3,), ()], ids=["often", "once", "never"])
def test_it_goes_back_as_far_as_forecasts_were_had(ctx: Context, asked_on: tuple[int, ...]) -> None:
    for days_ago in asked_on:
        with ctx.writing() as session:
            at = int((ctx.now - timedelta(days=days_ago)).timestamp())
            keep_version(session, PLACE, "forecast", _had(ctx, days_ago, float(days_ago)), at)
    now = _had(ctx, 0, 20.0)
    long = with_weeks_before(ctx, PLACE, now, ctx.now)
    back_days = (now.start - long.start) // (24 * HOUR)
    assert back_days == (0 if not asked_on else 3 if asked_on == (3,) else 31)
    assert len(long) == len(now) + 24 * back_days and (long.air_c[-len(now) :] == now.air_c).all()
    if back_days > 3:
        told = long.air_c[: 24 * back_days : 24]
        assert sorted(set(told.tolist()), reverse=True) == [31.0, 25.0, 20.0, 15.0, 10.0, 6.0, 3.0]
        assert (np.diff(told) <= 0).all(), "each day by the forecast that was the newest a day before"


def test_what_lacks_a_quantity_is_not_joined(ctx: Context) -> None:
    with ctx.writing() as session:
        keep_version(session, PLACE, "forecast", _had(ctx, 3, 9.0), int((ctx.now - timedelta(days=3)).timestamp()))
    now = _had(ctx, 0, 20.0, rain_pct=10.0)
    assert with_weeks_before(ctx, PLACE, now, ctx.now) is now


def test_where_the_forecast_of_the_day_before_is_missing_the_last_one_before_is_taken(ctx: Context) -> None:
    """Eight days ago a forecast of three days was had, which ends long before; twelve hours ago another."""
    short = _had(ctx, 8, 9.0)
    short = short.take(np.arange(72), short.start)
    for series, ago_h in ((replace(short, issued=short.start), 8 * 24), (_had(ctx, 1, 11.0), 12)):
        with ctx.writing() as session:
            keep_version(session, PLACE, "forecast", series, int((ctx.now - timedelta(hours=ago_h)).timestamp()))
    now = _had(ctx, 0, 20.0)
    assert (now.start - with_weeks_before(ctx, PLACE, now, ctx.now).start) // (24 * HOUR) == 1
