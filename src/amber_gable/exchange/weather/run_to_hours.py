"""Readings at any steps brought to whole hours, and hours made a forecast, with notes of what had to be taken."""

from collections.abc import Mapping
from datetime import datetime, tzinfo
from typing import Any

import numpy as np

from amber_gable.core.weather.outdoors.air import Ints, saturation_pressure
from amber_gable.domain.weather.series import HOUR, Floats, WeatherSeries

HALF = 0.5
"""Of an hour must be covered by readings for it to be known."""
COMPASS = ("N", "NNE", "NE", "ENE", "E", "ESE", "SE", "SSE", "S", "SSW", "SW", "WSW", "W", "WNW", "NW", "NNW")
_SUMS = ("rain_mm",)
_STEADY = ("rain_mm", "rain_pct", "gust_ms")
"""What holds for the whole row and is not run straight to the next."""


def run_straight(times: list[int], columns: Mapping[str, Floats]) -> tuple[int, dict[str, Floats]]:
    """Rows an hour or more apart (epoch s) as hours from the first: run straight from row to row, rain shared out among
    the hours up to the next row, wind turned the short way round. Returns the first hour and the columns."""
    start = times[0] // HOUR * HOUR
    hours = start + HOUR * np.arange((times[-1] - start) // HOUR + 1)
    # A row's rain is of the hours up to the next; the last has as many as the one before.
    apart = np.diff(times, append=2 * times[-1] - times[-2]) / HOUR
    row = np.clip(np.searchsorted(times, hours, side="right") - 1, 0, len(times) - 1)
    out = {}
    for name, values in columns.items():
        if name == "wind_from_deg":
            sine, cosine = (np.interp(hours, times, f(np.radians(values))) for f in (np.sin, np.cos))
            out[name] = np.degrees(np.arctan2(sine, cosine)) % 360
        elif name in _STEADY:
            out[name] = (values / apart if name in _SUMS else values)[row]
        else:
            out[name] = np.interp(hours, times, values)
    return int(start), out


def gathered(times: list[int], columns: Mapping[str, Floats], step_s: float) -> tuple[int, dict[str, Floats]]:
    """Readings every `step_s` or so, less than an hour apart, as the means of the hours they lie in and the sums of
    rain; NaN where less than half of an hour is covered."""
    start = times[0] // HOUR * HOUR
    hour = ((np.array(times) - start) // HOUR).astype(np.int64)
    count = int(hour[-1]) + 1
    out = {}
    for name, values in columns.items():
        if name == "wind_from_deg":
            sine, cosine = (_hourly(f(np.radians(values)), hour, count, step_s) for f in (np.sin, np.cos))
            out[name] = np.degrees(np.arctan2(sine, cosine)) % 360
        else:
            if name == "gust_ms":
                out[name] = _strongest(values, hour, count)
                continue
            mean = _hourly(values, hour, count, step_s)
            out[name] = mean * (HOUR / step_s) if name in _SUMS else mean
    return int(start), out


def _hourly(values: Floats, hour: Ints, count: int, step_s: float) -> Floats:
    known = np.isfinite(values)
    seen = np.bincount(hour[known], minlength=count)
    total = np.bincount(hour[known], values[known], minlength=count)
    enough = seen * step_s >= HALF * HOUR
    return np.where(enough, total / np.maximum(seen, 1), np.nan)


def _strongest(values: Floats, hour: Ints, count: int) -> Floats:
    """The greatest reading of each hour, NaN where it has none."""
    known = np.isfinite(values)
    out = np.full(count, -np.inf)
    np.maximum.at(out, hour[known], values[known])
    return np.where(np.isfinite(out), out, np.nan)


def humidity_of(air: Floats, dew: Floats) -> Floats:
    """% from the dew point, which is never above the air."""
    return np.asarray(100 * saturation_pressure(np.minimum(dew, air)) / saturation_pressure(air))


def assembled(
    start: int, columns: Mapping[str, Floats], tz: tzinfo, issued: datetime, source: str, notes: list[str]
) -> WeatherSeries:
    """A forecast of those hours. What it lacks is taken as usual, and each such thing noted."""
    out: dict[str, Any] = {name: values for name, values in columns.items() if name != "dew_c"}
    if "dew_c" in columns and "rh_pct" not in out:
        out["rh_pct"] = humidity_of(out["air_c"], columns["dew_c"])
    lacks = [("rh_pct", 70.0, "humidity", 1), ("wind_ms", 3.0, "wind", 1)]
    if "ghi" not in out:
        lacks.append(("cloud", 0.5, "cloud", 100))
    for name, usual, words, factor in lacks:
        if name not in out:
            out[name] = np.full(len(out["air_c"]), usual)
            notes.append(f"it holds no {words}: {usual * factor:g} is taken")
    out.setdefault("wind_from_deg", np.full(len(out["air_c"]), 270.0))
    if "rain_mm" not in out and "rain_pct" not in out:
        notes.append("it holds no rain: judge rain yourself")
    offset = issued.astimezone(tz).utcoffset()
    return WeatherSeries(
        start=start,
        utc_offset_h=offset.total_seconds() / 3600 if offset else 0.0,
        source=source,
        issued=int(issued.timestamp()),
        notes=tuple(notes),
        **out,
    )
