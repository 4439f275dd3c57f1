"""What a job asks for that may take long: its plan, and the first climate of a large one."""

from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import ClassVar, Self

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.domain.errors import InputError
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.progress import Progress
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.context import Context
from amber_gable.services.plan.planning import job_people, keep_better, kept_plan, make_plan, plan_state
from amber_gable.services.plan.solver import Asked, solve_apart
from amber_gable.services.runs.run import Run
from amber_gable.services.state.climate import DAYS, job_climate, known_climate
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.workspace import digest
from amber_gable.store.job.jobs import load_bundle

USUAL_SECONDS = 15.0
"""For which fewer days are looked for when somebody asks."""
LARGE = 150
"""Surfaces still to be computed from which on a page does not do it itself: about a sixth of a second's work."""


class StillRunning(Exception):
    """A page needs what is being worked out; it can be shown when the run is over."""

    def __init__(self, run: Run) -> None:
        super().__init__(run.title)
        self.run = run


def _bundle(ctx: Context, job_id: str) -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, job_id)


def _series(ctx: Context, bundle: JobBundle) -> WeatherSeries:
    series = job_weather(ctx, bundle.property).series
    if series is None:
        raise InputError("plan", "there is no weather to plan with", "finish Weather first")
    return series


@dataclass(frozen=True)
class JobWork:
    """Work for a job; of each kind only the latest is wanted."""

    job_id: str
    kind: ClassVar[str]
    page: ClassVar[str]

    @property
    def key(self) -> str:
        return f"{self.kind}/{self.job_id}"

    @property
    def back(self) -> str:
        return f"/jobs/{self.job_id}/{self.page}"

    @property
    def when_stopped(self) -> str:
        return self.back

    def title(self, ctx: Context) -> str:
        return f"{self.kind.capitalize()} of {_bundle(ctx, self.job_id).job.name}"


@dataclass(frozen=True)
class PlanWork(JobWork):
    """Plan what is left of a job, from now on or from a day that lies ahead. `of` is the digest of the job that it was
    asked for: of a job that was changed since, another plan is wanted."""

    kind, page = "plan", "plan"
    begins: date | None = None
    of: str = ""

    @classmethod
    def asked(cls, bundle: JobBundle, begins: date | None) -> Self:
        return cls(bundle.job.id, begins, digest(bundle, *bundle.noted))

    def do(self, ctx: Context, progress: Progress) -> None:
        bundle = _bundle(ctx, self.job_id)
        old = kept_plan(ctx, bundle)
        make_plan(ctx, bundle, _series(ctx, bundle), self.begins, progress)
        if ctx.space.solve_seconds:
            solved = old.plan.tasks if old is not None and old.plan.found is not None else ()
            before = tuple((t.id, int(t.start.timestamp()), t.people or 0) for t in solved)
            ctx.space.runner.submit(ctx, FewerDays(self.job_id, before))


@dataclass(frozen=True)
class FewerDays(JobWork):
    """Look for a plan with fewer days in the place of the one that is kept, for people who work apart. `before`: when
    tasks began (epoch s) in the plan that people know, and their hands; the new one differs as little as it can."""

    kind, page = "fewer-days", "plan"
    before: tuple[tuple[str, int, int], ...] = ()

    def title(self, ctx: Context) -> str:
        return f"Fewer days for {_bundle(ctx, self.job_id).job.name}"

    def do(self, ctx: Context, progress: Progress) -> None:
        bundle, made_of = _bundle(ctx, self.job_id), plan_state(ctx, self.job_id)
        kept = kept_plan(ctx, bundle)
        if kept is None:
            raise InputError("plan", "there is no plan to better", "plan the job first")
        if kept.out_of_date:
            raise InputError("plan", "the job changed since it was planned", "plan again first")
        begin = datetime.fromtimestamp(kept.begins_at or kept.planned_at, bundle.property.tz)
        people, seconds = job_people(ctx, self.job_id), ctx.space.solve_seconds or USUAL_SECONDS
        before = {id_: (datetime.fromtimestamp(at, UTC), hands) for id_, at, hands in self.before}
        asked = Asked(bundle, _series(ctx, bundle), begin, DAYS, people, seconds, before)
        keep_better(ctx, self.job_id, solve_apart(asked, progress), kept, made_of)


@dataclass(frozen=True)
class ClimateWork(JobWork):
    """Compute the surfaces of a job through the weather, so that its pages find them."""

    kind, page = "climate", "weather"

    @property
    def when_stopped(self) -> str:
        return "/runs"

    def do(self, ctx: Context, progress: Progress) -> None:
        bundle = _bundle(ctx, self.job_id)
        now = ctx.now.astimezone(bundle.property.tz)
        job_climate(ctx, bundle, _series(ctx, bundle), now, progress=progress)


def page_climate(ctx: Context, bundle: JobBundle, series: WeatherSeries, now: datetime) -> SiteClimate:
    """The job's climate for a page: computed at once, but for a large job, whose page does not wait for it.

    Raises NoClimate, and StillRunning where it is being worked out.
    """
    known = known_climate(ctx, bundle, series, now)
    if known.site is not None:
        return known.site
    if known.missing >= LARGE:
        run = ctx.space.runner.submit(ctx, ClimateWork(bundle.job.id))
        if not run.wait(ctx.space.runner.patience):
            raise StillRunning(run)
    return job_climate(ctx, bundle, series, now)
