"""Weather that is brought: a forecast typed or pasted in, a file, what a logger measured."""

from collections.abc import Mapping
from datetime import date, timedelta
from typing import Annotated, Any

from fastapi import APIRouter, Form, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError, Refused
from amber_gable.domain.weather.typed_forecast import Cloud, RainKind, WindForce
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.held.observed import bring_readings, forget_readings
from amber_gable.services.weather.held.typing_in import (
    COMPASS,
    SHOWN_DAYS,
    drop_typed,
    form_of,
    paste_hours,
    type_forecast,
    typed_before,
)
from amber_gable.services.weather.held.weather_files import bring_file, drop_weather_file, far_file, take_far_file
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, typed_system, units_of

router = APIRouter(prefix="/jobs/{job_id}/weather")


@router.get("/typed")
def typed_form(request: Request, job_id: str) -> Response:
    """A forecast to be typed in, a day a row."""
    view = load_job(request, job_id)
    return _typed_page(request, view, before_typed(request, view), {})


@router.post("/typed")
def type_in(request: Request, job_id: str, form: Fields) -> Response:
    view = load_job(request, job_id)
    try:
        type_forecast(context_of(request), view.bundle.property, form, typed_system(request, form))
    except Refused as error:
        return _typed_page(request, view, form, error.fields, 422)
    return RedirectResponse(f"/jobs/{job_id}/weather?said=typed", 303)


@router.post("/pasted")
def paste(request: Request, job_id: str, form: Fields) -> Response:
    """A table of hours from any page; what cannot be read is said above it, with the text as it was."""
    view = load_job(request, job_id)
    try:
        paste_hours(context_of(request), view.bundle.property, form.get("table", ""))
    except InputError as error:
        told = {"pasted": form.get("table", ""), "paste_fault": str(error)}
        return _typed_page(request, view, before_typed(request, view), {}, 422, told)
    return RedirectResponse(f"/jobs/{job_id}/weather?said=typed", 303)


@router.post("/typed/drop")
def drop_what_was_typed(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    drop_typed(context_of(request), view.bundle.property.id)
    return RedirectResponse(f"/jobs/{job_id}/weather", 303)


def before_typed(request: Request, view: JobView) -> dict[str, str]:
    before = typed_before(context_of(request), view.bundle.property.id)
    return form_of(before, view.now.date(), units_of(request).system)


def _typed_page(
    request: Request,
    view: JobView,
    form: Mapping[str, str],
    faults: dict[str, str],
    status: int = 200,
    told: Mapping[str, str] | None = None,
) -> Response:
    context = typed_context(request, view, form) | {"faults": faults} | dict(told or {})
    return job_page(request, view, "weather", context, status, template="weather/typed.html")


def typed_context(request: Request, view: JobView, form: Mapping[str, str]) -> dict[str, Any]:
    try:
        first = date.fromisoformat(form.get("first", ""))
    except ValueError:
        first = view.now.date()
    return {
        "typed": form,
        "typed_days": [first + timedelta(days=n) for n in range(SHOWN_DAYS)],
        "clouds": list(Cloud),
        "winds": list(WindForce),
        "rains": list(RainKind),
        "compass": COMPASS,
        "faults": {},
        "temperature": units_of(request).symbol("temperature"),
    }


@router.post("/file")
def upload(request: Request, job_id: str, file: UploadFile) -> Response:
    view = load_job(request, job_id)
    if not file.filename:
        raise HTTPException(422, "Choose a file first: EPW, TMY3 CSV or plain CSV.")
    far = bring_file(context_of(request), view.bundle.property, file.file.read(), file.filename, "file")
    return RedirectResponse(
        f"/jobs/{job_id}/weather/far/{far}" if far else f"/jobs/{job_id}/weather?said=imported", 303
    )


@router.get("/far/{token}")
def ask_far(request: Request, job_id: str, token: str) -> Response:
    """A file of another place: is it meant?"""
    view = load_job(request, job_id)
    far = far_file(context_of(request), view.bundle.property, token)
    return job_page(request, view, "weather", {"far": far, "token": token}, template="weather/far.html")


@router.post("/far/{token}")
def take_far(request: Request, job_id: str, token: str) -> Response:
    view = load_job(request, job_id)
    use = take_far_file(context_of(request), view.bundle.property, token)
    return RedirectResponse(f"/jobs/{job_id}/weather{'/season' if use == 'year' else '?said=imported'}", 303)


@router.post("/readings")
def take_readings(request: Request, job_id: str, file: UploadFile, logger: Annotated[str, Form()] = "") -> Response:
    """What a logger measured at the house."""
    view = load_job(request, job_id)
    if not file.filename:
        raise HTTPException(422, "Choose a file first: what the logger wrote, as CSV.")
    bring_readings(context_of(request), view.bundle.property, file.file.read(), file.filename, logger)
    return RedirectResponse(f"/jobs/{job_id}/weather?said=measured", 303)


@router.post("/readings/drop")
def drop_readings(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    forget_readings(context_of(request), view.bundle.property.id)
    return RedirectResponse(f"/jobs/{job_id}/weather", 303)


@router.post("/file/drop")
def drop(request: Request, job_id: str) -> Response:
    view = load_job(request, job_id)
    drop_weather_file(context_of(request), view.bundle.property.id)
    return RedirectResponse(f"/jobs/{job_id}/weather", 303)
