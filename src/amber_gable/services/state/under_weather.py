"""How a job and its plan stand at a moment under one weather, and what threatens the plan; worked out once for all who
ask within a minute."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property, partial

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.threats import Threat, Warned, threats, warned_by
from amber_gable.core.specification.cautions.stops import Stop, gathered, part_stops, vinyl_stops
from amber_gable.core.state.job_state import Board, JobState, board, job_state, surroundings
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.job.part_digests import part_digests
from amber_gable.services.plan.planning import KeptPlan, kept_plan
from amber_gable.services.state.climate import job_climate
from amber_gable.services.workspace import digest
from amber_gable.store.job.jobs import jobs_on, load_bundle


def kept_parts(ctx: Context, bundle: JobBundle) -> dict[Key, PaintedPart]:
    """What is painted, with its areas; computed once per change of the job."""
    key = "painted" + digest(bundle)
    return ctx.space.parts.get(key, lambda: painted_parts(bundle.property, bundle.deduction))


@dataclass(frozen=True)
class JobUnderWeather:
    """A job at `now` on the climate of `series`, with the plan it works to (None where it has none)."""

    ctx: Context
    bundle: JobBundle
    site: SiteClimate
    series: WeatherSeries
    now: datetime
    kept: KeptPlan | None

    @cached_property
    def _key(self) -> str:
        """What the state of parts and plan is worked out from. Waits end at a minute: within one all stands."""
        plan = self.kept.plan if self.kept is not None else None
        minute = int(self.now.timestamp()) // 60
        return digest(self.bundle, *self.bundle.noted, self.series, plan, minute)

    @property
    def state(self) -> JobState:
        """Every part as it stands."""
        plan = None if self.kept is None else self.kept.plan

        def work_out() -> JobState:
            stops = _by_part(kept_stops(self.ctx, self.bundle))
            parts = kept_parts(self.ctx, self.bundle)
            return job_state(surroundings(self.site, self.now, stops, parts), plan)

        return self.ctx.space.standing.get("state" + self._key, work_out)

    @property
    def board(self) -> Board | None:
        """The plan as it stands; None without a plan."""
        kept, state = self.kept, self.state
        if kept is None:
            return None
        return self.ctx.space.standing.get("board" + self._key, lambda: board(state, kept.plan))

    @property
    def threats(self) -> tuple[Threat, ...]:
        """What threatens the plan. One that is out of date is not held against the weather: it is to be made anew."""
        kept, held = self.kept, self.board
        if kept is None or held is None or kept.out_of_date:
            return ()
        key = "threats" + digest(self._key, kept.warned)
        return self.ctx.space.standing.get(key, lambda: threats(self.site, held, self.now, kept.warned))


def _by_part(stops: Sequence[Stop]) -> Mapping[Key, Sequence[Stop]]:
    out: dict[Key, list[Stop]] = {}
    for stop in stops:
        out.setdefault(stop.part, []).append(stop)
    return out


def warned_under(ctx: Context, property_id: str, series: WeatherSeries, now: datetime) -> dict[str, tuple[Warned, ...]]:
    """What the plans on a property are warned of under a forecast that another is about to replace, by job. Kept with
    the plans, a warning neither comes nor goes with what is only the noise between two forecasts."""
    with ctx.reading() as session:
        bundles = [load_bundle(session, job_id) for job_id in jobs_on(session, property_id)]
    out = {}
    for bundle in bundles:
        kept = kept_plan(ctx, bundle)
        if kept is None or kept.out_of_date:
            continue
        here = now.astimezone(bundle.property.tz)
        try:
            site = job_climate(ctx, bundle, series, here)
        except NoClimate:
            # The old forecast does not reach now: it says nothing to go on from.
            continue
        out[bundle.job.id] = warned_by(JobUnderWeather(ctx, bundle, site, series, here, kept).threats)
    return out


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
