"""The plan a job works to."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select

from amber_gable.domain.job.plan import Found, Plan, Task, Unplaced
from amber_gable.store.job.jobs import on_board
from amber_gable.store.tables import JobRow, PlanRow, TaskRow
from amber_gable.store.transaction import Transaction


def save_plan(
    session: Transaction, job_id: str, plan: Plan, fingerprint: str, planned_at: int, begins_at: int | None = None
) -> None:
    """Replace the job's plan. It begins under no warning."""
    old = session.get(PlanRow, job_id)
    if old is not None:
        session.delete(old)
        session.flush()
    unplaced = [u.model_dump(mode="json") for u in plan.unplaced]
    made: dict[str, Any] = {"fingerprint": fingerprint, "planned_at": planned_at, "begins_at": begins_at}
    made["found"] = None if plan.found is None else plan.found.model_dump(mode="json")
    session.add(PlanRow(job_id=job_id, unplaced=unplaced, **made))
    session.flush()
    for i, task in enumerate(plan.tasks):
        session.add(
            TaskRow(
                job_id=job_id,
                id=task.id,
                position=i,
                starts_at=int(task.start.timestamp()),
                ends_at=int(task.end.timestamp()),
                details=task.model_dump(mode="json"),
            )
        )


@dataclass(frozen=True)
class StoredPlan:
    """A plan, when it was made (epoch s), the fingerprint of what it was made from, the day it was asked to begin
    (epoch s) where that lay ahead, and what it is warned of."""

    plan: Plan
    planned_at: int
    fingerprint: str
    begins_at: int | None
    warned: tuple[tuple[str, str], ...]

    @property
    def older(self) -> bool:
        """Made by a version whose tasks do not say what they are made of."""
        return any(t.extent is None for t in self.plan.tasks)


def save_warned(session: Transaction, job_id: str, warned: Iterable[tuple[str, str]]) -> None:
    """What the plan is warned of now; nothing happens where it was replaced meanwhile by none."""
    row = session.get(PlanRow, job_id)
    if row is not None:
        found = [list(pair) for pair in warned]
        if row.warned != found:
            row.warned = found


def load_plan(session: Transaction, job_id: str) -> StoredPlan | None:
    scopes = (f"plan:{job_id}",)
    return session.kept.get(session, ("plan", job_id), scopes, lambda: (_read_plan(session, job_id),))[0]


def _read_plan(session: Transaction, job_id: str) -> StoredPlan | None:
    row = session.get(PlanRow, job_id)
    if row is None:
        return None
    rows = session.scalars(select(TaskRow).where(TaskRow.job_id == job_id).order_by(TaskRow.position))
    tasks = tuple(Task.model_validate(r.details) for r in rows)
    unplaced = tuple(Unplaced.model_validate(u) for u in row.unplaced)
    found = None if row.found is None else Found.model_validate(row.found)
    plan = Plan(tasks=tasks, unplaced=unplaced, finish=max((t.end for t in tasks), default=None), found=found)
    warned = tuple((task, rule) for task, rule in row.warned)
    return StoredPlan(plan, row.planned_at, row.fingerprint, row.begins_at, warned)


AS_IS = "as-is"
"""Stands in the place of a fingerprint after a migration, for a plan whose job had not changed since it was made."""


def carry_forward(session: Transaction, fingerprint: Callable[[str], str]) -> None:
    """Give plans of older schemas that still held when they were migrated the fingerprint of their job as it is."""
    for row in session.scalars(select(PlanRow).where(PlanRow.fingerprint == AS_IS)):
        row.fingerprint = fingerprint(row.job_id)


def tasks_between(session: Transaction, first: datetime, last: datetime) -> dict[str, list[Task]]:
    """Tasks of jobs on the board that lie in that time, or partly, by job in the order of their beginning."""
    inside = (TaskRow.ends_at > int(first.timestamp())) & (TaskRow.starts_at < int(last.timestamp()))
    wanted = select(TaskRow.job_id, TaskRow.details).join(JobRow, JobRow.id == TaskRow.job_id)
    out: dict[str, list[Task]] = {}
    for job_id, details in session.execute(wanted.where(on_board(), inside).order_by(TaskRow.starts_at)):
        out.setdefault(job_id, []).append(Task.model_validate(details))
    return out
