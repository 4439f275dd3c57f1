"""What parts get, and by which schools: versioned edits to finishes, schools, schemes and acknowledgements."""

from collections.abc import Iterable, Mapping
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from amber_gable.domain.acknowledgement import Acknowledgement
from amber_gable.domain.errors import InputError, NotFound, StaleEdit
from amber_gable.domain.finish import Finish
from amber_gable.domain.operation import CoatingSystem
from amber_gable.domain.product import Product
from amber_gable.domain.scheme import Scheme
from amber_gable.store.jobs import finish_fields, finish_row, live_job
from amber_gable.store.survey import check_whole
from amber_gable.store.tables import CompanyRow, FinishRow, JobRow, ProductRow, PropertyRow, SystemRow

Key = tuple[str, str]


def company_of(session: Session, job_id: str) -> CompanyRow:
    """The row of the company whose job it is."""
    place = session.get_one(PropertyRow, live_job(session, job_id).property_id)
    return session.get_one(CompanyRow, place.company_id)


def put_finish(session: Session, job_id: str, finish: Finish, version: int) -> None:
    """Set what a part gets; version 0 means it had nothing before. `check_whole` must follow. Raises StaleEdit."""
    row = session.get(FinishRow, (job_id, *finish.part))
    if (row.version if row else 0) != version:
        now = finish_fields(row) if row else {}
        mine = finish.model_dump(mode="json")
        shown = ("system", "colour", "colour_name", "aim")
        raise StaleEdit(finish.part[1], {k: (now.get(k), mine[k]) for k in shown if now.get(k) != mine[k]})
    if row is None:
        last = session.scalar(select(func.max(FinishRow.position)).where(FinishRow.job_id == job_id))
        session.add(finish_row(job_id, 0 if last is None else last + 1, finish))
        return
    fresh = finish_row(job_id, row.position, finish)
    for column in FinishRow.__table__.columns:
        value = getattr(fresh, column.key)
        if column.key not in ("created_at", "updated_at", "version") and getattr(row, column.key) != value:
            setattr(row, column.key, value)


def drop_finish(session: Session, job_id: str, part: Key, version: int) -> None:
    """Leave the part as it is. Raises NotFound or StaleEdit."""
    live_job(session, job_id)
    row = session.get(FinishRow, (job_id, *part))
    if row is None:
        raise NotFound("finish", part[1])
    if row.version != version:
        raise StaleEdit(part[1], {"colour": (row.colour, "nothing")})
    session.delete(row)
    session.flush()


def finish_versions(session: Session, job_id: str) -> dict[Key, int]:
    """Version of every finish by part."""
    wanted = select(FinishRow.part_kind, FinishRow.part_id, FinishRow.version).where(FinishRow.job_id == job_id)
    return {(kind, id_): version for kind, id_, version in session.execute(wanted)}


def put_weather_schools(session: Session, job_id: str, deduction: str, policy: dict[str, Any]) -> None:
    """Change the job's schools of deduction and weather."""
    row: JobRow = live_job(session, job_id)
    row.deduction, row.policy = deduction, policy
    check_whole(session, job_id)


def put_schools(session: Session, job_id: str, level: str, schools: Mapping[str, str]) -> None:
    """Change the schools of the job, or of the company (`level` 'job' or 'company')."""
    row: JobRow | CompanyRow = live_job(session, job_id) if level == "job" else company_of(session, job_id)
    row.schools = dict(schools)


def put_lead(session: Session, job_id: str, found: bool | None) -> None:
    """What the lead test of the property said; None where there was none."""
    session.get_one(PropertyRow, live_job(session, job_id).property_id).lead_found = found


def put_lead_year(session: Session, job_id: str, year: int) -> None:
    """The year of the company's jurisdiction before which lead paint is presumed."""
    company_of(session, job_id).lead_cutoff_year = year


def put_schemes(session: Session, job_id: str, schemes: Iterable[Scheme]) -> None:
    live_job(session, job_id).schemes = [s.model_dump(mode="json") for s in schemes]


def put_acknowledged(session: Session, job_id: str, read: Iterable[Acknowledgement]) -> None:
    live_job(session, job_id).acknowledged = [a.model_dump(mode="json") for a in read]


def shelve_products(session: Session, job_id: str, products: Iterable[Product]) -> None:
    """Put products on the job's shelf; such as the company does not have yet are put into its stores."""
    job, company = live_job(session, job_id), company_of(session, job_id).id
    for product in products:
        if session.get(ProductRow, (company, product.code)) is None:
            session.add(ProductRow(company_id=company, code=product.code, sheet=product.model_dump(mode="json")))
        if product.code not in job.products:
            job.products = [*job.products, product.code]
    session.flush()


def shelve_system(session: Session, job_id: str, system_id: str) -> None:
    """Put a system of the company, and the products it uses, on the job's shelf."""
    job = live_job(session, job_id)
    row = session.get(SystemRow, (company_of(session, job_id).id, system_id))
    if row is None:
        raise InputError(f"system '{system_id}'", "is not one of the company's systems", "choose one from the list")
    if system_id not in job.systems:
        job.systems = [*job.systems, system_id]
    wanted = [o["product"] for o in row.operations if o["product"]]
    job.products = list(dict.fromkeys([*job.products, *wanted]))


def company_systems(session: Session, job_id: str) -> list[CoatingSystem]:
    """Every system the job's company has, by name."""
    company = company_of(session, job_id).id
    rows = session.scalars(select(SystemRow).where(SystemRow.company_id == company).order_by(SystemRow.name))
    return [
        CoatingSystem.model_validate({"id": r.id, "name": r.name, "operations": r.operations, "note": r.note})
        for r in rows
    ]
