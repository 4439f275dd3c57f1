"""Long work under way: the list of it, one piece as a card, and stopping it."""

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import NotFound
from amber_gable.services.runs.run import Run
from amber_gable.web.asking import context_of
from amber_gable.web.pages import page

router = APIRouter(prefix="/runs")


def _find(request: Request, run_id: str) -> Run:
    run = context_of(request).space.runner.find(run_id)
    if run is None:
        raise NotFound("piece of work under way", run_id)
    return run


@router.get("")
def runs(request: Request) -> Response:
    found = context_of(request).space.runner.runs()
    context = {
        "active": [r for r in found if not r.state.over],
        "ended": [r for r in found if r.state.over],
        "place": "runs",
    }
    return page(request, "yard/runs.html", context | {"refreshes": bool(context["active"])})


@router.get("/{run_id}")
def run(request: Request, run_id: str) -> Response:
    """The card as it stands, for the page that shows it; opened by itself, where the result is seen."""
    found = _find(request, run_id)
    if "hx-request" in request.headers:
        return page(request, "parts/run_answer.html", {"run": found})
    return RedirectResponse(found.work.back, 303)


@router.post("/{run_id}/stop")
def stop(request: Request, run_id: str) -> Response:
    """It ends within a second or so; a page waits for that moment, so that it shows what is."""
    found = _find(request, run_id)
    context_of(request).space.runner.stop(found.id)
    found.wait(1.0)
    return RedirectResponse(found.work.when_stopped, 303)
