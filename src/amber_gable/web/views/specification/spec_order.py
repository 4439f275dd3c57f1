"""The order of painting drawn: members to scale with their numbers and the way of the brush."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from amber_gable.core.specification.derived.order_drawn import Figure, Member, OrderStep, PaintingOrder


WIDEST, HIGHEST = 300.0, 300.0
MARGIN = 14.0
_LEAST_TEXT = 9.0


@dataclass(frozen=True)
class OrderBox:
    """A member in px; `text` its number's size, 0 where there is no room."""

    number: int
    name: str
    x: float
    y: float
    width: float
    height: float
    text: float
    middle: tuple[float, float]
    stroke: str


@dataclass(frozen=True)
class Drawn:
    title: str
    width: float
    height: float
    inner: tuple[float, float, float, float]
    boxes: tuple[OrderBox, ...]
    way_out: str


@dataclass(frozen=True)
class ToldOrder:
    title: str
    figures: tuple[Drawn, ...]
    steps: tuple[OrderStep, ...]


def told_order(order: PaintingOrder | None) -> ToldOrder | None:
    """The order for the page; None where the part has none."""
    if order is None:
        return None
    return ToldOrder(order.title, tuple(_drawn(f, len(order.figures)) for f in order.figures), order.steps)


def _drawn(figure: Figure, count: int) -> Drawn:
    scale = min(WIDEST / (count**0.5) / figure.width, HIGHEST / figure.height)
    width, height = figure.width * scale + 2 * MARGIN, figure.height * scale + 2 * MARGIN
    boxes = tuple(_box(m, figure.height, scale) for m in figure.members)
    out = ""
    if figure.exit is not None:
        x, y = MARGIN + figure.exit[0] * scale, MARGIN + (figure.height - figure.exit[1]) * scale
        out = f"M{x:.1f} {y - 22:.1f}v30m-6 -8l6 8l6 -8"
    inner = (MARGIN, MARGIN, figure.width * scale, figure.height * scale)
    return Drawn(figure.title, width, height, inner, boxes, out)


def _box(m: Member, top: float, scale: float) -> OrderBox:
    width, height = m.width * scale, m.height * scale
    x, y = MARGIN + m.x * scale, MARGIN + (top - m.y - m.height) * scale
    text = min(width * 0.75, height * 0.75, 16.0)
    room = m.number > 0 and text >= _LEAST_TEXT * 0.7
    middle_x, middle_y = x + width / 2, y + height / 2
    reach = 0.32
    stroke = ""
    if m.stroke == "across" and width > 30:
        stroke = f"M{middle_x - width * reach:.1f} {middle_y:.1f}H{middle_x + width * reach:.1f}"
    elif m.stroke == "up" and height > 30:
        stroke = f"M{middle_x:.1f} {middle_y - height * reach:.1f}V{middle_y + height * reach:.1f}"
    return OrderBox(
        m.number, m.name, x, y, width, height, max(text, _LEAST_TEXT) if room else 0.0, (middle_x, middle_y), stroke
    )
