"""Hours measured on site in the place of those a forecast had for them, and how far the two were apart."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from amber_gable.core.weather.outdoors.air import Array, dew_point, saturation_pressure, vapour_pressure
from amber_gable.domain.weather.series import COLUMNS, HOUR, REQUIRED_COLUMNS, Floats, WeatherSeries

COMPARED_H = 24
LEAST_H = 6


@dataclass(frozen=True)
class Apart:
    """The forecast less what was measured, on average over `hours` of the last day: air K, relative humidity %."""

    hours: int
    air: float
    rh: float | None


def as_measured(forecast: WeatherSeries, observed: WeatherSeries, until: int) -> WeatherSeries:
    """The forecast with what was measured (NaN: not) in its hours that end by `until` (epoch s). Where the air alone
    was measured it keeps the forecast's dew point: the air's water changes less over a yard than its warmth."""
    here = _on(forecast, observed, until)
    changes: dict[str, Any] = {}
    for name in COLUMNS:
        ours = getattr(forecast, name)
        if ours is not None and name in here:
            changes[name] = np.where(np.isfinite(here[name]), here[name], ours)
    if "air_c" in here and "air_c" in changes:
        alone = np.isfinite(here["air_c"]) & ~np.isfinite(here.get("rh_pct", np.full(len(forecast), np.nan)))
        dew = dew_point(vapour_pressure(forecast.air_c, forecast.rh_pct))
        kept = np.minimum(100 * saturation_pressure(dew) / saturation_pressure(changes["air_c"]), 100)
        changes["rh_pct"] = np.where(alone, kept, changes.get("rh_pct", forecast.rh_pct))
    return replace(forecast, **changes) if changes else forecast


def apart(forecast: WeatherSeries, observed: WeatherSeries, until: int) -> Apart | None:
    """Over the last day up to `until`; None where too little of it was measured."""
    here = _on(forecast, observed, until)
    hours = forecast.start + HOUR * np.arange(len(forecast))
    lately = hours >= until - COMPARED_H * HOUR

    def mean(name: str) -> tuple[int, float]:
        ours: Array = getattr(forecast, name) - here.get(name, np.full(len(forecast), np.nan))
        known = ours[lately & np.isfinite(ours)]
        return len(known), float(known.mean()) if known.size else 0.0

    (count, air), (damp, rh) = mean("air_c"), mean("rh_pct")
    return Apart(count, air, rh if damp >= LEAST_H else None) if count >= LEAST_H else None


def _on(forecast: WeatherSeries, observed: WeatherSeries, until: int) -> dict[str, Floats]:
    """The measured columns laid over the forecast's hours, NaN elsewhere."""
    out: dict[str, Floats] = {}
    shift = (observed.start - forecast.start) // HOUR
    last = min((until - forecast.start) // HOUR, len(forecast), shift + len(observed))
    first = max(shift, 0)
    for name in COLUMNS:
        column = getattr(observed, name)
        if column is not None and first < last and np.isfinite(column).any():
            laid = np.full(len(forecast), np.nan)
            laid[first:last] = column[first - shift : last - shift]
            out[name] = laid
    return out


def joined(before: WeatherSeries | None, after: WeatherSeries, longest_h: int) -> WeatherSeries:
    """Measured hours of two readings of a logger as one series: the later says what both know; the last `longest_h`
    of them."""
    if before is None:
        return after
    start, end = min(before.start, after.start), max(before.end, after.end)
    start = max(start, end - longest_h * HOUR)
    count = (end - start) // HOUR
    changes: dict[str, Any] = {}
    for name in COLUMNS:
        laid = np.full(count, np.nan)
        for one in (before, after):
            column = getattr(one, name)
            if column is None:
                continue
            at = (one.start - start) // HOUR + np.arange(len(one))
            fits = (at >= 0) & (at < count) & np.isfinite(column)
            laid[at[fits]] = column[fits]
        changes[name] = laid if name in REQUIRED_COLUMNS or np.isfinite(laid).any() else None
    return replace(after, start=int(start), **changes)
