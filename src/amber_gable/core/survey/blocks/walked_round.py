"""A footprint told by walking round the house: along the street side to the right, the house at one's left hand, at
each corner the turn and the length of the next wall. All corners are right angles.

Coordinates are m from the street side's left corner: x along the street side to the right, y in from it.
"""

import re
from dataclasses import dataclass, replace

from shapely import Polygon
from shapely.geometry.polygon import orient

from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.core.survey.blocks.block_faces import Made, made_face, roofed, walled
from amber_gable.core.survey.blocks.block_out import FLAT_DEG, NAMES
from amber_gable.core.survey.drawing.house_plan import along, outward
from amber_gable.domain.house.block_out import BlockOut, Roof, Side
from amber_gable.domain.house.outline import FreeOutline, Rectangle
from amber_gable.domain.units import UnitSystem

MOST_WALLS = 40
MISSED_M, MISSED_SHARE = 0.10, 0.005
"""By how much a walk may miss where it began: of a tape round a house, the larger of the two, a share of the way."""
_TURN = re.compile(r"\b(left|right|l|r)\b", re.IGNORECASE)
_HEADINGS = (Side.FRONT, Side.RIGHT, Side.BACK, Side.LEFT)
"""Which wall one walks along, by quarter turns to the left."""
_STEP = {Side.FRONT: (1, 0), Side.RIGHT: (0, 1), Side.BACK: (-1, 0), Side.LEFT: (0, -1)}


@dataclass(frozen=True)
class Leg:
    """A wall that was walked along, and where it looks."""

    side: Side
    length_m: float


def read_walk(text: str, system: UnitSystem = UnitSystem.METRIC) -> tuple[Leg, ...]:
    """`9.6 left 8 left 5.4 right 3 left 4.2 left 11`. The last wall, or the last two, may be left out: they follow.
    What the tape missed by little is put into the last walls. Raises ValueError in words for who walked."""
    pieces = _TURN.split(text.replace(";", " ").replace("\n", " "))
    legs, heading = [], 0
    for number, piece in enumerate(pieces[::2]):
        if number:
            heading += 1 if pieces[2 * number - 1].lower().startswith("l") else -1
        said = piece.strip(" ,")
        if not said:
            raise ValueError("a wall has no length: write such as 9.6 left 8 left 5.4 right 3")
        legs.append(Leg(_HEADINGS[heading % 4], parse_length(said, system)))
    if len(legs) < 2:
        raise ValueError("tell the walls one after another: 9.6 left 8 left 5.4 right 3")
    if len(legs) > MOST_WALLS:
        raise ValueError(f"{len(legs)} walls are too many: {MOST_WALLS} at most")
    closed = _closed(legs)
    _check(closed)
    return tuple(closed)


def _closed(legs: list[Leg]) -> list[Leg]:
    """The walk brought back to where it began."""
    x, y = _end(legs)
    way = sum(leg.length_m for leg in legs)
    most = max(MISSED_M, MISSED_SHARE * way)
    last = legs[-1].side
    if last in (Side.LEFT, Side.RIGHT):
        if last is Side.LEFT and abs(x) <= most and abs(y) <= most:
            return _taken_up(_taken_up(legs, (Side.FRONT, Side.BACK), x), (Side.LEFT, Side.RIGHT), y)
        if last is Side.LEFT and abs(x) <= most:
            raise ValueError(_missed(x, y))
        legs = [*legs, Leg(Side.BACK if x > 0 else Side.FRONT, abs(x))]
    elif abs(x) > most:
        raise ValueError(_missed(x, y))
    else:
        legs = _taken_up(legs, (Side.FRONT, Side.BACK), x)
    if y <= most:
        raise ValueError("the walk does not come back to the street side from behind: at outer corners turn left")
    return [*legs, Leg(Side.LEFT, y)]


def _end(legs: list[Leg]) -> tuple[float, float]:
    return _corners(legs)[-1]


def _corners(legs: list[Leg] | tuple[Leg, ...]) -> list[tuple[float, float]]:
    """Where the walk began, and where each wall ends."""
    out = [(0.0, 0.0)]
    for leg in legs:
        dx, dy = _STEP[leg.side]
        out.append((out[-1][0] + dx * leg.length_m, out[-1][1] + dy * leg.length_m))
    return out


def _taken_up(legs: list[Leg], sides: tuple[Side, Side], missed: float) -> list[Leg]:
    """What was missed along one direction, in the last wall along it."""
    at = max(n for n, leg in enumerate(legs) if leg.side in sides)
    forth = sum(_STEP[legs[at].side])
    out = list(legs)
    out[at] = replace(legs[at], length_m=round(legs[at].length_m - forth * missed, 6))
    return out


def _missed(x: float, y: float) -> str:
    across = f"{abs(x):.2f} m to the {'right' if x > 0 else 'left'}"
    deep = f"{abs(y):.2f} m {'behind' if y > 0 else 'before'}"
    return f"the walk ends {across} of where it began and {deep} it: a wall or a turn is wrong"


def _check(legs: list[Leg]) -> None:
    if any(leg.length_m <= 0 for leg in legs):
        raise ValueError("a wall comes out with no length: a wall or a turn is wrong")
    shape = Polygon(_corners(legs)[:-1])
    if not shape.is_valid:
        raise ValueError("the walls cross each other: a wall or a turn is wrong")
    if not shape.exterior.is_ccw:
        raise ValueError("the house lies at the right hand: at outer corners turn left, at inner ones right")


def floor_corners(legs: tuple[Leg, ...]) -> tuple[tuple[float, float], ...]:
    """The footprint, m, counter-clockwise from the street side's left corner."""
    return tuple(_corners(legs)[:-1])


def walked_out(block: BlockOut, legs: tuple[Leg, ...]) -> list[Made]:
    """The walls in the order of the walk, and the flat roof where it is painted. Of `block` its sizes do not count:
    those of the walk do. Ids are provisional."""
    spots = floor_corners(legs)
    seen: dict[Side, int] = {}
    made = []
    for leg, spot in zip(legs, spots, strict=True):
        seen[leg.side] = seen.get(leg.side, 0) + 1
        name = NAMES[leg.side] + (f" {seen[leg.side]}" if seen[leg.side] > 1 else "")
        outline = Rectangle(width_m=leg.length_m, height_m=block.eaves_m)
        face = made_face(block, leg.side, name, outline, overhang_m=block.overhang_m, plan=_on_plan(block, spot))
        made.append(walled(block, face, None))
    if block.roof_substrate is not None and block.roof is Roof.FLAT:
        left, low = min(x for x, _ in spots), min(y for _, y in spots)
        ring = orient(Polygon([(x - left, y - low) for x, y in spots])).exterior.coords[:-1]
        outline_ = FreeOutline(corners=tuple((round(x, 6), round(y, 6)) for x, y in ring))
        made.append(roofed(block, made_face(block, Side.FRONT, "Roof", outline_, FLAT_DEG)))
    return made


def _on_plan(block: BlockOut, spot: tuple[float, float]) -> tuple[float, float]:
    """East and north of the street side's left corner."""
    (ax, ay), (ox, oy) = along(block.looks_deg), outward(block.looks_deg)
    return ax * spot[0] - ox * spot[1], ay * spot[0] - oy * spot[1]
