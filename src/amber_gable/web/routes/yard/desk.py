"""The demo clock and the reader's own settings."""

from datetime import datetime
from urllib.parse import urlsplit

from fastapi import APIRouter, Form, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.units import UnitSystem
from amber_gable.services.clock import DemoClock
from amber_gable.services.job.yard import yard_now
from amber_gable.web.asking import context_of
from amber_gable.web.pages import units_of

router = APIRouter()


def _back(request: Request) -> RedirectResponse:
    """To the page the form stood on; only its path is used."""
    parts = urlsplit(request.headers.get("referer", "/"))
    return RedirectResponse(parts.path or "/", 303)


@router.post("/clock")
def step(request: Request, hours: float = Form(0), to: str = Form("")) -> Response:
    clock = context_of(request).clock
    if not isinstance(clock, DemoClock):
        raise HTTPException(404, "Only the demo's clock can be moved.")
    if to == "start":
        clock.reset()
    elif to:
        moment = datetime.fromisoformat(to)
        if moment.tzinfo is None:
            raise HTTPException(422, "Give the time with its offset, such as 2026-09-15T08:00-03:00.")
        clock.set(moment)
    elif -240 <= hours <= 240:
        clock.step(hours)
    return _back(request)


@router.post("/theme")
def theme(request: Request) -> Response:
    return _kept(request, "theme", "day" if request.cookies.get("theme") == "night" else "night")


@router.post("/units")
def units(request: Request) -> Response:
    return _kept(request, "units", (UnitSystem.METRIC if units_of(request).us else UnitSystem.US).value)


def _kept(request: Request, name: str, value: str) -> Response:
    """The reader's setting, kept in a cookie for a year."""
    answer = _back(request)
    answer.set_cookie(name, value, max_age=31_536_000, httponly=True, samesite="strict")
    return answer


@router.get("/healthz")
def healthy(request: Request) -> dict[str, str]:
    yard_now(context_of(request))
    return {"status": "ok"}
