"""How wet each face is and will be."""

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.services.weather.faces.face_moisture import face_moistures
from amber_gable.web.pages import job_page, load_job
from amber_gable.web.views.weather.moisture import draw_moistures

router = APIRouter(prefix="/jobs/{job_id}/weather/moisture")


@router.get("")
def moisture(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    faces = draw_moistures(face_moistures(view), job_id, view.now)
    return job_page(request, view, "weather", {"faces": faces}, template="weather/moisture.html")
