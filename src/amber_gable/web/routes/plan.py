"""Plan: the placed tasks on the lanes and in a list with reasons."""

from collections.abc import Iterable
from datetime import date, datetime
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError
from amber_gable.domain.plan import Task
from amber_gable.services.plan.planning import make_plan
from amber_gable.services.weather.judged_faces import judged_faces
from amber_gable.web.drawn_lanes import chart
from amber_gable.web.pages import job_page, load_job, space_of, units_of

router = APIRouter(prefix="/jobs/{job_id}/plan")


def by_day(tasks: Iterable[Task]) -> list[tuple[date, list[Task]]]:
    out: dict[date, list[Task]] = {}
    for t in tasks:
        out.setdefault(t.start.date(), []).append(t)
    return sorted(out.items())


@router.get("")
def plan(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    kept = view.kept
    context: dict[str, Any] = {"kept": kept, "chart": None, "days": by_day(kept.plan.tasks) if kept else []}
    context["product_names"] = {p.code: p.name for p in view.bundle.products}
    if kept is not None:
        context["planned_at"] = datetime.fromtimestamp(kept.planned_at, view.now.tzinfo)
        context["crew_hours"] = sum(t.crew_hours for t in kept.plan.tasks)
    rows = judged_faces(view, view.site) if view.site is not None else []
    if rows:
        context["chart"] = chart(view, units_of(request), [(r.face, r.climate, r.windows) for r in rows], {})
    return job_page(request, view, "plan", context)


@router.post("")
def replan(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    if view.weather.series is None or view.site is None:
        raise InputError("plan", "there is no weather or no zone to plan with", "finish Survey and Weather first")
    if not view.bundle.job.finishes:
        raise InputError("plan", "no zone has a coating system yet", "choose systems in Specification first")
    make_plan(space_of(request), view.bundle, view.weather.series)
    return RedirectResponse(f"/jobs/{job_id}/plan", 303)
