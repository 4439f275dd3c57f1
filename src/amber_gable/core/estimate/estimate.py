"""A job's estimate, whole: every hour, every litre, everything used up, and how sure each is."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np

from amber_gable.core.estimate.consumables import Supply, additives, supplies
from amber_gable.core.estimate.containers import Box, Purchase, boxes, handier, least_cost
from amber_gable.core.estimate.draw import Draw
from amber_gable.core.estimate.hours import Hours, job_hours
from amber_gable.core.estimate.paint_needs import LEVELS, PaintNeed, paint_needs
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.record import PartWork, WorkLine
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.paint.stock import StockCan


@dataclass(frozen=True)
class Order:
    """What to buy of one product in one colour: enough at the buying level, with what is kept for touch-up. `stock`:
    the cans of the firm's own that are taken for it."""

    need: PaintNeed
    purchase: Purchase
    stock: tuple[StockCan, ...] = ()

    @property
    def product(self) -> Product:
        return self.need.product

    @property
    def colour(self) -> str:
        return self.need.colour

    @property
    def litres(self) -> float:
        return self.need.litres

    @property
    def reserve_l(self) -> float:
        return self.need.reserve_l

    @property
    def cans_l(self) -> list[float]:
        """Litres in each can, in the order they are opened in: the firm's own first."""
        return [*(c.litres for c in self.stock), *(c.litres for c, n in self.purchase.items for _ in range(n))]

    @property
    def boxes(self) -> list[Box]:
        return boxes(self.cans_l)

    @property
    def leftover_l(self) -> float:
        """What is not brushed out where all goes by the medians, the reserve within it."""
        return self.purchase.held_l - self.litres

    @property
    def cost(self) -> Decimal:
        return self.purchase.cost


@dataclass(frozen=True)
class Estimate:
    """Of one job, drawn with one seed; `level` is the percent of such jobs that what is bought is enough in."""

    hours: Hours
    orders: tuple[Order, ...]
    supplies: tuple[Supply, ...]
    level: float

    @property
    def possible(self) -> list[WorkLine]:
        """What is only done where a look asks for it, in none of the sums."""
        return [line for work in self.hours.work.values() for line in work.possible]

    @property
    def paint_cost(self) -> Decimal:
        return sum((o.cost for o in self.orders), Decimal(0))


def job_estimate(
    bundle: JobBundle, seed: int = 0, level: float | None = None, stock: Sequence[StockCan] = ()
) -> Estimate:
    """Everything that has a finish. Without a `level` the job's own holds; `stock`: cans that the job may take."""
    draw, wanted = Draw(seed), bundle.job.estimating.buy_level if level is None else level
    hours = job_hours(bundle, draw)
    needs = paint_needs(hours.work.values(), draw, wanted)
    orders = _orders(bundle, needs, stock)
    sprayed = sum(
        line.litres
        for work in hours.work.values()
        for line in work.lines
        if line.paint is not None and line.paint.method.sprays
    )
    used = [*supplies(hours, sprayed, wanted), *additives(bundle.job.estimating.additives, needs, draw, wanted)]
    return Estimate(hours, orders, tuple(used), wanted)


def job_orders(bundle: JobBundle, work: Mapping[Key, PartWork], stock: Sequence[StockCan] = ()) -> tuple[Order, ...]:
    """The orders of `job_estimate`, by the job's own level, for who needs nothing else of it; `work` as `job_work` has
    it."""
    return _orders(bundle, paint_needs(work.values(), Draw(0), bundle.job.estimating.buy_level), stock)


def _orders(bundle: JobBundle, needs: Sequence[PaintNeed], stock: Sequence[StockCan]) -> tuple[Order, ...]:
    return tuple(ordered(n, n.wanted_l, stock, bundle.job.estimating.largest_l) for n in needs)


def ordered(need: PaintNeed, litres: float, stock: Sequence[StockCan] = (), largest_l: float | None = None) -> Order:
    """What to buy for `litres` (L) plus the touch-up reserve of a paint: cans of the same product and colour in `stock`
    are taken first, the rest is bought in the cheapest set of containers of at most `largest_l`, or of any size where
    none is that small."""
    cans = [c for c in stock if (c.product, c.colour) == (need.product.code, need.colour)]
    sizes = need.product.containers
    small = tuple(c for c in sizes if largest_l is None or c.litres <= largest_l * (1 + 1e-6))
    bought = least_cost(litres + need.reserve_l, small or sizes, tuple(c.litres for c in cans))
    bought = handier(bought, small or sizes)
    return Order(need, bought, tuple(cans[i] for i in bought.taken))


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
