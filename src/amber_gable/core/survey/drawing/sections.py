"""A face cut at natural breaks, so that a section can be coated in one go."""

from itertools import pairwise

from shapely import box

from amber_gable.core.survey.drawing.geometry import outline_polygon
from amber_gable.domain.house.survey import Face


def natural_breaks(face: Face) -> tuple[float, ...]:
    """Where work may stop without a lap mark: the edges of openings, as distances from the left edge, m, ascending."""
    edges = {round(x, 3) for o in face.openings for x in (o.x_m, o.x_m + o.width_m)}
    return tuple(sorted(x for x in edges if 0.3 < x < face.width_m - 0.3))


def sections(face: Face, count: int) -> tuple[tuple[float, float], ...]:
    """The face cut into `count` strips at the natural breaks nearest to equal parts.

    Fewer strips come back when there are not enough breaks; a face with none is cut at a panel or board joint.
    """
    width = face.width_m
    if count <= 1:
        return ((0.0, width),)
    wanted = [width * i / count for i in range(1, count)]
    breaks = natural_breaks(face) or tuple(wanted)
    cuts = sorted({min(breaks, key=lambda x: abs(x - w)) for w in wanted})
    ends = [0.0, *cuts, width]
    return tuple(pairwise(ends))


def section_share(face: Face, left_m: float, right_m: float) -> float:
    """Part of the face's outline area between two distances from its left edge."""
    outline = outline_polygon(face)
    strip = box(left_m, -1.0, right_m, face.top_m + 1.0)
    return float(outline.intersection(strip).area / outline.area)
