"""Lengths of trim that follow from a face's geometry, m."""

from math import hypot
from typing import NamedTuple

from amber_gable.domain.polygon import Point
from amber_gable.domain.survey import Face
from amber_gable.domain.zone_area import TrimPart, TrimRun


class TrimLength(NamedTuple):
    """Length of one kind of trim, and how it comes about in words and parts (m)."""

    part: TrimPart
    length_m: float
    words: str
    parts: tuple[float, ...]


NAMES = {
    TrimPart.CORNER_BOARDS: "corner boards",
    TrimPart.FASCIA: "fascia and rakes",
    TrimPart.CASINGS: "casings",
    TrimPart.SILLS: "sills",
    TrimPart.BASE_BAND: "base band",
}


def trim_length(face: Face, part: TrimPart) -> TrimLength:
    """Corner boards are the upright edges at the wall's ends; fascia and rakes all edges at the top; casings run up
    both sides and over the head of each opening that has one; sills under windows, a casing's width out on each side;
    the base band is the bottom edge less doors."""
    ups, tops, bottom = _edges(face.points)
    if part is TrimPart.CORNER_BOARDS:
        return TrimLength(part, sum(ups), "upright edges", tuple(ups))
    if part is TrimPart.FASCIA:
        return TrimLength(part, sum(tops), "top edges", tuple(tops))
    cased = [o for o in face.openings if o.casing_m > 0]
    if part is TrimPart.CASINGS:
        runs = tuple(2 * (o.height_m + o.casing_m) + o.width_m for o in cased)
        return TrimLength(part, sum(runs), "round each opening", runs)
    if part is TrimPart.SILLS:
        sills = tuple(o.width_m + 2 * o.casing_m for o in cased if o.kind == "window")
        return TrimLength(part, sum(sills), "under each window", sills)
    doors = tuple(o.width_m + 2 * o.casing_m for o in face.openings if o.y_m < 0.4 and o.kind != "window")
    return TrimLength(part, max(bottom - sum(doors), 0.0), "bottom edge less doors", (bottom, *(-d for d in doors)))


def trim_cover(face: Face, run: TrimRun) -> float:
    """Area of the wall that the trim lies over, m²."""
    return trim_length(face, run.part).length_m * run.cover_m


def _edges(points: tuple[Point, ...]) -> tuple[list[float], list[float], float]:
    """Lengths of the upright edges, of the top edges, and of the bottom edge, of an anticlockwise outline."""
    ups, tops, bottom = [], [], 0.0
    ends = (min(x for x, _ in points), max(x for x, _ in points))
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        length = hypot(x1 - x0, y1 - y0)
        if abs(x1 - x0) < 1e-9:
            # Beside a wing or a raised middle an upright edge ends no wall.
            if min(abs(x0 - end) for end in ends) < 1e-6:
                ups.append(length)
        elif x1 < x0:
            tops.append(length)
        elif max(y0, y1) < 1e-9:
            bottom += length
    return ups, tops, bottom
