"""The course of each face's moisture, drawn: the band, the limit, and the readings on it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import TYPE_CHECKING

import numpy as np

from amber_gable.domain.wording import dated, timed
from amber_gable.services.weather.faces.face_moisture import FaceMoisture
from amber_gable.web.views.weather.lanes import face_bearing

if TYPE_CHECKING:
    from amber_gable.core.weather.outdoors.air import Array

WIDTH, HEIGHT = 620.0, 120.0
LEAST_TOP, STEP, WIDE_STEP = 20.0, 10.0, 25.0
FULL = 100.0


@dataclass(frozen=True)
class DrawnMoisture:
    """Paths in px of a drawing WIDTH × HEIGHT; `answer` the line to read first, `told` what it rests on."""

    name: str
    bearing: str
    part: str
    href: str
    fit: bool
    answer: str
    told: str
    checks: list[str]
    band: str
    line: str
    limit_y: float
    limit: str
    levels: list[tuple[float, str]]
    days: list[tuple[float, str]]
    now_x: float
    readings: list[tuple[float, float, str]]


def draw_moistures(found: Sequence[FaceMoisture], job_id: str, now: datetime) -> list[DrawnMoisture]:
    return [_drawn(f, job_id, now) for f in found]


def _drawn(f: FaceMoisture, job_id: str, now: datetime) -> DrawnMoisture:
    reach = np.minimum(f.pct + f.half_band, FULL)
    highest = float(max(reach.max(), f.limit.value, *(p for _, p in f.readings), LEAST_TOP))
    step = STEP if highest <= 2 * WIDE_STEP else WIDE_STEP
    top = float(np.ceil(highest / step) * step)
    begin, end = float(f.times[0]), float(f.times[-1])

    def x(t: float) -> float:
        return (t - begin) / (end - begin) * WIDTH

    def y(pct: Array | float) -> Array:
        return np.asarray(HEIGHT * (1 - np.clip(pct, 0, top) / top))

    xs = [x(t) for t in f.times]

    def points(values: Array) -> list[str]:
        return [f"{a:.1f},{b:.1f}" for a, b in zip(xs, y(values).tolist(), strict=True)]

    upper, lower = points(reach), points(f.pct - f.half_band)
    here = int(np.argmin(np.abs(f.times - now.timestamp())))
    midnight = now.replace(hour=0, minute=0, second=0, microsecond=0)
    days = [midnight + timedelta(days=n) for n in range(-3, 9)]
    return DrawnMoisture(
        name=f.face.name,
        bearing=face_bearing(f.face),
        part=f.part.name,
        href=f"/jobs/{job_id}/survey/{f.key[0]}/{f.key[1]}/condition",
        fit=f.fit,
        answer=_answer(f),
        told=f"now {f.pct[here]:.1f} % ± {f.half_band[here]:.1f}; limit {f.limit.value:g} %, {f.limit.source}",
        checks=[
            f"{dated(c.at)}: said {c.said:.1f} %, read {c.read:.1f} % "
            f"({'right within half a per cent' if abs(c.said - c.read) < 0.5 else f'off by {c.said - c.read:+.1f}'})"
            for c in f.checks[-3:]
        ],
        band=f"M{' '.join(upper)} L{' '.join(reversed(lower))}Z",
        line="M" + " ".join(points(f.pct)),
        limit_y=float(y(f.limit.value)),
        limit=f"limit {f.limit.value:g} %",
        levels=[(float(y(v)), f"{v:g}") for v in np.arange(0, top + 1, step)],
        days=[(x(d.timestamp()), f"{d:%a} {d.day}") for d in days if begin <= d.timestamp() <= end],
        now_x=x(now.timestamp()),
        readings=[(max(x(at.timestamp()), 0.0), float(y(p)), f"read {p:g} %, {timed(at)}") for at, p in f.readings],
    )


def _answer(f: FaceMoisture) -> str:
    if f.lasting is not None:
        known = f"Read {f.lasting:g} %, nobody knows when"
        return f"{known}: dry enough" if f.fit else f"{known}: too wet; read it again"
    if f.fit:
        return "Dry enough now"
    if f.dry_from is None:
        return "Too wet in all the days known"
    at = f.dry_from
    return f"Dry enough from {timed(at)}"
