"""The plan of a job: made, kept, and held against the job as it is now."""

from dataclasses import dataclass
from datetime import date, datetime, time

from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.problem import plan_problem
from amber_gable.core.plan.threats import Warned
from amber_gable.domain.errors import InputError
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.progress import Progress, unseen, within
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.people import Person
from amber_gable.services.context import Context
from amber_gable.services.state.climate import DAYS, job_climate
from amber_gable.services.workspace import digest
from amber_gable.store.company.crews import hands_of
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.plans import load_plan, save_plan
from amber_gable.store.transaction import Transaction


def job_people(ctx: Context, job_id: str) -> tuple[Person, ...]:
    """The hands of a job's crew. Raises NotFound."""
    with ctx.reading() as session:
        return hands_of(session, job_id)


def fresh_plan(
    ctx: Context, bundle: JobBundle, series: WeatherSeries, begin: datetime, progress: Progress = unseen
) -> Plan:
    """The plan that today's weather gives for what is left of the job."""

    def made() -> Plan:
        site = job_climate(ctx, bundle, series, begin, progress=within(progress, 0.0, 0.2))
        return plan_job(site, begin, within(progress, 0.2, 1.0), people)

    people = job_people(ctx, bundle.job.id)
    return ctx.space.computed.get("plan" + digest(bundle, people, *bundle.noted, series, begin, DAYS), made)


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
    people = job_people(ctx, bundle.job.id)
    fingerprint = ctx.space.computed.get(
        "fingerprint" + digest(bundle, people, *bundle.missing_lines), lambda: plan_problem(bundle, people).fingerprint
    )
    changed = found.fingerprint != fingerprint
    return KeptPlan(found.plan, found.planned_at, found.begins_at, changed, found.older, found.warned)


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
        made_of = plan_problem(bundle, hands_of(session, bundle.job.id)).fingerprint
        save_plan(session, bundle.job.id, plan, made_of, int(now.timestamp()), begins_at)
    return plan


def keep_better(ctx: Context, job_id: str, plan: Plan, instead_of: KeptPlan, made_of: str) -> bool:
    """Keep a plan in the place of the one it was to better, unless it is worse. Raises InputError where the job, its
    record or its plan is no longer the one it was made for (`made_of`, see `plan_state`)."""
    with ctx.writing() as session:
        found = load_plan(session, job_id)
        if found is None or found.planned_at != instead_of.planned_at or _state(session, job_id) != made_of:
            why = "the job, its record or its plan changed while fewer days were looked for; nothing was kept"
            raise InputError("plan", why, "plan again")
        if _cost(plan) > _cost(instead_of.plan):
            return False
        save_plan(session, job_id, plan, found.fingerprint, found.planned_at, found.begins_at)
    return True


def _cost(plan: Plan) -> tuple[int, int, int]:
    return len(plan.unplaced), plan.finish.toordinal() if plan.finish is not None else 0, plan.site_days


def plan_state(ctx: Context, job_id: str) -> str:
    """A digest of all that a plan is made from but the weather."""
    with ctx.reading() as session:
        return _state(session, job_id)


def _state(session: Transaction, job_id: str) -> str:
    bundle = load_bundle(session, job_id)
    return digest(bundle, hands_of(session, job_id), *bundle.noted)
