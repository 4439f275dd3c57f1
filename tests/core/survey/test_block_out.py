"""Houses blocked out: they close, their walls meet at one height, and their roofs cover their plan."""

from itertools import pairwise
from math import cos, hypot, radians, sin

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import Point, Polygon, box, unary_union

from amber_gable.core.survey.amounts.trim import trim_length
from amber_gable.core.survey.blocks.block_faces import Made
from amber_gable.core.survey.blocks.block_out import BACK, FRONT, LEFT, NAMES, RIGHT, blocked_out
from amber_gable.core.survey.blocks.wings import has_slope
from amber_gable.core.survey.drawing.house_plan import closing_gap_m, house_plan
from amber_gable.domain.house.block_out import BlockOut, Roof, Side, Wing, WingRoof
from amber_gable.domain.house.polygon import signed_area
from amber_gable.domain.house.survey import Face
from amber_gable.domain.house.zone_area import TrimPart

sizes = st.floats(2.0, 40.0)
blocks = st.builds(
    BlockOut,
    width_m=sizes,
    depth_m=sizes,
    eaves_m=st.floats(2.0, 12.0),
    roof=st.sampled_from(Roof),
    rise_m=st.floats(0.3, 8.0),
    looks_deg=st.floats(0, 359.9),
    substrate=st.just("wood-lap"),
    colour=st.just("#d8d2c2"),
    trim=st.booleans(),
    roof_substrate=st.just("metal-roof"),
    # A steeper roof is refused as a slope, with its words.
).filter(lambda b: b.roof is Roof.FLAT or b.pitch_deg <= 80)


def _house(roof: Roof, **others: object) -> BlockOut:
    usual = {"width_m": 9.6, "depth_m": 8.0, "eaves_m": 5.6, "rise_m": 3.0, "looks_deg": 180.0}
    return BlockOut.model_validate(usual | {"roof": roof, "substrate": "wood-lap", "colour": "#d8d2c2"} | others)


def _by_name(block: BlockOut) -> dict[str, Face]:
    return {face.name: face for face, _ in blocked_out(block)}


def _at_end(face: Face, *, right: bool) -> float:
    """Height of a wall at its left or right end, seen from outside."""
    x = face.width_m if right else 0.0
    return max(y for px, y in face.points if abs(px - x) < 1e-9)


@given(blocks)
def test_the_walls_go_round_the_footprint_and_meet_at_one_height(block: BlockOut) -> None:
    faces = _by_name(block)
    walls = house_plan(tuple(faces[n] for n in (FRONT, LEFT, BACK, RIGHT)))
    ends = {w.face.name: w for w in walls}
    # Seen from outside each wall's right end is the left end of the next one, a quarter turn anticlockwise.
    for name, following in ((FRONT, RIGHT), (RIGHT, BACK), (BACK, LEFT), (LEFT, FRONT)):
        here, there = ends[name].end, ends[following].start
        assert hypot(here[0] - there[0], here[1] - there[1]) < 1e-6, (name, following)
        assert _at_end(faces[name], right=True) == pytest.approx(_at_end(faces[following], right=False))


@given(blocks)
def test_the_slopes_cover_the_plan_by_their_pitch(block: BlockOut) -> None:
    roofs = [face for face, _ in blocked_out(block) if not face.is_wall]
    level = sum(f.area_m2 * cos(radians(f.tilt_deg)) for f in roofs)
    if block.roof is Roof.FLAT:
        assert sum(f.area_m2 for f in roofs) == pytest.approx(block.width_m * block.depth_m)
    else:
        assert level == pytest.approx(block.width_m * block.depth_m, rel=1e-6)


@pytest.mark.parametrize(
    ("roof", "front", "left", "back", "slopes"),
    [
        # By hand: 9.6 × 5.6 = 53.76; 8 × 5.6 = 44.8, the gable's triangle half of 8 × 3 more.
        (Roof.GABLE_ALONG, 53.76, 56.8, 53.76, 9.6 * 5.0 * 2),
        (Roof.GABLE_TO_STREET, 68.16, 44.8, 68.16, 8.0 * hypot(4.8, 3) * 2),
        (Roof.HIP, 53.76, 44.8, 53.76, 9.6 * 8.0 * 5.0 / 4.0),
        (Roof.LEAN_TO, 53.76, 56.8, 82.56, 9.6 * hypot(8, 3)),
        (Roof.FLAT, 53.76, 44.8, 53.76, 76.8),
    ],
)
def test_areas_worked_out_by_hand(roof: Roof, front: float, left: float, back: float, slopes: float) -> None:
    faces = _by_name(_house(roof, roof_substrate="metal-roof"))
    assert faces[FRONT].area_m2 == pytest.approx(front) and faces[BACK].area_m2 == pytest.approx(back)
    assert faces[LEFT].area_m2 == pytest.approx(left) == faces[RIGHT].area_m2
    assert sum(f.area_m2 for f in faces.values() if not f.is_wall) == pytest.approx(slopes)


def test_sides_are_named_as_one_sees_them_from_the_street() -> None:
    looks = {name: face.azimuth_deg for name, face in _by_name(_house(Roof.HIP)).items()}
    # Before a front that looks south one stands in the south: left is west.
    assert looks == {FRONT: 180.0, LEFT: 270.0, BACK: 0.0, RIGHT: 90.0}


def test_a_lean_to_is_high_at_the_back() -> None:
    faces = _by_name(_house(Roof.LEAN_TO))
    assert _at_end(faces[LEFT], right=False) == _at_end(faces[RIGHT], right=True) == pytest.approx(8.6)
    assert faces[BACK].top_m == pytest.approx(8.6) and faces[FRONT].top_m == 5.6


def test_zones_of_gable_base_and_trim_and_the_eave_where_there_is_one() -> None:
    made = blocked_out(
        _house(Roof.GABLE_ALONG, overhang_m=0.4, gable_substrate="wood-shingle", base_substrate="block", base_m=0.6)
    )
    zones = {face.name: {z.name: z for z in found} for face, found in made}
    assert set(zones[FRONT]) == {"Siding", "Base", "Trim"} and set(zones[LEFT]) == {*zones[FRONT], "Gable"}
    gable = zones[LEFT]["Gable"].area
    assert gable.kind == "band" and (gable.from_m, gable.to_m) == (5.6, 8.6)
    eaves = {face.name: face.overhang_m for face, _ in made}
    assert eaves == {FRONT: 0.4, BACK: 0.4, LEFT: 0.0, RIGHT: 0.0}, "a gable has a verge, no eave"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"rise_m": 0}, "give its pitch or its rise"),
        ({"base_m": 0.5}, "give both or neither"),
        ({"base_substrate": "block", "base_m": 6.0}, "as high as the wall"),
    ],
)
def test_what_no_house_is(change: dict[str, object], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        _house(Roof.HIP, **change)


WINGS = {
    "L": {"side": "back", "width_m": 4.0, "depth_m": 3.0, "eaves_m": 2.6, "roof": "lean-to", "rise_m": 0.8},
    "T": {"side": "back", "from_left_m": 3.0, "width_m": 3.6, "depth_m": 5.0, "eaves_m": 5.6, "roof": "gable-out",
          "rise_m": 2.4},
    "porch": {"side": "front", "width_m": 9.6, "depth_m": 2.0, "eaves_m": 2.4, "roof": "lean-to", "rise_m": 0.5},
    "flat": {"side": "left", "from_left_m": 2.0, "width_m": 3.0, "depth_m": 3.0, "eaves_m": 2.8, "roof": "flat"},
    "beside": {"side": "right", "from_left_m": 1.0, "width_m": 5.0, "depth_m": 4.0, "eaves_m": 2.5,
               "roof": "ridge-along", "rise_m": 1.0},
}  # fmt: skip


@st.composite
def winged(draw: st.DrawFn) -> BlockOut:
    """A house with one or two wings that can stand: on different sides, no higher than what they lean on."""
    house = draw(blocks)
    wings = []
    for side in draw(st.lists(st.sampled_from(Side), min_size=1, max_size=2, unique=True)):
        length = house.side_m(side)
        width = draw(st.floats(0.3, 1.0)) * length
        roof = draw(st.sampled_from(WingRoof))
        low = draw(st.floats(0.3, 1.0)) * house.eaves_m
        most = house.eaves_m - low + (house.rise_m if roof is WingRoof.GABLE_OUT and has_slope(house, side) else 0.0)
        if roof is not WingRoof.FLAT and most < 0.05:
            low, most = low * 0.7, most + low * 0.3
        rise = 0.0 if roof is WingRoof.FLAT else draw(st.floats(0.3, 0.9)) * min(most, 6.0)
        begins = draw(st.floats(0, 1)) * (length - width)
        wings.append(
            Wing(name=f"Wing {side}", side=side, from_left_m=begins, width_m=max(width, 0.51), depth_m=draw(sizes),
                 eaves_m=max(low, 0.51), roof=roof, rise_m=rise)
        )  # fmt: skip
    return house.model_copy(update={"wings": tuple(wings)})


def _built(block: BlockOut) -> list[Made]:
    """What no roof can do (a ridge past a hip, a slope steeper than 80°) is refused, never drawn wrong."""
    try:
        return blocked_out(block)
    except ValueError as error:
        assert "past the house’s hip" in str(error) or "at most 80°" in str(error)
        return []


def _foot(face: Face) -> float:
    """Length of a wall's edge on the ground."""
    points = [*face.points, face.points[0]]
    return sum(abs(b[0] - a[0]) for a, b in pairwise(points) if abs(a[1]) < 1e-6 and abs(b[1]) < 1e-6)


def _ground(block: BlockOut) -> Polygon:
    """The footprint on paper: the house's rectangle with its front on the x axis, and a rectangle per wing."""
    w, d = block.width_m, block.depth_m
    shapes = [box(0, 0, w, d)]
    for g in block.wings:
        a, b, out = g.from_left_m, g.from_left_m + g.width_m, g.depth_m
        shapes.append(
            {
                Side.FRONT: box(a, -out, b, 0),
                Side.RIGHT: box(w, a, w + out, b),
                Side.BACK: box(w - b, d, w - a, d + out),
                Side.LEFT: box(-out, d - b, 0, d - a),
            }[g.side]
        )
    return unary_union(shapes)


@given(winged())
def test_walls_with_wings_go_round_their_footprint_and_stand_on_it(block: BlockOut) -> None:
    made = _built(block)
    assume(made)
    walls = tuple(face for face, _ in made if face.is_wall)
    ground = _ground(block)
    hidden = [f for f, zones in made if zones and zones[0].area.kind == "region"]
    on_ground = sum(_foot(f) for f in walls) - sum(f.width_m for f in hidden)
    # A wall over a lower wing keeps no foot of its own there: its outline is cut to what is seen.
    assert on_ground == pytest.approx(ground.exterior.length, rel=1e-5, abs=1e-4)
    for wall in house_plan(walls):
        if wall.face in hidden:
            continue
        # Half a foot outside is open ground, half a foot inside is house, where the wall stands on it.
        (mx, my), looks = _middle_of_foot(wall.face, wall.start), radians(wall.face.azimuth_deg)
        for out, inside in ((0.15, False), (-0.15, True)):
            spot = _unturned(mx + sin(looks) * out, my + cos(looks) * out, block.looks_deg)
            assert ground.contains(Point(spot)) is inside, (wall.face.name, out)


def _middle_of_foot(face: Face, start: tuple[float, float]) -> tuple[float, float]:
    points = [*face.points, face.points[0]]
    feet = [(a, b) for a, b in pairwise(points) if abs(a[1]) < 1e-6 and abs(b[1]) < 1e-6 and b[0] > a[0]]
    x = max(((b[0] - a[0], (a[0] + b[0]) / 2) for a, b in feet))[1]
    heading = radians(face.azimuth_deg - 90)
    return start[0] + sin(heading) * x, start[1] + cos(heading) * x


def _unturned(east: float, north: float, looks_deg: float) -> tuple[float, float]:
    """On the paper of `_ground`: x along the front to the right, y into the house."""
    looks = radians(looks_deg)
    return east * sin(looks - radians(90)) + north * cos(looks - radians(90)), -(east * sin(looks) + north * cos(looks))


@given(winged())
def test_roofs_with_wings_cover_the_plan_once(block: BlockOut) -> None:
    made = _built(block)
    assume(made)
    flats = {"Roof"} if block.roof is Roof.FLAT else set()
    flats |= {f"{w.name}, roof {NAMES[w.side].lower()}" for w in block.wings if w.roof is WingRoof.FLAT}
    level = sum(f.area_m2 * (1.0 if f.name in flats else cos(radians(f.tilt_deg))) for f, _ in made if not f.is_wall)
    assert level == pytest.approx(_ground(block).area, rel=1e-4)


@pytest.mark.parametrize(
    ("wings", "areas"),
    [
        # The L's lean-to hides 4 × (2.6 + 0.8) = 13.6 of the back's 53.76; its sides are 3 × 2.6 + ½ × 3 × 0.8 = 9.
        (["L"], {"Back": 40.16, "Wing, back": 10.4, "Wing, right side": 9.0, "Wing, left side": 9.0}),
        # The T's wing is as high as the house: of the back two walls remain, 3 × 5.6 and (9.6 - 6.6) × 5.6.
        (["T"], {"Back, left of the wing": 16.8, "Back, right of the wing": 16.8, "Wing, back": 3.6 * 5.6 + 4.32,
                 "Wing, left side": 28.0, "Wing, right side": 28.0}),
        # A gable wall 8 × 5.6 + ½ × 8 × 3 = 56.8 behind a flat wing of 3 × 2.8.
        (["flat"], {"Left side": 48.4, "Wing, left side": 8.4, "Wing, back": 8.4, "Wing, front": 8.4}),
        (["beside"], {"Right side": 56.8 - 12.5, "Wing, front": 4 * 2.5 + 2.0, "Wing, right side": 12.5}),
    ],
)  # fmt: skip
def test_walls_beside_wings_worked_out_by_hand(wings: list[str], areas: dict[str, float]) -> None:
    faces = _by_name(_house(Roof.GABLE_ALONG, wings=[WINGS[w] for w in wings]))
    for name, area in areas.items():
        assert faces[name].area_m2 == pytest.approx(area), name


def test_corner_boards_stand_at_the_walls_ends_not_beside_a_wing() -> None:
    """The back runs 5.6 m up at its right end; at its left the lean-to hides 3.4 of them."""
    back = _by_name(_house(Roof.GABLE_ALONG, wings=[WINGS["L"]]))["Back"]
    assert trim_length(back, TrimPart.CORNER_BOARDS).length_m == pytest.approx(5.6 + 2.2)


def test_a_plan_closes_where_a_wing_takes_the_end_of_a_wall() -> None:
    """An L as high as the house: of its front 5.6 m remain, and end where the wing begins."""
    wing = {"side": "front", "from_left_m": 5.6, "width_m": 4.0, "depth_m": 3.0, "eaves_m": 5.6, "roof": "flat"}
    made = blocked_out(_house(Roof.HIP, wings=[wing]))
    assert closing_gap_m(house_plan(tuple(face for face, _ in made))) < 0.01


def test_over_a_porch_all_along_the_wall_keeps_its_height_and_loses_what_is_hidden() -> None:
    """Ladders are chosen by the height above ground: the wall stays 5.6 m high, 9.6 × (5.6 - 2.9) of it is painted."""
    made = blocked_out(_house(Roof.GABLE_ALONG, wings=[WINGS["porch"]]))
    front, zones = next(m for m in made if m[0].name == "Front")
    siding = next(z for z in zones if z.name == "Siding")
    assert front.top_m == 5.6 and signed_area(siding.area.corners) == pytest.approx(9.6 * 2.7)


def test_a_cross_gable_takes_its_triangle_of_the_slope_and_runs_on_to_the_valley() -> None:
    """By hand: the house's pitch is 3 in 4, the wing's ridge 2.4 m over its eaves: it runs 3.2 m into the roof. On plan
    the slope loses ½ × 3.6 × 3.2 = 5.76 m², ÷ cos = 7.2 m²; each wing slope is 5 to 8.2 m long and 3 m up."""
    faces = _by_name(_house(Roof.GABLE_ALONG, wings=[WINGS["T"]], roof_substrate="metal-roof"))
    assert faces["Roof, back"].area_m2 == pytest.approx(9.6 * 5.0 - 7.2)
    assert faces["Wing, roof left side"].area_m2 == pytest.approx((5.0 + 8.2) / 2 * 3.0)
    assert faces["Wing, roof right side"].area_m2 == pytest.approx((5.0 + 8.2) / 2 * 3.0)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"from_left_m": 8.0}, "ends 12.00 m from the left corner of a side 9.60 m long"),
        ({"eaves_m": 6.0}, "block out the higher part as the house"),
        ({"rise_m": 3.2}, "stands above the wall it meets"),
        ({"roof": "gable-out", "rise_m": 6.2}, "stands above the house’s"),
        ({"rise_m": 0}, "give its pitch or its rise"),
    ],
)
def test_wings_that_cannot_stand(change: dict[str, object], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        blocked_out(_house(Roof.GABLE_ALONG, wings=[WINGS["L"] | change]))


def test_two_wings_in_one_place_are_refused() -> None:
    with pytest.raises(ValueError, match="stand in one place"):
        _house(Roof.GABLE_ALONG, wings=[WINGS["T"], WINGS["L"]])
