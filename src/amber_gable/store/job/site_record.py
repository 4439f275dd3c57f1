"""The record of the site: only ever added to."""

from collections.abc import Sequence

from sqlalchemy import func, select

from amber_gable.domain.base import Record
from amber_gable.domain.job.site_record import (
    LINES,
    CanNoted,
    CustomerChange,
    FoundMore,
    Missing,
    OthersNoted,
    Rained,
    SiteEntry,
    SiteLine,
    Spoiled,
)
from amber_gable.store.tables import SiteEntryRow
from amber_gable.store.transaction import Transaction


class SiteRecord(Record):
    """The lines of each kind, in the order they were noted."""

    record: tuple[SiteEntry, ...]
    changes: tuple[CustomerChange, ...]
    others_noted: tuple[OthersNoted, ...] = ()
    found_more: tuple[FoundMore, ...] = ()
    spoiled: tuple[Spoiled, ...] = ()
    rained: tuple[Rained, ...] = ()
    cans_noted: tuple[CanNoted, ...] = ()
    missing: tuple[Missing, ...] = ()


def load_record(session: Transaction, job_id: str) -> SiteRecord:
    return session.kept.get(session, ("record", job_id), (f"record:{job_id}",), lambda: _read(session, job_id))


def _read(session: Transaction, job_id: str) -> SiteRecord:
    rows = session.execute(
        select(SiteEntryRow.kind, SiteEntryRow.body).where(SiteEntryRow.job_id == job_id).order_by(SiteEntryRow.number)
    )
    lines: list[SiteLine] = [LINES[kind].model_validate(body) for kind, body in rows]
    return SiteRecord(
        record=tuple(line for line in lines if isinstance(line, SiteEntry)),
        changes=tuple(line for line in lines if isinstance(line, CustomerChange)),
        others_noted=tuple(line for line in lines if isinstance(line, OthersNoted)),
        found_more=tuple(line for line in lines if isinstance(line, FoundMore)),
        spoiled=tuple(line for line in lines if isinstance(line, Spoiled)),
        rained=tuple(line for line in lines if isinstance(line, Rained)),
        cans_noted=tuple(line for line in lines if isinstance(line, CanNoted)),
        missing=tuple(line for line in lines if isinstance(line, Missing)),
    )


def append(session: Transaction, job_id: str, lines: Sequence[SiteLine]) -> None:
    """Add to a job's record; the job must be there."""
    last = session.scalar(select(func.max(SiteEntryRow.number)).where(SiteEntryRow.job_id == job_id)) or 0
    for number, line in enumerate(lines, last + 1):
        body = line.model_dump(mode="json")
        session.add(SiteEntryRow(job_id=job_id, number=number, kind=line.kind, body=body))
    session.flush()
