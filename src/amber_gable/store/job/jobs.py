"""Jobs in and out of the store, always whole and always validated."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from functools import partial
from types import MappingProxyType
from typing import Any

from sqlalchemy import ColumnElement, and_, or_, select

from amber_gable.domain.base import Record
from amber_gable.domain.errors import InputError, NotFound
from amber_gable.domain.house.photo import Photo
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Part, Property, Zone
from amber_gable.domain.job.company_usual import Shelf
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.operation import CoatingSystem
from amber_gable.store.company.crews import crew_for, crews
from amber_gable.store.company.sheets import Kind, Pin, kept_revisions, pin, read_by
from amber_gable.store.job.site_record import SiteRecord, append, load_record
from amber_gable.store.tables import (
    STAMPS,
    CompanyRow,
    FaceRow,
    FinishRow,
    ItemRow,
    JobRow,
    ObstacleRow,
    OpeningRow,
    PhotoRow,
    PropertyRow,
    SheetRow,
    Table,
    ZoneRow,
)
from amber_gable.store.transaction import Transaction, held

PINNED_SETTINGS = {"currency", "lead_cutoff_year", "schools", "rates", "factors"}
"""Of the company: what enters a computation, kept with each job as it was."""
TRACKING = STAMPS | {"deleted_at", "property_id", "position", "company_id"}


@dataclass(frozen=True)
class JobSummary:
    """A line of the jobs list."""

    id: str
    name: str
    customer: str
    place: str
    updated_at: int


def on_board() -> ColumnElement[bool]:
    """Of job rows: those on the board."""
    return and_(JobRow.deleted_at.is_(None), JobRow.shelf == Shelf.BOARD)


def list_jobs(session: Transaction) -> list[JobSummary]:
    """Jobs on the board, oldest first."""
    rows = session.execute(
        select(JobRow, PropertyRow)
        .join(PropertyRow, PropertyRow.id == JobRow.property_id)
        .where(on_board())
        .order_by(JobRow.created_at, JobRow.name)
    )
    return [JobSummary(j.id, j.name, j.customer, p.place, max(j.updated_at, p.updated_at)) for j, p in rows]


def live_job(session: Transaction, job_id: str) -> JobRow:
    """The job's row. Raises NotFound when there is none or it was deleted."""
    row: JobRow | None = held(session, JobRow, job_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("job", job_id)
    return row


def jobs_on(session: Transaction, property_id: str) -> list[str]:
    """Ids of the live jobs on a property."""
    return list(
        session.scalars(select(JobRow.id).where(JobRow.property_id == property_id, JobRow.deleted_at.is_(None)))
    )


def record_fields(row: Table, *drop: str) -> dict[str, Any]:
    """A row's columns as its domain record takes them."""
    skip = TRACKING | set(drop)
    return {c.key: getattr(row, c.key) for c in row.__table__.columns if c.key not in skip}


def load_bundle(session: Transaction, job_id: str) -> JobBundle:
    """The job with everything it refers to, each sheet in the revision it was specified with. Raises NotFound for an
    unknown job."""
    kept, key = session.kept, ("bundle", job_id)
    found: JobBundle | None = kept.find(session, key)
    if found is not None:
        return found
    head = job_head(session, job_id)
    company = head[2].id
    scopes = (
        f"job:{job_id}",
        f"property:{head[1].id}",
        f"survey:{head[1].id}",
        f"company:{company}",
        f"sheets:{company}",
        f"record:{job_id}",
        f"crews:{company}",
    )
    return kept.read(session, key, scopes, lambda: _read_bundle(session, *head))


def _read_bundle(session: Transaction, job: JobRow, property_: PropertyRow, company: CompanyRow) -> JobBundle:
    survey = _property(session, property_)
    parts = {("zone", z.id) for z in survey.zones} | {("item", i.id) for i in survey.items}
    places = parts | {("face", f.id) for f in survey.faces}
    finishes = [f for f in _finishes(session, job.id) if f.part in parts]
    # As with finishes: what speaks of a part that was deleted is back when the part is.
    not_ours = {
        "left": [x for x in job.left if ("zone", x["zone"]) in parts or ("item", x["item"]) in parts],
        "others": [o for o in job.others if o["where"] is None or tuple(o["where"]) in places],
    }
    products, systems = shelf_of(session, company.id, job)
    return JobBundle.model_validate(
        {
            "company": _company(company, job),
            "property": survey,
            "products": [row.body for row in products],
            "systems": [row.body for row in systems],
            "job": record_fields(job, *_NOT_IN_BUNDLE)
            | {"finishes": finishes, "crew": crews(session, company.id)[job.crew_id][1]}
            | not_ours
            | load_record(session, job.id).__dict__,
        }
    )


class _Finished(Record):
    """What the parts of a job get, those that were deleted meanwhile among them."""

    finishes: tuple[Finish, ...]


def _finishes(session: Transaction, job_id: str) -> tuple[Finish, ...]:
    """Read and validated once for every change of the job."""
    kept, key = session.kept, ("finishes", job_id)
    found: _Finished | None = kept.find(session, key)

    def read() -> _Finished:
        rows = _rows(session, FinishRow, FinishRow.job_id == job_id)
        return _Finished.model_validate({"finishes": [finish_fields(f) for f in rows]})

    if found is None:
        found = kept.read(session, key, (f"job:{job_id}",), read)
    return found.finishes


class _Surveyed(Record):
    """What was surveyed on a property."""

    faces: tuple[Face, ...]
    zones: tuple[Zone, ...]
    items: tuple[Item, ...]
    photos: tuple[Photo, ...]


def _property(session: Transaction, row: PropertyRow) -> Property:
    """The property with all that was surveyed, which is read and validated once for every change of it."""
    kept, key = session.kept, ("survey", row.id)
    found: _Surveyed | None = kept.find(session, key)
    if found is None:
        load = partial(_survey, session, row.id, None)
        found = kept.read(session, key, (f"survey:{row.id}",), lambda: _Surveyed.model_validate(load()))
    return Property.model_validate(record_fields(row) | found.__dict__)


_NOT_IN_BUNDLE = ("products", "systems", "company_settings", "shelf", "crew_id")
_NOT_OF_A_JOB = ("usual", "sample")
"""Of a company: what jobs begin with, and do not carry."""


def job_head(session: Transaction, job_id: str) -> tuple[JobRow, PropertyRow, CompanyRow]:
    """The rows of a job, its property and its company. Raises NotFound."""
    found = session.execute(
        select(JobRow, PropertyRow, CompanyRow)
        .join(PropertyRow, PropertyRow.id == JobRow.property_id)
        .join(CompanyRow, CompanyRow.id == PropertyRow.company_id)
        .where(JobRow.id == job_id, JobRow.deleted_at.is_(None))
    ).first()
    if found is None:
        raise NotFound("job", job_id)
    return found[0], found[1], found[2]


def _company(company: CompanyRow, job: JobRow) -> dict[str, Any]:
    """The company as the job was specified with it."""
    return record_fields(company, *_NOT_OF_A_JOB) | job.company_settings


def shelf_of(session: Transaction, company_id: str, job: JobRow) -> tuple[list[SheetRow], list[SheetRow]]:
    """Products and systems on the job's shelf, in its order, each in the revision the job reads."""
    kinds = [("product", job.products), ("system", job.systems)]
    asked = [and_(SheetRow.kind == kind, SheetRow.code.in_([p["code"] for p in pins])) for kind, pins in kinds]
    held: dict[str, dict[str, list[SheetRow]]] = {"product": {}, "system": {}}
    for row in session.scalars(select(SheetRow).where(SheetRow.company_id == company_id, or_(*asked))):
        held[row.kind].setdefault(row.code, []).append(row)
    products, systems = (read_by(pins, held[kind]) for kind, pins in kinds)
    return products, systems


def load_face(session: Transaction, job_id: str, face_id: str) -> JobBundle:
    """The job cut down to one face and the photos, without its specification: what an edit of that face needs, whatever
    the size of the property. Raises NotFound for an unknown job or face."""
    whole: JobBundle | None = session.kept.find(session, ("bundle", job_id))
    if whole is not None:
        return _cut_down(whole, face_id)
    job, property_, company = job_head(session, job_id)
    survey = record_fields(property_) | _survey(session, property_.id, face_id)
    if not survey["faces"]:
        raise NotFound("face", face_id)
    fields = record_fields(job, *_NOT_IN_BUNDLE, "left", "others") | {
        "crew": crews(session, company.id)[job.crew_id][1]
    }
    return JobBundle.model_validate({"company": _company(company, job), "property": survey, "job": fields})


def _cut_down(whole: JobBundle, face_id: str) -> JobBundle:
    place = whole.property
    parts = {"faces": (place.face(face_id),), "zones": place.zones_of(face_id), "items": place.items_of(face_id)}
    elsewhere: dict[str, Any] = {"face": None, "part": None}
    on_it = tuple(p if p.face == face_id else p.model_copy(update=elsewhere) for p in place.photos)
    cut = place.model_copy(update=parts | {"photos": on_it})
    job = whole.job.model_copy(update={"finishes": (), "left": (), "others": ()})
    return whole.model_copy(update={"property": cut, "job": job, "products": (), "systems": ()})


def _rows(session: Transaction, table: Any, *where: Any) -> list[Any]:
    return list(session.scalars(select(table).where(*where).order_by(table.position)))


def _survey(session: Transaction, property_id: str, face_id: str | None) -> dict[str, Any]:
    """The property's faces, or the one, and all that is on them."""

    def kept(table: Any) -> list[Any]:
        where = [table.property_id == property_id, table.deleted_at.is_(None)]
        if face_id is not None and table is not PhotoRow:
            where.append((table.id if table is FaceRow else table.face_id) == face_id)
        return _rows(session, table, *where)

    def by_face(table: Any) -> dict[str, list[dict[str, Any]]]:
        out: dict[str, list[dict[str, Any]]] = {}
        for row in kept(table):
            out.setdefault(row.face_id, []).append(record_fields(row, "face_id"))
        return out

    openings, obstacles = by_face(OpeningRow), by_face(ObstacleRow)
    faces = [
        record_fields(f) | {"openings": openings.get(f.id, []), "obstacles": obstacles.get(f.id, [])}
        for f in kept(FaceRow)
    ]
    live = {f["id"] for f in faces}

    def on_faces(table: Any) -> list[dict[str, Any]]:
        return [record_fields(r, "face_id") | {"face": r.face_id} for r in kept(table) if r.face_id in live]

    zones, items = on_faces(ZoneRow), on_faces(ItemRow)
    shown = {(kind, p["id"], p["face"]) for kind, parts in (("zone", zones), ("item", items)) for p in parts}
    for kind, on_face in (("opening", openings), ("obstacle", obstacles)):
        shown |= {(kind, o["id"], face) for face, there in on_face.items() for o in there}

    def photo(row: PhotoRow) -> dict[str, Any]:
        """Without its face or part where that is gone."""
        face = row.face_id if row.face_id in live else None
        part = row.part if row.part and (*row.part, face) in shown else None
        return record_fields(row, "face_id") | {"face": face, "part": part}

    return {"faces": faces, "zones": zones, "items": items, "photos": [photo(p) for p in kept(PhotoRow)]}


def save_bundle(
    session: Transaction,
    bundle: JobBundle,
    photos: Mapping[str, bytes] = MappingProxyType({}),
    *,
    replace: bool = False,
) -> None:
    """Store a whole job, with the pictures of its photos by id where they are not here yet; without `replace`, one that
    is not here.

    The company, its sheets and its systems are put in where they are not; where the bundle's differ from them, the
    job reads its own and the company's stay.
    """
    company, property_, job = bundle.company, bundle.property, bundle.job
    if not replace:
        for table, id_, what in ((JobRow, job.id, "job"), (PropertyRow, property_.id, "property")):
            if session.get(table, id_) is not None and not _hidden(session, job.id, property_.id):
                raise InputError(f"{what} '{id_}'", "is here already", "use --replace to overwrite it")
    if session.get(CompanyRow, company.id) is None:
        session.add(CompanyRow(**company.model_dump(mode="json")))
        session.flush()
    used = {o.product for f in job.finishes for o in bundle.operations(f)}
    products = _pinned(session, company.id, "product", {p.code: p for p in bundle.products}, used)
    systems = _pinned(
        session, company.id, "system", {s.id: s for s in bundle.systems}, {f.system for f in job.finishes}
    )
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
    for data in photos.values():
        session.pictures.put(data)
    session.add_all(photo_row(property_.id, i, p) for i, p in enumerate(property_.photos))
    fields = job.model_dump(mode="json", exclude={"finishes", "crew", *SiteRecord.model_fields})
    settings = company.model_dump(mode="json", include=PINNED_SETTINGS)
    shelf = {"products": products, "systems": systems, "company_settings": settings}
    crew_id = crew_for(session, company.id, job.crew)
    session.add(JobRow(property_id=property_.id, crew_id=crew_id, **fields, **shelf))
    session.flush()
    for i, finish in enumerate(job.finishes):
        session.add(finish_row(job.id, i, finish))
    append(session, job.id, [line for name in SiteRecord.model_fields for line in getattr(job, name)])


def _hidden(session: Transaction, job_id: str, property_id: str) -> bool:
    """Whether what is here of a job was deleted, and may be put in anew."""
    row = session.get(JobRow, job_id)
    return row is not None and row.deleted_at is not None and row.property_id == property_id


def finish_row(job_id: str, position: int, finish: Finish) -> FinishRow:
    fields = finish.model_dump(mode="json", exclude={"zone", "item", "system"})
    kind, id_ = finish.part
    return FinishRow(job_id=job_id, part_kind=kind, part_id=id_, position=position, system_id=finish.system, **fields)


def finish_fields(row: FinishRow) -> dict[str, Any]:
    """A finish as the domain's record takes it."""
    fields = record_fields(row, "job_id", "part_kind", "part_id", "system_id")
    return fields | {row.part_kind: row.part_id, "system": row.system_id}


def _pinned(
    session: Transaction,
    company_id: str,
    kind: Kind,
    sheets: Mapping[str, Product | CoatingSystem],
    used: Collection[Any],
) -> list[Pin]:
    """Pins of a job's sheets: to their revision what its steps use, and what is not as the stores have it."""
    bodies = {code: sheet.model_dump(mode="json") for code, sheet in sheets.items()}
    kept = kept_revisions(session, company_id, kind, bodies)
    return [pin(code, row.revision if code in used or not row.current else None) for code, row in kept.items()]


def _remove(session: Transaction, job_id: str, property_id: str) -> None:
    for table, id_ in ((JobRow, job_id), (PropertyRow, property_id)):
        row = session.get(table, id_)
        if row is not None:
            others = select(JobRow).where(JobRow.property_id == property_id, JobRow.id != job_id)
            if table is PropertyRow and session.scalars(others).first() is not None:
                raise InputError(f"property '{property_id}'", "belongs to another job too", "import under another id")
            session.delete(row)
            session.flush()


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


def photo_row(property_id: str, position: int, photo: Photo) -> PhotoRow:
    fields = photo.model_dump(mode="json", exclude={"face"})
    return PhotoRow(property_id=property_id, face_id=photo.face, position=position, **fields)
