"""Specification: which system and colour each zone gets."""

from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.core.survey.takeoff import zone_areas
from amber_gable.services.editing import Faults, set_finish
from amber_gable.store.survey import StaleEdit, company_systems, versions
from amber_gable.web.pages import Fields, job_page, load_job, space_of
from amber_gable.web.views.elevation import draw, drawing_scale

router = APIRouter(prefix="/jobs/{job_id}/specification")


@router.get("")
def specification(request: Request, job_id: str) -> Response:
    return _page(request, job_id)


def _page(
    request: Request, job_id: str, zone: str = "", more: dict[str, Any] | None = None, status: int = 200
) -> Response:
    view = load_job(request, job_id)
    bundle = view.bundle
    with space_of(request).database.reading() as session:
        systems, numbers = company_systems(session, job_id), versions(session, job_id)
    finishes = {f.zone: f for f in bundle.job.finishes}
    areas = zone_areas(bundle.property, bundle.job.deduction)
    scale = drawing_scale(bundle.property.faces, 260.0)
    faces = [
        {
            "drawing": draw(bundle, face, scale, finished=True),
            "zones": [
                {
                    "area": areas[z.id],
                    "finish": finishes.get(z.id),
                    "system": bundle.system(finishes[z.id].system) if z.id in finishes else None,
                    "version": numbers.get(("finish", z.id), 0),
                }
                for z in bundle.property.zones
                if z.face == face.id
            ],
        }
        for face in bundle.property.faces
    ]
    names = {p.code: p.name for p in bundle.products}
    context = {
        "faces": faces,
        "systems": systems,
        "product_names": names,
        "open_zone": zone,
        "faults": {},
        "stale": None,
    }
    return job_page(request, view, "specification", context | (more or {}), status)


@router.post("/{zone}")
def choose(request: Request, job_id: str, zone: str, form: Fields) -> Response:
    try:
        set_finish(space_of(request), job_id, zone, form)
    except Faults as error:
        return _page(request, job_id, zone, {"faults": error.fields, "typed": form}, 422)
    except StaleEdit as error:
        return _page(request, job_id, zone, {"stale": error, "typed": form}, 409)
    return RedirectResponse(f"/jobs/{job_id}/specification?said=saved#zone-{zone}", 303)
