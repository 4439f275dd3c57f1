"""More damage than was surveyed, noted while working."""

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.domain.errors import NotFound, Refused
from amber_gable.services.job.view import JobView
from amber_gable.services.today.found_more import company_system, findable, note_found
from amber_gable.web.asking import context_of, signed_by
from amber_gable.web.pages import Fields, job_page, load_job, typed_system
from amber_gable.web.routes.today.sheet import back_to

router = APIRouter(prefix="/jobs/{job_id}/today")


@router.get("/found/{kind}/{id_}")
def more_found(request: Request, job_id: str, kind: str, id_: str) -> Response:
    """The form of what may be found on a part while it is worked on."""
    return _found_page(request, load_job(request, job_id), (kind, id_))


@router.post("/found/{kind}/{id_}")
def note_more_found(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    """More of it than was surveyed; back to Today, which tells what that takes."""
    ctx = signed_by(request, form.get("by", ""))
    try:
        note_found(ctx, job_id, (kind, id_), form, typed_system(request, form))
    except Refused as error:
        return _found_page(request, load_job(request, job_id), (kind, id_), form, error.fields)
    return back_to(job_id, ctx.actor)


def _found_page(
    request: Request,
    view: JobView,
    key: tuple[str, str],
    typed: dict[str, str] | None = None,
    faults: dict[str, str] | None = None,
) -> Response:
    part = view.bundle.property.part(key)
    if part is None:
        raise NotFound(*key)
    context = {
        "part": part,
        "kind": key[0],
        "face": view.bundle.property.face(part.face),
        "findable": findable(part),
        "system": company_system(view.bundle, key),
        "typed": typed or {},
        "faults": faults or {},
        "who": context_of(request).actor,
    }
    return job_page(request, view, "today", context, 422 if faults else 200, "today/found.html")
