"""Today: the day sheet of the crew, on the phone and on paper; work noted as it is done."""

from dataclasses import replace
from datetime import date
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request
from starlette.responses import Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.findings.meter import MeterUnavailable
from amber_gable.domain.job.site_record import Said
from amber_gable.services.survey.conditions import add_moisture, read_meter
from amber_gable.services.today.doubts import Doubted
from amber_gable.services.today.noting import note_of, note_step, note_tasks
from amber_gable.services.today.places import NOTED, after
from amber_gable.services.today.taking_back import move_touch, take_back
from amber_gable.web.asking import context_of, signed_by
from amber_gable.web.pages import Fields, load_job
from amber_gable.web.routes.today.sheet import MOST_PLACES, Question, Shown, ShownByForm, back_to, sheet_page

router = APIRouter(prefix="/jobs/{job_id}/today")


@router.get("")
def today(
    request: Request,
    job_id: str,
    day: date | None = None,
    card: Annotated[list[str] | None, Query(max_length=MOST_PLACES)] = None,
    row: Annotated[list[str] | None, Query(max_length=MOST_PLACES)] = None,
) -> Response:
    return sheet_page(request, load_job(request, job_id), Shown(day, tuple(card or ()), tuple(row or ())))


async def _named(request: Request) -> list[str]:
    return [t for t in (await request.form()).getlist("task") if isinstance(t, str)]


Tasks = Annotated[list[str], Depends(_named)]
"""The tasks a form names: those of a visit are noted together."""


@router.post("/note")
def note(request: Request, job_id: str, tasks: Tasks, form: Fields, shown: ShownByForm) -> Response:
    """One touch: what is said of the tasks. What was tapped keeps its place."""
    ctx = signed_by(request, form.get("by", ""))
    only = form.get("only", "")
    said = {**form, "said": form.get("said") or Said.DONE.value} if only else form
    try:
        noted = note_tasks(ctx, job_id, tasks, note_of(said, ctx.actor), only)
    except Doubted as error:
        return sheet_page(request, load_job(request, job_id), shown, asking=Question(tasks, dict(said), error))
    except Refused as error:
        return sheet_page(request, load_job(request, job_id), shown, error.fields, 422)
    if form.get("place") == "row":
        shown = replace(shown, rows=tuple(after(shown.rows, tasks, noted)))
    else:
        shown = replace(shown, cards=tuple(after(shown.cards, tasks, noted)))
    return back_to(job_id, ctx.actor, shown)


@router.post("/back")
def back(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """Take a touch back."""
    ctx = context_of(request)
    take_back(ctx, job_id, form.get("touch", ""), ctx.actor)
    return back_to(job_id, ctx.actor, shown)


@router.post("/moved")
def moved(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """What was noted was so at another moment."""
    ctx, touch = context_of(request), form.get("touch", "")
    try:
        new = move_touch(ctx, job_id, touch, form.get("at", ""), ctx.actor)
    except Refused as error:
        return sheet_page(request, load_job(request, job_id), shown, error.fields, 422)
    renamed = {f"{NOTED}{touch}": f"{NOTED}{new}"}
    cards_, rows_ = (tuple(renamed.get(c, c) for c in names) for names in (shown.cards, shown.rows))
    return back_to(job_id, ctx.actor, replace(shown, cards=cards_, rows=rows_))


@router.post("/reading")
def reading(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """A moisture reading of a task's part, typed or taken by the meter, as one stands on the ladder."""
    ctx, spot = context_of(request), form.get("spot", "")
    kind, _, part = form.get("surface", "").partition("/")
    kind, part = form.get("kind", kind), form.get("part", part)
    try:
        if form.get("meter"):
            if read_meter(ctx, job_id, kind, part, spot).wood_pct is None:
                raise Refused({"pct": "the meter told no wood moisture: type what it reads"})
        else:
            add_moisture(ctx, job_id, kind, part, form.get("pct", ""), spot)
    except MeterUnavailable as error:
        return sheet_page(request, load_job(request, job_id), shown, {"pct": f"{error}: type what it reads"}, 422)
    except Refused as error:
        return sheet_page(request, load_job(request, job_id), shown, error.fields, 422)
    return back_to(job_id, "", shown)


@router.post("/test")
def test_answered(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """Whether the test that ends a wait was passed."""
    ctx = signed_by(request, form.get("by", ""))
    try:
        note_step(
            ctx, job_id, form.get("kind", ""), form.get("part", ""), form.get("step", ""), note_of(form, ctx.actor)
        )
    except Refused as error:
        return sheet_page(request, load_job(request, job_id), shown, error.fields, 422)
    return back_to(job_id, ctx.actor, shown)
