"""The year of each face as a strip: a month a column, as high as its hours, the best weeks marked beneath."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from amber_gable.services.weather.told.season import DAYS, FaceSeason
from amber_gable.web.views.weather.lanes import face_bearing

MONTH_W, BAR_H = 62.0, 74.0
WIDTH = 12 * MONTH_W
NAMES = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"]


@dataclass(frozen=True)
class MonthBar:
    x: float
    name: str
    height: float
    hours: str
    coats: int


@dataclass(frozen=True)
class YearStrip:
    """`weeks`: x, width and words of the best; `best` the sentence to read first."""

    name: str
    bearing: str
    coat: str
    total: str
    best: str
    bars: list[MonthBar]
    weeks: list[tuple[float, float, str]]


def year_strips(found: Sequence[FaceSeason]) -> list[YearStrip]:
    most = max((m.workable_h for f in found for m in f.found.months), default=0.0) or 1.0
    return [_strip(f, most) for f in found]


def _strip(f: FaceSeason, most: float) -> YearStrip:
    weeks = f.found.best_weeks
    spans = [f"{w.first.day} {w.first:%b}–{w.last.day} {w.last:%b}" for w in weeks]
    return YearStrip(
        name=f.face.name,
        bearing=face_bearing(f.face),
        coat=f.coat,
        total=f"{f.found.workable_h:.0f} h a year",
        best=f"Best weeks: {', '.join(spans)}" if spans else "No week of it can be worked in",
        bars=[
            MonthBar(
                x=(m.month - 1) * MONTH_W,
                name=NAMES[m.month - 1],
                height=m.workable_h / most * BAR_H,
                hours=f"{m.workable_h:.0f}",
                coats=m.coats,
            )
            for m in f.found.months
        ],
        weeks=[
            (_x(w.first), 7 / DAYS * WIDTH, f"{span}: {w.workable_h:.0f} h")
            for w, span in zip(weeks, spans, strict=True)
        ],
    )


def _x(day: date) -> float:
    return (day - date(day.year, 1, 1)).days / DAYS * WIDTH
