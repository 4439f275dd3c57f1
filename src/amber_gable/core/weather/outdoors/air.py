"""Moist air (docs/physics.md §1). Temperatures °C, pressures Pa, relative humidity %, densities kg/m³. Any array shape.

Source: Magnus form with the coefficients of Alduchov & Eskridge (1996), J. Appl. Meteorol. 35, 601-609; stated error
below 0.4 % in saturation pressure for -40 to 50 °C.
"""

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]
_A, _B, _C = 610.94, 17.625, 243.04
_R_VAPOUR = 461.5
KELVIN = 273.15


def saturation_pressure(t_c: npt.ArrayLike) -> Array:
    """Saturation vapour pressure over water, Pa."""
    t = np.asarray(t_c, dtype=float)
    return np.asarray(_A * np.exp(_B * t / (_C + t)))


def vapour_pressure(t_c: npt.ArrayLike, rh_pct: npt.ArrayLike) -> Array:
    """Partial pressure of water vapour, Pa."""
    return np.asarray(np.asarray(rh_pct, dtype=float) / 100.0 * saturation_pressure(t_c))


def dew_point(vapour_pa: npt.ArrayLike) -> Array:
    """Dew point, °C: the exact inverse of `saturation_pressure`. Air with no vapour at all is taken at 0.1 Pa."""
    x = np.log(np.maximum(np.asarray(vapour_pa, dtype=float), 0.1) / _A)
    return np.asarray(_C * x / (_B - x))


def vapour_density(vapour_pa: npt.ArrayLike, t_c: npt.ArrayLike) -> Array:
    """Absolute humidity, kg/m³."""
    return np.asarray(np.asarray(vapour_pa, dtype=float) / (_R_VAPOUR * (np.asarray(t_c, dtype=float) + KELVIN)))
