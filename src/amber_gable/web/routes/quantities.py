"""Quantities: litres by coat, cans on the bench."""

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.services.quantities.quantities import kept_quantities
from amber_gable.services.specification.taking_over import offers
from amber_gable.services.survey.figures import items_left
from amber_gable.web.pages import job_page, load_job, space_of, units_of
from amber_gable.web.views.cans import bench
from amber_gable.web.views.offers import told_offers

router = APIRouter(prefix="/jobs/{job_id}/quantities")


@router.get("")
def quantities(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    result = kept_quantities(view)
    names = {f.colour: f.colour_name for f in view.bundle.job.finishes}
    orders = [
        {
            "order": o,
            "bench": bench(o, units_of(request)),
            "name": names.get(o.colour, "primer" if o.product.primer else "own colour"),
            "lines": [line for line in result.lines if (line.product, line.colour) == (o.product.code, o.colour)],
        }
        for o in result.orders
    ]
    item_count, items_m2 = items_left(view.bundle)
    context = {
        "orders": orders,
        "total": result,
        "currency": view.bundle.company.currency,
        "item_count": item_count,
        "items_m2": items_m2,
        "units": units_of(request),
        "offers": told_offers(offers(space_of(request), job_id), view.bundle.property.tz, units_of(request)),
    }
    return job_page(request, view, "quantities", context)
