"""Stage clocks: the data sheet at its own climate, and the known ways in which weather moves them."""

from datetime import UTC, datetime

import numpy as np
import pytest

from amber_gable.core.weather.film.drying import (
    OXIDATION_J_MOL,
    RATE_MAX,
    DryingStage,
    alkyd_humidity_brake,
    arrhenius,
    clocks,
    evaporation_rate,
    reached,
    stage_rates,
    thickness_factor,
)
from amber_gable.core.weather.wall.balance import CONVECTION_FLOOR
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.surface import FaceSurface, forced_convection, surface_climate
from amber_gable.domain.grid import SLOT_S, STEPS_PER_HOUR
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS, generic_product
from amber_gable.domain.paint.product import Base, Product
from amber_gable.domain.work.working import Policy
from tests.weather_cases import (
    NORTH,
    NORTHERN,
    SOUTH,
    clear_days,
    climate_of,
    day_slots,
    real_year,
    steady,
    utc,
    walls,
    windows_of,
)

REFERENCE_H = forced_convection(1.0) + CONVECTION_FLOOR


def test_the_evaporation_clock_runs_at_one_in_the_reference_climate() -> None:
    rate = evaporation_rate(np.array([25.0]), np.array([0.5 * 3161.0]), np.array([REFERENCE_H]))
    assert rate[0] == pytest.approx(1.0, abs=0.01)


@pytest.mark.parametrize(
    ("surface", "vapour", "convection", "expected"),
    [(10.0, 1400.0, 5.0, 0.0), (60.0, 500.0, 20.0, RATE_MAX)],
    ids=["dew stops it", "heat cannot run it away"],
)
def test_the_evaporation_clock_is_kept_between_nothing_and_three(
    surface: float, vapour: float, convection: float, expected: float
) -> None:
    assert evaporation_rate(np.array([surface]), np.array([vapour]), np.array([convection]))[0] == expected


def test_alkyd_runs_at_about_half_for_ten_degrees_less_and_brakes_in_damp_air() -> None:
    assert arrhenius(15.0, OXIDATION_J_MOL) / arrhenius(25.0, OXIDATION_J_MOL) == pytest.approx(0.46, abs=0.03)
    assert alkyd_humidity_brake(np.array([40.0, 60.0, 80.0, 100.0])) == pytest.approx([1, 1, 0.75, 0.5])


@pytest.mark.parametrize("code", sorted(GENERIC_PRODUCTS))
def test_stages_come_in_order_for_every_product(code: str) -> None:
    product = generic_product(code)
    climate = climate_of(steady(utc("2026-06-10"), 240), NORTHERN, walls(NORTH))
    rates = stage_rates(climate, product)
    laid = np.array([60, 120])
    touch, rain, recoat, close, foot, furniture = (reached(rates.clock(s), laid, s.hours(product)) for s in DryingStage)
    assert (close > touch).all()
    assert np.isfinite(foot).all() == (product.foot_h is not None)
    if product.foot_h is not None:
        assert (foot >= recoat).all() and (furniture > foot).all()
    assert np.isfinite(touch).all()
    assert (touch > laid).all()
    assert (rain >= touch).all()
    assert (recoat >= touch).all()


THICKER = [
    # product, times its sheet's film, times as long: 105 µm wet as it should be, 600 µm as it should be
    ("exterior-acrylic-standard", 1.0, 1.0),
    ("exterior-acrylic-standard", 1.3, 1.3),
    ("elastomeric-wall", 1.3, 1.69),
]


@pytest.mark.parametrize(("code", "laid", "times"), THICKER)
def test_a_thick_film_waits_for_itself(code: str, laid: float, times: float) -> None:
    product = generic_product(code)
    assert thickness_factor(product, laid) == pytest.approx(times, rel=0.01)
    assert DryingStage.RECOAT.hours(product, laid) == pytest.approx(product.recoat_h * times, rel=0.01)


def test_cement_hardens_neither_in_the_cold_nor_well_where_it_dries_out() -> None:
    wash = generic_product("smooth-masonry-paint").model_copy(update={"base": Base.CEMENT})
    rates = {}
    for name, weather in {
        "mild": {"air_c": 15.0, "rh_pct": 85.0},
        "cold": {"air_c": 3.0, "rh_pct": 85.0},
        "parched": {"air_c": 15.0, "rh_pct": 20.0, "wind_ms": 8.0},
    }.items():
        climate = climate_of(steady(utc("2026-04-10"), 72, **weather), NORTHERN, walls(NORTH, absorptance=0.0))
        rates[name] = stage_rates(climate, wash).through[0, -1]
    assert rates["cold"] == 0.0 and rates["parched"] < 0.7 * rates["mild"]


def test_a_constant_rate_gives_the_plain_quotient() -> None:
    rate = np.full((1, 600), 0.5)
    at = reached(clocks(rate), np.array([0, 7, 590]), 3.0)
    assert at[0, :2] == pytest.approx([6 * STEPS_PER_HOUR, 7 + 6 * STEPS_PER_HOUR])
    assert np.isinf(at[0, 2]), "the weather ends before the film is ready"


def test_no_film_forms_below_the_minimum() -> None:
    climate = climate_of(steady(utc("2026-01-10"), 96, air_c=5.0), NORTHERN, walls(NORTH))
    rates = stage_rates(climate, generic_product("exterior-acrylic-standard"))
    assert rates.through.max() == 0
    low = stage_rates(climate, generic_product("exterior-acrylic-low-temperature"))
    assert low.through.min() > 0


def test_a_later_coat_is_never_ready_earlier() -> None:
    climate = climate_of(clear_days(NORTHERN, utc("2026-09-10"), 5), NORTHERN, walls(NORTH))
    rates = stage_rates(climate, generic_product("exterior-acrylic-standard"))
    at = reached(clocks(rates.through), np.arange(0, 400), 4.0)
    assert (np.diff(at[0]) >= -1e-9).all()


def test_a_noon_coat_on_a_north_wall_is_ready_in_hours_in_july_and_much_later_in_late_autumn() -> None:
    """By the film alone about 2 h and 18 h, known from a first prototype on another typical year; its sheet says 4."""
    from amber_gable.core.weather.outdoors.typical import stretch

    hours = {}
    for month in (7, 11):
        series = stretch(real_year(), utc(f"2025-{month:02d}-10").date(), 5)
        climate = climate_of(series, (36.1, -79.95, -5.0), walls(NORTH))
        slots = day_slots(climate.steps, utc(f"2025-{month:02d}-10"), 5, -5.0)
        windows = windows_of(climate, slots)
        assert windows.rain_ready_at is not None
        noon = np.flatnonzero(slots.hours == 12)
        ends = slots.start + SLOT_S * (noon + 1)
        hours[month] = float(np.median(windows.rain_ready_at[0][noon] - ends) / 3600)
    assert 4 <= hours[7] < 4.5, "the sheet's own hours, however warm it is"
    assert hours[11] > hours[7] + 1


def test_recoat_and_rain_ready_are_never_sooner_than_the_sheet_but_touch_may_be() -> None:
    """On a hot, dry, windy wall a gloss of 24 h took a coat after 4 h, a primer of 24 h after 7."""
    hot = steady(utc("2026-07-01"), 240, air_c=34.0, rh_pct=25.0, wind_ms=5.0, cloud=0.0)
    climate = climate_of(hot, NORTHERN, walls(SOUTH, absorptance=0.5))
    slots = day_slots(climate.steps, utc("2026-07-03"), 2, NORTHERN[2])
    ends = slots.start + SLOT_S * (1.0 + np.arange(len(slots)))
    for code in ("alkyd-gloss", "peel-bonding-primer", "exterior-acrylic-standard"):
        product = generic_product(code)
        told, by_film = (windows_of(climate, slots, code, policy=Policy(recoat=r)) for r in ("sheet", "film"))
        for at, hours in ((told.recoat_at, product.recoat_h), (told.rain_ready_at, product.rain_ready_h)):
            assert at is not None and ((at[0] - ends) / 3600 >= hours - 1e-6).all(), code
        assert told.touch_at is not None and ((told.touch_at[0] - ends) / 3600).min() < product.touch_h
        assert by_film.recoat_at is not None and told.recoat_at is not None
        assert (by_film.recoat_at < told.recoat_at).any(), "the school lets the film tell"


def test_dew_at_dusk_stops_the_clock_overnight() -> None:
    series = clear_days(NORTHERN, utc("2026-09-10"), 6, mean_c=13, dew_c=9.5)
    climate = climate_of(series, NORTHERN, walls(NORTH))
    rates = stage_rates(climate, generic_product("peel-bonding-primer"))
    at = reached(clocks(rates.through), np.array([48 * STEPS_PER_HOUR + 16 * STEPS_PER_HOUR]), 8.0)
    assert at[0, 0] / STEPS_PER_HOUR > 72 + 8, "laid at 16 h, it is only ready the next forenoon"


def _based(base: Base) -> Product:
    return generic_product("exterior-acrylic-standard").model_copy(update={"base": base})


def test_shellac_asks_for_warmth_and_wind_not_for_dry_air() -> None:
    dry, damp = (_rates_at(_based(Base.SHELLAC), rh_pct=r) for r in (30.0, 90.0))
    assert damp == pytest.approx(dry, rel=0.08), "only the surface itself is a little warmer under a damp sky"
    assert _rates_at(_based(Base.SHELLAC), air_c=12.0) < dry
    assert _rates_at(_based(Base.SHELLAC), wind_ms=6.0) > dry


@pytest.mark.parametrize("base", [Base.ALKYD, Base.SHELLAC, Base.SOLVENT_ACRYLIC, Base.SILICATE])
def test_only_latices_have_a_temperature_at_which_no_film_forms(base: Base) -> None:
    """What was laid in time goes on drying below the sheet's least temperature for laying it, only more slowly."""
    cold, cool, mild = (_rates_at(_based(base), air_c=t) for t in (5.0, 12.0, 20.0))
    assert _based(base).surface_min_c > 5.5
    assert 0 < cold < cool < mild
    assert _rates_at(_based(Base.WATERBORNE), air_c=5.0) == 0.0


def test_frost_stops_a_silicate_and_not_an_oil() -> None:
    assert _rates_at(_based(Base.SILICATE), air_c=-4.0) == 0.0
    assert _rates_at(_based(Base.ALKYD), air_c=-4.0) > 0.0


def test_silicate_sets_slower_in_very_dry_air() -> None:
    assert _rates_at(_based(Base.SILICATE), rh_pct=15.0) < _rates_at(_based(Base.SILICATE), rh_pct=60.0)
    assert _rates_at(_based(Base.ELASTOMERIC), rh_pct=90.0) < _rates_at(_based(Base.ELASTOMERIC), rh_pct=50.0)


def _rates_at(product: Product, **weather: float) -> float:
    """Touch rate at the end of a steady day under cloud."""
    series = steady(datetime(2026, 6, 1, tzinfo=UTC), 48, **weather)
    face = FaceSurface(0.0, 90.0, substrate("wood-lap"), 0.6)
    climate = surface_climate(to_steps(series, 45.0, -62.0, 0.0), (face,))
    return float(stage_rates(climate, product).touch[0, -1])
