"""Changes to a survey: saved, placed, copied, mirrored, deleted, taken back."""

from collections.abc import Callable

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError, Refused, StaleEdit
from amber_gable.services.survey import face_copies, surveying
from amber_gable.services.survey.filling import fill_wall
from amber_gable.services.survey.sheet import face_under
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, typed_system
from amber_gable.web.routes.survey.sheet import is_fragment, known, read_face
from amber_gable.web.routes.survey.table import table_page

router = APIRouter(prefix="/jobs/{job_id}/survey")


@router.post("/{kind}/save")
def save(request: Request, job_id: str, kind: str, form: Fields) -> Response:
    known(kind)
    id_ = form.get("id") or None
    try:
        saved = surveying.save_part(context_of(request), job_id, kind, form, id_, typed_system(request, form))
    except (Refused, StaleEdit) as error:
        faults = error.fields if isinstance(error, Refused) else None
        stale = error if isinstance(error, StaleEdit) else None
        sheet = read_face(request, job_id, kind, id_, form.get("face", ""))
        return table_page(
            request, job_id, sheet, kind, id_, form.get("face", ""), typed=form, faults=faults, stale=stale
        )
    return _after(request, job_id, kind, saved, "saved")


@router.post("/{kind}/{id_}/place")
def place(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    known(kind)
    return _edited(
        request, job_id, kind, id_, lambda: surveying.place_part(context_of(request), job_id, kind, id_, form)
    )


@router.post("/zone/{id_}/corner")
def corner(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    return _edited(request, job_id, "zone", id_, lambda: surveying.move_corner(context_of(request), job_id, id_, form))


@router.post("/{kind}/{id_}/delete")
def delete(request: Request, job_id: str, kind: str, id_: str) -> Response:
    known(kind)
    face = face_under(context_of(request), job_id, kind, id_)
    surveying.remove_part(context_of(request), job_id, kind, id_)
    if kind == "face":
        return RedirectResponse(f"/jobs/{job_id}/survey?said=deleted", 303)
    return _after(request, job_id, "face", face, "deleted")


@router.post("/{kind}/{id_}/duplicate")
def duplicate(request: Request, job_id: str, kind: str, id_: str) -> Response:
    known(kind)
    return _edited(
        request, job_id, kind, id_, lambda: face_copies.duplicate_part(context_of(request), job_id, kind, id_)
    )


@router.post("/opening/{id_}/fill")
def fill(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """Count what fills an opening as an item to paint."""
    ctx = context_of(request)
    kind = form.get("kind", "")
    try:
        made = face_copies.fill_opening(ctx, job_id, id_, kind)
    except Refused as error:
        sheet = read_face(request, job_id, "opening", id_)
        return table_page(request, job_id, sheet, "opening", id_, faults=error.fields)
    return _after(request, job_id, "item", made, "saved")


@router.post("/face/{id_}/line")
def fill_from_a_line(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """A wall's openings told in one line; from the list of faces it leads back there."""
    line = form.get("line", "")
    try:
        fill_wall(context_of(request), job_id, id_, line, typed_system(request, form))
    except Refused as error:
        sheet = read_face(request, job_id, "face", id_)
        return table_page(request, job_id, sheet, "face", id_, faults=error.fields, line=line)
    if form.get("from") == "list":
        return RedirectResponse(f"/jobs/{job_id}/survey?said=filled#face-{id_}", 303)
    return _after(request, job_id, "face", id_, "saved")


@router.post("/face/{id_}/mirror")
def mirror(request: Request, job_id: str, id_: str) -> Response:
    return _edited(request, job_id, "face", id_, lambda: face_copies.mirror_face(context_of(request), job_id, id_))


@router.post("/face/{id_}/copy")
def copy(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    opposite = form.get("to") == "opposite"
    made = face_copies.copy_face(context_of(request), job_id, id_, opposite=opposite)
    return RedirectResponse(f"/jobs/{job_id}/survey/face/{made}?said=saved", 303)


def _edited(request: Request, job_id: str, kind: str, id_: str, change: Callable[[], str | None]) -> Response:
    """Do it and show the part it made, or the one it changed; or say on the table why it cannot be."""
    try:
        made = change()
    except Refused as error:
        return table_page(request, job_id, read_face(request, job_id, kind, id_), kind, id_, faults=error.fields)
    except InputError as error:
        return table_page(request, job_id, read_face(request, job_id, kind, id_), kind, id_, faults={"": f"{error}"})
    except StaleEdit as error:
        return table_page(request, job_id, read_face(request, job_id, kind, id_), kind, id_, stale=error)
    return _after(request, job_id, kind, made or id_, "saved")


def _after(request: Request, job_id: str, kind: str, id_: str, said: str) -> Response:
    if is_fragment(request):
        return table_page(request, job_id, read_face(request, job_id, kind, id_), kind, id_)
    return RedirectResponse(f"/jobs/{job_id}/survey/{kind}/{id_}?said={said}", 303)
