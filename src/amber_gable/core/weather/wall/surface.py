"""Surface temperature and water film of faces (docs/physics.md §4): one lumped node per face and substrate.

Semi-implicit in short steps, all faces at once. Natural convection after Walton (1983, TARP), by the tilt: about
1.31 |dT|^(1/3) on walls, 1.51 on level planes warmer than the air, 0.76 on colder ones. Forced part after Yazdanian &
Klems (1994), measured on walls of low buildings against the wind at 10 m: 3.26 v^0.89 to windward, 3.55 v^0.617 in the
lee; both joined as the root of their squares, as DOE-2 does. Of other laws for walls, McAdams' (1954) loses a fifth
more in sun, Liu & Harris' (2007) a tenth and Walton's (1983) a quarter less (decision 0018). How much of the wind
reaches a sheltered surface is an assumption of ours. Evaporation by the Lewis analogy. A tilted face sees the low,
warmer part of the sky: the share sqrt((1 + cos tilt) / 2) of its sky counts as cold sky, the rest as air (Walton 1983).
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from amber_gable.core.weather.outdoors import sun
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.outdoors.driving_rain import beside, driving_rain, facing_wind, under_eaves
from amber_gable.core.weather.outdoors.sky import STEFAN_BOLTZMANN
from amber_gable.core.weather.wall.balance import Balance, step_through
from amber_gable.core.weather.wall.steps import CALM_MS, Steps
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.exposure import Eave, Exposure, HorizonPoint, Terrain
from amber_gable.domain.house.substrates import Substrate

INDOOR_C = 20.0
OPEN_BACK = 8.0
"""W/(m² K) that a back in the shade gives to the air and to what it looks at, which is about as warm: an assumption,
half of it radiation."""
WALL_FILM_MAX = 0.06
FLOOR_FILM_MAX = 0.30
_WIND_REACHES = {Exposure.OPEN: 1.0, Exposure.SHELTERED: 0.5}
WINDWARD, LEE = (3.26, 0.89), (3.55, 0.617)
"""Factor and power of the forced convection (see the module's words)."""
DRAINS_FROM_DEG = 45.0
"""From this tilt on a plane keeps no more water than a wall; below, the more the flatter it lies."""
SPIN_UP_DAYS = 2
LOSES = 15.0
"""W/(m² K), about what a surface loses by convection and radiation together."""
TOWEL_DAMP_S = 1800
"""How long a wiped surface stays damp (docs/trade.md §10: half an hour, or a fan)."""


@dataclass(frozen=True)
class FaceSurface:
    """What the heat balance must know of a face. Angles in degrees; absorptance of its colour 0-1, and between which
    bounds it may lie (None: known). `under_cover`: in a shed that has the air from outside, without its rain, sun
    and wind, or, where it is `heated` too, in a shop; `shaded`: kept out of the sun all day, under the open sky.
    `open_back`: the air is behind it too, as at decks, railings, beams and what lies on stands."""

    azimuth_deg: float
    tilt_deg: float
    substrate: Substrate
    absorptance: float
    exposure: Exposure = Exposure.OPEN
    rain_exposure: float = 1.0
    horizon: tuple[HorizonPoint, ...] = ()
    absorptance_band: tuple[float, float] | None = None
    eave: Eave | None = None
    under_cover: bool = False
    shaded: bool = False
    heated: bool = False
    open_back: bool = False
    terrain: Terrain = Terrain.SUBURB


def strips(face: FaceSurface, depth_m: float, height_m: float, count: int = 2) -> tuple[FaceSurface, ...]:
    """A wall under an overhang as strips of equal height, the uppermost first, each judged at its middle."""
    step = height_m / count
    return tuple(replace(face, eave=Eave(depth_m, step * (n + 0.5))) for n in range(count))


@dataclass(frozen=True)
class WaterEvent:
    """At epoch second `at` the face is hosed, or wiped dry with a towel."""

    at: float
    towel: bool = False


@dataclass(frozen=True)
class Climate:
    """Arrays of shape (F, T), or (F, M, T) in the weather of M members, at the end of each step: surface °C, its margin
    over the dew point, of one below 0 °C over the frost point, K, water film kg/m², direct and all light in the plane
    W/m², convection W/(m² K), rain reaching the face mm/h. `steps` the weather they came from."""

    steps: Steps
    faces: tuple[FaceSurface, ...]
    surface: Array
    dew_margin: Array
    water_film: Array
    poa_direct: Array
    poa_global: Array
    convection: Array
    wall_rain: Array

    @property
    def lead(self) -> tuple[int, ...]:
        """(F,) or (F, M)."""
        return self.surface.shape[:-1]

    def rows(self, index: list[int]) -> "Climate":
        """The same weather on some of the faces."""
        picked = {name: getattr(self, name)[index] for name in _PER_FACE}
        return Climate(steps=self.steps, faces=tuple(self.faces[i] for i in index), **picked)


_PER_FACE = ("surface", "dew_margin", "water_film", "poa_direct", "poa_global", "convection", "wall_rain")


def forced_convection(wind_ms: float) -> float:
    """W/(m² K) to windward in a wind of v m/s at 10 m (see the module's words)."""
    factor, power = WINDWARD
    return float(factor * max(wind_ms, CALM_MS) ** power)


def surface_climate(steps: Steps, faces: tuple[FaceSurface, ...], water: Sequence[WaterEvent] = ()) -> Climate:
    """Temperature and water film of each face through the weather, of each of its members where it has any.

    The first days are run twice, at first without their rain, so that neither the start shows nor water that has not
    fallen yet. No face list may be empty, and what lies under cover is computed by itself. `water`: what somebody does
    to all of them.
    """
    if not faces:
        raise ValueError("no faces to compute")
    if len({(f.under_cover, f.heated) for f in faces}) > 1:
        raise ValueError("what lies under cover is computed apart")
    if faces[0].under_cover:
        steps = steps.heated if faces[0].heated else steps.under_cover
    azimuth, tilt = np.array([f.azimuth_deg for f in faces]), np.array([f.tilt_deg for f in faces])
    eaves = [f.eave for f in faces]
    light = sun.on_faces(
        steps.sun,
        steps.light,
        azimuth,
        tilt,
        [f.horizon for f in faces],
        eaves=eaves,
        shaded=[f.shaded for f in faces],
    )
    facing = facing_wind(steps, azimuth)
    wall_rain = driving_rain(steps, facing, tilt, [(f.terrain, f.exposure) for f in faces])
    if any(f.rain_exposure != 1.0 for f in faces):
        wall_rain *= beside(np.array([f.rain_exposure for f in faces]), steps.air)
    if any(eaves):
        wall_rain *= under_eaves(steps, eaves, facing)
    balance = _balance(steps, faces, light, _forced(steps, faces, facing), wall_rain)
    lead = min(len(steps), SPIN_UP_DAYS * 24 * STEPS_PER_HOUR)
    first = steps.air[..., 0].reshape(-1)[balance.member]
    dry = replace(balance, rain=np.zeros((lead, len(first))))
    *_, temperature, film = step_through(dry, first, np.zeros(len(first)), lead)
    stepped = _handled(balance, temperature, film, water, steps)
    surface, film, convection = (np.ascontiguousarray(a.T).reshape(wall_rain.shape) for a in stepped)
    return Climate(
        steps=steps,
        faces=faces,
        surface=surface,
        dew_margin=surface - np.where(surface < 0.0, steps.settles, steps.dew),
        water_film=film,
        poa_direct=light.poa_direct,
        poa_global=light.poa_global,
        convection=convection,
        wall_rain=wall_rain,
    )


_IN_TIME = ("gain", "forced_squared", "rain", "air", "vapour")


def _handled(
    balance: Balance, temperature: Array, film: Array, water: Sequence[WaterEvent], steps: Steps
) -> tuple[Array, Array, Array]:
    """Stepped through with the faces hosed or wiped on the way; what a towel leaves counts as wet for a while."""
    at = {int((e.at - steps.start) // STEP_S): e for e in water}
    at = {k: e for k, e in sorted(at.items()) if 0 < k < len(steps)}
    parts, begin, event = [], 0, None
    for end, then in [*at.items(), (len(steps), None)]:
        driven = {name: getattr(balance, name)[begin:end] for name in _IN_TIME}
        before = film
        if event is not None:
            film = np.zeros(len(film)) if event.towel else balance.film_max.copy()
        *part, temperature, film = step_through(replace(balance, **driven), temperature, film, end - begin)
        if event is not None and event.towel:
            damp = part[1][: TOWEL_DAMP_S // STEP_S]
            damp[:] = np.maximum(damp, before)
        parts.append(part)
        begin, event = end, then
    surface, wet, convection = (a[0] if len(a) == 1 else np.concatenate(a) for a in zip(*parts, strict=True))
    return surface, wet, convection


def _forced(steps: Steps, faces: tuple[FaceSurface, ...], facing: Array) -> Array:
    """Forced convection on each face, W/(m² K), (F, ..., T): weaker where it is sheltered, and on the lee of a wall.

    Within 30° of blowing along a wall the wind passes from the one to the other with the cosine, so that no wall's
    climate hangs on the last bit of an angle.
    """
    reaches = np.array([_WIND_REACHES[f.exposure] for f in faces])
    before, behind = (
        factor * beside(reaches**power, steps.wind) * steps.wind_to(power) for factor, power in (WINDWARD, LEE)
    )
    upright = beside(np.sin(np.radians([f.tilt_deg for f in faces])), steps.wind)
    # A level plane has no lee.
    windward = 1 - upright * (1 - np.clip(0.5 + facing, 0.0, 1.0))
    # The two laws cross at 1.4 m/s; no lee is better aired than the weather side.
    behind = np.minimum(before, behind)
    return np.asarray(windward * before + (1 - windward) * behind)


def _leaning(received: Array, storage: Array) -> Array:
    """Moves the received heat (F, ..., T), W/m², from the middle of each step towards its end; changes it in place.

    It is given for the middle of a step, and the temperature is wanted at its end, half a step later. A surface without
    heat storage follows at once, so it takes half of the change to the next step; the more a surface stores, the less.
    """
    leans = (0.5 * LOSES / (LOSES + storage)).reshape(-1, *(1,) * (received.ndim - 1))
    received[..., :-1] += leans * np.diff(received, axis=-1)
    return received


def _absorptance(steps: Steps, faces: tuple[FaceSurface, ...]) -> Array:
    """Of each face, (F, 1), or of each in each member (F, M, 1): drawn from a triangle over its band."""
    likely = beside(np.array([f.absorptance for f in faces]), steps.air)
    if steps.shade is None or all(f.absorptance_band is None for f in faces):
        return likely
    bands = [f.absorptance_band or (f.absorptance, f.absorptance) for f in faces]
    low, high = (beside(np.array([b[i] for b in bands]), steps.air) for i in (0, 1))
    rank = steps.shade[None, :, None]
    width, below = high - low, likely - low
    drawn = np.where(
        rank * width < below, low + np.sqrt(rank * width * below), high - np.sqrt((1 - rank) * width * (width - below))
    )
    return np.where(np.isnan(rank), likely, drawn)


def _balance(
    steps: Steps, faces: tuple[FaceSurface, ...], light: sun.FaceLight, forced: Array, wall_rain: Array
) -> Balance:
    """Everything that does not depend on the surface, worked out beforehand; a row is a face in a member's weather."""
    tilt = np.array([f.tilt_deg for f in faces])
    across = np.cos(np.radians(tilt))
    emissivity = np.array([f.substrate.emissivity for f in faces])
    inside, behind = np.array([f.substrate.u_behind for f in faces]), np.array([OPEN_BACK * f.open_back for f in faces])
    inside = np.where(behind > 0, 0.0, inside)
    storage = np.array([f.substrate.heat_capacity for f in faces]) / STEP_S
    view = (1 + across) / 2
    sky_share = beside(view * np.sqrt(view) * light.open_sky, steps.air)
    from_around = beside(emissivity, steps.air) * (sky_share * (steps.ir_down - steps.ir_air) + steps.ir_air)
    absorbed = _absorptance(steps, faces) * light.poa_global
    count, members = len(steps), steps.air.size // len(steps)
    from_behind = beside(inside * INDOOR_C, steps.air)
    if behind.any():
        from_behind = from_behind + beside(behind, steps.air) * steps.air

    def timed(values: Array) -> Array:
        """(..., T) as (T, R)."""
        return np.ascontiguousarray(values.reshape(-1, count).T)

    def rows(of_faces: Array) -> Array:
        """(F,) as (R,)."""
        return np.repeat(of_faces, members)

    return Balance(
        gain=timed(_leaning(absorbed + from_around, storage) + from_behind),
        forced_squared=timed(forced**2),
        rain=timed(wall_rain / 3600.0),
        air=steps.air_by_time[0],
        vapour=steps.air_by_time[1],
        member=np.tile(np.arange(members), len(faces)),
        emissivity_sigma=rows(emissivity * STEFAN_BOLTZMANN),
        storage=rows(storage),
        u=rows(inside + behind),
        film_max=rows(np.interp(tilt, [0.0, DRAINS_FROM_DEG], [FLOOR_FILM_MAX, WALL_FILM_MAX])),
        natural_warm=rows(9.482 / (7.283 - across)),
        natural_cold=rows(1.810 / (1.382 + across)),
    )
