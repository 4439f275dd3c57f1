"""What a page of Today shows: the day's sheet with the places of its work, and what is asked before something is
entered."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Any
from urllib.parse import urlencode

from fastapi import Depends, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.job.plan import Task
from amber_gable.domain.work.mending import MISHAPS
from amber_gable.services.job.jobs import other_jobs
from amber_gable.services.job.view import JobView
from amber_gable.services.specification.others import others_on
from amber_gable.services.today.day_orders import cautions, painting_orders
from amber_gable.services.today.day_sheet import DaySheet
from amber_gable.services.today.doubts import Doubted
from amber_gable.services.today.found_more import finds
from amber_gable.services.today.names import known_names
from amber_gable.services.today.places import cards
from amber_gable.services.today.places import rows as place_rows
from amber_gable.services.today.spoiling import fresh_films, happened
from amber_gable.services.today.standing import standings
from amber_gable.services.weather.told.can_care import can_care
from amber_gable.services.weather.told.crew_notes import crew_notes
from amber_gable.services.weather.told.rain_race import rain_race
from amber_gable.services.weather.told.wiped_first import wiped_first
from amber_gable.web.asking import context_of, remember_who
from amber_gable.web.pages import job_page, units_of
from amber_gable.web.routes.plan import by_day
from amber_gable.web.views.specification.spec_order import ToldOrder, told_order
from amber_gable.web.views.survey.elevation import Drawing, draw, drawing_scale
from amber_gable.web.views.units import Units


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


def sheet_page(
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
        "missing": view.bundle.missing_on.get(sheet.day, 0),
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


def back_to(job_id: str, who: str, shown: Shown | None = None) -> Response:
    answer = RedirectResponse(f"/jobs/{job_id}/today{(shown or Shown()).query}", 303)
    if who:
        remember_who(answer, who)
    return answer
