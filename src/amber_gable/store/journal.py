"""Undo and redo of surveying: every step is kept as what each record was before and after it."""

from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from amber_gable.domain.errors import InputError
from amber_gable.store.tables import EditRow

STEPS_KEPT = 300
_SKIP = {"property_id", "id", "created_at", "updated_at", "version", "deleted_at", "data"}


@dataclass(frozen=True)
class Steps:
    """What undo and redo would do next, in words; None when there is nothing."""

    undo: str | None
    redo: str | None


def state(row: Any) -> dict[str, Any]:
    """A record's own columns; a photo's bytes never change and stay where they are."""
    return {c.key: getattr(row, c.key) for c in row.__table__.columns if c.key not in _SKIP}


def note(session: Session, kind: str, id_: str, before: dict[str, Any] | None, after: Any | None) -> None:
    """Remember a change of the step under way; None stands for a record that is not there."""
    change = {"kind": kind, "id": id_, "before": before, "after": None if after is None else state(after)}
    session.info.setdefault("changes", []).append(change)


def close_step(session: Session, property_id: str, words: str) -> None:
    """Keep the changes noted so far as one step. What had been undone can no longer be redone."""
    changes = [c for c in session.info.pop("changes", []) if c["before"] != c["after"]]
    if not changes:
        return
    mine = EditRow.property_id == property_id
    session.execute(delete(EditRow).where(mine, EditRow.undone))
    last = session.scalar(select(func.max(EditRow.number)).where(mine)) or 0
    session.add(EditRow(property_id=property_id, number=last + 1, words=words[:200], changes=changes, undone=False))
    session.execute(delete(EditRow).where(mine, EditRow.number <= last + 1 - STEPS_KEPT))


def steps(session: Session, property_id: str) -> Steps:
    last, first = _last_done(session, property_id), _first_undone(session, property_id)
    return Steps(last.words if last else None, first.words if first else None)


@dataclass(frozen=True)
class Moved:
    """A step taken back or done again: its words, and the faces it touched."""

    words: str
    faces: set[str]


def undo(session: Session, property_id: str, tables: dict[str, Any]) -> Moved:
    """Take the last step back. Raises InputError when there is none or it no longer applies."""
    step = _last_done(session, property_id)
    if step is None:
        raise InputError("undo", "there is nothing to take back", "go on surveying")
    for change in reversed(step.changes):
        _apply(session, property_id, tables, change, change["after"], change["before"])
    step.undone = True
    return Moved(step.words, _faces(step))


def redo(session: Session, property_id: str, tables: dict[str, Any]) -> Moved:
    """Do the last undone step again. Raises InputError like `undo`."""
    step = _first_undone(session, property_id)
    if step is None:
        raise InputError("redo", "there is nothing to do again", "go on surveying")
    for change in step.changes:
        _apply(session, property_id, tables, change, change["before"], change["after"])
    step.undone = False
    return Moved(step.words, _faces(step))


def _faces(step: EditRow) -> set[str]:
    out = {c["id"] for c in step.changes if c["kind"] == "face"}
    for change in step.changes:
        out |= {state["face_id"] for state in (change["before"], change["after"]) if state and state.get("face_id")}
    return out


def _last_done(session: Session, property_id: str) -> EditRow | None:
    wanted = select(EditRow).where(EditRow.property_id == property_id, ~EditRow.undone)
    return session.scalars(wanted.order_by(EditRow.number.desc()).limit(1)).first()


def _first_undone(session: Session, property_id: str) -> EditRow | None:
    wanted = select(EditRow).where(EditRow.property_id == property_id, EditRow.undone)
    return session.scalars(wanted.order_by(EditRow.number).limit(1)).first()


def _apply(
    session: Session,
    property_id: str,
    tables: dict[str, Any],
    change: dict[str, Any],
    expected: dict[str, Any] | None,
    wanted: dict[str, Any] | None,
) -> None:
    row = session.get(tables[change["kind"]], (property_id, change["id"]))
    present = None if row is None or row.deleted_at is not None else state(row)
    if row is None or present != expected:
        raise InputError(f"{change['kind']} '{change['id']}'", "was changed in another way since", "change it by hand")
    if wanted is None:
        row.deleted_at = row.updated_at or 1
        return
    row.deleted_at = None
    for key, value in wanted.items():
        setattr(row, key, value)
