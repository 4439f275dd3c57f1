"""The condition of a zone or item: guided tests, meter readings, and damage painted on the drawing."""

import json
from dataclasses import replace
from typing import Any
from urllib.parse import urlsplit

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.domain.findings.condition import CELL_M, Damage
from amber_gable.domain.findings.meter import MeterReading, MeterUnavailable
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Zone
from amber_gable.services.survey import conditions
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page, typed_system
from amber_gable.web.routes.survey.sheet import Sheet, is_fragment, known, read_face, show
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from amber_gable.web.views.survey.test_controls import TestRow, row_of_test

router = APIRouter(prefix="/jobs/{job_id}/survey/{kind}/{id_}/condition")
MAP_W, MAP_SCALE, MAP_H = 520.0, 70.0, 420.0


@router.get("")
def condition(request: Request, job_id: str, kind: str, id_: str) -> Response:
    return _page(request, job_id, kind, id_)


def _page(
    request: Request,
    job_id: str,
    kind: str,
    id_: str,
    *,
    template: str = "parts/survey/condition.html",
    faults: dict[str, str] | None = None,
    meter: MeterReading | None = None,
    trouble: str = "",
    typed: str = "",
) -> Response:
    known(kind)
    sheet = read_face(request, job_id, kind, id_)
    context = _context(sheet, kind, id_, faults or {}, typed) | {
        "meter": meter,
        "trouble": trouble,
        "has_meter": context_of(request).space.meter is not None,
    }
    status = 422 if faults or trouble else 200
    return show(request, job_id, "survey/condition.html", template, context, status)


def _context(sheet: Sheet, kind: str, id_: str, faults: dict[str, str], typed: str = "") -> dict[str, Any]:
    """`faults` by test; `typed` what was given for the test at fault, which stays to be mended."""
    property_ = sheet.bundle.property
    record = conditions.condition_record(sheet.bundle, kind, id_)
    part, face = record.part, record.face
    base = f"/jobs/{sheet.bundle.job.id}/survey"
    here = f"{base}/{kind}/{id_}/condition"
    drawing = None
    if isinstance(part, Zone):
        scale = drawing_scale((face,), MAP_W, MAP_SCALE, MAP_H, sheet.units)
        drawing = draw(property_, face, scale, selected=("zone", part.id), units=sheet.units)
    substrate = SUBSTRATES[part.substrate]
    return {
        "base": base,
        "here": here,
        "job": sheet.bundle.job,
        "kind": kind,
        "part": part,
        "face": face,
        "substrate": substrate,
        "damp": record.damp,
        "tests": [
            _kept(row_of_test(t, part, here, sheet.units, record.plan_m2), faults, typed)
            for t in record.tests
            if t.test.field != "moisture"
        ],
        "has_moisture": any(t.test.field == "moisture" for t in record.tests),
        "moisture_how": next((t.test.how for t in record.tests if t.test.field == "moisture"), ""),
        "readings": [(n, r, conditions.reading_time(r.at, property_)) for n, r in enumerate(part.condition.moisture)],
        "statistics": record.moisture,
        "open": record.open,
        "photos": [p for p in property_.photos if p.face in (None, face.id)],
        "damages": list(Damage),
        "extents": record.extents,
        "drawing": drawing,
        "cell_m": CELL_M,
        "marks": {m.damage.value: m.runs for m in part.condition.marks},
        "faults": faults,
        "units": sheet.units,
    }


def _kept(row: TestRow, faults: dict[str, str], typed: str) -> TestRow:
    fault = faults.get(row.test.code)
    return row if fault is None else replace(row, control=row.control.typed(typed), fault=fault)


@router.post("/test")
def test(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    known(kind)
    faults: dict[str, str] = {}
    try:
        conditions.record_test(context_of(request), job_id, kind, id_, form, typed_system(request, form))
    except Refused as error:
        faults = {form.get("test", "") if k in ("condition", "on", "") else k: v for k, v in error.fields.items()}
    if not is_fragment(request):
        if not faults:
            return _back(request, job_id, kind, id_)
        return _page(request, job_id, kind, id_, faults=faults, typed=form.get("value", ""))
    context = _context(read_face(request, job_id, kind, id_), kind, id_, faults, form.get("value", ""))
    row = next((t for t in context["tests"] if t.test.code == form.get("test")), None)
    if row is None:
        raise HTTPException(404, "This test does not fit the surface.")
    return page(request, "parts/survey/test_row.html", context | {"t": row}, 422 if faults else 200)


@router.post("/note")
def note(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    known(kind)
    try:
        conditions.set_note(context_of(request), job_id, kind, id_, form.get("note", ""))
    except Refused as error:
        raise HTTPException(422, next(iter(error.fields.values()))) from None
    return Response(status_code=204) if is_fragment(request) else _back(request, job_id, kind, id_)


@router.post("/moisture")
def moisture(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    known(kind)
    try:
        conditions.add_moisture(context_of(request), job_id, kind, id_, form.get("pct", ""), form.get("spot", ""))
    except Refused as error:
        return _page(request, job_id, kind, id_, template="parts/survey/moisture.html", faults=error.fields)
    return _moisture(request, job_id, kind, id_)


@router.post("/moisture/{number}/delete")
def drop(request: Request, job_id: str, kind: str, id_: str, number: int, form: Fields) -> Response:
    known(kind)
    try:
        conditions.drop_moisture(context_of(request), job_id, kind, id_, number, form.get("expected", ""))
    except Refused as error:
        return _page(request, job_id, kind, id_, template="parts/survey/moisture.html", faults=error.fields)
    return _moisture(request, job_id, kind, id_)


@router.post("/meter")
def meter(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    known(kind)
    try:
        found = conditions.read_meter(context_of(request), job_id, kind, id_, form.get("spot", ""))
    except MeterUnavailable as error:
        return _page(request, job_id, kind, id_, template="parts/survey/moisture.html", trouble=str(error))
    return _page(request, job_id, kind, id_, template="parts/survey/moisture.html", meter=found)


def _moisture(request: Request, job_id: str, kind: str, id_: str) -> Response:
    if is_fragment(request):
        return _page(request, job_id, kind, id_, template="parts/survey/moisture.html")
    return _back(request, job_id, kind, id_)


@router.post("/marks")
def marks(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    if kind != "zone":
        raise HTTPException(404, "Only a zone has a condition map.")
    try:
        runs = json.loads(form.get("runs", "[]"))
        conditions.mark_damage(context_of(request), job_id, id_, form.get("damage", ""), runs)
    except (json.JSONDecodeError, RecursionError):
        raise HTTPException(422, "The marked squares cannot be read; paint them again.") from None
    except Refused as error:
        raise HTTPException(422, next(iter(error.fields.values()))) from None
    if is_fragment(request):
        return _page(request, job_id, kind, id_)
    return _back(request, job_id, kind, id_)


def _back(request: Request, job_id: str, kind: str, id_: str) -> Response:
    """To the walk when the answer was given there, else to the part's own page."""
    came_from = urlsplit(request.headers.get("referer", ""))
    if came_from.path == (walk := f"/jobs/{job_id}/survey/walk"):
        return RedirectResponse(f"{walk}?{came_from.query}", 303)
    return RedirectResponse(f"/jobs/{job_id}/survey/{kind}/{id_}/condition?said=saved", 303)
