"""Weather: face lanes and the why panel; forecasts asked for, files imported."""

from datetime import datetime
from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.method import Method
from amber_gable.domain.schools import AskedBy, topics_of
from amber_gable.services.weather.forecasts import drop_weather_file, import_weather, job_weather
from amber_gable.services.weather.judged_faces import Which, judged_faces, of_step
from amber_gable.web.drawn_lanes import chart, lane_link, lanes_of
from amber_gable.web.pages import job_page, load_job, page, space_of, units_of
from amber_gable.web.views.why import slot_of, why_panel

router = APIRouter(prefix="/jobs/{job_id}/weather")


LOOKS = (
    (Which.NEXT, "each face’s next step"),
    (Which.COAT, "each face’s next coat"),
    (Which.LAST, "each face’s last coat"),
)
"""What may be asked about where no product is named."""


@router.get("")
def weather(
    request: Request,
    job_id: str,
    product: str = "",
    method: str = "",
    face: str = "",
    at: datetime | None = None,
    task: str = "",
) -> Response:
    """`product`: a sheet's code, or which step of every face (`Which`); `task`: one of the plan's, with its parts."""
    view = load_job(request, job_id)
    chosen_product = next((p for p in view.bundle.products if p.code == product), None)
    which = Which(product) if product in set(Which) else Which.NEXT
    chosen_method = Method(method) if method in set(Method) else None
    context: dict[str, Any] = {
        "chart": None,
        "product": chosen_product,
        "which": which,
        "looks": LOOKS,
        "method": chosen_method,
        "methods": list(Method),
    }
    context |= {"topics": topics_of(AskedBy.WEATHER), "products": view.bundle.products}
    rows = judged_faces(view, view.site, chosen_product, chosen_method, which) if view.site is not None else []
    if not rows or view.site is None:
        return job_page(request, view, "weather", context)
    by_id = {row.face.id: row for row in rows}
    asked = view.asked_task(task, face) if not product else None
    if asked is not None and asked.judged is not None and asked.task.face in by_id:
        face = asked.task.face
        by_id[face] = of_step(view.site, by_id[face].face, asked.judged)
    row = by_id.get(face, rows[0])
    moment = at if at is not None and at.tzinfo is not None else view.now
    query = {k: v for k, v in (("product", product), ("method", method)) if v}
    own = query | ({"task": asked.task.id} if asked is not None and task else {})
    link = lane_link(job_id, own)
    slots = row.windows.slots
    slot = slot_of(row.windows, moment)
    why = why_panel(row, moment, slot, units_of(request))
    context |= {
        "why": why,
        "row": row,
        "why_links": {
            "previous": link(row.face.id, why.previous) if why.previous else None,
            "following": link(row.face.id, why.following) if why.following else None,
        },
    }
    if "hx-request" in request.headers:
        return page(request, "parts/why_answer.html", context | {"oob": True})
    shown = lanes_of([by_id[r.face.id] for r in rows])
    context["chart"] = chart(view, units_of(request), shown, query, (row.face.id, slots.time(slot)))
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
