"""Today: the day sheet of the crew, on the phone and on paper."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.domain.plan import Task
from amber_gable.services.job_view import JobView
from amber_gable.services.today.day_sheet import cautions, painting_orders, sheet_line
from amber_gable.web.pages import job_page, load_job
from amber_gable.web.routes.plan import by_day
from amber_gable.web.views.spec_order import ToldOrder, told_order

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


@router.get("")
def today(request: Request, job_id: str, day: date | None = None) -> Response:
    view = load_job(request, job_id)
    shown = day or view.now.date()
    tasks = [t for t in view.kept.plan.tasks if t.start.date() == shown] if view.kept else []
    lines = [sheet_line(view, t) for t in tasks]
    ahead = (line for line in lines if line.task.end > view.now and line.status != "stopped")
    current = next(ahead, None) if shown == view.now.date() else None
    days = [d for d, _ in by_day(view.kept.plan.tasks)] if view.kept else []
    context: dict[str, Any] = {
        "day": shown,
        "is_today": shown == view.now.date(),
        "lines": lines,
        "current": current,
        "cautions": cautions(view, tasks, shown),
        "read": {a.card: a.by for a in view.bundle.job.acknowledged},
        "previous": max((d for d in days if d < shown), default=None),
        "following": min((d for d in days if d > shown), default=None),
        "kept": view.kept,
        "orders": special_orders(view, tasks),
        "crew_hours": sum(t.crew_hours for t in tasks),
    }
    return job_page(request, view, "today", context)
