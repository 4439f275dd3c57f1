"""The plan a job works to."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from amber_gable.domain.plan import Plan, Task, Unplaced
from amber_gable.store.tables import PlanRow, TaskRow


def save_plan(session: Session, job_id: str, plan: Plan, digest: str, planned_at: int) -> None:
    """Replace the job's plan."""
    old = session.get(PlanRow, job_id)
    if old is not None:
        session.delete(old)
        session.flush()
    unplaced = [u.model_dump(mode="json") for u in plan.unplaced]
    session.add(PlanRow(job_id=job_id, digest=digest, planned_at=planned_at, unplaced=unplaced))
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


def load_plan(session: Session, job_id: str) -> tuple[Plan, PlanRow] | None:
    row = session.get(PlanRow, job_id)
    if row is None:
        return None
    rows = session.scalars(select(TaskRow).where(TaskRow.job_id == job_id).order_by(TaskRow.position))
    tasks = tuple(Task.model_validate(r.details) for r in rows)
    unplaced = tuple(Unplaced.model_validate(u) for u in row.unplaced)
    return Plan(tasks=tasks, unplaced=unplaced, finish=max((t.end for t in tasks), default=None)), row
