"""Rows read in few statements. The session refers to them until it ends: SQLAlchemy forgets rows that nothing refers
to."""

from collections.abc import Iterable, Mapping
from typing import Any

from sqlalchemy import select

from amber_gable.store.transaction import Transaction


def held(session: Transaction, table: Any, key: Any) -> Any | None:
    """The row of that key, read once in a session."""
    kept = session.rows
    if (table, key) not in kept:
        row = session.get(table, key)
        if row is None:
            return None
        kept[table, key] = row
    return kept[table, key]


def hold(
    session: Transaction, tables: Mapping[str, Any], property_id: str, wanted: Mapping[str, Iterable[str]]
) -> None:
    """Read the parts of a property with those ids, by kind: one statement a kind."""
    kept = session.rows
    for kind, ids in wanted.items():
        table = tables[kind]
        lacking = [id_ for id_ in ids if (table, (property_id, id_)) not in kept]
        if lacking:
            found = select(table).where(table.property_id == property_id, table.id.in_(lacking))
            kept |= {(table, (property_id, row.id)): row for row in session.scalars(found)}


def places(session: Transaction, table: Any, property_id: str) -> dict[str, int]:
    """Position by id of every row of a kind that a property ever had; the caller adds what it adds."""
    known = session.positions
    if (table, property_id) not in known:
        wanted = select(table.id, table.position).where(table.property_id == property_id)
        known[table, property_id] = {row.id: row.position for row in session.execute(wanted)}
    return known[table, property_id]
