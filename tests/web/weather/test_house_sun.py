"""The house plan with sun: the sun where it is, walls as the lanes say, the shadow on the far side."""

import html
import json
import re
from datetime import datetime
from math import cos, radians, sin, tan

import numpy as np
import pytest
from fastapi.testclient import TestClient

from amber_gable.core.climate.part_surface import face_surface
from amber_gable.core.survey.drawing.house_plan import PlacedWall, house_plan
from amber_gable.core.survey.drawing.shadow import LONGEST_M, block_line, block_shadow, eave_line, eave_shade_m, shadow
from amber_gable.domain.house.exposure import Eave
from amber_gable.domain.house.survey import Block, BlockKind
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.weather.faces.judged_faces import LaneQuestion
from amber_gable.services.weather.told.house_sun import house_sun
from tests.jobs import coopers_rise, one_wall

SUN = "/jobs/coopers-rise/weather/sun"
NOON = datetime.fromisoformat("2026-09-16T13:00-03:00")


@pytest.mark.parametrize(("azimuth", "elevation"), [(180.0, 45.0), (95.0, 30.0), (250.0, 20.0), (0.0, 60.0)])
def test_a_shadow_reaches_away_from_the_sun_by_the_height_over_its_tangent(azimuth: float, elevation: float) -> None:
    walls = house_plan(coopers_rise().property.faces)
    away = np.array([-sin(radians(azimuth)), -cos(radians(azimuth))])
    corners = np.array(shadow(walls, azimuth, elevation))
    ends = np.array([p for w in walls for p in (w.start, w.end, *eave_line(w))])
    highest = max(w.face.top_m for w in walls)
    assert (corners @ -away).max() == pytest.approx((ends @ -away).max()), "nothing on the sun's side"
    beyond = (corners @ away).max() - (ends @ away).max()
    assert 0 < beyond <= highest / tan(radians(elevation)) + 1e-6


def test_no_sun_no_shadow_and_a_low_sun_no_endless_one() -> None:
    walls = house_plan(coopers_rise().property.faces)
    assert shadow(walls, 90.0, -1.0) == [] and shadow([], 180.0, 40.0) == []
    corners = np.array(shadow(walls, 90.0, 0.5))
    assert np.ptp(corners[:, 0]) < LONGEST_M + 30


def _south_wall(overhang_m: float = 0.0) -> PlacedWall:
    """Six metres wide and three high, looking south; seen from before it, it runs from west to east."""
    face = one_wall(width_m=6.0, height_m=3.0).property.faces[0]
    face = face.model_copy(update={"azimuth_deg": 180.0, "overhang_m": overhang_m})
    (wall,) = house_plan((face,))
    assert wall.end[0] - wall.start[0] == pytest.approx(6) and wall.start[1] == pytest.approx(wall.end[1])
    return wall


def test_what_stands_before_a_wall_is_drawn_where_one_sees_it_looking_out() -> None:
    wall = _south_wall()
    tree = Block(kind=BlockKind.TREE, left_m=-5.0, width_m=2.0, distance_m=10.0, height_m=8.0)
    left, right = block_line(wall, tree)
    # Looking out to the south, left is east.
    assert left == pytest.approx((wall.middle[0] + 5, wall.middle[1] - 10))
    assert right == pytest.approx((wall.middle[0] + 3, wall.middle[1] - 10))
    shade = np.array(block_shadow(wall, tree, 180.0, 45.0))
    assert shade[:, 1].max() - shade[:, 1].min() == pytest.approx(8.0), "as long as it is high at 45°, northwards"
    assert block_shadow(wall, tree, 180.0, -1.0) == []


@pytest.mark.parametrize(
    ("overhang", "azimuth", "elevation", "shaded"),
    [
        (0.5, 180.0, 45.0, 0.5),
        (0.5, 180.0, 60.0, 0.5 * tan(radians(60))),
        # From the side the profile angle is steeper: tan 45° / cos 60° = 2.
        (0.5, 240.0, 45.0, 1.0),
        (0.5, 0.0, 45.0, 0.0),
        (0.5, 180.0, -5.0, 0.0),
        (0.5, 180.0, 89.0, 3.0),
        (0.0, 180.0, 45.0, 0.0),
    ],
)
def test_the_shade_of_an_eave_reaches_down_by_the_profile_angle(
    overhang: float, azimuth: float, elevation: float, shaded: float
) -> None:
    assert eave_shade_m(_south_wall(overhang), azimuth, elevation) == pytest.approx(shaded)


def test_an_overhang_shades_the_wall_under_a_high_sun_and_keeps_soft_rain_off_it() -> None:
    face = _south_wall(1.5).face
    surface = face_surface(face, "wood-lap", "#808080")
    assert surface.eave == Eave(1.5, 1.5)
    assert face_surface(_south_wall().face, "wood-lap", "#808080").eave is None


def test_walls_stand_as_the_lanes_say_and_the_sun_is_on_those_it_sees(untouched: Context) -> None:
    view = job_view(untouched, "coopers-rise", waits=True)
    rows = LaneQuestion("coat").rows(view)
    walls, moments = house_sun(view, rows, None, NOON)
    assert len(moments) == 72 and {w.face.id for w in walls} >= {r.face.id for r in rows if r.face.is_wall}
    assert moments[0].elevation < 0 < moments[36].elevation
    highest = max(moments, key=lambda m: m.elevation)
    assert highest.azimuth == pytest.approx(180, abs=4)
    facing = {f.id: f.azimuth_deg for f in view.bundle.property.faces}
    for moment in moments:
        for row, wall in zip(rows, moment.walls, strict=True):
            assert wall.letter == row.letters[row.slot_of(moment.start)]
            turned = abs((facing[wall.face] - moment.azimuth + 180) % 360 - 180)
            assert wall.beam < 20 or turned < 92, "no wall is lit from behind"
    morning = {w.face: w.beam for w in moments[20].walls}
    assert morning["east-gable"] > 100 > morning["west-gable"]


def test_the_page_shows_the_moment_asked_about_and_every_face(visitor: TestClient) -> None:
    page = visitor.get(SUN, params={"product": "coat", "at": "2026-09-16T18:00:00Z"}).text
    moments = json.loads(html.unescape(re.search(r"data-moments>(.*?)</script>", page)[1]))  # type: ignore[index]
    shown = next(m for m in moments if m["title"] == "Wed 16 Sep 15:00")
    assert "Wed 16 Sep 15:00" in page and f">{shown['sky']}<" in page
    assert page.count("data-row=") == shown["of"] == len(shown["walls"])
    # Two walls see it, each from its own side; it is written once.
    assert (
        html.unescape(page).count("<title>No. 16's garage<"),
        html.unescape(page).count(">No. 16's garage</text>"),
    ) == (2, 1)
    lit = next(m for m in moments if m["title"] == "Wed 16 Sep 13:00")
    assert re.fullmatch(r"in the sun, but for 0\.\d m under the eave", lit["walls"]["front"]["on"])
    deck = visitor.get("/jobs/heron-deck/weather/sun").text
    assert "data-row=" in deck, "what is no wall stands in the list"
    assert visitor.get("/jobs/coopers-rise/weather/sun?at=x").status_code == 200
