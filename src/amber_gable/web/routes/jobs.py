"""The jobs list: open, start, import, export."""

from functools import partial

from fastapi import APIRouter, Request, UploadFile
from markupsafe import Markup
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.listed_job import ListedJob
from amber_gable.services.jobs import import_job, job_file, job_zip, jobs_now, start_job
from amber_gable.web.pages import Fields, page, rendered, space_of, units_of
from amber_gable.web.views.job_card import card_drawing, job_card
from amber_gable.web.views.units import Units

router = APIRouter()


@router.get("/")
def jobs(request: Request) -> Response:
    return _jobs(request)


def _jobs(request: Request, faults: dict[str, str] | None = None, typed: dict[str, str] | None = None) -> Response:
    space = space_of(request)
    listed = jobs_now(space)
    units = units_of(request)
    cards = [
        (job_card(job), space.drawings.get(f"{job.id} {units.system} {job.front.stamp}", partial(_drawn, job, units)))
        for job in listed
    ]
    context = {"cards": cards, "faults": faults or {}, "typed": typed or {}}
    return page(request, "jobs.html", context, 422 if faults else 200)


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
