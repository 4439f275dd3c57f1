"""A house blocked out from one form, with its faces drawn while it is typed."""

from collections.abc import Callable, Mapping
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.block_out import Roof, Side, WingRoof
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.services.job.view import JobView
from amber_gable.services.survey.blocking_out import block_out, tried_out, walk_tried
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, page, typed_system, units_of
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from amber_gable.web.views.survey.house_plan import draw_plan

router = APIRouter(prefix="/jobs/{job_id}/survey/block")
SHEET_W, SHEET_SCALE, SHEET_H = 180.0, 20.0, 130.0
ROOFS = {
    Roof.GABLE_ALONG: "gable roof, ridge along the street",
    Roof.GABLE_TO_STREET: "gable roof, gable to the street",
    Roof.HIP: "hip roof",
    Roof.LEAN_TO: "lean-to, high at the back",
    Roof.FLAT: "flat roof",
}
WING_ROOFS = {
    WingRoof.LEAN_TO: "leans on the house",
    WingRoof.GABLE_OUT: "gable, ridge out from the house",
    WingRoof.RIDGE_ALONG: "gable, ridge beside the house",
    WingRoof.FLAT: "flat",
}
SIDES = {Side.FRONT: "the front", Side.LEFT: "the left side", Side.BACK: "the back", Side.RIGHT: "the right side"}
Parts = tuple[tuple[Face, ...], tuple[Zone, ...], tuple[Item, ...]]
_NO_WALLS = {"trim", "roof", "deck", "door", "railing", "beam", "slab"}
WALLS = [(s.code, s.name) for s in SUBSTRATES.values() if not _NO_WALLS & set(s.code.split("-"))]
ROOFINGS = [(s.code, s.name) for s in SUBSTRATES.values() if s.code.endswith("-roof")]
USUAL = {
    "building": "House",
    "roof": Roof.GABLE_ALONG.value,
    "substrate": "wood-lap",
    "colour": "#d8d2c2",
    "trim": "on",
    "trim_colour": "#efe9dc",
    "roof_colour": "#5b5f5e",
}


@router.get("")
def form(request: Request, job_id: str) -> Response:
    return _page(request, load_job(request, job_id), USUAL, {})


@router.get("/walk")
def walk_form(request: Request, job_id: str) -> Response:
    """A footprint of right angles, walked round or tapped on a grid."""
    return _page(request, load_job(request, job_id), USUAL, {}, walked=True)


def _page(
    request: Request, view: JobView, typed: Mapping[str, str], faults: dict[str, str], *, walked: bool = False
) -> Response:
    context = {
        "typed": typed,
        "faults": faults,
        "roofs": [(r.value, words) for r, words in ROOFS.items()],
        "sides": [(s.value, words) for s, words in SIDES.items()],
        "wing_roofs": [(r.value, words) for r, words in WING_ROOFS.items()],
        "walls": WALLS,
        "roofings": ROOFINGS,
    }
    told = _tried(request, view, typed, walked=walked) if typed is not USUAL else {"drawings": [], "trouble": ""}
    template = "survey/block_walk.html" if walked else "survey/block.html"
    return job_page(request, view, "survey", context | told, 422 if faults else 200, template=template)


def _tried(request: Request, view: JobView, typed: Mapping[str, str], *, walked: bool = False) -> dict[str, Any]:
    def made() -> Parts:
        house = (walk_tried if walked else tried_out)(typed, typed_system(request, typed))
        return tuple(face for face, _ in house), tuple(zone for _, found in house for zone in found), ()

    return tried_drawing(request, view, made)


def tried_drawing(request: Request, view: JobView, made: Callable[[], Parts]) -> dict[str, Any]:
    """What is blocked out as it would be, drawn; or what still lacks."""
    units = units_of(request)
    try:
        faces, zones, items = made()
    except Refused as error:
        wrong = [words for words in error.fields.values() if words != "is needed"]
        return {"drawings": [], "trouble": wrong[0] if wrong else ""}
    house = view.bundle.property.model_copy(update={"faces": faces, "zones": zones, "items": items})
    scale = drawing_scale(faces, SHEET_W, SHEET_SCALE, SHEET_H, units)
    return {
        "drawings": [draw(house, f, scale, units=units) for f in faces],
        "plan": draw_plan(faces),
        "trouble": "",
        "total_m2": sum(f.area_m2 for f in faces),
    }


@router.post("")
def build(request: Request, job_id: str, form: Fields) -> Response:
    return _build(request, job_id, form, walked=False)


@router.post("/walk")
def build_walked(request: Request, job_id: str, form: Fields) -> Response:
    return _build(request, job_id, form, walked=True)


def _build(request: Request, job_id: str, form: dict[str, str], *, walked: bool) -> Response:
    view = load_job(request, job_id)
    if "hx-request" in request.headers:
        return page(request, "parts/survey/block_drawn.html", _tried(request, view, form, walked=walked))
    try:
        block_out(context_of(request), job_id, form, typed_system(request, form), walked=walked)
    except Refused as error:
        return _page(request, view, form, error.fields, walked=walked)
    return RedirectResponse(f"/jobs/{job_id}/survey?said=blocked", 303)
