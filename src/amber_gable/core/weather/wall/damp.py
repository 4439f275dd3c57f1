"""How wet a substrate counts as under a coat, by what is known of its water (docs/physics.md §6)."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.substrate_moisture import UNREAD_PCT, Moisture, MoistureEvent, through
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.domain.findings.moisture_figures import WoodFigures, moisture_figures
from amber_gable.domain.grid import STEP_S

NEAR_PCT, LEFT_BY_WATER_PCT = 1.5, 1.0
"""How far over its limit, beyond the benefit of the doubt, unread wood may be said to be by the air alone before that
closes; and how much washing or rain may have left in it: assumptions."""
GOLDEN, TENTH = 0.6180339887, 1.2816
"""A step whose multiples fill the unit evenly; normal deviate of the ends of the band, P10 and P90."""


@dataclass(frozen=True)
class Damp:
    """What a coat must know of the water in its substrate: how much there may be, what happened to it, a reading whose
    day nobody knows and that therefore lasts, whether the surface lies bare to rain, whether air is below, and how much
    slower than usual it dries where that was found already. `asks_before`: whether it matters what fell before the
    weather that is known; not where a step wets the wall first, for that is followed by a test of its own."""

    limit: Limit
    events: tuple[MoistureEvent, ...] = ()
    lasting: float | None = None
    bare: bool = True
    open_below: bool = False
    factor: float | None = None
    asks_before: bool = True

    def pct(self, climate: Climate) -> Array | None:
        """The moisture (%) that the rule compares with the limit, of the first face of a climate: (1, T), or (1, M, T)
        with each member at another place of the prediction's band. None for a substrate that holds no water.

        A prediction overrules the last reading only where its whole band does: after a reading over the limit the
        band's upper end is used, after a lower one, or none, its lower end. Half of the water that washing or rain
        left there is taken off the lower half of the band, since its presence is not in doubt. Infinite where it may be
        too wet or not by what fell before the weather that is known.
        """
        shape = climate.surface[:1].shape
        if self.lasting is not None:
            return np.broadcast_to(np.float64(self.lasting), shape)
        found = through(climate, self.events, open_below=self.open_below, bare=self.bare, factor=self.factor)
        if found is None:
            return None
        unknown = (found.pct[:1] <= self.limit.value) & (found.pct[:1] + found.start_doubt > self.limit.value)
        doubt = np.maximum(found.half_band - found.wetted / 2, 0.0)
        pct = found.pct + np.where(self._read_wet(climate), found.half_band, -doubt)
        if climate.steps.shade is not None:
            pct = pct + _ranks(climate.steps.shade)[:, None] * found.half_band / TENTH
        pct = np.where(self._asks_for_the_meter(climate, found), np.minimum(pct, self.limit.value), pct)
        return np.where(unknown & self.asks_before, np.inf, np.maximum(pct, 0.0)).reshape(shape)

    def _asks_for_the_meter(self, climate: Climate, found: Moisture) -> npt.NDArray[np.bool_]:
        """(R, T): wood that nobody read yet and that only the air is said to keep a little too damp. In service it lies
        below its equilibrium with the air outside (docs/physics.md §6): a meter tells, no prediction stops."""
        unread = np.ones(len(climate.steps), dtype=bool)
        for event in self.events:
            if event.reading is not None:
                unread &= climate.steps.times < event.at - STEP_S / 2
        wood = isinstance(moisture_figures(climate.faces[0].substrate), WoodFigures)
        by_air = found.pct - found.wetted <= self.limit.value + UNREAD_PCT + NEAR_PCT
        return np.asarray(wood & unread & by_air & (found.wetted < LEFT_BY_WATER_PCT))

    def _read_wet(self, climate: Climate) -> npt.NDArray[np.bool_]:
        """(T,): whether the last reading was over the limit."""
        out = np.zeros(len(climate.steps), dtype=bool)
        for event in sorted(self.events, key=lambda e: e.at):
            if event.reading is not None:
                out[climate.steps.times >= event.at - STEP_S / 2] = event.reading > self.limit.value
        return out


def _ranks(shade: Array) -> Array:
    """Normal deviates of the members, evenly spread and not in step with their colours; 0 for the likely one."""
    # Loaded when it is first needed: the program starts without it.
    from scipy.special import ndtri

    rank = (np.arange(len(shade)) * GOLDEN) % 1.0
    return np.where(np.isnan(shade), 0.0, ndtri(np.clip(rank, 0.01, 0.99)))
