"""Face lanes: sun on the face, what can be done when and how sure that is, and how far the surface stands above the dew
point."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np
import numpy.typing as npt

from amber_gable.domain.grid import SLOT_H, SLOT_S
from amber_gable.domain.house.survey import Face
from amber_gable.domain.job.plan import Task
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.wording import timed
from amber_gable.web.views.weather.strokes import Stroke, stroke
from amber_gable.web.views.weather.timescale import FIRST_H, LAST_H, TimeScale

if TYPE_CHECKING:
    from amber_gable.core.climate.lane_parts import LanePart
    from amber_gable.core.weather.judged.slots import Slots
    from amber_gable.core.weather.outdoors.air import Array

ROW_H = 92.0
SUN_Y, SUN_H = 4.0, 13.0
WORK_Y, WORK_H = 18.0, 34.0
SPREAD_Y, SPREAD_H = 54.0, 33.0
HEAD_H = 36.0
BEAM_FULL = 800.0
SPREAD_LOW, SPREAD_HIGH = -4.0, 14.0
_TIMES_FROM, _HOURS_FROM, _SURE_FROM, _LETTER_FROM = 84.0, 40.0, 34.0, 14.0
_MONTH_FROM = 100.0
HOURS_NAMED = ((40.0, range(5, 22)), (12.0, (6, 9, 12, 15, 18)), (0.0, (8, 16)))
"""From so many px an hour on, which hours are written."""
ZOOMS = {1: 44.0, 3: 14.0, 10: 3.8}
"""Days on one screen of 1280 px: px an hour."""
UNTOLD = ("N", "B", "S", "O")
"""Of what these stop no weather to come says anything."""
MAY_OPEN = 0.3
"""Share of the futures from which on a closed slot is marked as one that may open."""


@dataclass(frozen=True)
class Segment:
    """A run of slots with one verdict. `letter` is '' where work may go on; `said` is written into it, a line each."""

    x: float
    middle: float
    width: float
    letter: str
    said: list[str]
    title: str
    href: str


@dataclass(frozen=True)
class Sure:
    """A run of slots that are about as sure: x, width, 1 to 4, and whether the forecast itself has them open."""

    x: float
    width: float
    strength: int
    open: bool


@dataclass(frozen=True)
class Lane:
    id: str
    name: str
    bearing: str
    total: str
    y: float
    segments: list[Segment]
    sure: list[Sure]
    sun: str
    over: str
    under: str
    strokes: list[Stroke]


@dataclass(frozen=True)
class Lanes:
    """What is drawn from a climate, a plan and the faces: the same until one of them changes."""

    scale: TimeScale
    lanes: list[Lane]

    @property
    def width(self) -> float:
        return self.scale.width

    @property
    def height(self) -> float:
        return len(self.lanes) * ROW_H

    @property
    def full_height(self) -> float:
        return self.height + HEAD_H

    @property
    def days(self) -> list[tuple[float, str, str]]:
        """Where each day begins, its name, and its date."""
        midnights = [(self.scale.day_x(d), self.scale.midnight(d)) for d in range(self.scale.days)]
        month = " %b" if self.scale.day_w >= _MONTH_FROM else ""
        return [(x, f"{m:%a} {m.day}{m.strftime(month)}", m.date().isoformat()) for x, m in midnights]

    @property
    def hours(self) -> list[tuple[float, str]]:
        named = next(hours for wide, hours in HOURS_NAMED if self.scale.hour_w >= wide)
        return [(self.scale.x(d, h), f"{h:02d}") for d in range(self.scale.days) for h in named]

    @property
    def legend(self) -> list[tuple[str, str]]:
        """The letters that are shown, in words."""
        letters = {s.letter for lane in self.lanes for s in lane.segments}
        return [(letter, words) for letter, words in LETTERS.items() if letter in letters]

    @property
    def tells_sure(self) -> bool:
        return any(lane.sure for lane in self.lanes)

    @property
    def geometry(self) -> dict[str, float]:
        """What the script works with, px and s."""
        scale = self.scale
        return {"dayW": scale.day_w, "step": scale.day_x(1), "slotW": scale.slot_w, "slotS": SLOT_S, "rowH": ROW_H}

    def cursor(self, face: str, at: datetime) -> tuple[float, float] | None:
        """Where a face's slot stands; None outside the chart."""
        x = self.scale.at(at)
        row = next((i for i, lane in enumerate(self.lanes) if lane.id == face), None)
        return None if x is None or row is None else (x - 0.5, row * ROW_H + WORK_Y - 3)


_POINTS = ("N NNE NE ENE E ESE SE SSE " + "S SSW SW WSW W WNW NW NNW").split()


def bearing(azimuth_deg: float) -> str:
    """'S' for 180."""
    return _POINTS[round(azimuth_deg / 22.5) % 16]


def face_bearing(face: Face) -> str:
    return "level" if face.tilt_deg < 5 else bearing(face.azimuth_deg)


def lane_bearing(lane: LanePart) -> str:
    """Which way it faces; of what lies elsewhere its name says where."""
    return "" if lane.where is not None else face_bearing(lane.face)


@dataclass(frozen=True)
class LaneOf:
    """A face with what may be done in each slot, or the letter that stops it; those of one chart are on the same slots.
    sun (S,) W/m² on the face and spread (S,) K of its surface above the dew point. share: of the futures in which each
    slot is open, for the first slots as far as it is known (None: not worked out)."""

    lane: LanePart
    slots: Slots
    sun: Array
    spread: Array
    ok: npt.NDArray[np.bool_]
    letters: npt.NDArray[np.str_]
    share: Array | None = None

    @property
    def face(self) -> Face:
        return self.lane.face


def lane_scale(slots: Slots, days: int, hour_w: float, first: int = 0) -> TimeScale:
    """At most `days` of the slots' days, from their day `first` on."""
    begin = slots.time(int(np.argmax(slots.day >= first))).replace(hour=0, minute=0)
    return TimeScale(begin, min(days, len(slots.dates) - first), hour_w)


def lane_of(
    index: int,
    row: LaneOf,
    planned: Sequence[Task],
    scale: TimeScale,
    link: Callable[[str, datetime], str],
) -> Lane:
    face, slots = row.face, row.slots
    places = _Places.on(slots, scale)
    strokes = [s for t in planned if (s := stroke(t, scale, WORK_Y, WORK_H)) is not None]
    workable = int((row.ok & (places.day >= 0) & (places.day < scale.days)).sum()) * SLOT_H
    return Lane(
        id=face.id,
        name=face.name,
        bearing=lane_bearing(row.lane),
        total=f"{workable:g} h",
        y=index * ROW_H,
        segments=_segments(row, places, link, [span for s in strokes for span in s.covers]),
        sure=_sure(row, places),
        sun=_area(row.sun / BEAM_FULL * SUN_H, places, SUN_Y + SUN_H),
        over=_area(np.clip(row.spread, 0, SPREAD_HIGH) * _spread_scale(), places, zero_line()),
        under=_area(np.clip(row.spread, SPREAD_LOW, 0) * _spread_scale(), places, zero_line()),
        strokes=strokes,
    )


@dataclass(frozen=True)
class _Places:
    """Which slots are shown, and where: day (S,) counts from the first shown, x (S,) px."""

    scale: TimeScale
    day: npt.NDArray[np.int64]
    shown: npt.NDArray[np.bool_]
    x: Array

    @classmethod
    def on(cls, slots: Slots, scale: TimeScale) -> _Places:
        day = slots.day - (scale.begin.date() - slots.time(0).date()).days
        shown = (day >= 0) & (day < scale.days) & (slots.hours >= FIRST_H) & (slots.hours < LAST_H)
        return cls(scale, day, shown, scale.day_x(1) * day + (slots.hours - FIRST_H) * scale.hour_w)

    def runs(self, of: npt.NDArray[np.generic]) -> list[tuple[int, int]]:
        """First and end of each stretch of slots shown that are alike in `of` (S,) and of one day."""
        fresh = np.concatenate([[True], of[1:] != of[:-1]]) | (np.diff(self.day, prepend=-9) != 0)
        begins = np.flatnonzero(self.shown & (fresh | ~np.concatenate([[False], self.shown[:-1]])))
        ends = np.flatnonzero(self.shown & np.concatenate([fresh[1:] | ~self.shown[1:], [True]]))
        return list(zip(begins.tolist(), (ends + 1).tolist(), strict=True))


def _spread_scale() -> float:
    return SPREAD_H / (SPREAD_HIGH - SPREAD_LOW)


def zero_line() -> float:
    """Where the surface is just at the dew point, px below the lane's top."""
    return SPREAD_Y + SPREAD_HIGH * _spread_scale()


def _segments(
    row: LaneOf, places: _Places, link: Callable[[str, datetime], str], taken: list[tuple[float, float]]
) -> list[Segment]:
    face, slots = row.face, row.slots
    out: list[Segment] = []
    for i, j in places.runs(row.letters):
        x, width = float(places.x[i]), (j - i) * places.scale.slot_w
        start, end, letter = slots.time(i), slots.time(j), str(row.letters[i])
        words = "workable" if not letter else LETTERS[letter]
        sure = None if row.share is None or j > len(row.share) else float(row.share[i:j].mean())
        if sure is not None and letter not in UNTOLD:
            words += f", {sure * 100:.0f} % sure" if not letter else f"; open in {sure * 100:.0f} % of the futures"
        title = f"{face.name}, {timed(start)}–{end:%H:%M}: {words}"
        free_x, free_w = _free(x, x + width, taken)
        said = _said(letter, start, end, free_w, places.scale, sure)
        out.append(Segment(x, free_x + free_w / 2, width, letter, said, title, link(face.id, start)))
    return out


def _free(begin: float, end: float, taken: list[tuple[float, float]]) -> tuple[float, float]:
    """Where the widest piece of a stretch lies that no stroke covers, and how wide it is."""
    edges = sorted({begin, end, *(min(max(t, begin), end) for span in taken for t in span)})
    pieces = [(a, b - a) for a, b in pairwise(edges) if not any(s < b - 0.01 and e > a + 0.01 for s, e in taken)]
    return max(pieces, key=lambda p: p[1], default=(begin, 0.0))


def _said(
    letter: str,
    start: datetime,
    end: datetime,
    width: float,
    scale: TimeScale,
    sure: float | None,
) -> list[str]:
    """What is written into a segment: its letter, or its times and how sure they are as far as they fit into what no
    stroke covers."""
    if letter:
        return [letter] if width >= _LETTER_FROM else []
    chance = [] if sure is None or width < _SURE_FROM else [f"{sure * 100:.0f} %"]
    if width >= _TIMES_FROM:
        return [f"{start:%H:%M}–{end:%H:%M}", *chance]
    hours = (end - start).total_seconds() / 3600
    return [f"{hours:g} h", *chance] if width >= _HOURS_FROM else chance


def _sure(row: LaneOf, places: _Places) -> list[Sure]:
    """How sure each slot is, in four strengths; of closed ones those that may open."""
    if row.share is None:
        return []
    share = np.zeros(len(row.slots))
    share[: len(row.share)] = row.share[: len(share)]
    strength = np.clip(np.ceil(share * 4), 1, 4).astype(np.int64)
    dark = row.letters == "N"
    strength[(~row.ok & (share < MAY_OPEN)) | dark] = 0
    strength[len(row.share) :] = 0
    return [
        Sure(float(places.x[i]), (j - i) * places.scale.slot_w, int(strength[i]), bool(row.ok[i]))
        for i, j in places.runs(np.where(row.ok, strength, -strength))
        if strength[i]
    ]


def _area(heights: Array, places: _Places, base: float) -> str:
    """An SVG path filled between `base` and `base - heights`, one piece for each day; empty pieces left out."""
    path = []
    pick = np.flatnonzero(places.shown)
    xs = places.x[pick] + places.scale.slot_w / 2
    cuts = np.flatnonzero(np.diff(places.day[pick])) + 1
    for x, h in zip(np.split(xs, cuts), np.split(heights[pick], cuts), strict=True):
        if x.size and np.abs(h).max() > 0.3:
            points = " ".join(f"{a:.1f},{b:.1f}" for a, b in zip(x.tolist(), (base - h).tolist(), strict=True))
            path.append(f"M{x[0]:.1f},{base:.1f} L{points} L{x[-1]:.1f},{base:.1f}Z")
    return "".join(path)
