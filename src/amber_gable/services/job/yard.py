"""The day over all jobs: what is planned on each for today, and what waits for whoever runs them."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from amber_gable.domain.errors import NotFound
from amber_gable.domain.job.listed_job import Front, ListedJob
from amber_gable.domain.job.plan import Task
from amber_gable.services.context import Context
from amber_gable.services.job.stages import STAGES, lacking
from amber_gable.services.job.view import job_view
from amber_gable.store.job.fronts import Elsewhere, job_fronts, listed_jobs
from amber_gable.store.job.plans import tasks_between


@dataclass(frozen=True)
class DayWork:
    """What one job's plan holds for its own today, in the order of the clock."""

    job: ListedJob
    tasks: tuple[Task, ...]

    @property
    def begins(self) -> datetime:
        return self.tasks[0].start.astimezone(self.job.tz)

    @property
    def ends(self) -> datetime:
        return max(t.end for t in self.tasks).astimezone(self.job.tz)

    @property
    def faces(self) -> list[str]:
        """In the order in which they are come to."""
        return list(dict.fromkeys(t.face_name for t in self.tasks))


@dataclass(frozen=True)
class Yard:
    """Every job on the board, oldest first; those that have work today, the first to begin first; and ids and
    names of those kept elsewhere."""

    jobs: list[ListedJob]
    today: list[DayWork]
    elsewhere: Elsewhere


def yard_now(ctx: Context) -> Yard:
    """All that is read, read in one go."""
    now = ctx.now
    with ctx.reading() as session:
        jobs, elsewhere = listed_jobs(session, int(now.timestamp()))
        tasks = tasks_between(session, now - timedelta(days=1), now + timedelta(days=1))
    return Yard(jobs, _today(jobs, tasks, now), elsewhere)


def fronts_of(ctx: Context, jobs: list[ListedJob]) -> dict[str, Front]:
    """What is drawn of these jobs, by their ids."""
    with ctx.reading() as session:
        return job_fronts(session, jobs)


def _today(jobs: list[ListedJob], found: dict[str, list[Task]], now: datetime) -> list[DayWork]:
    out = []
    for job in jobs:
        today = now.astimezone(job.tz).date()
        mine = [t for t in found.get(job.id, []) if t.start.astimezone(job.tz).date() == today]
        if mine:
            out.append(DayWork(job, tuple(mine)))
    return sorted(out, key=lambda w: w.begins)


@dataclass(frozen=True)
class Waiting:
    """One stage that waits for somebody, in the words of the rail; `path` of its page below the job's."""

    stage: str
    path: str
    words: str


def what_waits(ctx: Context, job_id: str) -> list[Waiting]:
    """What a job lacks stage by stage; one that is planned is held against its weather. [] for one that is gone."""
    try:
        view = job_view(ctx, job_id, waits=True)
    except NotFound:
        return []
    planned = view.kept is not None and bool(view.kept.plan.tasks) and view.kept.plan.tasks[-1].end > view.now
    lacks = lacking(view, weather=planned)
    return [Waiting(s.name, s.path, lacks[s.path]) for s in STAGES if s.path in lacks]
