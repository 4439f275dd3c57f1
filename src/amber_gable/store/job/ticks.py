"""Steps of the walk-round that were ticked by hand."""

from sqlalchemy import select

from amber_gable.store.job.jobs import live_job
from amber_gable.store.tables import TickRow
from amber_gable.store.transaction import Transaction


def ticks(session: Transaction, job_id: str) -> dict[tuple[str, str], str]:
    """`done` or `passed` by (place, step)."""
    property_id = live_job(session, job_id).property_id
    rows = session.scalars(select(TickRow).where(TickRow.property_id == property_id))
    return {(r.place, r.step): r.done for r in rows}


def set_tick(session: Transaction, job_id: str, place: str, step: str, done: str) -> None:
    """Set a tick; an empty `done` takes it away."""
    property_id = live_job(session, job_id).property_id
    row = session.get(TickRow, (property_id, place, step))
    if not done:
        if row is not None:
            session.delete(row)
    elif row is None:
        session.add(TickRow(property_id=property_id, place=place, step=step, done=done))
    else:
        row.done = done
