"""Rendering: templates, number formats, and the frame around every page of a job."""

from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Annotated, Any

import numpy as np
from fastapi import Depends, Request
from fastapi.templating import Jinja2Templates
from starlette.responses import Response

from amber_gable import __version__
from amber_gable.core.climate.job_climate import SiteClimate, main_zone
from amber_gable.core.specification.stops import Stop
from amber_gable.core.survey.measures import UnitSystem
from amber_gable.core.weather.rules import LETTERS
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.job import JobBundle
from amber_gable.domain.plan import Task
from amber_gable.services.forecasts import Weather, job_weather
from amber_gable.services.planning import KeptPlan, job_climate, kept_plan, kept_stops
from amber_gable.services.workspace import Workspace
from amber_gable.store.jobs import load_bundle
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


@dataclass(frozen=True)
class JobView:
    """A job as loaded for one page, with its weather and climate where there are any, and what stops its parts."""

    bundle: JobBundle
    weather: Weather
    site: SiteClimate | None
    kept: KeptPlan | None
    now: datetime
    trouble: str | None
    stops: tuple[Stop, ...]


def load_job(request: Request, job_id: str) -> JobView:
    """Raises NotFound for an unknown job."""
    space = space_of(request)
    with space.database.reading() as session:
        bundle = load_bundle(session, job_id)
    now = space.clock.now().astimezone(bundle.property.tz)
    weather = job_weather(space, bundle.property)
    site, trouble = None, weather.trouble
    if weather.series is not None and bundle.property.zones:
        try:
            site = job_climate(space, bundle, weather.series, now)
        except NoClimate as error:
            trouble = str(error)
    kept = kept_plan(space, bundle, site, now)
    return JobView(bundle, weather, site, kept, now, trouble, kept_stops(space, bundle))


def job_page(
    request: Request, view: JobView, stage: str, context: dict[str, Any], status: int = 200, template: str = ""
) -> Response:
    """A stage of a job inside the frame: rail, sky strip and title block. Other pages of the stage name their
    template."""
    job = view.bundle.job
    lacks = _lacks(view)
    frame = {
        "job": job,
        "property": view.bundle.property,
        "stages": [
            {
                "key": key,
                "name": name,
                "href": f"/jobs/{job.id}/{path}",
                "here": path == stage,
                "lacks": lacks.get(path),
            }
            for key, path, name in STAGES
        ],
        "sheet": next((key, name) for key, path, name in STAGES if path == stage),
        "sky": sky_strip(view.site, view.now) if view.site is not None else None,
        "weather": view.weather,
        "trouble": view.trouble,
        "now": view.now,
        "last_stroke": _last_stroke(view),
        "stops": view.stops,
        "said": request.query_params.get("said"),
    }
    return page(request, template or f"{stage}.html", frame | context, status)


def _lacks(view: JobView) -> dict[str, str]:
    """What each stage still lacks, in two or three words."""
    property_, job = view.bundle.property, view.bundle.job
    without = len(property_.zones) + len(property_.items) - len(job.finishes)
    bare = [f for f in property_.faces if main_zone(view.bundle, f) is None]
    out = {}
    if not property_.faces:
        out["survey"] = "no faces"
    elif bare:
        out["survey"] = f"{len(bare)} without zone"
    if view.stops:
        out["specification"] = f"{len({s.part for s in view.stops})} stopped"
    elif without > 0 or not property_.zones:
        out["specification"] = f"{without} to choose" if without else "no zones"
    if not job.finishes:
        out["quantities"] = "no systems"
    if view.weather.series is None:
        out["weather"] = "no weather"
    if view.kept is None:
        out["plan"] = "not planned"
    elif view.kept.stale:
        out["plan"] = "out of date" if view.kept.job_changed else f"{len(view.kept.threatened)} threatened"
    elif view.kept.plan.unplaced:
        out["plan"] = f"{len(view.kept.plan.unplaced)} unplaced"
    return out


@dataclass(frozen=True)
class LastStroke:
    """Last minute at which the scheduled coat may be laid today; `time` None when there is no such minute."""

    time: str | None
    face: str
    words: str


def scheduled_coat(view: JobView) -> Task | None:
    """The film task under way, or the next one."""
    if view.kept is None:
        return None
    films = [t for t in view.kept.plan.tasks if t.kind.lays_film and t.end > view.now]
    return min(films, key=lambda t: t.start, default=None)


def _last_stroke(view: JobView) -> LastStroke | None:
    task = scheduled_coat(view)
    if task is None or view.site is None or task.product is None or task.method is None:
        return None
    if task.start.astimezone(view.now.tzinfo).date() != view.now.date():
        local = task.start.astimezone(view.now.tzinfo)
        return LastStroke(None, task.face_name, f"next coat {_day(local)} {local:%H:%M}")
    part = view.bundle.property.part(task.part)
    if part is None or task.product not in {p.code for p in view.bundle.products}:
        return None
    if not view.site.knows(part):
        return None
    windows = view.site.for_coat(part, view.bundle.product(task.product), task.method, task.colour or part.colour_now)
    open_ = np.flatnonzero(windows.ok[0] & (windows.slots.day == 0))
    if not open_.size:
        return LastStroke(None, task.face_name, "no window today")
    return LastStroke(f"{windows.slots.time(int(open_[-1]) + 1):%H:%M}", task.face_name, task.operation)
