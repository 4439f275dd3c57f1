"""The house plan with sun: walls hatched by what stops them, the sun on its path, the shadow on the ground."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from math import cos, hypot, radians, sin
from typing import TYPE_CHECKING, Any

from amber_gable.core.survey.drawing.house_plan import outward
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.wording import timed
from amber_gable.services.weather.faces.judged_faces import JudgedFace
from amber_gable.services.weather.told.house_sun import Line, SunMoment, WallNow, around
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.timescale import script_json

if TYPE_CHECKING:
    from amber_gable.core.survey.drawing.house_plan import PlacedWall

SIZE, MIDDLE = 560.0, 280.0
HOUSE, SKY, NEAREST = 88.0, 236.0, 0.55
"""Half the room of the house, the horizon's circle, px; the higher the sun, the nearer, but never over the house."""
RIM = 222.0
"""How far from the middle what stands around is drawn at most, px."""
BEAM_FROM = 20.0
CLEAR_OF_WALL = 9.0
"""Nearer than this the edge of an eave would lie under the wall's own stroke, px."""
LEAST_SHADE_M = 0.15


@dataclass(frozen=True)
class SunWall:
    """line and the strip of sun before it, px; `label`: where its letter stands, outside it; eave: the
    edge of its overhang ('' where it has none)."""

    id: str
    name: str
    line: str
    lit: str
    label: tuple[float, float]
    eave: str


@dataclass(frozen=True)
class BlockWithShadow:
    """What stands before the house: its near side, and where its name is written (None: elsewhere), towards the middle
    of the plan."""

    line: str
    name: str
    label: tuple[float, float] | None
    anchor: str


@dataclass(frozen=True)
class DrawnSun:
    """`moments`: a JSON list of what the script shows for each quarter hour; `shown` that of the one asked about."""

    walls: list[SunWall]
    blocks: list[BlockWithShadow]
    path: str
    hours: list[tuple[float, float, str]]
    moments: str
    shown: dict[str, Any]
    chosen: int
    last: int


def draw_sun(
    walls: list[PlacedWall], rows: Sequence[JudgedFace], moments: list[SunMoment], at: datetime, units: Units
) -> DrawnSun:
    ends = [p for w in walls for p in (w.start, w.end)] or [(0.0, 0.0)]
    centre = [(min(p[n] for p in ends) + max(p[n] for p in ends)) / 2 for n in (0, 1)]
    reach = max([abs(p[n] - centre[n]) for p in ends for n in (0, 1)] + [1.0])
    scale = HOUSE / reach

    def px(point: tuple[float, float]) -> tuple[float, float]:
        return MIDDLE + (point[0] - centre[0]) * scale, MIDDLE - (point[1] - centre[1]) * scale

    def sun_at(azimuth: float, elevation: float) -> tuple[float, float]:
        away = SKY * (1 - (1 - NEAREST) * max(elevation, 0) / 90)
        return MIDDLE + away * sin(radians(azimuth)), MIDDLE - away * cos(radians(azimuth))

    judged = {r.face.id for r in rows}
    drawn = [_wall(w, scale, px) for w in walls if w.face.id in judged]
    up = [m for m in moments if m.elevation > 0]
    told = [_told(m, px, sun_at(m.azimuth, m.elevation), units) for m in moments]
    chosen = next((i for i, m in enumerate(moments) if m.start.timestamp() + 900 > at.timestamp()), len(moments) - 1)
    return DrawnSun(
        walls=drawn,
        blocks=_blocks(around(walls), px),
        path="M" + " ".join("{:.1f},{:.1f}".format(*sun_at(m.azimuth, m.elevation)) for m in up) if up else "",
        hours=[
            (*sun_at(m.azimuth, m.elevation), f"{m.start:%H}") for m in up if m.start.hour % 3 + m.start.minute == 0
        ],
        moments=script_json(told),
        shown=told[chosen],
        chosen=chosen,
        last=len(moments) - 1,
    )


def _on(wall: WallNow, units: Units) -> str:
    if wall.beam < BEAM_FROM:
        return ""
    shaded = f", but for {units.run(wall.eave_m)} under the eave" if wall.eave_m >= LEAST_SHADE_M else ""
    return f"in the sun{shaded}"


def _area(corners: list[tuple[float, float]]) -> str:
    return "M" + " ".join(f"{x:.0f},{y:.0f}" for x, y in corners) + "Z" if corners else ""


def _wall(w: PlacedWall, scale: float, px: Any) -> SunWall:
    (x0, y0), (x1, y1) = px(w.start), px(w.end)
    east, north = outward(w.face.azimuth_deg)
    out = (east, -north)

    def beside(px_out: float) -> str:
        dx, dy = out[0] * px_out, out[1] * px_out
        return f"M{x0 + dx:.1f},{y0 + dy:.1f}L{x1 + dx:.1f},{y1 + dy:.1f}"

    middle = ((x0 + x1) / 2 + out[0] * 34, (y0 + y1) / 2 + out[1] * 34 + 7)
    eave = beside(max(w.face.overhang_m * scale, CLEAR_OF_WALL)) if w.face.overhang_m else ""
    return SunWall(w.face.id, w.face.name, beside(0), beside(13), middle, eave)


def _line(start: tuple[float, float], end: tuple[float, float]) -> str:
    return f"M{start[0]:.1f},{start[1]:.1f}L{end[0]:.1f},{end[1]:.1f}"


def _blocks(stand: Sequence[tuple[str, Line]], px: Any) -> list[BlockWithShadow]:
    """Drawn as each face sees it; a name is written once, where it lies furthest up."""
    drawn = [(*_near_side(line, px), name) for name, line in stand]
    upper = {name: top for _, top, name in sorted(drawn, key=lambda block: -block[1][1])}
    return [_block(line, top, name, named=top == upper[name]) for line, top, name in drawn]


def _near_side(line: Line, px: Any) -> tuple[str, tuple[float, float]]:
    """What stands further off than the circle reaches is drawn on its rim, where it is seen; with its upper end."""
    ends = [px(p) for p in line]
    pulled = []
    for x, y in ends:
        away = hypot(x - MIDDLE, y - MIDDLE)
        share = min(1.0, RIM / away) if away else 1.0
        pulled.append((MIDDLE + (x - MIDDLE) * share, MIDDLE + (y - MIDDLE) * share))
    return _line(*pulled), min(pulled, key=lambda p: p[1])


def _block(line: str, top: tuple[float, float], name: str, *, named: bool) -> BlockWithShadow:
    # Beside its upper end, away from the house's letters.
    x, y = top
    left = x < MIDDLE
    return BlockWithShadow(line, name, (x + (4 if left else -4), y - 7) if named else None, "start" if left else "end")


def _told(m: SunMoment, px: Any, sun: tuple[float, float], units: Units) -> dict[str, Any]:
    up = m.elevation > 0
    corners = [px(p) for p in m.shadow]
    return {
        "at": m.start.isoformat(),
        "title": timed(m.start),
        "sun": [round(c, 1) for c in sun] if up else None,
        "sky": f"sun {m.elevation:.0f}° high" if up else "the sun is down",
        "shadow": _area(corners),
        "others": " ".join(_area([px(p) for p in other]) for other in m.others if other),
        "walls": {
            w.face: {
                "letter": w.letter,
                "words": "workable" if not w.letter else LETTERS[w.letter],
                "lit": w.beam >= BEAM_FROM,
                "on": _on(w, units),
                "sure": "" if w.sure is None or w.letter else f"{w.sure * 100:.0f} %",
            }
            for w in m.walls
        },
        "open": sum(not w.letter for w in m.walls),
        "of": len(m.walls),
    }
