"""The footprint: walls laid end to end by where they look. m east and north; the ground plan seen from above."""

from dataclasses import dataclass, replace
from math import cos, hypot, radians, sin

from amber_gable.domain.house.survey import Face, PlanPlace

GAP_M = 1.2


@dataclass(frozen=True)
class PlacedWall:
    """A face on the plan: from its left end to its right end, both as seen from outside.

    `guessed`: not yet put there by anyone; `wing`: not the first wall of its direction, so no part of the main ring.
    """

    face: Face
    start: tuple[float, float]
    end: tuple[float, float]
    guessed: bool
    wing: bool = False

    @property
    def middle(self) -> tuple[float, float]:
        return (self.start[0] + self.end[0]) / 2, (self.start[1] + self.end[1]) / 2


def along(azimuth_deg: float) -> tuple[float, float]:
    """Direction of a wall from its left to its right end, for one who stands before it: a quarter turn left of where it
    looks (east, north)."""
    heading = radians(azimuth_deg - 90)
    return sin(heading), cos(heading)


def outward(azimuth_deg: float) -> tuple[float, float]:
    """Direction in which the wall looks (east, north)."""
    return sin(radians(azimuth_deg)), cos(radians(azimuth_deg))


def house_plan(faces: tuple[Face, ...]) -> list[PlacedWall]:
    """Every wall on the plan, in the order given, building beside building.

    Walls without a place are chained: the first of each direction rings the house, each starting where the last one
    ended; further walls of a direction stand before the one that is there.
    """
    walls = [f for f in faces if f.is_wall]
    placed: dict[str, PlacedWall] = {}
    east = 0.0
    for building in dict.fromkeys(f.building for f in walls):
        ring = _ring([f for f in walls if f.building == building])
        if placed:
            left = min(min(w.start[0], w.end[0]) for w in ring.values())
            ring = {id_: _moved(w, east + GAP_M * 3 - left) for id_, w in ring.items()}
        east = max(max(w.start[0], w.end[0]) for w in ring.values())
        placed |= ring
    return [placed[f.id] for f in walls]


def _moved(wall: PlacedWall, east_m: float) -> PlacedWall:
    """A guessed wall shifted east; one that was put in its place stays."""
    if not wall.guessed:
        return wall
    start, end = (wall.start[0] + east_m, wall.start[1]), (wall.end[0] + east_m, wall.end[1])
    return replace(wall, start=start, end=end)


def _ring(walls: list[Face]) -> dict[str, PlacedWall]:
    placed = {f.id: _at(f, (f.plan.east_m, f.plan.north_m), False) for f in walls if f.plan is not None}
    ring: dict[int, Face] = {}
    wings = []
    for face in walls:
        key = round(face.azimuth_deg / 10) % 36
        if key in ring:
            wings.append(face)
        else:
            ring[key] = face
    first = walls[0].azimuth_deg
    corner = (0.0, 0.0)
    for face in sorted(ring.values(), key=lambda f: (first - f.azimuth_deg) % 360):
        if face.id not in placed:
            placed[face.id] = _at(face, corner, True)
        corner = placed[face.id].end
    for face in wings:
        if face.id not in placed:
            base = placed[ring[round(face.azimuth_deg / 10) % 36].id]
            out, run = outward(face.azimuth_deg), along(face.azimuth_deg)
            inset = (base.face.width_m - face.width_m) / 2
            start = (
                base.start[0] + out[0] * GAP_M + run[0] * inset,
                base.start[1] + out[1] * GAP_M + run[1] * inset,
            )
            placed[face.id] = _at(face, start, True)
        placed[face.id] = replace(placed[face.id], wing=True)
    return placed


def _at(face: Face, start: tuple[float, float], guessed: bool) -> PlacedWall:
    run = along(face.azimuth_deg)
    end = (start[0] + run[0] * face.width_m, start[1] + run[1] * face.width_m)
    return PlacedWall(face, start, end, guessed)


def turned(face: Face, by_deg: float) -> Face:
    """The face with the whole house turned clockwise by an angle; its place on the plan and typed horizon stay true:
    the place turns with it, the horizon (compass bearings of things around) does not."""
    plan = face.plan
    if plan is not None:
        c, s = cos(radians(by_deg)), sin(radians(by_deg))
        plan = PlanPlace(east_m=plan.east_m * c + plan.north_m * s, north_m=plan.north_m * c - plan.east_m * s)
    return face.model_copy(update={"azimuth_deg": (face.azimuth_deg + by_deg) % 360, "plan": plan})


def closing_gap_m(walls: list[PlacedWall]) -> float:
    """How far the main ring of each building fails to close, m: a slip of measuring or of bearing shows here."""
    worst = 0.0
    for building in {w.face.building for w in walls}:
        ring = [w for w in walls if w.face.building == building and not w.wing]
        if len(ring) >= 3:
            # A wall may end where a wing begins.
            starts = [w.start for w in walls if w.face.building == building]
            gaps = [min(hypot(a.end[0] - x, a.end[1] - y) for x, y in starts) for a in ring]
            worst = max(worst, *gaps)
    return worst
