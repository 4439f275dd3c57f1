"""Weather: face lanes and the why panel; forecasts asked for, files imported."""

from datetime import datetime
from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.method import Method
from amber_gable.domain.schools import AskedBy, topics_of
from amber_gable.services.weather.forecasts import drop_weather_file, import_weather, job_weather
from amber_gable.services.weather.judged_faces import judged_faces
from amber_gable.web.drawn_lanes import chart, lane_link
from amber_gable.web.pages import job_page, load_job, page, space_of, units_of
from amber_gable.web.views.why import slot_of, why_panel

router = APIRouter(prefix="/jobs/{job_id}/weather")


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
    context |= {"topics": topics_of(AskedBy.WEATHER), "products": view.bundle.products}
    rows = judged_faces(view, view.site, chosen_product, chosen_method) if view.site is not None else []
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
    why = why_panel(row.face.name, row.windows, row.readings(), slot, units_of(request))
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
    context["chart"] = chart(view, units_of(request), lanes, query, (row.face.id, slots.time(slot)))
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
