"""Areas: the trade's own arithmetic, schools, gables, and sections at natural breaks."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.survey.takeoff import deducted, natural_breaks, section_share, sections, zone_area, zone_areas
from amber_gable.domain.schools import DeductionSchool
from amber_gable.domain.substrates import SUBSTRATES, batten_factor, lap_factor
from amber_gable.domain.survey import Face
from tests.jobs import FOOT, coopers_rise, one_wall, opening

FT2 = FOOT**2


def _ten_by_twenty_two() -> tuple[dict[str, object], ...]:
    windows = [opening(f"w{i}", x * FOOT, 3 * FOOT, 4 * FOOT, 3 * FOOT) for i, x in enumerate((2, 16))]
    return (*windows, opening("door", 9 * FOOT, 0.0, 3 * FOOT, 7 * FOOT))


@pytest.mark.parametrize(
    ("school", "square_feet"),
    [
        (DeductionSchool.NET, 220 - 2 * 12 - 21),
        (DeductionSchool.GROSS, 220),
        # The windows are 1.11 m² each and stay; the door is 1.95 m² and goes.
        (DeductionSchool.THRESHOLD, 220 - 21),
    ],
)
def test_a_wall_of_22_by_10_feet_with_two_windows_and_a_door(school: DeductionSchool, square_feet: float) -> None:
    bundle = one_wall(22 * FOOT, 10 * FOOT, _ten_by_twenty_two())
    area = zone_area(bundle.property, bundle.property.zones[0], school)
    assert area.plan_m2 / FT2 == pytest.approx(square_feet)
    if school is DeductionSchool.NET:
        assert area.plan_m2 == pytest.approx(16.26, abs=0.005)
    assert sum(value for _, value in area.lines) == pytest.approx(area.plan_m2)


def test_lap_siding_has_more_surface_than_plan() -> None:
    assert lap_factor(0.150, 0.012) == pytest.approx(162 / 150)
    assert batten_factor(0.300, 0.020) == pytest.approx(340 / 300)
    bundle = one_wall(10, 3)
    area = zone_area(bundle.property, bundle.property.zones[0], DeductionSchool.NET)
    assert area.surface_m2 == pytest.approx(30 * 1.08)


def test_a_gable_adds_half_its_rise_and_trim_comes_off_the_field() -> None:
    areas = zone_areas(coopers_rise().property, DeductionSchool.NET)
    gable = areas["west-gable-siding"]
    window, vent, trim = 0.9 * 1.4, 0.5 * 0.6, 5.2
    assert gable.plan_m2 == pytest.approx(7.4 * 5.6 + 7.4 * 2.6 / 2 - window - vent - trim)
    assert areas["west-gable-trim"].plan_m2 == 5.2


@given(
    width=st.floats(2, 30),
    height=st.floats(2, 12),
    sizes=st.lists(st.tuples(st.floats(0.3, 1.0), st.floats(0.3, 1.9)), max_size=4),
)
def test_schools_are_ordered_and_nothing_is_negative(
    width: float, height: float, sizes: list[tuple[float, float]]
) -> None:
    places = [opening(f"o{i}", 0.0, 0.0, w * width / 8, min(h, height)) for i, (w, h) in enumerate(sizes)]
    for i, o in enumerate(places):
        o["x_m"] = i * width / 4
    bundle = one_wall(width, height, tuple(places))
    net, threshold, gross = (
        zone_area(bundle.property, bundle.property.zones[0], s).plan_m2
        for s in (DeductionSchool.NET, DeductionSchool.THRESHOLD, DeductionSchool.GROSS)
    )
    assert 0 <= net <= threshold <= gross == pytest.approx(width * height)


def test_threshold_is_strictly_over_one_and_a_half_square_metres() -> None:
    face = one_wall(10, 3, (opening("a", 0, 0, 1.5, 1.0), opening("b", 2, 0, 1.6, 1.0))).property.faces[0]
    assert [o.id for o in deducted(face.openings, DeductionSchool.THRESHOLD)] == ["b"]


@given(
    width=st.floats(2, 30),
    height=st.floats(2, 9),
    rise=st.floats(0, 4),
    cuts=st.lists(st.floats(0.05, 0.95), min_size=1, max_size=5),
)
def test_shares_of_sections_add_up_to_the_face(width: float, height: float, rise: float, cuts: list[float]) -> None:
    face = Face(id="f", name="F", azimuth_deg=0, width_m=width, eave_height_m=height, gable_rise_m=rise)
    ends = [0.0, *sorted(c * width for c in cuts), width]
    shares = [section_share(face, a, b) for a, b in pairwise(ends)]
    assert sum(shares) == pytest.approx(1.0)
    assert all(s >= -1e-9 for s in shares)


def test_sections_end_at_the_edges_of_openings() -> None:
    face = coopers_rise().property.faces[0]
    strips = sections(face, 3)
    assert strips[0][0] == 0.0
    assert strips[-1][1] == face.width_m
    for (_, end), (begin, _) in pairwise(strips):
        assert end == begin
        assert end in natural_breaks(face)


def test_a_face_without_openings_is_cut_evenly_at_board_joints() -> None:
    face = Face(id="f", name="F", azimuth_deg=0, width_m=12, eave_height_m=3)
    assert sections(face, 3) == ((0.0, 4.0), (4.0, 8.0), (8.0, 12.0))
    assert sections(face, 1) == ((0.0, 12.0),)


def test_every_substrate_record_is_sane() -> None:
    for code, s in SUBSTRATES.items():
        assert s.code == code
        assert 2e3 <= s.heat_capacity <= 200e3
        assert (s.moisture_limit_pct is not None) == (s.family == "wood")
