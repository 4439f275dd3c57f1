"""The weather a job is judged by: an imported file if there is one, else the newest forecast that could be had."""

from dataclasses import dataclass, replace
from datetime import datetime

from amber_gable.core.weather.diurnal import told_until
from amber_gable.core.weather.observed import as_measured
from amber_gable.domain.survey import Property
from amber_gable.domain.weather import WeatherSeries
from amber_gable.exchange.forecast import ForecastProvider, ForecastUnavailable
from amber_gable.services.context import Context
from amber_gable.services.weather.sources import provider_of
from amber_gable.services.workspace import Asked
from amber_gable.store.forecast_versions import keep_version
from amber_gable.store.weather import load_series, save_series

FRESH_H = 1.0
RETRY_S = 60.0
AGAIN_S = 600.0
LEAST_AHEAD_S = 72 * 3600
"""An answer shorter than this does not take the place of one that reaches further."""


NO_SERVICE = "no forecast service is set up: type a forecast or import a weather file"


@dataclass(frozen=True)
class Weather:
    """A series and how far to trust it. `trouble` says why nothing newer is in use. `measured`: what was laid over the
    hours of a forecast that are over, and `told` that forecast as it was."""

    series: WeatherSeries | None
    from_file: bool
    age_h: float | None
    trouble: str | None
    typed: bool = False
    told: WeatherSeries | None = None
    measured: WeatherSeries | None = None


def job_weather(ctx: Context, property_: Property, *, insist: bool = False) -> Weather:
    """The weather in use. Asks the provider when the forecast is older than an hour: at most once a minute after a
    failure and every ten minutes of one that stays old, unless the user insists. What the provider cannot give leaves
    the last forecast in use, and `trouble` says so until it can."""
    now = ctx.now
    brought, held = _held(ctx, property_, now)
    if brought is not None:
        return _as_measured(ctx, property_, brought, now)
    provider = provider_of(ctx, property_.id)
    if provider is None:
        return _as_measured(ctx, property_, Weather(held, False, _age_h(held, now), NO_SERVICE), now)
    asked = ctx.space.asked.get(property_.id)
    age = _age_h(held, now)
    other = _of_another(ctx, asked)
    old = other or age is None or not 0 <= age < FRESH_H
    if insist or (old and _may_ask(asked, now)):
        held, trouble = _ask(provider, ctx, property_, held, now, other=other)
        asked = ctx.space.asked[property_.id] = Asked(now.timestamp(), trouble)
    elif old:
        # Another page may have asked and saved the answer since this one began to read.
        ctx.look_again()
        _, held = _held(ctx, property_, now)
    told = Weather(held, False, _age_h(held, now), asked.trouble if asked else None)
    return _as_measured(ctx, property_, told, now)


def _as_measured(ctx: Context, property_: Property, told: Weather, now: datetime) -> Weather:
    """A forecast with what loggers measured of its hours that are over; a file stays as it is."""
    if told.series is None or told.from_file:
        return told
    with ctx.reading() as session:
        measured = load_series(session, property_.id, "observed")
    if measured is None:
        return told
    series = as_measured(told.series, measured, int(now.timestamp()))
    return replace(told, series=series, told=told.series, measured=measured)


def known_weather(ctx: Context, property_: Property) -> Weather | None:
    """The weather in use where nobody need be asked for it; None where the provider is to be asked."""
    now = ctx.now
    brought, held = _held(ctx, property_, now)
    if brought is not None:
        return _as_measured(ctx, property_, brought, now)
    asked, age = ctx.space.asked.get(property_.id), _age_h(held, now)
    provider = provider_of(ctx, property_.id)
    fresh = age is not None and 0 <= age < FRESH_H and not _of_another(ctx, asked)
    if provider is None or fresh or not _may_ask(asked, now):
        told = Weather(held, False, age, NO_SERVICE if provider is None else asked.trouble if asked else None)
        return _as_measured(ctx, property_, told, now)
    return None


def _held(ctx: Context, property_: Property, now: datetime) -> tuple[Weather | None, WeatherSeries | None]:
    """What somebody brought, a file before what was typed, as long as it reaches now; and the last forecast."""
    with ctx.reading() as session:
        filed = load_series(session, property_.id, "file")
        if filed is not None:
            return Weather(filed, True, None, None), None
        typed = load_series(session, property_.id, "typed")
        if typed is not None and now.timestamp() < told_until(typed):
            return Weather(typed, False, _age_h(typed, now), None, typed=True), None
        return None, load_series(session, property_.id, "forecast")


def _age_h(series: WeatherSeries | None, now: datetime) -> float | None:
    return None if series is None or series.issued is None else (now.timestamp() - series.issued) / 3600


def _of_another(ctx: Context, asked: Asked | None) -> bool:
    """Whether what is held may be of another than is asked now, who was not asked yet."""
    return ctx.space.switched and asked is None


def _may_ask(asked: Asked | None, now: datetime) -> bool:
    wait = 0.0 if asked is None else RETRY_S if asked.trouble else AGAIN_S
    return asked is None or abs(now.timestamp() - asked.at) >= wait


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
    with ctx.writing() as session:
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
