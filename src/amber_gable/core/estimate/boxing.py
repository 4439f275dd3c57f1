"""Which containers of a colour are poured together, so that one can looks like the next (docs/trade.md §8)."""

from collections.abc import Sequence
from dataclasses import dataclass

MOST_L = 40.0
"""Two five-gallon pails: what two people still pour to and fro. An assumption."""
CARRIED = 1 / 3
"""Of a box, kept to be stirred into the next."""


@dataclass(frozen=True)
class Box:
    """Containers poured together, by their places in the order they are opened in, and what they hold."""

    first: int
    last: int
    litres: float


def boxes(sizes: Sequence[float], most_l: float = MOST_L) -> list[Box]:
    """Containers in the order they are opened in, litres each; boxed as many at a time as can be poured. One container
    by itself, and a larger one than can be poured, is a box of its own."""
    out: list[Box] = []
    for place, litres in enumerate(sizes):
        before = out[-1] if out else None
        if before is not None and before.litres + litres <= most_l + 1e-9:
            out[-1] = Box(before.first, place, before.litres + litres)
        else:
            out.append(Box(place, place, litres))
    return out
