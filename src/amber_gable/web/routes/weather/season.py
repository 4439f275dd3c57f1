"""The year of each face."""

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.services.weather.held.weather_files import bring_file
from amber_gable.services.weather.told.season import face_seasons, kept_year
from amber_gable.web.asking import context_of
from amber_gable.web.pages import job_page, load_job
from amber_gable.web.views.weather.season import year_strips

router = APIRouter(prefix="/jobs/{job_id}/weather/season")


@router.get("")
def season(request: Request, job_id: str) -> Response:
    view, ctx = load_job(request, job_id), context_of(request)
    year = kept_year(ctx, view.bundle.property.id)
    found = [] if year is None else face_seasons(ctx, view.bundle, year)
    context = {"strips": year_strips(found), "source": year.source if year is not None else ""}
    return job_page(request, view, "weather", context, template="weather/season.html")


@router.post("")
def bring(request: Request, job_id: str, file: UploadFile) -> Response:
    view = load_job(request, job_id)
    if not file.filename:
        raise HTTPException(422, "Choose a file first: EPW or TMY3 CSV.")
    far = bring_file(context_of(request), view.bundle.property, file.file.read(), file.filename, "year")
    return RedirectResponse(f"/jobs/{job_id}/weather/far/{far}" if far else f"/jobs/{job_id}/weather/season", 303)
