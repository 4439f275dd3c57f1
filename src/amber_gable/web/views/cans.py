"""Cans on the bench: the containers of one colour with what will be in them."""

from dataclasses import dataclass

from amber_gable.core.estimate.estimate import Order
from amber_gable.web.views.units import Units

BENCH = 118.0
_GAP = 18.0


@dataclass(frozen=True)
class Can:
    """A drawn container, px. What is left over stands `left_height` high, its top at `left_y`."""

    x: float
    y: float
    width: float
    height: float
    left_y: float
    left_height: float
    middle: float
    lid: tuple[float, float, float]
    handle: str
    label: str


@dataclass(frozen=True)
class Bench:
    width: float
    shelf_y: float
    cans: list[Can]


def _size(litres: float) -> tuple[float, float]:
    """Drawn width and height: true proportions would hide the small ones, so the cube root rules."""
    side = 30.0 * litres ** (1 / 3)
    return side, side * 1.18


def bench(order: Order, units: Units) -> Bench:
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
        y, left_height = BENCH - height, height * stays / litres
        handle = f"M{x:.1f} {y + 6:.1f}q{width / 2:.1f} {height / 2:.1f} {width:.1f} 0" if litres > 10 else ""
        cans.append(
            Can(
                x=x,
                y=y,
                width=width,
                height=height,
                left_y=BENCH - left_height,
                left_height=left_height,
                middle=x + width / 2,
                lid=(x - 1.5, y - 4, width + 3),
                handle=handle,
                label=units.can(litres, figures=3),
            )
        )
        x += width + _GAP
    return Bench(width=x + 4, shelf_y=BENCH + 1, cans=cans)
