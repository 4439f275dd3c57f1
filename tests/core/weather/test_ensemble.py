"""Members drawn around a forecast: as wide as the books say, wet as often as they were told, the same every time."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from amber_gable.core.weather.futures.ensemble import draw_members, seed_of, spread
from amber_gable.core.weather.futures.members import Coat, odds
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.steps import shades
from amber_gable.core.weather.wall.surface import FaceSurface, surface_climate
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import BOUNDS, COLUMNS, WeatherSeries
from amber_gable.domain.work.working import Policy
from tests.weather_cases import FULL_DAY, NORTH, SOUTH, real_year, steady, utc

FIRST = utc("2026-06-08")
PLACE = Place(45.25, -62.1, 0.0, FIRST.tzinfo)  # type: ignore[arg-type]
LEADS = (6, 24, 120, 240)


def _drawn(series: WeatherSeries, count: int = 400) -> list[WeatherSeries]:
    return draw_members(series, count, 7, int(FIRST.timestamp()))


def test_errors_grow_as_the_physics_says() -> None:
    """0.7 K at six hours and 3.5 K at ten days; fronts an hour at twelve, six hours at five days."""
    assert spread("state", np.array([0.0, 6.0, 240.0])) == pytest.approx([0.0, 0.7, 3.5])
    assert spread("timing", np.array([12.0, 120.0])) == pytest.approx([1.0, 6.0])
    mild = steady(FIRST, 300, rh_pct=40.0)
    air = np.stack([m.air_c for m in _drawn(mild)[1:]]) - mild.air_c
    found = air.std(axis=0)
    assert found[0] == 0.0, "an analysis does not err"
    assert found[list(LEADS)] == pytest.approx(spread("state", np.array(LEADS)), rel=0.15)
    assert abs(air[:, 240].mean()) < 0.5
    hour_by_hour = np.corrcoef(air[:, 200], air[:, 201])[0, 1]
    assert hour_by_hour > 0.85, "what is too warm now is too warm in an hour"


@pytest.mark.parametrize("chance", [5.0, 35.0, 90.0])
def test_it_rains_in_as_many_members_as_the_chance_says_and_in_spells(chance: float) -> None:
    told = replace(steady(FIRST, 240), rain_pct=np.full(240, chance), rain_mm=np.full(240, 0.0))
    wet = np.stack([m.rain_mm >= 0.1 for m in _drawn(told)[1:] if m.rain_mm is not None])
    assert wet.mean() == pytest.approx(chance / 100, abs=0.02)
    if chance == 35.0:
        assert wet[:, 1:][wet[:, :-1]].mean() > 0.6, "an hour of rain is followed by another"


def test_a_front_without_a_chance_comes_earlier_or_later_and_sometimes_not() -> None:
    depth = np.zeros(240)
    depth[120:126] = 2.0
    members = _drawn(steady(FIRST, 240), 2)
    told = replace(steady(FIRST, 240), rain_mm=depth)
    rains = [m.rain_mm for m in _drawn(told)[1:] if m.rain_mm is not None]
    first = np.array([np.flatnonzero(r[90:160] >= 0.1)[0] + 90 for r in rains if (r[90:160] >= 0.1).any()])
    assert 3.5 < first.std() < 8.0
    assert 100 < first.mean() < 128
    assert len(first) < len(rains), "a few see nothing of it"
    assert members[1].rain_mm is not None and members[1].rain_mm.sum() == 0.0, "a dry forecast stays dry"


def test_what_nobody_knows_no_member_knows_and_the_first_is_the_forecast() -> None:
    rain = np.zeros(120)
    rain[50:60] = np.nan
    told = replace(steady(FIRST, 120), rain_mm=rain)
    for member in _drawn(told, 20):
        assert member.rain_mm is not None
        assert np.isnan(member.rain_mm).nonzero()[0].tolist() == list(range(50, 60))
    first = _drawn(steady(FIRST, 120), 3)[0]
    for name in COLUMNS:
        assert np.array_equal(getattr(first, name), getattr(steady(FIRST, 120), name)) or getattr(first, name) is None


def test_gusts_of_a_member_go_with_its_wind() -> None:
    gusts = np.linspace(9.0, 20.0, 120)
    for member in _drawn(replace(steady(FIRST, 120, wind_ms=6.0), gust_ms=gusts), 20):
        assert member.gust_ms == pytest.approx(gusts * member.wind_ms / 6.0)


def test_members_of_a_real_year_are_weather_that_can_be() -> None:
    year = real_year()
    week = replace(year.take(np.arange(3000, 3000 + 15 * 24), year.start), typical_year=False)
    for member in draw_members(week, 30, 1, week.start):
        for name in COLUMNS:
            column = getattr(member, name)
            assert (column is None) == (getattr(week, name) is None), name
            if column is not None:
                low, high = BOUNDS[name]
                assert np.nanmin(column) >= low - 1e-9 and np.nanmax(column) <= high + 1e-9, name


def test_the_seed_is_that_of_the_place_and_the_issue() -> None:
    series = replace(steady(FIRST, 48), latitude=45.25, longitude=-62.1, issued=int(FIRST.timestamp()))
    assert seed_of(series, 0) == seed_of(series, 99)
    assert seed_of(series, 0) != seed_of(replace(series, issued=int(FIRST.timestamp()) + 3600), 0)
    one, again = (draw_members(series, 5, seed_of(series, 0)) for _ in range(2))
    assert all(np.array_equal(a.air_c, b.air_c) for a, b in zip(one, again, strict=True))
    assert not np.array_equal(one[1].air_c, draw_members(series, 5, 1)[1].air_c)


def test_colours_are_spread_over_their_band_and_the_first_member_takes_the_likely() -> None:
    assert np.isnan(shades(4)[0]) and shades(4)[1:].tolist() == [0.5, 0.25, 0.75]
    face = FaceSurface(SOUTH, 90.0, substrate("wood-lap"), 0.7, absorptance_band=(0.5, 0.8))
    still = replace(steady(FIRST, 72, cloud=0.0), issued=int(FIRST.timestamp()) + 72 * 3600)
    steps = place_weather(PLACE, draw_members(still, 40, 1), FIRST, 2).steps
    peaks = surface_climate(steps, (face,)).surface[0].max(axis=1)
    alone = surface_climate(steps, (replace(face, absorptance_band=None),)).surface[0].max(axis=1)
    assert np.ptp(alone) == 0.0, "the weather itself is the same in all"
    assert peaks[0] == alone[0]
    assert peaks.min() < alone[0] - 2 and peaks.max() > alone[0] + 1


def test_a_sure_day_is_sure_and_a_doubtful_one_is_neither() -> None:
    """Mild and dry for the whole week; then four degrees over the least air temperature, five days ahead."""
    face = FaceSurface(NORTH, 90.0, substrate("vinyl-siding"), 0.4)
    coat = Coat(face, generic_product("exterior-acrylic-standard"), Method.BRUSH)
    chances = []
    for air in (21.0, 12.5, 4.0):
        # Dark clouds all the while, so that it is the air that decides.
        base = steady(FIRST, 240, air_c=air, rh_pct=40.0)
        weather = place_weather(PLACE, _drawn(base, 60), FIRST, 6)
        (found,) = odds(weather, [coat], Policy(), FULL_DAY)
        fifth_noon = int(np.flatnonzero(weather.slots.hours == 16)[4])
        chances.append(float(found.share[fifth_noon]))
        early, half, late = found.rain_ready_at[:, fifth_noon]
        assert early <= half <= late
    assert chances[0] > 0.95 and 0.2 < chances[1] < 0.95 and chances[2] < 0.05


def test_one_member_is_the_forecast_itself() -> None:
    base = steady(FIRST, 240, air_c=14.0)
    face = FaceSurface(NORTH, 90.0, substrate("brick"), 0.6)
    product = generic_product("exterior-acrylic-standard")
    one = place_weather(PLACE, draw_members(base, 1, 5), FIRST + timedelta(days=1), 3)
    plain = place_weather(PLACE, base, FIRST + timedelta(days=1), 3)
    windows = surfaces_through(plain, [face])[0].coat(product, Method.BRUSH, Policy(), FULL_DAY)
    (found,) = odds(one, [Coat(face, product, Method.BRUSH)], Policy(), FULL_DAY)
    assert np.array_equal(found.share == 1.0, windows.ok[0])


def test_a_sources_own_futures_are_used_and_only_what_they_leave_out_is_drawn() -> None:
    hours = 96
    issued = int(FIRST.timestamp()) + 24 * 3600
    futures = {
        "air_c": np.array([np.full(hours, 5.0), np.full(hours, 9.0)]),
        "rain_mm": np.array([np.zeros(hours), np.full(hours, 2.0)]),
    }
    told = replace(steady(FIRST, hours, rain_pct=50.0), ensemble=futures, issued=issued)
    members = draw_members(told, 7, 3)
    assert (members[0].air_c == 20).all(), "the first is the forecast itself"
    assert [m.air_c[50] for m in members[1:]] == [5, 9, 5, 9, 5, 9], "taken in turn"
    for member in members[1:]:
        assert member.air_c[:24] == pytest.approx(20.0), "what is over is known"
        assert member.rain_pct is not None and member.rain_mm is not None
        assert member.rain_pct[50] == (100 if member.air_c[50] == 9 else 0), "it rains or it does not"
    winds = [m.wind_ms[60] for m in members[1:]]
    assert len(set(np.round(winds, 6))) == 6, "the wind, which the source leaves out, is drawn"
    later = told.take(np.arange(30, 60), told.start + 30 * 3600)
    assert later.ensemble is not None and later.ensemble["air_c"].shape == (2, 30)
