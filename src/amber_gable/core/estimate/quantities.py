"""Litres per product and colour (docs/trade.md §8): theoretical spread, loss of the method, thirst of the surface."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.record import PartWork


@dataclass(frozen=True)
class QuantityLine:
    """Paint for one coat, summed over the parts that take it in this product, colour and method; `stopped_litres` of it
    for parts that a stop holds."""

    product: str
    colour: str
    coat: str
    method: str
    area_m2: float
    coverage_m2_l: float
    loss_pct: float
    absorption: float
    litres: float
    stopped_litres: float = 0.0


def quantity_lines(work: Mapping[Key, PartWork], stopped: Collection[Key] = ()) -> list[QuantityLine]:
    """Every coat of the job, in the order of the systems, like coats of like parts added up. `stopped`: parts that a
    stop holds; their paint is counted and marked."""
    lines: dict[tuple[object, ...], QuantityLine] = {}
    for key, part in work.items():
        for item in part.lines:
            paint = item.paint
            if paint is None:
                continue
            like = (paint.product.code, paint.colour, item.operation.name, paint.method, paint.absorption)
            before = lines.get(like)
            lines[like] = QuantityLine(
                product=paint.product.code,
                colour=paint.colour,
                coat=item.operation.name,
                method=paint.method.value,
                area_m2=paint.area_m2 + (before.area_m2 if before else 0.0),
                coverage_m2_l=paint.coverage_m2_l,
                loss_pct=paint.loss_pct,
                absorption=paint.absorption,
                litres=paint.litres + (before.litres if before else 0.0),
                stopped_litres=(paint.litres if key in stopped else 0.0) + (before.stopped_litres if before else 0.0),
            )
    return list(lines.values())
