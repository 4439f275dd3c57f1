"""The steps of a part in words a crew understands: on how much, how long, with what, and why."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.domain.paint.product import Product
from amber_gable.domain.units import typed
from amber_gable.domain.work.finish import Override
from amber_gable.domain.work.operation import (
    EARLY_FILMS,
    UNIT_QUANTITY,
    AmountUnit,
    Operation,
    OperationKind,
    Technique,
)
from amber_gable.web.views.estimate.reckoned import UNIT_WORDS, reckoned
from amber_gable.web.views.units import Units

if TYPE_CHECKING:
    from amber_gable.core.specification.derived.part_spec import PartSpec
    from amber_gable.core.work.record import WorkLine


@dataclass(frozen=True)
class ToldStep:
    """`on` says what the step acts on and `part` its share of the surface, `reckoned` how its hours and litres come
    about, `then` the wait after it, `avoided` what a safety card did away with."""

    operation: Operation
    number: int
    on: str
    part: str
    share: str
    amount: str
    amount_unit: str
    hours: float
    time: str
    reckoned: str
    litres: float | None
    product: Product | None
    then: str
    sooner_h: float | None
    because: str
    avoided: str
    override: Override | None


def told_steps(spec: PartSpec, products: Mapping[str, Product], units: Units) -> list[ToldStep]:
    """Every step of a part, numbered."""
    planned = {s.role: s for s in spec.derivation.steps}
    overrides = {o.step: o for o in spec.finish.overrides} if spec.finish else {}
    out = []
    worked = {line.operation.id: line for line in (*spec.work.lines, *spec.work.possible)}
    for number, o in enumerate(spec.operations, 1):
        item = worked[o.id]
        product = products.get(o.product) if o.product else None
        step = planned.get(o.id)
        avoided = ", ".join(t.value.replace("-", " ") for t in step.avoided) if step and o.id not in overrides else ""
        out.append(
            ToldStep(
                operation=o,
                number=number,
                on=_on(o, spec.part.surface_m2),
                part=f"{o.share * 100:.0f} % of it" if o.share < 1 and o.amount is None else "",
                share=f"{o.share * 100:.3g}",
                amount=_amount(o, units),
                amount_unit=units.symbol(UNIT_QUANTITY[o.unit].value) if o.unit in UNIT_QUANTITY else "pieces",
                hours=item.hours,
                time=_time(item.hours),
                reckoned=_reckoned(item),
                litres=item.litres if item.paint else None,
                product=product,
                then=_wait(o, product, spec.next_waits[number - 1]),
                sooner_h=spec.next_waits[number - 1] if spec.next_waits[number - 1] < o.wait_h else None,
                because=o.because,
                avoided=avoided,
                override=overrides.get(o.id),
            )
        )
    return out


def told_moves(spec: PartSpec) -> str:
    """'1.4 h of ladder moves, 6 rounds: 21.6 × 4 min'; nothing for what is reached from the ground."""
    moves = spec.work.moves
    if moves is None:
        return ""
    first, rest = moves.words[:1].lower(), moves.words[1:]
    return f"{_time(moves.hours)} of {first}{rest}: {reckoned(moves.labour)}"


@dataclass(frozen=True)
class StepGroup:
    """Steps that follow one another in one stretch of the work, and the hours they take."""

    name: str
    steps: list[ToldStep]
    time: str


GROUPS = ("Clean, strip", "Repair", "Prime", "Coat", "Finish off")
_K = OperationKind
_STRETCH = {
    _K.PROTECT: 0, _K.FIT: 0, _K.WASH: 0, _K.STRIP: 0, _K.SCRAPE: 0,
    _K.REPAIR: 1, _K.PUTTY: 1, _K.SAND: 1, _K.CLEAN: 1, _K.DUST: 1,
    _K.PRIME: 2, _K.CAULK: 2, _K.MASK: 3, _K.COAT: 3,
}  # fmt: skip


def grouped(told: Sequence[ToldStep]) -> list[StepGroup]:
    """The steps in their order under five heads; a head without steps is left out."""
    found: list[list[ToldStep]] = [[] for _ in GROUPS]
    coats = [s.number for s in told if s.operation.kind is _K.COAT]
    at = 0
    for step in told:
        early = step.operation.id in EARLY_FILMS
        stretch = 4 if coats and step.number > coats[-1] else 1 if early else _STRETCH[step.operation.kind]
        at = max(at, stretch)
        found[at].append(step)
    return [
        StepGroup(name, steps, _time(sum(s.hours for s in steps)))
        for name, steps in zip(GROUPS, found, strict=True)
        if steps
    ]


def _amount(o: Operation, units: Units) -> str:
    """An amount of its own as it is typed."""
    if o.amount is None or o.unit is None:
        return ""
    kind = UNIT_QUANTITY.get(o.unit)
    return typed(kind, o.amount, units.system) if kind is not None else f"{o.amount:g}"


def _reckoned(item: WorkLine) -> str:
    """How hours and litres come about: '58.2 m² ÷ 11 m²/h × 1.15 (from a ladder above 3 m); the trade's median: …'."""
    rate, paint = item.labour.rate, item.paint
    said = f"{reckoned(item.labour)}; {rate.source}: {rate.words}"
    if paint is None:
        return said
    thirst = f" × {paint.absorption:g} thirst" if paint.absorption != 1 else ""
    covers = f"{paint.coverage_m2_l:.3g} m²/L ({paint.coverage_source}) less {paint.loss_pct:g} % lost"
    return f"{said}; {paint.area_m2:.3g} m²{thirst} ÷ {covers}"


def _time(hours: float) -> str:
    """Hours, or minutes where it is less than one."""
    return f"{hours:.1f} h" if hours >= 1 else f"{max(round(hours * 60), 1)} min"


_BY_DAY = (Technique.CONTAIN, Technique.LAY_AGAIN, Technique.DAILY_CLEAN)


def _on(o: Operation, surface_m2: float) -> str:
    if o.unit is AmountUnit.PIECES and o.kind in (_K.PROTECT, _K.CLEAN) and o.amount is not None:
        if o.technique in _BY_DAY:
            return "1 day" if o.amount == 1 else f"{o.amount:.3g} days"
        if o.amount == 1:
            return "once"
    if o.amount is not None and o.unit is not None:
        return f"{o.amount:.3g} {UNIT_WORDS[o.unit]}" if o.amount != 1 or o.unit is not AmountUnit.PIECES else "1 piece"
    area = surface_m2 * o.share
    return f"{area:.1f} m²" if area >= 0.1 else "under 0.1 m²"


def _wait(o: Operation, product: Product | None, next_h: float) -> str:
    """`next_h`: until the step after it."""
    if product is not None:
        return f"recoat {product.recoat_h:g} h"
    if next_h < o.wait_h:
        return f"wait {next_h:g} h"
    if o.wait_h >= 48:
        return f"dry {o.wait_h / 24:.3g} days"
    return f"wait {o.wait_h:g} h" if o.wait_h else ""
