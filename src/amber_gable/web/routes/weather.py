"""Weather: face lanes and the why panel; forecasts asked for, files imported."""

from datetime import datetime
from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.core.weather.site import SiteClimate, main_zone
from amber_gable.core.weather.surface import Climate
from amber_gable.core.weather.windows import Windows, slot_readings
from amber_gable.domain.product import Product
from amber_gable.domain.schools import DewSchool, HoldSchool, Method, SunSchool
from amber_gable.domain.survey import Face, Zone
from amber_gable.services.forecasts import drop_weather_file, import_weather, job_weather
from amber_gable.web.pages import JobView, job_page, load_job, page, scheduled_coat, space_of
from amber_gable.web.views.lanes import lane_chart
from amber_gable.web.views.why import slot_of, why_panel

router = APIRouter(prefix="/jobs/{job_id}/weather")
LANE_DAYS = 10


def default_coat(view: JobView) -> tuple[Product, Method] | None:
    """The product to judge by: the scheduled coat's, else the first coat of the first finish."""
    task = scheduled_coat(view)
    codes = {p.code: p for p in view.bundle.products}
    if task is not None and task.product in codes and task.method is not None:
        return codes[task.product], task.method
    for finish in view.bundle.job.finishes:
        for o in view.bundle.system(finish.system).operations:
            if o.product is not None and o.method is not None and not codes[o.product].primer:
                return codes[o.product], o.method
    return (view.bundle.products[0], Method.BRUSH) if view.bundle.products else None


def judged(view: JobView, site: SiteClimate, product: Product, method: Method) -> list[tuple[Face, Climate, Windows]]:
    """Every face by its main zone, in the colour it will have."""
    rows = []
    for face in view.bundle.property.faces:
        zone = main_zone(view.bundle, face)
        if zone is not None:
            colour = _colour(view, zone)
            windows = site.for_coat(zone, product, method, colour)
            row = site.row.get((zone.id, colour), site.row[zone.id, zone.colour_now])
            rows.append((face, site.climate.rows([row]), windows))
    return rows


def _colour(view: JobView, zone: Zone) -> str:
    return next((f.colour for f in view.bundle.job.finishes if f.zone == zone.id), zone.colour_now)


def _coat(view: JobView, product: str, method: str) -> tuple[Product, Method] | None:
    chosen = next((p for p in view.bundle.products if p.code == product), None)
    fallback = default_coat(view)
    if chosen is None:
        return fallback
    return chosen, Method(method) if method in set(Method) else Method.BRUSH


@router.get("")
def weather(
    request: Request, job_id: str, product: str = "", method: str = "", face: str = "", at: datetime | None = None
) -> Response:
    view = load_job(request, job_id)
    coat = _coat(view, product, method)
    context: dict[str, Any] = {"chart": None, "why": None, "coat": coat, "methods": list(Method)}
    context |= {"products": view.bundle.products}
    context |= {"suns": list(SunSchool), "holds": list(HoldSchool), "dews": list(DewSchool)}
    if view.site is None or coat is None:
        return job_page(request, view, "weather", context)
    rows = judged(view, view.site, *coat)
    moment = at if at is not None and at.tzinfo is not None else view.now
    faces = {f.id: (f, c, w) for f, c, w in rows}
    task = scheduled_coat(view)
    chosen = face if face in faces else task.face if task is not None and task.face in faces else rows[0][0].id
    query = {"product": coat[0].code, "method": coat[1].value}

    def link(face_id: str, t: datetime) -> str:
        return f"/jobs/{job_id}/weather?" + urlencode(query | {"face": face_id, "at": t.isoformat()})

    tasks = view.kept.plan.tasks if view.kept is not None else ()
    f, climate, windows = faces[chosen]
    why = why_panel(f.name, windows, slot_readings(climate, windows.slots), slot_of(windows, moment))
    context |= {
        "why": why,
        "why_links": {
            "previous": link(chosen, why.previous) if why.previous else None,
            "following": link(chosen, why.following) if why.following else None,
        },
    }
    if "hx-request" in request.headers:
        return page(request, "parts/why.html", context)
    context["chart"] = lane_chart(
        rows, tasks, view.now, LANE_DAYS, link, (chosen, windows.slots.time(slot_of(windows, moment)))
    )
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
