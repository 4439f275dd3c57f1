"""What a step changes of a job, seen at the rows themselves: its survey with photos, its own line, its house, its
company's settings, and what its parts get."""

from typing import Any

from sqlalchemy import event, inspect

from amber_gable.domain.errors import InputError
from amber_gable.store.tables import (
    STAMPS,
    CompanyRow,
    Deletable,
    FaceRow,
    FinishRow,
    ItemRow,
    JobRow,
    ObstacleRow,
    OpeningRow,
    PhotoRow,
    PropertyRow,
    ZoneRow,
)
from amber_gable.store.transaction import Transaction, held

SURVEYED: dict[str, Any] = {
    "face": FaceRow,
    "opening": OpeningRow,
    "obstacle": ObstacleRow,
    "zone": ZoneRow,
    "item": ItemRow,
    "photo": PhotoRow,
}
"""Records of a property: named by their id, hidden when they are deleted, kept whole in a step."""
OTHERS: dict[str, Any] = {"job": JobRow, "house": PropertyRow, "company": CompanyRow, "finish": FinishRow}
"""Named by their whole key; only the columns that changed are kept."""
RECORDED = SURVEYED | OTHERS
_KIND_OF = {table: kind for kind, table in RECORDED.items()}
_NO_STEP = STAMPS | {"deleted_at"}
_SKIP = {True: _NO_STEP | {"property_id", "id"}, False: _NO_STEP}
"""Columns that no step keeps, of surveyed records and of others."""
_BETWEEN = "/"
"""Between the parts of a row's key; ids hold none."""
State = dict[str, Any]
Change = dict[str, Any]
"""`kind` and `id` of a record, and its columns `before` and `after`; None where it is not there."""


def state(row: Any) -> State:
    """The columns of a row that a step keeps."""
    skip = _SKIP[_KIND_OF[type(row)] in SURVEYED]
    return {c.key: getattr(row, c.key) for c in row.__table__.columns if c.key not in skip}


class Recorder:
    """Remembers, from the moment it is made, what each recorded row was before the transaction changed it."""

    def __init__(self, session: Transaction) -> None:
        self._session = session
        self._before: dict[tuple[str, str], State | None] = {}
        self._rows: dict[tuple[str, str], Any] = {}
        self.words: str | None = None
        event.listen(session, "before_flush", self._remember)

    def _remember(self, session: Transaction, *_: object) -> None:
        for row in (*session.dirty, *session.deleted, *session.new):
            kind = _KIND_OF.get(type(row))
            if kind is not None:
                key = (kind, row.id if kind in SURVEYED else _key(row))
                self._before.setdefault(key, None if row in session.new else _as_it_was(row))
                # Held, so that it need not be read again at the end.
                self._rows[key] = row

    def changes(self) -> list[Change]:
        """What the transaction changed so far, in the order it was first touched. Ends the remembering."""
        self._session.flush()
        event.remove(self._session, "before_flush", self._remember)
        out = []
        for (kind, key), before in self._before.items():
            row = self._rows[kind, key]
            after = None if inspect(row).deleted or _hidden(row) else state(row)
            if kind in OTHERS and before is not None and after is not None:
                changed = [name for name in after if before[name] != after[name]]
                before, after = ({name: s[name] for name in changed} for s in (before, after))
            if before != after:
                out.append({"kind": kind, "id": key, "before": before, "after": after})
        return out


def _key(row: Any) -> str:
    return _BETWEEN.join(str(getattr(row, c.key)) for c in row.__table__.primary_key)


def _hidden(row: Any) -> bool:
    return isinstance(row, Deletable) and _KIND_OF[type(row)] in SURVEYED and row.deleted_at is not None


def _as_it_was(row: Any) -> State | None:
    """Its columns as the database has them; None for what was deleted."""
    attributes = inspect(row).attrs

    def stored(name: str) -> Any:
        # A column that was not loaded was not changed either.
        history = attributes[name].history
        return history.deleted[0] if history.deleted else getattr(row, name)

    surveyed = _KIND_OF[type(row)] in SURVEYED
    if surveyed and stored("deleted_at") is not None:
        return None
    return {c.key: stored(c.key) for c in row.__table__.columns if c.key not in _SKIP[surveyed]}


def _find(session: Transaction, property_id: str, kind: str, key: str) -> Any | None:
    """A recorded row, deleted ones too."""
    if kind in SURVEYED:
        return held(session, SURVEYED[kind], (property_id, key))
    parts = key.split(_BETWEEN)
    return session.get(OTHERS[kind], tuple(parts) if len(parts) > 1 else key)


def put_back(
    session: Transaction, property_id: str, change: Change, expected: State | None, wanted: State | None
) -> None:
    """Make a record what it is `wanted` to be, if it stands as `expected`. Raises InputError."""
    kind, key = change["kind"], change["id"]
    table, what = RECORDED[kind], f"{kind} '{key}'"
    if {*(expected or {}), *(wanted or {})} - {c.key for c in table.__table__.columns}:
        raise InputError(what, "was recorded by an older version: the step cannot be repeated", "change it by hand")
    row = _find(session, property_id, kind, key)
    there = None if row is None or _hidden(row) else state(row)
    if not _stands(there, expected):
        raise InputError(what, "was changed in another way since", "change it by hand")
    if kind in SURVEYED:
        # Its row stays for good: it may be brought back.
        assert row is not None
        row.deleted_at = (row.updated_at or 1) if wanted is None else None
    elif wanted is None:
        session.delete(row)
    elif row is None:
        session.add(table(**wanted))
        return
    for name, value in (wanted or {}).items():
        setattr(row, name, value)


def _stands(there: State | None, expected: State | None) -> bool:
    """Whether a record stands as it was recorded. Columns that came with a later schema do not count: what is in them
    stays as it is."""
    if there is None or expected is None:
        return there is expected
    return all(there[name] == value for name, value in expected.items())
