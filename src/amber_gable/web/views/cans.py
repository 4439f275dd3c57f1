"""Cans on the bench: the containers of one colour with what will be in them."""

from dataclasses import dataclass

from amber_gable.services.quantities import Order

BENCH = 118.0
_GAP = 12.0


@dataclass(frozen=True)
class Can:
    """A drawn container. `used_y` is the height of the line below which paint is left over; px."""

    x: float
    y: float
    width: float
    height: float
    left_height: float
    pail: bool
    label: str


@dataclass(frozen=True)
class Bench:
    width: float
    cans: list[Can]


def _size(litres: float) -> tuple[float, float]:
    """Drawn width and height: true proportions would hide the small ones, so the cube root rules."""
    side = 22.0 * litres ** (1 / 3)
    return side, side * 1.18


def bench(order: Order) -> Bench:
    """Largest first; what is left over stands in the last containers."""
    sizes = [c.litres for c, n in order.purchase.items for _ in range(n)]
    spare = order.leftover_l
    left: list[float] = []
    for litres in reversed(sizes):
        stays = min(spare, litres)
        left.append(stays)
        spare -= stays
    cans, x = [], 4.0
    for litres, stays in zip(sizes, reversed(left), strict=True):
        width, height = _size(litres)
        cans.append(Can(x, BENCH - height, width, height, height * stays / litres, litres > 10, f"{litres:.3g} L"))
        x += width + _GAP
    return Bench(width=x, cans=cans)
