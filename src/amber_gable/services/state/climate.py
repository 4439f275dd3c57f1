"""The climate of a job's surfaces, each computed once per change of what its heat balance reads."""

from dataclasses import dataclass, replace
from datetime import date, datetime

from amber_gable.core.climate.job_climate import SiteClimate, Surfaces, place_of, site_surfaces
from amber_gable.core.weather.wall.slot_climate import (
    Place,
    PlaceWeather,
    SurfaceClimate,
    place_weather,
    surfaces_through,
)
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.progress import Progress, unseen
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.workspace import digest

DAYS = 13
"""Days looked at: what a forecast of fifteen days leaves after the tail that drying needs."""


def job_surfaces(ctx: Context, bundle: JobBundle) -> Surfaces:
    """Row numbers by part and colour, and the surfaces. Raises NoClimate with nothing to paint."""
    return ctx.space.parts.get("surfaces" + digest(bundle), lambda: site_surfaces(bundle))


def job_climate(
    ctx: Context,
    bundle: JobBundle,
    series: WeatherSeries,
    begin: datetime,
    days: int = DAYS,
    progress: Progress = unseen,
) -> SiteClimate:
    """Surfaces and windows of the job for `days` days from the local date of `begin`. Raises NoClimate.

    Each surface is kept by itself: an edit of one computes one, and jobs at the same place share what is alike.
    """
    row, surfaces = job_surfaces(ctx, bundle)
    place = place_of(bundle.property)
    key = _weather_key(place, series, begin, days)
    weather = ctx.space.computed.get(key, lambda: _with_shared_lead(ctx, place_weather(place, series, begin, days)))

    def missing(which: list[int]) -> list[SurfaceClimate]:
        return surfaces_through(weather, [surfaces[n] for n in which], progress)

    found = ctx.space.computed.get_all([(key, s) for s in surfaces], missing)
    return SiteClimate(bundle, weather, tuple(found), row)


def _with_shared_lead(ctx: Context, weather: PlaceWeather) -> PlaceWeather:
    """The weeks before are the same for every forecast of a day: what was computed through them is kept with them."""
    lead = weather.steps.lead
    if lead is None:
        return weather
    key = "weeks before" + digest(
        lead.start, lead.air, lead.vapour, lead.wind, lead.cloud, lead.falling, lead.light.ghi
    )
    shared = ctx.space.computed.get(key, lambda: lead)
    return replace(weather, steps=replace(weather.steps, lead=shared))


@dataclass(frozen=True)
class KnownClimate:
    """What is there of a job's climate without computing: all of it, or how many surfaces are `missing`."""

    site: SiteClimate | None
    missing: int


def known_climate(
    ctx: Context, bundle: JobBundle, series: WeatherSeries, begin: datetime, days: int = DAYS
) -> KnownClimate:
    """Nothing is computed for it, and nobody waited for."""
    if not bundle.property.parts:
        return KnownClimate(None, 0)
    row, surfaces = job_surfaces(ctx, bundle)
    key = _weather_key(place_of(bundle.property), series, begin, days)
    weather = ctx.space.computed.known(key)
    known = [s for s in (ctx.space.computed.known((key, s)) for s in surfaces) if s is not None]
    missing = len(surfaces) - len(known)
    site = None if weather is None or missing else SiteClimate(bundle, weather, tuple(known), row)
    return KnownClimate(site, missing)


def _weather_key(place: Place, series: WeatherSeries, begin: datetime, days: int) -> str:
    """What the weather of a place is worked out from. With a surface it is all that the heat balance reads: no name,
    note, window or other year of building computes anew."""
    day: date = begin.astimezone(place.tz).date()
    return "weather" + digest(place, series, day, days)
