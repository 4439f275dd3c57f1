"""Thermal radiation of the sky (docs/physics.md §3). Any array shape; emissivities 0-1, W/m²."""

import numpy as np

from amber_gable.core.weather.outdoors.air import KELVIN, Array

STEFAN_BOLTZMANN = 5.670374e-8


def clear_sky_emissivity(dew_point_c: Array) -> Array:
    """Berdahl & Martin (1984), Solar Energy 32, 663-664: from the dew point in °C."""
    x = dew_point_c / 100.0
    return np.asarray(np.clip(0.711 + 0.56 * x + 0.73 * x**2, 0.3, 1.0))


def infrared_down(air_c: Array, dew_point_c: Array, cloud: Array) -> Array:
    """Downward infrared, W/m². Clouds (0-1) after Unsworth & Monteith (1975), Q. J. R. Met. Soc. 101, 13-24."""
    emissivity = (1 - 0.84 * cloud) * clear_sky_emissivity(dew_point_c) + 0.84 * cloud
    return np.asarray(emissivity * STEFAN_BOLTZMANN * (air_c + KELVIN) ** 4)
