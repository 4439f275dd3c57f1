"""All faces of the property to scale, the house plan, and what there is to paint."""

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError, Refused
from amber_gable.domain.work.schools import TOPICS, AskedBy, topics_of
from amber_gable.services.specification.specifying import set_school
from amber_gable.services.survey.figures import face_figures, missing_essentials
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, units_of
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from amber_gable.web.views.survey.house_plan import draw_plan

router = APIRouter(prefix="/jobs/{job_id}")
SHOWN_MISSING = 3
SHEET_W, SHEET_SCALE, SHEET_H = 330.0, 30.0, 230.0


@router.get("/survey")
def survey(request: Request, job_id: str) -> Response:
    view, units = load_job(request, job_id), units_of(request)
    bundle = view.bundle
    faces = bundle.property.faces
    scale = drawing_scale(faces, SHEET_W, SHEET_SCALE, SHEET_H, units)
    sheets = [
        {"face": f, "drawing": draw(bundle.property, f, scale, units=units), "number": n, **face_figures(bundle, f)}
        for n, f in enumerate(faces, 1)
    ]
    missing = missing_essentials(bundle)
    context = {
        "sheets": sheets,
        "filled": next((f.name for f in view.bundle.property.faces if f.openings), ""),
        "plan": draw_plan(faces),
        "buildings": list(dict.fromkeys(f.building for f in faces)),
        "total_m2": sum(s["total_m2"] for s in sheets),
        "missing": missing,
        "worst": missing[:SHOWN_MISSING],
        "others": missing[SHOWN_MISSING:],
        "topics": topics_of(AskedBy.SURVEY),
        "units": units,
        "base": f"/jobs/{job_id}/survey",
    }
    return job_page(request, view, "survey", context)


@router.post("/schools")
def schools(request: Request, job_id: str, form: Fields) -> Response:
    """A school of the whole house, chosen where its question is asked."""
    topic = TOPICS.get(form.get("topic", ""))
    try:
        set_school(context_of(request), job_id, *(form.get(k, "") for k in ("level", "topic", "school")))
    except Refused as error:
        raise InputError("schools", next(iter(error.fields.values())), "choose one of the list") from None
    return RedirectResponse(f"/jobs/{job_id}/{topic.asked.value if topic else 'survey'}?said=saved", 303)
