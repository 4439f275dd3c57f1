"""Sun on faces: north and south hemispheres, horizons, and light kept in its hour."""

from datetime import UTC, datetime

import numpy as np
import pytest

from amber_gable.core.weather.outdoors import sun
from amber_gable.core.weather.outdoors.light import horizontal_light
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.domain.grid import STEPS_PER_HOUR
from amber_gable.domain.house.exposure import HorizonPoint
from tests.weather_cases import (
    EAST,
    NORTH,
    NORTHERN,
    SOUTH,
    SOUTHERN,
    WEST,
    clear_days,
    climate_of,
    real_year,
    utc,
    walls,
)


def _beam_hours(place: tuple[float, float, float], month: int) -> dict[str, float]:
    series = clear_days(place, utc(f"2026-{month:02d}-10"), 1)
    climate = climate_of(series, place, walls(NORTH, EAST, SOUTH, WEST))
    hours = (climate.poa_direct > 120).sum(axis=1) / STEPS_PER_HOUR
    return dict(zip(("north", "east", "south", "west"), hours.tolist(), strict=True))


@pytest.mark.parametrize(
    ("place", "month", "sunny", "shaded"),
    [
        (NORTHERN, 9, "south", "north"),
        (NORTHERN, 3, "south", "north"),
        (SOUTHERN, 9, "north", "south"),
        (SOUTHERN, 3, "north", "south"),
    ],
)
def test_the_wall_that_looks_to_the_equator_has_the_sun(
    place: tuple[float, float, float], month: int, sunny: str, shaded: str
) -> None:
    hours = _beam_hours(place, month)
    assert hours[sunny] > 8
    assert hours[shaded] < 0.5
    assert hours["east"] == pytest.approx(hours["west"], abs=1.0)


@pytest.mark.parametrize("place", [NORTHERN, SOUTHERN])
def test_east_has_the_sun_before_noon_and_west_after(place: tuple[float, float, float]) -> None:
    climate = climate_of(clear_days(place, utc("2026-09-10"), 1), place, walls(EAST, WEST))
    east, west = (np.average(np.arange(len(b)), weights=b) / STEPS_PER_HOUR for b in climate.poa_direct)
    assert east < 11 < 13 < west


def test_a_high_horizon_takes_the_beam_and_some_sky() -> None:
    series = clear_days(NORTHERN, utc("2026-09-10"), 1)
    steps = to_steps(series, *NORTHERN[:2], 0.0)
    trees = tuple(HorizonPoint(azimuth_deg=a, elevation_deg=60.0) for a in (90, 180, 270))
    light = sun.on_faces(steps.sun, steps.light, np.array([SOUTH, SOUTH]), np.array([90.0, 90.0]), [(), trees])
    assert light.poa_direct[0].max() > 400
    assert light.poa_direct[1].max() == 0
    assert 0.02 < light.open_sky[1] < 0.3 < light.open_sky[0] == 1.0
    assert light.poa_global[1].max() < light.poa_global[0].max() / 2


def test_a_horizon_runs_straight_between_its_points_and_round_the_compass() -> None:
    points = (HorizonPoint(azimuth_deg=350, elevation_deg=10), HorizonPoint(azimuth_deg=10, elevation_deg=20))
    assert sun.horizon_at(points, np.array([350.0, 0.0, 10.0, 355.0])) == pytest.approx([10, 15, 20, 12.5])


def test_light_of_a_file_keeps_its_energy_and_never_falls_at_night() -> None:
    series = stretch(real_year(), utc("2025-06-10").date(), 7)
    steps = to_steps(series, 36.1, -79.95, 273)
    assert series.dni is not None and series.dhi is not None and series.ghi is not None
    up = (steps.sun.elevation.reshape(-1, STEPS_PER_HOUR) > 3).all(axis=1)
    assert up.sum() > 80
    for name, column, within in (("dni", series.dni, 0.01), ("dhi", series.dhi, 0.01), ("ghi", series.ghi, 15.0)):
        hourly = getattr(steps.light, name).reshape(-1, STEPS_PER_HOUR).mean(axis=1)
        assert np.abs(hourly - column)[up].max() < within, name
    assert steps.light.ghi[steps.sun.elevation < 0].max() == 0
    assert (steps.light.dhi <= steps.light.ghi + 1e-9).all()


def test_cloud_dims_the_light_as_kasten_and_czeplak_say() -> None:
    noon = np.array([datetime(2026, 6, 21, 16, tzinfo=UTC).timestamp()])
    position = sun.position(noon, *NORTHERN[:2])
    light = {}
    for cover in (0.0, 0.5, 1.0):
        given = {"air_c": np.full(24, 20.0), "cloud": np.full(24, cover)}
        light[cover] = horizontal_light(given, position, np.array([0]), lambda c: c[:1]).ghi[0]
    assert light[1.0] / light[0.0] == pytest.approx(0.25)
    assert light[0.5] / light[0.0] == pytest.approx(1 - 0.75 * 0.5**3.4)
