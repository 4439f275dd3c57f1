"""The smaller computations of a survey: horizons, the house plan, moisture, condition maps, what is missing, the
walk."""

from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from amber_gable.core.survey.drawing.horizon import face_horizon
from amber_gable.core.survey.drawing.house_plan import closing_gap_m, house_plan, turned
from amber_gable.core.survey.findings.checks import survey_faults
from amber_gable.core.survey.findings.condition_map import marked_extents
from amber_gable.core.survey.findings.copying import copied, mirrored
from amber_gable.core.survey.findings.essentials import missing_essentials, open_tests
from amber_gable.core.survey.findings.moisture import moisture_statistics
from amber_gable.core.survey.findings.walk import lap, stops
from amber_gable.core.weather.wall.wood import equilibrium_moisture
from amber_gable.domain.findings.condition import CELL_M, Condition, Damage, Mark, MoistureReading
from amber_gable.domain.house.survey import Block, Face, Zone
from tests.jobs import coopers_rise, one_face, opening

WALL = {"kind": "rectangle", "width_m": 10, "height_m": 6}


def _height_at(face: Face, bearing: float) -> float:
    points = face_horizon(face)
    return float(np.interp(bearing, [p.azimuth_deg for p in points], [p.elevation_deg for p in points]))


def test_a_neighbour_stands_as_high_as_the_walls_middle_sees_it() -> None:
    """12 m high, 9 m away, seen from 3 m up: 45° straight out; its right edge ends 9 m to the right, at 45°."""
    block = Block(kind="building", left_m=-9, width_m=18, distance_m=9, height_m=12)
    face = one_face(WALL, [], blocks=[block.model_dump()]).faces[0]
    assert _height_at(face, 180) == pytest.approx(45, abs=0.1)
    # At 40° aside the same wall is farther away: atan(9 / (9 / cos 40°)).
    assert _height_at(face, 220) == pytest.approx(np.degrees(np.arctan(np.cos(np.radians(40)))), abs=0.3)
    assert _height_at(face, 226) == 0
    # Looking out from a wall that looks south, right of the middle is west.
    right = Block(kind="tree", left_m=4, width_m=4, distance_m=6, height_m=12)
    aside = one_face(WALL, [], blocks=[right.model_dump()]).faces[0]
    assert _height_at(aside, 225) > 30
    assert _height_at(aside, 135) == 0


def test_blocks_and_a_typed_horizon_hold_together_whichever_is_higher() -> None:
    typed = [{"azimuth_deg": a, "elevation_deg": e} for a, e in ((90, 5), (180, 20), (270, 5))]
    block = {"kind": "building", "left_m": -2, "width_m": 4, "distance_m": 20, "height_m": 5}
    face = one_face(WALL, [], horizon=typed, blocks=[block]).faces[0]
    assert _height_at(face, 180) == pytest.approx(20, abs=0.5), "a low shed does not lower the hill behind it"


def _walls(*sizes: tuple[float, float]) -> tuple[Face, ...]:
    base = one_face(WALL, []).faces[0]
    return tuple(
        base.model_copy(
            update={
                "id": f"f{i}",
                "azimuth_deg": azimuth,
                "outline": base.outline.model_copy(update={"width_m": width}),
            }
        )
        for i, (azimuth, width) in enumerate(sizes)
    )


@pytest.mark.parametrize("turn", [0.0, 33.0, 188.0])
def test_four_walls_close_to_a_rectangle_however_the_house_is_turned(turn: float) -> None:
    faces = tuple(turned(f, turn) for f in _walls((180, 10), (270, 7), (0, 10), (90, 7)))
    walls = house_plan(faces)
    assert closing_gap_m(walls) == pytest.approx(0, abs=1e-9)
    ends = np.array([w.end for w in walls])
    centre = ends.mean(axis=0)
    for w in walls:
        out = np.array(w.middle) - centre
        looks = np.radians(w.face.azimuth_deg)
        assert out @ [np.sin(looks), np.cos(looks)] > 0, "each wall stands on the side to which it looks"


def test_a_wall_measured_too_short_shows_as_a_gap() -> None:
    assert closing_gap_m(house_plan(_walls((180, 10), (270, 7), (0, 9), (90, 7)))) == pytest.approx(1.0)


def test_a_copy_to_the_opposite_side_has_its_own_ids_and_no_fault() -> None:
    property_ = coopers_rise().property
    face = property_.faces[0]
    parts = mirrored(face, property_.zones_of(face.id), property_.items_of(face.id))
    new, zones, items = copied(parts, lambda kind, old: f"{kind}-{old}", azimuth_deg=(face.azimuth_deg + 180) % 360)
    whole = property_.model_copy(
        update={
            "faces": (*property_.faces, new),
            "zones": (*property_.zones, *zones),
            "items": (*property_.items, *items),
        }
    )
    assert not survey_faults(type(whole).model_validate(whole.model_dump()))
    assert new.azimuth_deg == 8
    assert all(z.condition == Condition() for z in zones), "nobody has tested the other wall"
    door, twin = face.openings[0], new.openings[0]
    assert twin.x_m == pytest.approx(face.width_m - door.x_m - door.width_m)


def test_damage_is_mirrored_with_its_wall_and_comes_back() -> None:
    """10 m are 40 squares: what lies in the three leftmost comes to lie in the three rightmost."""
    mark = Mark(damage=Damage.PEELING, runs=((0, 0, 2), (3, 10, 19)))
    property_ = one_face(WALL, [])
    zone = property_.zones[0].model_copy(update={"condition": Condition(marks=(mark,))})
    turned_face, zones, _ = mirrored(property_.faces[0], (zone,), ())
    assert zones[0].condition.marks[0].runs == ((0, 37, 39), (3, 20, 29))
    assert mirrored(turned_face, zones, ())[1][0].condition.marks == (mark,)


def test_the_wettest_reading_of_the_last_day_counts() -> None:
    day = datetime(2026, 9, 14, 9, tzinfo=UTC)
    values = [(day, 24.0), (day + timedelta(days=2), 13.0), (day + timedelta(days=2, hours=1), 15.5)]
    found = moisture_statistics(tuple(MoistureReading(pct=p, at=at) for at, p in values), UTC)
    assert found is not None
    assert (found.count, found.judged, found.least, found.most) == (3, 15.5, 13.0, 24.0)
    assert found.mean == pytest.approx((24 + 13 + 15.5) / 3)
    assert moisture_statistics((), UTC) is None


# Where, and the hours of one local evening there (UTC). The wet reading comes first, and UTC's midnight between them.
EVENINGS = [
    ("America/Halifax", "2026-09-14T22:10", "2026-09-15T00:20"),
    ("America/St_Johns", "2026-09-14T22:00", "2026-09-15T01:00"),
    ("Asia/Kolkata", "2026-09-14T18:40", "2026-09-15T02:00"),
]


@pytest.mark.parametrize(("zone", "wet", "dry"), EVENINGS)
def test_readings_of_one_local_day_belong_together(zone: str, wet: str, dry: str) -> None:
    readings = tuple(
        MoistureReading(pct=pct, at=datetime.fromisoformat(f"{at}+00:00")) for pct, at in ((21.0, wet), (12.0, dry))
    )
    found = moisture_statistics(readings, ZoneInfo(zone))
    assert found is not None and found.judged == 21.0


def test_a_reading_after_local_midnight_is_of_the_next_day() -> None:
    """23:40 and 00:10 in Kolkata are one day in UTC and two on the wall."""
    times = ((25.0, "2026-09-14T18:10"), (13.0, "2026-09-14T18:40"))
    readings = tuple(MoistureReading(pct=pct, at=datetime.fromisoformat(f"{at}+00:00")) for pct, at in times)
    found = moisture_statistics(readings, ZoneInfo("Asia/Kolkata"))
    assert found is not None and found.judged == 13.0


# °C, % RH, % of dry mass: Wood Handbook, table 4-2
EMC = [(21.1, 50, 9.2), (21.1, 65, 12.0), (21.1, 80, 16.0), (4.4, 90, 21.0), (37.8, 30, 5.8)]


@pytest.mark.parametrize(("air", "rh", "pct"), EMC)
def test_wood_comes_to_the_moisture_of_the_wood_handbook(air: float, rh: float, pct: float) -> None:
    assert float(equilibrium_moisture(air, rh)) == pytest.approx(pct, abs=0.15)


def test_marked_squares_count_inside_the_zone_and_beside_its_openings() -> None:
    # 2 × 2 m from the lower left
    mark = Mark(damage=Damage.PEELING, runs=tuple((row, 0, 7) for row in range(8)))
    zones = [{"id": "base", "area": {"kind": "band", "from_m": 0, "to_m": 1}}]
    property_ = one_face(WALL, [opening("w", 1, 1.2, 1, 0.5)], zones)
    face, base = property_.faces[0], property_.zones[0]
    base = base.model_copy(update={"condition": Condition(marks=(mark,))})
    there = marked_extents(face, (base, property_.zones[1]), base, plan_m2=10.0)
    assert there[Damage.PEELING].area_m2 == pytest.approx(2 * 1)
    assert there[Damage.PEELING].pct == pytest.approx(20)
    field = property_.zones[1].model_copy(update={"condition": Condition(marks=(mark,))})
    above = marked_extents(face, (property_.zones[0], field), field, plan_m2=50.0)
    assert above[Damage.PEELING].area_m2 == pytest.approx(2 * 1 - 1 * 0.5)
    assert CELL_M == 0.25


def test_a_zero_counts_as_a_reading_only_when_the_test_was_made() -> None:
    zone = Zone(id="z", name="Z", face="f", substrate="wood-lap", area={"kind": "face"}, colour_now="#ffffff")
    codes = {t.code for t in open_tests(zone)}
    assert codes == {"coating", "scrape", "rub", "sheen", "bleach", "meter"}
    made = {"coating": "oil", "chalking": "none", "gloss": "dull", "tests": [{"test": "scrape"}, {"test": "bleach"}]}
    seen = Condition.model_validate(made)
    done = zone.model_copy(update={"condition": seen.model_copy(update={"moisture": (MoistureReading(pct=12),)})})
    assert open_tests(done) == []
    brick = zone.model_copy(update={"substrate": "brick"})
    assert {t.code for t in open_tests(brick)} == {"coating", "scrape", "rub", "sheen", "bleach", "finger"}


def test_what_is_missing_is_told_by_the_stage_that_needs_it() -> None:
    bundle = coopers_rise()
    bare = bundle.property.model_copy(update={"zones": bundle.property.zones[1:], "items": (), "year_built": None})
    # The street front keeps its trim zone; without that nothing is named there.
    bare = bare.model_copy(update={"zones": tuple(z for z in bare.zones if z.face != "front")})
    told = {(m.stage, m.id) for m in missing_essentials(bundle.model_copy(update={"property": bare}))}
    assert {("quantities", "front"), ("specification", "")} <= told
    assert ("weather", "front") in told
    assert ("weather", "west-gable") not in told, "its horizon was typed"


def test_the_lap_goes_clockwise_round_each_building() -> None:
    bundle = coopers_rise()
    assert [f.id for f in lap(bundle.property)][:4] == ["front", "west-gable", "wing-west", "back"]
    walk = stops(bundle)
    assert (walk[0].place, walk[-1].place) == ("start", "end")
    assert len(walk) == len(bundle.property.faces) + 2
    openings = next(s for s in walk[1].steps if s.code == "openings")
    assert openings.settled
    assert openings.found == "6 openings"
