"""Two forecasts drawn over each other: the air of then dashed beneath that of now, the rain of now above a line and
that of then below it."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo

import numpy as np

from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.weather.series import HOUR, Floats, WeatherSeries
from amber_gable.domain.wording import dated
from amber_gable.services.weather.held.versions import Compared, FaceHours, TaskMoved, coats_lost
from amber_gable.web.views.units import Units

HOUR_W, RAIN_W, AIR_H, RAIN_H = 6.5, 6.0, 110.0, 34.0
RAIN_Y = AIR_H + RAIN_H + 12
HEIGHT = RAIN_Y + RAIN_H
GRID_K = 5.0
FULL_RAIN_MM = 5.0
"""Depth of an hour as high as there is room; more is drawn no higher."""
SLIGHT_H = 1.0


@dataclass(frozen=True)
class DrawnForecasts:
    """Paths in px; rain as (x, y, height); `zero` where the rain of then hangs from and that of now stands on."""

    width: float
    height: float
    zero: float
    days: list[tuple[float, str]]
    levels: list[tuple[float, str]]
    air_then: str
    air_now: str
    rain_then: list[tuple[float, float, float]]
    rain_now: list[tuple[float, float, float]]

    @property
    def full_width(self) -> float:
        return self.width + 80

    @property
    def full_height(self) -> float:
        return self.height + 26


@dataclass(frozen=True)
class FaceDifference:
    """Hours of then and now, and the difference in words; `worse`: fewer by an hour or more."""

    name: str
    then: str
    now: str
    words: str
    worse: bool
    better: bool


def headline(found: Compared) -> str:
    """What matters most of a change, in one line."""
    if found.lost:
        also = f", {len(found.gained)} gain one" if found.gained else ""
        return coats_lost(found.lost) + also
    if found.gained:
        return "1 coat gains a window" if len(found.gained) == 1 else f"{len(found.gained)} coats gain windows"
    if found.changes:
        words = found.changes[0].words
        return words[0].upper() + words[1:]
    return "Nothing that would shift a day"


@dataclass(frozen=True)
class MovedRow:
    """`stops` says what stops it, by letter and words; '' where it may go on."""

    start: datetime
    what: str
    letter: str
    stops: str


def moved_row(moved: TaskMoved, zone: tzinfo | None, *, lost: bool) -> MovedRow:
    task, letter = moved.task, moved.letter if lost else ""
    what = f"{task.face_name}, {task.zone_name}: {task.operation}"
    return MovedRow(task.start.astimezone(zone), what, letter, LETTERS[letter] if letter else "")


def face_difference(hours: FaceHours) -> FaceDifference:
    more = hours.now_h - hours.then_h
    words = "the same" if abs(more) < SLIGHT_H else f"{abs(more):.1f} h {'more' if more > 0 else 'fewer'}"
    return FaceDifference(
        hours.face.name,
        f"{hours.then_h:.1f} h",
        f"{hours.now_h:.1f} h",
        words,
        worse=more <= -SLIGHT_H,
        better=more >= SLIGHT_H,
    )


def drawn_forecasts(found: Compared, since: datetime, units: Units) -> DrawnForecasts:
    """From the midnight of `since` (local) on, as far as both reach."""
    midnight = since.replace(hour=0, minute=0, second=0, microsecond=0)
    begin = max(int(midnight.timestamp()), found.then.start, found.now.start) // HOUR * HOUR
    hours = np.arange(begin, int(found.until.timestamp()), HOUR)
    airs = [_of(s, s.air_c, hours) for s in (found.then, found.now)]
    low = float(np.floor(min(a.min() for a in airs) / GRID_K) * GRID_K)
    high = max(float(np.ceil(max(a.max() for a in airs) / GRID_K) * GRID_K), low + GRID_K)
    x0 = (begin - midnight.timestamp()) / HOUR * HOUR_W

    def y(celsius: float) -> float:
        return AIR_H * (1 - (celsius - low) / (high - low))

    def path(air: Floats) -> str:
        points = (f"{x0 + (i + 0.5) * HOUR_W:.1f} {y(float(c)):.1f}" for i, c in enumerate(air))
        return "M" + "L".join(points)

    def rain(series: WeatherSeries, up: float) -> list[tuple[float, float, float]]:
        if series.rain_mm is None:
            return []
        depth = np.minimum(np.nan_to_num(_of(series, series.rain_mm, hours)) / FULL_RAIN_MM, 1) * RAIN_H
        return [(x0 + i * HOUR_W, RAIN_Y - up * float(d), float(d)) for i, d in enumerate(depth) if d > 0.5]

    count = (datetime.fromtimestamp(int(hours[-1]), UTC).astimezone(since.tzinfo).date() - midnight.date()).days + 1
    dates = [midnight + timedelta(days=n) for n in range(count)]
    return DrawnForecasts(
        width=count * 24 * HOUR_W,
        height=HEIGHT,
        zero=RAIN_Y,
        days=[(24 * HOUR_W * n, dated(d)) for n, d in enumerate(dates)],
        levels=[(y(c), units.shown(c, "temperature", 0)) for c in np.arange(low, high + 1, GRID_K).tolist()],
        air_then=path(airs[0]),
        air_now=path(airs[1]),
        rain_then=rain(found.then, 0),
        rain_now=rain(found.now, 1),
    )


def _of(series: WeatherSeries, column: Floats, hours: np.ndarray) -> Floats:
    return np.asarray(column[((hours - series.start) // HOUR).astype(int)])
