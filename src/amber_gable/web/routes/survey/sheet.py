"""What the survey's pages and fragments show: a job with its versions, steps and units, without the weather."""

from dataclasses import dataclass
from typing import Any

from fastapi import HTTPException, Request
from starlette.responses import Response

from amber_gable.services.survey.forms import MODELS
from amber_gable.services.survey.sheet import SurveySheet, face_sheet, whole_sheet
from amber_gable.web.asking import context_of
from amber_gable.web.pages import job_page, load_job, page, units_of
from amber_gable.web.views.units import Units

STAGE = "survey"


@dataclass(frozen=True)
class Sheet(SurveySheet):
    """The survey's sheet with the reader's units."""

    units: Units


def read_sheet(request: Request, job_id: str) -> Sheet:
    """The whole job. Raises NotFound for an unknown one."""
    return Sheet(**vars(whole_sheet(context_of(request), job_id)), units=units_of(request))


def read_face(request: Request, job_id: str, kind: str, id_: str | None, face_id: str = "") -> Sheet:
    """The job cut down to the face that a part is on, or that a part still to come will be on. Raises NotFound."""
    return Sheet(**vars(face_sheet(context_of(request), job_id, kind, id_, face_id)), units=units_of(request))


def known(kind: str) -> None:
    """Raises 404 for what is no part of a survey."""
    if kind not in MODELS:
        raise HTTPException(404, "Faces, openings, obstacles, zones and items can be edited here.")


def is_fragment(request: Request) -> bool:
    return request.headers.get("hx-request") == "true"


def show(
    request: Request, job_id: str, template: str, fragment: str, context: dict[str, Any], status: int = 200
) -> Response:
    """The fragment alone when a part of the page is asked for, else the whole page."""
    if is_fragment(request):
        return page(request, fragment, context, status)
    return job_page(request, load_job(request, job_id), STAGE, context, status, template=template)
