"""The plan a job works to."""

from collections.abc import Callable
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from amber_gable.domain.plan import Plan, Task, Unplaced
from amber_gable.store.kept import kept_in
from amber_gable.store.tables import PlanRow, TaskRow


def save_plan(session: Session, job_id: str, plan: Plan, fingerprint: str, planned_at: int) -> None:
    """Replace the job's plan."""
    old = session.get(PlanRow, job_id)
    if old is not None:
        session.delete(old)
        session.flush()
    unplaced = [u.model_dump(mode="json") for u in plan.unplaced]
    session.add(PlanRow(job_id=job_id, fingerprint=fingerprint, planned_at=planned_at, unplaced=unplaced))
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
    """A plan, when it was made (epoch s), and the fingerprint of what it was made from."""

    plan: Plan
    planned_at: int
    fingerprint: str


def load_plan(session: Session, job_id: str) -> StoredPlan | None:
    kept, key = kept_in(session), ("plan", job_id)
    found: tuple[StoredPlan | None] | None = kept.find(session, key)
    if found is None:
        found = kept.read(session, key, (f"plan:{job_id}",), lambda: (_read_plan(session, job_id),))
    return found[0]


def _read_plan(session: Session, job_id: str) -> StoredPlan | None:
    row = session.get(PlanRow, job_id)
    if row is None:
        return None
    rows = session.scalars(select(TaskRow).where(TaskRow.job_id == job_id).order_by(TaskRow.position))
    tasks = tuple(Task.model_validate(r.details) for r in rows)
    unplaced = tuple(Unplaced.model_validate(u) for u in row.unplaced)
    plan = Plan(tasks=tasks, unplaced=unplaced, finish=max((t.end for t in tasks), default=None))
    return StoredPlan(plan, row.planned_at, row.fingerprint)


AS_IS = "as-is"
"""Stands in the place of a fingerprint after a migration, for a plan whose job had not changed since it was made."""


def carry_forward(session: Session, fingerprint: Callable[[str], str]) -> None:
    """Give plans of older schemas that still held when they were migrated the fingerprint of their job as it is."""
    for row in session.scalars(select(PlanRow).where(PlanRow.fingerprint == AS_IS)):
        row.fingerprint = fingerprint(row.job_id)
