"""The house from above through a day, with the sun and what may be done on each wall."""

from datetime import timedelta
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.services.weather.faces.face_odds import known_odds
from amber_gable.services.weather.told.house_sun import house_sun
from amber_gable.web.drawn_lanes import lane_link
from amber_gable.web.look import Looked
from amber_gable.web.pages import job_page, load_job, units_of
from amber_gable.web.views.weather.house_sun import draw_sun

router = APIRouter(prefix="/jobs/{job_id}/weather/sun")
QUARTER, DAY = timedelta(minutes=15), timedelta(days=1)


@router.get("")
def sun(request: Request, job_id: str, look: Looked) -> Response:
    view = load_job(request, job_id)
    rows = look.question.rows(view)
    context: dict[str, Any] = {"sun": None, "back": look.address}
    if rows:
        at = look.at or view.now
        walls, moments = house_sun(view, rows, known_odds(view, rows), at)
        drawn = draw_sun(walls, rows, moments, at, units_of(request))
        shown = moments[drawn.chosen].start
        link, face = lane_link(job_id, look.query, "weather/sun"), rows[0].face.id
        context |= {
            "sun": drawn,
            "names": [r.face for r in rows],
            "earlier": link(face, shown - QUARTER),
            "later": link(face, shown + QUARTER),
            "day_before": link(face, shown - DAY),
            "day_after": link(face, shown + DAY),
            "back": lane_link(job_id, look.query)(face, shown).partition("?")[2],
        }
    return job_page(request, view, "weather", context, template="weather/sun.html")
