"""Steps put in, taken out or changed by hand, from a form; each with its reason."""

import re
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from amber_gable.core.estimate.methods import is_coat, laid_by
from amber_gable.core.specification.derived.part_spec import Wish
from amber_gable.domain.errors import Refused
from amber_gable.domain.paint.method import Method
from amber_gable.domain.units import UnitSystem, read
from amber_gable.domain.work.finish import Override, OverrideAction
from amber_gable.domain.work.operation import LAYING, UNIT_QUANTITY, Operation, OperationKind, Technique
from amber_gable.services.editing import plain_number


def _number(form: Mapping[str, str], name: str, faults: dict[str, str]) -> float | None:
    try:
        return plain_number(form.get(name, ""))
    except ValueError:
        faults[name] = "is not a number"
        return None


def _amount(operation: Operation, form: Mapping[str, str], system: UnitSystem, faults: dict[str, str]) -> float | None:
    """An amount of its own, in the reader's units."""
    kind = UNIT_QUANTITY.get(operation.unit) if operation.unit is not None else None
    if kind is None or not form.get("amount", "").strip():
        return _number(form, "amount", faults)
    try:
        return read(kind, form["amount"], system)
    except ValueError as error:
        faults["amount"] = str(error)
        return None


def _reason(form: Mapping[str, str], faults: dict[str, str]) -> str:
    reason = form.get("reason", "").strip()
    if len(reason) < 3:
        faults["reason"] = "say why: the crew and the next estimator will ask"
    return reason


def _put(wish: Wish, override: Override) -> Wish:
    """The wish with this override in place of an earlier one of the same step."""
    return replace(wish, overrides=(*(o for o in wish.overrides if o.step != override.step), override))


def removed(wish: Wish, step: str, form: Mapping[str, str]) -> Wish:
    """Take a step out. Raises Refused."""
    faults: dict[str, str] = {}
    reason = _reason(form, faults)
    if faults:
        raise Refused(faults)
    earlier = next((o for o in wish.overrides if o.step == step), None)
    if earlier is not None and earlier.action is OverrideAction.ADD:
        return dropped(wish, step)
    return _put(wish, Override(action=OverrideAction.REMOVE, step=step, reason=reason))


def changed(wish: Wish, operation: Operation, form: Mapping[str, str], system: UnitSystem = UnitSystem.METRIC) -> Wish:
    """Change a step as it stands: name, share, amount, wait, technique, note. Raises Refused or ValidationError."""
    faults: dict[str, str] = {}
    reason = _reason(form, faults)
    share, wait = (_number(form, n, faults) for n in ("share", "wait_h"))
    amount = _amount(operation, form, system, faults)
    if faults:
        raise Refused(faults)
    fields: dict[str, Any] = operation.model_dump()
    fields["name"] = form.get("name", operation.name).strip()
    fields["note"] = form.get("note", operation.note).strip()
    if share is not None and operation.amount is None:
        fields["share"] = share / 100
    if amount is not None and operation.unit is not None:
        fields["amount"] = amount
    fields["wait_h"] = wait or 0.0
    for name in ("technique", "method"):
        if name in form:
            fields[name] = form[name] or None
    if operation.kind.lays_film and fields["method"] in set(Method):
        fields["technique"] = LAYING[Method(fields["method"])]
    fields["because"] = f"by hand: {reason}"
    new = Operation.model_validate(fields)
    earlier = next((o for o in wish.overrides if o.step == operation.id), None)
    action = earlier.action if earlier and earlier.action is OverrideAction.ADD else OverrideAction.CHANGE
    after = earlier.after if earlier else None
    return _put(wish, Override(action=action, step=operation.id, operation=new, after=after, reason=reason))


def added(wish: Wish, operations: tuple[Operation, ...], form: Mapping[str, str]) -> Wish:
    """Put a step in after another. Raises Refused or ValidationError."""
    faults: dict[str, str] = {}
    reason = _reason(form, faults)
    share, wait = _number(form, "share", faults), _number(form, "wait_h", faults)
    name = form.get("name", "").strip()
    if not name:
        faults["name"] = "is needed"
    kind = OperationKind(form["kind"]) if form.get("kind") in set(OperationKind) else None
    if kind is None:
        faults["kind"] = "choose one of the list"
    elif kind.lays_film and not form.get("product"):
        faults["product"] = "a coat needs its product"
    elif not kind.lays_film and form.get("technique") not in set(Technique):
        faults["technique"] = "say how it is done: the safety cards go by it"
    if faults or kind is None:
        raise Refused(faults)
    method = Method(form.get("method") or "brush") if kind.lays_film else None
    taken = {o.id for o in operations} | {o.step for o in wish.overrides}
    base = "own-" + (re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or kind.value)
    id_ = next(n for n in (base, *(f"{base}-{k}" for k in range(2, 100))) if n not in taken)
    operation = Operation.model_validate(
        {
            "id": id_,
            "name": name,
            "kind": kind,
            "technique": LAYING[method] if method else form["technique"],
            "product": form.get("product") if kind.lays_film else None,
            "method": method,
            "share": 1.0 if share is None else share / 100,
            "wait_h": wait or 0.0,
            "note": form.get("note", "").strip(),
            "because": f"by hand: {reason}",
        }
    )
    after = form.get("after") or None
    return _put(wish, Override(action=OverrideAction.ADD, step=id_, operation=operation, after=after, reason=reason))


def dropped(wish: Wish, step: str) -> Wish:
    """Without the override of that step."""
    return replace(wish, overrides=tuple(o for o in wish.overrides if o.step != step))


def laid_otherwise(wish: Wish, operations: tuple[Operation, ...], form: Mapping[str, str]) -> Wish:
    """All coats by one method (`way`: 'airless', or 'airless+' for back-rolling), masked and covered for it by the
    school of that method. Raises Refused."""
    faults: dict[str, str] = {}
    reason = _reason(form, faults)
    name = form.get("way", "")
    if name.removesuffix("+") not in set(Method):
        faults["way"] = "choose how the coats are laid"
    if faults:
        raise Refused(faults)
    method, back_roll = Method(name.removesuffix("+")), name.endswith("+")
    wish = replace(wish, schools={**wish.schools, "method": "spray" if method.sprays else "hand"})
    for coat in laid_by([o for o in operations if is_coat(o)], method, back_roll):
        new = coat.model_copy(update={"because": f"by hand: {reason}"})
        wish = _put(wish, Override(action=OverrideAction.CHANGE, step=coat.id, operation=new, reason=reason))
    return wish
