"""When the night's water leaves a face: dew, fog or rain that still stands in the morning."""

import numpy as np

from amber_gable.core.weather.judged.rules import WET_FILM
from amber_gable.core.weather.judged.slots import Slots, greatest
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.surface import Climate

MORNING_ENDS_H = 14.0
"""What stands later came by day."""


def dry_from(climate: Climate, slots: Slots) -> Array:
    """(F, D), or (F, M, D): of each local day the epoch second from which no water stands on a face in the morning;
    -inf where none does from midnight on, inf where it does to the morning's end. To the slot."""
    wet = greatest(climate.water_film, slots) > WET_FILM
    ends = slots.start + slots.length_s * (np.arange(len(slots)) + 1.0)
    out = []
    for day in range(int(slots.day[-1]) + 1):
        here = np.flatnonzero((slots.day == day) & (slots.hours < MORNING_ENDS_H))
        if not here.size:
            out.append(np.full(wet.shape[:-1], -np.inf))
            continue
        last = np.where(wet[..., here], ends[here], -np.inf).max(axis=-1)
        out.append(np.where(last >= ends[here[-1]], np.inf, last))
    return np.stack(out, axis=-1)
