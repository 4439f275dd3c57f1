"""Sun position and sunshine on faces. Angles in degrees, irradiance W/m²."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors import irradiance
from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.core.weather.outdoors.light import HorizontalLight
from amber_gable.domain.grid import HOUR_S, STEP_S
from amber_gable.domain.house.exposure import Eave, HorizonPoint

NODE_S = 4 * HOUR_S
AIR_C, DELTA_T_S, REFRACTION = 12.0, 67.0, 0.5667
"""Air (°C) for the refraction, seconds between dynamical and universal time, refraction at sunrise (°)."""
RISEN = -0.833
"""Elevation of the sun's centre at sunrise: half a disc and refraction."""


@dataclass(frozen=True)
class SunPosition:
    """Shape (T,): day of the year (UTC), apparent elevation and azimuth (°), extraterrestrial beam (W/m²)."""

    day: Ints
    elevation: Array
    azimuth: Array
    extraterrestrial: Array


@dataclass(frozen=True)
class FaceLight:
    """Shape (F, T) or (F, M, T): direct and all light in the plane of the face, W/m²; `open_sky` (F,) the share of sky
    it sees."""

    poa_direct: Array
    poa_global: Array
    open_sky: Array


def position(at: Array, latitude: float, longitude: float, altitude_m: float = 0.0) -> SunPosition:
    """NREL SPA (Reda & Andreas 2004) as pvlib computes it, at epoch seconds (T,)."""
    found = irradiance.spa().solar_position_numpy(
        at, latitude, longitude, altitude_m, irradiance.pressure_pa(altitude_m) / 100, AIR_C, DELTA_T_S, REFRACTION, 1
    )
    day = _day_of_year(at)
    return SunPosition(
        day=day,
        elevation=np.asarray(found[2], dtype=float),
        azimuth=np.asarray(found[4], dtype=float),
        extraterrestrial=irradiance.extraterrestrial(day),
    )


def _day_of_year(at: Array) -> Ints:
    """From 1, by UTC."""
    date = at.astype("datetime64[s]").astype("datetime64[D]")
    return np.asarray((date - date.astype("datetime64[Y]")).astype(np.int64) + 1)


def step_positions(first: int, hours: int, latitude: float, longitude: float, altitude_m: float) -> SunPosition:
    """The sun in every step of consecutive hours, `first` the epoch second of the first step's middle.

    NREL SPA as in `position`, with what turns slowly (sidereal time, right ascension, declination and distance of the
    sun) computed every four hours and run straight between: within 0.00003° of it, a tenth of its own error.
    """
    spa = irradiance.spa()
    node = first + NODE_S * np.arange(hours * HOUR_S // NODE_S + 2, dtype=float)
    at = first + STEP_S * np.arange(hours * HOUR_S // STEP_S, dtype=float)
    pressure = irradiance.pressure_pa(altitude_m) / 100
    known = (node, latitude, longitude, altitude_m, pressure, AIR_C, DELTA_T_S, REFRACTION, 1)

    def turned(degrees: Array) -> Array:
        return np.asarray(np.interp(at, node, np.unwrap(degrees, period=360.0)))

    sidereal, ascension, declination = (turned(a) for a in spa.solar_position_numpy(*known, sst=True))
    distance = np.interp(at, node, spa.solar_position_numpy(*known, esd=True)[0])
    # From here on as pvlib puts it together for where one stands.
    hour_angle = spa.local_hour_angle(sidereal, longitude, ascension)
    parallax, u = spa.equatorial_horizontal_parallax(distance), spa.uterm(latitude)
    x, y = spa.xterm(u, latitude, altitude_m), spa.yterm(u, latitude, altitude_m)
    shift = spa.parallax_sun_right_ascension(x, parallax, hour_angle, declination)
    seen = spa.topocentric_sun_declination(declination, x, y, parallax, shift, hour_angle)
    turn = spa.topocentric_local_hour_angle(hour_angle, shift)
    bare = spa.topocentric_elevation_angle_without_atmosphere(latitude, seen, turn)
    lifted = spa.atmospheric_refraction_correction(pressure, AIR_C, bare, REFRACTION)
    astronomers = spa.topocentric_astronomers_azimuth(turn, seen, latitude)
    day = _day_of_year(at)
    return SunPosition(
        day=day,
        elevation=np.asarray(spa.topocentric_elevation_angle(bare, lifted)),
        azimuth=np.asarray(spa.topocentric_azimuth_angle(astronomers)),
        extraterrestrial=irradiance.extraterrestrial(day),
    )


def horizon_at(points: tuple[HorizonPoint, ...], azimuth: Array) -> Array:
    """Elevation of the horizon (°) at bearings of any shape: straight between the given points, round the compass."""
    if not points:
        return np.zeros_like(azimuth)
    ordered = sorted(points, key=lambda p: p.azimuth_deg)
    bearings = np.array([p.azimuth_deg for p in ordered])
    heights = np.array([p.elevation_deg for p in ordered])
    return np.asarray(np.interp(azimuth, bearings, heights, period=360.0))


def _open_sky(azimuth: float, tilt: float, points: tuple[HorizonPoint, ...]) -> float:
    """Share of the sky the face would see that its horizon leaves open, cosine-weighted."""
    if not points:
        return 1.0
    bearing = np.arange(0.0, 360.0, 10.0)[:, None]
    height = np.arange(2.5, 90.0, 5.0)[None, :]
    cosine = np.cos(np.radians(height)) * np.sin(np.radians(tilt)) * np.cos(np.radians(bearing - azimuth))
    weight = np.maximum(cosine + np.sin(np.radians(height)) * np.cos(np.radians(tilt)), 0) * np.cos(np.radians(height))
    seen = height > horizon_at(points, bearing)
    return float((weight * seen).sum() / weight.sum())


def eave_shades(eave: Eave | None, azimuth: float, elevation: Array, bearing: Array) -> npt.NDArray[np.bool_]:
    """Whether the eave keeps the sun off its strip: where its shadow, by the profile angle, reaches further down."""
    if eave is None:
        return np.zeros(elevation.shape, dtype=bool)
    across = np.cos(np.radians(bearing - azimuth))
    before = across > 1e-6
    falls = eave.depth_m * np.tan(np.radians(np.clip(elevation, 0.0, 89.9))) / np.where(before, across, 1.0)
    return np.asarray(before & (falls > eave.below_m))


def on_faces(
    sun: SunPosition,
    light: HorizontalLight,
    azimuth: Array,
    tilt: Array,
    horizons: Sequence[tuple[HorizonPoint, ...]],
    albedo: float = 0.2,
    eaves: Sequence[Eave | None] | None = None,
    shaded: Sequence[bool] | None = None,
) -> FaceLight:
    """Light on F faces: beam cut by each horizon and eave, and wholly where a face is kept in the shade, sky diffuse
    after Hay & Davies (1980), ground by albedo.

    The circumsolar part of the diffuse goes with the beam, so it too is lost below the horizon.
    """
    # The night has no light to be worked out.
    up = np.flatnonzero(sun.elevation > 0)
    zenith, bearing = 90.0 - sun.elevation[up], sun.azimuth[up]
    ghi, dni, dhi = (a[..., up] for a in (light.ghi, light.dni, light.dhi))
    # Faces that look the same way under the same horizon have the same light.
    ways: dict[tuple[float, float, tuple[HorizonPoint, ...], Eave | None, bool], int] = {}
    above, dark = eaves or [None] * len(horizons), shaded or [False] * len(horizons)
    way_of = [
        ways.setdefault((float(a), float(t), h, e, d), len(ways))
        for a, t, h, e, d in zip(azimuth, tilt, horizons, above, dark, strict=True)
    ]
    azimuths, tilts = (np.array([w[i] for w in ways], dtype=float)[:, None] for i in (0, 1))
    cosine = np.maximum(irradiance.incidence_cosine(tilts, azimuths, zenith, bearing), 0)
    lit = np.array(
        [
            ~np.bool_(d) & (90.0 - zenith > horizon_at(h, bearing)) & ~eave_shades(e, a, 90.0 - zenith, bearing)
            for a, _, h, e, d in ways
        ]
    )
    opens = np.array([_open_sky(a, t, h) * (1.0 if e is None else e.open_sky) for a, t, h, e, _ in ways])
    # (W, T) against the light's (T,) or (M, T).
    members = (1,) * (ghi.ndim - 1)
    cosine, lit = (a.reshape(len(ways), *members, -1) for a in (cosine, lit))
    tilts, seen = (a.reshape(len(ways), *members, 1) for a in (tilts, opens))
    beam = np.where(lit, dni * cosine, 0.0)
    # The ratio as pvlib forms it, with the cosine worked out once for all members.
    ratio = cosine / np.maximum(np.cos(np.radians(zenith)), 0.01745)
    even, about_the_sun = irradiance.hay_davies(tilts, dhi, dni, sun.extraterrestrial[up], ratio)
    diffuse = even * seen + np.where(lit, about_the_sun, 0.0)
    plane = beam + diffuse + irradiance.ground_diffuse(tilts, ghi, albedo)
    direct, whole = (np.zeros((len(way_of), *light.ghi.shape)) for _ in range(2))
    direct[..., up], whole[..., up] = beam[way_of], plane[way_of]
    return FaceLight(poa_direct=direct, poa_global=whole, open_sky=opens[way_of])
