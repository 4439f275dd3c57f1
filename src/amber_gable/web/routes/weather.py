"""Weather: face lanes and the why panel; forecasts asked for, files imported."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.core.climate.job_climate import SiteClimate, main_zone
from amber_gable.core.weather.surface import Climate
from amber_gable.core.weather.windows import Windows, slot_readings
from amber_gable.domain.product import Product
from amber_gable.domain.schools import DewSchool, HoldSchool, Method, SunSchool
from amber_gable.domain.survey import Face
from amber_gable.services.forecasts import drop_weather_file, import_weather, job_weather
from amber_gable.services.job_view import JobView
from amber_gable.web.drawn_lanes import chart, lane_link
from amber_gable.web.pages import job_page, load_job, page, space_of
from amber_gable.web.views.why import slot_of, why_panel

router = APIRouter(prefix="/jobs/{job_id}/weather")


@dataclass(frozen=True)
class Row:
    """A face as it is judged: its one-row climate, and the windows of one coat on its main zone."""

    face: Face
    climate: Climate
    windows: Windows
    product: Product
    method: Method


def judged(view: JobView, site: SiteClimate, product: Product | None = None, method: Method | None = None) -> list[Row]:
    """Every face by its main zone in the colour it will have: for `product`, else for each face's own last coat."""
    rows = []
    for face in view.bundle.property.faces:
        zone = main_zone(view.bundle, face)
        if zone is None:
            continue
        finish = view.bundle.finish_of("zone", zone.id)
        coat, by = product, method or Method.BRUSH
        if coat is None and finish is not None:
            films = [o for o in view.bundle.operations(finish) if o.kind.lays_film]
            if films and films[-1].product is not None:
                coat, by = view.bundle.product(films[-1].product), method or films[-1].method or by
        if coat is None and view.bundle.products:
            coat = view.bundle.products[0]
        if coat is None:
            continue
        colour = finish.colour if finish is not None else zone.colour_now
        rows.append(
            Row(face, site.climate.rows([site.row_of(zone, colour)]), site.for_coat(zone, coat, by, colour), coat, by)
        )
    return rows


@router.get("")
def weather(
    request: Request, job_id: str, product: str = "", method: str = "", face: str = "", at: datetime | None = None
) -> Response:
    view = load_job(request, job_id)
    chosen_product = next((p for p in view.bundle.products if p.code == product), None)
    chosen_method = Method(method) if method in set(Method) else None
    context: dict[str, Any] = {
        "chart": None,
        "product": chosen_product,
        "method": chosen_method,
        "methods": list(Method),
    }
    context |= {"suns": list(SunSchool), "holds": list(HoldSchool), "dews": list(DewSchool)}
    context |= {"products": view.bundle.products}
    rows = judged(view, view.site, chosen_product, chosen_method) if view.site is not None else []
    if not rows:
        return job_page(request, view, "weather", context)
    by_id = {row.face.id: row for row in rows}
    task = view.scheduled_coat
    usual = task.face if task is not None and task.face in by_id else rows[0].face.id
    row = by_id.get(face, by_id[usual])
    moment = at if at is not None and at.tzinfo is not None else view.now
    slot = slot_of(row.windows, moment)
    query = {"product": product, "method": method} if chosen_product or chosen_method else {}

    link = lane_link(job_id, query)
    slots = row.windows.slots
    why = why_panel(row.face.name, row.windows, slot_readings(row.climate, slots), slot)
    context |= {
        "why": why,
        "coat": (row.product, row.method),
        "why_links": {
            "previous": link(row.face.id, why.previous) if why.previous else None,
            "following": link(row.face.id, why.following) if why.following else None,
        },
    }
    if "hx-request" in request.headers:
        return page(request, "parts/why_answer.html", context | {"oob": True})
    lanes = [(r.face, r.climate, r.windows) for r in rows]
    context["chart"] = chart(view, lanes, query, (row.face.id, slots.time(slot)))
    context["query"] = urlencode(query)
    return job_page(request, view, "weather", context)


@router.post("/refresh")
def refresh(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    job_weather(space_of(request), view.bundle.property, insist=True)
    return RedirectResponse(f"/jobs/{job_id}/weather", 303)


@router.post("/file")
def upload(request: Request, job_id: str, file: UploadFile) -> Response:
    view = load_job(request, job_id)
    if not file.filename:
        raise HTTPException(422, "Choose a file first: EPW, TMY3 CSV or plain CSV.")
    import_weather(space_of(request), view.bundle.property.id, file.file.read(), file.filename)
    return RedirectResponse(f"/jobs/{job_id}/weather?said=imported", 303)


@router.post("/file/drop")
def drop(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    drop_weather_file(space_of(request), view.bundle.property.id)
    return RedirectResponse(f"/jobs/{job_id}/weather", 303)
