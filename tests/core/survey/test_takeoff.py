"""What must hold for every face: areas add up, schools are ordered, mirroring and units change nothing; sections."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.specification.cautions.limits import moisture_limit
from amber_gable.core.survey.amounts.measures import parse_length
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.survey.amounts.takeoff import deducted, face_areas, zone_areas
from amber_gable.core.survey.drawing.geometry import (
    face_regions,
    natural_breaks,
    outline_polygon,
    section_share,
    sections,
)
from amber_gable.core.survey.findings.checks import face_faults
from amber_gable.core.survey.findings.copying import mirrored
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face, Property
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.work.schools import DEFAULTS
from amber_gable.web.views.units import Units
from tests.jobs import coopers_rise, one_face, one_wall, opening

size = st.floats(0.5, 15)
part = st.floats(0.05, 0.95)


@st.composite
def outlines(draw: st.DrawFn) -> dict[str, object]:
    w, h, r, side = draw(size), draw(size), draw(st.floats(0.3, 5)), draw(st.sampled_from(["left", "right"]))
    return draw(
        st.sampled_from(
            [
                {"kind": "rectangle", "width_m": w, "height_m": h},
                {"kind": "gable", "width_m": w, "eave_height_m": h, "rise_m": r, "peak_m": w * draw(part)},
                {"kind": "lean-to", "width_m": w, "left_m": h, "right_m": r},
                {"kind": "hip-end", "width_m": w, "eave_height_m": h, "rise_m": r, "ridge_m": w * draw(part)},
                {
                    "kind": "dormer-cheek",
                    "width_m": w,
                    "height_m": h,
                    "front": side,
                },
                {"kind": "parapet", "width_m": w, "height_m": h, "middle_width_m": w * draw(part), "middle_rise_m": r},
            ]
        )
    )


@st.composite
def faces(draw: st.DrawFn) -> Property:
    """A face with a base band and openings of all sizes that lie inside it."""
    outline = draw(outlines())
    bare = one_face(outline, []).faces[0]
    openings = []
    for i in range(draw(st.integers(0, 4))):
        o = opening(f"o{i}", bare.width_m * i / 4, 0.0, bare.width_m * draw(part) / 4, bare.top_m * draw(part))
        tried = one_face(outline, [*openings, {**o, "spans": True}]).faces[0]
        if not face_faults(tried, ()):
            openings.append({**o, "spans": True})
    band = {"id": "base", "area": {"kind": "band", "from_m": 0.0, "to_m": bare.top_m * draw(part)}}
    return one_face(outline, openings, zones=[band])


@given(faces())
def test_zones_part_the_face_and_nothing_is_counted_twice(property_: Property) -> None:
    face = property_.faces[0]
    areas = face_areas(property_, face, "gross")
    assert sum(a.plan_m2 for a in areas.values()) == pytest.approx(face.area_m2, rel=1e-6)
    net = face_areas(property_, face, "net")
    holes = sum(o.area_m2 for o in face.openings)
    assert sum(a.plan_m2 for a in net.values()) == pytest.approx(face.area_m2 - holes, rel=1e-6, abs=1e-6)
    regions = face_regions(face, property_.zones_of(face.id))
    assert regions.rest.area + sum(r.area for r in regions.regions.values()) == pytest.approx(
        outline_polygon(face).area, rel=1e-9
    )


@given(faces())
def test_schools_are_ordered_for_every_zone(property_: Property) -> None:
    order = ("net", "threshold", "gross")
    net, threshold, gross = (face_areas(property_, property_.faces[0], s) for s in order)
    for zone in net:
        assert -1e-9 <= net[zone].plan_m2 <= threshold[zone].plan_m2 + 1e-9 <= gross[zone].plan_m2 + 2e-9


@given(faces())
def test_mirroring_changes_no_area_and_twice_is_none(property_: Property) -> None:
    face = property_.faces[0]
    turned, zones, items = mirrored(face, property_.zones, property_.items)
    other = property_.model_copy(update={"faces": (turned,), "zones": zones, "items": items})
    for school in ("threshold", "net", "gross"):
        there = face_areas(other, turned, school)
        for id_, area in face_areas(property_, face, school).items():
            assert there[id_].plan_m2 == pytest.approx(area.plan_m2, rel=1e-6, abs=1e-6)
    assert not face_faults(turned, zones)
    again = mirrored(turned, zones, items)[0]
    assert outline_polygon(again).symmetric_difference(outline_polygon(face)).area < 1e-6


@given(metres=st.floats(0.001, 199), system=st.sampled_from(list(UnitSystem)))
def test_a_size_shown_in_a_form_and_typed_back_is_the_same(metres: float, system: UnitSystem) -> None:
    units = Units(system)
    once = parse_length(units.typed(metres), system)
    assert once == pytest.approx(metres, abs=2e-6)
    assert parse_length(units.typed(once), system) == pytest.approx(once, abs=1e-12), "and stays so for ever"


def test_threshold_is_strictly_over_one_and_a_half_square_metres() -> None:
    face = one_wall(10, 3, (opening("a", 0, 0, 1.5, 1.0), opening("b", 2, 0, 1.6, 1.0))).property.faces[0]
    assert [o.id for o in deducted(face.openings, "threshold")] == ["b"]


def test_a_zone_measured_apart_comes_off_the_field() -> None:
    areas = zone_areas(coopers_rise().property, "net")
    gable = areas["west-gable-siding"]
    window, vent, trim = 0.9 * 1.4, 0.5 * 0.6, 5.2
    assert gable.plan_m2 == pytest.approx(7.4 * 5.6 + 7.4 * 2.6 / 2 - window - vent - trim)
    assert areas["west-gable-trim"].plan_m2 == 5.2


@given(outline=outlines(), cuts=st.lists(part, min_size=1, max_size=5))
def test_shares_of_sections_add_up_to_the_face(outline: dict[str, object], cuts: list[float]) -> None:
    face = Face.model_validate({"id": "f", "name": "F", "azimuth_deg": 0, "outline": outline})
    ends = [0.0, *sorted(c * face.width_m for c in cuts), face.width_m]
    shares = [section_share(face, a, b) for a, b in pairwise(ends)]
    assert sum(shares) == pytest.approx(1.0)
    assert all(s >= -1e-9 for s in shares)


def test_sections_end_at_the_edges_of_openings_else_at_board_joints() -> None:
    face = coopers_rise().property.faces[0]
    strips = sections(face, 3)
    assert strips[0][0] == 0.0
    assert strips[-1][1] == face.width_m
    for (_, end), (begin, _) in pairwise(strips):
        assert end == begin
        assert end in natural_breaks(face)
    bare = one_wall(12, 3).property.faces[0]
    assert sections(bare, 3) == ((0.0, 4.0), (4.0, 8.0), (8.0, 12.0))
    assert sections(bare, 1) == ((0.0, 12.0),)


def test_parts_are_measured_once_for_a_property_and_anew_for_another() -> None:
    place = one_wall(12, 3).property
    first = painted_parts(place, "threshold")
    taken = first.popitem()[1]
    again = painted_parts(place, "threshold")
    assert again[taken.key] is taken, "measured once, and what a caller does with its parts touches no other's"
    lower = place.faces[0].model_copy(update={"outline": one_wall(12, 2).property.faces[0].outline})
    changed = painted_parts(place.model_copy(update={"faces": (lower,)}), "threshold")
    assert changed[taken.key].surface_m2 == pytest.approx(taken.surface_m2 * 2 / 3)


def test_every_substrate_record_is_sane() -> None:
    for code, s in SUBSTRATES.items():
        assert s.code == code
        assert 2e3 <= s.heat_capacity <= 200e3
        assert (moisture_limit(s.tags, "paint", DEFAULTS) is not None) == (s.family == "wood")
