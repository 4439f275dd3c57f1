"""Chance, drawn once for a whole estimate: what is unsure in the same way is drawn under the same name, so that hours
and litres of one job are right or wrong together."""

from math import log
from zlib import crc32

import numpy as np

from amber_gable.core.weather.outdoors.air import Array

SAMPLES = 4000
Z_10 = 1.2815515655446004
"""Standard normal deviate of nine in ten."""
AREA_SPREAD = 1.03
"""Geometric standard deviation of a surface as taken: tape and drawing. An assumption."""
FOUND_SPREAD = 1.3
"""Of a share told by eye: how much is loose or bare is known when it is off. An assumption."""
COVERAGE_SPREAD = 1.2
"""Of what a litre covers in a crew's hands (docs/physics.md §11)."""
THIRST_SPREAD = 1.1
"""Of how much more a bare surface drinks. An assumption."""


class Draw:
    """Random factors about 1 (log-normal) for what an estimate is unsure of. Each is an array (samples,), the same
    for the same seed and name."""

    def __init__(self, seed: int = 0, samples: int = SAMPLES) -> None:
        self.seed, self.samples = seed, samples
        self._kept: dict[str, Array] = {}

    def of(self, name: str, spread: float) -> Array:
        """Factors of that geometric standard deviation."""
        if name not in self._kept:
            # A stream of its own for each name: another line more leaves all others as they were.
            stream = np.random.default_rng([self.seed, crc32(name.encode())])
            self._kept[name] = stream.standard_normal(self.samples)
        return np.asarray(np.exp(self._kept[name] * log(spread)))

    @property
    def area(self) -> Array:
        return self.of("area", AREA_SPREAD)

    @property
    def found(self) -> Array:
        return self.of("found", FOUND_SPREAD)
