"""A database session, and rows read in few statements that it remembers."""

from collections.abc import Callable, Iterable, Mapping
from typing import TYPE_CHECKING, Any

from sqlalchemy import Engine, select
from sqlalchemy.orm import Session

if TYPE_CHECKING:
    from amber_gable.store.job.recorder import Recorder
    from amber_gable.store.kept import Entry, Kept, Key
    from amber_gable.store.pictures import Pictures


class Transaction(Session):
    """`by` is who asks; rows that are changed are stamped with it. `kept` holds what all transactions share, `pictures`
    the files beside the database, `fresh` what one that writes has read of its own changes (None in one that only
    reads). The other attributes are read once a transaction: change numbers by scope, rows by table and key, positions
    of parts by table and property, and rows of companies and finishes by job."""

    def __init__(self, bind: Engine, kept: "Kept", pictures: "Pictures", *, by: str = "", writes: bool = False) -> None:
        super().__init__(bind, autoflush=writes)
        self.kept, self.pictures, self.by = kept, pictures, by
        self.fresh: dict[Key, Entry] | None = {} if writes else None
        self.numbers: dict[str, int | None] = {}
        self.rows: dict[tuple[Any, Any], Any] = {}
        self.positions: dict[tuple[Any, str], dict[str, int]] = {}
        self.companies: dict[str, Any] = {}
        self.finishes: dict[str, dict[tuple[str, str], Any]] = {}
        self.recorder: Recorder | None = None
        self.when_committed: list[Callable[[], None]] = []

    @property
    def writes(self) -> bool:
        return self.fresh is not None


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
