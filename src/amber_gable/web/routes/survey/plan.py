"""The house plan: which wall looks where, and where each stands."""

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.services.survey.surveying import stand_wall, turn_house
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page, units_of
from amber_gable.web.routes.survey.sheet import is_fragment, read_sheet
from amber_gable.web.views.survey.house_plan import draw_plan

router = APIRouter(prefix="/jobs/{job_id}/survey")


@router.post("/turn")
def turn(request: Request, job_id: str, form: Fields) -> Response:
    """One face looks where a compass says, and the others with it."""
    turn_house(context_of(request), job_id, form.get("face", ""), form.get("bearing", ""))
    return RedirectResponse(f"/jobs/{job_id}/survey?said=saved", 303)


@router.post("/face/{id_}/stand")
def stand(request: Request, job_id: str, id_: str, form: Fields) -> Response:
    """Put a wall where it stands on the plan: `east_m` and `north_m` of its left end; neither lets it be guessed
    again."""
    stand_wall(context_of(request), job_id, id_, form)
    if not is_fragment(request):
        return RedirectResponse(f"/jobs/{job_id}/survey?said=saved", 303)
    faces = read_sheet(request, job_id).bundle.property.faces
    context = {"plan": draw_plan(faces), "base": f"/jobs/{job_id}/survey", "units": units_of(request)}
    return page(request, "parts/survey/plan.html", context)
