"""Single edits to a survey and a specification: versioned, validated as a whole, undoable."""

from collections.abc import Callable, Iterable
from functools import partial
from typing import Any

from pydantic import ValidationError
from sqlalchemy import select

from amber_gable.core.survey.findings.checks import survey_faults
from amber_gable.domain.errors import InputError, NotFound, StaleEdit, first_words
from amber_gable.domain.house.survey import Part
from amber_gable.domain.job.job import JobBundle
from amber_gable.store.job.jobs import PART_TABLES, live_job, load_bundle, load_face, part_row
from amber_gable.store.job.recorder import state
from amber_gable.store.tables import (
    FaceRow,
    ItemRow,
    ObstacleRow,
    OpeningRow,
    ZoneRow,
)
from amber_gable.store.transaction import Transaction, held, hold, places

PARTS: dict[str, Any] = {
    "face": FaceRow,
    "opening": OpeningRow,
    "obstacle": ObstacleRow,
    "zone": ZoneRow,
    "item": ItemRow,
}
KINDS = {table: kind for kind, table in PARTS.items()}
KIND_OF = {model: KINDS[table] for model, table in PART_TABLES.items()}


def live_part(session: Transaction, job_id: str, kind: str, id_: str) -> Any:
    """The live row of a part. Raises NotFound."""
    table = PARTS.get(kind)
    row = None if table is None else held(session, table, (live_job(session, job_id).property_id, id_))
    if row is None or row.deleted_at is not None:
        raise NotFound(kind, id_)
    return row


def face_of(session: Transaction, job_id: str, kind: str, id_: str) -> str:
    """Id of the face a live part is on. Raises NotFound."""
    row = live_part(session, job_id, kind, id_)
    face: str = row.id if kind == "face" else row.face_id
    return face


def face_names(session: Transaction, job_id: str) -> list[tuple[str, str]]:
    """Id and name of every live face, in order."""
    property_id = live_job(session, job_id).property_id
    wanted = select(FaceRow.id, FaceRow.name).where(FaceRow.property_id == property_id, FaceRow.deleted_at.is_(None))
    return [(id_, name) for id_, name in session.execute(wanted.order_by(FaceRow.position))]


def part_names(session: Transaction, job_id: str) -> set[str]:
    """Names of all faces and of what stands on them, zones aside."""
    property_id = live_job(session, job_id).property_id
    out: set[str] = set()
    for kind, table in PARTS.items():
        if kind != "zone":
            live = select(table.name).where(table.property_id == property_id, table.deleted_at.is_(None))
            out |= set(session.scalars(live))
    return out


def hold_parts(session: Transaction, job_id: str, parts: Iterable[Part]) -> None:
    """Read the rows of parts that will be changed together."""
    wanted: dict[str, list[str]] = {}
    for part in parts:
        wanted.setdefault(KIND_OF[type(part)], []).append(part.id)
    hold(session, PARTS, live_job(session, job_id).property_id, wanted)


def put_part(session: Transaction, job_id: str, part: Part, face_id: str, version: int | None) -> None:
    """Add a part, or change it when `version` is given. `check_faces` must follow before the transaction ends."""
    property_id = live_job(session, job_id).property_id
    new = part_row(property_id, face_id, 0, part)
    table = type(new)
    kind = KINDS[table]
    if version is None:
        there = places(session, table, property_id)
        if part.id in there:
            raise InputError(f"{kind} '{part.name}'", f"the id '{part.id}' is taken", "choose another name")
        new.position = there[part.id] = max(there.values(), default=-1) + 1
        session.add(new)
        return
    row = live_part(session, job_id, kind, part.id)
    fields = {k: v for k, v in state(new).items() if k != "position"}
    if row.version != version:
        raise StaleEdit(part.name, _differences({k: getattr(row, k) for k in fields}, fields))
    for key, value in fields.items():
        if getattr(row, key) != value:
            setattr(row, key, value)


def _differences(stored: dict[str, Any], given: dict[str, Any]) -> dict[str, tuple[Any, Any]]:
    """Fields that differ, those of a shape or texture one by one."""
    out: dict[str, tuple[Any, Any]] = {}
    for key in stored | given:
        here, mine = stored.get(key), given.get(key)
        if isinstance(here, dict) and isinstance(mine, dict):
            out |= _differences(here, mine)
        elif here != mine:
            out[key] = (here, mine)
    return out


def delete_part(session: Transaction, job_id: str, kind: str, id_: str) -> str:
    """Hide a part. Returns its name."""
    row = live_part(session, job_id, kind, id_)
    row.deleted_at = row.updated_at or 1
    session.flush()
    name: str = row.name
    return name


def check_whole(session: Transaction, job_id: str) -> JobBundle:
    """The job as it would be saved. Raises InputError when it is not valid or its geometry cannot be."""
    return _checked(session, lambda: load_bundle(session, job_id))


def check_references(session: Transaction, job_id: str) -> JobBundle:
    """The job as it would be saved, after a change that leaves the survey as it is. Raises InputError."""
    return _checked(session, lambda: load_bundle(session, job_id), geometry=False)


def check_faces(session: Transaction, job_id: str, faces: Iterable[str]) -> None:
    """Check the faces that an edit touched. Raises InputError. Faces that are gone need no check."""
    there = {id_ for id_, _ in face_names(session, job_id)} & set(faces)
    if len(there) > 1:
        check_whole(session, job_id)
    for face in there if len(there) == 1 else ():
        _checked(session, partial(load_face, session, job_id, face))


def _checked(session: Transaction, load: Callable[[], JobBundle], *, geometry: bool = True) -> JobBundle:
    session.flush()
    try:
        bundle = load()
    except ValidationError as error:
        raise InputError("survey", first_words(error)[1], "nothing was saved") from None
    faults = survey_faults(bundle.property) if geometry else []
    if faults:
        raise InputError(f"{faults[0].kind} '{faults[0].id}'", faults[0].why, faults[0].todo)
    return bundle


def versions(session: Transaction, job_id: str, face_id: str | None = None) -> dict[tuple[str, str], int]:
    """Version of every row by (kind, id), of one face where it is named."""
    property_id = live_job(session, job_id).property_id
    out: dict[tuple[str, str], int] = {}
    for kind, table in PARTS.items():
        wanted = select(table.id, table.version).where(table.property_id == property_id)
        if face_id is not None:
            wanted = wanted.where((table.id if kind == "face" else table.face_id) == face_id)
        for id_, version in session.execute(wanted):
            out[kind, id_] = version
    return out
