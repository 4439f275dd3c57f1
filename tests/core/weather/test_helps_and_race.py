"""What would help, by doing it; and a coat that races the rain."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.film.race import race
from amber_gable.core.weather.futures.ensemble import draw_members
from amber_gable.core.weather.futures.members import Coat
from amber_gable.core.weather.judged.helps import Help, helps
from amber_gable.core.weather.judged.windows import film_windows
from amber_gable.core.weather.judged.wiped import wiped_start
from amber_gable.core.weather.wall.slot_climate import Place, PlaceWeather, place_weather
from amber_gable.core.weather.wall.surface import Climate, FaceSurface, surface_climate
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import Policy
from tests.weather_cases import FULL_DAY, NORTH, SOUTH, WEST, clear_days, steady, utc

FIRST = utc("2026-06-08")
PLACE = Place(45.25, -62.1, 0.0, FIRST.tzinfo)  # type: ignore[arg-type]
ACRYLIC = generic_product("exterior-acrylic-standard")


def _asked(series: WeatherSeries, code: str, azimuth: float, days: int = 6, **more: object) -> dict[str, Help]:
    weather: PlaceWeather = place_weather(PLACE, series, FIRST + timedelta(days=1), days)
    coat = Coat(FaceSurface(azimuth, 90.0, substrate(code), 0.5), ACRYLIC, Method.AIRLESS)
    found = helps(weather, coat, Policy(), FULL_DAY, days=days // 2, **more)  # type: ignore[arg-type]
    gains = [h.gained for h in found if h.kind not in ("wait", "product")]
    assert gains == sorted(gains, reverse=True) and all(h.gained > 0 for h in found if h.kind != "wait")
    return {h.kind if h.kind != "face" else h.words: h for h in found}


def test_cold_is_helped_by_another_product_by_heat_and_by_nothing_else() -> None:
    products = [generic_product(c) for c in ("exterior-acrylic-low-temperature", "exterior-acrylic-standard")]
    found = _asked(steady(FIRST, 240, air_c=6.0), "fibre-cement-lap", NORTH, products=products)
    assert list(found) == ["product", "heated tent"], "another tin before a heater that gains somewhat more"
    assert found["product"].gained > found["heated tent"].gained / 2
    assert "low-temperature" in found["product"].words and found["product"].gained > 20


def test_rain_is_helped_by_a_sheet_and_wind_at_the_gun_by_a_brush() -> None:
    wet = replace(steady(FIRST, 240), rain_mm=np.full(240, 0.6))
    assert {"tent", "heated tent"} == set(_asked(wet, "vinyl-siding", NORTH))
    windy = _asked(steady(FIRST, 240, wind_ms=8.0), "vinyl-siding", NORTH, methods=list(Method))
    assert {"method", "tent"} <= set(windy)


def test_sun_is_helped_by_cloth_and_by_another_face() -> None:
    hot = clear_days((45.25, -62.1, 0.0), FIRST, 10, mean_c=24.0, dew_c=8.0)
    shaded = FaceSurface(NORTH, 90.0, substrate("vinyl-siding"), 0.5)
    found = _asked(hot, "vinyl-siding", WEST, faces=[("North gable", shaded)])
    assert found["shade"].gained > 5
    assert found["North gable first"].gained > 1


@pytest.mark.parametrize(("code", "helped"), [("metal-door", True), ("aluminium-siding", False)])
def test_dew_on_a_door_is_helped_by_a_towel(code: str, helped: bool) -> None:
    dewy = clear_days((45.25, -62.1, 0.0), FIRST, 10, mean_c=14.0, dew_c=10.5)
    assert ("towel" in _asked(dewy, code, NORTH)) is helped


@pytest.mark.parametrize(
    ("code", "dew_c", "wiped"),
    [("metal-door", 10.5, True), ("aluminium-siding", 10.5, False), ("metal-door", 1.0, False)],
)
def test_a_dewy_door_that_is_wiped_begins_earlier(code: str, dew_c: float, wiped: bool) -> None:
    """Dew that the morning's sun never reaches stands on it for hours; wiped at seven, the film of damp that is left is
    gone half an hour later. A wall is not wiped, and a dry morning has nothing to wipe."""
    series = clear_days((45.25, -62.1, 0.0), FIRST, 10, mean_c=14.0, dew_c=dew_c)
    weather = place_weather(PLACE, series, FIRST + timedelta(days=1), 6)
    coat = Coat(FaceSurface(NORTH, 90.0, substrate(code), 0.5), ACRYLIC, Method.BRUSH)
    climate = surface_climate(weather.steps, (coat.surface,))
    ok = film_windows(climate, weather.slots, ACRYLIC, Method.BRUSH, Policy(), FULL_DAY).ok[0]
    found = wiped_start(weather.steps, weather.slots, coat, Policy(), FULL_DAY, 2, ok)
    assert (found is not None) is wiped
    if found is not None:
        assert found.at.hour == 7 and found.then >= found.at + timedelta(minutes=30)
        assert found.gain is None or found.gain > timedelta(0)
        later = wiped_start(
            weather.steps, weather.slots, coat, Policy(), FULL_DAY, 2, ok, ready=found.then.timestamp() + 7200
        )
        assert later is None or later.then >= found.then + timedelta(hours=2), "not before the part is ready"


def test_waiting_is_told_where_the_next_days_are_better() -> None:
    air = np.where(np.arange(240) < 100, 5.0, 18.0)
    found = _asked(replace(steady(FIRST, 240), air_c=air), "vinyl-siding", NORTH)
    assert found["wait"].hours > 20


def _wall(series: WeatherSeries, azimuth: float = SOUTH) -> Climate:
    weather = place_weather(PLACE, series, FIRST, 4)
    return surface_climate(weather.steps, (FaceSurface(azimuth, 90.0, substrate("vinyl-siding"), 0.0),))


def _shower(at_h: int, hours: int = 1) -> WeatherSeries:
    base = steady(FIRST, 120, air_c=25.0, wind_ms=6.0, wind_from_deg=SOUTH)
    rain = np.zeros(120)
    rain[at_h : at_h + hours] = 3.0
    return replace(base, rain_mm=rain)


def test_the_last_stroke_is_rain_ready_when_the_shower_comes() -> None:
    """Rain at 18 h; a stroke takes the time that one laid at noon takes, so nothing laid later than that is dry."""
    climate, begins = _wall(_shower(36 + 6)), FIRST.timestamp() + 34 * 3600
    found = race(climate, ACRYLIC, begins, takes_h=8.0)
    assert found.last_stroke is not None
    left_h = (FIRST.timestamp() + 42 * 3600 - found.last_stroke) / 3600
    assert 1.0 < left_h <= DryingStage.RAIN_READY.hours(ACRYLIC)
    laid_h = (found.last_stroke - begins) / 3600
    assert found.wet_share[0] == pytest.approx((8.0 - laid_h) / 8.0, abs=0.05)
    assert found.rain_at[0] == FIRST.timestamp() + 42 * 3600
    assert found.unhurt == 0.0 and not found.worth_it
    short = race(climate, ACRYLIC, begins, takes_h=laid_h - 0.25)
    assert short.worth_it and short.unhurt == 1.0 and short.wet_share == (0.0, 0.0)


def test_the_lee_face_wins_its_race_and_a_coat_begun_in_the_rain_has_lost() -> None:
    begins = FIRST.timestamp() + 34 * 3600
    assert race(_wall(_shower(42), NORTH), ACRYLIC, begins, takes_h=8.0).worth_it
    lost = race(_wall(_shower(34, 3)), ACRYLIC, begins + 1800, takes_h=1.0)
    assert lost.last_stroke is None and lost.wet_share[0] == 1.0


def test_the_surer_one_wants_to_be_the_earlier_one_stops() -> None:
    told = replace(_shower(54, 3), issued=int(FIRST.timestamp()))
    weather = place_weather(PLACE, draw_members(told, 60, 3, int(FIRST.timestamp())), FIRST, 4)
    face = FaceSurface(SOUTH, 90.0, substrate("vinyl-siding"), 0.0)
    climate, begins = surface_climate(weather.steps, (face,)), FIRST.timestamp() + 44 * 3600
    stops = [race(climate, ACRYLIC, begins, 10.0, sure).last_stroke or begins for sure in (0.9, 0.7, 0.4)]
    assert stops[0] <= stops[1] <= stops[2] and stops[0] < stops[2]
    found = race(climate, ACRYLIC, begins, 10.0)
    assert 0 <= found.wet_share[0] <= found.wet_share[1] <= 1
    assert found.rain_at[1] <= found.rain_at[0]
