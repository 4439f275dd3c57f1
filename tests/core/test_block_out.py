"""Houses blocked out: they close, their walls meet at one height, and their roofs cover their plan."""

from math import cos, hypot, radians

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.survey.block_out import BACK, FRONT, LEFT, RIGHT, blocked_out
from amber_gable.core.survey.house_plan import house_plan
from amber_gable.domain.block_out import BlockOut, Roof
from amber_gable.domain.survey import Face

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
)


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
