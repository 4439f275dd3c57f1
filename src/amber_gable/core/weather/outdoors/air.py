"""Moist air (docs/physics.md §1). Temperatures °C, pressures Pa, relative humidity %, densities kg/m³. Any array shape.

Source: Magnus form with the coefficients of Alduchov & Eskridge (1996), J. Appl. Meteorol. 35, 601-609; stated error
below 0.4 % in saturation pressure for -40 to 50 °C.
"""

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]
_A, _B, _C = 610.94, 17.625, 243.04
ICE_A, ICE_B, ICE_C = 611.21, 22.587, 273.86
"""The same form over ice, -80 to 0 °C."""
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


def saturation_over_face(t_c: npt.ArrayLike) -> Array:
    """Saturation vapour pressure over what lies on a surface of that temperature, Pa: ice below 0 °C, water above."""
    t = np.asarray(t_c, dtype=float)
    return np.asarray(np.where(t < 0.0, ICE_A * np.exp(ICE_B * t / (ICE_C + t)), saturation_pressure(t)))


def frost_point(vapour_pa: npt.ArrayLike) -> Array:
    """Temperature at which vapour settles on a surface, °C: as frost below 0 °C, there above the dew point, else as
    dew."""
    dew = dew_point(vapour_pa)
    x = np.log(np.maximum(np.asarray(vapour_pa, dtype=float), 0.1) / ICE_A)
    return np.asarray(np.where(dew < 0.0, np.minimum(ICE_C * x / (ICE_B - x), 0.0), dew))


def vapour_density(vapour_pa: npt.ArrayLike, t_c: npt.ArrayLike) -> Array:
    """Absolute humidity, kg/m³."""
    return np.asarray(np.asarray(vapour_pa, dtype=float) / (_R_VAPOUR * (np.asarray(t_c, dtype=float) + KELVIN)))
