"""What it costs to be surer: buying levels side by side, with how often something runs short and what is left over."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np

from amber_gable.core.estimate.estimate import ordered
from amber_gable.core.estimate.paint_needs import LEVELS, PaintNeed
from amber_gable.domain.paint.stock import StockCan

SHOP_H = 0.5
"""At the counter and back, the way not counted. An assumption."""


@dataclass(frozen=True)
class BuyLevel:
    """One buying level over all paints. `cost` of the containers; `left_l` of them is left in the middle of what may
    come; of a hundred such jobs `short_pct` run short of at least one paint; `trips` for a can are made in ten jobs."""

    level: float
    cost: Decimal
    left_l: float
    short_pct: float
    trips: float


def compared_levels(
    needs: Sequence[PaintNeed], stock: Sequence[StockCan] = (), largest_l: float | None = None
) -> list[BuyLevel]:
    """LEVELS, the least sure first; [] for a job without paint. `stock` and `largest_l` as for an order."""
    if not needs:
        return []
    out = []
    for n, level in enumerate(LEVELS):
        bought = [ordered(need, need.level_litres[n], stock, largest_l).purchase for need in needs]
        # What is kept for touch-up is opened before anyone drives.
        short = np.array([need.samples > p.held_l for need, p in zip(needs, bought, strict=True)])
        left = sum(p.held_l - need.p50 for need, p in zip(needs, bought, strict=True))
        cost = sum((p.cost for p in bought), Decimal(0))
        any_short, trips = 100 * float(short.any(axis=0).mean()), 10 * float(short.sum(axis=0).mean())
        out.append(BuyLevel(level, cost, left, any_short, trips))
    return out
