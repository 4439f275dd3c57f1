"""Fresh films, rain, cans and who is missing on Today: what became of them, in a tap or two."""

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.domain.errors import Refused
from amber_gable.services.job.view import job_view
from amber_gable.services.today.can_noting import note_can
from amber_gable.services.today.missing import note_missing
from amber_gable.services.today.spoiling import note_rain, note_spoiled
from amber_gable.services.today.sureness import sureness
from amber_gable.web.asking import context_of, signed_by
from amber_gable.web.pages import Fields, load_job, page, typed_system
from amber_gable.web.routes.today.sheet import ShownByForm, back_to, sheet_page

router = APIRouter(prefix="/jobs/{job_id}/today")


@router.post("/can")
def can(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """What is left in the can that a coat takes its paint from."""
    ctx = signed_by(request, form.get("by", ""))
    view = load_job(request, job_id)
    try:
        note_can(ctx, view, form, ctx.actor, typed_system(request, form))
    except Refused as error:
        return sheet_page(request, view, shown, error.fields, 422)
    return back_to(job_id, ctx.actor, shown)


@router.get("/sure")
def sure(request: Request, job_id: str, task: str = "") -> Response:
    """How sure the Yes of a task is; its card fetches it, for it may take a moment."""
    found = sureness(job_view(context_of(request), job_id, waits=True), task)
    return page(request, "parts/today/sure.html", {"sure": found})


@router.post("/missing")
def missing(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """How many people of the crew are missing on a day."""
    ctx = signed_by(request, form.get("by", ""))
    try:
        note_missing(ctx, job_id, form, ctx.actor)
    except Refused as error:
        return sheet_page(request, load_job(request, job_id), shown, error.fields, 422)
    return back_to(job_id, ctx.actor, shown)


@router.post("/rain")
def rain(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """It rains now: each fresh film is asked about."""
    ctx = signed_by(request, form.get("by", ""))
    note_rain(ctx, job_id, ctx.actor)
    return back_to(job_id, ctx.actor, shown)


@router.post("/spoiled")
def spoiled(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """What became of a fresh film."""
    ctx = signed_by(request, form.get("by", ""))
    view = load_job(request, job_id)
    try:
        note_spoiled(ctx, view, form, ctx.actor, typed_system(request, form))
    except Refused as error:
        return sheet_page(request, view, shown, error.fields, 422)
    return back_to(job_id, ctx.actor, shown)
