"""The jobs list: open, start, import, export."""

from functools import partial
from typing import Any

from fastapi import APIRouter, Request, UploadFile
from markupsafe import Markup
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.listed_job import ListedJob
from amber_gable.services.job_details import (
    change_job,
    copy_job,
    delete_job,
    details_form,
    off_the_board,
    restore_job,
    start_job,
)
from amber_gable.services.job_view import JobView
from amber_gable.services.jobs import import_job, job_file, job_zip, jobs_now
from amber_gable.services.place_check import town_value, towns_like
from amber_gable.web.pages import Fields, job_page, load_job, page, rendered, space_of, units_of
from amber_gable.web.views.job_card import by_attention, card_drawing, job_card
from amber_gable.web.views.units import Units

router = APIRouter()
DRAWN = 24
"""So many jobs are drawn; the rest of a long board are lines."""


@router.get("/")
def jobs(request: Request) -> Response:
    return _jobs(request)


def _jobs(request: Request, faults: dict[str, str] | None = None, typed: dict[str, str] | None = None) -> Response:
    space = space_of(request)
    asked = request.query_params.get("find", "").strip()
    every = jobs_now(space)
    listed = [j for j in every if all(w in _searched(j) for w in asked.casefold().split())]
    units = units_of(request)
    groups: list[dict[str, Any]] = []
    room = DRAWN
    for asks, found in by_attention(listed, space.clock.now()):
        cards = [
            (job_card(j), space.drawings.get(f"{j.id} {units.system} {j.front.stamp}", partial(_drawn, j, units)))
            for j in found[:room]
        ]
        groups.append({"asks": asks.value, "cards": cards, "lines": [job_card(j) for j in found[room:]]})
        room = max(room - len(found), 0)
    gone = request.query_params.get("deleted", "")
    context = {
        "groups": groups,
        "count": len(every),
        "find": asked,
        "faults": faults or {},
        "typed": typed or {},
        "deleted": off_the_board(space) if gone else [],
        "gone": gone,
    }
    return page(request, "jobs.html", context | _towns(request, typed or {}), 422 if faults else 200)


def _searched(job: ListedJob) -> str:
    return f"{job.name} {job.customer} {job.place}".casefold()


def _towns(request: Request, typed: dict[str, str]) -> dict[str, Any]:
    """What a place may be, where it is told by its name."""
    asked = "" if typed.get("latitude") or typed.get("longitude") else typed.get("place", "")
    found = towns_like(space_of(request), asked) if asked else []
    return {"towns": [(town_value(t), t) for t in found], "asked_place": asked}


def _drawn(job: ListedJob, units: Units) -> Markup:
    """The front as markup: drawn once as long as nothing on it changes."""
    drawing = card_drawing(job.front, units)
    return Markup(rendered("parts/job_drawing.html", {"drawing": drawing, "key": job.id}) if drawing else "")


@router.post("/jobs")
def start(request: Request, form: Fields) -> Response:
    try:
        id_ = start_job(space_of(request), form)
    except Refused as error:
        return _jobs(request, error.fields, form)
    return RedirectResponse(f"/jobs/{id_}/survey", 303)


@router.get("/places")
def places(request: Request, place: str = "") -> Response:
    """Towns of a name, to choose from while it is typed."""
    return page(request, "parts/towns.html", _towns(request, {"place": place}) | {"typed": {}})


@router.get("/jobs/{job_id}/details")
def details(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    return _details(request, view, details_form(view.bundle), {})


def _details(request: Request, view: JobView, typed: dict[str, str], faults: dict[str, str]) -> Response:
    context = {"typed": typed, "faults": faults, "sheet": ("J", "Job")} | _towns(request, typed)
    return job_page(request, view, "survey", context, 422 if faults else 200, template="job_details.html")


@router.post("/jobs/{job_id}/details")
def change(request: Request, job_id: str, form: Fields) -> Response:
    try:
        change_job(space_of(request), job_id, form)
    except Refused as error:
        return _details(request, load_job(request, job_id), form, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/details?said=saved", 303)


@router.post("/jobs/{job_id}/copy")
def copy(request: Request, job_id: str) -> Response:
    return RedirectResponse(f"/jobs/{copy_job(space_of(request), job_id)}/details?said=copied", 303)


@router.post("/jobs/{job_id}/delete")
def delete(request: Request, job_id: str) -> Response:
    delete_job(space_of(request), job_id)
    return RedirectResponse(f"/?deleted={job_id}", 303)


@router.post("/jobs/{job_id}/restore")
def restore(request: Request, job_id: str) -> Response:
    restore_job(space_of(request), job_id)
    return RedirectResponse("/", 303)


@router.post("/jobs/import")
def import_(request: Request, file: UploadFile) -> Response:
    id_ = import_job(space_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse(f"/jobs/{id_}/survey", 303)


@router.get("/jobs/{job_id}")
def job(job_id: str) -> Response:
    return RedirectResponse(f"/jobs/{job_id}/survey", 307)


@router.get("/jobs/{job_id}/export.zip")
def export_zip(request: Request, job_id: str) -> Response:
    data = job_zip(space_of(request), job_id)
    headers = {"content-disposition": f'attachment; filename="{job_id}.zip"'}
    return Response(data, media_type="application/zip", headers=headers)


@router.get("/jobs/{job_id}/export")
def export(request: Request, job_id: str) -> Response:
    text = job_file(space_of(request), job_id)
    headers = {"content-disposition": f'attachment; filename="{job_id}.json"'}
    return Response(text, media_type="application/json", headers=headers)
