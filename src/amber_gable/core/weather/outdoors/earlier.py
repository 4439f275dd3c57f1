"""A forecast run back into the weeks before it by those that were had then."""

from dataclasses import replace
from typing import Any

import numpy as np

from amber_gable.domain.weather.series import COLUMNS, HOUR, WeatherSeries


def run_back(series: WeatherSeries, earlier: WeatherSeries) -> WeatherSeries:
    """The series with the hours of `earlier` up to its first; as it is where these do not reach it, or lack a quantity
    that it has. What surfaces do not feel may be lacking in them. Futures of its own have what is over alike."""
    count = (series.start - earlier.start) // HOUR
    if series.gust_ms is not None and earlier.gust_ms is None:
        earlier = replace(earlier, gust_ms=np.full(len(earlier), np.nan))
    given = [name for name in COLUMNS if getattr(series, name) is not None]
    futures = series.ensemble or {}
    lacks = any(getattr(earlier, name) is None for name in (*given, *futures))
    if not 0 < count <= len(earlier) or lacks:
        return series
    columns: dict[str, Any] = {
        name: np.concatenate([getattr(earlier, name)[:count], getattr(series, name)]) for name in given
    }
    if futures:
        columns["ensemble"] = {
            name: np.concatenate([np.tile(getattr(earlier, name)[:count], (len(rows), 1)), rows], axis=1)
            for name, rows in futures.items()
        }
    return replace(series, start=earlier.start, **columns)
