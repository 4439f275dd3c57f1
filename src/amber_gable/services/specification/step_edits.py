"""Steps put in, taken out or changed by hand, from a form; each with its reason."""

import re
from collections.abc import Mapping
from dataclasses import replace
from typing import Annotated, Any

from amber_gable.core.estimate.methods import is_coat, laid_by
from amber_gable.core.specification.derived.part_spec import Wish
from amber_gable.domain.errors import Refused
from amber_gable.domain.paint.method import Method
from amber_gable.domain.units import UnitSystem, read
from amber_gable.domain.work.finish import Override, OverrideAction
from amber_gable.domain.work.operation import LAYING, UNIT_QUANTITY, Operation, OperationKind, Technique
from amber_gable.services.forms.form import Form, read_all
from amber_gable.services.forms.types import Number, number, one_of, text_of

_WHY = text_of("say why: the crew and the next estimator will ask", least=3)


class ReasonForm(Form):
    """Why something is done otherwise than it was derived."""

    reason: Annotated[str, _WHY]


class ChangeForm(ReasonForm):
    """A step as it is to be; what is left out stays. `amount` is read in the step's own unit."""

    name: str | None = None
    note: str | None = None
    share: Number | None = None
    amount: str = ""
    wait_h: Number = 0.0
    technique: str | None = None
    method: str | None = None

    @classmethod
    def may_be_empty(cls) -> frozenset[str]:
        return frozenset({"name", "note", "technique", "method"})


class AddForm(ReasonForm):
    """A step to be put in, `after` another or before all."""

    name: str
    kind: Annotated[OperationKind, one_of(list(OperationKind), "choose one of the list")]
    product: str | None = None
    method: Method = Method.BRUSH
    technique: str | None = None
    share: Number | None = None
    wait_h: Number = 0.0
    note: str = ""
    after: str | None = None


class WayForm(ReasonForm):
    """How all coats are laid: a method, with a plus where they are back-rolled."""

    way: Annotated[str, one_of([f"{m}{plus}" for m in Method for plus in ("", "+")], "choose how the coats are laid")]


def _amount(operation: Operation, text: str, system: UnitSystem) -> float | None:
    """An amount of its own, in the reader's units. Raises Refused."""
    kind = UNIT_QUANTITY.get(operation.unit) if operation.unit is not None else None
    try:
        return None if not text else number(text) if kind is None else read(kind, text, system)
    except ValueError as error:
        raise Refused({"amount": str(error)}) from None


def _put(wish: Wish, override: Override) -> Wish:
    """The wish with this override in place of an earlier one of the same step."""
    return replace(wish, overrides=(*(o for o in wish.overrides if o.step != override.step), override))


def removed(wish: Wish, step: str, form: Mapping[str, str]) -> Wish:
    """Take a step out. Raises Refused."""
    reason = ReasonForm.read(form).reason
    earlier = next((o for o in wish.overrides if o.step == step), None)
    if earlier is not None and earlier.action is OverrideAction.ADD:
        return dropped(wish, step)
    return _put(wish, Override(action=OverrideAction.REMOVE, step=step, reason=reason))


def changed(wish: Wish, operation: Operation, form: Mapping[str, str], system: UnitSystem = UnitSystem.METRIC) -> Wish:
    """Change a step as it stands: name, share, amount, wait, technique, note. Raises Refused or ValidationError."""
    typed, amount = read_all(
        lambda: ChangeForm.read(form), lambda: _amount(operation, form.get("amount", "").strip(), system)
    )
    fields: dict[str, Any] = operation.model_dump() | {"wait_h": typed.wait_h}
    for name in ("name", "note"):
        if (text := getattr(typed, name)) is not None:
            fields[name] = text
    for name in ("technique", "method"):
        if (chosen := getattr(typed, name)) is not None:
            fields[name] = chosen or None
    if typed.share is not None and operation.amount is None:
        fields["share"] = typed.share / 100
    if amount is not None and operation.unit is not None:
        fields["amount"] = amount
    if operation.kind.lays_film and fields["method"] in set(Method):
        fields["technique"] = LAYING[Method(fields["method"])]
    fields["because"] = f"by hand: {typed.reason}"
    new = Operation.model_validate(fields)
    earlier = next((o for o in wish.overrides if o.step == operation.id), None)
    action = earlier.action if earlier and earlier.action is OverrideAction.ADD else OverrideAction.CHANGE
    after = earlier.after if earlier else None
    return _put(wish, Override(action=action, step=operation.id, operation=new, after=after, reason=typed.reason))


def added(wish: Wish, operations: tuple[Operation, ...], form: Mapping[str, str]) -> Wish:
    """Put a step in after another. Raises Refused or ValidationError."""
    typed = AddForm.read(form)
    name, kind, lays = typed.name, typed.kind, typed.kind.lays_film
    if lays and not typed.product:
        raise Refused({"product": "a coat needs its product"})
    if not lays and typed.technique not in set(Technique):
        raise Refused({"technique": "say how it is done: the safety cards go by it"})
    method = typed.method if lays else None
    taken = {o.id for o in operations} | {o.step for o in wish.overrides}
    base = "own-" + (re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:40] or kind.value)
    id_ = next(n for n in (base, *(f"{base}-{k}" for k in range(2, 100))) if n not in taken)
    operation = Operation.model_validate(
        {
            "id": id_,
            "name": name,
            "kind": kind,
            "technique": LAYING[method] if method else typed.technique,
            "product": typed.product if lays else None,
            "method": method,
            "share": 1.0 if typed.share is None else typed.share / 100,
            "wait_h": typed.wait_h,
            "note": typed.note,
            "because": f"by hand: {typed.reason}",
        }
    )
    own = Override(action=OverrideAction.ADD, step=id_, operation=operation, after=typed.after, reason=typed.reason)
    return _put(wish, own)


def dropped(wish: Wish, step: str) -> Wish:
    """Without the override of that step."""
    return replace(wish, overrides=tuple(o for o in wish.overrides if o.step != step))


def laid_otherwise(wish: Wish, operations: tuple[Operation, ...], form: Mapping[str, str]) -> Wish:
    """All coats by one method (`way`: 'airless', or 'airless+' for back-rolling), masked and covered for it by the
    school of that method. Raises Refused."""
    typed = WayForm.read(form)
    reason, method, back_roll = typed.reason, Method(typed.way.removesuffix("+")), typed.way.endswith("+")
    wish = replace(wish, schools={**wish.schools, "method": "spray" if method.sprays else "hand"})
    for coat in laid_by([o for o in operations if is_coat(o)], method, back_roll):
        new = coat.model_copy(update={"because": f"by hand: {reason}"})
        wish = _put(wish, Override(action=OverrideAction.CHANGE, step=coat.id, operation=new, reason=reason))
    return wish
