"""Estimate: where the hours are, how sure they are, and the way up."""

from collections.abc import Mapping
from typing import Any

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.work.extras import EXTRAS
from amber_gable.services.estimate.estimating import (
    choose_ways,
    compared_ways,
    keep_extras,
    keep_pace,
    pace_form,
    trim_assumptions,
)
from amber_gable.services.estimate.report import TABLES, estimate_csv, estimate_workbook, paint_cost
from amber_gable.services.job.view import JobView
from amber_gable.services.quantities.quantities import kept_quantities
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job
from amber_gable.web.views.estimate.ledger import bars, hour_range, kind_sums
from amber_gable.web.views.estimate.ways import SKILLS, told_days, told_ways

router = APIRouter(prefix="/jobs/{job_id}/estimate")


MOST_LINES = 500
"""Of a house with more, a face's lines are fetched when it is opened."""


@router.get("")
def estimate(request: Request, job_id: str, face: str = "") -> Response:
    """`face`: open, its lines with it ("the-job" for what belongs to no part)."""
    return _page(request, load_job(request, job_id), face=face)


def _page(
    request: Request,
    view: JobView,
    typed: dict[str, str] | None = None,
    faults: dict[str, str] | None = None,
    face: str = "",
    extras: Mapping[str, str] | None = None,
) -> Response:
    found = kept_quantities(view).estimate
    context: dict[str, Any] = {
        "estimate": found,
        "typed": typed or pace_form(view.bundle),
        "faults": faults or {},
        "skills": SKILLS,
        "extras": EXTRAS,
        "extras_typed": extras or {k: f"{v:g}" for k, v in view.bundle.job.estimating.extras.items()},
    }
    if found.hours.lines:
        context |= {
            "bars": bars(found),
            "whole": len(found.hours.lines) <= MOST_LINES,
            "opened": face,
            "kinds": kind_sums(found),
            "range": hour_range(found),
            "days": told_days(found.hours, view.bundle.job.crew),
            "ways": told_ways(compared_ways(view), view.bundle),
            "assumed": trim_assumptions(view.bundle),
            "possible": [(found.hours.parts[line.part], line, paint_cost(line)) for line in found.possible],
            "currency": view.bundle.company.currency,
        }
    return job_page(request, view, "estimate", context, 422 if faults else 200)


@router.get("/{table}.{kind}")
def table(request: Request, job_id: str, table: str, kind: str) -> Response:
    if table not in TABLES or kind not in ("csv", "xlsx"):
        raise HTTPException(404, "There are work and purchase, each as csv and xlsx.")
    view = load_job(request, job_id)
    content, media = (
        (estimate_csv(view, table), "text/csv; charset=utf-8")
        if kind == "csv"
        else (estimate_workbook(view, table), "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")
    )
    name = f"{job_id}-{table}.{kind}"
    return Response(content, media_type=media, headers={"content-disposition": f'attachment; filename="{name}"'})


@router.post("/pace")
def pace(request: Request, job_id: str, form: Fields) -> Response:
    try:
        keep_pace(context_of(request), job_id, form)
    except Refused as error:
        return _page(request, load_job(request, job_id), form, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/estimate?said=reckoned#pace", 303)


@router.post("/extras")
def extras(request: Request, job_id: str, form: Fields) -> Response:
    try:
        keep_extras(context_of(request), job_id, form)
    except Refused as error:
        return _page(request, load_job(request, job_id), None, error.fields, extras=form)
    return RedirectResponse(f"/jobs/{job_id}/estimate?said=reckoned#extras", 303)


@router.post("/ways")
def ways(request: Request, job_id: str, form: Fields) -> Response:
    try:
        choose_ways(context_of(request), job_id, form)
    except Refused as error:
        return _page(request, load_job(request, job_id), None, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/estimate?said=reckoned#ways", 303)
