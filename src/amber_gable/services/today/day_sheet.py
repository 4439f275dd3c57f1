"""The day sheet: what the crew does that day, until when each coat may be laid, and what it must keep to."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from amber_gable.core.climate.job_climate import part_moisture_limit
from amber_gable.core.specification.safety import Card, day_cards
from amber_gable.core.specification.sequences import PaintingOrder, painting_order
from amber_gable.core.survey.painted import painted_parts
from amber_gable.core.weather.limits import coat_limits
from amber_gable.core.weather.windows import Windows
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.method import Method
from amber_gable.domain.plan import Task
from amber_gable.domain.product import Product
from amber_gable.domain.survey import Item, Zone
from amber_gable.services.job_view import JobView


@dataclass(frozen=True)
class SheetLine:
    """One task of the day as the crew needs it."""

    task: Task
    product: Product | None
    last_stroke: str
    why_link: str
    status: str
    keep_to: str


def painting_orders(view: JobView, tasks: Sequence[Task]) -> Iterator[tuple[Task, PaintingOrder | None]]:
    """The order of its own that each coated thing has: doors, sashes, decks and the like."""
    parts = painted_parts(view.bundle.property, view.bundle.deduction)
    for task in tasks:
        part = parts.get(task.part)
        if part is not None and task.kind.lays_film:
            yield task, painting_order(part, view.bundle.property.items_of(part.face.id))


def cautions(view: JobView, tasks: Sequence[Task], day: date) -> list[Card]:
    """Safety cards of what is done that day, heat and cold included."""
    return day_cards(view.bundle, tasks, *_air_range(view, day))


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


def sheet_line(view: JobView, task: Task) -> SheetLine:
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
    at = {k: v.value for k, v in coat_limits(product, view.bundle.policy, damp, sprays=sprays).items()}
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
