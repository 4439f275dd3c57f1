"""Face lanes: sun on the face, what can be done when, and how far the surface stands above the dew point."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.air import Array
from amber_gable.core.weather.rules import LETTERS
from amber_gable.core.weather.slots import Slots, mean
from amber_gable.core.weather.surface import Climate
from amber_gable.domain.grid import SLOT_H, SLOT_S
from amber_gable.domain.plan import Task
from amber_gable.domain.survey import Face
from amber_gable.web.views.timescale import DAY_W, FIRST_H, HOUR_W, LAST_H, SLOT_W, TimeScale

ROW_H = 82.0
SUN_Y, SUN_H = 4.0, 13.0
WORK_Y, WORK_H = 18.0, 34.0
SPREAD_Y, SPREAD_H = 54.0, 23.0
HEAD_H = 36.0
BEAM_FULL = 800.0
SPREAD_LOW, SPREAD_HIGH = -4.0, 14.0
_TIMES_FROM, _HOURS_FROM, _LETTER_FROM = 64.0, 22.0, 13.0


@dataclass(frozen=True)
class Segment:
    """A run of slots with one verdict. `letter` is '' where work may go on; `said` is written into it."""

    x: float
    middle: float
    width: float
    letter: str
    said: str
    title: str
    href: str


@dataclass(frozen=True)
class Stroke:
    """A placed task: its body and the px it spans, the tail while it dries, ticks (x, mark), and a film's colour."""

    path: str
    span: tuple[float, float]
    film: bool
    colour: str
    title: str
    tail: list[tuple[float, float]]
    ticks: list[tuple[float, str]]


@dataclass(frozen=True)
class Lane:
    id: str
    name: str
    bearing: str
    total: str
    y: float
    segments: list[Segment]
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
        return [(x, f"{m:%a} {m.day} {m:%b}", m.date().isoformat()) for x, m in midnights]

    @property
    def hours(self) -> list[tuple[float, str]]:
        return [(self.scale.x(d, h), f"{h:02d}") for d in range(self.scale.days) for h in (6, 9, 12, 15, 18)]

    @property
    def legend(self) -> list[tuple[str, str]]:
        """The letters that are shown, in words."""
        letters = {s.letter for lane in self.lanes for s in lane.segments}
        return [(letter, words) for letter, words in LETTERS.items() if letter in letters]

    @property
    def geometry(self) -> dict[str, float]:
        """What the script works with, px and s."""
        return {"dayW": DAY_W, "step": self.scale.day_x(1), "slotW": SLOT_W, "slotS": SLOT_S, "rowH": ROW_H}

    def cursor(self, face: str, at: datetime) -> tuple[float, float] | None:
        """Where a face's slot stands; None outside the chart."""
        x = self.scale.at(at)
        row = next((i for i, lane in enumerate(self.lanes) if lane.id == face), None)
        return None if x is None or row is None else (x - 0.5, row * ROW_H + WORK_Y - 3)


_POINTS = ("N NNE NE ENE E ESE SE SSE " + "S SSW SW WSW W WNW NW NNW").split()


def bearing(azimuth_deg: float) -> str:
    """'S' for 180."""
    return _POINTS[round(azimuth_deg / 22.5) % 16]


@dataclass(frozen=True)
class LaneOf:
    """A face with its one-row climate and what may be done in each slot, or the letter that stops it; those of one
    chart are on the same slots."""

    face: Face
    climate: Climate
    slots: Slots
    ok: npt.NDArray[np.bool_]
    letters: npt.NDArray[np.str_]


def lane_scale(slots: Slots, days: int) -> TimeScale:
    """At most `days` of the slots' days."""
    return TimeScale(slots.time(0).replace(hour=0, minute=0), min(days, len(slots.dates)))


def lane_of(
    index: int,
    row: LaneOf,
    tasks: Sequence[Task],
    scale: TimeScale,
    link: Callable[[str, datetime], str],
) -> Lane:
    face, climate, slots = row.face, row.climate, row.slots
    shown = (slots.day < scale.days) & (slots.hours >= FIRST_H) & (slots.hours < LAST_H)
    strokes = [s for t in tasks if t.face == face.id and (s := _stroke(t, scale)) is not None]
    workable = int((row.ok & (slots.day < scale.days)).sum()) * SLOT_H
    spread = mean(climate.dew_margin, slots)[0]
    return Lane(
        id=face.id,
        name=face.name,
        bearing="level" if face.tilt_deg < 5 else bearing(face.azimuth_deg),
        total=f"{workable:g} h",
        y=index * ROW_H,
        segments=_segments(row, shown, scale, link, [s.span for s in strokes]),
        sun=_area(mean(climate.poa_direct, slots)[0] / BEAM_FULL * SUN_H, slots, shown, scale, SUN_Y + SUN_H),
        over=_area(np.clip(spread, 0, SPREAD_HIGH) * _spread_scale(), slots, shown, scale, zero_line()),
        under=_area(np.clip(spread, SPREAD_LOW, 0) * _spread_scale(), slots, shown, scale, zero_line()),
        strokes=strokes,
    )


def _spread_scale() -> float:
    return SPREAD_H / (SPREAD_HIGH - SPREAD_LOW)


def zero_line() -> float:
    """Where the surface is just at the dew point, px below the lane's top."""
    return SPREAD_Y + SPREAD_HIGH * _spread_scale()


def _segments(
    row: LaneOf,
    shown: npt.NDArray[np.bool_],
    scale: TimeScale,
    link: Callable[[str, datetime], str],
    taken: list[tuple[float, float]],
) -> list[Segment]:
    face, slots, letters = row.face, row.slots, row.letters
    fresh = (np.diff(slots.day, prepend=-1) != 0) | np.concatenate([[True], letters[1:] != letters[:-1]])
    begins = np.flatnonzero(shown & (fresh | ~np.concatenate([[False], shown[:-1]])))
    out: list[Segment] = []
    for i in begins.tolist():
        j = i + 1
        while j < len(slots) and shown[j] and not fresh[j]:
            j += 1
        x = scale.x(int(slots.day[i]), float(slots.hours[i]))
        width = (j - i) * SLOT_W
        start, end, letter = slots.time(i), slots.time(j), str(letters[i])
        words = "workable" if not letter else LETTERS[letter]
        title = f"{face.name}, {start:%a} {start.day} {start:%b %H:%M}–{end:%H:%M}: {words}"
        said = _said(letter, start, end, x, width, taken)
        out.append(Segment(x, x + width / 2, width, letter, said, title, link(face.id, start)))
    return out


def _said(letter: str, start: datetime, end: datetime, x: float, width: float, taken: list[tuple[float, float]]) -> str:
    """What is written into a segment: its letter, or its times as far as they fit and no stroke lies over them."""
    if letter:
        return letter if width >= _LETTER_FROM else ""
    if any(a < x + width and b > x for a, b in taken):
        return ""
    if width >= _TIMES_FROM:
        return f"{start:%H:%M}–{end:%H:%M}"
    return f"{width / SLOT_W * SLOT_H:g} h" if width >= _HOURS_FROM else ""


def _area(heights: Array, slots: Slots, shown: npt.NDArray[np.bool_], scale: TimeScale, base: float) -> str:
    """An SVG path filled between `base` and `base - heights`, one piece for each day; empty pieces left out."""
    path = []
    pick = np.flatnonzero(shown & (slots.day < scale.days))
    xs = scale.day_x(1) * slots.day[pick] + (slots.hours[pick] - FIRST_H + SLOT_H / 2) * HOUR_W
    cuts = np.flatnonzero(np.diff(slots.day[pick])) + 1
    for x, h in zip(np.split(xs, cuts), np.split(heights[pick], cuts), strict=True):
        if x.size and np.abs(h).max() > 0.3:
            points = " ".join(f"{a:.0f},{b:.1f}" for a, b in zip(x.tolist(), (base - h).tolist(), strict=True))
            path.append(f"M{x[0]:.0f},{base:.1f} L{points} L{x[-1]:.0f},{base:.1f}Z")
    return "".join(path)


def _stroke(task: Task, scale: TimeScale) -> Stroke | None:
    pieces = scale.pieces(task.start, task.end)
    if not pieces:
        return None
    x, width = pieces[0][0], max(pieces[-1][0] + pieces[-1][1] - pieces[0][0], SLOT_W)
    film = task.kind.lays_film
    marks = [("t", task.touch_at), ("r", task.rain_ready_at), ("c", task.ready_at)] if film else []
    y = WORK_Y
    tail = scale.pieces(task.end, task.ready_at) if film and task.ready_at else []
    title = f"{task.operation}, {task.zone_name}, {task.start:%H:%M}–{task.end:%H:%M}"
    return Stroke(
        path=_bristles(x, y + 6, width, WORK_H - 12)
        if film
        else f"M{x:.1f},{y + WORK_H - 7:.1f}h{width:.1f}v5h-{width:.1f}z",
        span=(x, x + width),
        film=film,
        colour=task.colour or "",
        title=title,
        tail=tail,
        ticks=[(at, mark) for mark, t in marks if t is not None and (at := scale.at(t)) is not None],
    )


def _bristles(x: float, y: float, width: float, height: float) -> str:
    """The outline of a brush stroke: straight where it begins, ragged where the bristles lift."""
    reach = (3.0, -1.0, 5.0, 0.0, 2.0, -2.0, 4.0)
    step = height / len(reach)
    edge = " ".join(f"L{x + width + r:.1f},{y + (k + 0.5) * step:.1f}" for k, r in enumerate(reach))
    return (
        f"M{x:.1f},{y:.1f}L{x + width:.1f},{y:.1f} {edge} L{x + width:.1f},{y + height:.1f}L{x:.1f},{y + height:.1f}Z"
    )
