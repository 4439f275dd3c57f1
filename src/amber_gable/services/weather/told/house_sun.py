"""The house from above through a day: where the sun stands, which walls it is on, and what may be done on each."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.survey.drawing.house_plan import PlacedWall, house_plan
from amber_gable.core.survey.drawing.shadow import block_line, block_shadow, eave_shade_m, shadow
from amber_gable.core.weather.futures.members import Odds
from amber_gable.core.weather.judged.slots import mean
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.judged_faces import JudgedFace

FROM_H, UNTIL_H = 4, 22


@dataclass(frozen=True)
class WallNow:
    """letter: what stops it, '' where it may be done; beam: direct sun on it, W/m²; sure: share of the futures; eave_m:
    how far down the shade of its overhang reaches."""

    face: str
    letter: str
    beam: float
    sure: float | None
    eave_m: float = 0.0


@dataclass(frozen=True)
class SunMoment:
    """azimuth and elevation in degrees at the middle of the quarter hour; shadow: corners of the house's on the ground,
    m; others: of what stands before it."""

    start: datetime
    azimuth: float
    elevation: float
    shadow: list[tuple[float, float]]
    others: list[list[tuple[float, float]]]
    walls: list[WallNow]


Line = tuple[tuple[float, float], tuple[float, float]]


def around(walls: Sequence[PlacedWall]) -> list[tuple[str, Line]]:
    """What stands before the house, by name: its near side on the plan, m."""
    return [(b.name or b.kind.value, block_line(w, b)) for w in walls for b in w.face.blocks]


def house_sun(
    view: JobView, rows: Sequence[JudgedFace], odds: Sequence[Odds] | None, at: datetime
) -> tuple[list[PlacedWall], list[SunMoment]]:
    """The walls on the plan, and every quarter hour of the day of `at`."""
    walls = house_plan(view.bundle.property.faces)
    slots, sun = rows[0].windows.slots, rows[0].climate.steps.sun
    placed = {w.face.id: w for w in walls}
    day = slots.day[rows[0].slot_of(at)]
    of_day = np.flatnonzero((slots.day == day) & (slots.hours >= FROM_H) & (slots.hours < UNTIL_H))
    beams = [mean(r.climate.poa_direct, slots)[0] for r in rows]
    shares = [None] * len(rows) if odds is None else [r.share(o) for r, o in zip(rows, odds, strict=True)]
    out = []
    for i in of_day.tolist():
        step = int(slots.first[i]) + 1
        azimuth, elevation = float(sun.azimuth[step]), float(sun.elevation[step])
        now = [
            WallNow(
                r.face.id,
                str(r.letters[i]),
                float(b[i]),
                None if s is None or i >= len(s) else float(s[i]),
                eave_shade_m(placed[r.face.id], azimuth, elevation) if r.face.id in placed else 0.0,
            )
            for r, b, s in zip(rows, beams, shares, strict=True)
        ]
        own = shadow(walls, azimuth, elevation)
        others = [block_shadow(w, b, azimuth, elevation) for w in walls for b in w.face.blocks]
        out.append(SunMoment(slots.time(i), azimuth, elevation, own, others, now))
    return walls, out
