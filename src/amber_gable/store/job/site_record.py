"""The record of the site: only ever added to."""

from collections.abc import Sequence

from pydantic import TypeAdapter
from sqlalchemy import func, select

from amber_gable.domain.base import Record
from amber_gable.domain.job.site_record import CustomerChange, SiteEntry
from amber_gable.store.tables import SiteEntryRow
from amber_gable.store.transaction import Transaction

WORK, CHANGE = "work", "change"


class SiteRecord(Record):
    """Entries and changes in the order they were noted."""

    record: tuple[SiteEntry, ...]
    changes: tuple[CustomerChange, ...]


_ENTRIES, _CHANGES = TypeAdapter(tuple[SiteEntry, ...]), TypeAdapter(tuple[CustomerChange, ...])


def load_record(session: Transaction, job_id: str) -> SiteRecord:
    kept, key = session.kept, ("record", job_id)
    found: SiteRecord | None = kept.find(session, key)
    if found is None:
        found = kept.read(session, key, (f"record:{job_id}",), lambda: _read(session, job_id))
    return found


def _read(session: Transaction, job_id: str) -> SiteRecord:
    rows = session.execute(
        select(SiteEntryRow.kind, SiteEntryRow.body).where(SiteEntryRow.job_id == job_id).order_by(SiteEntryRow.number)
    ).all()
    return SiteRecord(
        record=_ENTRIES.validate_python([body for kind, body in rows if kind == WORK]),
        changes=_CHANGES.validate_python([body for kind, body in rows if kind == CHANGE]),
    )


def append(session: Transaction, job_id: str, entries: Sequence[SiteEntry | CustomerChange]) -> None:
    """Add to a job's record; the job must be there."""
    last = session.scalar(select(func.max(SiteEntryRow.number)).where(SiteEntryRow.job_id == job_id)) or 0
    for number, entry in enumerate(entries, last + 1):
        kind = WORK if isinstance(entry, SiteEntry) else CHANGE
        session.add(SiteEntryRow(job_id=job_id, number=number, kind=kind, body=entry.model_dump(mode="json")))
    session.flush()
