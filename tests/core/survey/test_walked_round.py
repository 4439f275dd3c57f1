"""Footprints told by walking round the house: closed, named, and refused in words for who walked."""

from itertools import pairwise
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon, box, unary_union

from amber_gable.core.survey.blocks.walked_round import Leg, floor_corners, read_walk, walked_out
from amber_gable.core.survey.drawing.house_plan import closing_gap_m, house_plan
from amber_gable.domain.house.block_out import BlockOut, Side
from amber_gable.domain.units import UnitSystem

HOUSE = BlockOut.model_validate(
    {"width_m": 1, "depth_m": 1, "eaves_m": 2.8, "roof": "flat", "looks_deg": 200.0, "substrate": "wood-lap",
     "colour": "#d8d2c2", "roof_substrate": "metal-roof"}
)  # fmt: skip
L_SHAPE = "9.6 left 8 left 5.4 right 3 left 4.2 left 11"


@pytest.mark.parametrize(
    ("walk", "walls", "area"),
    [
        # By hand: a rectangle; an L of 9.6 × 8 and 4.2 × 3 more; a U round a court of 3 × 2.
        ("9.6 left 8 left 9.6 left 8", 4, 76.8),
        (L_SHAPE, 6, 9.6 * 8 + 4.2 * 3),
        ("9 l 6 l 3 l 2 r 3 r 2 l 3 l 6", 8, 9 * 6 - 3 * 2),
        # The last wall or the last two follow.
        ("9.6 left 8 left 5.4 right 3 left 4.2", 6, 89.4),
        ("9.6 left 8 left 5.4 right 3", 6, 89.4),
        ("9.6 left 8", 4, 76.8),
        # A tape that missed by 4 cm along and 6 in: the last walls take it up.
        ("9.6 left 8 left 5.4 right 3 left 4.24 left 10.94", 6, 89.4),
    ],
)
def test_walks_worked_out_by_hand(walk: str, walls: int, area: float) -> None:
    legs = read_walk(walk)
    assert len(legs) == walls
    assert Polygon(floor_corners(legs)).area == pytest.approx(area, rel=1e-6)
    made = walked_out(HOUSE, legs)
    faces = [face for face, _ in made]
    assert sum(f.area_m2 for f in faces if f.is_wall) == pytest.approx(2.8 * sum(leg.length_m for leg in legs))
    assert faces[-1].area_m2 == pytest.approx(area, rel=1e-6), "the roof covers the plan"


def test_walls_are_named_by_their_side_and_look_away_from_the_house() -> None:
    faces = [face for face, _ in walked_out(HOUSE, read_walk(L_SHAPE))][:-1]
    looks = {f.name: round(f.azimuth_deg) for f in faces}
    assert looks == {
        "Front": 200, "Right side": 110, "Back": 20, "Right side 2": 110, "Back 2": 20, "Left side": 290,
    }  # fmt: skip


def test_feet_and_inches_are_walked_too() -> None:
    legs = read_walk("31' 6\" left 26' left 31' 6\"", UnitSystem.US)
    assert [round(leg.length_m / 0.3048, 2) for leg in legs] == [31.5, 26.0, 31.5, 26.0]


@pytest.mark.parametrize(
    ("walk", "words"),
    [
        ("9.6", "one after another"),
        ("9.6 left left 8", "has no length"),
        ("9.6 left x8", "length"),
        ("9.6 left 8 left 5.4 right 3 left 3.2", "ends 1.00 m to the right"),
        ("9.6 left 8 left 9.6 left 7", "1.00 m behind it"),
        ("9.6 right 8 right 9.6 right 8", "turn left"),
        ("9 left 6 left 12 left 3 left 6 left 1 right 3 left 4", "cross"),
        (" left ".join(["2"] * 60), "too many"),
    ],
)
def test_what_no_walk_round_a_house_is(walk: str, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        read_walk(walk)


@st.composite
def stacked(draw: st.DrawFn) -> Polygon:
    """A footprint of right angles: a street side, and parts of other widths behind it."""
    parts, y = [], 0.0
    left, right = 0.0, draw(st.integers(4, 20)) / 2
    for _ in range(draw(st.integers(1, 4))):
        deep = draw(st.integers(2, 12)) / 2
        parts.append(box(left, y, right, y + deep))
        y += deep
        middle = (left + right) / 2
        left, right = middle - draw(st.integers(1, 12)) / 2, middle + draw(st.integers(1, 12)) / 2
    return unary_union(parts)


def _walk_of(shape: Polygon) -> str:
    """As it would be told: from the street side's left corner, the house at the left hand."""
    ring = list(shape.exterior.coords)[:-1]
    if not shape.exterior.is_ccw:
        ring.reverse()
    ring = [p for before, p, after in zip([ring[-1], *ring], ring, [*ring[1:], ring[0]], strict=False)
            if (p[0] - before[0]) * (after[1] - p[1]) != (p[1] - before[1]) * (after[0] - p[0])]  # fmt: skip
    at = min(range(len(ring)), key=lambda n: (ring[n][1], ring[n][0]))
    ring = ring[at:] + ring[:at]
    out = []
    steps = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise([*ring, ring[0]])]
    for n, (dx, dy) in enumerate(steps):
        px, py = steps[n - 1]
        turn = "" if n == 0 else "left " if px * dy - py * dx > 0 else "right "
        out.append(f"{turn}{hypot(dx, dy):g}")
    return " ".join(out)


@given(stacked())
def test_any_footprint_of_right_angles_closes(shape: Polygon) -> None:
    legs = read_walk(_walk_of(shape))
    assert Polygon(floor_corners(legs)).area == pytest.approx(shape.area)
    walls = house_plan(tuple(face for face, _ in walked_out(HOUSE, legs)))
    assert closing_gap_m(walls) == pytest.approx(0.0, abs=1e-3)
    for here, there in pairwise([*walls, walls[0]]):
        assert hypot(here.end[0] - there.start[0], here.end[1] - there.start[1]) < 1e-3
    assert legs[0].side is Side.FRONT and legs[-1] == Leg(Side.LEFT, pytest.approx(legs[-1].length_m))
