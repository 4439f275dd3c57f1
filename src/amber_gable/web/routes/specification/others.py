"""Other people's work: agreed on the specification, noted as done there and on Today."""

from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.services.job.view import JobView
from amber_gable.services.specification.others import (
    TURNS,
    drop_task,
    keep_task,
    note_task,
    others_form,
    places,
    told_others,
)
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job

router = APIRouter(prefix="/jobs/{job_id}/specification")


@router.get("/others")
def others(request: Request, job_id: str, where: str = "") -> Response:
    """The tasks of others, and a form for one more, at the place that the address names."""
    return _page(request, load_job(request, job_id), {"where": where})


def _page(
    request: Request, view: JobView, typed: dict[str, str], faults: dict[str, str] | None = None, id_: str = ""
) -> Response:
    tasks = told_others(view)
    context: dict[str, Any] = {
        "tasks": [(t, typed if faults and t.task.id == id_ else others_form(t.task)) for t in tasks],
        "cost": sum(t.task.cost or 0.0 for t in tasks),
        "places": places(view.bundle),
        "turns": TURNS,
        "new": {} if id_ else typed,
        "changing": id_ if faults else "",
        "faults": faults or {},
        "currency": view.bundle.company.currency,
    }
    return job_page(request, view, "specification", context, 422 if faults else 200, "specification/others.html")


@router.post("/others")
def keep(request: Request, job_id: str, form: Fields) -> Response:
    """A new task, or the one that the form names changed."""
    id_ = form.get("task", "")
    try:
        keep_task(context_of(request), job_id, form, id_)
    except Refused as error:
        return _page(request, load_job(request, job_id), form, error.fields, id_)
    return RedirectResponse(f"/jobs/{job_id}/specification/others?said=saved", 303)


@router.post("/others/{id_}/drop")
def drop(request: Request, job_id: str, id_: str) -> Response:
    drop_task(context_of(request), job_id, id_)
    return RedirectResponse(f"/jobs/{job_id}/specification/others?said=deleted", 303)


@router.post("/others/{id_}/note")
def note(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """Done, or not done after all; back to where it was tapped."""
    note_task(context_of(request), job_id, id_, done=form.get("done") == "yes")
    back = "today" if form.get("from") == "today" else "specification/others"
    return RedirectResponse(f"/jobs/{job_id}/{back}", 303)
