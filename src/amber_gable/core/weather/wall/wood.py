"""Moisture that wood comes to in air (docs/physics.md §6)."""

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array


def equilibrium_moisture(air_c: npt.ArrayLike, rh_pct: npt.ArrayLike) -> Array:
    """% of dry mass, any shape. Hailwood-Horrobin form of the USDA Wood Handbook (FPL-GTR-282), eq. 4-5."""
    t = np.asarray(air_c, dtype=float)
    h = np.clip(np.asarray(rh_pct, dtype=float), 0, 100) / 100
    w = 349 + 1.29 * t + 0.0135 * t**2
    k = 0.805 + 0.000736 * t - 0.00000273 * t**2
    k1 = 6.27 - 0.00938 * t - 0.000303 * t**2
    k2 = 1.91 + 0.0407 * t - 0.000293 * t**2
    kh = k * h
    bound = (k1 * kh + 2 * k1 * k2 * kh**2) / (1 + k1 * kh + k1 * k2 * kh**2)
    return np.asarray(1800 / w * (kh / (1 - kh) + bound))
