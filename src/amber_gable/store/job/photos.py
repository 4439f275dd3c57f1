"""Photos: their rows, and their pictures."""

from typing import Any

from sqlalchemy import func, select

from amber_gable.domain.errors import NotFound
from amber_gable.domain.house.photo import Photo
from amber_gable.store.job.jobs import live_job, photo_row
from amber_gable.store.tables import PhotoRow
from amber_gable.store.transaction import Transaction


def live_photo(session: Transaction, job_id: str, id_: str) -> PhotoRow:
    """Raises NotFound."""
    row = session.get(PhotoRow, (live_job(session, job_id).property_id, id_))
    if row is None or row.deleted_at is not None:
        raise NotFound("photo", id_)
    return row


def add_photo(session: Transaction, job_id: str, photo: Photo, data: bytes) -> None:
    property_id = live_job(session, job_id).property_id
    last = session.scalar(select(func.max(PhotoRow.position)).where(PhotoRow.property_id == property_id))
    session.pictures.put(data)
    session.add(photo_row(property_id, 0 if last is None else last + 1, photo))


def change_photo(session: Transaction, job_id: str, id_: str, **fields: Any) -> None:
    row = live_photo(session, job_id, id_)
    for name, value in fields.items():
        setattr(row, name, value)


def delete_photo(session: Transaction, job_id: str, id_: str) -> None:
    """Hide a photo; it can be brought back."""
    row = live_photo(session, job_id, id_)
    row.deleted_at = row.updated_at or 1


def all_ids(session: Transaction, job_id: str) -> list[str]:
    """Ids in use, those of deleted photos too."""
    property_id = live_job(session, job_id).property_id
    return list(session.scalars(select(PhotoRow.id).where(PhotoRow.property_id == property_id)))


def photo_bytes(session: Transaction, job_id: str, id_: str) -> bytes:
    """Raises NotFound, and InputError where the picture is not beside the database."""
    row = live_photo(session, job_id, id_)
    return session.pictures.get(row.sha256, row.name)


def all_photo_bytes(session: Transaction, job_id: str) -> dict[str, bytes]:
    """Pictures of every live photo by id. Raises InputError where one is not beside the database."""
    property_id = live_job(session, job_id).property_id
    live = select(PhotoRow).where(PhotoRow.property_id == property_id, PhotoRow.deleted_at.is_(None))
    return {row.id: session.pictures.get(row.sha256, row.name) for row in session.scalars(live)}
