"""Plan: the placed tasks on the lanes and in a list with reasons."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import TYPE_CHECKING, Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError, NoClimate, Refused
from amber_gable.domain.job.plan import Task, Unplaced
from amber_gable.services.company.crew_typed import crew_form
from amber_gable.services.job.view import JobView
from amber_gable.services.plan.long_runs import FewerDays, PlanWork
from amber_gable.services.plan.plan_page import planned_visits, set_crew, unsettled_tasks
from amber_gable.services.specification.others import told_others
from amber_gable.services.weather.faces.judged_faces import Which, judged_faces
from amber_gable.services.weather.held.versions import since_planned
from amber_gable.web.asking import context_of
from amber_gable.web.drawn_lanes import chart, lanes_of
from amber_gable.web.pages import Fields, job_page, load_job, units_of
from amber_gable.web.views.weather.lanes import lane_scale
from amber_gable.web.views.weather.timescale import HOUR_W

if TYPE_CHECKING:
    from amber_gable.core.plan.visits import Visit

router = APIRouter(prefix="/jobs/{job_id}/plan")
PLAN_DAYS = 10


def by_day(tasks: Iterable[Task]) -> list[tuple[date, list[Task]]]:
    out: dict[date, list[Task]] = {}
    for t in tasks:
        out.setdefault(t.start.date(), []).append(t)
    return sorted(out.items())


@dataclass(frozen=True)
class Cause:
    """Why tasks found no place: those it holds itself, and how many wait behind them."""

    why: str
    heads: list[Unplaced]
    behind: int


def by_cause(unplaced: Sequence[Unplaced]) -> list[Cause]:
    """What is not placed, by its root: a list of reasons instead of a list of steps."""
    heads: dict[str, list[Unplaced]] = {}
    for u in unplaced:
        if not u.behind:
            heads.setdefault(u.why, []).append(u)
    behind = Counter(u.cause for u in unplaced if u.behind)
    found = [Cause(why, us, sum(behind.pop(f"behind {u.id}", 0) for u in us)) for why, us in heads.items()]
    return sorted(found, key=lambda c: -len(c.heads) - c.behind)


STATUS_WORDS = {"done": "done", "running": "under way", "late": "late", "gone": "no longer in the job"}


@router.get("")
def plan(request: Request, job_id: str) -> Response:
    return _plan(request, load_job(request, job_id), {})


def _plan(request: Request, view: JobView, faults: dict[str, str], status: int = 200) -> Response:
    kept, zone = view.kept, view.now.tzinfo
    board = view.board
    days: dict[date, list[Visit]] = {}
    for visit in planned_visits(view):
        days.setdefault(visit.start.astimezone(zone).date(), []).append(visit)
    context: dict[str, Any] = {
        "kept": kept,
        "chart": None,
        "days": sorted(days.items()),
        "threats": view.threats,
        "unsettled": unsettled_tasks(view),
        "since_planned": since_planned(view) if view.site is not None else None,
        "late": len(board.late) if board is not None else 0,
        "unplaced": by_cause(kept.plan.unplaced) if kept else [],
        "status_words": STATUS_WORDS,
        "faults": faults,
        "others": told_others(view),
        "crew_typed": crew_form(view.bundle.job.crew),
        "begins": datetime.fromtimestamp(kept.begins_at, zone).date() if kept and kept.begins_at else None,
        "product_names": {p.code: p.name for p in view.bundle.products},
    }
    runner, id_ = context_of(request).space.runner, view.bundle.job.id
    run, search = runner.latest(f"plan/{id_}"), runner.latest(f"fewer-days/{id_}")
    planning, searching = (r is not None and not r.state.over for r in (run, search))
    context |= {"run": run, "search": search, "planning": planning, "refreshes": planning or searching}
    if kept is not None:
        context["planned_at"] = datetime.fromtimestamp(kept.planned_at, zone)
    rows = judged_faces(view, view.site, which=Which.COAT) if view.site is not None else []
    if rows:
        scale = lane_scale(rows[0].windows.slots, PLAN_DAYS, HOUR_W)
        context["chart"] = chart(view, units_of(request), lanes_of(rows), {}, scale)
    return job_page(request, view, "plan", context, status)


@router.post("/fewer-days")
def fewer_days(request: Request, job_id: str) -> Response:
    """Look for a plan with fewer days; the page tells how far that is."""
    ctx = context_of(request)
    ctx.space.runner.submit(ctx, FewerDays(job_id)).wait(ctx.space.runner.patience)
    return RedirectResponse(f"/jobs/{job_id}/plan", 303)


@router.post("")
def replan(request: Request, job_id: str, form: Fields) -> Response:
    """Plan what is left; with the crew and the first day that the form names."""
    ctx = context_of(request)
    try:
        begins = set_crew(ctx, job_id, form) if form.get("crew") else None
    except Refused as error:
        return _plan(request, load_job(request, job_id), error.fields, 422)
    view = load_job(request, job_id)
    if not form.get("crew") and view.kept is not None and view.kept.begins_at is not None:
        begins = datetime.fromtimestamp(view.kept.begins_at, view.now.tzinfo).date()
    if view.weather.series is None or view.site is None:
        raise InputError("plan", "there is no weather or no zone to plan with", "finish Survey and Weather first")
    if not view.bundle.job.finishes:
        raise InputError("plan", "no zone has a coating system yet", "choose systems in Specification first")
    run = ctx.space.runner.submit(ctx, PlanWork.asked(view.bundle, begins))
    run.wait(ctx.space.runner.patience)
    if isinstance(run.error, NoClimate):
        return _plan(request, view, {"begins": run.trouble}, 422)
    return RedirectResponse(f"/jobs/{job_id}/plan", 303)
