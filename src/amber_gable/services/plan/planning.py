"""Climate and plan of a job, computed once per change of its inputs."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import date, datetime, time
from functools import partial

from amber_gable.core.climate.job_climate import SiteClimate, Surfaces, place_of, site_surfaces
from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.fingerprint import plan_fingerprint
from amber_gable.core.plan.threats import Threat, Warned, warned_by
from amber_gable.core.specification.stops import Stop, gathered, part_stops, vinyl_stops
from amber_gable.core.survey.painted import painted_parts
from amber_gable.core.weather.slot_climate import Place, SurfaceClimate, place_weather, surfaces_through
from amber_gable.domain.job import JobBundle
from amber_gable.domain.plan import Plan
from amber_gable.domain.progress import Progress, unseen, within
from amber_gable.domain.weather import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.part_digests import part_digests
from amber_gable.services.workspace import digest
from amber_gable.store.plans import load_plan, save_plan, save_warned

DAYS = 13
"""Days planned ahead: what a forecast of fifteen days leaves after the tail that drying needs."""


def job_surfaces(ctx: Context, bundle: JobBundle) -> Surfaces:
    """Row numbers by part and colour, and the surfaces. Raises NoClimate without zones."""
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
    weather = ctx.space.computed.get(key, lambda: place_weather(place, series, begin, days))

    def missing(which: list[int]) -> list[SurfaceClimate]:
        return surfaces_through(weather, [surfaces[n] for n in which], progress)

    found = ctx.space.computed.get_all([(key, s) for s in surfaces], missing)
    return SiteClimate(bundle, weather, tuple(found), row)


@dataclass(frozen=True)
class KnownClimate:
    """What is there of a job's climate without computing: all of it, or how many surfaces are `missing`."""

    site: SiteClimate | None
    missing: int


def known_climate(
    ctx: Context, bundle: JobBundle, series: WeatherSeries, begin: datetime, days: int = DAYS
) -> KnownClimate:
    """Nothing is computed for it, and nobody waited for."""
    if not bundle.property.zones:
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


def kept_stops(ctx: Context, bundle: JobBundle) -> tuple[Stop, ...]:
    """What stops parts of the job, part by part; computed once per change of what it reads."""

    def each() -> tuple[Stop, ...]:
        parts, read = painted_parts(bundle.property, bundle.deduction), part_digests(ctx, bundle)
        found = {
            f.part: ctx.space.parts.get("stops" + read[f.part], partial(part_stops, bundle, parts[f.part], f))
            for f in bundle.job.finishes
        }
        return tuple(s for stops in gathered(found, vinyl_stops(bundle)).values() for s in stops)

    return ctx.space.parts.get("stops-of-all" + digest(bundle), each)


def fresh_plan(
    ctx: Context, bundle: JobBundle, series: WeatherSeries, begin: datetime, progress: Progress = unseen
) -> Plan:
    """The plan that today's weather gives for what is left of the job."""

    def made() -> Plan:
        site = job_climate(ctx, bundle, series, begin, progress=within(progress, 0.0, 0.2))
        return plan_job(site, begin, within(progress, 0.2, 1.0))

    return ctx.space.computed.get("plan" + digest(bundle, *bundle.job.record, series, begin, DAYS), made)


@dataclass(frozen=True)
class KeptPlan:
    """The plan the crew works to. `job_changed`: the job is no longer the one it was made for; `older`: made by a
    version that kept no record of work; `begins_at`: the day it was asked to begin, where that lay ahead."""

    plan: Plan
    planned_at: int
    begins_at: int | None
    job_changed: bool
    older: bool
    warned: tuple[Warned, ...]

    @property
    def out_of_date(self) -> bool:
        return self.job_changed or self.older


def kept_plan(ctx: Context, bundle: JobBundle) -> KeptPlan | None:
    """The stored plan, held against the job as it is now."""
    with ctx.reading() as session:
        found = load_plan(session, bundle.job.id)
    if found is None:
        return None
    fingerprint = ctx.space.computed.get("fingerprint" + digest(bundle), lambda: plan_fingerprint(bundle))
    changed = found.fingerprint != fingerprint
    return KeptPlan(found.plan, found.planned_at, found.begins_at, changed, found.older, found.warned)


def remember(ctx: Context, job_id: str, kept: KeptPlan, found: Collection[Threat]) -> None:
    """Keep what the plan is warned of, so that a warning neither comes nor goes with the noise of a forecast. A page
    that looks again changes nothing."""
    warned = warned_by(found)
    if warned != kept.warned:
        with ctx.writing() as session:
            save_warned(session, job_id, warned)


def make_plan(
    ctx: Context,
    bundle: JobBundle,
    series: WeatherSeries,
    begins: date | None = None,
    progress: Progress = unseen,
) -> Plan:
    """Plan what is left and keep it as the job's plan: from now on, or from the beginning of a day that lies ahead.
    Raises NoClimate where the weather does not reach that day."""
    now = ctx.now
    begin, begins_at = now, None
    if begins is not None and begins > now.astimezone(bundle.property.tz).date():
        begin = datetime.combine(begins, time(), bundle.property.tz)
        begins_at = int(begin.timestamp())
    plan = fresh_plan(ctx, bundle, series, begin, progress)
    progress(1.0, "keeping the plan")
    with ctx.writing() as session:
        save_plan(session, bundle.job.id, plan, plan_fingerprint(bundle), int(now.timestamp()), begins_at)
    return plan
