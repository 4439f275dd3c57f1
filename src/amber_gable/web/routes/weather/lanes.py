"""Weather: face lanes and the why panel, and how sure they are; the forecast asked for anew."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Any
from urllib.parse import parse_qs, urlsplit

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.schools import AskedBy, topics_of
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.face_day import face_days
from amber_gable.services.weather.faces.face_helps import DAYS, face_helps
from amber_gable.services.weather.faces.face_odds import OddsWork, known_odds
from amber_gable.services.weather.faces.judged_faces import JudgedFace, Which, of_step
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.weather.held.far_away import away_words
from amber_gable.services.weather.held.observed import known_loggers, measured
from amber_gable.services.weather.held.versions import believed, version_series
from amber_gable.services.weather.told.crew_notes import crew_notes
from amber_gable.services.weather.told.rain_race import rain_race
from amber_gable.web.asking import context_of
from amber_gable.web.drawn_lanes import chart, lane_link, lanes_of
from amber_gable.web.look import Look, Looked
from amber_gable.web.pages import job_page, load_job, page, units_of
from amber_gable.web.routes.weather.brought import before_typed, typed_context
from amber_gable.web.views.survey.measured import apart_words
from amber_gable.web.views.weather.day_faces import day_faces, lane_sentence
from amber_gable.web.views.weather.lanes import ZOOMS, lane_scale
from amber_gable.web.views.weather.why import why_panel

if TYPE_CHECKING:
    from amber_gable.core.weather.futures.members import Odds

router = APIRouter(prefix="/jobs/{job_id}/weather")


LOOKS = (
    (Which.NEXT, "each face’s next step"),
    (Which.COAT, "each face’s next coat"),
    (Which.LAST, "each face’s last coat"),
)
"""What may be asked about where no product is named."""


@router.get("")
def weather(request: Request, job_id: str, look: Looked) -> Response:
    frame = load_job(request, job_id)
    view = frame if look.then is None else frame.believing(version_series(frame, look.then))
    rows = look.question.rows(view)
    context: dict[str, Any] = {
        "chart": None,
        "product": look.question.sheet(view),
        "which": look.question.which,
        "looks": LOOKS,
        "method": look.question.by,
        "methods": list(Method),
        "topics": topics_of(AskedBy.WEATHER),
        "products": view.bundle.products,
        "look": look,
        "zooms": list(ZOOMS),
    }
    if not rows:
        if view.weather.series is None:
            context |= typed_context(request, view, before_typed(request, view))
        return job_page(request, frame, "weather", context)
    odds = known_odds(view, rows) if look.then is None else None
    if "hx-request" in request.headers:
        shown = _asked(request, view, look, rows, odds)
        return page(request, "parts/weather/why_answer.html", context | shown | {"oob": True})
    context |= _drawn(request, view, look, rows, odds) | {"rain_race": rain_race(view) if look.then is None else None}
    if request.query_params.get("helps"):
        context |= _helped(view, context["row"], rows)
    seen = measured(frame.weather, frame.bundle.property, frame.now)
    context |= {
        "loggers": known_loggers(context_of(request)),
        "measured": seen,
        "apart_words": apart_words(seen, units_of(request)),
        "away": _away(frame),
    }
    told = {"sure_known": odds is not None or look.then is not None, "believed": believed(frame, look.then)}
    return job_page(request, frame, "weather", context | told)


def _away(view: JobView) -> str:
    """How far from the house a file in use was made, where it is of another place."""
    found = view.weather
    return away_words(found.series, view.bundle.property) if found.from_file and found.series is not None else ""


@router.get("/helps")
def help_in_hours(request: Request, job_id: str, look: Looked) -> Response:
    """What would gain hours for the coat that is asked about."""
    view = load_job(request, job_id)
    if look.then is not None:
        view = view.believing(version_series(view, look.then))
    rows = look.question.rows(view)
    context = _asked(request, view, look, rows, None) if rows else {"row": None}
    return page(request, "parts/weather/helps.html", context | _helped(view, context["row"], rows))


def _helped(view: JobView, row: JudgedFace | None, rows: Sequence[JudgedFace]) -> dict[str, Any]:
    return {"helps": [] if row is None else face_helps(view, row, rows), "help_days": DAYS}


@router.get("/sure")
def sure(request: Request, job_id: str, look: Looked) -> Response:
    """How far the reckoning of the futures is, or, when it is done, everything that it says more about."""
    view = load_job(request, job_id)
    rows = look.question.rows(view)
    odds = known_odds(view, rows) if rows else None
    context: dict[str, Any] = {"look": look, "job": view.bundle.job, "run": None}
    if odds is None and rows:
        runner = view.ctx.space.runner
        run = runner.submit(view.ctx, OddsWork(job_id, look.question))
        run.wait(runner.patience)
        if not run.state.over or run.untold:
            return page(request, "parts/weather/sureness.html", context | {"run": run})
        odds = known_odds(view, rows)
    if odds is None:
        return page(request, "parts/weather/sureness.html", context)
    here = parse_qs(urlsplit(request.headers.get("hx-current-url", "")).query)
    now = replace(look, at=Look.of({k: v[0] for k, v in here.items()}).at)
    context |= _drawn(request, view, now, rows, odds) | {"oob": True}
    return page(request, "parts/weather/sure_answer.html", context)


def _asked(
    request: Request, view: JobView, look: Look, rows: Sequence[JudgedFace], odds: Sequence[Odds] | None
) -> dict[str, Any]:
    """The face and the moment that are asked about, and the whole day of all faces."""
    by_id = {row.face.id: row for row in rows}
    known = {} if odds is None else {row.face.id: o for row, o in zip(rows, odds, strict=True)}
    face = look.face
    asked = view.asked_task(look.task, face) if not look.product else None
    own = frozenset(key for r in rows for key in r.lane.keys)
    asked_in = None if asked is None else next((r.lane for r in rows if r.lane.takes(asked.task, own)), None)
    if asked is not None and asked.judged is not None and asked_in is not None and view.site is not None:
        face = asked_in.face.id
        of_task = of_step(view.site, asked_in, asked.judged)
        if of_task.step != by_id[face].step:
            known.pop(face, None)
        by_id[face] = of_task
    row = by_id.get(face, rows[0])
    at = (look.at or view.now).astimezone(view.now.tzinfo)
    link = lane_link(view.bundle.job.id, look.query | ({"task": look.task} if look.task else {}))
    slot = row.slot_of(at)
    slots = row.windows.slots
    shown = [by_id[r.face.id] for r in rows]
    why = why_panel(row, at, units_of(request), known.get(row.face.id))
    every = [known.get(r.face.id) for r in shown]
    days = face_days(shown, every, at, view.bundle.job.crew)
    moment = max(at, slots.time(slot))
    plain = lane_link(view.bundle.job.id, look.query)
    return {
        "why": why,
        "row": row,
        "shown": shown,
        "known": every,
        "why_links": {
            "previous": link(row.face.id, why.previous) if why.previous else None,
            "following": link(row.face.id, why.following) if why.following else None,
        },
        "day_faces": day_faces(days, at, [plain(r.face.id, moment) for r in shown], row.face.id),
        "asked_at": moment,
        "crew_notes": crew_notes(view, moment.date()),
        "help_at": link(row.face.id, moment).partition("?")[2],
        "job": view.bundle.job,
        "now": view.now,
    }


def _drawn(
    request: Request, view: JobView, look: Look, rows: Sequence[JudgedFace], odds: Sequence[Odds] | None
) -> dict[str, Any]:
    """The lanes with what is asked about."""
    context = _asked(request, view, look, rows, odds)
    shown, slots = lanes_of(context["shown"], context["known"]), rows[0].windows.slots
    at: datetime = context["asked_at"]
    last = len(slots.dates) - 1
    first = min((at.date() - slots.time(0).date()).days // look.days * look.days, last)
    scale = lane_scale(slots, look.days, ZOOMS[look.days], first)
    link = lane_link(view.bundle.job.id, look.query)
    face = context["row"].face.id
    step = timedelta(days=look.days)

    def zoomed(days: int) -> Callable[[str, datetime], str]:
        return lane_link(view.bundle.job.id, look.asked | {"days": str(days)})

    context |= {
        "chart": chart(view, units_of(request), shown, look.query, scale, (face, at)),
        "query": look.address,
        "sentences": [(r.face.name, lane_sentence(r, first, scale.days)) for r in shown],
        "pages": {
            "earlier": link(face, at - step) if first else None,
            "later": link(face, at + step) if first + scale.days <= last else None,
        },
        "zoom_links": [(days, zoomed(days)(face, at)) for days in ZOOMS],
    }
    return context


@router.post("/refresh")
def refresh(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    job_weather(context_of(request), view.bundle.property, insist=True)
    return RedirectResponse(f"/jobs/{job_id}/weather", 303)
