"""Cans that lay out over night: how long they take to warm, and when that matters."""

import pytest

from amber_gable.core.weather.judged.can_care import can_time_h, cold_night, warming_h


def test_a_gallon_warms_in_hours_and_a_pail_over_night() -> None:
    """A gallon can: 5.54 × 0.003785^⅔ = 0.1346 m² of skin, 14 383 J/K over 1.077 W/K: 3.71 h. Larger by V^⅓."""
    assert can_time_h(3.785) == pytest.approx(3.71, abs=0.02)
    assert can_time_h(18.927) / can_time_h(3.785) == pytest.approx(5.0 ** (1 / 3), rel=0.01)
    # From 2 to 10 °C in a room of 20: ln(18 / 10) = 0.588 time constants.
    assert warming_h(3.785, 2.0, 10.0) == pytest.approx(2.18, abs=0.02)
    assert warming_h(3.785, 12.0, 10.0) == 0.0


@pytest.mark.parametrize(("low", "asks", "freezes"), [(12.0, False, False), (4.0, True, False), (-1.0, True, True)])
def test_a_night_matters_where_the_paint_would_be_too_cold_to_lay(low: float, asks: bool, freezes: bool) -> None:
    night = cold_night(low, 10.0, 3.785)
    assert (night is not None) is asks
    assert bool(night is not None and night.freezes) is freezes
