"""The shadow a house throws on level ground, seen from above; m east and north."""

from math import cos, radians, sin, tan

from shapely import MultiPoint

from amber_gable.core.survey.house_plan import PlacedWall

LONGEST_M = 60.0
"""Where the sun is low a shadow goes on for ever; so far it is drawn."""


def shadow(walls: list[PlacedWall], sun_azimuth: float, sun_elevation: float) -> list[tuple[float, float]]:
    """Corners of the ground that the house covers or shades, each outline taken as the hull of its walls' ends; empty
    while no sun is up or without walls. A wall is as high as its outline."""
    if sun_elevation <= 0 or not walls:
        return []
    east, north = -sin(radians(sun_azimuth)), -cos(radians(sun_azimuth))
    points = []
    for wall in walls:
        reach = min(wall.face.top_m / tan(radians(sun_elevation)), LONGEST_M)
        for x, y in (wall.start, wall.end):
            points += [(x, y), (x + east * reach, y + north * reach)]
    hull = MultiPoint(points).convex_hull
    return [(float(x), float(y)) for x, y in hull.exterior.coords] if hull.geom_type == "Polygon" else []
