"""How hours come about, in words: '48.5 m² ÷ 30 m²/h × 1.07 (46 % from a ladder above 3 m)'."""

from __future__ import annotations

from typing import TYPE_CHECKING

from amber_gable.domain.work.operation import AmountUnit

if TYPE_CHECKING:
    from amber_gable.core.work.labour import Labour

UNIT_WORDS = {AmountUnit.M2: "m²", AmountUnit.M: "m", AmountUnit.PIECES: "pieces"}


def reckoned(work: Labour) -> str:
    """Amount by rate by factors, each factor with its name."""
    times = "".join(f" × {f.value:.3g} ({f.name})" for f in work.factors)
    if work.unit is AmountUnit.PIECES:
        minutes = 60 / work.rate.per_hour
        each = f"{minutes / 60:.3g} h" if minutes >= 90 else f"{minutes:.3g} min"
        return f"{work.amount:.3g} × {each}{times}"
    unit = UNIT_WORDS[work.unit]
    return f"{work.amount:.3g} {unit} ÷ {work.rate.per_hour:.3g} {unit}/h{times}"
