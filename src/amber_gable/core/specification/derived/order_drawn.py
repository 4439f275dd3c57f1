"""An order of painting as it is drawn: members with their numbers, and steps. Metres from the lower left as seen."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Member:
    """A piece of the drawing: its number in the order (0 for none), its box, and which way the brush goes ('up',
    'across' or neither)."""

    number: int
    name: str
    x: float
    y: float
    width: float
    height: float
    stroke: str = ""


@dataclass(frozen=True)
class Figure:
    """One drawing. `exit` marks where one leaves a floor, as a point on its edge."""

    title: str
    width: float
    height: float
    members: tuple[Member, ...]
    exit: tuple[float, float] | None = None


@dataclass(frozen=True)
class OrderStep:
    """One line of the checklist; `wait` in words where something must dry or set first."""

    number: int
    words: str
    minutes: float | None = None
    wait: str = ""


@dataclass(frozen=True)
class PaintingOrder:
    title: str
    figures: tuple[Figure, ...]
    steps: tuple[OrderStep, ...]
