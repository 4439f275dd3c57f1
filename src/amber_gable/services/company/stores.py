"""The company's stores: data sheets typed, brought in and taken out."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, get_args

from pydantic import ValidationError
from sqlalchemy import select

from amber_gable.core.work.coverage import theoretical_coverage
from amber_gable.domain.errors import NotFound, Refused, by_field
from amber_gable.domain.job.company_usual import Usual
from amber_gable.domain.job.job import Company
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.generic_systems import GENERIC_SYSTEMS
from amber_gable.domain.paint.product import SHEET_UNITS, Product
from amber_gable.domain.units import UnitSystem, read
from amber_gable.domain.work.operation import CoatingSystem
from amber_gable.exchange.files import decode
from amber_gable.exchange.stores.products import dump_products, read_products, write_csv
from amber_gable.services.company.containers_typed import typed_containers
from amber_gable.services.context import Context
from amber_gable.store.changes import COMPANIES
from amber_gable.store.company import sheets as store
from amber_gable.store.tables import CompanyRow
from amber_gable.store.transaction import Transaction

LISTS = ("methods", "substrates", "hazards")
FLAGS = ("primer", "self_priming", "vinyl_safe")


OWN_COMPANY = Company(id="own", name="My painting company")


def company(session: Transaction) -> Company:
    """The company whose stores these are: the first there is, else the one a first job would make. That of the sample
    jobs is nobody's."""
    row = company_row(session)
    if row is None:
        return OWN_COMPANY
    return Company(
        id=row.id,
        name=row.name,
        currency=row.currency,
        lead_cutoff_year=row.lead_cutoff_year,
        schools=row.schools,
        rates=row.rates,
        factors=row.factors,
    )


def company_row(session: Transaction) -> CompanyRow | None:
    """The one that was set up, else the first that came, with a job file perhaps."""
    order = (CompanyRow.usual.is_(None), CompanyRow.created_at, CompanyRow.id)
    return session.scalars(select(CompanyRow).where(~CompanyRow.sample).order_by(*order).limit(1)).first()


def usual_of(ctx: Context) -> Usual | None:
    """What new jobs begin with; None as long as the company was not set up."""
    with ctx.reading() as session:
        return session.kept.get(session, ("usual", "own"), (COMPANIES,), lambda: (_read_usual(session),))[0]


def _read_usual(session: Transaction) -> Usual | None:
    row = company_row(session)
    return None if row is None or row.usual is None else Usual.model_validate(row.usual)


def held(session: Transaction, company_id: str) -> tuple[Product, ...]:
    """The company's products; the generic ones where it has none."""
    return tuple(store.company_products(session, company_id)) or tuple(GENERIC_PRODUCTS.values())


def held_systems(session: Transaction, company_id: str) -> tuple[CoatingSystem, ...]:
    """The company's systems; the generic ones where it has no products, for they name the generic products."""
    own = tuple(store.company_systems(session, company_id))
    return own or (() if store.company_products(session, company_id) else GENERIC_SYSTEMS)


def typed_product(
    form: Mapping[str, str], several: Mapping[str, list[str]], system: UnitSystem = UnitSystem.METRIC
) -> Product:
    """A sheet from a form in the reader's units: `several` holds what may be ticked more than once. Raises Refused by
    field."""
    values: dict[str, Any] = {}
    faults: dict[str, str] = {}
    for name, field in Product.model_fields.items():
        if name in LISTS:
            values[name] = several.get(name, [])
        elif name in FLAGS:
            values[name] = form.get(name) == "yes"
        elif name == "vinyl_colours":
            values[name] = form.get(name, "").lower().replace(",", " ").split()
        elif name == "containers":
            try:
                values[name] = typed_containers(form.get(name, ""), system)
            except ValueError as error:
                faults[name] = str(error)
        elif name in SHEET_UNITS and form.get(name, "").strip():
            try:
                values[name] = read(SHEET_UNITS[name], form[name], system)
            except ValueError as error:
                faults[name] = str(error)
        elif form.get(name, "").strip():
            text = form[name].strip()
            kinds = {field.annotation, *get_args(field.annotation)}
            values[name] = text.replace(",", ".") if kinds & {float, int} else text
    if faults:
        raise Refused(faults)
    try:
        return Product.model_validate(values)
    except ValidationError as error:
        raise Refused(by_field(error, lambda place: str(place[0]) if place else "")) from None


def save_product(ctx: Context, product: Product, version: int) -> None:
    """Add a sheet (version 0) or change it. Raises StaleEdit."""
    with ctx.writing() as session:
        store.put_product(session, kept_company(session).id, product, version)


def kept_company(session: Transaction) -> Company:
    """The company, put into the store where it is not yet."""
    found = company(session)
    if session.get(CompanyRow, found.id) is None:
        session.add(CompanyRow(**found.model_dump(mode="json")))
        session.flush()
    return found


def take_out(ctx: Context, code: str, version: int) -> None:
    """Raises Refused where a job uses it, StaleEdit or NotFound."""
    with ctx.writing() as session:
        store.drop_product(session, company(session).id, code, version)


def import_products(ctx: Context, data: bytes, name: str) -> tuple[int, int]:
    """Take a product file whole or not at all. Raises InputError. Returns how many are new and how many changed."""
    products = read_products(decode(data, name), name)
    with ctx.writing() as session:
        return store.put_products(session, kept_company(session).id, products)


@dataclass(frozen=True)
class Shelves:
    """The company and what its stores hold."""

    company: Company
    products: tuple[Product, ...]


def shelves(ctx: Context) -> Shelves:
    with ctx.reading() as session:
        found = company(session)
        return Shelves(found, held(session, found.id))


def sheet(ctx: Context, code: str) -> tuple[Product, int]:
    """A product with the revision that the stores hold (0: it is a generic one). Raises NotFound."""
    with ctx.reading() as session:
        found = company(session)
        product = next((p for p in held(session, found.id) if p.code == code), None)
        if product is None:
            raise NotFound("product", code)
        return product, store.product_version(session, found.id, code)


def products_json(ctx: Context) -> str:
    return dump_products(list(shelves(ctx).products))


def products_csv(ctx: Context) -> str:
    return write_csv(list(shelves(ctx).products))


def coverage(product: Product) -> float:
    """m² a litre covers at the sheet's film, without loss."""
    return theoretical_coverage(product)
