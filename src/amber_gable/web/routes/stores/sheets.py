"""Stores: what the company may choose from, products by family and colours by collection."""

from functools import partial
from typing import Any

from fastapi import APIRouter, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused, StaleEdit
from amber_gable.domain.paint.families import FAMILY_NAMES
from amber_gable.domain.paint.product import Base
from amber_gable.domain.units import Quantity, unit
from amber_gable.services.company import stores
from amber_gable.services.company.colour_library import drop_own, import_palette, library, palette_gpl, told_colour
from amber_gable.services.company.own_products import FAMILY_SHEETS, keep_own, own_tried
from amber_gable.services.forms.types import whole
from amber_gable.web.asking import context_of
from amber_gable.web.pages import page, typed_system, units_of
from amber_gable.web.views.sheet_form import GROUPS, field_unit, sheet_rows, sheet_values

router = APIRouter(prefix="/stores")


@router.get("")
def shelves(request: Request) -> Response:
    found = stores.shelves(context_of(request))
    held = found.products
    families = [
        (name, [{"product": p, "spread": stores.coverage(p)} for p in held if p.family is family])
        for family, name in FAMILY_NAMES.items()
    ]
    counts = request.query_params.get("new", ""), request.query_params.get("changed", "")
    context = {
        "families": [(n, rows) for n, rows in families if rows],
        "empty": [n for n, rows in families if not rows and n != "Other"],
        "count": len(held),
        "company": found.company,
        "brought": counts if all(c.isdigit() for c in counts) else None,
        "said": request.query_params.get("said"),
    }
    return page(request, "stores.html", context)


@router.get("/products.json")
def as_json(request: Request) -> Response:
    return _file(stores.products_json(context_of(request)), "application/json", "products.json")


@router.get("/products.csv")
def as_csv(request: Request) -> Response:
    return _file(stores.products_csv(context_of(request)), "text/csv; charset=utf-8", "products.csv")


def _file(text: str, kind: str, name: str) -> Response:
    headers = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(text.encode(), media_type=kind, headers=headers)


@router.post("/import")
def import_(request: Request, file: UploadFile) -> Response:
    new, changed = stores.import_products(context_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse(f"/stores?new={new}&changed={changed}", 303)


@router.get("/product/new")
def fresh(request: Request) -> Response:
    return _sheet(request, {"rh_max_pct": "85", "spread_min_c": "3", "family": "exterior-acrylic"}, 0, "")


@router.get("/product/own")
def own(request: Request) -> Response:
    return _own(request, {"family": "exterior-acrylic"}, {})


def _own(request: Request, typed: dict[str, str], faults: dict[str, str]) -> Response:
    context = {
        "typed": typed,
        "faults": faults,
        "families": [(f.value, FAMILY_NAMES[f]) for f in FAMILY_SHEETS],
        "bases": [("", "as the family"), *((b.value, b.value.replace("-", " ")) for b in Base)],
        "coverage_unit": unit(Quantity.COVERAGE, units_of(request).system).symbol,
    }
    return page(request, "stores/own.html", context | _own_so_far(request, typed), 422 if faults else 200)


def _own_so_far(request: Request, typed: dict[str, str]) -> dict[str, Any]:
    """The sheet as it would be, with what is the family's; or what is amiss."""
    try:
        made, family = own_tried(typed, typed_system(request, typed))
    except Refused as error:
        wrong = [words for words in error.fields.values() if not words.startswith("is needed")]
        return {"rows": [], "trouble": wrong[0] if wrong else ""}
    return {"rows": sheet_rows(made, family, units_of(request).system), "trouble": "", "spread": stores.coverage(made)}


@router.post("/product/own")
async def make_own(request: Request) -> Response:
    typed = {k: v for k, v in (await request.form()).items() if isinstance(v, str)}
    if "hx-request" in request.headers:
        return page(request, "parts/own_sheet.html", _own_so_far(request, typed))
    try:
        code = keep_own(context_of(request), typed, typed_system(request, typed))
    except Refused as error:
        return _own(request, typed, error.fields)
    return RedirectResponse(f"/stores/product/{code}?said=made", 303)


@router.get("/product/{code}")
def product(request: Request, code: str) -> Response:
    found, version = stores.sheet(context_of(request), code)
    return _sheet(request, sheet_values(found, units_of(request).system), version, found.name)


def _sheet(
    request: Request, values: dict[str, Any], version: int, name: str, status: int = 200, **more: Any
) -> Response:
    context = {
        "groups": GROUPS,
        "field_unit": partial(field_unit, system=units_of(request).system),
        "values": values,
        "version": version,
        "name": name,
        "faults": {},
        "stale": None,
        "said": request.query_params.get("said"),
    }
    return page(request, "stores/product.html", context | more, status)


@router.post("/product/save")
async def save(request: Request) -> Response:
    form = await request.form()
    single = {k: v for k, v in form.items() if isinstance(v, str)}
    several = {k: [v for v in form.getlist(k) if isinstance(v, str)] for k in stores.LISTS}
    version = whole(single.get("version", ""), 0)
    typed: dict[str, Any] = {**single, **several, **{k: single.get(k) == "yes" for k in stores.FLAGS}}
    try:
        sheet = stores.typed_product(single, several, typed_system(request, single))
        stores.save_product(context_of(request), sheet, version)
    except Refused as error:
        return _sheet(request, typed, version, single.get("name", ""), 422, faults=error.fields)
    except StaleEdit as error:
        return _sheet(request, typed, version, single.get("name", ""), 409, stale=error)
    return RedirectResponse("/stores?said=saved", 303)


@router.post("/product/{code}/delete")
async def delete(request: Request, code: str) -> Response:
    form = await request.form()
    version = whole(str(form.get("version", "")), 0)
    found = next((p for p in stores.shelves(context_of(request)).products if p.code == code), None)
    try:
        stores.take_out(context_of(request), code, version)
    except Refused as error:
        values = sheet_values(found, units_of(request).system) if found else {}
        return _sheet(request, values, version, found.name if found else code, 409, faults=error.fields)
    return RedirectResponse("/stores?said=deleted", 303)


@router.get("/colours")
def colours(request: Request) -> Response:
    shown = {name: [told_colour(c) for c in list_] for name, list_ in library(context_of(request)).items()}
    counts = request.query_params.get("new", ""), request.query_params.get("changed", "")
    context = {"library": shown, "brought": counts if all(c.isdigit() for c in counts) else None}
    return page(request, "stores/colours.html", context)


@router.get("/colours.gpl")
def palette(request: Request) -> Response:
    return _file(palette_gpl(context_of(request)), "text/plain", "colours.gpl")


@router.post("/colours/import")
def import_colours(request: Request, file: UploadFile) -> Response:
    new, changed = import_palette(context_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse(f"/stores/colours?new={new}&changed={changed}", 303)


@router.post("/colours/drop")
async def drop(request: Request) -> Response:
    form = await request.form()
    drop_own(context_of(request), str(form.get("name", "")))
    return RedirectResponse("/stores/colours", 303)
