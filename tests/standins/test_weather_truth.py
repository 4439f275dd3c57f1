"""The simulated weather: the same whenever asked, the demo's days as told, forecasts that err more with lead."""

from datetime import datetime, timedelta
from itertools import product

import numpy as np
import pytest

from amber_gable.standins.weather.regimes import DEMO_SEED, REGIMES, regime_of
from amber_gable.standins.weather.truth import AHEAD_H, HISTORY_H, ensemble, forecast, humidity, truth

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


@pytest.mark.parametrize("step", [5, pytest.param(1, marks=pytest.mark.long)])
def test_the_chance_of_rain_is_kept_what_it_says(step: int) -> None:
    """Of the hours told so many per cent that many are wet, also of those told little."""
    told, wet = [], []
    for day in range(0, 240, step):
        issued = datetime.fromisoformat("2026-04-10T06:00+00:00") + timedelta(days=day)
        hours, chance = forecast("chance", *PLACE, issued)
        real = truth("chance", *PLACE, datetime.fromtimestamp(hours.start, tz=issued.tzinfo), HISTORY_H + AHEAD_H)
        told.append(chance[HISTORY_H + 2 :])
        wet.append(real.rain[HISTORY_H + 2 :] > 0.1)
    chance, happened = np.concatenate(told), np.concatenate(wet)
    assert happened[chance == 0].mean() < 0.004
    for low, high in ((1, 6), (20, 45), (45, 75), (90, 101)):
        here = (chance >= low) & (chance < high)
        assert here.sum() > 60, (low, high)
        # Hours of one front share their fate: the figures of some fifty forecasts scatter by about that much.
        given = chance[here].mean() / 100
        assert happened[here].mean() == pytest.approx(given, abs=0.012 if high < 10 else 0.09), (low, high)


def test_showers_fall_on_warm_afternoons_and_the_sea_wind_turns_the_vane() -> None:
    begin = datetime.fromisoformat("2026-06-01T00:00-03:00")
    hours = truth("breeze", *PLACE, begin, 24 * 90)
    clock = np.arange(24 * 90) % 24
    when = clock[hours.shower > 0]
    assert 10 < len(when) < 120 and np.mean((when >= 11) & (when <= 20)) > 0.9
    fair = np.repeat(
        [regime_of((begin + timedelta(days=d)).date(), "breeze") == REGIMES["fair"] for d in range(90)], 24
    )
    from_sea = np.cos(np.radians(hours.wind_from - 150))
    noon, night = from_sea[fair & (clock == 14)].mean(), from_sea[fair & (clock == 3)].mean()
    assert noon > night + 0.4


def test_every_day_has_a_regime_for_ever() -> None:
    for offset in range(0, 3000, 7):
        assert regime_of((DEMO + timedelta(days=offset)).date(), "seed") in REGIMES.values()


def test_the_services_own_futures_lie_about_the_forecast_as_far_as_the_weather_does() -> None:
    """Held against the truth over some weeks, what comes is as far from the middle as the futures are."""
    apart, off = [], []
    for seed, day in product(("inland", "shore", "upland", "valley"), range(0, 60, 12)):
        issued = DEMO + timedelta(days=day)
        hours, _ = forecast(seed, *PLACE, issued)
        real = truth(seed, *PLACE, datetime.fromtimestamp(hours.start, tz=issued.tzinfo), HISTORY_H + AHEAD_H)
        futures = np.array([m.air for m in ensemble(seed, *PLACE, issued, 8)])
        assert np.allclose(futures[:, :HISTORY_H], real.air[:HISTORY_H]), "what is over is known"
        apart.append(futures.var(axis=0, ddof=1))
        off.append(np.square(hours.air - real.air))
    far = slice(HISTORY_H + 48, None)
    spread, error = (np.sqrt(np.mean(squares, axis=0)[far].mean()) for squares in (apart, off))
    assert spread == pytest.approx(error, rel=0.1)
