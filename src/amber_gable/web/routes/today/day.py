"""Today: the day sheet of the crew, on the phone and on paper; work noted as it is done."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Annotated, Any
from urllib.parse import urlencode

from fastapi import APIRouter, Depends, Query, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.findings.meter import MeterUnavailable
from amber_gable.domain.job.plan import Task
from amber_gable.domain.job.site_record import Said
from amber_gable.domain.work.mending import MISHAPS
from amber_gable.services.job.jobs import other_jobs
from amber_gable.services.job.view import JobView, job_view
from amber_gable.services.specification.others import others_on
from amber_gable.services.survey.conditions import add_moisture, read_meter
from amber_gable.services.today.can_noting import note_can
from amber_gable.services.today.day_sheet import DaySheet, cautions, painting_orders
from amber_gable.services.today.doubts import Doubted
from amber_gable.services.today.found_more import company_system, findable, finds, note_found
from amber_gable.services.today.names import known_names
from amber_gable.services.today.noting import move_touch, note_of, note_step, note_tasks, take_back
from amber_gable.services.today.places import NOTED, after, cards
from amber_gable.services.today.places import rows as place_rows
from amber_gable.services.today.spoiling import fresh_films, happened, note_rain, note_spoiled
from amber_gable.services.today.standing import standings
from amber_gable.services.today.sureness import sureness
from amber_gable.services.weather.told.can_care import can_care
from amber_gable.services.weather.told.crew_notes import crew_notes
from amber_gable.services.weather.told.rain_race import rain_race
from amber_gable.services.weather.told.wiped_first import wiped_first
from amber_gable.web.asking import context_of, remember_who, signed_by
from amber_gable.web.pages import Fields, job_page, load_job, page, typed_system, units_of
from amber_gable.web.routes.plan import by_day
from amber_gable.web.views.specification.spec_order import ToldOrder, told_order
from amber_gable.web.views.survey.elevation import Drawing, draw, drawing_scale
from amber_gable.web.views.units import Units

router = APIRouter(prefix="/jobs/{job_id}/today")


@dataclass(frozen=True)
class SpecialOrder:
    """The painting order of a thing that is coated that day, its steps to tick off; `key` is the task's."""

    key: str
    name: str
    order: ToldOrder


def special_orders(view: JobView, tasks: Sequence[Task]) -> list[SpecialOrder]:
    """Doors, sashes, decks and the like have an order of their own: those of the day's coats."""
    out = []
    for task, found in painting_orders(view, tasks):
        order = told_order(found)
        if order is not None:
            out.append(SpecialOrder(task.id, f"{task.face_name}, {task.zone_name}: {task.operation}", order))
    return out


def _house_so_far(view: JobView, units: Units) -> list[Drawing]:
    """The faces on which a film stands, coat by coat."""
    laid = {key: s.laid for key, s in standings(view.bundle).items() if s.laid}
    place = view.bundle.property
    faces = [f for f in place.faces if any((p := place.part(k)) is not None and p.face == f.id for k in laid)]
    scale = drawing_scale(place.faces, 300.0, height=240.0)
    return [draw(place, f, scale, units=units, laid=laid) for f in faces]


@dataclass(frozen=True)
class Shown:
    """What a page of Today shows, as its forms send it along: its day (today's where None), and the places of its cards
    and of the rows that something was noted in (services/today/places.py)."""

    day: date | None = None
    cards: tuple[str, ...] = ()
    rows: tuple[str, ...] = ()

    @property
    def query(self) -> str:
        named = [("day", self.day.isoformat())] if self.day is not None else []
        named += [("card", c) for c in self.cards] + [("row", r) for r in self.rows]
        return f"?{urlencode(named)}" if named else ""


async def _shown(request: Request) -> Shown:
    sent = await request.form()

    def all_of(name: str) -> tuple[str, ...]:
        return tuple(v for v in sent.getlist(name) if isinstance(v, str))[:MOST_PLACES]

    try:
        day = date.fromisoformat(next(iter(all_of("day")), ""))
    except ValueError:
        day = None
    return Shown(day, all_of("card"), all_of("row"))


MOST_PLACES = 60
ShownByForm = Annotated[Shown, Depends(_shown)]


@router.get("")
def today(
    request: Request,
    job_id: str,
    day: date | None = None,
    card: Annotated[list[str] | None, Query(max_length=MOST_PLACES)] = None,
    row: Annotated[list[str] | None, Query(max_length=MOST_PLACES)] = None,
) -> Response:
    return _sheet(request, load_job(request, job_id), Shown(day, tuple(card or ()), tuple(row or ())))


@dataclass(frozen=True)
class Question:
    """What is asked before work is entered: of which tasks, what was sent, and what stands against it."""

    tasks: list[str]
    sent: dict[str, str]
    doubted: Doubted

    @property
    def tried(self) -> bool:
        """Whether it was answered already, and the answer changed nothing."""
        return "answer" in self.sent


def _sheet(
    request: Request,
    view: JobView,
    asked: Shown,
    faults: dict[str, str] | None = None,
    status: int = 200,
    asking: Question | None = None,
) -> Response:
    shown = asked.day or view.now.date()
    sheet = DaySheet(view, shown)
    tasks, rows = sheet.tasks, sheet.rows
    current, following = (sheet.now, sheet.next) if sheet.is_today else (None, None)
    places = cards(sheet, asked.cards) if sheet.is_today else []
    on_cards = {id_ for place in places for id_ in place.visit.ids}
    rest = [v for v in sheet.visits if v.first.task.id not in on_cards]
    days = [d for d, _ in by_day(view.kept.plan.tasks)] if view.kept else []
    context: dict[str, Any] = {
        "day": shown,
        "is_today": sheet.is_today,
        "sheet_of_day": sheet,
        "current": current,
        "following_visit": following,
        "places": places,
        "rest": (rest_rows := place_rows(sheet, rest, asked.rows, late=False)),
        "late": (late_rows := place_rows(sheet, sheet.late, asked.rows, late=True)),
        "asked_elsewhere": asking is not None
        and all(asking.tasks != p.visit.ids for p in (*places, *rest_rows, *late_rows)),
        "asked": asked,
        "asking": asking,
        "rows": rows,
        "long": sum(len(v.lines) for v in rows) > 10,
        "touches": sheet.touches,
        "cautions": cautions(view, tasks, shown),
        "read": {a.card: a.by for a in view.bundle.job.acknowledged},
        "previous": max((d for d in days if d < shown), default=None),
        "following": min((d for d in days if d > shown), default=None),
        "kept": view.kept,
        "threats": view.threats,
        "rain_race": rain_race(view) if sheet.is_today else None,
        "crew_notes": crew_notes(view, shown),
        "can_care": can_care(view, shown),
        "wiped_first": wiped_first(view, shown),
        "orders": special_orders(view, tasks),
        "crew_hours": sum(t.crew_hours for t in tasks),
        "who": context_of(request).actor,
        "has_meter": context_of(request).space.meter is not None,
        "names": known_names(context_of(request), view.bundle),
        "other_jobs": other_jobs(context_of(request), view.bundle.job.id),
        "faults": faults or {},
        "changes": view.recent_changes,
        "others": others_on(view, shown),
        "finds": finds(view.bundle)[:5],
        "fresh_films": fresh_films(view) if sheet.is_today else [],
        "mishaps": [(m.value, words) for m, words in MISHAPS.items()],
        "happened": happened(view, shown),
        "drawings": _house_so_far(view, units_of(request)),
    }
    return job_page(request, view, "today", context, 422 if asking is not None else status)


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
        return _sheet(request, load_job(request, job_id), shown, asking=Question(tasks, dict(said), error))
    except Refused as error:
        return _sheet(request, load_job(request, job_id), shown, error.fields, 422)
    if form.get("place") == "row":
        shown = replace(shown, rows=tuple(after(shown.rows, tasks, noted)))
    else:
        shown = replace(shown, cards=tuple(after(shown.cards, tasks, noted)))
    return _back(job_id, ctx.actor, shown)


@router.post("/back")
def back(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """Take a touch back."""
    ctx = context_of(request)
    take_back(ctx, job_id, form.get("touch", ""), ctx.actor)
    return _back(job_id, ctx.actor, shown)


@router.post("/can")
def can(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """What is left in the can that a coat takes its paint from."""
    ctx = signed_by(request, form.get("by", ""))
    view = load_job(request, job_id)
    try:
        note_can(ctx, view, form, ctx.actor, typed_system(request, form))
    except Refused as error:
        return _sheet(request, view, shown, error.fields, 422)
    return _back(job_id, ctx.actor, shown)


@router.post("/moved")
def moved(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """What was noted was so at another moment."""
    ctx, touch = context_of(request), form.get("touch", "")
    try:
        at = datetime.fromisoformat(form.get("at", ""))
        new = move_touch(ctx, job_id, touch, at if at.tzinfo else at.astimezone(), ctx.actor)
    except (Refused, ValueError) as error:
        faults = error.fields if isinstance(error, Refused) else {"at": "that is not a time"}
        return _sheet(request, load_job(request, job_id), shown, faults, 422)
    renamed = {f"{NOTED}{touch}": f"{NOTED}{new}"}
    cards_, rows_ = (tuple(renamed.get(c, c) for c in names) for names in (shown.cards, shown.rows))
    return _back(job_id, ctx.actor, replace(shown, cards=cards_, rows=rows_))


@router.get("/sure")
def sure(request: Request, job_id: str, task: str = "") -> Response:
    """How sure the Yes of a task is; its card fetches it, for it may take a moment."""
    found = sureness(job_view(context_of(request), job_id, waits=True), task)
    return page(request, "parts/today/sure.html", {"sure": found})


@router.post("/rain")
def rain(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """It rains now: each fresh film is asked about."""
    ctx = signed_by(request, form.get("by", ""))
    note_rain(ctx, job_id, ctx.actor)
    return _back(job_id, ctx.actor, shown)


@router.post("/spoiled")
def spoiled(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """What became of a fresh film."""
    ctx = signed_by(request, form.get("by", ""))
    view = load_job(request, job_id)
    try:
        note_spoiled(ctx, view, form, ctx.actor)
    except Refused as error:
        return _sheet(request, view, shown, error.fields, 422)
    return _back(job_id, ctx.actor, shown)


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
        return _sheet(request, load_job(request, job_id), shown, {"pct": f"{error}: type what it reads"}, 422)
    except Refused as error:
        return _sheet(request, load_job(request, job_id), shown, error.fields, 422)
    return _back(job_id, "", shown)


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
    return _back(job_id, ctx.actor)


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


@router.post("/test")
def test_answered(request: Request, job_id: str, form: Fields, shown: ShownByForm) -> Response:
    """Whether the test that ends a wait was passed."""
    ctx = signed_by(request, form.get("by", ""))
    try:
        note_step(
            ctx, job_id, form.get("kind", ""), form.get("part", ""), form.get("step", ""), note_of(form, ctx.actor)
        )
    except Refused as error:
        return _sheet(request, load_job(request, job_id), shown, error.fields, 422)
    return _back(job_id, ctx.actor, shown)


def _back(job_id: str, who: str, shown: Shown | None = None) -> Response:
    answer = RedirectResponse(f"/jobs/{job_id}/today{(shown or Shown()).query}", 303)
    if who:
        remember_who(answer, who)
    return answer
