"""What a step changes of a job beside its survey, seen at the rows themselves: its own line, its house, its company's
settings, and what its parts get."""

from typing import Any

from sqlalchemy import event, inspect
from sqlalchemy.orm import Session

from amber_gable.domain.errors import InputError
from amber_gable.store.tables import CompanyRow, FinishRow, JobRow, PropertyRow

WATCHED: dict[str, Any] = {"job": JobRow, "house": PropertyRow, "company": CompanyRow, "finish": FinishRow}
_KIND_OF = {table: kind for kind, table in WATCHED.items()}
_SKIP = {"created_at", "updated_at", "version", "deleted_at"}
_BETWEEN = "/"
"""Between the parts of a row's key; ids hold none."""
State = dict[str, Any]


def watch(session: Session) -> None:
    """From now on what these rows were before is remembered, until `changes_seen` asks."""
    session.info["watched"] = {}
    event.listen(session, "before_flush", _remember)


def _remember(session: Session, *_: object) -> None:
    seen: dict[tuple[str, str], State | None] = session.info["watched"]
    for row in (*session.dirty, *session.deleted, *session.new):
        kind = _KIND_OF.get(type(row))
        if kind is not None:
            seen.setdefault((kind, _key(row)), None if row in session.new else _as_it_was(row))


def _key(row: Any) -> str:
    return _BETWEEN.join(str(getattr(row, c.key)) for c in row.__table__.primary_key)


def _as_it_was(row: Any) -> State:
    """Its columns as the database has them."""
    out = {}
    for column in row.__table__.columns:
        if column.key not in _SKIP:
            history = inspect(row).attrs[column.key].history
            out[column.key] = history.deleted[0] if history.deleted else getattr(row, column.key)
    return out


def _state(row: Any) -> State:
    return {c.key: getattr(row, c.key) for c in row.__table__.columns if c.key not in _SKIP}


def changes_seen(session: Session) -> list[dict[str, Any]]:
    """Each row's change as the journal keeps it; of a row that stays only the columns that changed."""
    session.flush()
    event.remove(session, "before_flush", _remember)
    out = []
    for (kind, key), before in session.info.pop("watched", {}).items():
        row = _row(session, kind, key)
        after = None if row is None else _state(row)
        if before is not None and after is not None:
            changed = [name for name in after if before[name] != after[name]]
            before, after = ({name: s[name] for name in changed} for s in (before, after))
        if before != after:
            out.append({"kind": kind, "id": key, "before": before, "after": after})
    return out


def _row(session: Session, kind: str, key: str) -> Any | None:
    parts = key.split(_BETWEEN)
    return session.get(WATCHED[kind], tuple(parts) if len(parts) > 1 else key)


def put_back(session: Session, change: dict[str, Any], expected: State | None, wanted: State | None) -> None:
    """Make a row what it is wanted to be, if it is as it was left. Raises InputError."""
    kind, key = change["kind"], change["id"]
    row = _row(session, kind, key)
    there = None if row is None else _state(row)
    known = {c.key for c in WATCHED[kind].__table__.columns}
    if {*(expected or {}), *(wanted or {})} - known:
        raise InputError("this step", "was recorded by an older version: it cannot be repeated", "change it by hand")
    same = there is expected if there is None or expected is None else all(there[k] == v for k, v in expected.items())
    if not same:
        raise InputError("this step", "was changed in another way since", "change it by hand")
    if wanted is None:
        session.delete(row)
    elif row is None:
        session.add(WATCHED[kind](**wanted))
    else:
        for name, value in wanted.items():
            setattr(row, name, value)
