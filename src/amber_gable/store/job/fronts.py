"""Jobs as the list shows them: their first wall and what comes next, in few statements however many there are."""

from collections.abc import Iterable, Mapping
from typing import Any
from zoneinfo import ZoneInfo

from sqlalchemy import ColumnElement, exists, func, select, tuple_

from amber_gable.domain.house.survey import Face, Property
from amber_gable.domain.job.company_usual import Shelf
from amber_gable.domain.job.listed_job import Colours, Coming, Front, ListedJob
from amber_gable.domain.work.scope import Leaving, LeftPart
from amber_gable.store.job.jobs import TRACKING, record_fields
from amber_gable.store.kept import Key
from amber_gable.store.tables import (
    CompanyRow,
    FaceRow,
    FinishRow,
    ItemRow,
    JobRow,
    OpeningRow,
    PlanRow,
    PropertyRow,
    TaskRow,
    ZoneRow,
)
from amber_gable.store.transaction import Transaction, held

Columns = Mapping[Any, Any]
Elsewhere = dict[Shelf, list[tuple[str, str]]]
"""Ids and names of the jobs on each shelf but the board."""


def listed_jobs(session: Transaction, now: int) -> tuple[list[ListedJob], Elsewhere]:
    """Every job on the board, oldest first; `now` in epoch seconds."""
    faces = exists().where(FaceRow.property_id == PropertyRow.id, FaceRow.deleted_at.is_(None))
    every = session.execute(
        select(
            JobRow.id,
            JobRow.name,
            JobRow.customer,
            CompanyRow.sample,
            PropertyRow,
            JobRow.shelf,
            faces.label("surveyed"),
        )
        .join(PropertyRow, PropertyRow.id == JobRow.property_id)
        .join(CompanyRow, CompanyRow.id == PropertyRow.company_id)
        .where(JobRow.deleted_at.is_(None))
        .order_by(JobRow.created_at, JobRow.name)
    ).all()
    elsewhere: Elsewhere = {shelf: [] for shelf in Shelf if shelf is not Shelf.BOARD}
    for row in every:
        if row.shelf != Shelf.BOARD:
            elsewhere[Shelf(row.shelf)].append((row.id, row.name))
    rows = [row for row in every if row.shelf == Shelf.BOARD]
    plans = _coming(session, now)
    # Who draws them next in the same reading finds the houses here.
    session.rows |= {(PropertyRow, row.PropertyRow.id): row.PropertyRow for row in rows}
    listed = [
        ListedJob(
            id=row.id,
            name=row.name,
            customer=row.customer,
            place=row.PropertyRow.place,
            tz=ZoneInfo(row.PropertyRow.time_zone),
            house=row.PropertyRow.id,
            surveyed=row.surveyed,
            coming=plans.get(row.id),
            sample=row.sample,
        )
        for row in rows
    ]
    return listed, elsewhere


def job_fronts(session: Transaction, jobs: Iterable[ListedJob]) -> dict[str, Front]:
    """The fronts of listed jobs by the job's id, in few statements however many they are."""
    houses = {j.id: j.house for j in jobs}
    scopes = {("front", job): (f"job:{job}", f"property:{house}", f"survey:{house}") for job, house in houses.items()}

    def load(keys: list[Key]) -> dict[Key, Front]:
        wanted = [job for _, job in keys]
        places = {job: place for job in wanted if (place := held(session, PropertyRow, houses[job])) is not None}
        return {("front", job): front for job, front in _fronts(session, places, wanted)}

    return {key[1]: front for key, front in session.kept.read_all(session, scopes, load).items()}


def _fronts(session: Transaction, places: dict[str, PropertyRow], jobs: list[str]) -> Iterable[tuple[str, Front]]:
    property_ids = [places[job].id for job in jobs]
    faces = _by_property(session, FaceRow, FaceRow.property_id.in_(property_ids))
    first = [(property_id, found[0]["id"]) for property_id, found in faces.items()]
    on_it = {table: _on_faces(session, table, first) for table in (OpeningRow, ZoneRow, ItemRow)}
    colours: dict[str, Colours] = {}
    left: dict[str, list[LeftPart]] = {}
    for job_id, parts_left, kind, id_, colour in session.execute(
        select(JobRow.id, JobRow.left, FinishRow.part_kind, FinishRow.part_id, FinishRow.colour)
        .outerjoin(FinishRow, FinishRow.job_id == JobRow.id)
        .where(JobRow.id.in_(jobs))
    ):
        if job_id not in left:
            left[job_id] = [LeftPart.model_validate(x) for x in parts_left]
            colours[job_id] = {x.part: x.colour for x in left[job_id] if x.colour is not None}
        if kind is not None:
            colours[job_id][kind, id_] = colour
    for job in jobs:
        place = places[job]
        mine = [_fields(row) for row in faces.get(place.id, [])]
        parts = {table: on_it[table].get(place.id, []) for table in on_it}
        gone = {x.item for x in left.get(job, ()) if x.leaving is Leaving.TAKEN_AWAY}
        parts[ItemRow] = [row for row in parts[ItemRow] if row["id"] not in gone]
        if mine:
            mine[0]["openings"] = [_fields(row, "face_id") for row in parts[OpeningRow]]
        survey = {
            "faces": mine[:1],
            "zones": [_fields(row, "face_id") | {"face": row["face_id"]} for row in parts[ZoneRow]],
            "items": [_fields(row, "face_id") | {"face": row["face_id"]} for row in parts[ItemRow]],
        }
        stamp = f"{place.version}/" + "/".join(_stamp(r) for rows in parts.values() for r in rows)
        stamp += "/".join(_stamp(r) for r in faces.get(place.id, [])) + repr(colours.get(job))
        property_ = Property.model_validate(record_fields(place) | survey)
        all_faces = tuple(Face.model_validate(f) for f in mine)
        yield job, Front(all_faces, property_, colours.get(job, {}), stamp)


def _on_faces(session: Transaction, table: Any, faces: list[tuple[str, str]]) -> dict[str, list[Columns]]:
    """Live rows on those faces, by property."""
    return _by_property(session, table, tuple_(table.property_id, table.face_id).in_(faces)) if faces else {}


def _by_property(session: Transaction, table: Any, where: ColumnElement[bool]) -> dict[str, list[Columns]]:
    """Live rows in their order as plain columns: making an object of each would take half the time of the page."""
    out: dict[str, list[Columns]] = {}
    columns = select(table.__table__).where(where, table.deleted_at.is_(None)).order_by(table.position)
    for row in session.execute(columns).mappings():
        out.setdefault(row["property_id"], []).append(row)
    return out


def _fields(row: Columns, *drop: str) -> dict[str, Any]:
    """A row's columns as its domain record takes them."""
    return {name: value for name, value in row.items() if name not in TRACKING and name not in drop}


def _stamp(row: Columns) -> str:
    return f"{row['id']}.{row['version']}"


def _coming(session: Transaction, now: int) -> dict[str, Coming]:
    rank = func.row_number().over(partition_by=TaskRow.job_id, order_by=TaskRow.position)
    ahead = select(TaskRow.job_id, TaskRow.starts_at, TaskRow.details, rank.label("rank"))
    first = ahead.where(TaskRow.ends_at > now).subquery()
    coming = {
        job_id: (details, starts_at)
        for job_id, starts_at, details in session.execute(
            select(first.c.job_id, first.c.starts_at, first.c.details).where(first.c.rank == 1)
        )
    }
    ends = select(TaskRow.job_id, func.max(TaskRow.ends_at).label("finish")).group_by(TaskRow.job_id).subquery()
    plans = session.execute(
        select(PlanRow.job_id, PlanRow.unplaced, ends.c.finish).outerjoin(ends, ends.c.job_id == PlanRow.job_id)
    )
    out = {}
    for job_id, unplaced, finish in plans:
        details, starts_at = coming.get(job_id, ({}, 0))
        words = f"{details['operation']}, {details['face_name']}" if details else ""
        out[job_id] = Coming(words, starts_at, finish or 0, len(unplaced))
    return out
