"""Settings: where the weather comes from; feeds and loggers mapped with what was understood beside."""

from collections.abc import Mapping as Form
from pathlib import PurePath
from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, HTTPException, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError, Refused
from amber_gable.services.forms.types import whole
from amber_gable.services.weather.held.sources import (
    Draft,
    HousePlace,
    bring_sources,
    choose_feed,
    draft_again,
    draft_of,
    fetch_sample,
    forget_source,
    keep_source,
    kept_sources,
    places,
    source_from,
    sources_json,
    take_file,
    understood,
)
from amber_gable.services.weather.held.spread import spread_fit
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page, units_of
from amber_gable.web.views.weather.feed_form import USES, column_rows, shown_hours

router = APIRouter(prefix="/settings")


@router.get("")
def settings(request: Request) -> Response:
    return _settings(request, {}, {})


def _settings(request: Request, typed: Form[str, str], faults: dict[str, str], status: int = 200) -> Response:
    ctx = context_of(request)
    context = {
        "sources": kept_sources(ctx),
        "service": ctx.space.provider is not None,
        "places": places(ctx),
        "fits": [(p, fit) for p in places(ctx) if (fit := spread_fit(ctx, p.id, ctx.now)) is not None],
        "typed": typed,
        "faults": faults,
        "said": request.query_params.get("said"),
    }
    return page(request, "settings.html", context, status)


def _place(request: Request, place: str) -> HousePlace | None:
    known = places(context_of(request))
    return next((p for p in known if p.id == place), known[0] if known else None)


@router.post("/feed")
def read_feed(request: Request, form: Fields) -> Response:
    """Ask the address once, and go on to its mapping."""
    place = _place(request, form.get("place", ""))
    try:
        token = fetch_sample(context_of(request), form.get("address", ""), place)
    except Refused as error:
        return _settings(request, form, error.fields, 422)
    asked = {"sample": token, "address": form.get("address", "").strip(), "place": place.id if place else ""}
    return RedirectResponse(f"/settings/map?{urlencode(asked)}", 303)


@router.post("/logger")
def read_logger(request: Request, file: UploadFile) -> Response:
    if not file.filename:
        raise HTTPException(422, "Choose a file first: what the logger wrote, as CSV.")
    token = take_file(context_of(request), file.file.read(), file.filename)
    return RedirectResponse(
        f"/settings/map?{urlencode({'sample': token, 'name': PurePath(file.filename).stem[:60]})}", 303
    )


@router.get("/map")
def map_sample(request: Request, sample: str, address: str = "", place: str = "", name: str = "") -> Response:
    draft = draft_of(context_of(request), sample, address, name=name)
    return _map_page(request, draft, _form_of(draft, place), {})


@router.get("/sources/{source_id}")
def map_again(request: Request, source_id: str) -> Response:
    draft = draft_again(context_of(request), source_id)
    return _map_page(request, draft, _form_of(draft, ""), {})


@router.post("/map")
def save(request: Request, form: Fields) -> Response:
    """Keep the mapping; asked for a preview, or by the page itself, show what it makes of the sample."""
    ctx = context_of(request)
    draft = _draft_in(request, form)
    if "hx-request" in request.headers:
        return page(request, "parts/understood.html", _told(request, draft, form))
    if form.get("preview"):
        return _map_page(request, draft, form, {})
    try:
        source = keep_source(ctx, form)
    except Refused as error:
        return _map_page(request, draft, form, error.fields, 422)
    if source.kind == "feed" and form.get("use"):
        choose_feed(ctx, source.id)
    ctx.space.samples.pop(draft.token, None)
    return RedirectResponse("/settings?said=kept", 303)


def _draft_in(request: Request, form: Form[str, str]) -> Draft:
    token = form.get("sample", "")
    if token in context_of(request).space.samples:
        header = whole(form.get("header", ""), -1)
        return draft_of(context_of(request), token, form.get("address", ""), None if header < 0 else header)
    if form.get("id"):
        return draft_again(context_of(request), form["id"])
    raise InputError("sample", "is no longer held", "read it again, then map it")


def _form_of(draft: Draft, place: str) -> dict[str, str]:
    """The form as it first stands."""
    rows = column_rows(draft)
    columns = {f"path-{r.number}": r.path for r in rows} | {f"use-{r.number}": r.use for r in rows}
    return columns | {
        "kind": draft.kind,
        "written": draft.form,
        "sample": draft.token,
        "id": draft.id,
        "name": draft.name,
        "address": draft.address,
        "zone": draft.zone,
        "header": str(draft.sample.header),
        "place": place,
        "use": "1",
    }


def _told(request: Request, draft: Draft, form: Form[str, str]) -> dict[str, Any]:
    """What the form makes of the sample."""
    text = context_of(request).space.samples.get(draft.token)
    if text is None:
        return {"hours": None, "trouble": "No sample is at hand: what was understood shows when it is read again"}
    place = _place(request, form.get("place", ""))
    try:
        source = source_from({**form, "name": form.get("name", "").strip() or "sample"})
    except Refused as error:
        return {"hours": None, "trouble": "; ".join(error.fields.values())}
    now = context_of(request).clock.now()
    tz = place.tz if place is not None else now.astimezone().tzinfo
    assert tz is not None
    found = understood(text, source, tz, now)
    hours = None if found.series is None else shown_hours(found.series, units_of(request), tz)
    return {"hours": hours, "trouble": found.fault}


def _map_page(
    request: Request, draft: Draft, form: Form[str, str], faults: dict[str, str], status: int = 200
) -> Response:
    context = {
        "draft": draft,
        "typed": form,
        "rows": column_rows(draft, form),
        "uses": USES,
        "faults": faults,
        "places": places(context_of(request)),
    }
    return page(request, "settings/map.html", context | _told(request, draft, form), status)


@router.post("/sources/{source_id}/use")
def use(request: Request, source_id: str) -> Response:
    choose_feed(context_of(request), source_id)
    return RedirectResponse("/settings", 303)


@router.post("/sources/{source_id}/drop")
def drop(request: Request, source_id: str) -> Response:
    forget_source(context_of(request), source_id)
    return RedirectResponse("/settings", 303)


@router.post("/service")
def use_service(request: Request) -> Response:
    """Back to the service the program was started with, or to none."""
    choose_feed(context_of(request), None)
    return RedirectResponse("/settings", 303)


@router.get("/sources.json")
def take_out(request: Request) -> Response:
    headers = {"content-disposition": 'attachment; filename="weather-sources.json"'}
    return Response(sources_json(context_of(request)).encode(), media_type="application/json", headers=headers)


@router.post("/sources.json")
def bring_in(request: Request, file: UploadFile) -> Response:
    bring_sources(context_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse("/settings?said=brought", 303)
