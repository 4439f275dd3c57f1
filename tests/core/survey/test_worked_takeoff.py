"""Worked sums: each expected figure is written out as a painter would on paper, then compared."""

from math import cos, hypot, pi, radians, sqrt, tan

import numpy as np
import pytest
from pydantic import TypeAdapter

from amber_gable.core.survey.amounts.items import item_area, openness
from amber_gable.core.survey.amounts.takeoff import face_areas, zone_areas
from amber_gable.core.survey.amounts.trim import trim_length
from amber_gable.core.survey.findings.essentials import missing_essentials
from amber_gable.domain.house.items import ItemSpec, Railing
from amber_gable.domain.house.profile import Profile
from amber_gable.domain.house.survey import Face
from amber_gable.domain.house.zone_area import TrimPart
from tests.jobs import demo_job, one_face, opening

SPEC: TypeAdapter[ItemSpec] = TypeAdapter(ItemSpec)
PROFILE: TypeAdapter[Profile] = TypeAdapter(Profile)
SHED_4_12 = 18.4349488  # degrees: rise 4 on run 12

# outline, tilt, area m² as arithmetic
OUTLINES = [
    ({"kind": "rectangle", "width_m": 6.7, "height_m": 3.05}, 90, 6.7 * 3.05),
    ({"kind": "rectangle", "width_m": 8.4, "height_m": 2.9}, 90, 24.36),
    ({"kind": "gable", "width_m": 7.4, "eave_height_m": 5.6, "rise_m": 2.6}, 90, 7.4 * 5.6 + 7.4 * 2.6 / 2),
    ({"kind": "gable", "width_m": 8, "eave_height_m": 3, "rise_m": 2, "peak_m": 1}, 90, 8 * 3 + 8 * 2 / 2),
    ({"kind": "lean-to", "width_m": 4, "left_m": 3.2, "right_m": 2.4}, 90, 4 * (3.2 + 2.4) / 2),
    ({"kind": "lean-to", "width_m": 4, "left_m": 0, "right_m": 2.4}, 90, 4 * 2.4 / 2),
    ({"kind": "hip-end", "width_m": 8, "eave_height_m": 3, "rise_m": 2, "ridge_m": 2}, 90, 8 * 3 + (8 + 2) / 2 * 2),
    ({"kind": "dormer-cheek", "width_m": 2.1, "height_m": 1.4}, 90, 2.1 * 1.4 / 2),
    (
        {"kind": "parapet", "width_m": 12, "height_m": 6.5, "middle_width_m": 4, "middle_rise_m": 0.8},
        90,
        12 * 6.5 + 4 * 0.8,
    ),
    ({"kind": "free", "corners": [[1, 1], [5, 1], [5, 4], [3, 5], [1, 4]]}, 90, 4 * 3 + 4 * 1 / 2),
    # A 4:12 slope of a straight roof: plan 10 × 4.2, ÷ cos of the pitch, which is √(12² + 4²)/12.
    ({"kind": "roof-slope", "eave_m": 10, "run_m": 4.2}, SHED_4_12, 10 * 4.2 * sqrt(160) / 12),
    # Hip roof over 12 × 8 at 4:12: the long slopes are trapezoids with a ridge of 4, the ends triangles.
    (
        {"kind": "roof-slope", "eave_m": 12, "run_m": 4, "left": "hip", "right": "hip"},
        SHED_4_12,
        (12 + 4) / 2 * 4 * sqrt(160) / 12,
    ),
    (
        {"kind": "roof-slope", "eave_m": 8, "run_m": 4, "left": "hip", "right": "hip"},
        SHED_4_12,
        8 * 4 / 2 * sqrt(160) / 12,
    ),
    (
        {"kind": "roof-slope", "eave_m": 6, "run_m": 3, "left": "verge", "right": "valley"},
        30,
        (6 + 9) / 2 * 3 / cos(radians(30)),
    ),
]


@pytest.mark.parametrize(
    ("outline", "tilt", "area"), OUTLINES, ids=[f"{o[0]['kind']}-{i}" for i, o in enumerate(OUTLINES)]
)
def test_areas_of_outlines(outline: dict[str, object], tilt: float, area: float) -> None:
    face = Face.model_validate({"id": "f", "name": "F", "azimuth_deg": 0, "tilt_deg": tilt, "outline": outline})
    assert face.area_m2 == pytest.approx(area, rel=1e-7)
    corners = np.array(face.points)
    x, y = corners.T
    shoelace = (x * np.roll(y, -1) - y * np.roll(x, -1)).sum() / 2
    assert shoelace == pytest.approx(area, rel=1e-7), "the drawing and the sums are of one shape"
    assert corners.min() >= -1e-9


def test_the_four_slopes_of_a_hip_roof_cover_its_plan() -> None:
    long, short = OUTLINES[11][2], OUTLINES[12][2]
    assert 2 * (long + short) == pytest.approx(12 * 8 / cos(radians(SHED_4_12)))


def _sheet_arc(pitch: float, depth: float) -> float:
    """Arc of a sine sheet by adding up a million chords."""
    x = np.linspace(0, pitch, 1_000_001)
    y = depth / 2 * np.sin(2 * pi * x / pitch)
    return float(np.hypot(np.diff(x), np.diff(y)).sum()) / pitch


PROFILES = [
    # Board and batten 300 / 50 / 20 mm: a batten adds its two edges.
    ({"kind": "batten", "pitch_m": 0.300, "batten_width_m": 0.050, "batten_thickness_m": 0.020}, (300 + 2 * 20) / 300),
    ({"kind": "lap", "exposure_m": 0.150, "butt_m": 0.012}, (150 + 12) / 150),
    # Trapezoidal sheet, pitch 200, rib 70 at the base, 30 at the crest, 40 deep: pans 130, crest 30, two webs.
    (
        {"kind": "trapezoid", "pitch_m": 0.2, "base_m": 0.07, "crest_m": 0.03, "depth_m": 0.04},
        (130 + 30 + 2 * hypot(20, 40)) / 200,
    ),
    ({"kind": "sine", "pitch_m": 0.076, "depth_m": 0.018}, _sheet_arc(0.076, 0.018)),
    ({"kind": "sine", "pitch_m": 0.146, "depth_m": 0.051}, _sheet_arc(0.146, 0.051)),
    # Deck boards 140 + 5 mm gap, 28 thick: top 140, edges 2 × 28; and the underside.
    ({"kind": "deck", "board_m": 0.14, "gap_m": 0.005, "thickness_m": 0.028, "reach": "top"}, 140 / 145),
    ({"kind": "deck", "board_m": 0.14, "gap_m": 0.005, "thickness_m": 0.028}, (140 + 56) / 145),
    (
        {"kind": "deck", "board_m": 0.14, "gap_m": 0.005, "thickness_m": 0.028, "reach": "six-sided"},
        (140 + 56 + 140) / 145,
    ),
    ({"kind": "fixed", "value": 1.65}, 1.65),
]


@pytest.mark.parametrize(("profile", "factor"), PROFILES, ids=[f"{p[0]['kind']}-{i}" for i, p in enumerate(PROFILES)])
def test_factors_of_profiles(profile: dict[str, object], factor: float) -> None:
    assert PROFILE.validate_python(profile).factor == pytest.approx(factor, rel=1e-6)


ITEMS = [
    # Railing 3.6 × 0.95 m, balusters 38 mm square at 100 mm: 2 sides × 2·38/100, and two rails of 0.26 m girth.
    ({"kind": "railing", "length_m": 3.6, "height_m": 0.95}, 3.6 * 0.95 * 2 * 0.76 + 2 * 3.6 * 0.26),
    (
        {"kind": "panelled-door", "width_m": 0.9, "height_m": 2.1, "panels": 6, "sides": 2},
        2 * 0.9 * 2.1 * 1.30 + 2 * (2 * 2.1 + 0.9) * 0.18,
    ),
    ({"kind": "flush-door", "width_m": 0.9, "height_m": 2.1}, 0.9 * 2.1 + (2 * 2.1 + 0.9) * 0.18),
    (
        {"kind": "glazed-door", "width_m": 0.9, "height_m": 2.1, "glazed": 0.5},
        0.9 * 2.1 * 0.5 + (2 * 2.1 + 0.9) * 0.18,
    ),
    # Two sashes of 0.9 × 0.7, one bar up each; frame and sill round the whole.
    (
        {"kind": "sash-window", "width_m": 0.9, "height_m": 1.4, "panes_across": 2},
        2 * 2 * (0.9 + 0.7) * 0.09 + 2 * 0.7 * 0.05 + 2 * (0.9 + 1.4) * 0.22,
    ),
    ({"kind": "casement", "width_m": 1.2, "height_m": 1.2, "leaves": 2}, 2 * 2 * (0.6 + 1.2) * 0.09 + 2 * 2.4 * 0.18),
    (
        {"kind": "shutter-pair", "leaf_width_m": 0.4, "height_m": 1.4},
        2 * 2 * 0.4 * 1.4 + 2 * 2 * (0.4 + 1.4) * 0.032,
    ),
    (
        {"kind": "shutter-pair", "leaf_width_m": 0.4, "height_m": 1.4, "louvred": True},
        2 * 2 * 0.4 * 1.4 * 1.75 + 2 * 2 * (0.4 + 1.4) * 0.032,
    ),
    ({"kind": "garage-door", "width_m": 2.4, "height_m": 2.1}, 2.4 * 2.1 * 1.10),
    (
        {"kind": "gutter", "length_m": 9, "girth_m": 0.3, "downspouts": 2, "downspout_m": 5},
        9 * 0.3 + 2 * 5 * 0.26,
    ),
    ({"kind": "sign-band", "width_m": 4, "height_m": 0.6, "depth_m": 0.1}, 4 * 0.6 + 2 * 4.6 * 0.1),
    (
        {"kind": "stair", "treads": 3, "width_m": 1},
        3 * 1 * 0.28 + 3 * 1 * 0.18 + 4 * 3 * hypot(0.28, 0.18) * 0.25,
    ),
    ({"kind": "chimney", "width_m": 0.6, "depth_m": 0.5, "height_m": 1.4}, 2 * 0.6 * 1.4 + 2 * 0.5 * 1.4),
]


@pytest.mark.parametrize(("spec", "area"), ITEMS, ids=[f"{s[0]['kind']}-{i}" for i, s in enumerate(ITEMS)])
def test_areas_of_items(spec: dict[str, object], area: float) -> None:
    assert item_area(SPEC.validate_python(spec)) == pytest.approx(area)


def test_balusters_of_38_mm_at_100_mm_pitch_have_an_openness_of_076() -> None:
    assert openness(Railing(length_m=3, height_m=1, baluster_m=0.038, pitch_m=0.1)) == pytest.approx(0.76)


# A wall of our own: 8.40 × 2.90 m is 24.36 m²; three windows 1.10 × 1.25 of 1.375 m² each, a door 0.95 × 2.10 of 1.995.
DEDUCTIONS = [
    ("net", 18.24),
    ("gross", 24.36),
    ("threshold", 22.365),
]


@pytest.mark.parametrize(("school", "square_metres"), DEDUCTIONS)
def test_a_wall_with_three_windows_and_a_door(school: str, square_metres: float) -> None:
    openings = [opening(f"w{i}", x, 0.9, 1.10, 1.25) for i, x in enumerate((0.6, 4.3, 6.6))]
    openings.append(opening("door", 2.5, 0.0, 0.95, 2.10))
    property_ = one_face({"kind": "rectangle", "width_m": 8.40, "height_m": 2.90}, openings)
    area = face_areas(property_, property_.faces[0], school)["field"]
    assert area.plan_m2 == pytest.approx(square_metres)
    assert sum(line.value_m2 for line in area.lines) == pytest.approx(area.plan_m2)


def test_zones_part_a_gable_and_openings_come_off_where_they_lie() -> None:
    """A stucco base of 0.8 m, shingle above 5.6 m, siding between; one window half in the base."""
    property_ = one_face(
        {"kind": "gable", "width_m": 7.4, "eave_height_m": 5.6, "rise_m": 2.6},
        [{**opening("low", 1.0, 0.4, 1.0, 0.8), "spans": True}, opening("high", 3.2, 3.0, 0.9, 1.4)],
        zones=[
            {"id": "base", "area": {"kind": "band", "from_m": 0, "to_m": 0.8}},
            {"id": "top", "area": {"kind": "band", "from_m": 5.6, "to_m": 8.2}},
        ],
    )
    areas = face_areas(property_, property_.faces[0], "net")
    assert areas["base"].plan_m2 == pytest.approx(7.4 * 0.8 - 1.0 * 0.4)
    assert areas["top"].plan_m2 == pytest.approx(7.4 * 2.6 / 2)
    assert areas["field"].plan_m2 == pytest.approx(7.4 * (5.6 - 0.8) - 1.0 * 0.4 - 0.9 * 1.4)


# part, length m of trim on a gable 6 wide, eave 3, rise 4 (rakes of 5 m), a window 1 × 1.2 and a door 0.9 × 2.1
TRIMS = [
    (TrimPart.CORNER_BOARDS, 2 * 3),
    (TrimPart.FASCIA, 2 * 5),
    (TrimPart.CASINGS, 2 * (1.2 + 0.09) + 1 + 2 * (2.1 + 0.09) + 0.9),
    (TrimPart.SILLS, 1 + 2 * 0.09),
    (TrimPart.BASE_BAND, 6 - (0.9 + 2 * 0.09)),
]


@pytest.mark.parametrize(("part", "length"), TRIMS)
def test_lengths_of_trim(part: TrimPart, length: float) -> None:
    openings = [opening("w", 1, 1, 1, 1.2), {**opening("d", 4, 0, 0.9, 2.1), "kind": "door"}]
    property_ = one_face({"kind": "gable", "width_m": 6, "eave_height_m": 3, "rise_m": 4}, openings)
    assert trim_length(property_.faces[0], part).length_m == pytest.approx(length)


def test_trim_is_length_times_girth_and_covers_the_wall_under_it() -> None:
    runs = [{"part": "corner-boards", "girth_m": 0.2, "cover_m": 0.1}, {"part": "fascia", "girth_m": 0.25}]
    property_ = one_face(
        {"kind": "rectangle", "width_m": 6, "height_m": 3},
        [],
        zones=[{"id": "trim", "area": {"kind": "trim", "runs": runs}}],
    )
    areas = face_areas(property_, property_.faces[0], "net")
    assert areas["trim"].plan_m2 == pytest.approx(2 * 3 * 0.2 + 6 * 0.25)
    assert areas["field"].plan_m2 == pytest.approx(6 * 3 - 2 * 3 * 0.1)


def test_a_roof_of_four_in_twelve_has_that_pitch() -> None:
    assert tan(radians(SHED_4_12)) == pytest.approx(4 / 12)


# What a zone of own size lies on decides whether the wall loses it: 10 × 3 m, a garage door of 2.6 × 2.2 m.
OWN = [("not-said", 30 - 5.72 - 5.0), ("wall", 30 - 5.72 - 5.0), ("opening", 30 - 5.72), ("neither", 30 - 5.72)]


@pytest.mark.parametrize(("lies", "field_m2"), OWN)
def test_only_what_lies_on_the_wall_is_taken_off_it(lies: str, field_m2: float) -> None:
    property_ = one_face(
        {"kind": "rectangle", "width_m": 10.0, "height_m": 3.0},
        [opening("door", 1.0, 0.0, 2.6, 2.2)],
        zones=[{"id": "leaf", "area": {"kind": "own", "area_m2": 5.0, "lies": lies}}],
    )
    areas = face_areas(property_, property_.faces[0], "net")
    assert areas["field"].plan_m2 == pytest.approx(field_m2)
    assert areas["leaf"].plan_m2 == pytest.approx(5.0)
    asked = [
        m.words
        for m in missing_essentials(demo_job("1").model_copy(update={"property": property_}))
        if "on the wall" in m.words
    ]
    assert bool(asked) is (lies == "not-said"), "older jobs are asked"


# Plan areas of every zone of the demo by hand: outline, less openings over 1.5 m², less what lies on it.
DEMO_AREAS = [
    ("1-coopers-rise", "front-siding", 53.76 - 2.365 - 6.5),
    ("1-coopers-rise", "front-trim", 6.5),
    ("1-coopers-rise", "west-gable-siding", 41.44 + 9.62 - 5.2),
    ("1-coopers-rise", "west-gable-trim", 5.2),
    # The kitchen wing, 4.2 m wide, hides the wall behind it up to its eaves at 2.8 m.
    ("1-coopers-rise", "back-siding", 53.76 - 11.76 - 4.8),
    ("1-coopers-rise", "back-trim", 4.8),
    ("1-coopers-rise", "east-gable-siding", 41.44 + 9.62 - 5.2),
    ("1-coopers-rise", "east-gable-trim", 5.2),
    ("1-coopers-rise", "wing-back-siding", 11.76 - 1.845),
    ("1-coopers-rise", "wing-east-siding", 8.4 + 1.35),
    ("1-coopers-rise", "wing-west-siding", 8.4 + 1.35),
    ("2-net-loft", "south-wall", 89.6 + 2.5 - 8.4 - 10.24 - 2 * 1.96 - 2 * 1.68),
    ("2-net-loft", "sign-band", 12.0 * 0.7),
    ("2-net-loft", "west-wall", 57.6),
    ("2-net-loft", "north-wall", 89.6 - 2.1),
    ("2-net-loft", "east-wall", 57.6 - 1.68),
    ("3-quarry-lane", "ql-front-brick", 36.45 - 2 * 5.72 - 2.1 - 2.16),
    ("3-quarry-lane", "ql-left-brick", 22.14),
    ("3-quarry-lane", "ql-left-vinyl", 7.38),
    ("3-quarry-lane", "ql-back-brick", 36.45 - 2.16 - 5.04),
    ("3-quarry-lane", "ql-right-brick", 22.14),
    ("3-quarry-lane", "ql-right-vinyl", 7.38),
    ("4-heron-deck", "deck-boards", 25.2),
    ("4-heron-deck", "porch-slab", 7.92),
    ("5-feed-barn", "south-roof", 103.5 / 0.9271839),
    ("5-feed-barn", "north-roof", 103.5 / 0.9271839),
]


def test_every_face_of_the_demo_by_hand() -> None:
    found = {}
    for job in sorted({j for j, _, _ in DEMO_AREAS}):
        bundle = demo_job(job)
        areas = zone_areas(bundle.property, bundle.deduction)
        found |= {(job, z): a.plan_m2 for z, a in areas.items()}
    assert found == pytest.approx({(job, zone): m2 for job, zone, m2 in DEMO_AREAS}, rel=1e-6)
