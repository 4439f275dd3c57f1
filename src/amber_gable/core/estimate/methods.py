"""Brush, roller, sprayer side by side for the coats of one part (docs/trade.md §9.1): litres, hours, masking, paint."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.labour import part_labour
from amber_gable.core.work.pace import Pace
from amber_gable.core.work.record import coat_paint, part_moves
from amber_gable.core.work.waits import WHOLE
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import LAYING, Operation, OperationKind

WAYS = (
    (Method.BRUSH, False),
    (Method.ROLLER, False),
    (Method.AIRLESS, False),
    (Method.AIRLESS, True),
    (Method.TURBINE, False),
)


@dataclass(frozen=True)
class MethodWay:
    """One way to lay the coats: litres, hours of coating with the ladder's moves, hours of masking and clearing, paint
    at its best price. `chosen`: so it stands in the steps."""

    method: Method
    back_roll: bool
    litres: float
    hours: float
    masking_h: float
    cost: Decimal
    chosen: bool


def method_ways(
    part: PaintedPart,
    operations: Sequence[Operation],
    products: Mapping[str, Product],
    colour: str,
    pace: Pace,
) -> list[MethodWay]:
    """Ways that the sheets of the coats allow; [] where nothing is coated all over."""
    coats = [o for o in operations if is_coat(o)]
    if not coats:
        return []
    sheets = [products[o.product] for o in coats if o.product is not None]
    allowed = [w for w in WAYS if all(not p.methods or w[0] in p.methods for p in sheets)]
    return [_way(part, operations, products, colour, pace, *w) for w in allowed]


def is_coat(operation: Operation) -> bool:
    return operation.kind is OperationKind.COAT and operation.share >= WHOLE


def laid_by(operations: Sequence[Operation], method: Method, back_roll: bool) -> Iterator[Operation]:
    """The steps with their coats laid so and the openings masked for it."""
    for o in operations:
        if is_coat(o):
            yield o.model_copy(update={"method": method, "technique": LAYING[method], "back_roll": back_roll})
        elif o.kind is OperationKind.MASK:
            yield o.model_copy(update={"method": Method.AIRLESS if method.sprays else None})
        else:
            yield o


def _way(
    part: PaintedPart,
    operations: Sequence[Operation],
    products: Mapping[str, Product],
    colour: str,
    pace: Pace,
    method: Method,
    back_roll: bool,
) -> MethodWay:
    steps = list(laid_by(operations, method, back_roll))
    litres, cost, hours, masking = 0.0, Decimal(0), 0.0, 0.0
    for o in steps:
        if is_coat(o) and o.product is not None:
            paint = coat_paint(part, o, products[o.product], colour)
            litres += paint.litres if paint is not None else 0.0
            cost += products[o.product].price_per_litre * Decimal(str(paint.litres if paint is not None else 0))
            hours += part_labour(part, o, pace).hours
        elif o.kind is OperationKind.MASK:
            masking += part_labour(part, o, pace).hours
    moved = part_moves(part, [o for o in steps if is_coat(o)], pace)
    now = {(o.method, o.back_roll) for o in operations if is_coat(o)}
    return MethodWay(
        method, back_roll, litres, hours + (moved.hours if moved else 0.0), masking, cost, now == {(method, back_roll)}
    )
