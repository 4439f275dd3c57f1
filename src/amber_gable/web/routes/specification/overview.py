"""All parts of the job with what they get, what is still to be answered, the schools that hold and the safety cards."""

from typing import Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.work.schools import AskedBy, topics_of
from amber_gable.services.specification.acknowledging import acknowledge
from amber_gable.services.specification.colour_preview import house_after
from amber_gable.services.specification.desk import specification_desk
from amber_gable.services.specification.specifying import (
    Changed,
    derive_again,
    derive_missing,
    set_lead,
    set_lead_year,
    set_school,
)
from amber_gable.services.specification.taking_over import offers, take_newer
from amber_gable.services.today.standing import standings
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, units_of
from amber_gable.web.views.specification.offers import told_offers
from amber_gable.web.views.specification.spec_rows import STATE_WORDS, PartLine, line, shared_matters
from amber_gable.web.views.survey.elevation import draw, drawing_scale, finish_colours

router = APIRouter(prefix="/jobs/{job_id}/specification")
SHOWN_MATTERS = 8


@router.get("")
def specification(request: Request, job_id: str) -> Response:
    return overview(request, job_id)


def overview(request: Request, job_id: str, more: dict[str, Any] | None = None, status: int = 200) -> Response:
    view, ctx = load_job(request, job_id), context_of(request)
    bundle, desk = view.bundle, specification_desk(ctx, view.bundle)
    systems, by_code = {s.id: s.name for s in desk.systems}, desk.by_code
    scale = drawing_scale(bundle.property.faces, 250.0, height=230.0)
    faces: list[dict[str, Any]] = []
    behind = standings(bundle)
    broken = []
    for face in bundle.property.faces:
        of_face: list[PartLine] = []
        for key, spec in desk.specs.items():
            part = bundle.property.part(key)
            if part is None or part.face != face.id:
                continue
            if isinstance(spec, str):
                broken.append((part.name, key, spec))
                continue
            kind = spec.part.item_kind
            what = ITEM_NAMES[kind] if kind else SUBSTRATES[spec.part.substrate].name
            heat, standing = desk.heat.get(key), behind.get(key)
            of_face.append(
                line(spec, what, desk.versions.get(key, 0), by_code, systems, heat, standing, desk.open_tests(key))
            )
        drawing = draw(house_after(bundle), face, scale, colours=finish_colours(bundle), units=units_of(request))
        faces.append({"face": face, "drawing": drawing, "lines": of_face})
    lines = [one for f in faces for one in f["lines"]]
    matters = [one for one in lines if one.state in ("stop", "check", "changed")]
    shared = shared_matters(matters)
    cards = desk.cards
    read = {a.card: a for a in bundle.job.acknowledged}
    context = {
        "faces": faces,
        "lines": lines,
        "open": [one for one in lines if one.state == "open"],
        "chosen": sum(one.state != "open" for one in lines),
        "matters": matters,
        "shown_matters": shared[:SHOWN_MATTERS],
        "more_matters": sum(len(m.parts) for m in shared[SHOWN_MATTERS:]),
        "changed": [one for one in lines if one.state == "changed"],
        "states": STATE_WORDS,
        "tests": sum(one.tests for one in lines),
        "broken": broken,
        "others": len(bundle.job.others),
        "hours": sum(one.hours for one in lines if one.state != "open"),
        "litres": sum(one.litres for one in lines if one.state != "open"),
        "cards": [(c, read.get(c.id)) for c in cards],
        "unread": [c for c in cards if c.id not in read],
        "topics": topics_of(AskedBy.SPECIFICATION),
        "lead": desk.lead,
        "lead_year": bundle.company.lead_cutoff_year,
        "offers": told_offers(offers(ctx, job_id), bundle.property.tz, units_of(request)),
        "faults": {},
        "done": [],
    }
    return job_page(request, view, "specification", context | (more or {}), status)


def _told(request: Request, job_id: str, changed: list[Changed], what: str) -> Response:
    """The overview with what the edit changed."""
    return overview(request, job_id, {"done": changed, "done_what": what})


@router.post("/derive")
def derive(request: Request, job_id: str) -> Response:
    changed, left = derive_missing(context_of(request), job_id)
    told = {"done": changed, "done_what": "Derived from the survey"}
    return overview(request, job_id, told | {"faults": {name: f"{name}: {why}" for name, why in left.items()}})


@router.post("/again")
def again(request: Request, job_id: str) -> Response:
    return _told(request, job_id, derive_again(context_of(request), job_id), "Derived anew")


@router.post("/school")
def school(request: Request, job_id: str, form: Fields) -> Response:
    level, topic, code = (form.get(k, "") for k in ("level", "topic", "school"))
    try:
        changed = set_school(context_of(request), job_id, level, topic, code)
    except Refused as error:
        return overview(request, job_id, {"faults": error.fields}, 422)
    return _told(request, job_id, changed, "The school is changed")


@router.post("/lead")
def lead(request: Request, job_id: str, form: Fields) -> Response:
    changed = set_lead(context_of(request), job_id, form.get("found", ""))
    return _told(request, job_id, changed, "The lead test is noted")


@router.post("/lead-year")
def lead_year(request: Request, job_id: str, form: Fields) -> Response:
    try:
        changed = set_lead_year(context_of(request), job_id, form)
    except Refused as error:
        return overview(request, job_id, {"faults": error.fields}, 422)
    return _told(request, job_id, changed, "The year is changed")


@router.post("/newer")
def newer(request: Request, job_id: str, form: Fields) -> Response:
    """Take over a sheet by its code, or with an empty one the company's settings."""
    code = form.get("code", "")
    changed = take_newer(context_of(request), job_id, [code] if code else [], settings=not code)
    return _told(request, job_id, changed, "Taken over")


@router.post("/acknowledge")
def acknowledged(request: Request, job_id: str, form: Fields) -> Response:
    try:
        acknowledge(context_of(request), job_id, form.get("by", ""), form.get("card", ""))
    except Refused as error:
        return overview(request, job_id, {"faults": error.fields}, 422)
    return RedirectResponse(f"/jobs/{job_id}/specification?said=saved#safety", 303)
