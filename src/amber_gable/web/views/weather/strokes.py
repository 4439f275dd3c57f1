"""Placed work on the lanes: a brush stroke with its drying tail, a bar for what lays no film."""

from dataclasses import dataclass

from amber_gable.domain.job.plan import Task
from amber_gable.web.views.weather.timescale import TimeScale

MARKS_FROM, MARK_W = 8.0, 12.0
"""px an hour from which on the stages of drying are lettered, and how wide a letter is."""


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

    @property
    def covers(self) -> list[tuple[float, float]]:
        """Where nothing else can be written into the band."""
        lettered = [(x - MARK_W / 2, x + MARK_W / 2) for x, mark in self.ticks if mark]
        return [self.span, *lettered] if self.film else []


def stroke(task: Task, scale: TimeScale, top: float, height: float) -> Stroke | None:
    """In a band that begins at `top`; None outside the days shown."""
    pieces = scale.pieces(task.start, task.end)
    if not pieces:
        return None
    x, width = pieces[0][0], max(pieces[-1][0] + pieces[-1][1] - pieces[0][0], scale.slot_w)
    film = task.kind.lays_film
    marks = [("t", task.touch_at), ("r", task.rain_ready_at), ("c", task.ready_at)] if film else []
    tail = scale.pieces(task.end, task.ready_at) if film and task.ready_at else []
    title = f"{task.operation}, {task.zone_name}, {task.start:%H:%M}–{task.end:%H:%M}"
    return Stroke(
        path=_bristles(x, top + 6, width, height - 12)
        if film
        else f"M{x:.1f},{top + height - 7:.1f}h{width:.1f}v5h-{width:.1f}z",
        span=(x, x + width),
        film=film,
        colour=task.colour or "",
        title=title,
        tail=tail,
        ticks=[
            (at, mark if scale.hour_w >= MARKS_FROM else "")
            for mark, t in marks
            if t is not None and (at := scale.at(t)) is not None
        ],
    )


def _bristles(x: float, y: float, width: float, height: float) -> str:
    """The outline of a brush stroke: straight where it begins, ragged where the bristles lift."""
    reach = (3.0, -1.0, 5.0, 0.0, 2.0, -2.0, 4.0)
    step = height / len(reach)
    edge = " ".join(f"L{x + width + r:.1f},{y + (k + 0.5) * step:.1f}" for k, r in enumerate(reach))
    return (
        f"M{x:.1f},{y:.1f}L{x + width:.1f},{y:.1f} {edge} L{x + width:.1f},{y + height:.1f}L{x:.1f},{y + height:.1f}Z"
    )
