"""What stands before a face as one sees it looking out from the wall: bearings across, height in degrees up, sun
paths."""

from dataclasses import dataclass
from datetime import datetime
from math import atan2, cos, degrees, radians

import numpy as np

from amber_gable.core.survey.drawing.horizon import face_horizon
from amber_gable.core.weather.outdoors.sun import position
from amber_gable.domain.house.survey import Block, BlockKind, Face, Property
from amber_gable.web.views.weather.lanes import bearing

WIDTH, HEIGHT, TOP_DEG = 760.0, 330.0, 75.0
MARGIN_LEFT, MARGIN_BOTTOM, MARGIN_TOP = 34.0, 30.0, 10.0
HALF_DEG = 100.0
_DAYS = (("21 June", "2026-06-21"), ("equinox", "2026-03-21"), ("21 December", "2026-12-21"))


@dataclass(frozen=True)
class BlockOnHorizon:
    number: int
    kind: str
    name: str
    path: str
    label: tuple[float, float]
    says: str


@dataclass(frozen=True)
class SunPath:
    name: str
    path: str
    hours: list[tuple[float, float, str]]


@dataclass(frozen=True)
class Panorama:
    width: float
    height: float
    ground: float
    left: float
    right: float
    blocks: list[BlockOnHorizon]
    horizon: str
    suns: list[SunPath]
    bearings: list[tuple[float, str]]
    heights: list[tuple[float, str]]
    wall: tuple[float, ...]


def _x(off: float) -> float:
    return MARGIN_LEFT + (off + HALF_DEG) / (2 * HALF_DEG) * (WIDTH - MARGIN_LEFT)


def _y(height: float) -> float:
    floor = HEIGHT - MARGIN_BOTTOM
    return floor - min(max(height, 0.0), TOP_DEG) / TOP_DEG * (floor - MARGIN_TOP)


def _off(azimuth: float, face: Face) -> float:
    return (azimuth - face.azimuth_deg + 180) % 360 - 180


def panorama(property_: Property, face: Face) -> Panorama:
    """The view with everything in px. Sun paths in the job's own clock time."""
    ground = _y(0)
    marks = [(_x(off), bearing((face.azimuth_deg + off) % 360)) for off in range(-90, 91, 30)]
    return Panorama(
        width=WIDTH,
        height=HEIGHT,
        ground=ground,
        left=_x(-HALF_DEG),
        right=_x(HALF_DEG),
        blocks=[_block(n, b, face) for n, b in enumerate(face.blocks)],
        horizon=_horizon(face),
        suns=[sun for sun in (_sun(property_, face, name, day) for name, day in _DAYS) if sun.path],
        bearings=marks,
        heights=[(_y(h), f"{h}°") for h in (0, 15, 30, 45, 60)],
        wall=(_x(-90), _x(90)) if face.is_wall else (),
    )


def _horizon(face: Face) -> str:
    points = sorted((_off(p.azimuth_deg, face), p.elevation_deg) for p in face_horizon(face))
    inside = [(off, height) for off, height in points if abs(off) <= HALF_DEG]
    if not inside:
        return ""
    return "M" + "L".join(f"{_x(o):.1f} {_y(h):.1f}" for o, h in inside)


def _block(number: int, block: Block, face: Face) -> BlockOnHorizon:
    eye = face.top_m / 2 if face.is_wall else 0.0
    left = degrees(atan2(block.left_m, block.distance_m))
    right = degrees(atan2(block.left_m + block.width_m, block.distance_m))
    steps = 12
    tops = []
    for k in range(steps + 1):
        off = left + (right - left) * k / steps
        away = block.distance_m / max(cos(radians(off)), 0.02)
        full = degrees(atan2(block.height_m - eye, away))
        # A crown is round: it is drawn so, though its whole width counts for the shade.
        crown = (1 - abs(2 * k / steps - 1) ** 3) if block.kind is not BlockKind.BUILDING else 1.0
        tops.append((off, full * (0.35 + 0.65 * crown) if block.kind is BlockKind.TREE else full * crown))
    path = f"M{_x(left):.1f} {_y(0):.1f}" + "".join(f"L{_x(o):.1f} {_y(h):.1f}" for o, h in tops)
    middle = (left + right) / 2
    name = block.name or block.kind.value
    highest = max(h for _, h in tops)
    says = f"{name}, {block.distance_m:g} m away, {block.height_m:g} m high, {max(highest, 0):.0f}° up"
    label = (_x(middle), max(_y(highest) - 6, MARGIN_TOP + 8))
    return BlockOnHorizon(number, block.kind.value, name, f"{path}L{_x(right):.1f} {_y(0):.1f}z", label, says)


def _sun(property_: Property, face: Face, name: str, day: str) -> SunPath:
    begin = datetime.fromisoformat(day).replace(tzinfo=property_.tz)
    at = np.array([begin.timestamp() + 900.0 * n for n in range(24 * 4)])
    times = [datetime.fromtimestamp(t, property_.tz) for t in at]
    sun = position(at, property_.latitude, property_.longitude, property_.altitude_m)
    path, hours, drawing = "", [], False
    for t, height, azimuth in zip(times, sun.elevation, sun.azimuth, strict=True):
        off = _off(float(azimuth), face)
        if height <= 0 or abs(off) > HALF_DEG or height > TOP_DEG:
            drawing = False
            continue
        path += f"{'L' if drawing else 'M'}{_x(off):.1f} {_y(float(height)):.1f}"
        drawing = True
        if t.minute == 0 and t.hour % 2 == 0:
            hours.append((_x(off), _y(float(height)), f"{t.hour}"))
    return SunPath(name, path, hours)
