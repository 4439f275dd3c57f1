"""Stock: the firm's own cans, by the number on their labels."""

from collections.abc import Mapping

from fastapi import APIRouter, HTTPException, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import Refused
from amber_gable.services.company.stock import add_can, bring_back, count_can, drop_can, label_svg, stock
from amber_gable.services.forms.types import whole
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page, typed_system

router = APIRouter(prefix="/stores/stock")


@router.get("")
def shelf(request: Request) -> Response:
    return _page(request, {}, {})


def _page(request: Request, typed: Mapping[str, str], faults: Mapping[str, str], number: int = 0) -> Response:
    """`number`: the can whose line the faults stand at; the form for a new one otherwise."""
    found = stock(context_of(request))
    said = request.query_params.get("said", "")
    context = {
        "stock": found,
        "typed": typed,
        "faults": faults,
        "at": number,
        "gone": whole(said.removeprefix("gone-"), 0),
        "added": whole(said.removeprefix("added-"), 0),
        "products": [("", "choose")] + [(p.code, p.name) for p in sorted(found.products, key=lambda p: p.name)],
    }
    return page(request, "stores/stock.html", context, 422 if faults else 200)


@router.post("")
def add(request: Request, form: Fields) -> Response:
    try:
        number = add_can(context_of(request), form, typed_system(request, form))
    except Refused as error:
        return _page(request, form, error.fields)
    return RedirectResponse(f"/stores/stock?said=added-{number}", 303)


@router.get("/labels")
def labels(request: Request) -> Response:
    lines = stock(context_of(request)).lines
    return page(request, "stores/labels.html", {"lines": [(line, label_svg(line.can.number)) for line in lines]})


@router.post("/{number}")
def count(request: Request, number: str, form: Fields) -> Response:
    try:
        count_can(context_of(request), _number(number), form, typed_system(request, form))
    except Refused as error:
        return _page(request, form, error.fields, _number(number))
    return RedirectResponse(f"/stores/stock#can-{number}", 303)


@router.post("/{number}/drop")
def drop(request: Request, number: str) -> Response:
    drop_can(context_of(request), _number(number))
    return RedirectResponse(f"/stores/stock?said=gone-{number}", 303)


@router.post("/{number}/back")
def back(request: Request, number: str) -> Response:
    bring_back(context_of(request), _number(number))
    return RedirectResponse(f"/stores/stock#can-{number}", 303)


def _number(typed: str) -> int:
    number = whole(typed, -1)
    if number < 0:
        raise HTTPException(404, "No can has that number.")
    return number
