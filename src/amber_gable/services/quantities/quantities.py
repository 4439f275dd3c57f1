"""Litres and containers of a job, for the page and the command line alike."""

from dataclasses import asdict, dataclass
from decimal import Decimal
from typing import Any

from amber_gable.core.estimate.containers import Purchase, least_cost
from amber_gable.core.estimate.quantities import QuantityLine, litres_by_colour, quantity_lines, touch_up_reserve
from amber_gable.core.specification.stops import Stop, job_stops
from amber_gable.domain.job import JobBundle
from amber_gable.domain.product import Product


@dataclass(frozen=True)
class Order:
    """What to buy of one product in one colour. leftover_l counts all that is not brushed out, reserve_l within it."""

    product: Product
    colour: str
    litres: float
    reserve_l: float
    purchase: Purchase

    @property
    def leftover_l(self) -> float:
        return self.purchase.litres - self.litres

    @property
    def cost(self) -> Decimal:
        return self.purchase.cost


@dataclass(frozen=True)
class Quantities:
    lines: list[QuantityLine]
    orders: list[Order]
    stops: list[Stop]

    @property
    def cost(self) -> Decimal:
        return sum((o.cost for o in self.orders), Decimal(0))

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
                    "reserve_l": round(o.reserve_l, 4),
                    "sizes": {f"{c.litres:g}": n for c, n in o.purchase.items},
                    "cost": float(o.cost),
                    "leftover_l": round(o.leftover_l, 4),
                }
                for o in self.orders
            ],
        }


def job_quantities(bundle: JobBundle) -> Quantities:
    """Litres by coat, and the containers shared by all coats of one product and colour; what is stopped is marked."""
    stops = job_stops(bundle)
    lines = quantity_lines(bundle, stops)
    orders = []
    for (code, colour), litres in litres_by_colour(lines).items():
        if litres <= 0:
            continue
        product = bundle.product(code)
        reserve = touch_up_reserve(litres)
        orders.append(Order(product, colour, litres, reserve, least_cost(litres + reserve, product.containers)))
    return Quantities(lines, orders, [s for found in stops.values() for s in found])
