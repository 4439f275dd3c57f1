"""Bringing a take-off file into a survey: all of it or nothing."""

from dataclasses import replace
from typing import Any

from amber_gable.core.survey.findings.checks import face_faults
from amber_gable.domain.errors import InputError, Refused
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Part, Property, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.files import decode
from amber_gable.exchange.job.takeoff_csv import TakeoffRow, read_takeoff, write_takeoff
from amber_gable.services.context import Context
from amber_gable.services.survey.surveying import free_id, with_part, write_step
from amber_gable.store.job.jobs import load_bundle


def import_takeoff(ctx: Context, job_id: str, data: bytes, name: str) -> int:
    """Add the file's faces and what is on them. Returns how many parts. Raises InputError with the line at fault."""
    rows = read_takeoff(decode(data, name), name)
    if not rows:
        raise InputError(name, "holds no line", "see docs/formats.md")
    with ctx.writing() as session:
        property_ = load_bundle(session, job_id).property
        there = {f.name: f.id for f in property_.faces}
        old = set(there)
        taken: set[tuple[str, str]] = set()
        changes: list[tuple[Part, str, int | None]] = []
        # Faces first: a file may list what is on a face before the face itself.
        for row in sorted(rows, key=lambda r: r.record != "face"):
            where = f"{name}, line {row.line}"
            if row.record == "face" and row.part.name in there:
                words = "is there already" if row.part.name in old else "stands twice in the file"
                raise InputError(f"{where}, name", f"face '{row.part.name}' {words}", "give another name")
            if row.record != "face" and row.face not in there:
                raise InputError(f"{where}, face", f"there is no face '{row.face}'", "add its line")
            id_ = free_id(session, job_id, row.record, row.part.name, taken)
            taken.add((row.record, id_))
            made = _placed(row, id_, there)
            face_id = id_ if isinstance(made.part, Face) else there[row.face]
            if isinstance(made.part, Face):
                there[made.part.name] = id_
            property_ = with_part(property_, made.part, face_id)
            faults = face_faults(property_.face(face_id), property_.zones_of(face_id))
            if faults:
                raise InputError(where, faults[0].why, f"{faults[0].todo}; nothing was saved")
            changes.append((made.part, face_id, None))
        try:
            write_step(session, job_id, changes, f"bring {name[:60]}")
        except Refused as error:
            raise InputError(name, next(iter(error.fields.values())), "correct it; nothing was saved") from None
    return len(changes)


def takeoff_csv(bundle: JobBundle) -> bytes:
    """The take-off as a spreadsheet reads it, with a byte-order mark."""
    return write_takeoff(bundle).encode("utf-8-sig")


def takeoff_workbook(bundle: JobBundle) -> bytes:
    # Loaded when it is first needed: the program starts without it.
    from amber_gable.exchange.job.takeoff_xlsx import write_workbook

    return write_workbook(bundle)


def elevations_dxf(property_: Property, faces: tuple[Face, ...]) -> bytes:
    # Loaded when it is first needed: the program starts without it.
    from amber_gable.exchange.job.elevation_dxf import write_dxf

    return write_dxf(property_, faces)


def _placed(row: TakeoffRow, id_: str, faces: dict[str, str]) -> TakeoffRow:
    """The part under its own id, on its own face."""
    update: dict[str, Any] = {"id": id_}
    if isinstance(row.part, Zone | Item):
        update["face"] = faces[row.face]
    part: Face | Opening | Obstacle | Zone | Item = row.part.model_copy(update=update)
    return replace(row, part=part)
