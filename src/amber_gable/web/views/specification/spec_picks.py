"""The products that could serve each film of a part, side by side."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.services.specification.desk import FilmChoice

if TYPE_CHECKING:
    from amber_gable.core.specification.choices.candidates import RankedProduct


@dataclass(frozen=True)
class PickRow:
    """A candidate; `hours` are workable hours of the coming days, None without weather; `cost_m2` of all
    its coats."""

    candidate: RankedProduct
    hours: float | None
    taken: bool
    cost_m2: float


@dataclass(frozen=True)
class Pick:
    """One film (all finish coats together), its candidates best first, and what a longer-working one would gain."""

    key: str
    name: str
    coats: int
    rows: tuple[PickRow, ...]
    gain: str


def told_picks(choices: Iterable[FilmChoice]) -> list[Pick]:
    out = []
    for film in choices:
        rows = tuple(
            PickRow(candidate=c, hours=h, taken=film.taken == c.product.code, cost_m2=c.cost_m2 * film.coats)
            for c, h in film.ranked
        )
        out.append(Pick(film.key, film.name, film.coats, rows, _gain(rows)))
    return out


def _gain(rows: Sequence[PickRow]) -> str:
    """What the product with the most hours would open over the one taken, in words."""
    taken = next((r.hours for r in rows if r.taken), None)
    best = max(rows, key=lambda r: r.hours or 0.0, default=None)
    if taken is None or best is None or best.hours is None or best.hours <= taken:
        return ""
    return f"{best.candidate.product.name} opens {best.hours - taken:g} more hours in the coming week."
