"""Rendering: templates, number formats, and the frame around every page of a job."""

from collections.abc import Mapping
from contextvars import ContextVar
from functools import cache
from pathlib import Path
from typing import Annotated, Any
from urllib.parse import urlencode, urlsplit

from fastapi import Depends, Request
from fastapi.templating import Jinja2Templates
from jinja2 import pass_context
from jinja2.runtime import Context
from starlette.responses import Response

from amber_gable import __version__
from amber_gable.domain import wording
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.services.company.usual_units import units_for
from amber_gable.services.job.stages import STAGES, lacking, stage_of, stages_that_matter
from amber_gable.services.job.undo import steps_of
from amber_gable.services.job.view import JobView, job_view
from amber_gable.services.place_check import town_value, towns_like
from amber_gable.web.asking import context_of
from amber_gable.web.shipped import shipped_at
from amber_gable.web.views.part_names import LABELS
from amber_gable.web.views.survey.texture_words import texture_words
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.sky import sky_strip

_STYLES = Path(__file__).parent / "static" / "css"
_TEMPLATES = Jinja2Templates(directory=Path(__file__).parent / "templates")
_TEMPLATES.env.trim_blocks = _TEMPLATES.env.lstrip_blocks = True
# They ship with the program and do not change while it runs.
_TEMPLATES.env.auto_reload = False


_TEMPLATES.env.filters.update(
    num=wording.number,
    day=wording.dated,
    minutes=wording.duration,
    hour=wording.hour,
    clock=wording.clock,
    plural=wording.plural,
    px=lambda v: f"{v:.1f}",
)
_METRIC = Units(UnitSystem.METRIC)
_READER: ContextVar[Units] = ContextVar("reader", default=_METRIC)
"""The units of whoever the page is rendered for: macros do not see a page's own variables."""


# They take the context so that the compiler does not work them out once for all readers.
@pass_context
def _shown(_: Context, value: float, kind: str, digits: int | None = None) -> str:
    return _READER.get().shown(value, kind, digits)


@pass_context
def _figure(_: Context, value: float, kind: str, digits: int | None = None) -> str:
    return _READER.get().figure(value, kind, digits)


@pass_context
def _told(_: Context, words: object) -> str:
    return _READER.get().told(str(words))


@pass_context
def _poured(_: Context, litres: float) -> str:
    """Paint for a piece of work: what is little is not shown as nothing."""
    return _READER.get().shown(max(litres, 0.01), "volume", 1 if litres >= 0.95 else 2)


_TEMPLATES.env.filters.update(q=_shown, qn=_figure, told=_told, poured=_poured)
_TEMPLATES.env.globals["shown_units"] = lambda: _READER.get().system.value
_TEMPLATES.env.globals["unit"] = lambda kind: _READER.get().symbol(kind)
_TEMPLATES.env.filters["texture"] = texture_words
_TEMPLATES.env.filters["label"] = lambda key: LABELS[key][0] if key in LABELS else key.replace("_", " ")
_TEMPLATES.env.globals.update(version=__version__, letters=LETTERS, shipped=shipped_at())


async def _fields(request: Request) -> dict[str, str]:
    return {k: v for k, v in (await request.form()).items() if isinstance(v, str)}


Fields = Annotated[dict[str, str], Depends(_fields)]
"""A form's text fields, read before the route runs in its own thread."""


def units_of(request: Request) -> Units:
    """The reader's units; guessed from where the houses stand until they are chosen."""
    return Units(units_for(context_of(request)))


def typed_system(request: Request, form: Mapping[str, str]) -> UnitSystem:
    """The units a form was shown in, which may not be those its reader has chosen since."""
    shown_in = form.get("units")
    return UnitSystem(shown_in) if shown_in in set(UnitSystem) else units_of(request).system


def rendered(template: str, context: dict[str, Any], units: Units | None = None) -> str:
    """A template as text, for files and for what is kept."""
    reader = _READER.set(units or _METRIC)
    try:
        return _TEMPLATES.get_template(template).render(context).strip()
    finally:
        _READER.reset(reader)


@cache
def style_of(template: str) -> str:
    """The style sheet of the stage or desk that a template belongs to; empty where the common ones are enough."""
    name = template.partition("/")[0].removesuffix(".html")
    return name if (_STYLES / f"{name}.css").exists() else ""


def page(request: Request, template: str, context: dict[str, Any], status: int = 200) -> Response:
    """A rendered template; `night` follows the reader's cookie."""
    ctx, units = context_of(request), units_of(request)
    common = {
        "night": request.cookies.get("theme") == "night",
        "us_units": units.us,
        "units": units,
        "clock": ctx.now,
        "steppable": ctx.space.clock.steppable,
        "path": request.url.path,
        "under_way": len(ctx.space.runner.active),
        "style": style_of(template),
    }
    reader = _READER.set(units)
    try:
        return _TEMPLATES.TemplateResponse(request, template, common | context, status_code=status)
    finally:
        _READER.reset(reader)


def town_choices(request: Request, typed: Mapping[str, str]) -> dict[str, Any]:
    """What a typed place may be, where it is told by its name."""
    asked = "" if typed.get("latitude") or typed.get("longitude") else typed.get("place", "")
    found = towns_like(context_of(request), asked) if asked else []
    return {"towns": [(town_value(t), t) for t in found], "asked_place": asked}


def load_job(request: Request, job_id: str) -> JobView:
    """Raises NotFound for an unknown job."""
    return job_view(context_of(request), job_id, waits="hx-request" in request.headers)


def job_page(
    request: Request, view: JobView, stage: str, context: dict[str, Any], status: int = 200, template: str = ""
) -> Response:
    """A stage of a job inside the frame: rail, sky strip and title block. Other pages of the stage name their
    template."""
    job = view.bundle.job
    here, said = stage_of(stage), request.query_params.get("said")
    weather = here.shows_weather or view.known_site is not None
    lacks, matter = lacking(view, weather=weather), stages_that_matter(view)
    frame = {
        "job": job,
        "property": view.bundle.property,
        "company": view.bundle.company,
        "held": view.bundle.schools,
        "stages": [
            {
                "key": s.key,
                "name": s.name,
                "path": s.path,
                "href": f"/jobs/{job.id}/{s.path}",
                "here": s is here,
                "lacks": lacks.get(s.path),
                "matters": s.path in matter or s is here,
            }
            for s in STAGES
        ],
        "sheet": (here.key, here.name),
        "now": view.now,
        "stops": view.stops,
        "said": said,
        "notice": here.notice(said),
        "steps": context["steps"] if "steps" in context else steps_of(view.ctx, view.bundle.property.id),
        "here": _here(request),
        "sky_later": not weather,
    }
    if weather:
        frame |= {**sky_context(view), "weather": view.weather}
    return page(request, template or f"{stage}.html", frame | context, status)


def _here(request: Request) -> str:
    """The page as it can be come back to, without the word it was shown with; a form's page is that of its job."""
    if request.method != "GET":
        return urlsplit(request.headers.get("referer", "")).path
    asked = [(k, v) for k, v in request.query_params.multi_items() if k != "said"]
    return f"{request.url.path}?{urlencode(asked)}" if asked else request.url.path


def sky_context(view: JobView) -> dict[str, Any]:
    """What the strip over every page of a job shows; computing it may take a moment."""
    return {
        "sky": sky_strip(view.site, view.now) if view.site is not None else None,
        "trouble": view.trouble,
        "last_stroke": view.last_stroke,
        "now": view.now,
        "job": view.bundle.job,
    }
