"""Litres and containers of a job, for the page and the command line alike."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import asdict, dataclass
from decimal import Decimal
from typing import Any, TypeVar

from amber_gable.core.estimate.estimate import Estimate, Order, job_estimate, job_orders
from amber_gable.core.estimate.quantities import QuantityLine, quantity_lines
from amber_gable.core.specification.cautions.stops import Stop, job_stops
from amber_gable.core.work.record import job_work
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.stock import StockCan
from amber_gable.domain.work.finish import CLEAR_COLOUR
from amber_gable.services.company.stock import stock_for
from amber_gable.services.job.view import JobView
from amber_gable.services.workspace import digest

T = TypeVar("T")


def colour_called(order: Order, names: Mapping[str, str]) -> str:
    """What the colour of an order is called; `names` of the job's colours."""
    if order.product.clear and order.colour == CLEAR_COLOUR:
        return "clear"
    return names.get(order.colour) or ("primer" if order.product.primer else "its own colour")


@dataclass(frozen=True)
class Quantities:
    """Litres by coat, what to buy, and what is stopped."""

    lines: list[QuantityLine]
    estimate: Estimate
    stops: list[Stop]

    @property
    def orders(self) -> tuple[Order, ...]:
        return self.estimate.orders

    @property
    def cost(self) -> Decimal:
        return self.estimate.paint_cost

    def as_json(self) -> dict[str, Any]:
        """As `amber-gable quantities --json` prints it (docs/formats.md)."""
        return {
            "lines": [
                {k: v for k, v in asdict(line).items() if k != "coverage_m2_l"}
                | {
                    "area_m2": round(line.area_m2, 3),
                    "spread_m2_per_l": round(line.coverage_m2_l, 4),
                    "litres": round(line.litres, 4),
                    "stopped_litres": round(line.stopped_litres, 4),
                }
                for line in self.lines
            ],
            "stops": [
                {
                    "part": s.part[1],
                    "id": s.rule,
                    "words": s.words,
                    "todo": s.todo,
                    "until": s.until.isoformat() if s.until else None,
                }
                for s in self.stops
            ],
            "containers": [
                {
                    "product": o.product.code,
                    "colour": o.colour,
                    "litres": round(o.litres, 4),
                    "p10": round(o.need.p10, 4),
                    "p50": round(o.need.p50, 4),
                    "p90": round(o.need.p90, 4),
                    "wanted_l": round(o.need.wanted_l, 4),
                    "reserve_l": round(o.reserve_l, 4),
                    "from_stock": {str(c.number): round(c.litres, 4) for c in o.stock},
                    "sizes": {f"{c.litres:g}": n for c, n in o.purchase.items},
                    "cost": float(o.cost),
                    "leftover_l": round(o.leftover_l, 4),
                }
                for o in self.orders
            ],
        }


def kept_quantities(view: JobView) -> Quantities:
    """Those of a job as it stands, worked out once, with what the firm has."""
    return from_quantities(view, "quantities", lambda stock: job_quantities(view.bundle, stock))


def kept_orders(view: JobView) -> tuple[Order, ...]:
    """What is bought for a job as it stands, worked out once, without hours and supplies."""
    bundle = view.bundle
    return from_quantities(view, "orders", lambda stock: job_orders(bundle, job_work(bundle, view.parts), stock))


def from_quantities(view: JobView, what: str, work_out: Callable[[Sequence[StockCan]], T]) -> T:
    """Something worked out once from the job as it stands and what the firm has."""
    stock = stock_for(view)
    return view.ctx.space.computed.get(what + digest(view.bundle, *stock), lambda: work_out(stock))


def job_quantities(bundle: JobBundle, stock: Sequence[StockCan] = ()) -> Quantities:
    """Litres by coat, and the containers shared by all coats of one product and colour; what is stopped is marked."""
    stops = job_stops(bundle)
    estimate = job_estimate(bundle, stock=stock)
    return Quantities(
        quantity_lines(estimate.hours.work, stops), estimate, [s for found in stops.values() for s in found]
    )
