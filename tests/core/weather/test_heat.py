"""Peak temperatures on the design hot day, and what vinyl and doors bear."""

from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest

from amber_gable.core.climate.part_surface import face_surface
from amber_gable.core.specification.colour import heat
from amber_gable.core.specification.colour.absorptance import solar_absorptance
from amber_gable.core.specification.colour.heat import VINYL_LIMIT_C, design_hot_c, peaks
from amber_gable.core.specification.colour.heat_check import HeatCheck, Wanted, heat_checks
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.surface import FaceSurface, surface_climate
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.work.alert import Alert
from tests.jobs import demo_job

TAUPE, LIGHT_TAUPE, NEAR_BLACK = "#a39b8b", "#b5ad9c", "#1b1d1f"


@pytest.fixture(scope="module")
def quarry_lane() -> JobBundle:
    return demo_job("3-quarry-lane")


def _vinyl(bundle: JobBundle, zone: str, colour: str, school: str = "both", *, safe: bool = False) -> HeatCheck:
    part = painted_parts(bundle.property, bundle.deduction)["zone", zone]
    coat = generic_product("exterior-acrylic-standard").model_copy(
        update={"vinyl_safe": safe, "vinyl_colours": ("#8f887a", NEAR_BLACK)}
    )
    return heat_checks(bundle.property, [Wanted(part, colour, school, coat)])[0]


@pytest.mark.parametrize("zone", ["ql-left-vinyl", "ql-right-vinyl"])
def test_quarry_lane_refuses_near_black_and_takes_the_taupe(quarry_lane: JobBundle, zone: str) -> None:
    dark = _vinyl(quarry_lane, zone, NEAR_BLACK)
    assert dark.level is Alert.STOP
    assert dark.then.surface_c > 73 > VINYL_LIMIT_C
    assert f"{dark.then.surface_c:.0f} °C" in dark.words
    for colour in (TAUPE, LIGHT_TAUPE):
        fine = _vinyl(quarry_lane, zone, colour)
        assert fine.level is Alert.NOTE, fine.words
        assert fine.then.surface_c <= fine.now.surface_c + 0.01


@pytest.mark.parametrize("azimuth", [0.0, 50.0, 140.0, 230.0, 320.0])
def test_no_wind_makes_a_wall_hotter_than_its_design_day(azimuth: float) -> None:
    """The hot day is calm; blowing from the north, as it did, it cooled those that look there."""
    surface = FaceSurface(azimuth, 90.0, substrate("vinyl-siding"), 0.9)
    start = int(datetime(2026, 7, 21, tzinfo=UTC).timestamp())
    steps = to_steps(heat._day(start, 33.0), 45.0, 0.0, 20.0)
    hottest = surface_climate(steps, (surface,)).surface.max()
    for wind in range(0, 360, 45):
        blown = replace(steps, wind=np.full(len(steps), 1.5), wind_from=np.full(len(steps), float(wind)))
        assert surface_climate(blown, (surface,)).surface.max() < hottest


SCHOOLS = [
    # school, colour, rated vinyl-safe, on the east-facing right gable, refused
    ("not-darker", "#8f887a", False, True),
    ("computed", "#9f988b", False, False),
    ("both", "#8f887a", False, True),
    ("rated", "#8f887a", False, True),
    ("rated", "#8f887a", True, False),
    ("rated", "#8f887b", True, True),  # rated, but not in this colour
    ("computed", NEAR_BLACK, True, True),
    ("not-darker", LIGHT_TAUPE, False, False),
    ("rated", LIGHT_TAUPE, False, False),
]


@pytest.mark.parametrize(("school", "colour", "safe", "refused"), SCHOOLS)
def test_the_schools_of_vinyl(quarry_lane: JobBundle, school: str, colour: str, safe: bool, refused: bool) -> None:
    found = _vinyl(quarry_lane, "ql-right-vinyl", colour, school, safe=safe)
    assert (found.level is Alert.STOP) is refused, found.words


MADE = [
    # made in, today's colour, wanted, school, refused. The left gable's taupe peaks at 72 °C, over the limit of 65.
    (TAUPE, LIGHT_TAUPE, TAUPE, "both", False),  # faded: as dark as it was made is borne
    (None, LIGHT_TAUPE, TAUPE, "both", True),  # nobody knows what it bears: only the computed peak speaks
    (LIGHT_TAUPE, TAUPE, TAUPE, "both", True),  # painted darker before: today's colour is no proof
    (None, TAUPE, TAUPE, "computed", True),
    (TAUPE, TAUPE, TAUPE, "computed", False),
]


@pytest.mark.parametrize(("made", "now", "wanted", "school", "refused"), MADE)
def test_only_the_made_colour_proves_what_vinyl_bears(
    quarry_lane: JobBundle, made: str | None, now: str, wanted: str, school: str, refused: bool
) -> None:
    part = painted_parts(quarry_lane.property, quarry_lane.deduction)["zone", "ql-left-vinyl"]
    condition = part.condition.model_copy(update={"made_colour": made})
    zone = part.part.model_copy(update={"condition": condition, "colour_now": now})
    (found,) = heat_checks(quarry_lane.property, [Wanted(replace(part, part=zone), wanted, school)])
    assert (found.level is Alert.STOP) is refused, found.words


def test_a_panel_that_would_soften_is_refused_under_every_school(quarry_lane: JobBundle) -> None:
    """A rating, and a colour no darker than today's, do not keep a panel from softening at 74 °C; only a panel that was
    made in such a colour bears it."""
    rated = _vinyl(quarry_lane, "ql-left-vinyl", NEAR_BLACK, "rated", safe=True)
    assert rated.level is Alert.STOP and "softens" in rated.words
    assert rated.admissible is not None
    part = painted_parts(quarry_lane.property, quarry_lane.deduction)["zone", "ql-left-vinyl"]
    for made, refused in ((None, True), (NEAR_BLACK, False)):
        condition = part.condition.model_copy(update={"made_colour": made})
        black = replace(part, part=part.part.model_copy(update={"condition": condition, "colour_now": NEAR_BLACK}))
        (found,) = heat_checks(quarry_lane.property, [Wanted(black, NEAR_BLACK, "not-darker")])
        assert (found.level is Alert.STOP) is refused, found.words


def test_the_admissible_step_passes_and_is_no_lighter_than_it_must_be(quarry_lane: JobBundle) -> None:
    dark = _vinyl(quarry_lane, "ql-left-vinyl", NEAR_BLACK)
    assert dark.admissible is not None
    there = _vinyl(quarry_lane, "ql-left-vinyl", dark.admissible)
    assert there.level is Alert.NOTE, there.words
    assert there.now.surface_c - there.then.surface_c < 1.5


def test_a_dark_steel_door_is_warned_of(quarry_lane: JobBundle) -> None:
    part = painted_parts(quarry_lane.property, quarry_lane.deduction)["item", "ql-door-1"]
    dark, light = heat_checks(quarry_lane.property, [Wanted(part, "#22302c"), Wanted(part, "#efe9dc")])
    assert dark.level is Alert.CHECK
    assert dark.then.surface_c > 60
    assert light.level is None
    assert light.then.surface_c < light.now.surface_c


def test_peaks_follow_colour_bearing_and_hemisphere(quarry_lane: JobBundle) -> None:
    place = quarry_lane.property
    face = place.faces[0]
    colours = ("#f4f1ea", TAUPE, NEAR_BLACK)
    rows = tuple(
        face_surface(face.model_copy(update={"azimuth_deg": a}), "vinyl-siding", c)
        for a in (0.0, 180.0)
        for c in colours
    )
    north, south = peaks(place, rows)[:3], peaks(place, rows)[3:]
    assert [p.surface_c for p in north] == sorted(p.surface_c for p in north)
    assert all(s.surface_c > n.surface_c + 3 for n, s in zip(north, south, strict=True))
    below = place.model_copy(update={"latitude": -place.latitude})
    for here, there in zip((*north, *south), (*peaks(below, rows)[3:], *peaks(below, rows)[:3]), strict=True):
        assert there.surface_c == pytest.approx(here.surface_c, abs=1.5)
    assert design_hot_c(45.25, 12.0) == pytest.approx(33.06, abs=0.01)
    assert peaks(place, rows, hot_c=20.0)[0].surface_c < north[0].surface_c - 10
    assert solar_absorptance(NEAR_BLACK) > 0.93
