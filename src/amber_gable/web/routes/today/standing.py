"""Where a part stands: a panel of its page, and work noted on it, planned or not."""

from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import NotFound, Refused
from amber_gable.services.job.view import JobView
from amber_gable.services.today.noting import note_of, note_step
from amber_gable.services.today.standing import judged_stretches, part_cells
from amber_gable.web.asking import context_of, signed_by
from amber_gable.web.pages import Fields, job_page, load_job, page, units_of
from amber_gable.web.views.standing import steps, stretches

router = APIRouter(prefix="/jobs/{job_id}/standing/{kind}/{id_}")


@router.get("")
def standing(request: Request, job_id: str, kind: str, id_: str) -> Response:
    """The panel; its page fetches it, for it may take the climate."""
    view = load_job(request, job_id)
    context = standing_context(request, view, (kind, id_))
    if "hx-request" in request.headers:
        return page(request, "parts/today/standing.html", context)
    return job_page(request, view, "specification", context, template="specification/standing.html")


def standing_context(request: Request, view: JobView, key: tuple[str, str]) -> dict[str, Any]:
    """What the panel shows. Raises NotFound for a part that is not there."""
    if view.bundle.property.part(key) is None:
        raise NotFound(*key)
    state = view.state
    part = state.parts.get(key) if state is not None else None
    operations, cells = part_cells(view.bundle, key)
    return {
        "stretches": stretches(judged_stretches(state, part), part.part, view.bundle.property.tz, units_of(request))
        if state is not None and part is not None
        else [],
        "steps": steps(operations, cells, view.bundle.property.tz),
        "job": view.bundle.job,
        "kind": key[0],
        "id": key[1],
        "who": context_of(request).actor,
        "trouble": view.trouble,
        "faults": {},
    }


@router.post("")
def note(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    """What is said of one step of the part."""
    ctx = signed_by(request, form.get("by", ""))
    try:
        note_step(ctx, job_id, kind, id_, form.get("step", ""), note_of(form, ctx.actor))
    except Refused as error:
        context = standing_context(request, load_job(request, job_id), (kind, id_)) | {"faults": error.fields}
        return page(request, "parts/today/standing.html", context, 422)
    if "hx-request" in request.headers:
        return standing(request, job_id, kind, id_)
    return RedirectResponse(f"/jobs/{job_id}/specification/{kind}/{id_}", 303)
