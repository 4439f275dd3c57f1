"""A company's data sheets and systems, every revision kept: a job reads the one that it was specified with."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal, TypeVar

from sqlalchemy import select

from amber_gable.domain.errors import NotFound, Refused, StaleEdit
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import CoatingSystem
from amber_gable.store.tables import JobRow, PropertyRow, SheetRow
from amber_gable.store.transaction import Transaction

Kind = Literal["product", "system"]
Pin = dict[str, Any]
"""A sheet on a job's shelf: `code`, and the `revision` that the job reads; None follows the stores until a step uses
it."""
Rows = list[SheetRow]
Sheet = TypeVar("Sheet", Product, CoatingSystem)


def pin(code: str, revision: int | None = None) -> Pin:
    return {"code": code, "revision": revision}


def revisions(session: Transaction, company_id: str, kind: Kind, codes: Iterable[str]) -> dict[str, Rows]:
    """All revisions of these sheets by code, oldest first."""
    wanted = select(SheetRow).where(SheetRow.company_id == company_id, SheetRow.kind == kind)
    rows = session.scalars(wanted.where(SheetRow.code.in_(list(codes))).order_by(SheetRow.code, SheetRow.revision))
    out: dict[str, Rows] = {}
    for row in rows:
        out.setdefault(row.code, []).append(row)
    return out


def current_of(rows: Rows) -> SheetRow | None:
    """What the stores hold today; None for a sheet that was taken out."""
    return next((r for r in rows if r.current), None)


def read_by(pins: Sequence[Pin], rows: Mapping[str, Rows]) -> list[SheetRow]:
    """The revision each pin stands for, in their order. One that follows the stores and was taken out is left away."""
    out = []
    for p in pins:
        held = rows.get(p["code"], [])
        found = current_of(held) if p["revision"] is None else {r.revision: r for r in held}[p["revision"]]
        if found is not None:
            out.append(found)
    return out


def company_products(session: Transaction, company_id: str) -> list[Product]:
    """Every product in a company's stores, by name."""
    return list(_read_current(session, company_id, "product", Product))


def company_systems(session: Transaction, company_id: str) -> list[CoatingSystem]:
    """Every system a company has, by name."""
    return list(_read_current(session, company_id, "system", CoatingSystem))


def _read_current(session: Transaction, company_id: str, kind: Kind, model: type[Sheet]) -> tuple[Sheet, ...]:
    kept, key = session.kept, (f"{kind}s", company_id)
    found: tuple[Sheet, ...] | None = kept.find(session, key)
    if found is not None:
        return found

    def read() -> tuple[Sheet, ...]:
        rows = _current(session, company_id, kind)
        return tuple(sorted((model.model_validate(r.body) for r in rows), key=_by_name))

    return kept.read(session, key, (f"sheets:{company_id}",), read)


def _by_name(sheet: Product | CoatingSystem) -> str:
    return sheet.name


def _current(session: Transaction, company_id: str, kind: Kind) -> Iterable[SheetRow]:
    wanted = select(SheetRow).where(SheetRow.company_id == company_id, SheetRow.kind == kind, SheetRow.current)
    return session.scalars(wanted)


def kept_revisions(
    session: Transaction, company_id: str, kind: Kind, bodies: Mapping[str, dict[str, Any]]
) -> dict[str, SheetRow]:
    """The revision that each sheet is, by code: one that is here already, or a new one. The stores take a new one as
    theirs only where they hold none of the code."""
    rows, out = revisions(session, company_id, kind, bodies), {}
    for code, body in bodies.items():
        held = rows.get(code, [])
        same = [r for r in held if _canonical(kind, r.body) == body]
        found = next((r for r in same if r.current), same[-1] if same else None)
        if found is None:
            number = held[-1].revision + 1 if held else 1
            found = SheetRow(company_id=company_id, kind=kind, code=code, revision=number, body=body)
            found.current = False
            session.add(found)
        if current_of(held) is None:
            found.current = True
        out[code] = found
    return out


def _canonical(kind: Kind, body: dict[str, Any]) -> dict[str, Any]:
    """The body with every field there is today, as a sheet given now has them."""
    return (Product if kind == "product" else CoatingSystem).model_validate(body).model_dump(mode="json")


def put_products(session: Transaction, company_id: str, products: Iterable[Product]) -> tuple[int, int]:
    """Make these the stores' sheets; earlier revisions stay for the jobs that read them. Returns how many are new and
    how many changed."""
    bodies = {p.code: p.model_dump(mode="json") for p in products}
    before = {code: current_of(rows) for code, rows in revisions(session, company_id, "product", bodies).items()}
    new = changed = 0
    for code, row in kept_revisions(session, company_id, "product", bodies).items():
        old = before.get(code)
        if old is None:
            new += 1
        elif old is not row:
            old.current, row.current = False, True
            changed += 1
    session.flush()
    return new, changed


def put_product(session: Transaction, company_id: str, product: Product, version: int) -> None:
    """Add a sheet (version 0) or change it; `version` is the revision that the editor saw. Raises StaleEdit."""
    row = current_of(revisions(session, company_id, "product", [product.code]).get(product.code, []))
    if (row.revision if row else 0) != version:
        sheet, now = product.model_dump(mode="json"), row.body if row else {}
        raise StaleEdit(product.name, {k: (now.get(k), v) for k, v in sheet.items() if now.get(k) != v})
    put_products(session, company_id, [product])


def product_version(session: Transaction, company_id: str, code: str) -> int:
    """Revision that the stores hold; 0 for none."""
    row = current_of(revisions(session, company_id, "product", [code]).get(code, []))
    return row.revision if row else 0


def drop_product(session: Transaction, company_id: str, code: str, version: int) -> None:
    """Take a sheet out of the stores; jobs that read one of its revisions keep it. Raises NotFound, StaleEdit, or
    Refused where a system or a job uses it."""
    row = current_of(revisions(session, company_id, "product", [code]).get(code, []))
    if row is None:
        raise NotFound("product", code)
    if row.revision != version:
        raise StaleEdit(str(row.body["name"]), {"sheet": ("changed meanwhile", "taken out")})
    systems = [s.name for s in company_systems(session, company_id) if code in {o.product for o in s.operations}]
    wanted = select(JobRow.name, JobRow.products).join(PropertyRow, PropertyRow.id == JobRow.property_id)
    jobs = session.execute(wanted.where(PropertyRow.company_id == company_id, JobRow.deleted_at.is_(None)))
    users = [name for name, pins in jobs if any(p["code"] == code and p["revision"] is not None for p in pins)]
    users += [f"system {name}" for name in systems]
    if users:
        more = f", and {len(users) - 1} more" if len(users) > 1 else ""
        raise Refused({"": f"It stays in the stores: {users[0]} uses it{more}."})
    row.current = False


@dataclass(frozen=True)
class Newer:
    """A sheet that the stores hold in another revision than the job reads. `changed_at` epoch seconds."""

    code: str
    then: Product
    now: Product
    changed_at: int


def newer_products(session: Transaction, company_id: str, pins: Sequence[Pin]) -> list[Newer]:
    """Of the products a job's steps use, those whose sheet in the stores is another by now."""
    fixed = [p for p in pins if p["revision"] is not None]
    rows = revisions(session, company_id, "product", [p["code"] for p in fixed])
    out = []
    for p, then in zip(fixed, read_by(fixed, rows), strict=True):
        now = current_of(rows[p["code"]])
        if now is not None and now is not then:
            sheets = Product.model_validate(then.body), Product.model_validate(now.body)
            if sheets[0] != sheets[1]:
                out.append(Newer(p["code"], *sheets, now.updated_at))
    return out
