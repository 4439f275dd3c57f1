"""A job's estimate, whole: every hour, every litre, everything used up, and how sure each is."""

from dataclasses import dataclass
from decimal import Decimal

from amber_gable.core.estimate.consumables import Supply, supplies
from amber_gable.core.estimate.containers import Purchase, least_cost
from amber_gable.core.estimate.draw import Draw
from amber_gable.core.estimate.hours import Hours, job_hours
from amber_gable.core.estimate.paint_needs import PaintNeed, paint_needs
from amber_gable.domain.job import JobBundle
from amber_gable.domain.product import Product


@dataclass(frozen=True)
class Order:
    """What to buy of one product in one colour: enough at the buying level, with what is kept for touch-up."""

    need: PaintNeed
    purchase: Purchase

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
    def leftover_l(self) -> float:
        """What is not brushed out where all goes by the medians, the reserve within it."""
        return self.purchase.litres - self.litres

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
    def paint_cost(self) -> Decimal:
        return sum((o.cost for o in self.orders), Decimal(0))


def job_estimate(bundle: JobBundle, seed: int = 0, level: float | None = None) -> Estimate:
    """Everything that has a finish. Without a `level` the job's own holds."""
    draw, wanted = Draw(seed), bundle.job.estimating.buy_level if level is None else level
    hours = job_hours(bundle, draw)
    needs = paint_needs(hours.work.values(), draw, wanted)
    orders = tuple(Order(n, least_cost(n.wanted_l + n.reserve_l, n.product.containers)) for n in needs)
    sprayed = sum(
        line.litres
        for work in hours.work.values()
        for line in work.lines
        if line.paint is not None and line.paint.method.sprays
    )
    return Estimate(hours, orders, tuple(supplies(hours, sprayed, wanted)), wanted)
