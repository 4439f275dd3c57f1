"""The jobs list: open, start, import, export."""

from functools import partial
from typing import Any

from fastapi import APIRouter, Request, UploadFile
from markupsafe import Markup
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.exposure import TERRAIN_NAMES
from amber_gable.domain.job.company_usual import Shelf
from amber_gable.domain.job.listed_job import Front, ListedJob
from amber_gable.services.company.samples import sample_front
from amber_gable.services.company.stores import usual_of
from amber_gable.services.context import Context
from amber_gable.services.job.beginnings import keep_as_beginning
from amber_gable.services.job.details import (
    change_job,
    copy_job,
    delete_job,
    details_form,
    move_job,
    off_the_board,
    restore_job,
    shelf_of,
    start_job,
)
from amber_gable.services.job.jobs import import_job, job_file, job_zip
from amber_gable.services.job.view import JobView
from amber_gable.services.job.yard import fronts_of, what_waits, yard_now
from amber_gable.services.place_check import nearest
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, page, rendered, town_choices, units_of
from amber_gable.web.views.units import Units
from amber_gable.web.views.yard.job_card import Attention, by_attention, card_drawing, job_card
from amber_gable.web.views.yard.yard_day import yard_day

router = APIRouter()
_TERRAINS = [(terrain.value, words) for terrain, words in TERRAIN_NAMES.items()]
DRAWN = 24
"""So many jobs are drawn; the rest of a long board are lines."""
WATCHED = 12
"""So many are asked what they wait for, the most pressing first; and those that have work today."""


@router.get("/")
def jobs(request: Request) -> Response:
    return _jobs(request)


def _jobs(request: Request, faults: dict[str, str] | None = None, typed: dict[str, str] | None = None) -> Response:
    ctx = context_of(request)
    asked = request.query_params.get("find", "").strip()
    yard = yard_now(ctx)
    every = yard.jobs
    listed = [j for j in every if all(w in _searched(j) for w in asked.casefold().split())]
    now, asking = ctx.now, request.query_params
    pressing = by_attention(listed, now)
    fronts = fronts_of(ctx, [j for _, found in pressing for j in found][:DRAWN])
    units = units_of(request)
    in_order = [j for _, found in pressing for j in found]
    gone = asking.get("deleted", "")
    context = {
        "today": [yard_day(w, now) for w in yard.today],
        "next_work": next((job_card(j) for j in in_order if j.upcoming), None),
        "watched": {j.id for j in in_order[:WATCHED]} - {w.job.id for w in yard.today},
        "samples": sum(j.sample for j in every),
        "company_known": usual_of(ctx) is not None,
        "drawing": "" if every or faults else _sample_drawing(units),
        "beginnings": yard.elsewhere[Shelf.BEGINNINGS],
        "archived": yard.elsewhere[Shelf.ARCHIVE],
        "moved": asking.get("archived", ""),
        "said": asking.get("said"),
        "groups": _board(ctx, units, pressing, fronts),
        "count": len(every),
        "find": asked,
        "faults": faults or {},
        "typed": typed or {},
        "terrains": _TERRAINS,
        "deleted": off_the_board(ctx) if gone else [],
        "gone": gone,
    }
    return page(request, "yard/jobs.html", context | town_choices(request, typed or {}), 422 if faults else 200)


def _board(
    ctx: Context, units: Units, pressing: list[tuple[Attention, list[ListedJob]]], fronts: dict[str, Front]
) -> list[dict[str, Any]]:
    """The groups, the first jobs of all drawn."""
    groups: list[dict[str, Any]] = []
    for asks, found in pressing:
        cards = [(job_card(j), _drawing(ctx, j.id, fronts[j.id], units)) for j in found if j.id in fronts]
        groups.append({"asks": asks.value, "cards": cards, "lines": [job_card(j) for j in found if j.id not in fronts]})
    return groups


def _drawing(ctx: Context, job_id: str, front: Front, units: Units) -> Markup:
    """The front as markup: drawn once as long as nothing on it changes."""
    return ctx.space.drawings.get(f"{job_id} {units.system} {front.stamp}", partial(_drawn, job_id, front, units))


def _searched(job: ListedJob) -> str:
    return f"{job.name} {job.customer} {job.place}".casefold()


def _drawn(job_id: str, front: Front, units: Units) -> Markup:
    drawing = card_drawing(front, units)
    return Markup(rendered("parts/yard/job_drawing.html", {"drawing": drawing, "key": job_id}) if drawing else "")


def _sample_drawing(units: Units) -> Markup:
    """What a house will look like, before there is one."""
    drawing = card_drawing(sample_front(), units)
    return Markup(rendered("parts/yard/job_drawing.html", {"drawing": drawing, "key": "sample"}))


@router.post("/jobs")
def start(request: Request, form: Fields) -> Response:
    try:
        id_ = start_job(context_of(request), form)
    except Refused as error:
        return _jobs(request, error.fields, form)
    return RedirectResponse(f"/jobs/{id_}/survey", 303)


@router.get("/places")
def places(request: Request, place: str = "") -> Response:
    """Towns of a name, to choose from while it is typed."""
    return page(request, "parts/towns.html", town_choices(request, {"place": place}) | {"typed": {}})


@router.get("/places/near")
def near(latitude: float, longitude: float) -> dict[str, str]:
    """The town that a place (degrees) is called by: the nearest."""
    town, words = nearest(latitude, longitude)
    return {"place": town, "words": words}


@router.get("/jobs/{job_id}/details")
def details(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    return _details(request, view, details_form(view.bundle), {})


def _details(request: Request, view: JobView, typed: dict[str, str], faults: dict[str, str]) -> Response:
    shelf = shelf_of(context_of(request), view.bundle.job.id)
    context = {"typed": typed, "faults": faults, "terrains": _TERRAINS, "sheet": ("J", "Job"), "shelf": shelf.value}
    context |= town_choices(request, typed)
    return job_page(request, view, "survey", context, 422 if faults else 200, template="yard/job_details.html")


@router.post("/jobs/{job_id}/details")
def change(request: Request, job_id: str, form: Fields) -> Response:
    try:
        change_job(context_of(request), job_id, form)
    except Refused as error:
        return _details(request, load_job(request, job_id), form, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/details?said=kept", 303)


@router.post("/jobs/{job_id}/copy")
def copy(request: Request, job_id: str) -> Response:
    return RedirectResponse(f"/jobs/{copy_job(context_of(request), job_id)}/details?said=copied", 303)


@router.post("/jobs/{job_id}/beginning")
def keep_beginning(request: Request, job_id: str) -> Response:
    keep_as_beginning(context_of(request), job_id)
    return RedirectResponse(f"/jobs/{job_id}/details?said=beginning", 303)


@router.post("/jobs/{job_id}/archive")
def archive(request: Request, job_id: str) -> Response:
    move_job(context_of(request), job_id, Shelf.ARCHIVE)
    return RedirectResponse(f"/?archived={job_id}", 303)


@router.post("/jobs/{job_id}/unarchive")
def unarchive(request: Request, job_id: str) -> Response:
    move_job(context_of(request), job_id, Shelf.BOARD)
    return RedirectResponse("/", 303)


@router.get("/yard/waits/{job_id}")
def waits(request: Request, job_id: str) -> Response:
    """What a job waits for: fetched by the board once it is drawn."""
    return page(request, "parts/yard/waits.html", {"waits": what_waits(context_of(request), job_id), "job_id": job_id})


@router.post("/jobs/{job_id}/delete")
def delete(request: Request, job_id: str) -> Response:
    delete_job(context_of(request), job_id)
    return RedirectResponse(f"/?deleted={job_id}", 303)


@router.post("/jobs/{job_id}/restore")
def restore(request: Request, job_id: str) -> Response:
    restore_job(context_of(request), job_id)
    return RedirectResponse("/", 303)


@router.post("/jobs/import")
def import_(request: Request, file: UploadFile) -> Response:
    id_ = import_job(context_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse(f"/jobs/{id_}/survey", 303)


@router.get("/jobs/{job_id}")
def job(job_id: str) -> Response:
    return RedirectResponse(f"/jobs/{job_id}/survey", 307)


@router.get("/jobs/{job_id}/export.zip")
def export_zip(request: Request, job_id: str) -> Response:
    data = job_zip(context_of(request), job_id)
    headers = {"content-disposition": f'attachment; filename="{job_id}.zip"'}
    return Response(data, media_type="application/zip", headers=headers)


@router.get("/jobs/{job_id}/export")
def export(request: Request, job_id: str) -> Response:
    text = job_file(context_of(request), job_id)
    headers = {"content-disposition": f'attachment; filename="{job_id}.json"'}
    return Response(text, media_type="application/json", headers=headers)
