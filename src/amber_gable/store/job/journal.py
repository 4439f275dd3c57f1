"""Undo and redo of what is done to a job: every step is kept as what each record was before and after it, and by whom.

Everybody takes back their own steps, and those that nobody is named for. A colleague's step is left alone; where it
touched the same record since, one's own can no longer be taken back, and the refusal says whose it was.
"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

from sqlalchemy import ColumnElement, delete, func, select

from amber_gable.domain.errors import InputError
from amber_gable.store.job.jobs import live_job
from amber_gable.store.job.recorder import OTHERS, SURVEYED, Change, Recorder, put_back
from amber_gable.store.tables import EditRow
from amber_gable.store.transaction import Transaction, hold

STEPS_KEPT = 300
WRITTEN_IN = 4
"""The schema (migration) whose columns steps are recorded in today."""


@contextmanager
def step(session: Transaction, job_id: str, words: str) -> Iterator[None]:
    """What is changed inside is one step of the job, called by `words` as in "undo …"; a step within a step is part of
    it. Raises NotFound for an unknown job."""
    if session.recorder is not None:
        yield
        return
    recorder = session.recorder = Recorder(session)
    yield
    session.recorder = None
    property_id = live_job(session, job_id).property_id
    _keep(session, property_id, recorder.words or words, recorder.changes())


def call_step(session: Transaction, words: str) -> None:
    """Better words for the step under way, once it is known what it is done to."""
    if session.recorder is not None:
        session.recorder.words = words


def _keep(session: Transaction, property_id: str, words: str, changes: list[Change]) -> None:
    """Keep changes as one step of whoever made them. What they had undone can no longer be redone."""
    if not changes:
        return
    here = EditRow.property_id == property_id
    session.execute(delete(EditRow).where(_mine(session, property_id), EditRow.undone))
    last = session.scalar(select(func.max(EditRow.number)).where(here)) or 0
    step = EditRow(property_id=property_id, number=last + 1, words=words[:200], changes=changes, by=session.by)
    step.undone, step.written_in = False, WRITTEN_IN
    session.add(step)
    session.execute(delete(EditRow).where(here, EditRow.number <= last + 1 - STEPS_KEPT))


@dataclass(frozen=True)
class Undoable:
    """What undo and redo would do next for whoever asks, in words; None when there is nothing."""

    undo: str | None
    redo: str | None


def steps(session: Transaction, property_id: str) -> Undoable:
    last, first = _last_done(session, property_id), _first_undone(session, property_id)
    return Undoable(last.words if last else None, first.words if first else None)


@dataclass(frozen=True)
class StepMoved:
    """A step taken back or done again: its words, the faces it touched, and whether it touched more than the survey."""

    words: str
    faces: set[str]
    beside_survey: bool


def undo(session: Transaction, property_id: str) -> StepMoved:
    """Take one's last step back. Raises InputError when there is none or it no longer applies."""
    step = _last_done(session, property_id)
    if step is None:
        raise InputError("undo", "there is nothing to take back", "go on surveying")
    changes = _held(session, property_id, step)
    for change in reversed(changes):
        _move(session, step, change, change["after"], change["before"])
    step.undone = True
    return _moved(step)


def redo(session: Transaction, property_id: str) -> StepMoved:
    """Do one's last undone step again. Raises InputError like `undo`."""
    step = _first_undone(session, property_id)
    if step is None:
        raise InputError("redo", "there is nothing to do again", "go on surveying")
    for change in _held(session, property_id, step):
        _move(session, step, change, change["before"], change["after"])
    step.undone = False
    return _moved(step)


def _move(session: Transaction, step: EditRow, change: Change, expected: Any, wanted: Any) -> None:
    try:
        put_back(session, step.property_id, change, expected, wanted)
    except InputError as error:
        other = _changed_since_by(session, step, change)
        if not other:
            raise
        raise InputError(error.where, f"was changed since by {other}", "ask them, or change it by hand") from None


def _changed_since_by(session: Transaction, step: EditRow, change: Change) -> str:
    """Who else changed the record of a change in a later step; empty where nobody did."""
    later = select(EditRow).where(
        EditRow.property_id == step.property_id, EditRow.number > step.number, ~EditRow.undone, EditRow.by != step.by
    )
    for other in session.scalars(later.order_by(EditRow.number.desc())):
        if any((c["kind"], c["id"]) == (change["kind"], change["id"]) for c in other.changes):
            return other.by or "somebody else"
    return ""


def _moved(step: EditRow) -> StepMoved:
    return StepMoved(step.words, _faces(step), any(c["kind"] in OTHERS for c in step.changes))


def _faces(step: EditRow) -> set[str]:
    out = {c["id"] for c in step.changes if c["kind"] == "face"}
    for change in step.changes:
        out |= {state["face_id"] for state in (change["before"], change["after"]) if state and state.get("face_id")}
    return out


def _mine(session: Transaction, property_id: str) -> ColumnElement[bool]:
    return (EditRow.property_id == property_id) & EditRow.by.in_({session.by, ""})


def _last_done(session: Transaction, property_id: str) -> EditRow | None:
    wanted = select(EditRow).where(_mine(session, property_id), ~EditRow.undone)
    return session.scalars(wanted.order_by(EditRow.number.desc()).limit(1)).first()


def _first_undone(session: Transaction, property_id: str) -> EditRow | None:
    wanted = select(EditRow).where(_mine(session, property_id), EditRow.undone)
    return session.scalars(wanted.order_by(EditRow.number).limit(1)).first()


_CARRIED: dict[int, Callable[[str, dict[str, Any]], dict[str, Any]]] = {}
"""For each schema that gave a surveyed column another name or meaning: how a recorded state of the one before it (kind,
columns) reads in it. Columns that were only added need none."""


def _carried(step: EditRow) -> list[Change]:
    """The changes of a step in the columns of today."""
    out = []
    for change in step.changes:
        for side in ("before", "after"):
            for schema in range(step.written_in + 1, WRITTEN_IN + 1):
                if change[side] is not None and schema in _CARRIED:
                    change = change | {side: _CARRIED[schema](change["kind"], change[side])}
        out.append(change)
    return out


def _held(session: Transaction, property_id: str, step: EditRow) -> list[Change]:
    """The changes of a step, their records read in one statement a kind."""
    changes = _carried(step)
    wanted: dict[str, list[str]] = {}
    for change in changes:
        if change["kind"] in SURVEYED:
            wanted.setdefault(change["kind"], []).append(change["id"])
    hold(session, SURVEYED, property_id, wanted)
    return changes
