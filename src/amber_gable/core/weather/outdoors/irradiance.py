"""Formulas of sunshine, each as it was published, and the solar position algorithm of pvlib.

pvlib states the same formulas; a test holds each equal to it to the last bit. Only its solar position, which is long,
is taken from its source file, alone: the whole package with pandas and scipy takes a second to load, longer than all
the rest of a command.

Angles in degrees, irradiance in W/m², arrays of any shapes that go together.
"""

import sys
from functools import cache
from importlib.util import find_spec, module_from_spec, spec_from_file_location
from pathlib import Path
from types import ModuleType

import numpy as np

from amber_gable.core.weather.outdoors.air import Array, Ints

SOLAR_CONSTANT = 1366.1
"""W/m², ASTM E490."""


@cache
def spa() -> ModuleType:
    """NREL's solar position algorithm (Reda & Andreas 2004) for numpy arrays: the module `pvlib.spa`."""
    loaded = sys.modules.get("pvlib.spa")
    if loaded is not None:
        return loaded
    package = find_spec("pvlib")
    if package is None or not package.submodule_search_locations:
        raise ImportError("pvlib is not installed; make the environment anew with scripts/environment.sh")
    spec = spec_from_file_location("amber_gable_spa", Path(package.submodule_search_locations[0]) / "spa.py")
    if spec is None or spec.loader is None:
        raise ImportError("pvlib holds no solar position algorithm (spa.py); install the version of the lock file")
    module = module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def cosd(angle: Array) -> Array:
    return np.asarray(np.cos(np.radians(angle)))


def sind(angle: Array) -> Array:
    return np.asarray(np.sin(np.radians(angle)))


def pressure_pa(altitude_m: float) -> float:
    """Air pressure of the standard atmosphere at a height (Quaschning 2005)."""
    return float(100 * ((44331.514 - altitude_m) / 11880.516) ** (1 / 0.1902632))


def extraterrestrial(day_of_year: Ints) -> Array:
    """Beam outside the atmosphere (Spencer 1971). Days count from 1."""
    b = (2.0 * np.pi / 365.0) * (day_of_year - 1)
    ratio = 1.00011 + 0.034221 * np.cos(b) + 0.00128 * np.sin(b) + 0.000719 * np.cos(2 * b) + 7.7e-05 * np.sin(2 * b)
    return np.asarray(SOLAR_CONSTANT * ratio)


def clear_sky(zenith: Array) -> Array:
    """Global light on the level under a clear sky (Haurwitz 1945); 0 where the sun is down."""
    height = cosd(zenith)
    out = np.zeros_like(zenith)
    up = height > 0
    out[up] = 1098.0 * height[up] * np.exp(-0.059 / height[up])
    return out


def air_mass(zenith: Array) -> Array:
    """Relative air mass (Kasten & Young 1989); NaN below the horizon."""
    z = np.where(zenith > 90, np.nan, zenith)
    return np.asarray(1.0 / (np.cos(np.radians(z)) + 0.50572 * ((6.07995 + (90 - z)) ** -1.6364)))


def erbs_diffuse(ghi: Array, zenith: Array, day_of_year: Ints) -> Array:
    """Diffuse part of global light (Erbs, Klein & Duffie 1982)."""
    level = extraterrestrial(day_of_year) * np.maximum(cosd(zenith), 0.065)
    kt = np.minimum(np.maximum(ghi / level, 0), 1)
    share = 1 - 0.09 * kt
    middle = 0.9511 - 0.1604 * kt + 4.388 * kt**2 - 16.638 * kt**3 + 12.336 * kt**4
    share = np.where((kt > 0.22) & (kt <= 0.8), middle, share)
    share = np.where(kt > 0.8, 0.165, share)
    diffuse = share * ghi
    beam = (ghi - diffuse) / cosd(zenith)
    # Low sun: all of it is diffuse.
    return np.asarray(np.where((zenith > 87) | (ghi < 0) | (beam < 0), ghi, diffuse))


def incidence_cosine(tilt: Array, azimuth: Array, zenith: Array, bearing: Array) -> Array:
    """Cosine of the angle between the sun and a plane's normal."""
    found = cosd(tilt) * cosd(zenith) + sind(tilt) * sind(zenith) * cosd(bearing - azimuth)
    return np.asarray(np.clip(found, -1, 1))


def hay_davies(tilt: Array, dhi: Array, dni: Array, extra: Array, ratio: Array) -> tuple[Array, Array]:
    """Sky diffuse on a plane (Hay & Davies 1980): from all over the sky, and from about the sun. `ratio`: cosine of
    incidence over that of the zenith angle."""
    clear = dni / extra
    even = np.maximum(dhi * (1 - clear) * (0.5 * (1 + cosd(tilt))), 0)
    about_the_sun = np.maximum(dhi * (clear * ratio), 0)
    return np.asarray(even), np.asarray(about_the_sun)


def ground_diffuse(tilt: Array, ghi: Array, albedo: float) -> Array:
    """Light from a level ground in front of a plane."""
    return np.asarray(ghi * albedo * (1 - np.cos(np.radians(tilt))) * 0.5)
