"""Jobs in and out of the store, always whole and always validated."""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from amber_gable.domain.errors import InputError, NotFound
from amber_gable.domain.finish import Finish
from amber_gable.domain.job import JobBundle
from amber_gable.domain.photo import Photo
from amber_gable.domain.survey import Face, Item, Obstacle, Opening, Zone
from amber_gable.store.tables import (
    CompanyRow,
    FaceRow,
    FinishRow,
    ItemRow,
    JobRow,
    ObstacleRow,
    OpeningRow,
    PhotoRow,
    ProductRow,
    PropertyRow,
    SystemRow,
    Table,
    ZoneRow,
)

_TRACKING = {"created_at", "updated_at", "version", "deleted_at", "property_id", "position", "company_id"}


@dataclass(frozen=True)
class JobSummary:
    """A line of the jobs list."""

    id: str
    name: str
    customer: str
    place: str
    updated_at: int


def list_jobs(session: Session) -> list[JobSummary]:
    rows = session.execute(
        select(JobRow, PropertyRow)
        .join(PropertyRow, PropertyRow.id == JobRow.property_id)
        .where(JobRow.deleted_at.is_(None))
        .order_by(JobRow.created_at, JobRow.name)
    )
    return [JobSummary(j.id, j.name, j.customer, p.place, max(j.updated_at, p.updated_at)) for j, p in rows]


def live_job(session: Session, job_id: str) -> JobRow:
    """The job's row. Raises NotFound when there is none or it was deleted."""
    row = session.get(JobRow, job_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("job", job_id)
    return row


def _fields(row: Table, *drop: str) -> dict[str, Any]:
    skip = _TRACKING | set(drop)
    return {c.key: getattr(row, c.key) for c in row.__table__.columns if c.key not in skip}


def load_bundle(session: Session, job_id: str) -> JobBundle:
    """The job with everything it refers to. Raises NotFound for an unknown job."""
    job = live_job(session, job_id)
    property_ = session.get_one(PropertyRow, job.property_id)
    company = session.get_one(CompanyRow, property_.company_id)
    survey = _survey(session, property_, None)
    parts = {("zone", z["id"]) for z in survey["zones"]} | {("item", i["id"]) for i in survey["items"]}
    finishes = [
        finish_fields(f)
        for f in _rows(session, FinishRow, FinishRow.job_id == job_id)
        if (f.part_kind, f.part_id) in parts
    ]
    shelf = select(ProductRow).where(ProductRow.company_id == company.id, ProductRow.code.in_(job.products))
    sheets = {row.code: row.sheet for row in session.scalars(shelf)}
    products = [sheets[code] for code in job.products]
    systems = [_fields(session.get_one(SystemRow, (company.id, id_))) for id_ in job.systems]
    return JobBundle.model_validate(
        {
            "company": _fields(company),
            "property": survey,
            "products": products,
            "systems": systems,
            "job": _fields(job, "products", "systems") | {"finishes": finishes},
        }
    )


def load_face(session: Session, job_id: str, face_id: str) -> JobBundle:
    """The job cut down to one face and the photos, without its specification: what an edit of that face needs, whatever
    the size of the property. Raises NotFound for an unknown job or face."""
    job = live_job(session, job_id)
    property_ = session.get_one(PropertyRow, job.property_id)
    survey = _survey(session, property_, face_id)
    if not survey["faces"]:
        raise NotFound("face", face_id)
    company = session.get_one(CompanyRow, property_.company_id)
    fields = _fields(job, "products", "systems")
    return JobBundle.model_validate({"company": _fields(company), "property": survey, "job": fields})


def _rows(session: Session, table: Any, *where: Any) -> list[Any]:
    return list(session.scalars(select(table).where(*where).order_by(table.position)))


def _survey(session: Session, property_: PropertyRow, face_id: str | None) -> dict[str, Any]:
    """The property's fields with its faces, or the one, and all that is on them."""

    def kept(table: Any) -> list[Any]:
        where = [table.property_id == property_.id, table.deleted_at.is_(None)]
        if face_id is not None and table is not PhotoRow:
            where.append((table.id if table is FaceRow else table.face_id) == face_id)
        return _rows(session, table, *where)

    def by_face(table: Any) -> dict[str, list[dict[str, Any]]]:
        out: dict[str, list[dict[str, Any]]] = {}
        for row in kept(table):
            out.setdefault(row.face_id, []).append(_fields(row, "face_id"))
        return out

    openings, obstacles = by_face(OpeningRow), by_face(ObstacleRow)
    faces = [
        _fields(f) | {"openings": openings.get(f.id, []), "obstacles": obstacles.get(f.id, [])} for f in kept(FaceRow)
    ]
    live = {f["id"] for f in faces}

    def on_faces(table: Any) -> list[dict[str, Any]]:
        return [_fields(r, "face_id") | {"face": r.face_id} for r in kept(table) if r.face_id in live]

    photos = [
        _fields(p, "face_id", "data") | {"face": p.face_id if p.face_id in live else None} for p in kept(PhotoRow)
    ]
    parts = {"faces": faces, "zones": on_faces(ZoneRow), "items": on_faces(ItemRow), "photos": photos}
    return _fields(property_) | parts


def save_bundle(
    session: Session, bundle: JobBundle, photos: Mapping[str, bytes] = MappingProxyType({}), *, replace: bool = False
) -> None:
    """Store a whole job, with the bytes of its photos by id.

    Without `replace`, refuses one that is here, or whose products or systems are and differ.
    """
    company, property_, job = bundle.company, bundle.property, bundle.job
    if not replace:
        for table, id_, what in ((JobRow, job.id, "job"), (PropertyRow, property_.id, "property")):
            if session.get(table, id_) is not None:
                raise InputError(f"{what} '{id_}'", "is here already", "use --replace to overwrite it")
    _put(
        session,
        CompanyRow,
        {"id": company.id},
        company.model_dump(mode="json", exclude={"id"}),
        "company",
        replace,
    )
    for p in bundle.products:
        key = {"company_id": company.id, "code": p.code}
        _put(session, ProductRow, key, {"sheet": p.model_dump(mode="json")}, "product", replace)
    for s in bundle.systems:
        dumped = s.model_dump(mode="json")
        _put(session, SystemRow, {"company_id": company.id, "id": dumped.pop("id")}, dumped, "system", replace)
    session.flush()
    _remove(session, job.id, property_.id)
    place = property_.model_dump(mode="json", exclude={"faces", "zones", "items", "photos"})
    session.add(PropertyRow(company_id=company.id, **place))
    session.flush()
    session.add_all(part_row(property_.id, f.id, i, f) for i, f in enumerate(property_.faces))
    session.flush()
    for f in property_.faces:
        session.add_all(part_row(property_.id, f.id, i, o) for i, o in enumerate(f.openings))
        session.add_all(part_row(property_.id, f.id, i, o) for i, o in enumerate(f.obstacles))
    session.add_all(part_row(property_.id, z.face, i, z) for i, z in enumerate(property_.zones))
    session.add_all(part_row(property_.id, item.face, i, item) for i, item in enumerate(property_.items))
    session.add_all(photo_row(property_.id, i, p, photos[p.id]) for i, p in enumerate(property_.photos))
    fields = job.model_dump(mode="json", exclude={"finishes"})
    shelf = {"products": [p.code for p in bundle.products], "systems": [s.id for s in bundle.systems]}
    session.add(JobRow(property_id=property_.id, **fields, **shelf))
    session.flush()
    for i, finish in enumerate(job.finishes):
        session.add(finish_row(job.id, i, finish))


def finish_row(job_id: str, position: int, finish: Finish) -> FinishRow:
    fields = finish.model_dump(mode="json", exclude={"zone", "item", "system"})
    kind, id_ = finish.part
    return FinishRow(job_id=job_id, part_kind=kind, part_id=id_, position=position, system_id=finish.system, **fields)


def finish_fields(row: FinishRow) -> dict[str, Any]:
    """A finish as the domain's record takes it."""
    fields = _fields(row, "job_id", "part_kind", "part_id", "system_id")
    return fields | {row.part_kind: row.part_id, "system": row.system_id}


def _put(session: Session, table: Any, key: dict[str, str], fields: dict[str, Any], what: str, replace: bool) -> None:
    row = session.get(table, tuple(key.values()) if len(key) > 1 else next(iter(key.values())))
    if row is None:
        session.add(table(**key, **fields))
        return
    for name, value in fields.items():
        if getattr(row, name) != value:
            if not replace:
                raise InputError(
                    f"{what} '{list(key.values())[-1]}'", "is here already and differs", "use --replace to overwrite it"
                )
            setattr(row, name, value)


def _remove(session: Session, job_id: str, property_id: str) -> None:
    for table, id_ in ((JobRow, job_id), (PropertyRow, property_id)):
        row = session.get(table, id_)
        if row is not None:
            others = select(JobRow).where(JobRow.property_id == property_id, JobRow.id != job_id)
            if table is PropertyRow and session.scalars(others).first() is not None:
                raise InputError(f"property '{property_id}'", "belongs to another job too", "import under another id")
            session.delete(row)
            session.flush()


Part = Face | Opening | Obstacle | Zone | Item
PART_TABLES: dict[type[Part], Any] = {
    Face: FaceRow,
    Opening: OpeningRow,
    Obstacle: ObstacleRow,
    Zone: ZoneRow,
    Item: ItemRow,
}


def part_row(property_id: str, face_id: str, position: int, part: Part) -> Any:
    """The row of a face or of something on a face."""
    fields = part.model_dump(mode="json", exclude={"openings", "obstacles", "face"})
    if not isinstance(part, Face):
        fields["face_id"] = face_id
    return PART_TABLES[type(part)](property_id=property_id, position=position, **fields)


def photo_row(property_id: str, position: int, photo: Photo, data: bytes) -> PhotoRow:
    fields = photo.model_dump(mode="json", exclude={"face"})
    return PhotoRow(property_id=property_id, face_id=photo.face, position=position, data=data, **fields)
