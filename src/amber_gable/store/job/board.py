"""Which jobs are on the board: hidden, put elsewhere, brought back; and where the company's first house stands."""

from typing import Any, NamedTuple

from sqlalchemy import Select, func, select

from amber_gable.domain.job.company_usual import Shelf
from amber_gable.store.job.jobs import live_job
from amber_gable.store.tables import CompanyRow, JobRow, PropertyRow
from amber_gable.store.transaction import Transaction

SAME_TOWN_DEG = 0.2
"""Some 20 km: two houses of one name so near are one."""


def hide_job(session: Transaction, job_id: str, at: int) -> None:
    """`at` in epoch seconds. Raises NotFound."""
    live_job(session, job_id).deleted_at = at


def show_job(session: Transaction, job_id: str) -> bool:
    """Whether there was one that had been hidden."""
    row = session.get(JobRow, job_id)
    if row is None or row.deleted_at is None:
        return False
    row.deleted_at = None
    return True


def deleted_jobs(session: Transaction) -> list[tuple[str, str]]:
    """Ids and names, the last one hidden first."""
    rows = session.execute(
        select(JobRow.id, JobRow.name).where(JobRow.deleted_at.is_not(None)).order_by(JobRow.deleted_at.desc())
    )
    return [(id_, name) for id_, name in rows]


def put_on(session: Transaction, job_id: str, shelf: Shelf) -> None:
    """Raises NotFound."""
    live_job(session, job_id).shelf = shelf


def shelf_of_job(session: Transaction, job_id: str) -> Shelf:
    """Raises NotFound."""
    return Shelf(live_job(session, job_id).shelf)


class There(NamedTuple):
    """A job that stands at an address already."""

    name: str
    customer: str
    place: str


def same_address(session: Transaction, name: str, latitude: float, longitude: float) -> There | None:
    """A job on the board or in the archive of that name, in the same town; degrees."""
    near = (func.abs(PropertyRow.latitude - latitude) < SAME_TOWN_DEG) & (
        func.abs(PropertyRow.longitude - longitude) < SAME_TOWN_DEG
    )
    wanted = select(JobRow.name, JobRow.customer, PropertyRow.place).join(
        PropertyRow, PropertyRow.id == JobRow.property_id
    )
    kept = (JobRow.deleted_at.is_(None), JobRow.shelf != Shelf.BEGINNINGS, near)
    mine = _plain(name)
    return next((There(*row) for row in session.execute(wanted.where(*kept)) if _plain(row[0]) == mine), None)


def _plain(name: str) -> str:
    """As it is compared: without case, points and doubled spaces."""
    return " ".join("".join(c if c.isalnum() else " " for c in name.casefold()).split())


def first_place(session: Transaction) -> tuple[float, float] | None:
    """Where the first house that is no sample's stands, degrees."""
    row = session.execute(_first(PropertyRow.latitude, PropertyRow.longitude)).first()
    return None if row is None else (row[0], row[1])


def first_zone(session: Transaction) -> str | None:
    """Time zone of the same."""
    zone: str | None = session.scalar(_first(PropertyRow.time_zone))
    return zone


def _first(*columns: Any) -> Select[Any]:
    own = (CompanyRow.id == PropertyRow.company_id) & ~CompanyRow.sample
    return select(*columns).join(CompanyRow, own).order_by(PropertyRow.created_at).limit(1)
