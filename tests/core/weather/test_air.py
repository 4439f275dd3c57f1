"""Moist air against an independent psychrometric package."""

import numpy as np
import pytest

from amber_gable.core.weather.outdoors.air import (
    dew_point,
    frost_point,
    saturation_over_face,
    saturation_pressure,
    vapour_density,
    vapour_pressure,
)
from tests.psychrometry import psychrolib


@pytest.mark.parametrize("air_c", range(0, 46, 5))
def test_dew_point_is_within_a_tenth_of_an_independent_package(air_c: int) -> None:
    for rh in range(10, 101, 5):
        ours = float(dew_point(vapour_pressure(air_c, rh)))
        theirs = psychrolib.GetTDewPointFromRelHum(float(air_c), rh / 100)
        # Below freezing the package goes over to ice; a painter's dew point stays over water.
        if theirs > 0:
            assert ours == pytest.approx(theirs, abs=0.1), (air_c, rh)


def test_dew_point_undoes_saturation_exactly() -> None:
    t = np.linspace(-30, 50, 161)
    assert dew_point(saturation_pressure(t)) == pytest.approx(t, abs=1e-9)


def test_vapour_density_of_saturated_air_at_twenty_degrees() -> None:
    # The tabulated absolute humidity is 17.3 g/m³.
    assert float(vapour_density(saturation_pressure(20.0), 20.0)) == pytest.approx(0.0173, abs=1e-4)


def test_air_without_vapour_still_has_a_number_for_its_dew_point() -> None:
    assert np.isfinite(dew_point(0.0))


@pytest.mark.parametrize(
    ("t_c", "pascal"), [(-5.0, 401.8), (-10.0, 259.9), (-20.0, 103.3), (0.0, 611.2), (10.0, 1228.0)]
)
def test_vapour_over_ice_is_that_of_the_tables(t_c: float, pascal: float) -> None:
    """Goff and Gratch (1946) over ice, over water above freezing; the frost point is its inverse."""
    assert float(saturation_over_face(t_c)) == pytest.approx(pascal, rel=0.002)
    assert float(frost_point(pascal)) == pytest.approx(t_c, abs=0.05)
