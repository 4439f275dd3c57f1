"""The weather that is held for a place: an imported file if there is one, else the newest forecast that was had."""

from dataclasses import dataclass, replace
from datetime import datetime

from amber_gable.core.weather.outdoors.diurnal import told_until
from amber_gable.core.weather.outdoors.observed import as_measured
from amber_gable.domain.house.survey import Property
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.weather.held.before import with_weeks_before
from amber_gable.services.weather.held.sources import provider_of
from amber_gable.services.weather.held.spread import as_sure_as_measured
from amber_gable.services.workspace import LastAsked
from amber_gable.store.weather.series import load_series

FRESH_H = 1.0
RETRY_S = 60.0
AGAIN_S = 600.0


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


def with_measured(ctx: Context, property_: Property, told: Weather, now: datetime) -> Weather:
    """A forecast with the weeks before it, as far as they are known, and with what loggers measured of its hours that
    are over; a file stays as it is."""
    if told.series is None or told.from_file:
        return told
    told = replace(told, series=with_weeks_before(ctx, property_.id, told.series, now))
    assert told.series is not None
    with ctx.reading() as session:
        measured = load_series(session, property_.id, "observed")
    if measured is None:
        return told
    series = as_measured(told.series, measured, int(now.timestamp()))
    if not told.typed:
        series = as_sure_as_measured(ctx, property_.id, series, now)
    return replace(told, series=series, told=told.series, measured=measured)


def known_weather(ctx: Context, property_: Property) -> Weather | None:
    """The weather in use where nobody need be asked for it; None where the provider is to be asked."""
    now = ctx.now
    brought, held = held_series(ctx, property_, now)
    if brought is not None:
        return with_measured(ctx, property_, brought, now)
    asked, age = ctx.space.asked.get(property_.id), age_h(held, now)
    provider = provider_of(ctx, property_.id)
    fresh = age is not None and 0 <= age < FRESH_H and not of_another(ctx, asked)
    if provider is None or fresh or not may_ask(asked, now):
        told = Weather(held, False, age, NO_SERVICE if provider is None else asked.trouble if asked else None)
        return with_measured(ctx, property_, told, now)
    return None


def held_series(ctx: Context, property_: Property, now: datetime) -> tuple[Weather | None, WeatherSeries | None]:
    """What somebody brought, a file before what was typed, as long as it reaches now; and the last forecast."""
    with ctx.reading() as session:
        filed = load_series(session, property_.id, "file")
        if filed is not None:
            return Weather(filed, True, None, None), None
        typed = load_series(session, property_.id, "typed")
        if typed is not None and now.timestamp() < told_until(typed):
            return Weather(typed, False, age_h(typed, now), None, typed=True), None
        return None, load_series(session, property_.id, "forecast")


def age_h(series: WeatherSeries | None, now: datetime) -> float | None:
    return None if series is None or series.issued is None else (now.timestamp() - series.issued) / 3600


def of_another(ctx: Context, asked: LastAsked | None) -> bool:
    """Whether what is held may be of another than is asked now, who was not asked yet."""
    return ctx.space.switched and asked is None


def may_ask(asked: LastAsked | None, now: datetime) -> bool:
    wait = 0.0 if asked is None else RETRY_S if asked.trouble else AGAIN_S
    return asked is None or abs(now.timestamp() - asked.at) >= wait
