"""The climate against computations that share nothing with it: a stiff ODE solver, pvlib run directly, a psychrometric
package; and what painters see of it on their walls."""

from dataclasses import replace

import numpy as np
import pandas as pd
import pytest
from pvlib import irradiance, solarposition
from scipy.integrate import solve_ivp

from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import Windows
from amber_gable.core.weather.outdoors import sun
from amber_gable.core.weather.outdoors.air import KELVIN, saturation_pressure, vapour_density, vapour_pressure
from amber_gable.core.weather.outdoors.sky import STEFAN_BOLTZMANN
from amber_gable.core.weather.wall.balance import AIR_HEAT_CAPACITY, CONVECTION_FLOOR, LEWIS_TERM
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.surface import (
    INDOOR_C,
    WALL_FILM_MAX,
    FaceSurface,
    WaterEvent,
    forced_convection,
    surface_climate,
)
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import Policy
from tests.psychrometry import psychrolib
from tests.weather_cases import (
    EAST,
    NORTH,
    NORTHERN,
    SOUTH,
    WEST,
    clear_days,
    climate_of,
    day_slots,
    steady,
    utc,
    walls,
    windows_of,
)


@pytest.mark.parametrize(("tilt", "azimuth"), [(0.0, 0.0), (30.0, 200.0), (90.0, 90.0), (90.0, 180.0), (90.0, 285.0)])
def test_light_in_the_plane_is_pvlibs_own(tilt: float, azimuth: float) -> None:
    series = clear_days(NORTHERN, utc("2026-09-20"), 2)
    steps = to_steps(series, *NORTHERN[:2], 0.0)
    ours = sun.on_faces(steps.sun, steps.light, np.array([azimuth]), np.array([tilt]), [()]).poa_global[0]
    times = pd.to_datetime(steps.times + STEP_S / 2, unit="s", utc=True)
    extra = irradiance.get_extra_radiation(times.day_of_year)
    place = solarposition.get_solarposition(times, *NORTHERN[:2], method="nrel_numpy")
    theirs = irradiance.get_total_irradiance(
        tilt, azimuth, place["apparent_zenith"], place["azimuth"], steps.light.dni, steps.light.ghi, steps.light.dhi,
        dni_extra=extra, albedo=0.2, model="haydavies",
    )["poa_global"].fillna(0.0).to_numpy()  # fmt: skip
    high = place["apparent_elevation"].to_numpy() > 1.0
    assert ours[high].max() > 100
    assert np.abs(ours - theirs)[high].max() < 1.0


SURFACES = [
    # substrate, tilt, azimuth, absorptance: thin to thick, level to upright
    ("vinyl-siding", 90.0, WEST, 0.7),
    ("metal-roof", 20.0, SOUTH, 0.85),
    ("metal-door", 90.0, EAST, 0.9),
    ("wood-lap", 90.0, SOUTH, 0.6),
    ("wood-deck", 0.0, NORTH, 0.6),
    ("stucco-medium", 90.0, WEST, 0.5),
    ("brick", 90.0, SOUTH, 0.7),
    ("concrete-slab", 0.0, NORTH, 0.6),
]


@pytest.mark.parametrize(("code", "tilt", "azimuth", "absorptance"), SURFACES, ids=[s[0] for s in SURFACES])
def test_a_tight_solution_of_the_same_balance_is_within_half_a_kelvin(
    code: str, tilt: float, azimuth: float, absorptance: float
) -> None:
    """Dry days, so that no water changes its phase; the same drive, run straight between the middles of the steps."""
    series = clear_days(NORTHERN, utc("2026-09-08"), 4, dew_c=-8.0)
    face = FaceSurface(azimuth, tilt, substrate(code), absorptance)
    climate = surface_climate(to_steps(series, *NORTHERN[:2], 0.0), (face,))
    steps, kind = climate.steps, face.substrate
    assert climate.water_film.max() == 0.0
    middle = (np.arange(len(steps)) + 0.5) * STEP_S
    upright = np.cos(np.radians(tilt))
    view = (1 + upright) / 2
    cold = view * np.sqrt(view)
    around = kind.emissivity * (cold * steps.ir_down + (1 - cold) * STEFAN_BOLTZMANN * (steps.air + KELVIN) ** 4)
    gain = absorptance * climate.poa_global[0] + around
    warm, cool = 9.482 / (7.283 - upright), 1.810 / (1.382 + upright)
    # 1 m/s from the south-west: to windward, along or behind, at that wind the laws give the weather side's figure.
    forced = forced_convection(1.0)

    def rate(t: float, temperature: np.ndarray) -> list[float]:
        air, gained = np.interp(t, middle, steps.air), np.interp(t, middle, gain)
        over = float(temperature[0]) - air
        h = np.hypot((warm if over > 0 else cool) * np.cbrt(abs(over)), forced) + CONVECTION_FLOOR
        lost = kind.emissivity * STEFAN_BOLTZMANN * (temperature[0] + KELVIN) ** 4
        flow = gained - lost - h * over + kind.u_behind * (INDOOR_C - temperature[0])
        return [float(flow / kind.heat_capacity)]

    ends = (np.arange(len(steps)) + 1.0) * STEP_S
    begin = 24 * STEPS_PER_HOUR
    start = [float(climate.surface[0, begin - 1])]
    solved = solve_ivp(
        rate, (ends[begin - 1], ends[-1]), start, "LSODA", ends[begin:], rtol=1e-8, atol=1e-8, max_step=STEP_S
    )
    assert solved.success
    off = climate.surface[0, begin:] - solved.y[0]
    assert np.sqrt(np.mean(off**2)) < 0.5, (code, np.abs(off).max())


@pytest.mark.parametrize("code", ["vinyl-siding", "wood-lap", "brick"])
def test_water_that_a_wall_was_given_is_what_leaves_it(code: str) -> None:
    """Hosed to what it holds: what evaporates by the exchange of each step, summed, is what was there."""
    series = steady(utc("2026-06-08"), 72, air_c=18.0, rh_pct=60.0, wind_ms=2.0)
    steps = to_steps(series, *NORTHERN[:2], 0.0)
    (face,) = walls(NORTH, code=code)
    at = 30 * STEPS_PER_HOUR
    climate = surface_climate(steps, (face,), [WaterEvent(steps.start + STEP_S * float(at))])
    film, t, h = climate.water_film[0], climate.surface[0], climate.convection[0]
    given = WALL_FILM_MAX
    around = vapour_density(steps.vapour, steps.air)
    leaves = h / (AIR_HEAT_CAPACITY * LEWIS_TERM) * (vapour_density(saturation_pressure(t), t) - around) * STEP_S
    wet = film[at:] > 0
    # The last step takes what is left, whatever it could have taken.
    whole = int(np.argmin(wet))
    gone = leaves[at : at + whole].sum()
    assert film[at - 1] == 0.0 and film[-1] == 0.0
    assert gone == pytest.approx(given - film[at + whole - 1], rel=0.01)


def test_enthalpy_of_moist_air_is_the_psychrometric_packages() -> None:
    for air in (5.0, 20.0, 35.0):
        for rh in (20.0, 60.0, 95.0):
            e, ratio = float(vapour_pressure(air, rh)), psychrolib.GetHumRatioFromRelHum(air, rh / 100, 101325)
            w = 0.621945 * e / (101325 - e)
            ours = 1006 * air + w * (2501000 + 1860 * air)
            assert ours == pytest.approx(psychrolib.GetMoistAirEnthalpy(air, ratio), rel=0.01)


def _last_open(windows: Windows, slots: Slots, row: int = 0) -> float:
    """End of the last workable slot of the first day, by the clock."""
    return float(slots.hours[np.flatnonzero(windows.ok[row] & (slots.day == 0))[-1]] + slots.length_h)


def _day(series: WeatherSeries, day: str, *azimuths: float, policy: Policy | None = None) -> tuple[Windows, Slots]:
    climate = climate_of(series, NORTHERN, walls(*azimuths, absorptance=0.4))
    slots = day_slots(climate.steps, utc(day), 1, NORTHERN[2])
    return windows_of(climate, slots, policy=policy), slots


def test_the_north_wall_of_october_stops_hours_before_the_west() -> None:
    """Where temperature decides: the afternoon's sun that the west has dries its coat before the dew."""
    october = clear_days(NORTHERN, utc("2026-10-06"), 6, mean_c=13.0, dew_c=7.0)
    windows, slots = _day(october, "2026-10-08", NORTH, WEST, policy=Policy(sun="temperature"))
    assert _last_open(windows, slots, 1) - _last_open(windows, slots, 0) >= 1.0


def test_the_last_stroke_is_earlier_before_a_clear_night_than_before_a_cloudy_one() -> None:
    clear = clear_days(NORTHERN, utc("2026-09-20"), 6, mean_c=14.0, dew_c=8.0)
    cloudy = replace(clear, cloud=np.ones(len(clear)))
    last = [_last_open(*_day(series, "2026-09-22", NORTH)) for series in (clear, cloudy)]
    assert last[1] - last[0] >= 1.0


def test_after_a_south_wester_the_lee_faces_are_workable_first() -> None:
    """Rain until ten with 8 m/s from the south-west; the north-east face is dry when it ends."""
    base = steady(utc("2026-06-08"), 120, air_c=14.0, rh_pct=75.0, wind_ms=8.0, wind_from_deg=225.0)
    rain = np.zeros(120)
    rain[48 + 8 : 48 + 14] = 3.0
    windows, slots = _day(replace(base, rain_mm=rain), "2026-06-10", 45.0, 225.0)
    first = [slots.hours[np.flatnonzero(windows.ok[row] & (slots.hours >= 10))[0]] for row in (0, 1)]
    assert first[0] == 10.0 < first[1]


@pytest.mark.parametrize(("day", "lit"), [("2026-06-21", True), ("2026-12-21", False)])
def test_where_the_sun_does_not_set_or_not_rise_the_day_is_all_light_or_all_dark(day: str, lit: bool) -> None:
    mild = steady(utc(day), 96, air_c=15.0, cloud=0.5)
    place = (68.0, 20.0, 1.0)
    climate = climate_of(mild, place, walls(NORTH, SOUTH))
    slots = day_slots(climate.steps, utc(day), 2, place[2])
    daylight = next(c for c in windows_of(climate, slots).checks if c.rule.id == "daylight")
    assert np.isfinite(climate.surface).all()
    assert (~daylight.stops).all() if lit else daylight.stops.all()


def test_the_southern_hemisphere_mirrors_the_northern() -> None:
    """The same weather half a year later, south for north: the sun is 3 % nearer in January, nothing else differs."""
    found = []
    for latitude, month, faces in ((45.0, "2026-06-20", (SOUTH, NORTH)), (-45.0, "2026-12-20", (NORTH, SOUTH))):
        series = clear_days((latitude, 0.0, 0.0), utc(month), 4)
        steps = to_steps(replace(series, wind_ms=np.full(96, 0.4)), latitude, 0.0, 0.0)
        found.append(surface_climate(steps, walls(*faces)).surface[:, 24 * STEPS_PER_HOUR :])
    assert np.abs(found[0] - found[1]).max() < 3.0
    assert np.abs(found[0] - found[1]).mean() < 0.5
