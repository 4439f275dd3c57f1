"""What is used up beside paint, as it is read: '2 tubes', '1 to 2', 'under 1'."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.web.views.units import Units

if TYPE_CHECKING:
    from amber_gable.core.estimate.consumables import Supply

_KINDS = {"L": "volume", "m²": "area", "m": "run", "kg": "mass"}


@dataclass(frozen=True)
class ToldSupply:
    words: str
    buy: str
    between: str
    because: str


def told_supplies(supplies: Iterable[Supply], units: Units) -> list[ToldSupply]:
    return [ToldSupply(s.words, _buy(s, units), _between(s, units), s.because) for s in supplies]


def _buy(s: Supply, units: Units) -> str:
    if s.unit in _KINDS:
        return units.shown(s.buy, _KINDS[s.unit], _digits(s.buy))
    return f"{s.buy:.0f} {s.unit.removesuffix('s') if s.buy == 1 else s.unit}".rstrip()


def _between(s: Supply, units: Units) -> str:
    if s.unit in _KINDS:
        kind, digits = _KINDS[s.unit], _digits(s.p90)
        low, high = units.figure(s.p10, kind, digits), units.shown(s.p90, kind, digits)
        return high if high.startswith(f"{low} ") else f"{low} to {high}"
    low, high = f"{s.p10:.0f}", f"{s.p90:.0f}"
    if s.p90 < 1:
        return "under 1"
    return high if low == high else f"{low} to {high}"


def _digits(amount: float) -> int:
    return 2 if amount < 1 else 1 if amount < 10 else 0
