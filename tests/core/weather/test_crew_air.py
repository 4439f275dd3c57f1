"""Heat index and wind chill against the tables the weather services publish."""

import numpy as np
import pytest

from amber_gable.core.weather.judged.crew_air import (
    COLD_LEVELS,
    HEAT_LEVELS,
    Strain,
    heat_index,
    in_sun,
    level,
    wind_chill,
)


def _c(fahrenheit: float) -> float:
    return (fahrenheit - 32) / 1.8


@pytest.mark.parametrize(
    ("air_f", "rh", "table_f"),
    # The Service's chart of whole degrees.
    [
        (80, 40, 80),
        (84, 75, 92),
        (90, 70, 105),
        (96, 50, 108),
        (100, 40, 109),
        (88, 95, 117),
        (110, 40, 136),
        (94, 60, 110),
    ],
)
def test_heat_index_is_the_published_chart(air_f: float, rh: float, table_f: float) -> None:
    assert float(heat_index(_c(air_f), rh)) * 1.8 + 32 == pytest.approx(table_f, abs=1.2)


@pytest.mark.parametrize(
    ("air_f", "mph", "table_f"), [(40, 5, 36), (40, 25, 29), (30, 15, 19), (10, 30, -12), (0, 15, -19), (-20, 20, -48)]
)
def test_wind_chill_is_the_published_chart(air_f: float, mph: float, table_f: float) -> None:
    assert float(wind_chill(_c(air_f), mph * 0.44704)) * 1.8 + 32 == pytest.approx(table_f, abs=0.6)


def test_dry_air_feels_cooler_than_it_is_and_calm_or_mild_air_as_it_is() -> None:
    assert float(heat_index(35.0, 10.0)) < 35.0
    assert wind_chill([5.0, 12.0], [1.0, 9.0]).tolist() == [5.0, 12.0]


def test_heat_index_rises_with_warmth_and_damp_without_a_jump() -> None:
    air, rh = np.meshgrid(np.linspace(15, 45, 121), np.linspace(5, 100, 96))
    felt = heat_index(air, rh)
    # Where the two forms meet they differ by up to a degree; nowhere else does a quarter degree more feel cooler.
    assert np.diff(felt, axis=1).min() > -1.0
    assert np.abs(np.diff(felt, axis=1)).max() < 2.5


def test_full_sun_adds_fifteen_fahrenheit_and_no_more() -> None:
    added = in_sun(np.array([30.0, 30.0, 30.0]), np.array([0.0, 450.0, 1100.0])) - 30
    assert added.tolist() == pytest.approx([0, 15 / 3.6, 15 / 1.8])


@pytest.mark.parametrize(
    ("strain", "worst", "name"),
    [
        (Strain.HEAT, 26.0, None), (Strain.HEAT, 27.0, "warm"), (Strain.HEAT, 33.0, "hot"),
        (Strain.HEAT, 40.0, "dangerous heat"), (Strain.HEAT, 52.0, "extreme heat"), (Strain.COLD, 5.0, None),
        (Strain.COLD, 3.0, "cold"), (Strain.COLD, -10.0, "severe cold"), (Strain.COLD, -30.0, "extreme cold"),
    ],
)  # fmt: skip
def test_steps_of_heat_and_cold(strain: Strain, worst: float, name: str | None) -> None:
    found = level(strain, worst)
    assert (found and found.name) == name


def test_worse_steps_lie_further_out() -> None:
    assert [s.limit for s in HEAT_LEVELS] == sorted(s.limit for s in HEAT_LEVELS)
    assert [s.limit for s in COLD_LEVELS] == sorted((s.limit for s in COLD_LEVELS), reverse=True)
