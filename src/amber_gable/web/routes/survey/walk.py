"""The walk-round: one stop of the lap at a time, saved as it goes."""

from typing import Any

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.services.survey.conditions import asked_test
from amber_gable.services.survey.walking import (
    END,
    WalkPoint,
    missing_essentials,
    open_tests,
    stops,
    tick_step,
    walk_ticks,
)
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields
from amber_gable.web.routes.survey.sheet import Sheet, is_fragment, read_sheet, show
from amber_gable.web.views.survey.test_controls import TestRow, row_of_test

router = APIRouter(prefix="/jobs/{job_id}/survey/walk")


@router.get("")
def walk(request: Request, job_id: str, at: str = "") -> Response:
    sheet = read_sheet(request, job_id)
    ticked = walk_ticks(context_of(request), job_id)
    lap = stops(sheet.bundle)
    number = next((n for n, s in enumerate(lap) if s.place == at), 0)
    here = lap[number]
    base = f"/jobs/{job_id}/survey"
    context: dict[str, Any] = {
        "base": base,
        "stop": here,
        "number": number,
        "steps": [(s, ticked.get((here.place, s.code), "")) for s in here.steps],
        "size": _size(sheet, here.place),
        "lap": [(s, _left(s, ticked)) for s in lap],
        "before": lap[number - 1] if number else None,
        "after": lap[number + 1] if number + 1 < len(lap) else None,
        "rows": _rows(sheet, here, base),
        "missing": missing_essentials(sheet.bundle) if here.place == END else [],
        "photos": sheet.bundle.property.photos,
        "links": {
            "size": f"{base}/face/{here.place}",
            "openings": f"{base}/face/{here.place}",
            "zones": f"{base}/zone/new?face={here.place}",
            "items": f"{base}/face/{here.place}",
            "front": f"{base}/face/{here.place}",
            "around": f"{base}/face/{here.place}/surroundings",
            "photo": f"{base}/photos?face={here.place}",
            "photos": f"{base}/photos",
        },
    }
    return show(request, job_id, "survey/walk.html", "parts/survey/walk.html", context)


def _size(sheet: Sheet, place: str) -> str:
    """The face's size in the reader's units; empty where the lap begins and ends."""
    face = next((f for f in sheet.bundle.property.faces if f.id == place), None)
    units = sheet.units
    return f"{units.length(face.width_m)} × {units.length(face.top_m)}{'' if units.us else ' m'}" if face else ""


def _left(stop: WalkPoint, ticked: dict[tuple[str, str], str]) -> int:
    return sum(not s.settled and not ticked.get((stop.place, s.code)) for s in stop.steps)


def _rows(sheet: Sheet, stop: WalkPoint, base: str) -> list[tuple[str, str, list[TestRow]]]:
    """Open essential tests of the stop's zones, to be answered on the spot, and where the rest of them is recorded."""
    out = []
    for zone in sheet.bundle.property.zones_of(stop.place):
        here = f"{base}/zone/{zone.id}/condition"
        left = open_tests(zone)
        if left:
            rows = [row_of_test(asked_test(t, zone), zone, here, sheet.units) for t in left if t.field != "moisture"]
            out.append((zone.name, here, rows))
    return out


@router.post("/tick")
def tick(request: Request, job_id: str, form: Fields) -> Response:
    place, step, done = form.get("place", ""), form.get("step", ""), form.get("done", "")
    known = {(s.place, x.code) for s in stops(read_sheet(request, job_id).bundle) for x in s.steps}
    if (place, step) not in known or done not in ("done", "passed", ""):
        raise HTTPException(404, "This step is not on the walk any more.")
    tick_step(context_of(request), job_id, place, step, done)
    if is_fragment(request):
        return walk(request, job_id, place)
    return RedirectResponse(f"/jobs/{job_id}/survey/walk?at={place}", 303)
