"""The firm's own store in the database. A number once given is not given again."""

from typing import Any

from sqlalchemy import func, select

from amber_gable.domain.errors import NotFound
from amber_gable.domain.paint.stock import StockCan
from amber_gable.store.tables import StockRow
from amber_gable.store.transaction import Transaction

FIELDS = tuple(StockCan.model_fields)


def cans(session: Transaction, company_id: str) -> list[StockCan]:
    """Those that are there, by their numbers."""
    rows = session.scalars(
        select(StockRow)
        .where(StockRow.company_id == company_id, StockRow.deleted_at.is_(None))
        .order_by(StockRow.number)
    )
    return [StockCan.model_validate({name: getattr(row, name) for name in FIELDS}) for row in rows]


def next_number(session: Transaction, company_id: str) -> int:
    """One more than any that was ever given."""
    return (session.scalar(select(func.max(StockRow.number)).where(StockRow.company_id == company_id)) or 0) + 1


def add_can(session: Transaction, company_id: str, can: StockCan) -> None:
    session.add(StockRow(company_id=company_id, **can.model_dump()))


def change_can(session: Transaction, company_id: str, number: int, **fields: Any) -> StockCan:
    """Raises NotFound, and ValidationError for what no can is."""
    row = _row(session, company_id, number)
    can = StockCan.model_validate({name: getattr(row, name) for name in FIELDS} | fields)
    for name, value in fields.items():
        setattr(row, name, value)
    return can


def drop_can(session: Transaction, company_id: str, number: int, now: int) -> None:
    """It is empty, or gone. Raises NotFound."""
    _row(session, company_id, number).deleted_at = now


def bring_back(session: Transaction, company_id: str, number: int) -> None:
    """Raises NotFound."""
    row = session.get(StockRow, (company_id, number))
    if row is None:
        raise NotFound("can", str(number))
    row.deleted_at = None


def _row(session: Transaction, company_id: str, number: int) -> StockRow:
    row = session.get(StockRow, (company_id, number))
    if row is None or row.deleted_at is not None:
        raise NotFound("can", str(number))
    return row
