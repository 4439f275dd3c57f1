"""Lengths of trim that follow from a face's geometry, m."""

from math import hypot
from typing import NamedTuple

from amber_gable.domain.house.polygon import Point
from amber_gable.domain.house.survey import Face, Zone
from amber_gable.domain.house.zone_area import OwnArea, TrimArea, TrimPart, TrimRun

Segment = tuple[Point, Point]


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
        return _added(part, "upright edges", ups)
    if part is TrimPart.FASCIA:
        return _added(part, "top edges", tops)
    cased = [o for o in face.openings if o.casing_m > 0]
    if part is TrimPart.CASINGS:
        runs = tuple(2 * (o.height_m + o.casing_m) + o.width_m for o in cased)
        return TrimLength(part, sum(runs), "round each opening", runs)
    if part is TrimPart.SILLS:
        sills = tuple(o.width_m + 2 * o.casing_m for o in cased if o.kind == "window")
        return TrimLength(part, sum(sills), "under each window", sills)
    doors = tuple(o.width_m + 2 * o.casing_m for o in face.openings if o.y_m < 0.4 and o.kind != "window")
    return TrimLength(part, max(bottom - sum(doors), 0.0), "bottom edge less doors", (bottom, *(-d for d in doors)))


def trim_segments(face: Face, part: TrimPart) -> tuple[Segment, ...]:
    """Where the trim runs, from point to point on the face, m; together as long as `trim_length` says."""
    if part is TrimPart.CORNER_BOARDS:
        return tuple(_edges(face.points)[0])
    if part is TrimPart.FASCIA:
        return tuple(_edges(face.points)[1])
    if part is TrimPart.BASE_BAND:
        return (((0.0, 0.0), (trim_length(face, part).length_m, 0.0)),)
    out: list[Segment] = []
    for o in face.openings:
        if o.casing_m <= 0:
            continue
        right, top = o.x_m + o.width_m, o.y_m + o.height_m
        if part is TrimPart.CASINGS:
            head = top + o.casing_m
            out += [((o.x_m, o.y_m), (o.x_m, head)), ((right, o.y_m), (right, head)), ((o.x_m, top), (right, top))]
        elif o.kind == "window":
            out.append(((o.x_m - o.casing_m, o.y_m), (right + o.casing_m, o.y_m)))
    return tuple(out)


USUAL_GIRTH_M = 0.15
"""Painted girth of wood trim whose length nobody took: an assumption that the estimate names."""


def zone_trim(zone: Zone, face: Face) -> float:
    """Length of a zone of trim, m: of its runs, as it was measured, or by its usual girth; 0 where it is none."""
    area = zone.area
    if isinstance(area, TrimArea):
        return sum(trim_length(face, run.part).length_m for run in area.runs)
    if not isinstance(area, OwnArea):
        return 0.0
    return area.trim_m or (area.area_m2 / USUAL_GIRTH_M if trim_assumed(zone) else 0.0)


def trim_assumed(zone: Zone) -> bool:
    """Whether its length is only an assumption."""
    return isinstance(zone.area, OwnArea) and zone.area.trim_m is None and zone.substrate == "wood-trim"


def trim_cover(face: Face, run: TrimRun) -> float:
    """Area of the wall that the trim lies over, m²."""
    return trim_length(face, run.part).length_m * run.cover_m


def _added(part: TrimPart, words: str, segments: list[Segment]) -> TrimLength:
    lengths = tuple(hypot(b[0] - a[0], b[1] - a[1]) for a, b in segments)
    return TrimLength(part, sum(lengths), words, lengths)


def _edges(points: tuple[Point, ...]) -> tuple[list[Segment], list[Segment], float]:
    """The upright edges, the top edges, and the length of the bottom edge, of an anticlockwise outline."""
    ups: list[Segment] = []
    tops: list[Segment] = []
    bottom = 0.0
    ends = (min(x for x, _ in points), max(x for x, _ in points))
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        edge = ((x0, y0), (x1, y1))
        if abs(x1 - x0) < 1e-9:
            # Beside a wing or a raised middle an upright edge ends no wall.
            if min(abs(x0 - end) for end in ends) < 1e-6:
                ups.append(edge)
        elif x1 < x0:
            tops.append(edge)
        elif max(y0, y1) < 1e-9:
            bottom += hypot(x1 - x0, y1 - y0)
    return ups, tops, bottom
