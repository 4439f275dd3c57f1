"""Surface temperature and water film of faces (physics.md §4): one lumped node per face and substrate.

Semi-implicit in 10-minute steps, all faces at once. Natural convection after Walton (1983, TARP): 1.31 |dT|^(1/3) on
walls, 1.52 on level planes warmer than the air, 0.76 on colder ones; forced part 3.8 v^0.9 with the near-surface wind.
Evaporation by the Lewis analogy. Driving rain after ISO 15927-3:2009. A tilted face sees the low, warmer part of the
sky: the share sqrt((1 + cos tilt) / 2) of its sky counts as cold sky, the rest as air (Walton 1983).
"""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather import sun
from amber_gable.core.weather.air import KELVIN, Array, vapour_density
from amber_gable.core.weather.balance import Balance, step_through
from amber_gable.core.weather.sky import STEFAN_BOLTZMANN
from amber_gable.core.weather.steps import Steps
from amber_gable.domain.exposure import Exposure, HorizonPoint
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.substrates import Substrate

INDOOR_C = 20.0
WALL_FILM_MAX = 0.06
FLOOR_FILM_MAX = 0.30
_NEAR_WIND = {Exposure.OPEN: 0.5, Exposure.SHELTERED: 0.25}
_LEE = 0.5
SPIN_UP_DAYS = 2


@dataclass(frozen=True)
class FaceSurface:
    """What the heat balance must know of a face. Angles in degrees; absorptance of its colour 0-1."""

    azimuth_deg: float
    tilt_deg: float
    substrate: Substrate
    absorptance: float
    exposure: Exposure = Exposure.OPEN
    rain_exposure: float = 1.0
    horizon: tuple[HorizonPoint, ...] = ()


@dataclass(frozen=True)
class Climate:
    """Arrays of shape (F, T) at the end of each step: surface °C, its margin over the dew point K, water film kg/m²,
    direct and all light in the plane W/m², convection W/(m² K), rain reaching the face mm/h. `steps` the weather they
    came from."""

    steps: Steps
    faces: tuple[FaceSurface, ...]
    surface: Array
    dew_margin: Array
    water_film: Array
    poa_direct: Array
    poa_global: Array
    convection: Array
    wall_rain: Array

    def rows(self, index: list[int]) -> "Climate":
        """The same weather on some of the faces."""
        picked = {name: getattr(self, name)[index] for name in _PER_FACE}
        return Climate(steps=self.steps, faces=tuple(self.faces[i] for i in index), **picked)


_PER_FACE = ("surface", "dew_margin", "water_film", "poa_direct", "poa_global", "convection", "wall_rain")


def forced_convection(near_wind_ms: npt.ArrayLike) -> Array:
    """3.8 v^0.9 W/(m² K), v the wind near the surface in m/s (after ISO 6946-like outdoor fits)."""
    return np.asarray(3.8 * np.asarray(near_wind_ms, dtype=float) ** 0.9)


def driving_rain(rain_mm_h: Array, wind_ms: Array, wind_from: Array, azimuth: Array, tilt: Array) -> Array:
    """Rain reaching faces, mm/h, shape (F, T) from (T,) weather and (F,) faces.

    Walls: (2/9) v R^(8/9) cos θ (ISO 15927-3), nothing from behind; level planes take R; between, by the tilt's sine
    and cosine.
    """
    along = np.cos(np.radians(wind_from[None, :] - azimuth[:, None]))
    wall = 2.0 / 9.0 * wind_ms[None, :] * rain_mm_h[None, :] ** (8.0 / 9.0) * np.maximum(along, 0.0)
    angle = np.radians(tilt)[:, None]
    return np.asarray(wall * np.sin(angle) + rain_mm_h[None, :] * np.cos(angle))


def surface_climate(steps: Steps, faces: tuple[FaceSurface, ...]) -> Climate:
    """Temperature and water film of each face through the weather.

    The first days are run twice so that the start does not show. No face list may be empty.
    """
    if not faces:
        raise ValueError("no faces to compute")
    azimuth = np.array([f.azimuth_deg for f in faces])
    tilt = np.array([f.tilt_deg for f in faces])
    light = sun.on_faces(steps.sun, steps.light, azimuth, tilt, [f.horizon for f in faces])
    facing_wind = np.cos(np.radians(steps.wind_from[None, :] - azimuth[:, None])) >= 0
    level = tilt < 30
    near = np.array([_NEAR_WIND[f.exposure] for f in faces])[:, None] * steps.wind[None, :]
    near = np.where(facing_wind | level[:, None], near, near * _LEE)
    forced = forced_convection(near)
    rain = steps.rain if steps.rain is not None else np.zeros(len(steps))
    wall_rain = driving_rain(rain, steps.wind, steps.wind_from, azimuth, tilt)
    wall_rain *= np.array([f.rain_exposure for f in faces])[:, None]
    balance = _balance(steps, faces, light, forced, wall_rain / 3600.0, level)
    lead = min(len(steps), SPIN_UP_DAYS * 24 * STEPS_PER_HOUR)
    temperature, film = np.full(len(faces), steps.air[0]), np.zeros(len(faces))
    *_, temperature, film = step_through(balance, temperature, film, lead)
    stepped = step_through(balance, temperature, film, len(steps))
    surface, water, convection = (np.ascontiguousarray(a.T) for a in stepped[:3])
    return Climate(
        steps=steps,
        faces=faces,
        surface=surface,
        dew_margin=surface - steps.dew[None, :],
        water_film=water,
        poa_direct=light.poa_direct,
        poa_global=light.poa_global,
        convection=convection,
        wall_rain=wall_rain,
    )


def _balance(
    steps: Steps,
    faces: tuple[FaceSurface, ...],
    light: sun.FaceLight,
    forced: Array,
    rain_kg_s: Array,
    level: npt.NDArray[np.bool_],
) -> Balance:
    """Everything that does not depend on the surface, worked out beforehand."""
    emissivity = np.array([f.substrate.emissivity for f in faces])
    absorbed = np.array([f.absorptance for f in faces])[:, None] * light.poa_global
    view = (1 + np.cos(np.radians([f.tilt_deg for f in faces]))) / 2
    sky_share = view * np.sqrt(view) * light.open_sky
    from_around = emissivity[:, None] * (
        sky_share[:, None] * steps.ir_down[None, :]
        + (1 - sky_share)[:, None] * STEFAN_BOLTZMANN * (steps.air[None, :] + KELVIN) ** 4
    )
    u = np.array([f.substrate.u_behind for f in faces])
    return Balance(
        gain=np.ascontiguousarray((absorbed + from_around + (u * INDOOR_C)[:, None]).T),
        forced_squared=np.ascontiguousarray((forced**2).T),
        rain=np.ascontiguousarray(rain_kg_s.T),
        air=np.ascontiguousarray(steps.air),
        vapour=vapour_density(steps.vapour, steps.air),
        emissivity_sigma=emissivity * STEFAN_BOLTZMANN,
        storage=np.array([f.substrate.heat_capacity for f in faces]) / STEP_S,
        u=u,
        film_max=np.where(level, FLOOR_FILM_MAX, WALL_FILM_MAX),
        natural_warm=np.where(level, 1.52, 1.31),
        natural_cold=np.where(level, 0.76, 1.31),
    )
