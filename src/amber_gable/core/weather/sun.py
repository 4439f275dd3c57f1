"""Sun position and sunshine on faces (physics.md §2), through pvlib. Angles in degrees, irradiance W/m²."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import pandas as pd
from pvlib import clearsky, irradiance, solarposition

from amber_gable.core.weather.air import Array
from amber_gable.domain.exposure import HorizonPoint
from amber_gable.domain.weather import WeatherSeries

RISEN = -0.833
"""Elevation of the sun's centre at sunrise: half a disc and refraction."""


@dataclass(frozen=True)
class SunPosition:
    """Shape (T,): day of the year (UTC), apparent elevation and azimuth (°), extraterrestrial beam (W/m²)."""

    day: npt.NDArray[np.int64]
    elevation: Array
    azimuth: Array
    extraterrestrial: Array


@dataclass(frozen=True)
class HorizontalLight:
    """Shape (T,): global, direct normal and diffuse (W/m²), and the cloud cover used (0-1)."""

    ghi: Array
    dni: Array
    dhi: Array
    cloud: Array


@dataclass(frozen=True)
class FaceLight:
    """Shape (F, T): direct and all light in the plane of the face, W/m²; `open_sky` (F,) the share of sky it sees."""

    poa_direct: Array
    poa_global: Array
    open_sky: Array


def position(times: pd.DatetimeIndex, latitude: float, longitude: float, altitude_m: float = 0.0) -> SunPosition:
    """NREL SPA (Reda & Andreas 2004) as pvlib computes it."""
    table = solarposition.get_solarposition(times, latitude, longitude, altitude=altitude_m, method="nrel_numpy")
    day = times.tz_convert("UTC").day_of_year.to_numpy(dtype=np.int64)
    return SunPosition(
        day=day,
        elevation=table["apparent_elevation"].to_numpy(dtype=float),
        azimuth=table["azimuth"].to_numpy(dtype=float),
        extraterrestrial=np.asarray(irradiance.get_extra_radiation(day), dtype=float),
    )


def _hour_means(values: Array, hour_of: npt.NDArray[np.int64]) -> Array:
    return np.asarray(np.bincount(hour_of, weights=values) / np.bincount(hour_of))


def horizontal_light(
    series: WeatherSeries, sun: SunPosition, hour_of: npt.NDArray[np.int64], smooth: Callable[[Array], Array]
) -> HorizontalLight:
    """Light on the level for every step.

    Measured global light is spread within its hour along a clear sky (Haurwitz 1945); cloud cover alone gives
    clear sky times Kasten & Czeplak (1980), 1 - 0.75 N^3.4. Diffuse is measured where given, else split after
    Erbs, Klein & Duffie (1982).
    """
    zenith = 90.0 - sun.elevation
    clear = np.asarray(clearsky.haurwitz(pd.Series(zenith))["ghi"].to_numpy(dtype=float), dtype=float)
    if series.ghi is not None:
        clear_hour = _hour_means(clear, hour_of)
        ratio = np.divide(series.ghi, clear_hour, out=np.full(len(series), np.nan), where=clear_hour > 20)
        lit = np.flatnonzero(np.isfinite(ratio))
        hours = np.arange(len(series))
        index = np.interp(hours, lit, np.clip(ratio[lit], 0, 1.5)) if lit.size else np.zeros(len(series))
        # Kasten & Czeplak turned round; the night takes what the evening and morning around it had.
        cloud = smooth(np.clip((1 - np.minimum(index, 1)) / 0.75, 0, 1) ** (1 / 3.4))
        ghi = clear * smooth(index)
    else:
        cover = series.cloud if series.cloud is not None else np.full(len(series), 0.5)
        cloud = smooth(cover)
        ghi = clear * (1 - 0.75 * cloud**3.4)
    ghi = np.where(sun.elevation > 0, ghi, 0.0)
    if series.ghi is not None and series.dhi is not None:
        share = np.divide(series.dhi, series.ghi, out=np.ones(len(series)), where=series.ghi > 5)
        dhi = ghi * smooth(np.clip(share, 0, 1))
    else:
        dhi = np.nan_to_num(np.asarray(irradiance.erbs(ghi, zenith, sun.day)["dhi"], dtype=float))
        dhi = np.clip(dhi, 0, ghi)
    height = np.sin(np.radians(np.maximum(sun.elevation, 0)))
    # Near the horizon a small beam on the level would stand for an impossible one square to the sun.
    dni = np.divide(ghi - dhi, height, out=np.zeros_like(ghi), where=height > 0.03)
    return HorizontalLight(ghi=ghi, dni=np.minimum(dni, sun.extraterrestrial * 0.85), dhi=dhi, cloud=cloud)


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


def on_faces(
    sun: SunPosition,
    light: HorizontalLight,
    azimuth: Array,
    tilt: Array,
    horizons: list[tuple[HorizonPoint, ...]],
    albedo: float = 0.2,
) -> FaceLight:
    """Light on F faces: beam cut by each horizon, sky diffuse after Hay & Davies (1980), ground by albedo.

    The circumsolar part of the diffuse goes with the beam, so it too is lost below the horizon.
    """
    zenith, count = 90.0 - sun.elevation, len(azimuth)
    up = sun.elevation > 0
    beams, planes, opens = [], [], np.empty(count)
    for i in range(count):
        lit = up & (sun.elevation > horizon_at(horizons[i], sun.azimuth))
        cosine = irradiance.aoi_projection(tilt[i], azimuth[i], zenith, sun.azimuth)
        beam = np.where(lit, light.dni * np.maximum(cosine, 0), 0.0)
        sky = irradiance.haydavies(
            tilt[i],
            azimuth[i],
            light.dhi,
            light.dni,
            sun.extraterrestrial,
            zenith,
            sun.azimuth,
            return_components=True,
        )
        opens[i] = _open_sky(float(azimuth[i]), float(tilt[i]), horizons[i])
        diffuse = np.asarray(sky["poa_isotropic"]) * opens[i] + np.where(lit, sky["poa_circumsolar"], 0.0)
        ground = irradiance.get_ground_diffuse(tilt[i], light.ghi, albedo=albedo)
        beams.append(beam)
        planes.append(beam + np.where(up, diffuse + ground, 0.0))
    return FaceLight(poa_direct=np.array(beams), poa_global=np.array(planes), open_sky=opens)
