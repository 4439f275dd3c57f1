"""A deck, porch or fence blocked out from one form, drawn while it is typed."""

from collections.abc import Mapping
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.block_floor import FLOORS, RAILINGS
from amber_gable.domain.house.profile import BoardRun
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.services.job.view import JobView
from amber_gable.services.survey.blocking_floor import block_fence, block_floor, fence_tried, floor_tried
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, page, typed_system
from amber_gable.web.routes.survey.block import WALLS, Parts, tried_drawing

router = APIRouter(prefix="/jobs/{job_id}/survey/block")
USUAL_FLOOR = {"name": "Deck", "substrate": "wood-deck", "colour": "#9b8468", "rail_colour": "#9b8468"}
USUAL_FENCE = {"name": "Fence", "substrate": "board-batten", "colour": "#9b8468", "both_sides": "on"}
RUNS = {
    BoardRun.ACROSS: "along the house",
    BoardRun.AWAY: "out from the house",
    BoardRun.DIAGONAL: "slantwise",
}


def _names(codes: tuple[str, ...]) -> list[tuple[str, str]]:
    return [(code, SUBSTRATES[code].name) for code in codes]


@router.get("/floor")
def floor(request: Request, job_id: str) -> Response:
    return _page(request, load_job(request, job_id), "floor", USUAL_FLOOR, {})


@router.get("/fence")
def fence(request: Request, job_id: str) -> Response:
    return _page(request, load_job(request, job_id), "fence", USUAL_FENCE, {})


def _page(request: Request, view: JobView, what: str, typed: Mapping[str, str], faults: dict[str, str]) -> Response:
    fresh = typed is USUAL_FLOOR or typed is USUAL_FENCE
    context = {
        "what": what,
        "typed": typed,
        "faults": faults,
        "floors": _names(FLOORS),
        "railings": _names(RAILINGS),
        "runs": [(r.value, words) for r, words in RUNS.items()],
        "walls": WALLS,
    } | ({"drawings": [], "trouble": ""} if fresh else _tried(request, view, what, typed))
    return job_page(request, view, "survey", context, 422 if faults else 200, template="survey/block_floor.html")


def _tried(request: Request, view: JobView, what: str, typed: Mapping[str, str]) -> dict[str, Any]:
    system = typed_system(request, typed)

    def made() -> Parts:
        if what == "fence":
            sides = fence_tried(typed, system)
            return tuple(f for f, _ in sides), tuple(z for _, zones in sides for z in zones), ()
        (face, zones), items = floor_tried(typed, system)
        return (face,), zones, items

    return tried_drawing(request, view, made)


@router.post("/floor")
def build_floor(request: Request, job_id: str, form: Fields) -> Response:
    return _build(request, job_id, "floor", form)


@router.post("/fence")
def build_fence(request: Request, job_id: str, form: Fields) -> Response:
    return _build(request, job_id, "fence", form)


def _build(request: Request, job_id: str, what: str, form: Fields) -> Response:
    view = load_job(request, job_id)
    if "hx-request" in request.headers:
        return page(request, "parts/survey/block_drawn.html", _tried(request, view, what, form))
    try:
        build = block_fence if what == "fence" else block_floor
        build(context_of(request), job_id, form, typed_system(request, form))
    except Refused as error:
        return _page(request, view, what, form, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/survey?said=blocked", 303)
