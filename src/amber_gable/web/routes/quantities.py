"""Quantities: litres by coat, cans on the bench."""

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.work.consumables import ADDITIVES
from amber_gable.services.company.stock import book, retint, retintable
from amber_gable.services.estimate.estimating import (
    buying_levels,
    growth_found,
    keep_additives,
    keep_level,
    trip_hours,
)
from amber_gable.services.forms.types import whole
from amber_gable.services.job.view import JobView
from amber_gable.services.quantities.quantities import colour_called, kept_quantities
from amber_gable.services.specification.taking_over import offers
from amber_gable.services.survey.figures import items_left
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, units_of
from amber_gable.web.views.estimate.cans import bench, told_boxes
from amber_gable.web.views.estimate.supplies import told_supplies
from amber_gable.web.views.specification.offers import told_offers

router = APIRouter(prefix="/jobs/{job_id}/quantities")


@router.get("")
def quantities(request: Request, job_id: str) -> Response:
    return _page(request, load_job(request, job_id), {})


@router.post("/level")
def level(request: Request, job_id: str, form: Fields) -> Response:
    try:
        keep_level(context_of(request), job_id, form)
    except Refused as error:
        return _page(request, load_job(request, job_id), error.fields)
    return RedirectResponse(f"/jobs/{job_id}/quantities#level", 303)


@router.post("/additives")
def additives(request: Request, job_id: str, form: Fields) -> Response:
    try:
        keep_additives(context_of(request), job_id, [k[4:] for k in form if k.startswith("add-")])
    except Refused as error:
        return _page(request, load_job(request, job_id), error.fields)
    return RedirectResponse(f"/jobs/{job_id}/quantities#additives", 303)


@router.post("/retint")
def retint_can(request: Request, job_id: str, form: Fields) -> Response:
    number, view = whole(form.get("number", ""), -1), load_job(request, job_id)
    paint = (form.get("product", ""), form.get("colour", ""))
    known = paint in {(o.product.code, o.colour) for o in kept_quantities(view).orders}
    if not known or number < 0:
        raise HTTPException(404, "This job has no such paint, or the stock no such can.")
    try:
        retint(view, number, *paint)
    except Refused as error:
        return _page(request, view, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/quantities", 303)


@router.post("/book")
def book_cans(request: Request, job_id: str, form: Fields) -> Response:
    sent = (whole(k[4:], -1) for k in form if k.startswith("can-"))
    numbers = [n for n in sent if n >= 0]
    view = load_job(request, job_id)
    try:
        book(context_of(request), view.bundle.job.id, numbers)
    except Refused as error:
        return _page(request, view, error.fields)
    return RedirectResponse(f"/jobs/{job_id}/quantities", 303)


def _page(request: Request, view: JobView, faults: dict[str, str]) -> Response:
    job_id, result = view.bundle.job.id, kept_quantities(view)
    names = {f.colour: f.colour_name for f in view.bundle.job.finishes}
    orders = [
        {
            "order": o,
            "bench": bench(o, units_of(request)),
            "name": colour_called(o, names),
            "boxed": told_boxes(o),
            "thinning": o.product.thinning_max_pct,
            "retintable": retintable(view, o.product.code, o.colour),
            "unbooked": any(c.job is None for c in o.stock),
            "lines": [line for line in result.lines if (line.product, line.colour) == (o.product.code, o.colour)],
        }
        for o in sorted(result.orders, key=lambda o: -o.litres)
    ]
    item_count, items_m2 = items_left(view.bundle)
    context = {
        "orders": orders,
        "total": result,
        "estimate": result.estimate,
        "supplies": told_supplies(result.estimate.supplies, units_of(request)),
        "levels": buying_levels(view),
        "sizes": sorted({c.litres for o in result.orders for c in o.product.containers}),
        "largest": view.bundle.job.estimating.largest_l,
        "additives": ADDITIVES.values(),
        "added": view.bundle.job.estimating.additives,
        "grows": growth_found(view.bundle),
        "trip_h": trip_hours(view.bundle),
        "faults": faults,
        "currency": view.bundle.company.currency,
        "item_count": item_count,
        "items_m2": items_m2,
        "units": units_of(request),
        "offers": told_offers(offers(context_of(request), job_id), view.bundle.property.tz, units_of(request)),
    }
    return job_page(request, view, "quantities", context, 422 if faults else 200)
