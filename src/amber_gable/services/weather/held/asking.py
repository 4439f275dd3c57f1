"""The weather a job is judged by: what is held, after asking the forecast provider where that has grown old."""

from datetime import datetime

from amber_gable.domain.house.survey import Property
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.forecast import ForecastProvider, ForecastUnavailable
from amber_gable.services.context import Context
from amber_gable.services.state.under_weather import warned_under
from amber_gable.services.weather.held.forecasts import (
    FRESH_H,
    NO_SERVICE,
    Weather,
    age_h,
    held_series,
    may_ask,
    of_another,
    with_measured,
)
from amber_gable.services.weather.held.sources import provider_of
from amber_gable.services.workspace import LastAsked
from amber_gable.store.job.plans import save_warned
from amber_gable.store.weather.series import save_series
from amber_gable.store.weather.versions import keep_version

LEAST_AHEAD_S = 72 * 3600
"""An answer shorter than this does not take the place of one that reaches further."""


def job_weather(ctx: Context, property_: Property, *, insist: bool = False) -> Weather:
    """The weather in use. Asks the provider when the forecast is older than an hour: at most once a minute after a
    failure and every ten minutes of one that stays old, unless the user insists. What the provider cannot give leaves
    the last forecast in use, and `trouble` says so until it can."""
    now = ctx.now
    brought, held = held_series(ctx, property_, now)
    if brought is not None:
        return with_measured(ctx, property_, brought, now)
    provider = provider_of(ctx, property_.id)
    if provider is None:
        return with_measured(ctx, property_, Weather(held, False, age_h(held, now), NO_SERVICE), now)
    asked = ctx.space.asked.get(property_.id)
    age = age_h(held, now)
    other = of_another(ctx, asked)
    old = other or age is None or not 0 <= age < FRESH_H
    if insist or (old and may_ask(asked, now)):
        held, trouble = _ask(provider, ctx, property_, held, now, other=other)
        asked = ctx.space.asked[property_.id] = LastAsked(now.timestamp(), trouble)
    elif old:
        # Another page may have asked and saved the answer since this one began to read.
        ctx.look_again()
        _, held = held_series(ctx, property_, now)
    told = Weather(held, False, age_h(held, now), asked.trouble if asked else None)
    return with_measured(ctx, property_, told, now)


def _ask(
    provider: ForecastProvider,
    ctx: Context,
    property_: Property,
    held: WeatherSeries | None,
    now: datetime,
    *,
    other: bool,
) -> tuple[WeatherSeries | None, str | None]:
    try:
        series = provider.forecast(property_.latitude, property_.longitude, now.astimezone(property_.tz))
    except ForecastUnavailable as error:
        return held, str(error)
    fault = _no_use(series, None if other else held, now)
    if fault is not None:
        return held, fault
    warned = {}
    if held is not None:
        under = with_measured(ctx, property_, Weather(held, False, None, None), now).series or held
        warned = warned_under(ctx, property_.id, under, now)
    with ctx.writing() as session:
        for job_id, found in warned.items():
            save_warned(session, job_id, found)
        save_series(session, property_.id, "forecast", series)
        keep_version(session, property_.id, "forecast", series, int(now.timestamp()))
    return series, None


def _no_use(series: WeatherSeries, held: WeatherSeries | None, now: datetime) -> str | None:
    """Why an answer is not taken in place of the forecast held; None where it is."""
    here = now.timestamp()
    if not series.start <= here < series.end:
        return "the forecast service sent hours that do not reach now"
    held_reaches = held.end if held is not None and held.start <= here < held.end else 0
    if series.end < min(here + LEAST_AHEAD_S, held_reaches):
        return f"the forecast service sent only {(series.end - here) / 3600:.0f} h from now"
    return None
