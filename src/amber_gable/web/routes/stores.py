"""Stores: what the company may choose from, products by family and colours by collection."""

from typing import Any

from fastapi import APIRouter, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.core.estimate.coverage import theoretical_coverage
from amber_gable.core.specification.colour import lab, luminance
from amber_gable.core.specification.hiding import hiding_power
from amber_gable.domain.errors import NotFound, Refused, StaleEdit
from amber_gable.domain.families import FAMILY_NAMES
from amber_gable.domain.product import Product
from amber_gable.exchange.palettes import write_gpl
from amber_gable.exchange.products import dump_products, write_csv
from amber_gable.services import stores
from amber_gable.services.colours import colour_library, drop_own, import_palette
from amber_gable.store.sheets import product_version
from amber_gable.web.pages import page, space_of
from amber_gable.web.views.sheet_form import GROUPS, sheet_values

router = APIRouter(prefix="/stores")


@router.get("")
def shelves(request: Request) -> Response:
    with space_of(request).database.reading() as session:
        company = stores.company(session)
        held = stores.held(session, company.id)
    families = [
        (name, [{"product": p, "spread": theoretical_coverage(p)} for p in held if p.family is family])
        for family, name in FAMILY_NAMES.items()
    ]
    counts = request.query_params.get("new", ""), request.query_params.get("changed", "")
    context = {
        "families": [(n, rows) for n, rows in families if rows],
        "empty": [n for n, rows in families if not rows and n != "Other"],
        "count": len(held),
        "company": company,
        "brought": counts if all(c.isdigit() for c in counts) else None,
        "said": request.query_params.get("said"),
    }
    return page(request, "stores.html", context)


@router.get("/products.json")
def as_json(request: Request) -> Response:
    return _file(dump_products(list(_held(request))), "application/json", "products.json")


@router.get("/products.csv")
def as_csv(request: Request) -> Response:
    return _file(write_csv(list(_held(request))), "text/csv; charset=utf-8", "products.csv")


def _held(request: Request) -> tuple[Product, ...]:
    with space_of(request).database.reading() as session:
        return stores.held(session, stores.company(session).id)


def _file(text: str, kind: str, name: str) -> Response:
    headers = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(text.encode(), media_type=kind, headers=headers)


@router.post("/import")
def import_(request: Request, file: UploadFile) -> Response:
    new, changed = stores.import_products(space_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse(f"/stores?new={new}&changed={changed}", 303)


@router.get("/product/new")
def fresh(request: Request) -> Response:
    return _sheet(request, {"rh_max_pct": "85", "spread_min_c": "3", "family": "exterior-acrylic"}, 0, "")


@router.get("/product/{code}")
def product(request: Request, code: str) -> Response:
    with space_of(request).database.reading() as session:
        company = stores.company(session)
        found = next((p for p in stores.held(session, company.id) if p.code == code), None)
        if found is None:
            raise NotFound("product", code)
        version = product_version(session, company.id, code)
    return _sheet(request, sheet_values(found), version, found.name)


def _sheet(
    request: Request, values: dict[str, Any], version: int, name: str, status: int = 200, **more: Any
) -> Response:
    context = {"groups": GROUPS, "values": values, "version": version, "name": name, "faults": {}, "stale": None}
    return page(request, "stores_product.html", context | more, status)


@router.post("/product/save")
async def save(request: Request) -> Response:
    form = await request.form()
    single = {k: v for k, v in form.items() if isinstance(v, str)}
    several = {k: [v for v in form.getlist(k) if isinstance(v, str)] for k in stores.LISTS}
    version = int(single["version"]) if single.get("version", "").isdigit() else 0
    typed: dict[str, Any] = {**single, **several, **{k: single.get(k) == "yes" for k in stores.FLAGS}}
    try:
        sheet = stores.typed_product(single, several)
        stores.save_product(space_of(request), sheet, version)
    except Refused as error:
        return _sheet(request, typed, version, single.get("name", ""), 422, faults=error.fields)
    except StaleEdit as error:
        return _sheet(request, typed, version, single.get("name", ""), 409, stale=error)
    return RedirectResponse("/stores?said=saved", 303)


@router.post("/product/{code}/delete")
async def delete(request: Request, code: str) -> Response:
    form = await request.form()
    version = int(str(form.get("version"))) if str(form.get("version", "")).isdigit() else 0
    with space_of(request).database.reading() as session:
        held = stores.held(session, stores.company(session).id)
    found = next((p for p in held if p.code == code), None)
    try:
        stores.take_out(space_of(request), code, version)
    except Refused as error:
        values = sheet_values(found) if found else {}
        return _sheet(request, values, version, found.name if found else code, 409, faults=error.fields)
    return RedirectResponse("/stores?said=deleted", 303)


@router.get("/colours")
def colours(request: Request) -> Response:
    with space_of(request).database.reading() as session:
        company = stores.company(session)
        library = colour_library(session, company.id)
    shown = {
        name: [
            {"colour": c, "y": luminance(c.colour), "lab": lab(c.colour), "hides": hiding_power(c.colour).name.lower()}
            for c in list_
        ]
        for name, list_ in library.items()
    }
    counts = request.query_params.get("new", ""), request.query_params.get("changed", "")
    context = {"library": shown, "brought": counts if all(c.isdigit() for c in counts) else None}
    return page(request, "stores_colours.html", context)


@router.get("/colours.gpl")
def palette(request: Request) -> Response:
    with space_of(request).database.reading() as session:
        library = colour_library(session, stores.company(session).id)
    return _file(
        write_gpl([c for list_ in library.values() for c in list_], "Amber Gable"), "text/plain", "colours.gpl"
    )


@router.post("/colours/import")
def import_colours(request: Request, file: UploadFile) -> Response:
    new, changed = import_palette(space_of(request), file.file.read(), file.filename or "upload")
    return RedirectResponse(f"/stores/colours?new={new}&changed={changed}", 303)


@router.post("/colours/drop")
async def drop(request: Request) -> Response:
    form = await request.form()
    with space_of(request).database.reading() as session:
        company = stores.company(session)
    drop_own(space_of(request), company.id, str(form.get("name", "")))
    return RedirectResponse("/stores/colours", 303)
