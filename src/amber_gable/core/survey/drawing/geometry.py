"""Faces as polygons: what each zone covers, exactly. Lengths m, areas m²; shapely does the clipping."""

from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from shapely import Polygon, box, unary_union
from shapely.geometry.base import BaseGeometry

from amber_gable.domain.findings.condition import CELL_M, Mark
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Zone
from amber_gable.domain.house.zone_area import Band, Region

NOTHING = Polygon()
# A sliver thinner than a brush hair: rounding, not a fault of measuring.
SLIVER_M2 = 1e-5


@dataclass(frozen=True)
class FaceRegions:
    """A face cut up: its outline, the region of each zone that has a place on it, and what is left for the rest."""

    outline: Polygon
    regions: dict[str, BaseGeometry]
    rest: BaseGeometry

    def of(self, zone: Zone) -> BaseGeometry | None:
        """Where the zone lies, or None when it is measured apart from the drawing."""
        if zone.area.kind == "face":
            return self.rest
        return self.regions.get(zone.id)


@lru_cache(maxsize=4096)
def polygon(corners: tuple[tuple[float, float], ...]) -> Polygon:
    """A polygon of plain corners. Kept, because pages ask for the same face many times over."""
    return Polygon(corners)


def outline_polygon(face: Face) -> Polygon:
    return polygon(face.points)


def rectangle(part: Opening | Obstacle) -> Polygon:
    """The rectangle an opening or obstacle takes on its face."""
    return box(part.x_m, part.y_m, part.x_m + part.width_m, part.y_m + part.height_m)


def zone_shape(face: Face, area: Band | Region) -> Polygon:
    """A band or region as it was described, whether it fits or not."""
    if isinstance(area, Band):
        return box(0.0, area.from_m, face.width_m, area.to_m)
    return polygon(area.corners)


def face_regions(face: Face, zones: tuple[Zone, ...]) -> FaceRegions:
    """Cut the face into its zones. Overlaps are given to the zone that comes first, so that areas add up."""
    outline = outline_polygon(face)
    regions: dict[str, BaseGeometry] = {}
    left: BaseGeometry = outline
    for zone in zones:
        if isinstance(zone.area, Band | Region):
            part = left.intersection(zone_shape(face, zone.area))
            regions[zone.id] = part
            left = left.difference(part)
    return FaceRegions(outline, regions, left)


def marked_region(mark: Mark) -> BaseGeometry:
    """The squares of a condition map as one shape."""
    return unary_union(
        [box(first * CELL_M, row * CELL_M, (last + 1) * CELL_M, (row + 1) * CELL_M) for row, first, last in mark.runs]
    )


def item_size(item: Item) -> tuple[float, float]:
    """Width and height an item takes on its face's drawing, m."""
    spec = item.spec
    if spec.kind == "shutter-pair":
        return 2 * spec.leaf_width_m + spec.apart_m, spec.height_m
    if spec.kind == "railing":
        return spec.length_m, spec.height_m
    if spec.kind == "gutter":
        return spec.length_m, 0.12
    if spec.kind == "stair":
        return spec.width_m, spec.treads * spec.rise_m
    return spec.width_m, spec.height_m


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
