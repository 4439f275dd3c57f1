"""The shadow of a house and of what stands before it on level ground, seen from above; m east and north."""

from math import cos, radians, sin, tan

from shapely import MultiPoint

from amber_gable.core.survey.drawing.house_plan import PlacedWall, along, outward
from amber_gable.domain.house.survey import Block

Point = tuple[float, float]
LONGEST_M = 60.0
"""Where the sun is low a shadow goes on for ever; so far it is drawn."""


def shadow(walls: list[PlacedWall], sun_azimuth: float, sun_elevation: float) -> list[Point]:
    """Corners of the ground that the house covers or shades, each outline taken as the hull of its walls' ends, out to
    where their eaves stand; empty while no sun is up or without walls. A wall is as high as its outline."""
    if sun_elevation <= 0 or not walls:
        return []
    points = []
    for wall in walls:
        for end in (*eave_line(wall), wall.start, wall.end):
            points += [end, _moved(end, sun_azimuth, _reach(wall.face.top_m, sun_elevation))]
    return _hull(points)


def eave_line(wall: PlacedWall) -> tuple[Point, Point]:
    """Where the edge of the wall's overhang lies; over the wall itself where it has none."""
    east, north = outward(wall.face.azimuth_deg)
    out = wall.face.overhang_m
    (x0, y0), (x1, y1) = wall.start, wall.end
    return (x0 + east * out, y0 + north * out), (x1 + east * out, y1 + north * out)


def block_line(wall: PlacedWall, block: Block) -> tuple[Point, Point]:
    """The near side of what stands before a wall."""
    (x, y), (east, north) = wall.middle, outward(wall.face.azimuth_deg)
    # Its left is told as one looks out from the wall, where the wall runs from right to left.
    right = tuple(-c for c in along(wall.face.azimuth_deg))
    foot = (x + east * block.distance_m, y + north * block.distance_m)
    ends = (block.left_m, block.left_m + block.width_m)
    left_end, right_end = ((foot[0] + right[0] * m, foot[1] + right[1] * m) for m in ends)
    return left_end, right_end


def block_shadow(wall: PlacedWall, block: Block, sun_azimuth: float, sun_elevation: float) -> list[Point]:
    """Corners of the ground it shades; empty while no sun is up."""
    if sun_elevation <= 0:
        return []
    ends = block_line(wall, block)
    reach = _reach(block.height_m, sun_elevation)
    return _hull([*ends, *(_moved(end, sun_azimuth, reach) for end in ends)])


def eave_shade_m(wall: PlacedWall, sun_azimuth: float, sun_elevation: float) -> float:
    """How far down the wall the shade of its overhang reaches, by the sun's profile angle; 0 where the sun is not
    before it."""
    before = cos(radians(sun_azimuth - wall.face.azimuth_deg))
    if sun_elevation <= 0 or before <= 0.01:
        return 0.0
    return min(wall.face.overhang_m * tan(radians(min(sun_elevation, 89.9))) / before, wall.face.top_m)


def _reach(height: float, sun_elevation: float) -> float:
    return min(height / tan(radians(sun_elevation)), LONGEST_M)


def _moved(point: Point, sun_azimuth: float, reach: float) -> Point:
    """Away from the sun."""
    return point[0] - sin(radians(sun_azimuth)) * reach, point[1] - cos(radians(sun_azimuth)) * reach


def _hull(points: list[Point]) -> list[Point]:
    hull = MultiPoint(points).convex_hull
    return [(float(x), float(y)) for x, y in hull.exterior.coords] if hull.geom_type == "Polygon" else []
