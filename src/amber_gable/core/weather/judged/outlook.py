"""What a year holds for a coat on a face: workable hours by month, coats one after another, the best weeks."""

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

from amber_gable.core.weather.judged.windows import Windows
from amber_gable.core.weather.outdoors.air import Array, Ints

COAT_H = 2.0
"""Open time a coat must find in one piece: an assumption, about one drop of a ladder on each storey."""
WEEK_D = 7
BEST_WEEKS = 4


@dataclass(frozen=True)
class Month:
    month: int
    workable_h: float
    coats: int


@dataclass(frozen=True)
class Week:
    first: date
    workable_h: float

    @property
    def last(self) -> date:
        return self.first + timedelta(days=WEEK_D - 1)


@dataclass(frozen=True)
class FaceOutlook:
    """months in the order of the year; best weeks the best first, none of which overlap."""

    months: tuple[Month, ...]
    workable_h: float
    best_weeks: tuple[Week, ...]


def outlook(windows: Windows, face: int) -> FaceOutlook:
    """Of one face through the slots of its windows."""
    slots, open_ = windows.slots, windows.ok[face]
    dates = [date.fromisoformat(d) for d in slots.dates]
    by_day = np.asarray(np.bincount(slots.day[open_], minlength=len(dates)) * slots.length_h, dtype=float)
    months = np.array([d.month for d in dates])
    assert windows.recoat_at is not None, "a coat has stages"
    laid = months[slots.day[_coats(open_, windows.recoat_at[face], slots.start, slots.length_s)]]
    found = [Month(m, float(by_day[months == m].sum()), int((laid == m).sum())) for m in dict.fromkeys(months.tolist())]
    return FaceOutlook(tuple(found), float(by_day.sum()), tuple(_best_weeks(by_day, dates)))


def _coats(open_: Array, recoat_at: Array, start: int, length_s: int) -> Ints:
    """Slots in which the coats end that find COAT_H in one piece, each not before the last may be recoated."""
    need, run, free_from, out = round(COAT_H * 3600 / length_s), 0, -np.inf, []
    for i, fine in enumerate(open_):
        run = run + 1 if fine and start + i * length_s >= free_from else 0
        if run >= need:
            out.append(i)
            run, free_from = 0, float(recoat_at[i])
    return np.array(out, dtype=np.int64)


def _best_weeks(by_day: Array, dates: list[date]) -> list[Week]:
    """Seven days each, those with most hours first; none without any."""
    if len(by_day) < WEEK_D:
        return []
    sums = np.convolve(by_day, np.ones(WEEK_D), mode="valid")
    out: list[Week] = []
    for i in np.argsort(-sums, kind="stable"):
        apart = all(abs((dates[i] - week.first).days) >= WEEK_D for week in out)
        if sums[i] > 0 and apart:
            out.append(Week(dates[i], float(sums[i])))
        if len(out) == BEST_WEEKS:
            break
    return out
