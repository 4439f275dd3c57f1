"""The drawing table: one face drawn to scale with everything on it, and the form of the chosen part."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import Response

from amber_gable.domain.errors import Refused, StaleEdit
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.survey import Face, Property
from amber_gable.services.survey.face_copies import FILLINGS
from amber_gable.services.survey.figures import face_figures
from amber_gable.services.survey.surveying import box_of, find_part, tried
from amber_gable.web.pages import Fields, page
from amber_gable.web.routes.survey.sheet import Sheet, is_fragment, known, read_face, show
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from amber_gable.web.views.survey.part_form import part_fields, typed_part
from amber_gable.web.views.survey.tools import drawing_tools
from amber_gable.web.views.survey.usual_parts import blank_part, other_kind

router = APIRouter(prefix="/jobs/{job_id}/survey")
TABLE_W, TABLE_H, TABLE_SCALE = 700.0, 470.0, 95.0


@router.get("/{kind}/new")
def new(request: Request, job_id: str, kind: str, face: str = "") -> Response:
    known(kind)
    sheet = read_face(request, job_id, kind, None, face)
    asked = {k: v for k, v in request.query_params.items() if len(v) < 200}
    on = next((f for f in sheet.bundle.property.faces if f.id == face), None)
    return table_page(request, job_id, sheet, kind, None, face, typed=blank_part(kind, asked, sheet.units, on))


@router.get("/{kind}/{id_}")
def edit(request: Request, job_id: str, kind: str, id_: str) -> Response:
    known(kind)
    return table_page(request, job_id, read_face(request, job_id, kind, id_), kind, id_)


def table_page(
    request: Request,
    job_id: str,
    sheet: Sheet,
    kind: str,
    id_: str | None,
    face_id: str = "",
    *,
    typed: Mapping[str, str] | None = None,
    faults: Mapping[str, str] | None = None,
    stale: StaleEdit | None = None,
    line: str = "",
) -> Response:
    """The page with one part chosen. `typed` are the form's texts as a person typed them, `faults` what is wrong with
    them by field, `stale` the newer state that somebody else saved meanwhile, `line` the text of the *Fill the wall*
    field. Raises NotFound."""
    property_ = sheet.bundle.property
    if id_ is not None:
        part, face_id = find_part(property_, kind, id_)
        name = part.name
        typed = typed_part(part, sheet.units) if typed is None else typed
    else:
        name = ""
    if kind != "face" and not any(f.id == face_id for f in property_.faces):
        raise HTTPException(404, "The face this belongs to is gone.")
    typed, faults = typed or {}, faults or {}
    face = next((f for f in property_.faces if f.id == face_id), None)
    base = f"/jobs/{sheet.bundle.job.id}/survey"
    picture = picture_of(sheet, face, kind, id_) if face is not None else tried_picture(sheet, kind, id_, "", typed)
    taken = sheet.names | {z.name for z in property_.zones_of(face_id)}
    order = [id_ for id_, _ in sheet.faces]
    at = order.index(face_id) if face_id in order else -1
    context = {
        "base": base,
        "job": sheet.bundle.job,
        "property": property_,
        "face": face,
        "form": {
            "kind": kind,
            "id": id_ or "",
            "face": face_id,
            "name": name,
            "version": sheet.versions.get((kind, id_ or ""), ""),
            "fields": part_fields(kind, typed, faults, kind == "face" and id_ is None),
            "fault": faults.get("", ""),
            "fillings": fillings(property_, face, id_) if kind == "opening" else [],
        },
        "picture": picture,
        "stale": stale,
        "line": line,
        "moved_on": is_fragment(request) and request.query_params.get("said") == "moved-on",
        "line_fault": faults.get("line", ""),
        "steps": sheet.steps,
        "units": sheet.units,
        "tools": drawing_tools(taken, sheet.units) if face is not None else [],
        "previous": sheet.faces[at - 1] if at >= 0 and len(order) > 1 else None,
        "next": sheet.faces[(at + 1) % len(order)] if at >= 0 and len(order) > 1 else None,
        "url": f"{base}/{kind}/{id_}" if id_ else f"{base}/{kind}/new?face={face_id}",
    }
    status = 409 if stale else 422 if faults else 200
    return show(request, job_id, "survey/face.html", "parts/survey/table.html", context, status)


def fillings(property_: Property, face: Face | None, id_: str | None) -> list[tuple[str, str]]:
    """What may fill an opening and is not counted yet, by kind and name."""
    opening = next((o for o in face.openings if o.id == id_), None) if face else None
    if opening is None or face is None or any(box_of(i) == box_of(opening) for i in property_.items_of(face.id)):
        return []
    return [(kind, ITEM_NAMES[kind].lower()) for kind in FILLINGS.get(opening.kind, ())]


def picture_of(sheet: Sheet, face: Face, kind: str, id_: str | None, said: str = "") -> dict[str, Any]:
    """A face drawn with its figures."""
    scale = drawing_scale((face,), TABLE_W, TABLE_SCALE, TABLE_H, sheet.units)
    drawing = draw(
        sheet.bundle.property, face, scale, selected=(kind, id_ or "new"), units=sheet.units, versions=sheet.versions
    )
    return {"drawing": drawing, "said": said, **face_figures(sheet.bundle, face)}


def tried_picture(sheet: Sheet, kind: str, id_: str | None, face_id: str, typed: Mapping[str, str]) -> dict[str, Any]:
    """The face drawn with the typed values; drawn as stored, with the fault in words, where they are not possible."""
    try:
        bundle, part = tried(sheet.bundle, kind, id_, face_id, typed, sheet.units.system)
        face = bundle.property.face(part.id if isinstance(part, Face) else face_id)
        changed = replace(sheet, bundle=bundle)
        return picture_of(changed, face, kind, id_)
    except Refused as error:
        said = next((f"{_field_name(k)}{v}" for k, v in error.fields.items() if v != "is needed"), "")
        here = next((f for f in sheet.bundle.property.faces if f.id == (face_id or id_)), None)
        if here is not None:
            return picture_of(sheet, here, kind, id_, said)
        return {"drawing": None, "said": said, "areas": [], "items": [], "total_m2": 0.0}


def _field_name(key: str) -> str:
    words = key.rpartition(".")[2].removesuffix("_m").removesuffix("_deg").replace("_", " ")
    return f"{words.capitalize()}: " if words else ""


@router.post("/{kind}/try")
def try_(request: Request, job_id: str, kind: str, form: Fields) -> Response:
    """The picture for what is typed so far; nothing is saved."""
    known(kind)
    sheet = _of_form(request, job_id, kind, form)
    picture = tried_picture(sheet, kind, form.get("id") or None, form.get("face", ""), _own(kind, form))
    base = f"/jobs/{job_id}/survey"
    return page(request, "parts/survey/picture.html", {"picture": picture, "units": sheet.units, "base": base})


@router.post("/{kind}/form")
def reshaped(request: Request, job_id: str, kind: str, form: Fields) -> Response:
    """The form again, with the fields of the shape that was chosen."""
    known(kind)
    sheet = _of_form(request, job_id, kind, form)
    typed = _own(kind, form)
    if kind in ("item", "opening", "obstacle"):
        on = next((f for f in sheet.bundle.property.faces if f.id == form.get("face")), None)
        typed = other_kind(kind, typed, sheet.units, on, keep=bool(form.get("id")))
    return table_page(request, job_id, sheet, kind, form.get("id") or None, form.get("face", ""), typed=typed)


def _of_form(request: Request, job_id: str, kind: str, form: Mapping[str, str]) -> Sheet:
    return read_face(request, job_id, kind, form.get("id") or None, form.get("face", ""))


def _own(kind: str, form: Mapping[str, str]) -> dict[str, str]:
    return {k: v for k, v in form.items() if k not in ("id", "version", "face") or (kind == "face" and k == "face")}
