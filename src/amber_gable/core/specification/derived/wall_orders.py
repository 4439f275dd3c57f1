"""The order in which walls are painted (docs/trade.md §9.2, §9.3): boards and panels by hand, passes by the gun, bands
and plinths by their edges. Metres from the lower left of the face."""

from collections.abc import Sequence
from itertools import pairwise

from amber_gable.core.specification.derived.order_drawn import Figure, Member, OrderStep, PaintingOrder
from amber_gable.core.survey.drawing.geometry import natural_breaks
from amber_gable.domain.house.profile import LapProfile
from amber_gable.domain.house.survey import Face, Zone
from amber_gable.domain.house.zone_area import Band
from amber_gable.domain.work.operation import Operation, OperationKind

SECTION_W_M, SECTION_H_M = 0.6, 1.0
COURSES_AT_ONCE = 4
"""Boards that one reaches from a stand with one loading of the brush kept wet."""
_COURSE_M = 0.15
_LANE_M = 1.0
"""Height of wall that is sprayed side to side from one stand."""
_LEAST_PANEL_M = 0.3
_PLINTH_M = 1.0
_LEAST_SPRAYED_M = 2.0
_TEXTURED = 1.2
"""Surface to plan from which a gun leaves the far side of every ridge bare."""
Rows = Sequence[tuple[str, str]]


def _steps(rows: Rows) -> tuple[OrderStep, ...]:
    return tuple(OrderStep(n, words, None, wait) for n, (words, wait) in enumerate(rows, 1))


def panels(face: Face) -> list[tuple[float, float]]:
    """Left and right of the stretches between natural breaks."""
    breaks = [0.0, *natural_breaks(face), face.width_m]
    return [(a, b) for a, b in pairwise(breaks) if b - a > _LEAST_PANEL_M]


def _wide(face: Face) -> list[tuple[float, float]]:
    """Panels put together until each is as wide as one sprays from two stands."""
    out: list[tuple[float, float]] = []
    for left, right in panels(face):
        if out and min(out[-1][1] - out[-1][0], right - left) < _LEAST_SPRAYED_M:
            out[-1] = (out[-1][0], right)
        else:
            out.append((left, right))
    return out


def _bands(face: Face, each_m: float, name: str, columns: Sequence[tuple[float, float]]) -> tuple[Member, ...]:
    """Strips across every column from the top, column by column from the left, numbered in that order."""
    out, number = [], 1
    rows = max(1, round(face.top_m / each_m))
    height = face.top_m / rows
    for left, right in columns:
        for row in reversed(range(rows)):
            out.append(Member(number, name, left, row * height, right - left, height, "across"))
            number += 1
    return tuple(out)


def masonry_wall(face: Face) -> PaintingOrder:
    """Sections of about 0.6 × 1 m within panels that end at natural breaks, from the top, side to side."""
    found = panels(face)
    members: list[Member] = []
    for number, (left, right) in enumerate(found, 1):
        rows, columns = max(1, round(face.top_m / SECTION_H_M)), max(1, round((right - left) / SECTION_W_M))
        width, height = (right - left) / columns, face.top_m / rows
        members += [
            Member(0, "section", left + column * width, row * height, width, height)
            for row in reversed(range(rows))
            for column in range(columns)
        ]
        members.append(Member(number, "panel", left, 0, right - left, face.top_m))
    rows_: Rows = [
        ("Cut in a hand's width along the top, corners and openings", ""),
        ("Sections of about 0.6 × 1 m from the top: vertical, then across, then vertical again", ""),
        ("Each section into the wet edge of the last; stop only at a panel's edge", "if it begins to set, leave it"),
        ("The wall's foot last: the ground sheet wipes wet paint off", ""),
    ]
    title = f"{len(found)} {'panel' if len(found) == 1 else 'panels'} between natural breaks"
    return PaintingOrder(
        "The wall in panels", (Figure(title, face.width_m, face.top_m, tuple(members)),), _steps(rows_)
    )


def board_wall(zone: Zone, face: Face) -> PaintingOrder:
    """A few courses at a time, full length, from the top: a board is never stopped in its middle."""
    course = zone.profile.exposure_m if isinstance(zone.profile, LapProfile) else _COURSE_M
    members = _bands(face, course * COURSES_AT_ONCE, f"{COURSES_AT_ONCE} courses", [(0.0, face.width_m)])
    rows: Rows = [
        ("Cut in a hand's width under the eave, at corner boards and round openings", ""),
        (f"{COURSES_AT_ONCE} courses at a time from the top, side to side, full length", ""),
        ("The boards' lower edges first, then their faces, along the board", ""),
        ("Finish each stroke back into the wet; stop at an opening or a corner", "if it begins to set, leave it"),
        ("The lowest course last: the ground sheet wipes wet paint off", ""),
    ]
    figure = Figure("courses from the top, full length", face.width_m, face.top_m, members)
    return PaintingOrder("The boards, course by course", (figure,), _steps(rows))


def sprayed_wall(face: Face, operations: Sequence[Operation], *, textured: bool) -> PaintingOrder:
    """Lanes from the top, side to side; rolled or brushed behind the gun where the steps say so."""
    rolled = any(o.back_roll for o in operations)
    rows = [
        ("Pattern tried on card: no tails at the least pressure that gives a full fan", ""),
        ("Round openings, corners and under the eave first, one pass along the edge", ""),
        (
            "Lanes from the top, side to side: gun square, 25 to 30 cm off, moving before the trigger, half overlapped",
            "",
        ),
    ]
    if textured:
        rows.append(("Heavy texture from below and from above too: each pass leaves the far side of a ridge bare", ""))
    if rolled:
        rows.append(("The second person rolls or brushes each lane in behind the gun", "while it is wet"))
    rows += [
        ("Stop at a panel's edge; the foot last, a shield along the ground", ""),
        ("Look again when dry, from above and along the wall", "light spots show only then"),
    ]
    members = _bands(face, _LANE_M, "lane", _wide(face))
    figure = Figure("lanes from the top, between natural breaks", face.width_m, face.top_m, members)
    return PaintingOrder("The wall in passes of the gun", (figure,), _steps(rows))


def banded_wall(zone: Zone, face: Face, area: Band, *, sprayed: bool) -> PaintingOrder:
    """A band of its own colour: its edges on the dry neighbour; a plinth comes after all that is above it."""
    plinth = area.from_m < 0.05 and area.to_m - area.from_m <= _PLINTH_M
    own = Member(1, zone.name, 0.0, area.from_m, face.width_m, area.to_m - area.from_m, "across")
    edge = "film a spray's width past it" if sprayed else "a brush cuts in where tape will not hold"
    rows = [
        (f"Tape the edge on the neighbour when that is tape-dry; {edge}", ""),
        ("Cut in along the tape, then the band full length, back into the wet", ""),
        ("Tape off while the coat is soft", ""),
    ]
    if plinth:
        rows[:0] = [
            ("After everything above it: what drips lands here", ""),
            ("Soil and grass drawn back a hand's width; the paint line goes below the ground's", ""),
        ]
        rows.append(("Soil back when it is dry", "as the sheet says"))
    figure = Figure(
        f"{zone.name}, {'last' if plinth else 'its edges on what is dry'}", face.width_m, face.top_m, (own,)
    )
    return PaintingOrder("The plinth, last" if plinth else "The band and its edges", (figure,), _steps(rows))


def wall_order(zone: Zone, face: Face, tags: frozenset[str], operations: Sequence[Operation]) -> PaintingOrder | None:
    """The order of a wall by how it is laid and what it is; None where it has none of its own."""
    coats = [o for o in operations if o.kind is OperationKind.COAT]
    sprayed = bool(coats) and all(o.method is not None and o.method.sprays for o in coats)
    if not face.is_wall:
        return None
    if isinstance(zone.area, Band):
        return banded_wall(zone, face, zone.area, sprayed=sprayed)
    if zone.area.kind != "face":
        return None
    if sprayed:
        return sprayed_wall(face, coats, textured=zone.profile_factor >= _TEXTURED)
    if "masonry" in tags:
        return masonry_wall(face)
    return board_wall(zone, face) if "siding" in tags else None
