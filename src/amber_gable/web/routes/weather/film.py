"""The film story of a face's coat, and other products and methods beside it."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import Response

from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.compared_coats import compared_coats
from amber_gable.services.weather.faces.face_odds import face_odds
from amber_gable.services.weather.faces.judged_faces import JudgedFace, LaneQuestion, Which
from amber_gable.services.weather.told.film_story import film_story
from amber_gable.web.drawn_lanes import lane_link
from amber_gable.web.look import Look, Looked
from amber_gable.web.pages import job_page, load_job, page, units_of
from amber_gable.web.views.weather.film import draw_film

router = APIRouter(prefix="/jobs/{job_id}/weather/film")
QUARTER, DAY = timedelta(minutes=15), timedelta(days=1)


def _asked(view: JobView, look: Look) -> tuple[LaneQuestion, list[JudgedFace], JudgedFace | None]:
    """A film is told of: where a step is asked about that lays none, the coat that follows."""
    question = look.question
    if question.which is Which.NEXT and not question.sheet(view):
        question = LaneQuestion(Which.COAT.value, look.method)
    rows = question.rows(view)
    return question, rows, next((r for r in rows if r.face.id == look.face), rows[0] if rows else None)


@router.get("")
def film(request: Request, job_id: str, look: Looked) -> Response:
    view = load_job(request, job_id)
    question, rows, row = _asked(view, look)
    at = look.at or view.now
    context: dict[str, Any] = {"film": None, "row": row, "back": look.address}
    if row is not None:
        (odds,) = face_odds(view, [row])
        story = film_story(view, row, odds, at)
        link = lane_link(job_id, question.query, "weather/film")
        context["back"] = lane_link(job_id, question.query)(row.face.id, at).partition("?")[2]
        if story is not None:
            drawn = draw_film(story, at, view.now, units_of(request))
            shown = datetime.fromisoformat(drawn.shown["at"])
            context |= {
                "film": drawn,
                "last": len(story.moments) - 1,
                "earlier": link(row.face.id, shown - QUARTER),
                "later": link(row.face.id, shown + QUARTER),
                "day_before": link(row.face.id, shown - DAY),
                "day_after": link(row.face.id, shown + DAY),
                "faces": _faces(rows, row, link, shown),
                "compare": lane_link(job_id, question.query, "weather/film/compare")(row.face.id, shown),
            }
    return job_page(request, view, "weather", context, template="weather/film.html")


def _faces(rows: Sequence[JudgedFace], row: JudgedFace, link: Any, at: datetime) -> list[tuple[str, str, bool]]:
    return [(r.face.name, link(r.face.id, at), r is row) for r in rows if r.product is not None]


@router.get("/compare")
def compare(request: Request, job_id: str, look: Looked) -> Response:
    """Workable hours and how sure they are, of the coat and of others that may take its place."""
    view = load_job(request, job_id)
    _, _, row = _asked(view, look)
    compared = compared_coats(view, row) if row is not None else []
    context = {"compared": compared, "row": row, "most": max((c.hours for c in compared), default=0) or 1}
    if "hx-request" in request.headers:
        return page(request, "parts/weather/compared.html", context)
    return job_page(request, view, "weather", context, template="weather/compared.html")
