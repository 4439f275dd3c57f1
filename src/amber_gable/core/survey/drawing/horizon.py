"""What stands before a face: trees and neighbours as blocks, turned into a horizon as its middle sees it. Degrees,
m."""

from math import atan2, cos, degrees, radians

from amber_gable.domain.house.exposure import HorizonPoint
from amber_gable.domain.house.survey import Block, Face

STEP_DEG = 2.0
# A block's side is upright: the horizon steps within this bearing.
EDGE_DEG = 0.05


def face_horizon(face: Face) -> tuple[HorizonPoint, ...]:
    """The face's horizon: given points and the blocks sketched before it, whichever is higher in each direction.

    Bearings run from one end of what stands there to the other; between the points the horizon is straight
    (core/weather/outdoors/sun.py).
    """
    if not face.blocks:
        return face.horizon
    bearings = {p.azimuth_deg for p in face.horizon}
    for block in face.blocks:
        left, right = _sides(block)
        steps = int((right - left) / STEP_DEG) + 1
        inner = [left + EDGE_DEG + (right - left - 2 * EDGE_DEG) * k / steps for k in range(steps + 1)]
        bearings |= {(face.azimuth_deg + b) % 360 for b in (left - EDGE_DEG, *inner, right + EDGE_DEG)}
    bearings |= {(face.azimuth_deg + b) % 360 for b in (-90.0, 90.0, 180.0)}
    return tuple(
        HorizonPoint(azimuth_deg=round(b, 4) % 360, elevation_deg=round(_height(face, b), 3)) for b in sorted(bearings)
    )


def _eye(face: Face) -> float:
    return face.top_m / 2 if face.is_wall else 0.0


def _sides(block: Block) -> tuple[float, float]:
    """Bearings of a block's two sides, clockwise from straight out. Looking out, right is clockwise."""
    return (
        degrees(atan2(block.left_m, block.distance_m)),
        degrees(atan2(block.left_m + block.width_m, block.distance_m)),
    )


def _height(face: Face, bearing: float) -> float:
    off = (bearing - face.azimuth_deg + 180) % 360 - 180
    highest = _given(face.horizon, bearing)
    for block in face.blocks:
        left, right = _sides(block)
        if left <= off <= right:
            away = block.distance_m / cos(radians(off))
            highest = max(highest, degrees(atan2(block.height_m - _eye(face), away)))
    return min(highest, 90.0)


def _given(points: tuple[HorizonPoint, ...], bearing: float) -> float:
    """The typed horizon at a bearing, straight between its points, round the compass."""
    if not points:
        return 0.0
    ordered = sorted(points, key=lambda p: p.azimuth_deg)
    after = next((p for p in ordered if p.azimuth_deg >= bearing % 360), ordered[0])
    before = ordered[ordered.index(after) - 1]
    span = (after.azimuth_deg - before.azimuth_deg) % 360
    share = ((bearing - before.azimuth_deg) % 360) / span if span else 0.0
    return before.elevation_deg + (after.elevation_deg - before.elevation_deg) * share
