"""The condition of many surfaces at once: how often each answer was given, and one touch to give it to all."""

from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.services.survey import conditions
from amber_gable.services.survey.findings import metered, set_findings, surface_kinds, surfaces_of, tallies
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, typed_system
from amber_gable.web.routes.survey.sheet import Sheet, is_fragment, read_sheet, show
from amber_gable.web.views.survey.elevation import draw, drawing_scale
from amber_gable.web.views.survey.finding_rows import finding_row

router = APIRouter(prefix="/jobs/{job_id}/survey/findings")
STRIP_W, STRIP_SCALE, STRIP_H = 210.0, 14.0, 165.0


@router.get("")
def findings(request: Request, job_id: str, of: str = "", face: str = "") -> Response:
    return _page(request, job_id, of, face)


def _page(
    request: Request,
    job_id: str,
    of: str,
    face: str,
    *,
    faults: dict[str, str] | None = None,
    typed: str = "",
    changed: tuple[str, int] | None = None,
) -> Response:
    """`faults` by test, with what was `typed` there; `changed`: which test was answered last, on how many surfaces."""
    sheet = read_sheet(request, job_id)
    context = _context(sheet, of, face, faults or {}, typed)
    answered = {changed[0]} if changed else set(faults or {})
    context["more_open"] = any(r.tally.test.code in answered for r in context["more"])
    context |= {"changed": changed, "kept": _kept(context, changed)}
    return show(request, job_id, "survey/findings.html", "parts/survey/findings.html", context, 422 if faults else 200)


def _kept(context: dict[str, Any], changed: tuple[str, int] | None) -> int:
    """On how many surfaces the answer given last was left as it is painted on the drawing."""
    rows = (*context["needed"], *context["more"])
    return next((r.tally.drawn for r in rows if changed and r.tally.test.code == changed[0]), 0)


def _context(sheet: Sheet, of: str, face: str, faults: dict[str, str], typed: str) -> dict[str, Any]:
    property_ = sheet.bundle.property
    base = f"/jobs/{sheet.bundle.job.id}/survey"
    here = f"{base}/findings"
    meant = surfaces_of(property_, of, face)
    rows = [finding_row(t, faults, typed) for t in tallies(meant)]
    scale = drawing_scale(property_.faces, STRIP_W, STRIP_SCALE, STRIP_H, sheet.units)
    on = {s.face for s in surfaces_of(property_, of)}
    return {
        "base": base,
        "job": sheet.bundle.job,
        "here": here,
        "of": of,
        "at": face,
        "whole": {"href": _address(here, "", face), "count": len(surfaces_of(property_, "", face)), "on": of == ""},
        "kinds": [
            {"kind": k, "href": _address(here, k.key, face), "count": len(found), "on": k.key == of}
            for k in surface_kinds(property_)
            if (found := surfaces_of(property_, k.key, face)) or k.key == of
        ],
        "walls": [
            {
                "drawing": draw(property_, f, scale, units=sheet.units),
                "face": f,
                "href": _address(here, of, "" if f.id == face else f.id),
                "on": f.id == face,
                "dim": f.id not in on or face not in ("", f.id),
                "left": sum(t.needed for t in tallies(surfaces_of(property_, of, f.id))),
            }
            for f in property_.faces
        ],
        "all_walls": _address(here, of, ""),
        "count": len(meant),
        "needed": [r for r in rows if r.tally.essential],
        "more": [r for r in rows if not r.tally.essential],
        "left": sum(r.tally.needed for r in rows),
        "meters": metered(property_, meant),
        "steps": sheet.steps,
        "faults": faults,
        "typed": typed,
        "back": _address(here, of, face),
    }


def _address(here: str, of: str, face: str) -> str:
    asked = urlencode({k: v for k, v in (("of", of), ("face", face)) if v})
    return f"{here}?{asked}" if asked else here


@router.post("")
def answer(request: Request, job_id: str, form: Fields) -> Response:
    of, face, test = form.get("of", ""), form.get("face", ""), form.get("test", "")
    text = form.get("value") or form.get("typed", "")
    try:
        number = set_findings(context_of(request), job_id, of, face, test, text, typed_system(request, form))
    except Refused as error:
        faults = {test: next(iter(error.fields.values()))}
        return _page(request, job_id, of, face, faults=faults, typed=form.get("typed", ""))
    return _done(request, job_id, of, face, (test, number))


@router.post("/moisture/{kind}/{id_}")
def moisture(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    of, face = form.get("of", ""), form.get("face", "")
    try:
        conditions.add_moisture(context_of(request), job_id, kind, id_, form.get("pct", ""), "")
    except Refused as error:
        faults = {f"{kind}-{id_}": next(iter(error.fields.values()))}
        return _page(request, job_id, of, face, faults=faults, typed=form.get("pct", ""))
    return _done(request, job_id, of, face, ("meter", 1))


def _done(request: Request, job_id: str, of: str, face: str, changed: tuple[str, int]) -> Response:
    if is_fragment(request):
        return _page(request, job_id, of, face, changed=changed)
    return RedirectResponse(_address(f"/jobs/{job_id}/survey/findings", of, face), 303)
