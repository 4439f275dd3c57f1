"""The forecasts so far: what was believed when, and what the newest says otherwise."""

from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from starlette.responses import Response

from amber_gable.services.weather.held.versions import compare, version_series, versions
from amber_gable.web.pages import job_page, load_job, units_of
from amber_gable.web.views.weather.two_forecasts import drawn_forecasts, face_difference, headline, moved_row

Moment = Annotated[int | None, Query(ge=0, lt=10**10)]
router = APIRouter(prefix="/jobs/{job_id}/weather/versions")


@router.get("")
def forecasts_so_far(request: Request, job_id: str, then: Moment = None) -> Response:
    """`then`: when the forecast that is looked at was had (epoch s); where none is named, that the plan was made by,
    else the one before the newest."""
    view = load_job(request, job_id)
    # The newest is asked for before what is kept is listed.
    in_use = view.weather.series
    kept = versions(view)
    if then is None:
        planned = [v for v in kept[1:] if "the plan was made" in v.decided]
        chosen = next(iter([*planned, *kept[1:2]]), None)
        then = chosen.kept.kept_at if chosen is not None else None
    context: dict[str, Any] = {"versions": kept, "then": then, "found": None}
    if then is not None and in_use is not None and view.bundle.property.parts:
        found = compare(view, version_series(view, then))
        if found is not None:
            context |= {
                "found": found,
                "headline": headline(found),
                "faces": [face_difference(f) for f in found.faces],
                "lost": [moved_row(m, view.now.tzinfo, lost=True) for m in found.lost],
                "gained": [moved_row(m, view.now.tzinfo, lost=False) for m in found.gained],
                "drawn": drawn_forecasts(found, view.now, units_of(request)),
                "chosen": next((v for v in kept if v.kept.kept_at == then), None),
            }
    return job_page(request, view, "weather", context, template="weather/versions.html")
