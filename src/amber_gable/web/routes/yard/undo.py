"""The last thing done to a job taken back, or done again, from any of its pages."""

from collections.abc import Callable
from urllib.parse import parse_qsl, urlencode, urlsplit

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.services.context import Context
from amber_gable.services.job.undo import redo_step, still_there, undo_step
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields

router = APIRouter(prefix="/jobs/{job_id}")


@router.post("/undo")
def undo(request: Request, job_id: str, form: Fields) -> Response:
    return _step(request, job_id, form, undo_step, "undone")


@router.post("/redo")
def redo(request: Request, job_id: str, form: Fields) -> Response:
    return _step(request, job_id, form, redo_step, "redone")


def _step(
    request: Request, job_id: str, form: dict[str, str], move: Callable[[Context, str, str], bool], said: str
) -> Response:
    """Back to the page that asked, if what it was about is there still. A drawing table, which asks for itself alone,
    gets itself again."""
    ctx = context_of(request)
    said = said if move(ctx, job_id, form.get("what", "")) else "moved-on"
    asked = urlsplit(form.get("back", ""))
    path = asked.path
    if path.startswith(f"/jobs/{job_id}/") and still_there(ctx, job_id, path):
        query = [(k, v) for k, v in parse_qsl(asked.query) if k != "said"]
        return RedirectResponse(f"{path}?{urlencode([*query, ('said', said)])}", 303)
    survey = f"/jobs/{job_id}/survey?said={said}"
    if "hx-request" in request.headers:
        return Response(headers={"hx-redirect": survey})
    return RedirectResponse(survey, 303)
