"""What night, cold and heat do to paint in its can (docs/trade.md §9.5): where cans are kept, and how long one takes
to warm. A can is one lump that takes its heat through its skin: its time constant is ρ c V / (h A), of a cylinder as
high as it is wide."""

from dataclasses import dataclass
from math import log

DENSITY_HEAT = 3.8e6
"""Of waterborne paint, J/(m³ K): 1.3 kg/L at 2.9 kJ/(kg K)."""
SKIN = 8.0
"""Heat through the skin of a can in still room air, convection and radiation together, W/(m² K)."""
ROOM_C = 20.0
FREEZES_C = 0.0
POT_COOLS_C, POT_SKINS_C = 10.0, 27.0
"""Air in which the working pot is kept warm between spells, and in which it is kept shaded and shut."""


def can_time_h(litres: float) -> float:
    """Time constant of a full can, h: about 4 of a gallon, 6 of a pail."""
    volume = litres / 1000.0
    skin_m2 = 5.54 * volume ** (2 / 3)
    return float(DENSITY_HEAT * volume / (SKIN * skin_m2) / 3600.0)


def warming_h(litres: float, from_c: float, to_c: float, room_c: float = ROOM_C) -> float:
    """Hours in a room until a can that lay out is warm enough; 0 where it is already. `to_c` lies below `room_c`."""
    if from_c >= to_c:
        return 0.0
    return can_time_h(litres) * log((room_c - from_c) / (room_c - to_c))


@dataclass(frozen=True)
class ColdNight:
    """A night before films: how cold it gets, what the paint wants, and how long a can that lay out takes to warm.
    Where it `freezes`, waterborne paint is spoilt."""

    low_c: float
    wants_c: float
    litres: float
    warms_h: float

    @property
    def freezes(self) -> bool:
        return self.low_c <= FREEZES_C


def cold_night(low_c: float, wants_c: float, litres: float) -> ColdNight | None:
    """None where paint that lies out may be laid next morning as it is."""
    if low_c >= wants_c:
        return None
    return ColdNight(low_c, wants_c, litres, warming_h(litres, low_c, wants_c))
