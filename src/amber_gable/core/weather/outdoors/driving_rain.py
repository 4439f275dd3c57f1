"""Rain on faces: as the wind drives it (ISO 15927-3:2009), under eaves, and whether it would find a face at all."""

from collections.abc import Sequence
from math import log
from typing import TYPE_CHECKING

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.domain.house.exposure import Eave, Exposure, Terrain

if TYPE_CHECKING:
    from amber_gable.core.weather.wall.surface import Climate

DROPS_FALL_MS = 5.0
"""Speed at which drops of 1 to 2 mm fall, those of moderate rain."""
GRAZES = 0.05
"""Share of the driven rain below which a face is said to have none of it."""


def beside(of_faces: Array, weather: Array) -> Array:
    """(F,) beside weather of shape (..., T)."""
    return of_faces.reshape(-1, *(1,) * weather.ndim)


def facing_wind(steps: Steps, azimuth: Array) -> Array:
    """Cosine between each face's bearing (F,) and that the wind comes from, (F, ..., T)."""
    north, east = steps.wind_bearing
    bearing = beside(np.radians(azimuth), steps.wind)
    return np.asarray(np.cos(bearing) * north + np.sin(bearing) * east)


ABOVE_M = 8.0
"""Height above the ground for which roughness is taken: houses of one or two storeys."""
ROUGHNESS = {
    Terrain.OPEN_WATER: round(0.17 * log(ABOVE_M / 0.01), 2),
    Terrain.FARMLAND: round(0.19 * log(ABOVE_M / 0.05), 2),
    Terrain.SUBURB: round(0.22 * log(ABOVE_M / 0.3), 2),
    # Below 16 m it is that of 16 m.
    Terrain.TOWN: round(0.24 * log(16.0 / 1.0), 2),
}
"""C_R, terrain factor times ln of height over roughness length: 1.14, 0.96, 0.72, 0.67."""
TOPOGRAPHY = 1.0
OBSTRUCTION = {Exposure.OPEN: 0.9, Exposure.SHELTERED: 0.3}
"""Nearest obstacle 100 to 120 m away, and 8 to 15 m away: what an `open` and a `sheltered` face of a usual house has
before it is an assumption."""
WALL = 0.4
"""W of a gable wall of two storeys; one with an eave has 0.3, the top of one under a flat roof 0.5."""
ON_WALLS = {
    (terrain, exposure): rough * TOPOGRAPHY * share * WALL
    for terrain, rough in ROUGHNESS.items()
    for exposure, share in OBSTRUCTION.items()
}
"""Of the airfield's index what reaches a wall: among houses 0.26, and 0.09 where it is sheltered (ISO 15927-3:2009)."""


def driving_rain(steps: Steps, facing: Array, tilt: Array, stands: Sequence[tuple[Terrain, Exposure]]) -> Array:
    """Rain reaching faces (F,), mm/h, shape (F, ..., T) from weather (..., T); `facing` as `facing_wind` gives it.

    Walls: the wall index of ISO 15927-3, that of an airfield times roughness, topography, obstruction and wall factor,
    times cos θ, nothing from behind; level planes take rain as it falls; between, by the tilt's sine and cosine.
    """
    angle = beside(np.radians(tilt), steps.wind_from)
    factor = beside(np.array([ON_WALLS[s] for s in stands]), steps.wind_from)
    driven = factor * steps.rain_on_walls * np.maximum(facing, 0.0)
    return np.asarray(driven * np.sin(angle) + steps.falling * np.cos(angle))


def under_eaves(steps: Steps, eaves: Sequence[Eave | None], facing: Array) -> Array:
    """(F, ..., T): 0 where drops that the wind drives slant too little to come in under the eave, 1 elsewhere."""
    out = np.ones(facing.shape)
    for row, eave in enumerate(eaves):
        if eave is not None:
            onto = np.maximum(facing[row], 0.0) * steps.wind
            out[row] = onto * eave.below_m > eave.depth_m * DROPS_FALL_MS
    return out


def rain_finds(climate: "Climate") -> npt.NDArray[np.bool_]:
    """Whether rain that fell then would reach each face, (F, ..., T): driven onto it, or onto a slope, and not kept off
    altogether by what is above."""
    faces, steps = climate.faces, climate.steps
    tilt, open_ = np.radians([f.tilt_deg for f in faces]), np.array([f.rain_exposure for f in faces])
    facing = facing_wind(steps, np.array([f.azimuth_deg for f in faces]))
    reaching = np.maximum(facing, 0.0) * beside(np.sin(tilt), steps.wind) + beside(np.cos(tilt), steps.wind)
    comes_in = under_eaves(steps, [f.eave for f in faces], facing)
    return np.asarray(comes_in * beside(open_, steps.wind) * reaching > GRAZES)
