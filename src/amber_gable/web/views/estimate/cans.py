"""Cans on the bench: the containers of one colour with what will be in them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.web.views.units import Units

if TYPE_CHECKING:
    from amber_gable.core.estimate.containers import Box
    from amber_gable.core.estimate.estimate import Order

BENCH = 92.0
_GAP = 14.0
_LABEL = 56.0
"""Room for a can's label, px: no label is cut off, and none runs into the next."""


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
class Bracket:
    """What is poured together: a line under its containers, px."""

    x1: float
    x2: float
    middle: float
    words: str


@dataclass(frozen=True)
class Bench:
    """px; the drawing begins at `top`, over the tallest container."""

    width: float
    top: float
    height: float
    shelf_y: float
    cans: list[Can]
    brackets: list[Bracket]


def _size(litres: float) -> tuple[float, float]:
    """Drawn width and height: true proportions would hide the small ones, so the cube root rules."""
    side = 24.0 * litres ** (1 / 3)
    return side, side * 1.18


def bench(order: Order, units: Units) -> Bench:
    """Largest first; what is left over stands in the last containers."""
    sizes = order.cans_l
    spare = order.leftover_l
    left: list[float] = []
    for litres in reversed(sizes):
        stays = min(spare, litres)
        left.append(stays)
        spare -= stays
    own = [f"no. {c.number}" for c in order.stock]
    cans: list[Can] = []
    x = 2.0
    for litres, stays in zip(sizes, reversed(left), strict=True):
        width, height = _size(litres)
        room = max(width + _GAP, _LABEL)
        start = x
        x += (room - width) / 2
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
                label=own[len(cans)] if len(cans) < len(own) else units.can(litres, figures=3),
            )
        )
        x = start + room
    brackets = _brackets(order.boxes, cans, units)
    top = min(c.lid[1] for c in cans) - 2
    bottom = BENCH + (46 if brackets else 22)
    return Bench(x + 2, top, bottom - top, BENCH + 1, cans, brackets)


def _brackets(found: list[Box], cans: list[Can], units: Units) -> list[Bracket]:
    """Nothing for a single can."""
    if len(cans) < 2:
        return []
    out = []
    for number, box in enumerate(found, 1):
        x1, x2 = cans[box.first].middle - 20, cans[box.last].middle + 20
        name = "box" if len(found) == 1 else f"box {number}"
        out.append(Bracket(x1, x2, (x1 + x2) / 2, f"{name} {units.can(box.litres, figures=3)}"))
    return out


def told_boxes(order: Order) -> str:
    """How its containers are boxed, in a sentence; nothing for a single one."""
    if len(order.cans_l) < 2:
        return ""
    if len(order.boxes) == 1:
        return "Box them all before the first stroke, and wipe the rims."
    return (
        "Boxed as drawn: a third of each box is kept back and stirred into the next, so that no wall shows the change."
    )
