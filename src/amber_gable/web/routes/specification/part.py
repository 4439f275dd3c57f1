"""One part: what is done and why, what is still open, the schools side by side, products, colour and heat."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from typing import TYPE_CHECKING, Any

from fastapi import APIRouter, Request
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import NotFound, Refused, StaleEdit
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.aims import AIM_NAMES, Aim, aims_for
from amber_gable.domain.work.finish import OverrideAction
from amber_gable.domain.work.operation import Operation, OperationKind, Technique
from amber_gable.domain.work.scope import LEAVING_WORDS, Leaving
from amber_gable.services.company.colour_library import library_colour
from amber_gable.services.forms.types import whole
from amber_gable.services.specification.customer_changes import CustomerWish
from amber_gable.services.specification.desk import PartDesk, standing_steps
from amber_gable.services.specification.leaving import leave_part
from amber_gable.services.specification.specifying import (
    Changed,
    change_wish,
    same_for_alike,
    take_system,
    with_school,
)
from amber_gable.services.specification.step_edits import added, changed, dropped, laid_otherwise, removed
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, job_page, load_job, typed_system, units_of
from amber_gable.web.views.estimate.ways import told_method_ways
from amber_gable.web.views.specification.build_up import build_up
from amber_gable.web.views.specification.spec_order import told_order
from amber_gable.web.views.specification.spec_picks import told_picks
from amber_gable.web.views.specification.spec_rows import STATE_WORDS, state_of
from amber_gable.web.views.specification.spec_steps import grouped, told_moves, told_steps

if TYPE_CHECKING:
    from amber_gable.core.specification.derived.part_spec import Wish
    from amber_gable.core.survey.amounts.painted import PaintedPart

router = APIRouter(prefix="/jobs/{job_id}/specification")


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
    view = load_job(request, job_id)
    desk = PartDesk(view, key)
    here, spec, wish, heat = desk.part, desk.spec, desk.wish, desk.heat
    state, _ = state_of(spec, heat)
    told = told_steps(spec, desk.desk.by_code, units_of(request))
    site = view.site if hours else view.known_site
    previous, following = desk.neighbours
    context = {
        "part": here,
        "kind": key[0],
        "what": ITEM_NAMES[here.item_kind] if here.item_kind else SUBSTRATES[here.substrate].name,
        "spec": spec,
        "version": desk.version,
        "wish": wish,
        "state": state,
        "state_words": STATE_WORDS[state],
        "steps": told,
        "groups": grouped(told),
        "moves": told_moves(spec),
        "currency": view.bundle.company.currency,
        "build": build_up(spec.operations, wish.colour, desk.desk.by_code),
        "findings": desk.findings,
        "refused": spec.refused,
        "untold": desk.untold,
        "tests": desk.tests,
        "choices": desk.choices,
        "own_schools": wish.schools,
        "picks": told_picks(desk.film_choices(site)),
        "hours_later": site is None,
        "ways": told_method_ways(desk.ways(site)),
        "heat": heat,
        "order": told_order(desk.order),
        "alike": desk.alike,
        "covers": desk.covers,
        "aims": [(a.value, AIM_NAMES[a]) for a in aims_for(spec.derivation.facts.tags)],
        "aim": spec.derivation.facts.get("keeps_up") or spec.derivation.facts.get("aim"),
        "library": desk.library,
        "systems": desk.desk.systems,
        "kinds": list(OperationKind),
        "techniques": list(Technique),
        "methods": list(Method),
        "shelf": desk.desk.products,
        "ADD": OverrideAction.ADD,
        "leavings": [(how.value, words) for how, words in LEAVING_WORDS.items() if _can_be(key, how)],
        "left_typed": {} if spec.left is None else {k: v or "" for k, v in spec.left.model_dump(mode="json").items()},
        "beside_it": desk.beside_it,
        "planned": view.kept is not None or bool(view.bundle.job.record),
        "previous": previous,
        "following": following,
        "base": f"/jobs/{job_id}/specification/{key[0]}/{key[1]}",
        "faults": {},
        "stale": None,
        "typed": {},
        "chosen": {},
        "done": None,
        "others": None,
    }
    return job_page(request, view, "specification", context | (more or {}), status, "specification/part.html")


def _can_be(key: tuple[str, str], how: Leaving) -> bool:
    """A zone is a part of its wall: it is not taken away."""
    return key[0] == "item" or how is not Leaving.TAKEN_AWAY


def _edit(
    request: Request,
    job_id: str,
    key: tuple[str, str],
    form: dict[str, str],
    change: Callable[[Wish, PaintedPart], Wish],
) -> Response:
    """Make a change and show the part with what it did; faults and stale edits keep what was typed."""
    version = _version(form)
    try:
        done: Changed = change_wish(context_of(request), job_id, key, version, change, _asked(request, form))
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
            hex_, name = library_colour(context_of(request), job_id, form["library"])
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
        return (
            removed(wish, step, form)
            if act == "remove"
            else changed(wish, operation, form, typed_system(request, form))
        )

    return _edit(request, job_id, (kind, id_), {**form, "form": step}, change)


def _standing(request: Request, job_id: str, key: tuple[str, str]) -> tuple[Operation, ...]:
    return standing_steps(context_of(request), load_job(request, job_id).bundle, key)


@router.post("/{kind}/{id_}/way")
def way(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    steps = _standing(request, job_id, (kind, id_))
    return _edit(
        request, job_id, (kind, id_), {**form, "form": "way"}, lambda wish, _: laid_otherwise(wish, steps, form)
    )


@router.post("/{kind}/{id_}/system")
def system(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    try:
        take_system(context_of(request), job_id, (kind, id_), _version(form), form.get("system", ""))
    except Refused as error:
        return part_page(request, job_id, (kind, id_), {"faults": error.fields, "typed": form}, 422)
    except StaleEdit as error:
        return part_page(request, job_id, (kind, id_), {"stale": error, "typed": form}, 409)
    return RedirectResponse(f"/jobs/{job_id}/specification/{kind}/{id_}?said=saved", 303)


@router.post("/{kind}/{id_}/alike")
def alike_too(request: Request, job_id: str, kind: str, id_: str) -> Response:
    try:
        done = same_for_alike(context_of(request), job_id, (kind, id_))
    except Refused as error:
        return part_page(request, job_id, (kind, id_), {"faults": error.fields}, 422)
    return part_page(request, job_id, (kind, id_), {"others": done})


@router.post("/{kind}/{id_}/leave")
def leave(request: Request, job_id: str, kind: str, id_: str, form: Fields) -> Response:
    try:
        leave_part(context_of(request), job_id, (kind, id_), _version(form), form, _asked(request, form))
    except Refused as error:
        return part_page(request, job_id, (kind, id_), {"faults": error.fields, "typed": form}, 422)
    except StaleEdit as error:
        return part_page(request, job_id, (kind, id_), {"stale": error, "typed": form}, 409)
    return RedirectResponse(f"/jobs/{job_id}/specification?said=saved", 303)


def _asked(request: Request, form: dict[str, str]) -> CustomerWish:
    """Who changes it, and in what words the customer asked for it."""
    return CustomerWish(context_of(request).actor, form.get("words", ""))


def _version(form: dict[str, str]) -> int:
    return whole(form.get("version", ""), 0)
