"""Trees and neighbours before a face: a view from the wall, and the blocks it is made of."""

from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.survey import BlockKind, Face
from amber_gable.domain.units import UnitSystem
from amber_gable.services.forms.types import whole
from amber_gable.services.survey import surroundings
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page
from amber_gable.web.routes.survey.sheet import Sheet, read_sheet, show
from amber_gable.web.views.survey.panorama import panorama

router = APIRouter(prefix="/jobs/{job_id}/survey/face/{id_}/surroundings")
_KINDS = [(k.value, k.value) for k in BlockKind]


@router.get("")
def view(request: Request, job_id: str, id_: str, block: int | None = None) -> Response:
    return _page(request, job_id, id_, block, None, {})


@router.post("/try")
def try_(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """The view with what is typed so far; nothing is saved."""
    sheet = read_sheet(request, job_id)
    face = _with_typed(sheet.bundle.property.face(id_), form, sheet.units.system)
    return page(
        request,
        "parts/survey/panorama.html",
        {"view": panorama(sheet.bundle.property, face), "here": _here(sheet, id_)},
    )


def _with_typed(face: Face, form: Fields, system: UnitSystem) -> Face:
    """The face with the block as far as it is typed; what is no block yet is left out of the picture, and refused in
    words when it is saved."""
    try:
        typed, number = surroundings.read_block(form, system), _number(form)
    except Refused:
        return face
    blocks = [b for n, b in enumerate(face.blocks) if n != number]
    return face.model_copy(update={"blocks": (*blocks, typed)})


@router.post("")
def save(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    number = _number(form)
    try:
        block = surroundings.read_block(form, read_sheet(request, job_id).units.system)
        surroundings.put_block(context_of(request), job_id, id_, number, block)
    except Refused as error:
        return _page(request, job_id, id_, number, form, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/survey/face/{id_}/surroundings?said=saved", 303)


@router.post("/{number}/delete")
def delete(request: Request, job_id: str, id_: str, number: int) -> Response:
    surroundings.drop_block(context_of(request), job_id, id_, number)
    return RedirectResponse(f"/jobs/{job_id}/survey/face/{id_}/surroundings?said=deleted", 303)


def _number(form: dict[str, str]) -> int | None:
    number = whole(form.get("block", ""), -1)
    return None if number < 0 else number


def _here(sheet: Sheet, id_: str) -> str:
    return f"/jobs/{sheet.bundle.job.id}/survey/face/{id_}/surroundings"


def _page(
    request: Request, job_id: str, id_: str, number: int | None, typed: dict[str, str] | None, faults: dict[str, str]
) -> Response:
    sheet = read_sheet(request, job_id)
    property_, units = sheet.bundle.property, sheet.units
    face = property_.face(id_)
    chosen = face.blocks[number] if number is not None and 0 <= number < len(face.blocks) else None
    values: dict[str, Any] = {"kind": "tree", "name": ""}
    if chosen is not None:
        lengths = {k: units.typed(abs(v)) for k, v in chosen.model_dump(exclude={"kind", "name"}).items()}
        values = {"kind": chosen.kind.value, "name": chosen.name} | lengths
        values["left_m"] = ("-" if chosen.left_m < 0 else "") + values["left_m"]
    context = {
        "base": f"/jobs/{job_id}/survey",
        "here": _here(sheet, id_),
        "face": face,
        "view": panorama(property_, face),
        "values": typed or values,
        "faults": faults,
        "kinds": _KINDS,
        "number": number if chosen is not None else None,
        "units": units,
    }
    status = 422 if faults else 200
    return show(request, job_id, "survey/surroundings.html", "parts/survey/panorama.html", context, status)
