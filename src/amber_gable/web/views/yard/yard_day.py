"""A day's work of one job drawn on the clock: a brush stroke for each coat, a bar for what lays no film."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from amber_gable.domain.job.plan import Task
from amber_gable.services.job.yard import DayWork

FROM_H, TO_H, HOUR_W = 5, 22, 36.0
TOP, TALL = 4.0, 22.0
EVERY_H = 3


@dataclass(frozen=True)
class DayBar:
    """px; `colour` of a film, '' for what lays none."""

    x: float
    width: float
    colour: str
    title: str


@dataclass(frozen=True)
class YardDay:
    """`now` px, None outside the hours drawn. `hours`: (px, words). `doing`: what is under way by the plan, else what
    comes next, else the last."""

    work: DayWork
    bars: list[DayBar]
    hours: list[tuple[float, str]]
    now: float | None
    doing: Task
    width: float = (TO_H - FROM_H) * HOUR_W
    height: float = TOP + TALL + 22


def yard_day(work: DayWork, now: datetime) -> YardDay:
    here = now.astimezone(work.job.tz)
    first = here.replace(hour=FROM_H, minute=0, second=0, microsecond=0)

    def at(moment: datetime) -> float:
        hours = (moment - first) / timedelta(hours=1)
        return min(max(hours, 0.0), float(TO_H - FROM_H)) * HOUR_W

    bars = [
        DayBar(
            at(t.start),
            max(at(t.end) - at(t.start), 2.0),
            (t.colour or "") if t.kind.lays_film else "",
            f"{t.operation}, {t.face_name}, {t.start.astimezone(work.job.tz):%H:%M}",
        )
        for t in work.tasks
    ]
    hours = [((h - FROM_H) * HOUR_W, f"{h:02d}") for h in range(FROM_H + 1, TO_H, EVERY_H)]
    inside = FROM_H <= here.hour < TO_H
    doing = next((t for t in work.tasks if t.end > now), work.tasks[-1])
    return YardDay(work, bars, hours, at(here) if inside else None, doing)
