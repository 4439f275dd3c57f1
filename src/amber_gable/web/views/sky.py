"""The sky strip: now, and twenty-four hours of dew point against the coldest face."""

from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.domain.grid import SLOT_S, STEP_S
from amber_gable.web.views.lanes import bearing

WIDTH, HEIGHT = 300.0, 46.0
HOURS = 24
_TIGHT = 3.0
_SLOT_W = SLOT_S / 3600 / HOURS * WIDTH


@dataclass(frozen=True)
class Sky:
    """Readings (°C, m/s, % in words) and the two lines in px; `tight` is the path where the spread is under 3 K."""

    air: float
    rh: str
    dew: float
    wind: float
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
    """From six hours before now to eighteen after; None when the weather does not reach now."""
    steps = site.steps
    at = int((now.timestamp() - steps.start) // STEP_S)
    if not 0 <= at < len(steps):
        return None
    first, last = max(0, at - 6 * 3600 // STEP_S), min(len(steps), at + 18 * 3600 // STEP_S)
    pick = np.arange(first, last, 3)
    dew, coldest = steps.dew[pick], np.min([s.climate.surface[0, pick] for s in site.surfaces], axis=0)
    low, high = float(min(dew.min(), coldest.min())) - 1, float(max(dew.max(), coldest.max())) + 1

    def x(k: float) -> float:
        return (k - (at - 36)) * STEP_S / 3600 / HOURS * WIDTH

    def y(value: float) -> float:
        return HEIGHT - (value - low) / (high - low) * HEIGHT

    def line(values: np.typing.NDArray[np.float64]) -> str:
        return " ".join(f"{x(float(k)):.1f},{y(float(v)):.1f}" for k, v in zip(pick, values, strict=True))

    tight = []
    for i in np.flatnonzero(coldest - dew < _TIGHT):
        top, foot = y(max(coldest[i], dew[i])), y(min(coldest[i], dew[i]))
        tight.append(f"M{x(float(pick[i])):.1f},{top:.1f}h{_SLOT_W:.2f}V{foot + 1:.1f}h-{_SLOT_W:.2f}z")
    local = now.astimezone(site.slots.tz)
    marks = [h for h in range(-6, 19) if (local.hour + h) % 6 == 0]
    offset = local.minute / 60
    return Sky(
        air=float(steps.air[at]),
        rh=f"{steps.rh[at]:.0f}",
        dew=float(steps.dew[at]),
        wind=float(steps.wind[at]),
        wind_from=bearing(float(steps.wind_from[at])),
        surface=float(min(s.climate.surface[0, at] for s in site.surfaces)),
        dew_line=line(dew),
        surface_line=line(coldest),
        tight="".join(tight),
        now_x=x(at),
        hours=[(x(at + (h - offset) * 3600 / STEP_S), f"{(local.hour + h) % 24:02d}") for h in marks],
        low=low + 1,
        high=high - 1,
    )
