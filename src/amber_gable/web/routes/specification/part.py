"""One part: what is done and why, what is still open, the schools side by side, products, colour and heat."""

import re
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Any

import numpy as np
from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.specification.candidates import candidates
from amber_gable.core.specification.comparison import choices
from amber_gable.core.specification.completing import usual_wish
from amber_gable.core.specification.cover_cost import cover_costs
from amber_gable.core.specification.heat_check import heat_checks
from amber_gable.core.specification.open_tests import open_tests
from amber_gable.core.specification.part_spec import PartSpec, Wish, part_spec
from amber_gable.core.specification.rule import Level
from amber_gable.core.specification.sequences import painting_order
from amber_gable.core.survey.painted import PaintedPart, painted_part, painted_parts
from amber_gable.core.weather.slots import Slots
from amber_gable.domain.aims import AIM_NAMES, Aim, aims_for
from amber_gable.domain.errors import NotFound, Refused, StaleEdit
from amber_gable.domain.families import Family
from amber_gable.domain.finish import OverrideAction
from amber_gable.domain.grid import SLOT_H, SLOT_S, SLOTS_PER_HOUR
from amber_gable.domain.items import ITEM_NAMES
from amber_gable.domain.operation import OperationKind, Technique
from amber_gable.domain.product import Product
from amber_gable.domain.schools import Method
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.services.colours import colour_library, library_colour
from amber_gable.services.job_view import JobView
from amber_gable.services.specifying import (
    Changed,
    alike,
    change_wish,
    leave_out,
    same_for_alike,
    shelf,
    take_system,
    with_school,
)
from amber_gable.services.step_edits import added, changed, dropped, removed
from amber_gable.services.workspace import digest
from amber_gable.store.sheets import company_systems
from amber_gable.store.specification import finish_versions
from amber_gable.web.pages import Fields, job_page, load_job, space_of
from amber_gable.web.routes.specification.overview import wanted_heat
from amber_gable.web.views.build_up import build_up
from amber_gable.web.views.spec_order import told_order
from amber_gable.web.views.spec_picks import picks
from amber_gable.web.views.spec_rows import STATE_WORDS, state_of
from amber_gable.web.views.spec_steps import grouped, told_steps

router = APIRouter()
HOURS_DAYS = 7
"""Days of the forecast over which a product's workable hours are counted."""


@router.get("/{kind}/{id_}")
def part(request: Request, job_id: str, kind: str, id_: str, hours: bool = False) -> Response:
    """`hours`: with the workable hours of every product, though the climate must be computed for it."""
    return part_page(request, job_id, (kind, id_), hours=hours)


def part_page(
    request: Request,
    job_id: str,
    key: tuple[str, str],
    more: dict[str, Any] | None = None,
    status: int = 200,
    *,
    hours: bool = False,
) -> Response:
    view, space = load_job(request, job_id), space_of(request)
    bundle = view.bundle
    found = painted_parts(bundle.property, bundle.job.deduction)
    if key not in found:
        raise NotFound(*key)
    here = found[key]
    with space.database.reading() as session:
        products = shelf(session, bundle)
        version = finish_versions(session, job_id).get(key, 0)
        systems = company_systems(session, bundle.company.id)
        library = colour_library(session, bundle.company.id)
    spec = part_spec(bundle, here, products)
    by_code = {p.code: p for p in (*products, *bundle.products)}
    facts = spec.derivation.facts
    wish = Wish.of(spec.finish) if spec.finish else usual_wish(bundle, here)
    school_rows = space.computed.get(
        "choices" + digest(bundle, key, *products), lambda: choices(here, facts, products, wish.picks)
    )
    heat = None
    if spec.finish is not None:
        wanted = wanted_heat(bundle, spec)
        place = bundle.property.model_copy(update={"faces": (), "zones": (), "items": (), "photos": ()})
        asked = digest(place, here.face, here.part, wanted.colour, wanted.vinyl_school, wanted.vinyl_safe)
        heat = space.computed.get("peak" + asked, lambda: heat_checks(bundle.property, [wanted])[0])
    state, _ = state_of(spec, heat)
    told = told_steps(spec, by_code)
    site = view.site if hours else view.known_site
    keys = list(found)
    at = keys.index(key)
    context = {
        "part": here,
        "kind": key[0],
        "what": ITEM_NAMES[here.item_kind] if here.item_kind else SUBSTRATES[here.substrate].name,
        "spec": spec,
        "version": version,
        "wish": wish,
        "state": state,
        "state_words": STATE_WORDS[state],
        "steps": told,
        "groups": grouped(told, spec),
        "currency": bundle.company.currency,
        "build": build_up(spec.operations, wish.colour, by_code),
        "findings": [f for f in spec.derivation.findings if f.level is not Level.STEP],
        "tests": open_tests(spec.derivation),
        "choices": school_rows,
        "own_schools": wish.schools,
        "picks": picks(spec, products, partial(_hours, view, site, here, wish.colour)),
        "hours_later": site is None,
        "heat": heat,
        "order": told_order(painting_order(here, bundle.property.items_of(here.face.id))),
        "alike": alike(bundle, here),
        "covers": _covers(spec, wish, products, by_code),
        "aims": [(a.value, AIM_NAMES[a]) for a in aims_for(facts.tags)],
        "aim": facts.get("aim"),
        "library": library,
        "systems": systems,
        "kinds": list(OperationKind),
        "techniques": list(Technique),
        "methods": list(Method),
        "shelf": products,
        "ADD": OverrideAction.ADD,
        "previous": found[keys[at - 1]] if at else None,
        "following": found[keys[at + 1]] if at + 1 < len(keys) else None,
        "base": f"/jobs/{job_id}/specification/{key[0]}/{key[1]}",
        "faults": {},
        "stale": None,
        "typed": {},
        "chosen": {},
        "done": None,
        "others": None,
    }
    return job_page(request, view, "specification", context | (more or {}), status, "spec_part.html")


def _hours(
    view: JobView, site: SiteClimate | None, here: PaintedPart, colour: str, product: Product, method: Method
) -> float | None:
    """Workable hours of the coming days for a product on the part; None without weather."""
    if site is None or not site.knows(here.part):
        return None
    windows = site.for_coat(here.part, product, method, colour)
    slots: Slots = windows.slots
    first = int(np.searchsorted(slots.start + SLOT_S * np.arange(len(slots)), view.now.timestamp()))
    return float(np.count_nonzero(windows.ok[0, first : first + HOURS_DAYS * 24 * SLOTS_PER_HOUR])) * SLOT_H


def _covers(spec: PartSpec, wish: Wish, products: list[Product], by_code: dict[str, Product]) -> Any:
    """The ladder of coats, alone and behind a tinted primer; nothing for stains that let the wood show,
    or where the colour stays."""
    coat = next((o for o in spec.operations if o.kind is OperationKind.COAT), None)
    if (
        coat is None
        or coat.product is None
        or spec.derivation.coats.families[0] in (Family.DECK_STAIN, Family.DECK_CLEAR)
    ):
        return []
    families = (Family.BONDING_PRIMER, Family.HYBRID_UNDERCOAT, Family.ACRYLIC_WOOD_PRIMER, Family.MASONRY_UNDERCOAT)
    primers = candidates(families, spec.derivation.facts, coat.method or Method.BRUSH, products)
    primer = primers[0].product if primers else None
    ways = cover_costs(spec.part, wish.colour, coat, by_code[coat.product], primer)
    return [] if ways[0].way.rungs[0].hidden else ways


def _edit(
    request: Request,
    job_id: str,
    key: tuple[str, str],
    form: dict[str, str],
    change: Callable[[Wish, PaintedPart], Wish],
) -> Response:
    """Make a change and show the part with what it did; faults and stale edits keep what was typed."""
    version = int(form.get("version", "0")) if form.get("version", "0").isdigit() else 0
    try:
        done: Changed = change_wish(space_of(request), job_id, key, version, change)
    except Refused as error:
        return part_page(request, job_id, key, {"faults": error.fields, "typed": form}, 422)
    except StaleEdit as error:
        return part_page(request, job_id, key, {"stale": error, "typed": form}, 409)
    return part_page(request, job_id, key, {"done": done, "chosen": form})


@router.post("/{kind}/{id_}/colour")
def colour(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    def change(wish: Wish, here: PaintedPart) -> Wish:
        hex_, name = form.get("colour", "").strip().lower(), form.get("colour_name", "").strip()
        if form.get("library"):
            with space_of(request).database.reading() as session:
                hex_, name = library_colour(session, job_id, form["library"])
        if not re.fullmatch(r"#[0-9a-f]{6}", hex_):
            raise Refused({"colour": "must be a colour such as #e9dcc1"})
        if not 1 <= len(name) <= 120:
            raise Refused({"colour_name": "is needed: the name on the label"})
        aim = Aim(form["aim"]) if form.get("aim") in set(Aim) else wish.aim
        return replace(wish, colour=hex_, colour_name=name, aim=aim)

    return _edit(request, job_id, (kind, id_), form, change)


@router.post("/{kind}/{id_}/derive")
def derive(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    return _edit(request, job_id, (kind, id_), form, lambda wish, _: wish)


@router.post("/{kind}/{id_}/school")
def school(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    topic, code = form.get("topic", ""), form.get("school", "")
    return _edit(request, job_id, (kind, id_), form, lambda wish, _: with_school(wish, topic, code))


@router.post("/{kind}/{id_}/pick")
def pick(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    role, code = form.get("pick", ""), form.get("product", "")

    def change(wish: Wish, _: PaintedPart) -> Wish:
        return replace(wish, picks={**wish.picks, role: code})

    return _edit(request, job_id, (kind, id_), form, change)


@router.post("/{kind}/{id_}/steps")
def add_step(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    steps = _standing(request, job_id, (kind, id_))
    return _edit(request, job_id, (kind, id_), {**form, "form": "add"}, lambda wish, _: added(wish, steps, form))


@router.post("/{kind}/{id_}/steps/{step}")
def change_step(request: Request, job_id: str, kind: str, id_: str, step: str, form: Fields) -> Response:
    operation = next((o for o in _standing(request, job_id, (kind, id_)) if o.id == step), None)
    act = form.get("act", "change")

    def change(wish: Wish, _: PaintedPart) -> Wish:
        if act == "drop":
            return dropped(wish, step)
        if operation is None:
            raise NotFound("step", step)
        return removed(wish, step, form) if act == "remove" else changed(wish, operation, form)

    return _edit(request, job_id, (kind, id_), {**form, "form": step}, change)


def _standing(request: Request, job_id: str, key: tuple[str, str]) -> tuple[Any, ...]:
    """The operations of the part as they stand."""
    space = space_of(request)
    bundle = load_job(request, job_id).bundle
    with space.database.reading() as session:
        products = shelf(session, bundle)
    return part_spec(bundle, painted_part(bundle.property, bundle.job.deduction, key), products).operations


@router.post("/{kind}/{id_}/system")
def system(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    try:
        take_system(space_of(request), job_id, (kind, id_), _version(form), form.get("system", ""))
    except Refused as error:
        return part_page(request, job_id, (kind, id_), {"faults": error.fields, "typed": form}, 422)
    except StaleEdit as error:
        return part_page(request, job_id, (kind, id_), {"stale": error, "typed": form}, 409)
    return RedirectResponse(f"/jobs/{job_id}/specification/{kind}/{id_}?said=saved", 303)


@router.post("/{kind}/{id_}/alike")
def alike_too(request: Request, job_id: str, kind: str, id_: str) -> Response:
    try:
        done = same_for_alike(space_of(request), job_id, (kind, id_))
    except Refused as error:
        return part_page(request, job_id, (kind, id_), {"faults": error.fields}, 422)
    return part_page(request, job_id, (kind, id_), {"others": done})


@router.post("/{kind}/{id_}/leave")
def leave(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    try:
        leave_out(space_of(request), job_id, (kind, id_), _version(form))
    except StaleEdit as error:
        return part_page(request, job_id, (kind, id_), {"stale": error, "typed": form}, 409)
    return RedirectResponse(f"/jobs/{job_id}/specification?said=saved", 303)


def _version(form: dict[str, str]) -> int:
    return int(form["version"]) if form.get("version", "").isdigit() else 0
