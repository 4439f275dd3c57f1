"""When the night's water leaves a face in the morning."""

from datetime import timedelta, timezone

import numpy as np

from amber_gable.core.weather.futures.ensemble import draw_members
from amber_gable.core.weather.futures.members import Coat, Preparation, odds
from amber_gable.core.weather.wall.dry_off import dry_from
from amber_gable.core.weather.wall.slot_climate import Place, place_weather
from amber_gable.core.weather.wall.surface import FaceSurface, surface_climate
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import OperationKind
from amber_gable.domain.work.working import Policy
from tests.weather_cases import EAST, FULL_DAY, NORTH, NORTHERN, SOUTH, clear_days, steady, utc

FIRST = utc("2026-09-08")
LAP = substrate("wood-lap")


PLACE = Place(NORTHERN[0], NORTHERN[1], 0.0, timezone(timedelta(hours=NORTHERN[2])))


def test_dew_leaves_the_face_the_sun_finds_first_and_a_dry_night_leaves_none() -> None:
    dewy = clear_days(NORTHERN, FIRST, 6, mean_c=12.0, dew_c=7.5)
    weather = place_weather(PLACE, dewy, FIRST + timedelta(days=2), 2)
    faces = tuple(FaceSurface(az, 90.0, LAP, 0.6) for az in (EAST, SOUTH, NORTH))
    east, south, north = dry_from(surface_climate(weather.steps, faces), weather.slots)[:, 1] - weather.slots.start
    assert -np.inf < east < south <= north, "as the sun comes round"
    arid = clear_days(NORTHERN, FIRST, 6, mean_c=12.0, dew_c=-8.0)
    weather = place_weather(PLACE, arid, FIRST + timedelta(days=2), 2)
    assert np.isneginf(dry_from(surface_climate(weather.steps, faces), weather.slots)).all()


def test_rain_all_morning_keeps_a_face_wet_to_its_end() -> None:
    wet = steady(FIRST, 144, rain_mm=1.5, rh_pct=97.0, wind_ms=6.0, wind_from_deg=180.0)
    weather = place_weather(Place(45.0, 0.0, 0.0, FIRST.tzinfo), wet, FIRST + timedelta(days=2), 1)  # type: ignore[arg-type]
    climate = surface_climate(weather.steps, (FaceSurface(SOUTH, 90.0, LAP, 0.6),))
    assert np.isposinf(dry_from(climate, weather.slots)).all()


def test_a_preparation_has_odds_too_and_a_coat_is_damp_in_the_colour_that_lies_there() -> None:
    """Rain in four of ten futures stops a wash in about as many; a wall dries in its old colour, not in the new."""
    place, week = Place(45.0, 0.0, 0.0, FIRST.tzinfo), steady(FIRST, 240, rain_pct=40.0, rh_pct=60.0)  # type: ignore[arg-type]
    weather = place_weather(place, draw_members(week, 40, 3), FIRST + timedelta(days=2), 2)
    face = FaceSurface(SOUTH, 90.0, LAP, 0.9)
    (wash,) = odds(weather, [Preparation(face, OperationKind.WASH)], Policy(), FULL_DAY)
    day = (weather.slots.hours >= 10) & (weather.slots.hours < 16)
    assert 0.3 < wash.share[day].mean() < 0.8
    assert wash.touch_at is None
    assert wash.dry_from.shape == (3, 2)
    coat = Coat(face, generic_product("exterior-acrylic-standard"), Method.BRUSH)
    (laid,) = odds(weather, [coat], Policy(), FULL_DAY)
    assert laid.share[day].mean() <= wash.share[day].mean(), "a coat asks more of the weather than a wash"
    assert laid.recoat_at is not None
