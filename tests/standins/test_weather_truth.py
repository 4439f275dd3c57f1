"""The simulated weather: the same whenever asked, the demo's days as told, forecasts that err more with lead."""

from datetime import datetime, timedelta

import numpy as np
import pytest

from amber_gable.standins.weather.regimes import DEMO_SEED, REGIMES, regime_of
from amber_gable.standins.weather.truth import AHEAD_H, HISTORY_H, forecast, humidity, truth

DEMO = datetime.fromisoformat("2026-09-14T06:30-03:00")
PLACE = (45.25, -62.1)


def _day(day: int) -> dict[str, np.ndarray]:
    hours = truth(DEMO_SEED, *PLACE, datetime.fromisoformat(f"2026-09-{day:02d}T00:00-03:00"), 24)
    return {
        "air": hours.air,
        "rh": humidity(hours.air, hours.dew),
        "rain": hours.rain,
        "wind": hours.wind,
        "cloud": hours.cloud,
    }


def test_the_truth_does_not_depend_on_how_it_is_asked() -> None:
    begin = datetime.fromisoformat("2026-09-10T00:00+00:00")
    whole = truth("seed", *PLACE, begin, 96)
    part = truth("seed", *PLACE, begin + timedelta(hours=30), 20)
    assert part.air == pytest.approx(whole.air[30:50])
    assert not np.allclose(truth("other", *PLACE, begin, 96).air, whole.air)


def test_the_demo_week_is_as_the_scenario_tells() -> None:
    assert _day(14)["rh"][3:8].min() > 95, "fog on Monday"
    assert _day(15)["rain"].sum() == _day(16)["rain"].sum() == 0, "fair Tuesday and Wednesday"
    assert _day(15)["cloud"][9:17].mean() < 0.4
    assert _day(17)["rain"].sum() > 8, "a front on Thursday"
    assert _day(18)["cloud"][20:].max() < 0.4, "clear nights after"
    assert _day(18)["air"].min() < _day(16)["air"].min() - 2
    assert _day(19)["wind"].mean() > 1.8 * _day(15)["wind"].mean(), "drying wind on the weekend"
    for day in range(14, 20):
        assert 0 < _day(day)["air"].min() < _day(day)["air"].max() < 26


@pytest.mark.parametrize(
    ("latitude", "warm", "cold"), [(45.25, "2026-07-20", "2026-01-20"), (-42.9, "2026-01-20", "2026-07-20")]
)
def test_seasons_follow_the_hemisphere(latitude: float, warm: str, cold: str) -> None:
    means = [
        truth("seed", latitude, 0.0, datetime.fromisoformat(f"{d}T00:00+00:00"), 240).air.mean() for d in (warm, cold)
    ]
    assert means[0] > means[1] + 10


@pytest.mark.parametrize("step", [3, pytest.param(1, marks=pytest.mark.long)])
def test_forecasts_err_more_the_further_they_look_and_not_at_all_behind(step: int) -> None:
    errors = []
    for day in range(0, 30, step):
        issued = DEMO + timedelta(days=day)
        hours, _ = forecast("seed", *PLACE, issued)
        real = truth("seed", *PLACE, datetime.fromtimestamp(hours.start, tz=issued.tzinfo), HISTORY_H + AHEAD_H)
        errors.append(hours.air - real.air)
    spread = np.std(errors, axis=0)
    assert spread[:HISTORY_H].max() == 0
    near, far = spread[HISTORY_H + 3 : HISTORY_H + 9].mean(), spread[HISTORY_H + 200 : HISTORY_H + 260].mean()
    assert 0.2 < near < 1.2
    assert 1.5 < far < 4.5


def test_rain_probability_is_high_in_wet_hours_soon_and_fades_with_lead() -> None:
    hours, chance = forecast(DEMO_SEED, *PLACE, DEMO)
    real = truth(DEMO_SEED, *PLACE, datetime.fromtimestamp(hours.start, tz=DEMO.tzinfo), HISTORY_H + AHEAD_H)
    wet = real.rain > 0.1
    lead = np.arange(len(wet)) - HISTORY_H
    soon = (lead > 0) & (lead < 120)
    assert chance[soon & wet].mean() > 40 > 15 > chance[soon & ~wet].mean()
    assert chance.min() >= 0
    assert chance.max() <= 100


def test_every_day_has_a_regime_for_ever() -> None:
    for offset in range(0, 3000, 7):
        assert regime_of((DEMO + timedelta(days=offset)).date(), "seed") in REGIMES.values()
