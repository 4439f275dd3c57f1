"""Ways to hide the old colour on a part, by what they cost (docs/physics.md §8)."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

from amber_gable.core.specification.colour.hiding import CoverUp, Hiding, Strictness, cover_ups, hiding_power
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.labour import part_labour
from amber_gable.core.work.pace import USUAL_PACE, Pace
from amber_gable.core.work.record import coat_paint
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import Operation


@dataclass(frozen=True)
class CoverCost:
    """One way with its sums over the whole part. `best` marks the cheapest by paint and labour together."""

    way: CoverUp
    litres: float
    hours: float
    cost: Decimal
    best: bool


def cover_costs(
    part: PaintedPart,
    colour: str,
    coat: Operation,
    finish: Product,
    primer: Product | None,
    *,
    hour_price: float = 45.0,
    limit: float = Strictness.USUAL.value,
    pace: Pace = USUAL_PACE,
) -> list[CoverCost]:
    """Finish coats alone, and behind a tinted primer where there is one to take. `hour_price` weighs an hour against
    paint when the cheapest is looked for, in the company's currency."""
    contrast = finish.contrast or hiding_power(colour).value
    under = (primer.contrast if primer else None) or Hiding.GOOD.value
    ways = cover_ups(part.colour_now, colour, contrast, under, limit)
    sums = [_sums(part, w, coat, finish, primer, colour, pace) for w in (ways if primer else ways[:1])]
    worth = [float(cost) + hours * hour_price for _, hours, cost in sums]
    best = worth.index(min(worth))
    return [
        CoverCost(w, litres, hours, cost, i == best)
        for i, (w, (litres, hours, cost)) in enumerate(zip(ways, sums, strict=False))
    ]


def _sums(
    part: PaintedPart, way: CoverUp, coat: Operation, finish: Product, primer: Product | None, colour: str, pace: Pace
) -> tuple[float, float, Decimal]:
    films: Sequence[Product] = [*([primer] if way.primer and primer else []), *([finish] * way.coats)]
    paints = [coat_paint(part, coat, p, colour) for p in films]
    litres = [p.litres if p is not None else 0.0 for p in paints]
    cost = sum((p.price_per_litre * Decimal(str(v)) for p, v in zip(films, litres, strict=True)), Decimal(0))
    return sum(litres), part_labour(part, coat, pace).hours * len(films), cost
