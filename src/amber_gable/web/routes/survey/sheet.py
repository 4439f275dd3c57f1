"""What the survey's pages and fragments show: a job with its versions, steps and units, without the weather."""

from dataclasses import dataclass
from typing import Any

from fastapi import HTTPException, Request
from sqlalchemy.orm import Session
from starlette.responses import Response

from amber_gable.core.survey.items import item_area, item_parts
from amber_gable.core.survey.takeoff import ZoneArea, face_areas
from amber_gable.domain.items import ITEM_NAMES
from amber_gable.domain.job import JobBundle
from amber_gable.domain.survey import Face
from amber_gable.services.survey_forms import MODELS
from amber_gable.store import journal, survey
from amber_gable.store.jobs import load_bundle, load_face
from amber_gable.web.pages import job_page, load_job, page, space_of, units_of
from amber_gable.web.views.units import Units

STAGE = "survey"


@dataclass(frozen=True)
class Sheet:
    """A job as the store holds it, whole or cut down to one face, with the version of its parts; and the names that are
    there all over the property."""

    bundle: JobBundle
    versions: dict[tuple[str, str], int]
    steps: journal.Steps
    units: Units
    faces: list[tuple[str, str]]
    names: set[str]


def read_sheet(request: Request, job_id: str) -> Sheet:
    """The whole job. Raises NotFound for an unknown one."""
    with space_of(request).database.reading() as session:
        return _sheet(request, session, job_id, load_bundle(session, job_id), None)


def read_face(request: Request, job_id: str, kind: str, id_: str | None, face_id: str = "") -> Sheet:
    """The job cut down to the face that a part is on, or to a face for a part still to come; whole for a new face.

    Raises NotFound.
    """
    with space_of(request).database.reading() as session:
        if id_ is not None:
            face_id = survey.face_of(session, job_id, kind, id_)
        elif kind == "face":
            return _sheet(request, session, job_id, load_bundle(session, job_id), None)
        return _sheet(request, session, job_id, load_face(session, job_id, face_id), face_id)


def _sheet(request: Request, session: Session, job_id: str, bundle: JobBundle, face_id: str | None) -> Sheet:
    return Sheet(
        bundle,
        survey.versions(session, job_id, face_id),
        journal.steps(session, bundle.property.id),
        units_of(request),
        survey.face_names(session, job_id),
        survey.part_names(session, job_id),
    )


def known(kind: str) -> None:
    """Raises 404 for what is no part of a survey."""
    if kind not in MODELS:
        raise HTTPException(404, "Faces, openings, obstacles, zones and items can be edited here.")


def is_fragment(request: Request) -> bool:
    return request.headers.get("hx-request") == "true"


def show(
    request: Request, job_id: str, template: str, fragment: str, context: dict[str, Any], status: int = 200
) -> Response:
    """The fragment alone when a part of the page is asked for, else the whole page."""
    if is_fragment(request):
        return page(request, fragment, context, status)
    return job_page(request, load_job(request, job_id), STAGE, context, status, template=template)


@dataclass(frozen=True)
class ItemLine:
    """An item with its parts and their surface, m²."""

    id: str
    name: str
    kind: str
    parts: tuple[Any, ...]
    area_m2: float


def item_lines(bundle: JobBundle, face: Face) -> list[ItemLine]:
    return [
        ItemLine(i.id, i.name, ITEM_NAMES[i.spec.kind], item_parts(i.spec), item_area(i.spec))
        for i in bundle.property.items_of(face.id)
    ]


def face_figures(bundle: JobBundle, face: Face) -> dict[str, Any]:
    """Zones and items of a face with their areas, and their sum."""
    areas: list[ZoneArea] = list(face_areas(bundle.property, face, bundle.job.deduction).values())
    items = item_lines(bundle, face)
    items_m2 = sum(i.area_m2 for i in items)
    total = sum(a.surface_m2 for a in areas) + items_m2
    return {"areas": areas, "items": items, "items_m2": items_m2, "total_m2": total}
