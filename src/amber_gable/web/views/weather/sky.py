"""The sky strip: now, and twenty-four hours of dew point against the coldest face."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING

import numpy as np

from amber_gable.domain.grid import STEP_S
from amber_gable.web.views.weather.lanes import bearing

if TYPE_CHECKING:
    from amber_gable.core.climate.job_climate import SiteClimate

WIDTH, HEIGHT = 300.0, 46.0
HOURS = 24
_TIGHT = 3.0
_BACK_H = 6
_EVERY = 1800 // STEP_S
"""Steps between the points of a line: half an hour."""
_POINT_W = _EVERY * STEP_S / 3600 / HOURS * WIDTH


@dataclass(frozen=True)
class Sky:
    """Readings (°C, m/s, % in words) and the two lines in px; `tight` is the path where the spread is under 3 K. `gust`
    only where it counts for more than the wind."""

    air: float
    rh: str
    dew: float
    wind: float
    gust: float | None
    wind_from: str
    surface: float
    dew_line: str
    surface_line: str
    tight: str
    now_x: float
    hours: list[tuple[float, str]]
    low: float
    high: float


def sky_strip(site: SiteClimate, now: datetime) -> Sky | None:
    """Twenty-four hours, six of them before now; None when the weather does not reach now."""
    steps = site.steps
    at = int((now.timestamp() - steps.start) // STEP_S)
    if not 0 <= at < len(steps):
        return None
    back = _BACK_H * 3600 // STEP_S
    first, last = max(0, at - back), min(len(steps), at - back + HOURS * 3600 // STEP_S)
    pick = np.arange(first, last, _EVERY)
    dew, coldest = steps.dew[pick], np.min([s.climate.surface[0, pick] for s in site.surfaces], axis=0)
    low, high = float(min(dew.min(), coldest.min())) - 1, float(max(dew.max(), coldest.max())) + 1

    def x(k: float) -> float:
        return (k - (at - back)) * STEP_S / 3600 / HOURS * WIDTH

    def y(value: float) -> float:
        return HEIGHT - (value - low) / (high - low) * HEIGHT

    def line(values: np.typing.NDArray[np.float64]) -> str:
        return " ".join(f"{x(float(k)):.1f},{y(float(v)):.1f}" for k, v in zip(pick, values, strict=True))

    tight = []
    for i in np.flatnonzero(coldest - dew < _TIGHT):
        top, foot = y(max(coldest[i], dew[i])), y(min(coldest[i], dew[i]))
        tight.append(f"M{x(float(pick[i])):.1f},{top:.1f}h{_POINT_W:.2f}V{foot + 1:.1f}h-{_POINT_W:.2f}z")
    local = now.astimezone(site.slots.tz)
    marks = [h for h in range(-_BACK_H, HOURS - _BACK_H + 1) if (local.hour + h) % 6 == 0]
    offset = local.minute / 60
    return Sky(
        air=float(steps.air[at]),
        rh=f"{steps.rh[at]:.0f}",
        dew=float(steps.dew[at]),
        wind=float(steps.wind[at]),
        gust=float(steps.gust[at]) if steps.gust is not None and steps.wind_at_work[at] > steps.wind[at] else None,
        wind_from=bearing(float(steps.wind_from[at])),
        surface=float(min(s.climate.surface[0, at] for s in site.surfaces)),
        dew_line=line(dew),
        surface_line=line(coldest),
        tight="".join(tight),
        now_x=x(at),
        hours=[
            (at_x, f"{(local.hour + h) % 24:02d}")
            for h in marks
            if 0 <= (at_x := x(at + (h - offset) * 3600 / STEP_S)) <= WIDTH
        ],
        low=low + 1,
        high=high - 1,
    )
