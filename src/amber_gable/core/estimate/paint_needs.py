"""How many litres of each paint a job takes, and how sure that is (docs/trade.md §8, docs/physics.md §11)."""

from collections.abc import Iterable
from dataclasses import dataclass, field

import numpy as np

from amber_gable.core.estimate.draw import COVERAGE_SPREAD, THIRST_SPREAD, Draw
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.work.record import PartWork, WorkLine
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import OperationKind

RESERVE_SHARE = 0.02
KEPT_L = (0.5, 1.0, 2.5, 5.0)
"""Cans that touch-up paint is kept in."""
LEVELS = (50.0, 70.0, 80.0, 90.0, 95.0)
"""Of a hundred such jobs, in how many what is bought is enough: levels shown side by side."""


@dataclass(frozen=True)
class PaintNeed:
    """One product in one colour over the whole job. `litres` by the sheets and medians; p10, p50, p90 of what it may
    come to; `wanted_l` is enough at the buying level; `reserve_l` to be kept for touch-up, of finishes only.
    `level_litres` by LEVELS; `finish`: no primer alone; `samples` (n,) what was drawn."""

    product: Product
    colour: str
    litres: float
    p10: float
    p50: float
    p90: float
    wanted_l: float
    reserve_l: float
    level_litres: tuple[float, ...]
    finish: bool
    samples: Array = field(compare=False, repr=False)


def paint_needs(work: Iterable[PartWork], draw: Draw, level: float) -> list[PaintNeed]:
    """In first-seen order: containers are shared over all coats and faces. `level`: percent of jobs it is enough in."""
    by_can: dict[tuple[str, str], list[WorkLine]] = {}
    for part in work:
        for line in part.lines:
            if line.paint is not None and line.litres > 0:
                by_can.setdefault((line.paint.product.code, line.paint.colour), []).append(line)
    return [_need(lines, draw, level) for lines in by_can.values()]


def _need(lines: list[WorkLine], draw: Draw, level: float) -> PaintNeed:
    paint = lines[0].paint
    assert paint is not None
    litres = sum(line.litres for line in lines)
    samples = litre_samples(lines, draw)
    found = np.quantile(samples, [0.1, 0.5, 0.9, level / 100, *(v / 100 for v in LEVELS)])
    finish = any(line.operation.kind is OperationKind.COAT for line in lines)
    p10, p50, p90, wanted, *levels = (float(v) for v in found)
    reserve = touch_up_reserve(litres) if finish else 0.0
    return PaintNeed(
        paint.product, paint.colour, litres, p10, p50, p90, wanted, reserve, tuple(levels), finish, samples
    )


def litre_samples(lines: Iterable[WorkLine], draw: Draw) -> Array:
    """(samples,): litres of one paint, drawn. What a litre covers errs with the product, thirst with the surfaces, and
    area and what was told by eye with the hours."""
    total = np.zeros(draw.samples)
    product = ""
    for line in lines:
        assert line.paint is not None
        product = line.paint.product.code
        factor = draw.found if line.operation.share < 1 else np.ones(draw.samples)
        if line.paint.absorption != 1:
            factor = factor * draw.of("thirst", THIRST_SPREAD)
        total += line.litres * factor
    return np.asarray(total * draw.area * draw.of(f"coverage {product}", COVERAGE_SPREAD))


def touch_up_reserve(litres: float) -> float:
    """Labelled touch-up paint of a finish: 2 %, as a full can."""
    least = RESERVE_SHARE * litres
    return next((can for can in KEPT_L if can >= least - 1e-9), KEPT_L[-1])
