"""The strip of sky over a job's pages, fetched where the page itself shows no weather."""

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.services.job.stages import lacking
from amber_gable.web.pages import load_job, page, sky_context

router = APIRouter(prefix="/jobs/{job_id}/sky")


@router.get("")
def sky(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    return page(request, "parts/weather/sky_answer.html", sky_context(view) | {"lacks": lacking(view, weather=True)})
