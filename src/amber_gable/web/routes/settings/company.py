"""The company set up, and the sample jobs brought in or dropped."""

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.services.company.samples import bring_samples, drop_samples
from amber_gable.services.company.set_up import asked_topics, keep_set_up, set_up, set_up_form
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page, town_choices

router = APIRouter()


@router.get("/settings/company")
def company(request: Request) -> Response:
    return _company(request, set_up_form(set_up(context_of(request))), {})


def _company(request: Request, typed: dict[str, str], faults: dict[str, str]) -> Response:
    context = {
        "typed": typed,
        "faults": faults,
        "topics": asked_topics(),
        "known": set_up(context_of(request)).usual is not None,
        "said": request.query_params.get("said"),
    }
    return page(request, "settings/company.html", context | town_choices(request, typed), 422 if faults else 200)


@router.post("/settings/company")
def keep(request: Request, form: Fields) -> Response:
    first = set_up(context_of(request)).usual is None
    try:
        keep_set_up(context_of(request), form)
    except Refused as error:
        return _company(request, form, error.fields)
    return RedirectResponse("/?said=set-up#new-job" if first else "/settings/company?said=kept", 303)


@router.post("/samples")
def bring(request: Request) -> Response:
    bring_samples(context_of(request))
    return RedirectResponse("/?said=samples", 303)


@router.post("/samples/drop")
def drop(request: Request) -> Response:
    drop_samples(context_of(request))
    return RedirectResponse("/?said=dropped", 303)
