"""Light on the level from hourly sunshine or cloud (docs/physics.md §2), W/m².

An hour's sunshine is spread within it along a clear sky, so that a morning hour does not lend light to the time before
sunrise, and each hour keeps its energy. Shapes: global and diffuse along Haurwitz (1945), the beam along Meinel &
Meinel's (1976) 0.7^(AM^0.678) with the air mass of Kasten & Young (1989).
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from amber_gable.core.weather.outdoors import irradiance
from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.domain.grid import STEPS_PER_HOUR

if TYPE_CHECKING:
    from amber_gable.core.weather.outdoors.sun import SunPosition

DARK = 20.0
"""Hours in which a clear sky gives less, W/m², do not tell how clear it was."""
MOST_LIFT = 3.0
"""What a dawn hour may be lifted by to keep its energy: its sun and the file's may differ by minutes."""
SEARCH_H = 2
BRIGHT, BRIGHT_HOURS = 100.0, 200
CLEAR_GAIN = 3.0
"""Least betterment of the closure, W/m², for which a label is taken to stand wrong."""


@dataclass(frozen=True)
class HorizontalLight:
    """Shape (T,) or (M, T): global, direct normal and diffuse (W/m²), and the cloud cover used (0-1)."""

    ghi: Array
    dni: Array
    dhi: Array
    cloud: Array


def horizontal_light(
    given: Mapping[str, Array], sun: "SunPosition", hour_of: Ints, smooth: Callable[[Array], Array]
) -> HorizontalLight:
    """Light for every step from hourly columns (..., H) of the names that `WeatherSeries` gives them.

    hour_of (T,): the hour in which each step's light lies; `smooth` runs a column (..., H) straight between the middles
    of those hours. Direct and diffuse where both are measured, global being their sum; else global, with the diffuse
    measured, what the direct leaves, or split after Erbs, Klein & Duffie (1982). Cloud cover alone gives the clear sky
    times Kasten & Czeplak (1980), 1 - 0.75 N^3.4.
    """
    zenith, up = 90.0 - sun.elevation, sun.elevation > 0
    clear = irradiance.clear_sky(zenith)
    shape = given["air_c"].shape
    height = np.sin(np.radians(np.maximum(sun.elevation, 0)))
    if "ghi" in given:
        index = _clearness(given["ghi"], _hour_means(clear, hour_of, shape[-1]))
        # Kasten & Czeplak turned round; the night takes what the evening and morning around it had.
        cloud = smooth(np.clip((1 - np.minimum(index, 1)) / 0.75, 0, 1) ** (1 / 3.4))
        ghi = np.where(up, _spread(given["ghi"], clear, hour_of, smooth), 0.0)
    else:
        cloud = smooth(given.get("cloud", np.full(shape, 0.5)))
        ghi = np.where(up, clear * (1 - 0.75 * cloud**3.4), 0.0)
    if "ghi" in given and "dni" in given:
        mass = irradiance.air_mass(np.where(up, zenith, 90.0))
        beam = np.where(up, 1000.0 * 0.7 ** (mass**0.678), 0.0)
        dni = np.minimum(_spread(given["dni"], beam, hour_of, smooth), 0.85 * sun.extraterrestrial)
        if "dhi" in given:
            dhi = np.where(up, _spread(given["dhi"], clear, hour_of, smooth), 0.0)
            return HorizontalLight(ghi=dni * height + dhi, dni=dni, dhi=dhi, cloud=cloud)
        return HorizontalLight(ghi=ghi, dni=dni, dhi=np.maximum(ghi - dni * height, 0.0), cloud=cloud)
    if "ghi" in given and "dhi" in given:
        dhi = np.minimum(np.where(up, _spread(given["dhi"], clear, hour_of, smooth), 0.0), ghi)
    else:
        dhi = np.nan_to_num(irradiance.erbs_diffuse(ghi, zenith, sun.day))
        dhi = np.clip(dhi, 0, ghi)
    # Near the horizon a small beam on the level would stand for an impossible one square to the sun.
    dni = np.divide(ghi - dhi, height, out=np.zeros_like(ghi), where=np.broadcast_to(height > 0.03, ghi.shape))
    return HorizontalLight(ghi=ghi, dni=np.minimum(dni, sun.extraterrestrial * 0.85), dhi=dhi, cloud=cloud)


def _hour_means(values: Array, hour_of: Ints, hours: int) -> Array:
    """Mean over the steps of each hour, (..., H); 0 in hours without a step."""
    begins = np.flatnonzero(np.diff(hour_of, prepend=-1))
    counts = np.diff(begins, append=len(hour_of))
    out = np.zeros((*values.shape[:-1], hours))
    out[..., hour_of[begins]] = np.add.reduceat(values, begins, axis=-1) / counts
    return out


def _spread(column: Array, clear: Array, hour_of: Ints, smooth: Callable[[Array], Array]) -> Array:
    """Hourly means (..., H) along a clear sky (T,): the clearness runs from hour to hour, each hour's energy stays."""
    hours = column.shape[-1]
    steps = clear * smooth(_clearness(column, _hour_means(clear, hour_of, hours)))
    had = _hour_means(steps, hour_of, hours)
    lift = np.divide(column, had, out=np.zeros_like(had), where=had > 0)
    return np.asarray(steps * np.minimum(lift, MOST_LIFT)[..., hour_of])


def _clearness(column: Array, clear_hour: Array) -> Array:
    """Measured light over that of a clear sky, (..., H); between the hours in which the sun is up it runs straight."""
    up, hours = clear_hour > DARK, np.arange(column.shape[-1])
    ratio = np.divide(column, clear_hour, out=np.full(column.shape, np.nan), where=np.broadcast_to(up, column.shape))
    lit = np.flatnonzero(up)

    def run(row: Array) -> Array:
        known = lit[np.isfinite(row[lit])]
        return np.interp(hours, known, np.clip(row[known], 0, 1.5)) if known.size else np.zeros(len(row))

    return np.asarray(np.apply_along_axis(run, -1, ratio))


@dataclass(frozen=True)
class Closure:
    """The time label at which direct × sine of the sun's height + diffuse comes nearest to global: minutes after the
    label, and the root mean square of the difference, W/m²."""

    offset_min: float
    left: float


def closure(ghi: Array, dni: Array, dhi: Array, elevation: Array) -> Closure | None:
    """Which interval the three kinds of sunshine (H,) stand for, to the step; None with too little sun to tell.

    elevation: the sun's, °, in every step from SEARCH_H hours before the first hour to as long after the last.
    """
    bright = dni > BRIGHT
    if bright.sum() < BRIGHT_HOURS:
        return None
    height, reach = np.sin(np.radians(np.maximum(elevation, 0.0))), SEARCH_H * STEPS_PER_HOUR
    steps = len(ghi) * STEPS_PER_HOUR

    def left(offset: int) -> float:
        mean = height[reach + offset : reach + offset + steps].reshape(-1, STEPS_PER_HOUR).mean(axis=1)
        return float(np.sqrt(np.mean((dni * mean + dhi - ghi)[bright] ** 2)))

    found = {offset: left(offset) for offset in range(-reach, reach + 1)}
    best = min(found, key=lambda offset: (found[offset], abs(offset)))
    if found[0] - found[best] < CLEAR_GAIN:
        best = 0
    return Closure(best * 60 / STEPS_PER_HOUR, found[best])
