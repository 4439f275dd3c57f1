"""Sample jobs and the company they belong to."""

from typing import Any

from sqlalchemy import delete, select

from amber_gable.store.tables import (
    ColourRow,
    CompanyRow,
    CrewMemberRow,
    CrewRow,
    JobRow,
    PersonRow,
    PropertyRow,
    SheetRow,
)
from amber_gable.store.transaction import Transaction


def mark_sample(session: Transaction, company_id: str) -> None:
    session.get_one(CompanyRow, company_id).sample = True


def sample_places(session: Transaction) -> frozenset[str]:
    """Ids of the samples' properties."""
    wanted = select(PropertyRow.id).join(CompanyRow, CompanyRow.id == PropertyRow.company_id)
    return frozenset(session.scalars(wanted.where(CompanyRow.sample)))


def drop_sample_companies(session: Transaction) -> int:
    """Every sample job with all that belongs to it. Returns how many jobs there were."""
    places = sample_places(session)
    jobs = list(session.scalars(select(JobRow).where(JobRow.property_id.in_(places))))
    _delete(session, jobs)
    _delete(session, list(session.scalars(select(PropertyRow).where(PropertyRow.id.in_(places)))))
    companies = list(session.scalars(select(CompanyRow).where(CompanyRow.sample)))
    for table in (SheetRow, ColourRow, CrewMemberRow, CrewRow, PersonRow):
        session.execute(delete(table).where(table.company_id.in_([c.id for c in companies])))
    _delete(session, companies)
    return len(jobs)


def _delete(session: Transaction, rows: list[Any]) -> None:
    """One by one, so that what was kept of each is counted as changed."""
    for row in rows:
        session.delete(row)
    session.flush()
