"""Survey: faces to scale, and the forms that add, change and remove faces, openings and zones."""

from typing import Any

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.core.survey.takeoff import zone_areas
from amber_gable.domain.errors import InputError
from amber_gable.domain.job import JobBundle
from amber_gable.domain.schools import DeductionSchool
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import FaceArea, Zone
from amber_gable.services.editing import Faults, remove_part, save_part, set_schools, undo_remove
from amber_gable.store.survey import PARTS, StaleEdit, versions
from amber_gable.web.pages import Fields, JobView, job_page, load_job, space_of
from amber_gable.web.views.elevation import draw, drawing_scale

router = APIRouter(prefix="/jobs/{job_id}")
_CHOICES = {
    "substrates": [(s.code, s.name) for s in SUBSTRATES.values()],
    "deductions": list(DeductionSchool),
}


@router.get("/survey")
def survey(request: Request, job_id: str) -> Response:
    return _survey(request, load_job(request, job_id))


def _survey(request: Request, view: JobView, status: int = 200, **more: Any) -> Response:
    bundle = view.bundle
    scale = drawing_scale(bundle.property.faces)
    areas = zone_areas(bundle.property, bundle.job.deduction)
    sheets = [
        {
            "drawing": draw(bundle, face, scale),
            "zones": [areas[z.id] for z in bundle.property.zones if z.face == face.id],
            "openings": face.openings,
        }
        for face in bundle.property.faces
    ]
    context = {"sheets": sheets, "total_m2": sum(a.surface_m2 for a in areas.values()), **_CHOICES, **more}
    return job_page(request, view, "survey", context, status)


@router.get("/survey/{kind}/new")
def new(request: Request, job_id: str, kind: str, face: str = "") -> Response:
    return _form(request, load_job(request, job_id), kind, None, face, _blank(kind))


@router.get("/survey/{kind}/{id_}")
def edit(request: Request, job_id: str, kind: str, id_: str) -> Response:
    view = load_job(request, job_id)
    values, face = _present(view.bundle, kind, id_)
    with space_of(request).database.reading() as session:
        values["version"] = versions(session, job_id)[kind, id_]
    return _form(request, view, kind, id_, face, values)


def _form(
    request: Request,
    view: JobView,
    kind: str,
    id_: str | None,
    face: str,
    values: dict[str, Any],
    faults: dict[str, str] | None = None,
    stale: StaleEdit | None = None,
) -> Response:
    _known(kind)
    owner = next((f for f in view.bundle.property.faces if f.id == face), None)
    if kind != "face" and owner is None:
        raise HTTPException(404, "The face this belongs to is gone.")
    drawing = None
    if owner is not None:
        selected = id_ if kind == "opening" and id_ else ""
        drawing = draw(view.bundle, owner, drawing_scale((owner,)), selected=selected)
    context = {
        "form": {"kind": kind, "id": id_, "face": face, "owner": owner, "values": values, "drawing": drawing},
        "faults": faults or {},
        "stale": stale,
    }
    status = 409 if stale else 422 if faults else 200
    return job_page(request, view, "survey", context | {"sheets": None} | _CHOICES, status)


@router.post("/survey/{kind}/save")
def save(request: Request, job_id: str, kind: str, form: Fields) -> Response:
    _known(kind)
    id_ = form.pop("id", "") or None
    try:
        saved = save_part(space_of(request), job_id, kind, form, id_)
    except (Faults, StaleEdit) as error:
        view = load_job(request, job_id)
        faults = error.fields if isinstance(error, Faults) else None
        stale = error if isinstance(error, StaleEdit) else None
        values: dict[str, Any] = dict(form)
        if stale is not None and id_ is not None:
            with space_of(request).database.reading() as session:
                values["version"] = versions(session, job_id)[kind, id_]
        return _form(request, view, kind, id_, form.get("face", ""), values, faults, stale)
    anchor = saved if kind == "face" else form.get("face", "")
    return RedirectResponse(f"/jobs/{job_id}/survey?said=saved#face-{anchor}", 303)


@router.post("/survey/{kind}/{id_}/delete")
def delete(request: Request, job_id: str, kind: str, id_: str) -> Response:
    _known(kind)
    remove_part(space_of(request), job_id, kind, id_)
    return RedirectResponse(f"/jobs/{job_id}/survey?said=deleted&undo={kind}/{id_}", 303)


@router.post("/survey/{kind}/{id_}/restore")
def restore(request: Request, job_id: str, kind: str, id_: str) -> Response:
    _known(kind)
    try:
        undo_remove(space_of(request), job_id, kind, id_)
    except InputError as error:
        raise InputError("undo", error.why, "what was added since takes its place; change that first") from None
    return RedirectResponse(f"/jobs/{job_id}/survey?said=restored", 303)


@router.post("/schools")
def schools(request: Request, job_id: str, form: Fields) -> Response:
    back = form.pop("back", "survey")
    try:
        set_schools(space_of(request), job_id, form)
    except Faults as error:
        raise InputError("schools", next(iter(error.fields.values())), "choose one of the list") from None
    return RedirectResponse(f"/jobs/{job_id}/{back if back in ('survey', 'weather') else 'survey'}?said=saved", 303)


def _known(kind: str) -> None:
    if kind not in PARTS:
        raise HTTPException(404, "Only faces, openings and zones can be edited here.")


def _blank(kind: str) -> dict[str, Any]:
    _known(kind)
    blank: dict[str, dict[str, Any]] = {
        "face": {"tilt_deg": 90, "gable_rise_m": 0, "rain_exposure": 1, "exposure": "open"},
        "opening": {"kind": "window", "width_m": 0.9, "height_m": 1.4, "x_m": 1, "y_m": 0.9},
        "zone": {"area_kind": "face", "colour_now": "#d8d2c2", "substrate": "wood-lap"},
    }
    return blank[kind]


def _present(bundle: JobBundle, kind: str, id_: str) -> tuple[dict[str, Any], str]:
    """A record's fields as the form names them, and its face. Raises KeyError."""
    for f in bundle.property.faces:
        if kind == "face" and f.id == id_:
            return f.model_dump(mode="json", exclude={"openings", "horizon"}), f.id
        for o in f.openings:
            if kind == "opening" and o.id == id_:
                return o.model_dump(mode="json"), f.id
    for z in bundle.property.zones:
        if kind == "zone" and z.id == id_:
            return _zone_fields(z), z.face
    raise KeyError(id_)


def _zone_fields(zone: Zone) -> dict[str, Any]:
    fields: dict[str, Any] = zone.model_dump(mode="json", exclude={"area", "condition"}) | zone.condition.model_dump(
        mode="json"
    )
    fields["area_kind"] = zone.area.kind
    fields["area_m2"] = "" if isinstance(zone.area, FaceArea) else zone.area.area_m2
    return fields
