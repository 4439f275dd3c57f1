"""Items that lie down are painted on one side, turned once that film bears it, and painted on the other
(docs/trade.md §19)."""

from collections.abc import Sequence
from dataclasses import dataclass

from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.domain.house.items import Casement, DoorItem, SashWindow, ShutterPair
from amber_gable.domain.house.survey import Item
from amber_gable.domain.work.operation import Operation


@dataclass(frozen=True)
class Side:
    """A side of an item that lies down: as shares of the item, as if its two sides were rolled out next to each
    other, so that the site's record can speak of each."""

    name: str
    left: float
    right: float


_LEAST = 1e-6
WHOLE = (Side("", 0.0, 1.0),)
"""Work on an item that is not done side by side."""


def sides(part: PaintedPart, first: Operation) -> tuple[Side, ...]:
    """The sides on which a stint that begins with `first` is done one after the other: a film on both sides of what
    lies elsewhere, the side that is seen last, so that it never lies on its pads fresh; else the whole item."""
    spec = part.part.spec if isinstance(part.part, Item) else None
    if spec is None or first.where is None or not first.kind.lays_film:
        return WHOLE
    if isinstance(spec, ShutterPair):
        return (Side("back", 0.0, 0.5), Side("front", 0.5, 1.0))
    if isinstance(spec, DoorItem | SashWindow | Casement) and spec.sides > 1:
        return (Side("inside", 0.0, 0.5), Side("outside", 0.5, 1.0))
    return WHOLE


def side_named(part: PaintedPart, operations: Sequence[Operation], left: float, right: float) -> str:
    """The name of the side of an item that lies down between two shares of it; empty where it is none, or not it
    alone."""
    found = (
        s.name for o in operations for s in sides(part, o) if s.left <= left + _LEAST and right <= s.right + _LEAST
    )
    return next((name for name in found if name), "")
