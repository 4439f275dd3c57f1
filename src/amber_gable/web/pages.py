"""Rendering: templates, number formats, and the frame around every page of a job."""

from datetime import datetime
from pathlib import Path
from typing import Annotated, Any

from fastapi import Depends, Request
from fastapi.templating import Jinja2Templates
from starlette.responses import Response

from amber_gable import __version__
from amber_gable.core.survey.measures import UnitSystem
from amber_gable.core.weather.rules import LETTERS
from amber_gable.services.job_view import JobView, job_view, lacking
from amber_gable.services.workspace import Workspace
from amber_gable.web.views.part_names import LABELS
from amber_gable.web.views.sky import sky_strip
from amber_gable.web.views.texture_words import texture_words
from amber_gable.web.views.units import Units

_TEMPLATES = Jinja2Templates(directory=Path(__file__).parent / "templates")
_TEMPLATES.env.trim_blocks = _TEMPLATES.env.lstrip_blocks = True


def _num(value: float, digits: int = 1) -> str:
    text = f"{value:,.{digits}f}" if abs(value) >= 10_000 else f"{value:.{digits}f}"
    return text.replace(",", "\u202f")


def _day(t: datetime) -> str:
    return f"{t:%a} {t.day} {t:%b}"


_TEMPLATES.env.filters.update(num=_num, day=_day, clock=lambda t: f"{t:%H:%M}", px=lambda v: f"{v:.1f}")
_TEMPLATES.env.filters["texture"] = texture_words
_TEMPLATES.env.filters["label"] = lambda key: LABELS[key][0] if key in LABELS else key.replace("_", " ")
_TEMPLATES.env.globals.update(version=__version__, letters=LETTERS)

STAGES = (
    # key, path, name: the numbers leave room for the stages still to come
    (1, "survey", "Survey"),
    (2, "specification", "Specification"),
    (3, "quantities", "Quantities"),
    (5, "weather", "Weather"),
    (6, "plan", "Plan"),
    (7, "today", "Today"),
)


_SHOW_WEATHER = ("weather", "plan", "today")
"""Stages whose pages show the weather. The others leave their strip of sky to be fetched where it must be computed."""


async def _fields(request: Request) -> dict[str, str]:
    return {k: v for k, v in (await request.form()).items() if isinstance(v, str)}


Fields = Annotated[dict[str, str], Depends(_fields)]
"""A form's text fields, read before the route runs in its own thread."""


def space_of(request: Request) -> Workspace:
    space: Workspace = request.app.state.space
    return space


def units_of(request: Request) -> Units:
    """The reader's units, kept in a cookie."""
    return Units(UnitSystem.US if request.cookies.get("units") == "us" else UnitSystem.METRIC)


def rendered(template: str, context: dict[str, Any]) -> str:
    """A template as text, for files."""
    return _TEMPLATES.get_template(template).render(context).strip()


def page(request: Request, template: str, context: dict[str, Any], status: int = 200) -> Response:
    """A rendered template; `night` follows the reader's cookie."""
    space = space_of(request)
    common = {
        "night": request.cookies.get("theme") == "night",
        "us_units": request.cookies.get("units") == "us",
        "clock": space.clock.now(),
        "steppable": space.clock.steppable,
        "path": request.url.path,
    }
    return _TEMPLATES.TemplateResponse(request, template, common | context, status_code=status)


def load_job(request: Request, job_id: str) -> JobView:
    """Raises NotFound for an unknown job."""
    return job_view(space_of(request), job_id)


def job_page(
    request: Request, view: JobView, stage: str, context: dict[str, Any], status: int = 200, template: str = ""
) -> Response:
    """A stage of a job inside the frame: rail, sky strip and title block. Other pages of the stage name their
    template."""
    job = view.bundle.job
    weather = stage in _SHOW_WEATHER or view.known_site is not None
    lacks = lacking(view, weather=weather)
    frame = {
        "job": job,
        "property": view.bundle.property,
        "stages": [
            {
                "key": key,
                "name": name,
                "path": path,
                "href": f"/jobs/{job.id}/{path}",
                "here": path == stage,
                "lacks": lacks.get(path),
            }
            for key, path, name in STAGES
        ],
        "sheet": next((key, name) for key, path, name in STAGES if path == stage),
        "now": view.now,
        "stops": view.stops,
        "said": request.query_params.get("said"),
        "sky_later": not weather,
    }
    if weather:
        frame |= {**sky_context(view), "weather": view.weather}
    return page(request, template or f"{stage}.html", frame | context, status)


def sky_context(view: JobView) -> dict[str, Any]:
    """What the strip over every page of a job shows; computing it may take a moment."""
    return {
        "sky": sky_strip(view.site, view.now) if view.site is not None else None,
        "trouble": view.trouble,
        "last_stroke": view.last_stroke,
        "now": view.now,
        "job": view.bundle.job,
    }
