"""Undo and redo of what is done to a job: every step is kept as what each record was before and after it."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from amber_gable.domain.errors import InputError
from amber_gable.store.rows import held, hold
from amber_gable.store.tables import EditRow
from amber_gable.store.watched import WATCHED, put_back

STEPS_KEPT = 300
WRITTEN_IN = 4
"""The schema (migration) whose columns steps are recorded in today."""
_SKIP = {"property_id", "id", "created_at", "updated_at", "version", "deleted_at", "data"}


@dataclass(frozen=True)
class Undoable:
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


def add_changes(session: Session, changes: list[dict[str, Any]]) -> None:
    """Of the step under way, seen at the rows (store/watched.py)."""
    session.info.setdefault("changes", []).extend(changes)


def close_step(session: Session, property_id: str, words: str) -> None:
    """Keep the changes noted so far as one step. What had been undone can no longer be redone."""
    changes = [c for c in session.info.pop("changes", []) if c["before"] != c["after"]]
    if not changes:
        return
    mine = EditRow.property_id == property_id
    session.execute(delete(EditRow).where(mine, EditRow.undone))
    last = session.scalar(select(func.max(EditRow.number)).where(mine)) or 0
    step = EditRow(property_id=property_id, number=last + 1, words=words[:200], changes=changes)
    step.undone, step.written_in = False, WRITTEN_IN
    session.add(step)
    session.execute(delete(EditRow).where(mine, EditRow.number <= last + 1 - STEPS_KEPT))


def steps(session: Session, property_id: str) -> Undoable:
    last, first = _last_done(session, property_id), _first_undone(session, property_id)
    return Undoable(last.words if last else None, first.words if first else None)


@dataclass(frozen=True)
class Moved:
    """A step taken back or done again: its words, the faces it touched, and whether it touched more than the survey."""

    words: str
    faces: set[str]
    beside_survey: bool


def undo(session: Session, property_id: str, tables: dict[str, Any]) -> Moved:
    """Take the last step back. Raises InputError when there is none or it no longer applies."""
    step = _last_done(session, property_id)
    if step is None:
        raise InputError("undo", "there is nothing to take back", "go on surveying")
    changes = _held(session, property_id, tables, step)
    for change in reversed(changes):
        _apply(session, property_id, tables, change, change["after"], change["before"])
    step.undone = True
    return _moved(step)


def redo(session: Session, property_id: str, tables: dict[str, Any]) -> Moved:
    """Do the last undone step again. Raises InputError like `undo`."""
    step = _first_undone(session, property_id)
    if step is None:
        raise InputError("redo", "there is nothing to do again", "go on surveying")
    for change in _held(session, property_id, tables, step):
        _apply(session, property_id, tables, change, change["before"], change["after"])
    step.undone = False
    return _moved(step)


def _moved(step: EditRow) -> Moved:
    return Moved(step.words, _faces(step), any(c["kind"] in WATCHED for c in step.changes))


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
    if change["kind"] in WATCHED:
        return put_back(session, change, expected, wanted)
    table = tables[change["kind"]]
    row = held(session, table, (property_id, change["id"]))
    present = None if row is None or row.deleted_at is not None else state(row)
    what = f"{change['kind']} '{change['id']}'"
    gone = {*(expected or {}), *(wanted or {})} - {c.key for c in table.__table__.columns}
    if gone:
        raise InputError(what, "was recorded by an older version: the step cannot be repeated", "change it by hand")
    if row is None or not _holds(present, expected):
        raise InputError(what, "was changed in another way since", "change it by hand")
    if wanted is None:
        row.deleted_at = row.updated_at or 1
        return None
    row.deleted_at = None
    for key, value in wanted.items():
        setattr(row, key, value)
    return None


def _holds(present: dict[str, Any] | None, recorded: dict[str, Any] | None) -> bool:
    """Whether a record stands as it was recorded. Columns that came with a later schema do not count: what is in them
    stays as it is."""
    if present is None or recorded is None:
        return present is recorded
    return all(present[key] == value for key, value in recorded.items())


_CARRIED: dict[int, Callable[[str, dict[str, Any]], dict[str, Any]]] = {}
"""For each schema that gave a surveyed column another name or meaning: how a recorded state of the one before it (kind,
columns) reads in it. Columns that were only added need none."""


def _carried(step: EditRow) -> list[dict[str, Any]]:
    """The changes of a step in the columns of today."""
    out = []
    for change in step.changes:
        for side in ("before", "after"):
            for schema in range(step.written_in + 1, WRITTEN_IN + 1):
                if change[side] is not None and schema in _CARRIED:
                    change = change | {side: _CARRIED[schema](change["kind"], change[side])}
        out.append(change)
    return out


def _held(session: Session, property_id: str, tables: dict[str, Any], step: EditRow) -> list[dict[str, Any]]:
    """The changes of a step, their records read in one statement a kind."""
    changes = _carried(step)
    wanted: dict[str, list[str]] = {}
    for change in changes:
        if change["kind"] in WATCHED:
            continue
        wanted.setdefault(change["kind"], []).append(change["id"])
    hold(session, tables, property_id, wanted)
    return changes
