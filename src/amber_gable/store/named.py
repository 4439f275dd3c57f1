"""What on the board has a name: jobs, and the parts of their surveys."""

from typing import Any, NamedTuple

from sqlalchemy import select

from amber_gable.store.job.jobs import on_board
from amber_gable.store.tables import FaceRow, ItemRow, JobRow, OpeningRow, PropertyRow, ZoneRow
from amber_gable.store.transaction import Transaction


class NamedJob(NamedTuple):
    id: str
    name: str
    customer: str
    place: str


class NamedPart(NamedTuple):
    """`face` is the name of the face it is on, empty for a face."""

    job_id: str
    kind: str
    id: str
    name: str
    face: str


def named_jobs(session: Transaction) -> list[NamedJob]:
    """Jobs on the board, by name."""
    wanted = select(JobRow.id, JobRow.name, JobRow.customer, PropertyRow.place)
    wanted = wanted.join(PropertyRow, PropertyRow.id == JobRow.property_id).where(on_board())
    return [NamedJob(*row) for row in session.execute(wanted.order_by(JobRow.name))]


def named_faces(session: Transaction) -> list[NamedPart]:
    """The faces of every job on the board."""
    wanted = select(JobRow.id, FaceRow.id, FaceRow.name).join(FaceRow, FaceRow.property_id == JobRow.property_id)
    rows = session.execute(wanted.where(on_board(), FaceRow.deleted_at.is_(None)))
    return [NamedPart(job_id, "face", id_, name, "") for job_id, id_, name in rows]


def named_parts(session: Transaction, job_id: str) -> list[NamedPart]:
    """Openings, zones and items of one job."""
    out: list[NamedPart] = []
    tables: dict[str, Any] = {"zone": ZoneRow, "item": ItemRow, "opening": OpeningRow}
    for kind, table in tables.items():
        wanted = (
            select(table.id, table.name, FaceRow.name)
            .join(JobRow, JobRow.property_id == table.property_id)
            .join(FaceRow, (FaceRow.property_id == table.property_id) & (FaceRow.id == table.face_id))
            .where(JobRow.id == job_id, table.deleted_at.is_(None))
        )
        out += [NamedPart(job_id, kind, id_, name, face) for id_, name, face in session.execute(wanted)]
    return out
