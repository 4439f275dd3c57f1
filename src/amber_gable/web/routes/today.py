"""Today: the day sheet of the crew, on the phone and on paper."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

import numpy as np
from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.core.climate.job_climate import part_moisture_limit
from amber_gable.core.specification.safety import day_cards
from amber_gable.core.specification.sequences import painting_order
from amber_gable.core.survey.painted import painted_parts
from amber_gable.core.weather.limits import coat_limits
from amber_gable.core.weather.windows import Windows
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.plan import Task
from amber_gable.domain.product import Product
from amber_gable.domain.schools import Method
from amber_gable.domain.survey import Item, Zone
from amber_gable.services.job_view import JobView
from amber_gable.web.pages import job_page, load_job
from amber_gable.web.routes.plan import by_day
from amber_gable.web.views.spec_order import ToldOrder, told_order

router = APIRouter(prefix="/jobs/{job_id}/today")


@dataclass(frozen=True)
class SheetLine:
    """One task of the day as the crew needs it."""

    task: Task
    product: Product | None
    last_stroke: str
    why_link: str
    status: str
    keep_to: str


@dataclass(frozen=True)
class SpecialOrder:
    """The painting order of a thing that is coated that day, its steps to tick off; `key` is the task's."""

    key: str
    name: str
    order: ToldOrder


def special_orders(view: JobView, tasks: Sequence[Task]) -> list[SpecialOrder]:
    """Doors, sashes, decks and the like have an order of their own: those of the day's coats."""
    parts = painted_parts(view.bundle.property, view.bundle.job.deduction)
    out = []
    for task in tasks:
        part = parts.get(task.part)
        if part is None or not task.kind.lays_film:
            continue
        order = told_order(painting_order(part, view.bundle.property.items_of(part.face.id)))
        if order is not None:
            out.append(SpecialOrder(task.id, f"{task.face_name}, {task.zone_name}: {task.operation}", order))
    return out


@router.get("")
def today(request: Request, job_id: str, day: date | None = None) -> Response:
    view = load_job(request, job_id)
    shown = day or view.now.date()
    tasks = [t for t in view.kept.plan.tasks if t.start.date() == shown] if view.kept else []
    lines = [_line(view, t) for t in tasks]
    ahead = (line for line in lines if line.task.end > view.now and line.status != "stopped")
    current = next(ahead, None) if shown == view.now.date() else None
    days = [d for d, _ in by_day(view.kept.plan.tasks)] if view.kept else []
    context: dict[str, Any] = {
        "day": shown,
        "is_today": shown == view.now.date(),
        "lines": lines,
        "current": current,
        "cautions": day_cards(view.bundle, tasks, *_air_range(view, shown)),
        "read": {a.card: a.by for a in view.bundle.job.acknowledged},
        "previous": max((d for d in days if d < shown), default=None),
        "following": min((d for d in days if d > shown), default=None),
        "kept": view.kept,
        "orders": special_orders(view, tasks),
        "crew_hours": sum(t.crew_hours for t in tasks),
    }
    return job_page(request, view, "today", context)


def _air_range(view: JobView, day: date) -> tuple[float | None, float | None]:
    """Greatest and least air temperature of that day's working hours, where the weather knows them."""
    if view.site is None:
        return None, None
    slots = view.site.slots
    if day.isoformat() not in slots.dates:
        return None, None
    crew = view.bundle.job.crew
    works = (
        (slots.day == slots.dates.index(day.isoformat())) & (slots.hours >= crew.start_h) & (slots.hours < crew.end_h)
    )
    air = view.site.climate.steps.air[slots.first[works]]
    return (float(air.max()), float(air.min())) if air.size else (None, None)


def _line(view: JobView, task: Task) -> SheetLine:
    product = next((p for p in view.bundle.products if p.code == task.product), None)
    part = view.bundle.property.part(task.part)
    last = ""
    known = part is not None and view.site is not None and view.site.knows(part)
    if known and part is not None and view.site is not None and product is not None and task.method is not None:
        windows = view.site.for_coat(part, product, Method(task.method), task.colour or part.colour_now)
        last = _until(windows, task)
    link = f"/jobs/{view.bundle.job.id}/weather?face={task.face}"
    if product is not None and task.method is not None:
        link += f"&product={product.code}&method={task.method.value}"
    status = "done" if task.end <= view.now else "now" if task.start <= view.now else "later"
    if status != "done" and task.part in {s.part for s in view.stops}:
        status = "stopped"
    return SheetLine(task, product, last, link, status, _keep_to(view, task, product) if product else "")


def _keep_to(view: JobView, task: Task, product: Product) -> str:
    """What limits the coat, as every other stage takes it."""
    part = view.bundle.property.part(task.part)
    damp = part_moisture_limit(view.bundle, part, product) if isinstance(part, Zone | Item) else None
    sprays = task.method is not None and task.method.sprays
    at = {k: v.value for k, v in coat_limits(product, view.bundle.job.policy, damp, sprays=sprays).items()}
    words = (
        f"surface {at['surface_min']:g}–{at['surface_max']:g} °C, air {at['air_min']:g}–{at['air_max']:g} °C, "
        f"{at['dew_margin']:g} K over dew point, RH ≤ {at['humidity']:g} %, wind ≤ {at['wind']:g} m/s"
    )
    return words + (f", wood ≤ {at['moisture']:g} %" if "moisture" in at else "")


def _until(windows: Windows, task: Task) -> str:
    """The end of the window the task lies in: the last minute a stroke may be laid."""
    slots = windows.slots
    at = int((task.end.timestamp() - slots.start) // SLOT_S) - 1
    if not 0 <= at < len(slots):
        return ""
    closed = np.flatnonzero(~windows.ok[0, at:])
    end = at + int(closed[0]) if closed.size else len(slots)
    return f"{slots.time(end):%H:%M}" if end > at else ""
