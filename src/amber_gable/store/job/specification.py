"""What parts get, and by which schools: versioned edits to finishes, schools, schemes and acknowledgements."""

from collections.abc import Collection, Iterable, Mapping
from typing import Any

from sqlalchemy import select

from amber_gable.domain.errors import InputError, NotFound, StaleEdit
from amber_gable.domain.job.job import Acknowledgement, Company
from amber_gable.domain.paint.product import Product
from amber_gable.domain.paint.scheme import Scheme
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.scope import LeftPart, OthersWork
from amber_gable.store.company.sheets import Newer, Pin, current_of, kept_revisions, newer_products, pin, revisions
from amber_gable.store.job.jobs import finish_fields, finish_row, job_head, live_job
from amber_gable.store.tables import STAMPS, CompanyRow, FinishRow, PropertyRow
from amber_gable.store.transaction import Transaction

Key = tuple[str, str]


def company_of(session: Transaction, job_id: str) -> CompanyRow:
    """The row of the company whose job it is."""
    known: dict[str, CompanyRow] = session.companies
    if job_id not in known:
        known[job_id] = job_head(session, job_id)[2]
    return known[job_id]


def put_finish(session: Transaction, job_id: str, finish: Finish, version: int) -> None:
    """Set what a part gets; version 0 means it had nothing before. `check_references` must follow. Raises StaleEdit."""
    rows = _finish_rows(session, job_id)
    row = rows.get(finish.part)
    _not_left(session, job_id, finish.part)
    if (row.version if row else 0) != version:
        now = finish_fields(row) if row else {}
        mine = finish.model_dump(mode="json")
        shown = ("system", "colour", "colour_name", "aim")
        raise StaleEdit(finish.part[1], {k: (now.get(k), mine[k]) for k in shown if now.get(k) != mine[k]})
    if row is None:
        last = max((r.position for r in rows.values()), default=-1)
        rows[finish.part] = finish_row(job_id, last + 1, finish)
        session.add(rows[finish.part])
        return
    fresh = finish_row(job_id, row.position, finish)
    for column in FinishRow.__table__.columns:
        value = getattr(fresh, column.key)
        if column.key not in STAMPS and getattr(row, column.key) != value:
            setattr(row, column.key, value)


def put_left(session: Transaction, job_id: str, left: LeftPart) -> None:
    """Keep how a part is left that is not painted, in place of what was said of it before. `check_references` must
    follow."""
    _not_left(session, job_id, left.part)
    job = live_job(session, job_id)
    job.left = [*job.left, left.model_dump(mode="json")]


def _not_left(session: Transaction, job_id: str, part: Key) -> None:
    """Whatever was said of the part, it is not left any longer."""
    job, (kind, id_) = live_job(session, job_id), part
    kept = [x for x in job.left if x[kind] != id_]
    if len(kept) != len(job.left):
        job.left = kept


def put_others_task(session: Transaction, job_id: str, task: OthersWork) -> None:
    """Keep a task of other people, in place of the one of its id; those at a part that was deleted stay as they are.
    `check_references` must follow."""
    job, told = live_job(session, job_id), task.model_dump(mode="json")
    held = [told if t["id"] == task.id else t for t in job.others]
    job.others = held if told in held else [*held, told]


def drop_others_task(session: Transaction, job_id: str, id_: str) -> None:
    """Raises NotFound."""
    job = live_job(session, job_id)
    kept = [t for t in job.others if t["id"] != id_]
    if len(kept) == len(job.others):
        raise NotFound("task of others", id_)
    job.others = kept


def _finish_rows(session: Transaction, job_id: str) -> dict[Key, FinishRow]:
    """Every finish of the job by part, read once a transaction."""
    known: dict[str, dict[Key, FinishRow]] = session.finishes
    if job_id not in known:
        found = session.scalars(select(FinishRow).where(FinishRow.job_id == job_id))
        known[job_id] = {(r.part_kind, r.part_id): r for r in found}
    return known[job_id]


def drop_finish(session: Transaction, job_id: str, part: Key, version: int) -> None:
    """Leave the part as it is. Raises NotFound or StaleEdit."""
    live_job(session, job_id)
    row = _finish_rows(session, job_id).pop(part, None)
    if row is None:
        raise NotFound("finish", part[1])
    if row.version != version:
        raise StaleEdit(part[1], {"colour": (row.colour, "nothing")})
    session.delete(row)
    session.flush()


def finish_versions(session: Transaction, job_id: str) -> dict[Key, int]:
    """Version of every finish by part."""
    wanted = select(FinishRow.part_kind, FinishRow.part_id, FinishRow.version).where(FinishRow.job_id == job_id)
    return {(kind, id_): version for kind, id_, version in session.execute(wanted)}


def put_schools(session: Transaction, job_id: str, level: str, topic: str, school: str) -> None:
    """Choose a school of the job, or of the company (`level` 'job' or 'company') and with it of this job; an empty
    one gives the choice back."""
    job = live_job(session, job_id)
    if level == "job":
        job.schools = _chosen(job.schools, topic, school)
        return
    company = company_of(session, job_id)
    company.schools = _chosen(company.schools, topic, school)
    held = job.company_settings
    job.company_settings = held | {"schools": _chosen(held["schools"], topic, school)}


def _chosen(held: Mapping[str, str], topic: str, school: str) -> dict[str, str]:
    return {t: s for t, s in held.items() if t != topic} | ({topic: school} if school else {})


def put_company(session: Transaction, company: Company) -> None:
    """The company's own settings; jobs keep those that they were specified with."""
    row = session.get_one(CompanyRow, company.id)
    for name, value in company.model_dump(mode="json").items():
        if getattr(row, name) != value:
            setattr(row, name, value)


def put_lead(session: Transaction, job_id: str, found: bool | None) -> None:
    """What the lead test of the property said; None where there was none."""
    session.get_one(PropertyRow, live_job(session, job_id).property_id).lead_found = found


def put_lead_year(session: Transaction, job_id: str, year: int) -> None:
    """The year of the company's jurisdiction before which lead paint is presumed, from now on and for this job."""
    job = live_job(session, job_id)
    company_of(session, job_id).lead_cutoff_year = year
    job.company_settings = job.company_settings | {"lead_cutoff_year": year}


def put_schemes(session: Transaction, job_id: str, schemes: Iterable[Scheme]) -> None:
    live_job(session, job_id).schemes = [s.model_dump(mode="json") for s in schemes]


def put_acknowledged(session: Transaction, job_id: str, read: Iterable[Acknowledgement]) -> None:
    live_job(session, job_id).acknowledged = [a.model_dump(mode="json") for a in read]


def shelve_products(session: Transaction, job_id: str, products: Iterable[Product]) -> None:
    """Pin products that steps use to the sheets they were specified with; such as the company does not have yet are put
    into its stores."""
    bodies = {p.code: p.model_dump(mode="json") for p in products}
    job = live_job(session, job_id)
    lacking = {c: body for c, body in bodies.items() if c not in _fixed(job.products)}
    if lacking:
        kept = kept_revisions(session, company_of(session, job_id).id, "product", lacking)
        job.products = _with_pins(job.products, [pin(code, row.revision) for code, row in kept.items()])
        session.flush()


def shelve_system(session: Transaction, job_id: str, system_id: str) -> None:
    """Pin a system of the company, and the products it uses, to what they are now. Raises InputError."""
    job, company = live_job(session, job_id), company_of(session, job_id).id
    if system_id in _fixed(job.systems):
        return
    row = current_of(revisions(session, company, "system", [system_id]).get(system_id, []))
    if row is None:
        raise InputError(f"system '{system_id}'", "is not one of the company's systems", "choose one from the list")
    wanted = {o["product"] for o in row.body["operations"] if o.get("product")} - _fixed(job.products)
    held = revisions(session, company, "product", wanted)
    now = [r for code in sorted(wanted) if (r := current_of(held.get(code, []))) is not None]
    job.systems = _with_pins(job.systems, [pin(system_id, row.revision)])
    job.products = _with_pins(job.products, [pin(r.code, r.revision) for r in now])


def _fixed(pins: Iterable[Pin]) -> set[str]:
    return {p["code"] for p in pins if p["revision"] is not None}


def _with_pins(pins: Iterable[Pin], new: Iterable[Pin]) -> list[Pin]:
    """The shelf with these pins in the place of those of their code, or at its end."""
    return list(({p["code"]: p for p in pins} | {p["code"]: p for p in new}).values())


def newer_than_pinned(session: Transaction, job_id: str) -> tuple[list[Newer], dict[str, tuple[Any, Any]]]:
    """What the company has changed since the job was specified: sheets that its steps use, and settings as (then,
    now)."""
    job, _, company = job_head(session, job_id)
    held = job.company_settings
    settings = {k: (held[k], getattr(company, k)) for k in sorted(held) if held[k] != getattr(company, k)}
    return newer_products(session, company.id, job.products), settings


def take_over(session: Transaction, job_id: str, codes: Collection[str], *, settings: bool = False) -> None:
    """Let the job read the stores' present sheets of these products, and the company's present settings."""
    job, company = live_job(session, job_id), company_of(session, job_id)
    held = revisions(session, company.id, "product", codes)
    now = [r for code in codes if (r := current_of(held.get(code, []))) is not None]
    job.products = _with_pins(job.products, [pin(r.code, r.revision) for r in now])
    if settings:
        job.company_settings = {k: getattr(company, k) for k in job.company_settings}
    session.flush()
