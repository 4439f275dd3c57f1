"""Dimension lines of a drawing: a path, and labels with their place and anchor, px."""

from itertools import pairwise
from typing import Protocol

from amber_gable.domain.house.survey import Face
from amber_gable.web.views.paper import Paper
from amber_gable.web.views.units import Units

Dimensions = tuple[str, list[tuple[float, float, str, str]]]


class Placed(Protocol):
    """A part's box in px, and its place and size in m."""

    @property
    def x(self) -> float: ...
    @property
    def y(self) -> float: ...
    @property
    def width(self) -> float: ...
    @property
    def height(self) -> float: ...
    @property
    def metres(self) -> tuple[float, float, float, float]: ...


def face_dimensions(face: Face, paper: Paper, units: Units) -> Dimensions:
    """The width under the face, and its heights on the left: to every level at which the outline turns."""
    left, right, ground = paper.left, paper.x(face.width_m), paper.ground
    under = f"M{left:.1f} {ground + 8:.1f}v10M{right:.1f} {ground + 8:.1f}v10M{left:.1f} {ground + 13:.1f}H{right:.1f}"
    labels = [((left + right) / 2, ground + 27, "middle", units.length(face.width_m))]
    levels = sorted({round(y, 4) for _, y in face.points} | {0.0})
    if len(levels) > 5:
        levels = [levels[0], levels[-1]]
    ticks = "".join(f"M{left - 20:.1f} {paper.y(y):.1f}h10" for y in levels)
    for low, high in pairwise(levels):
        if (high - low) * paper.scale > 11:
            labels.append((left - 18, paper.y((low + high) / 2) + 4, "end", units.length(high - low)))
    return f"{under}{ticks}M{left - 15:.1f} {ground:.1f}V{paper.y(levels[-1]):.1f}", labels


def place_dimensions(part: Placed, paper: Paper, units: Units) -> Dimensions:
    """From the left edge to the chosen part, and from the foot up to it."""
    x_m, y_m, _, _ = part.metres
    middle, out, labels = part.y + part.height / 2, "", []
    if x_m * paper.scale > 4:
        out += f"M{paper.left:.1f} {middle:.1f}H{part.x:.1f}"
        labels.append(((paper.left + part.x) / 2, middle - 4, "middle", units.length(x_m)))
    if y_m * paper.scale > 4:
        centre, bottom = part.x + part.width / 2, part.y + part.height
        out += f"M{centre:.1f} {bottom:.1f}V{paper.ground:.1f}"
        labels.append((centre + 5, (bottom + paper.ground) / 2 + 4, "start", units.length(y_m)))
    return out, labels
