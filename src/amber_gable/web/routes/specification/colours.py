"""Colours of the whole house: two schemes side by side under the sun of a day and hour, and sample boards."""

from datetime import date, datetime, time
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.scheme import GROUP_NAMES, ColourGroup
from amber_gable.services.specification.colour_preview import (
    board_colours,
    colour_groups,
    colours_left,
    house_after,
    job_library,
    light_at,
    lit_colours,
    part_colours,
    scheme_heat,
    trim_contrast,
)
from amber_gable.services.specification.schemes import apply_scheme, drop_scheme, save_scheme
from amber_gable.services.workspace import digest
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, page, units_of
from amber_gable.web.views.survey.elevation import draw, drawing_scale, finish_colours
from amber_gable.web.views.weather.lanes import bearing

router = APIRouter(prefix="/jobs/{job_id}/specification")
NOW, CHOSEN = "now", "chosen"
_USUAL_HOUR = 15.0
MOST_BOARDS = 4


@router.get("/colours")
def colours(request: Request, job_id: str) -> Response:
    return _page(request, job_id)


def _page(request: Request, job_id: str, more: dict[str, Any] | None = None, status: int = 200) -> Response:
    view, ctx = load_job(request, job_id), context_of(request)
    bundle = view.bundle
    context = {
        "preview": preview(request, bundle, view.now),
        "schemes": ctx.space.computed.get(
            "schemes" + digest(bundle), lambda: [scheme_heat(bundle, s) for s in bundle.job.schemes]
        ),
        "groups": [(g, GROUP_NAMES[g]) for g in colour_groups(bundle)],
        "library": job_library(ctx, bundle),
        "faults": {},
        "typed": {},
        "done": None,
    }
    return job_page(request, view, "specification", context | (more or {}), status, "specification/colours.html")


@router.get("/colours/preview")
def fragment(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    context = {"preview": preview(request, view.bundle, view.now), "job": view.bundle.job}
    return page(request, "parts/specification/preview.html", context)


def preview(request: Request, bundle: JobBundle, now: datetime) -> dict[str, Any]:
    """Both halves at the asked moment; without one, this afternoon."""
    asked = request.query_params
    day, hour = _day(asked.get("day", ""), now.date()), _hour(asked.get("hour", ""))
    when = datetime.combine(day, time(int(hour), round(hour % 1 * 60)), bundle.property.tz)
    place, units = bundle.property, units_of(request)
    moment = light_at(place, when) if place.faces else None
    options = [(CHOSEN, "As specified"), (NOW, "As it is now"), *((s.id, s.name) for s in bundle.job.schemes)]
    known = {o for o, _ in options}
    schemes = bundle.job.schemes
    left = asked.get("left") if asked.get("left") in known else CHOSEN
    right = asked.get("right") if asked.get("right") in known else (schemes[0].id if schemes else NOW)
    scale = drawing_scale(place.faces, 236.0, height=190.0)
    halves = []
    for choice in (left, right):
        scheme = next((s for s in schemes if s.id == choice), None)
        base = {} if choice == NOW else finish_colours(bundle)
        colours = part_colours(place, scheme, base) | ({} if choice == NOW else colours_left(bundle))
        shown = place if choice == NOW else house_after(bundle)
        drawings = [
            {
                "drawing": draw(shown, f, scale, colours=lit_colours(f, place, colours, moment), units=units),
                "light": moment.faces[f.id],
            }
            for f in place.faces
            if moment is not None
        ]
        halves.append({"choice": choice, "drawings": drawings, **trim_contrast(bundle, colours)})
    return {
        "halves": halves,
        "options": options,
        "day": day,
        "hour": hour,
        "clock": f"{when:%H:%M}",
        "sun": None if moment is None else (moment.elevation, bearing(moment.azimuth)),
    }


def _day(text: str, fallback: date) -> date:
    try:
        return date.fromisoformat(text)
    except ValueError:
        return fallback


def _hour(text: str) -> float:
    try:
        return min(max(round(float(text) * 2) / 2, 0.0), 23.5)
    except ValueError:
        return _USUAL_HOUR


@router.post("/colours/schemes")
def save(request: Request, job_id: str, form: Fields) -> Response:
    try:
        id_ = save_scheme(context_of(request), job_id, form)
    except Refused as error:
        return _page(request, job_id, {"faults": error.fields, "typed": form}, 422)
    return RedirectResponse(f"/jobs/{job_id}/specification/colours?right={id_}&said=saved", 303)


@router.post("/colours/schemes/{id_}/apply")
def apply(request: Request, job_id: str, id_: str) -> Response:
    done, refused = apply_scheme(context_of(request), job_id, id_)
    return _page(request, job_id, {"done": done, "refused": refused})


@router.post("/colours/schemes/{id_}/drop")
def drop(request: Request, job_id: str, id_: str) -> Response:
    drop_scheme(context_of(request), job_id, id_)
    return RedirectResponse(f"/jobs/{job_id}/specification/colours?said=saved", 303)


@router.get("/boards")
def boards(request: Request, job_id: str) -> Response:
    """Sample boards to print or to paint from: the candidates for one group, four at most."""
    view = load_job(request, job_id)
    bundle = view.bundle
    asked = request.query_params.get("group", "")
    group = ColourGroup(asked) if asked in set(ColourGroup) else ColourGroup.BODY
    context = {
        "group": group,
        "groups": [(g, GROUP_NAMES[g]) for g in colour_groups(bundle)],
        "boards": board_colours(bundle, group)[:MOST_BOARDS],
        "group_name": GROUP_NAMES[group],
        "key": digest(bundle)[:6],
    }
    return job_page(request, view, "specification", context, 200, "specification/boards.html")
