"""Which jobs are on the board: hidden, brought back, and where the company's first house stands."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from amber_gable.store.jobs import live_job
from amber_gable.store.tables import JobRow, PropertyRow


def hide_job(session: Session, job_id: str, at: int) -> None:
    """`at` in epoch seconds. Raises NotFound."""
    live_job(session, job_id).deleted_at = at


def show_job(session: Session, job_id: str) -> bool:
    """Whether there was one that had been hidden."""
    row = session.get(JobRow, job_id)
    if row is None or row.deleted_at is None:
        return False
    row.deleted_at = None
    return True


def deleted_jobs(session: Session) -> list[tuple[str, str]]:
    """Ids and names, the last one hidden first."""
    rows = session.execute(
        select(JobRow.id, JobRow.name).where(JobRow.deleted_at.is_not(None)).order_by(JobRow.deleted_at.desc())
    )
    return [(id_, name) for id_, name in rows]


def first_place(session: Session) -> tuple[float, float] | None:
    """Where the first house that was put in stands, degrees."""
    row = session.execute(
        select(PropertyRow.latitude, PropertyRow.longitude).order_by(PropertyRow.created_at).limit(1)
    ).first()
    return None if row is None else (row[0], row[1])
