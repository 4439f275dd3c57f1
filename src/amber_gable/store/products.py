"""The products in a company's stores."""

from collections.abc import Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from amber_gable.domain.errors import NotFound, StaleEdit
from amber_gable.domain.product import Product
from amber_gable.store.tables import JobRow, ProductRow, PropertyRow


def company_products(session: Session, company_id: str) -> list[Product]:
    """Every product of a company, by name."""
    rows = session.scalars(select(ProductRow).where(ProductRow.company_id == company_id))
    return sorted((Product.model_validate(r.sheet) for r in rows), key=lambda p: p.name)


def put_products(session: Session, company_id: str, products: Iterable[Product]) -> tuple[int, int]:
    """Put sheets in; one whose code is there takes the new sheet. Returns how many are new and how many changed."""
    new = changed = 0
    for product in products:
        sheet = product.model_dump(mode="json")
        row = session.get(ProductRow, (company_id, product.code))
        if row is None:
            session.add(ProductRow(company_id=company_id, code=product.code, sheet=sheet))
            new += 1
        elif row.sheet != sheet:
            row.sheet = sheet
            changed += 1
    session.flush()
    return new, changed


def put_product(session: Session, company_id: str, product: Product, version: int) -> None:
    """Add a sheet (version 0) or change it. Raises StaleEdit with both values."""
    row = session.get(ProductRow, (company_id, product.code))
    sheet = product.model_dump(mode="json")
    if (row.version if row else 0) != version:
        now = row.sheet if row else {}
        raise StaleEdit(product.name, {k: (now.get(k), v) for k, v in sheet.items() if now.get(k) != v})
    if row is None:
        session.add(ProductRow(company_id=company_id, code=product.code, sheet=sheet))
    elif row.sheet != sheet:
        row.sheet = sheet
    session.flush()


def product_version(session: Session, company_id: str, code: str) -> int:
    """Raises NotFound."""
    row = session.get(ProductRow, (company_id, code))
    if row is None:
        raise NotFound("product", code)
    return row.version


def drop_product(session: Session, company_id: str, code: str, version: int) -> None:
    """Take a sheet out of the stores; one that a job uses stays. Raises NotFound, StaleEdit or ValueError."""
    row = session.get(ProductRow, (company_id, code))
    if row is None:
        raise NotFound("product", code)
    if row.version != version:
        raise StaleEdit(str(row.sheet["name"]), {"sheet": ("changed meanwhile", "taken out")})
    jobs = session.scalars(
        select(JobRow)
        .join(PropertyRow, PropertyRow.id == JobRow.property_id)
        .where(PropertyRow.company_id == company_id)
    )
    users = [j.name for j in jobs if code in j.products and j.deleted_at is None]
    if users:
        raise ValueError(f"{users[0]} uses it" + (f", and {len(users) - 1} more" if len(users) > 1 else ""))
    session.delete(row)
