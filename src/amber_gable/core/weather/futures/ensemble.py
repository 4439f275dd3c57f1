"""Members drawn around a single forecast, each a weather that may come of it (docs/physics.md §10). Where the source
gives members of its own these are used, and only what they leave out is drawn.

Errors run on from hour to hour as first-order autoregressions of unit spread and grow with the hours since the issue
straight through two points, those of docs/physics.md §10: air and dew point 0.7 K at 6 h and 3.5 K at 240 h, moving
half together; the timing of fronts 1 h at 12 h and 6 h at 120 h. For cloud, wind and depth of rain the points are ours.
"""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime
from hashlib import sha256
from typing import Any

import numpy as np

from amber_gable.core.weather.outdoors.air import Array, dew_point, saturation_pressure, vapour_pressure
from amber_gable.core.weather.outdoors.typical import at_place, stretch
from amber_gable.core.weather.wall.slot_climate import Place, PlaceWeather, lead_steps, place_weather
from amber_gable.core.weather.wall.steps import CALM_MS, LIKELY_PCT, RAIN_MEASURABLE, RAINING_MM_H
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.weather.series import HOUR, WeatherSeries

MOST_MEMBERS = 1000
SHOWER_MM_H = 0.8
"""Median depth of an hour's rain that the forecast has the chance of but no depth for."""
_POINTS = {
    # what: hours and spread there, hours and spread there
    "state": (6.0, 0.7, 240.0, 3.5),
    "cloud": (6.0, 0.08, 240.0, 0.30),
    "wind": (6.0, 0.12, 240.0, 0.45),
    "bearing": (6.0, 8.0, 240.0, 60.0),
    "timing": (12.0, 1.0, 120.0, 6.0),
}
_TOGETHER = 0.5
"""Correlation between the errors of air and dew point."""
_LASTS_H = {"state": 12.0, "cloud": 6.0, "wind": 8.0, "bearing": 8.0, "timing": 36.0, "rain": 4.0}
"""Hours in which an error falls to 1/e of itself."""
_DEPTH_SPREAD = 0.5
_MISSED = (24.0, 0.08, 240.0, 0.35)
"""Share of the hours forecast as wet that stay dry, where no chance is given; and of it, that fall elsewhere."""


def seed_of(series: WeatherSeries, begin: int) -> int:
    """The seed for a place and an issue: the same forecast is answered the same way."""
    key = f"{series.latitude}/{series.longitude}/{begin if series.issued is None else series.issued}"
    return int.from_bytes(sha256(key.encode()).digest()[:8], "big")


def spread(what: str, lead_h: Array) -> Array:
    """Standard deviation of an error that many hours after the issue: 0 before it, level from the second point on."""
    at, there, later, then = _POINTS[what]
    return np.asarray(np.interp(lead_h, [0.0, at, later], [0.0, there, then]))


def draw_members(series: WeatherSeries, count: int, seed: int, issued: int | None = None) -> list[WeatherSeries]:
    """`count` members of a series, the first as it was forecast. issued: epoch second from which on it errs; by
    default that of the series, else its first hour.

    In a member it rains or it does not: its chance of rain is 100 or 0 %, so that the rule of the chance says what that
    of the depth says. Columns that the series lacks stay away, but for the depth that a chance alone implies.
    """
    known = issued if issued is not None else series.issued if series.issued is not None else series.start
    lead = np.maximum((series.start + HOUR * np.arange(len(series)) - known) / HOUR, 0.0)
    chance = np.random.default_rng(seed)
    return [_resolved(series)] + [
        _member(series, lead, _Noise(chance, len(series), series.doubt), _told(series, n)) for n in range(count - 1)
    ]


def _told(series: WeatherSeries, number: int) -> dict[str, Array]:
    """What the source itself says of a member: its own are taken in turn."""
    return {name: rows[number % len(rows)] for name, rows in (series.ensemble or {}).items()}


class _Noise:
    """Autoregressions of unit spread, (H,)."""

    def __init__(self, chance: np.random.Generator, hours: int, doubt: float) -> None:
        self.chance, self.hours, self.doubt = chance, hours, doubt

    def spread(self, what: str, lead_h: Array) -> Array:
        """Of an error of this forecast."""
        return self.doubt * spread(what, lead_h)

    def of(self, what: str) -> Array:
        # Loaded when it is first needed: the program starts without it.
        from scipy.signal import lfilter

        keeps = np.exp(-1.0 / _LASTS_H[what])
        kicks = self.chance.normal(size=self.hours)
        kicks[1:] *= np.sqrt(1 - keeps**2)
        return np.asarray(lfilter([1.0], [1.0, -keeps], kicks))


def _resolved(series: WeatherSeries) -> WeatherSeries:
    """The forecast with its rain decided."""
    if series.rain_pct is None:
        return series
    depth = series.rain_mm
    if depth is None:
        depth = np.where(series.rain_pct >= LIKELY_PCT, RAINING_MM_H * series.rain_pct / 100, 0.0)
    wet = np.nan_to_num(depth) >= RAIN_MEASURABLE
    return replace(series, rain_mm=depth, rain_pct=np.where(wet, 100.0, 0.0))


def _member(series: WeatherSeries, lead: Array, noise: _Noise, told: Mapping[str, Array]) -> WeatherSeries:
    """`told`: columns of the source's own member, which hold from the issue on; the others are drawn."""
    air_error = noise.of("state")
    dew_error = _TOGETHER * air_error + np.sqrt(1 - _TOGETHER**2) * noise.of("state")
    grown = noise.spread("state", lead)
    air = series.air_c + grown * air_error
    was = dew_point(vapour_pressure(series.air_c, np.maximum(series.rh_pct, 1.0)))
    dew = np.minimum(was + grown * dew_error, air)
    bearing = (series.wind_from_deg + noise.spread("bearing", lead) * noise.of("bearing")) % 360.0
    late = noise.spread("timing", lead) * noise.of("timing")
    at = np.clip(np.arange(len(lead)) + late, 0, len(lead) - 1)
    stronger = np.exp(noise.spread("wind", lead) * noise.of("wind"))
    columns: dict[str, Any] = {
        "air_c": air,
        "rh_pct": 100 * saturation_pressure(dew) / saturation_pressure(air),
        "wind_ms": series.wind_ms * stronger,
        "wind_from_deg": bearing,
    }
    columns |= _rain(series, lead, np.round(at).astype(np.int64), noise)
    columns |= {n: np.where(lead > 0, told[n], columns[n]) for n in told if n in columns}
    if series.gust_ms is not None:
        # Gusts go with their wind.
        columns["gust_ms"] = series.gust_ms * columns["wind_ms"] / np.maximum(series.wind_ms, CALM_MS)
    if "rain_mm" in told and "rain_pct" in columns:
        columns["rain_pct"] = np.where(columns["rain_mm"] >= RAIN_MEASURABLE, 100.0, 0.0)
    cloud = np.where(lead > 0, told["cloud"], series.cloud) if "cloud" in told and series.cloud is not None else None
    columns |= _sky(series, columns, noise.spread("cloud", lead) * noise.of("cloud"), at, cloud)
    return replace(series, **columns)


def _rain(series: WeatherSeries, lead: Array, at: Array, noise: _Noise) -> dict[str, Array]:
    """Where the source gives a chance, hours are wet with it, and wet hours come together; where it gives only depths,
    its rain comes earlier or later, some of it not at all and some unannounced."""
    if series.rain_mm is None and series.rain_pct is None:
        return {}
    from scipy.special import ndtr

    rank = ndtr(noise.of("rain"))
    deeper = np.exp(_DEPTH_SPREAD * noise.of("rain"))
    moved = np.zeros(len(lead)) if series.rain_mm is None else series.rain_mm[at]
    announced = np.nan_to_num(moved) >= RAIN_MEASURABLE
    if series.rain_pct is not None:
        wet = rank < series.rain_pct / 100
    else:
        missed = np.interp(lead, _MISSED[::2], _MISSED[1::2]) * np.minimum(lead / _MISSED[0], 1.0)
        often = float(np.nanmean(series.rain_mm >= RAIN_MEASURABLE)) if series.rain_mm is not None else 0.0
        wet = np.where(announced, rank >= missed, rank < missed * often)
    depth = np.where(wet, np.where(announced, np.nan_to_num(moved), SHOWER_MM_H) * deeper, 0.0)
    depth = np.where(wet, np.maximum(depth, RAIN_MEASURABLE), 0.0)
    if series.rain_mm is not None and series.rain_pct is None:
        # What the source does not know, no member does.
        depth = np.where(np.isnan(series.rain_mm), np.nan, depth)
    out = {"rain_mm": depth}
    return out | ({"rain_pct": np.where(wet, 100.0, 0.0)} if series.rain_pct is not None else {})


def _sky(
    series: WeatherSeries, drawn: Mapping[str, Array], error: Array, at: Array, told: Array | None
) -> dict[str, Array]:
    """Cloud comes earlier or later with its fronts; sunshine and infrared follow it: global by Kasten & Czeplak's law,
    the beam by its square, the diffuse by its root."""
    out: dict[str, Array] = {}
    cloud, before = None, series.cloud
    if before is not None:
        cloud = np.clip(np.interp(at, np.arange(len(before)), before) + error, 0.0, 1.0) if told is None else told
        if "rain_mm" in drawn and told is None:
            cloud = np.where(np.nan_to_num(drawn["rain_mm"]) > 0, np.maximum(cloud, 0.8), cloud)
        out["cloud"] = cloud
        dimmed = (1 - 0.75 * cloud**3.4) / (1 - 0.75 * before**3.4)
    else:
        dimmed = np.exp(-error)
    dimmed = np.clip(dimmed, 0.25, 2.0)
    for name, power, most in (("ghi", 1.0, 1200.0), ("dni", 2.0, 1050.0), ("dhi", 0.5, 700.0)):
        column = getattr(series, name)
        if column is not None:
            out[name] = np.minimum(column * dimmed**power, np.maximum(most, column))
    if series.ir_down is not None:
        warmer = 5.0 * (drawn["air_c"] - series.air_c)
        overcast = 0.0 if cloud is None or before is None else 70.0 * (cloud - before)
        out["ir_down"] = np.clip(series.ir_down + warmer + overcast, 50.0, 600.0)
    return out


def drawn_weather(
    place: Place,
    series: WeatherSeries,
    begin: datetime,
    days: int,
    count: int,
    seed: int | None = None,
    slot_s: int = SLOT_S,
) -> PlaceWeather:
    """`count` members for `days` days from the local date of `begin`; the first is the series itself.

    What tells no time of issue is taken as forecast when the first day begins. seed: by default that of the place and
    the issue. Raises NoClimate when the weather does not cover the days.
    """
    midnight = begin.astimezone(place.tz).replace(hour=0, minute=0, second=0, microsecond=0, fold=0)
    there = at_place(series, place.longitude, place.tz)
    known = replace(stretch(there, midnight.date(), days), typical_year=False)
    first = int(midnight.timestamp())
    seed = seed if seed is not None else seed_of(known, first)
    drawn = draw_members(known, count, seed, first if known.issued is None else known.issued)
    weather = place_weather(place, drawn, midnight, days, slot_s=slot_s)
    lead = lead_steps(place, there, midnight.date(), weather.steps.start)
    return replace(weather, steps=replace(weather.steps, lead=lead))
