"""The surface node: balances that must close, and what painters see on walls."""

from dataclasses import replace

import numpy as np
import pytest

from amber_gable.core.weather.outdoors.air import KELVIN, saturation_pressure, vapour_density
from amber_gable.core.weather.outdoors.driving_rain import driving_rain, facing_wind
from amber_gable.core.weather.outdoors.sky import STEFAN_BOLTZMANN, clear_sky_emissivity, infrared_down
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall import balance, surface
from amber_gable.core.weather.wall.balance import CONVECTION_FLOOR, LATENT_HEAT
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.substrate_moisture import through
from amber_gable.core.weather.wall.surface import FaceSurface, strips, surface_climate
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.exposure import Exposure, Terrain
from amber_gable.domain.house.substrates import SUBSTRATES, substrate
from amber_gable.domain.work.working import Policy
from tests.weather_cases import (
    EAST,
    NORTH,
    NORTHERN,
    SOUTH,
    SOUTHERN,
    WEST,
    at_hour,
    clear_days,
    climate_of,
    day_slots,
    real_year,
    steady,
    utc,
    walls,
    windows_of,
)


@pytest.mark.parametrize("faces", [1, 24])
def test_the_compiled_balance_gives_what_plain_numpy_gives(faces: int) -> None:
    """Twenty days of a real year with rain, frost and sun on walls, roofs and decks."""
    chance = np.random.default_rng(5)
    series = stretch(real_year(), utc("2025-03-01").date(), 13)
    steps = to_steps(series, 36.1, -79.95, 273)
    made = tuple(
        FaceSurface(
            float(chance.uniform(0, 360)), float(chance.choice([0, 22, 90])), one, float(chance.uniform(0.2, 0.9))
        )
        for one in chance.choice(list(SUBSTRATES.values()), faces)
    )
    drives: list[balance.Balance] = []
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(surface, "step_through", lambda b, *rest: drives.append(b) or balance.step_through(b, *rest))
        climate = surface_climate(steps, made)
    start = np.full(faces, 4.0), np.zeros(faces)
    for compiled, plain in zip(
        balance.step_through(drives[1], *start, len(steps)),
        balance.step_plainly(drives[1], *start, len(steps)),
        strict=True,
    ):
        assert np.abs(compiled - plain).max() < 1e-9
    assert climate.surface.flags.c_contiguous
    assert (start[0] == 4.0).all(), "what it begins from is left as it was"


def test_a_steady_massless_wall_stands_at_the_sol_air_temperature() -> None:
    """Without radiation to the sky and loss to the room, T = T_a + a G / h."""
    thin = substrate("vinyl-siding").model_copy(update={"heat_capacity": 1.0, "u_behind": 0.0, "emissivity": 0.0})
    series = steady(utc("2026-06-21"), 24, cloud=0.3, rh_pct=20.0)
    steps = to_steps(series, 45.0, 0.0, 0.0)
    climate = surface_climate(steps, (FaceSurface(SOUTH, 90.0, thin, 0.7),))
    k = 12 * STEPS_PER_HOUR
    gain = 0.7 * climate.poa_global[0, k]
    assert gain > 200
    expected = steps.air[k] + gain / climate.convection[0, k]
    assert climate.surface[0, k] == pytest.approx(expected, abs=0.6)


def test_energy_closes_within_one_percent_over_clear_days() -> None:
    series = clear_days(NORTHERN, utc("2026-09-10"), 3, dew_c=2.0)
    (face,) = walls(SOUTH)
    climate = climate_of(series, NORTHERN, (face,))
    steps, t = climate.steps, climate.surface[0]
    before = np.concatenate([[t[0]], t[:-1]])
    sky_share = 0.5 * 0.5**0.5
    sky = 0.9 * (sky_share * steps.ir_down + (1 - sky_share) * STEFAN_BOLTZMANN * (steps.air + KELVIN) ** 4)
    out = 0.9 * STEFAN_BOLTZMANN * (t + KELVIN) ** 4
    convected = climate.convection[0] * (steps.air - t)
    room = face.substrate.u_behind * (surface.INDOOR_C - t)
    film = np.diff(climate.water_film[0], prepend=climate.water_film[0, 0]) / STEP_S * LATENT_HEAT
    absorbed = face.absorptance * climate.poa_global[0]
    stored = face.substrate.heat_capacity * (t - before) / STEP_S
    error = (absorbed + sky - out + convected + room + film - stored)[1:]
    assert abs(error.sum()) < 0.01 * absorbed.sum()


@pytest.mark.parametrize(
    ("first", "days"),
    [("2025-01-03", 10), ("2025-07-03", 10), pytest.param("2025-01-03", 360, marks=pytest.mark.long)],
    ids=["winter", "summer", "the whole year"],
)
def test_no_nan_in_real_weather_on_every_kind_of_surface(first: str, days: int) -> None:
    """Eight bearings and a level plane of every substrate, what it holds of water too, inside what can be."""
    steps = to_steps(stretch(real_year(), utc(first).date(), days), 36.1, -79.95, 273)
    ways = [(45.0 * n, 90.0) for n in range(8)] + [(NORTH, 0.0)]
    for kind in SUBSTRATES.values():
        climate = surface_climate(steps, tuple(FaceSurface(azimuth, tilt, kind, 0.85) for azimuth, tilt in ways))
        for values in (climate.surface, climate.water_film, climate.dew_margin, climate.poa_global):
            assert np.isfinite(values).all(), kind.code
        assert -35 < climate.surface.min() < climate.surface.max() < 95, kind.code
        assert climate.water_film.min() >= 0
        assert climate.water_film[:8].max() <= surface.WALL_FILM_MAX + 1e-12
        for row in (0, 8):
            held = through(climate.rows([row]))
            if held is not None:
                assert np.isfinite(held.pct).all(), kind.code
                assert 0 <= held.pct.min() <= held.pct.max() <= 100


def test_a_shaded_north_wall_runs_one_to_four_degrees_under_the_air_on_clear_calm_nights() -> None:
    climate = climate_of(clear_days(NORTHERN, utc("2026-09-10"), 3, dew_c=0.0), NORTHERN, walls(NORTH))
    night = (climate.steps.sun.elevation < -6) & (np.arange(len(climate.steps)) > 24 * STEPS_PER_HOUR)
    under = (climate.steps.air - climate.surface[0])[night]
    assert 1.0 < under.mean() < 4.0


def _dew_gone_hour(climate: surface.Climate, row: int) -> float:
    """Hour of the third morning at which the film is last wet before noon."""
    morning = slice(48 * STEPS_PER_HOUR, 62 * STEPS_PER_HOUR)
    wet = np.flatnonzero(climate.water_film[row, morning] > 0.010)
    return float(wet.max() / STEPS_PER_HOUR) if wet.size else 0.0


@pytest.mark.parametrize(
    ("place", "month", "last"), [(NORTHERN, 9, NORTH), (NORTHERN, 4, NORTH), (SOUTHERN, 3, SOUTH), (SOUTHERN, 9, SOUTH)]
)
def test_east_sheds_its_dew_first_and_the_wall_away_from_the_sun_last(
    place: tuple[float, float, float], month: int, last: float
) -> None:
    series = clear_days(place, utc(f"2026-{month:02d}-10"), 4, dew_c=9.5)
    climate = climate_of(series, place, walls(EAST, last))
    east, away = _dew_gone_hour(climate, 0), _dew_gone_hour(climate, 1)
    assert 5 < east < away


def test_dew_forms_first_on_level_and_thin_surfaces() -> None:
    series = clear_days(NORTHERN, utc("2026-09-10"), 4, dew_c=8.5)
    faces = (*walls(NORTH, code="metal-roof", tilt=10), *walls(NORTH), *walls(NORTH, code="brick"))
    climate = climate_of(series, NORTHERN, faces)
    # From the third afternoon on, as the surfaces cool.
    evening = climate.water_film[:, 64 * STEPS_PER_HOUR : 78 * STEPS_PER_HOUR] > 0.010
    first = [int(np.argmax(row)) if row.any() else 10_000 for row in evening]
    assert first[0] < first[1] < first[2]


def test_clear_skies_cool_more_than_cloudy_ones() -> None:
    air, dew = np.array([10.0]), np.array([5.0])
    assert float(clear_sky_emissivity(np.array([10.0]))[0]) == pytest.approx(0.711 + 0.056 + 0.0073)
    assert infrared_down(air, dew, np.array([0.0]))[0] < infrared_down(air, dew, np.array([1.0]))[0] - 40


_AIRFIELD = 2 / 9 * 5 * 4 ** (8 / 9)


@pytest.mark.parametrize(
    ("azimuth", "tilt", "stands", "expected"),
    [
        # Suburb 0.72, flat ground 1, an obstacle 110 m away 0.9 or 10 m away 0.3, a gable wall of two storeys 0.4.
        (SOUTH, 90.0, (Terrain.SUBURB, Exposure.OPEN), _AIRFIELD * 0.2592),
        (SOUTH, 90.0, (Terrain.SUBURB, Exposure.SHELTERED), _AIRFIELD * 0.0864),
        # Open water 1.14, fields 0.96, a town of tall buildings 0.67.
        (SOUTH, 90.0, (Terrain.OPEN_WATER, Exposure.OPEN), _AIRFIELD * 0.4104),
        (SOUTH, 90.0, (Terrain.FARMLAND, Exposure.OPEN), _AIRFIELD * 0.3456),
        (SOUTH, 90.0, (Terrain.TOWN, Exposure.SHELTERED), _AIRFIELD * 0.0804),
        (NORTH, 90.0, (Terrain.SUBURB, Exposure.OPEN), 0.0),
        (EAST, 90.0, (Terrain.SUBURB, Exposure.OPEN), 0.0),
        (SOUTH, 0.0, (Terrain.SUBURB, Exposure.SHELTERED), 4.0),
    ],
)
def test_driving_rain_follows_the_standard_and_spares_the_lee(
    azimuth: float, tilt: float, stands: tuple[Terrain, Exposure], expected: float
) -> None:
    """The wall index, not the airfield's: of 4 mm/h in 5 m/s square to it an open wall catches 1 mm/h, a quarter."""
    series = steady(utc("2026-06-10"), 24, rain_mm=4.0, wind_ms=5.0, wind_from_deg=180.0)
    steps = to_steps(series, *NORTHERN[:2], 0.0)
    rain = driving_rain(steps, facing_wind(steps, np.array([azimuth])), np.array([tilt]), [stands])
    assert rain[0] == pytest.approx(expected, abs=1e-9)


def test_an_eave_shades_and_shelters_the_upper_strip_of_its_wall() -> None:
    """0.6 m of overhang on a south wall of 3 m: at noon in June the shade reaches 1.3 m down (62° in the profile); the
    drops of a 4 m/s wind come in under it from 0.75 m down on."""
    clear = replace(clear_days(NORTHERN, utc("2026-06-20"), 3), wind_ms=np.full(72, 4.0))
    rain = np.where(np.arange(72) % 24 == 20, 2.0, 0.0)
    series = replace(clear, rain_mm=rain, wind_from_deg=np.full(72, SOUTH))
    (face,) = walls(SOUTH)
    upper, middle, lower = strips(face, 0.6, 3.0, 3)
    climate = climate_of(series, NORTHERN, (upper, middle, lower, face))
    # Solar noon is at about 12:10 by the zone's clock.
    noon = round((24 + 12.2) * STEPS_PER_HOUR)
    assert [bool(b > 0) for b in climate.poa_direct[:, noon]] == [False, False, True, True]
    evening = round((24 + 17.5) * STEPS_PER_HOUR)
    assert (climate.poa_direct[:3, evening] == climate.poa_direct[3, evening]).all(), "a low sun looks in under it"
    assert climate.poa_global[0].mean() < climate.poa_global[1].mean() < climate.poa_global[3].mean()
    assert climate.wall_rain[0].max() == 0.0 and climate.wall_rain[1].max() == climate.wall_rain[3].max() > 0
    assert climate.surface[0].max() < climate.surface[3].max() - 3


RAIN_SCHOOLS = [
    # school, wall against the wind, stopped in the rain itself, for a coat that it falls on later
    ("anywhere", WEST, True, True),
    ("anywhere", EAST, True, True),
    ("face", WEST, True, True),
    ("face", EAST, True, False),
]


@pytest.mark.parametrize(("school", "azimuth", "now", "later"), RAIN_SCHOOLS)
@pytest.mark.parametrize("told", ["rain_mm", "rain_pct"])
def test_rain_that_does_not_reach_the_face_stops_the_crew_and_by_school_the_coat(
    school: str, azimuth: float, now: bool, later: bool, told: str
) -> None:
    """Light rain from 14 to 15 h with a west wind."""
    wet = np.where(np.arange(96) % 24 == 14, 0.5 if told == "rain_mm" else 60.0, 0.0)
    series = replace(
        steady(utc("2026-06-08"), 96, wind_ms=4.0, wind_from_deg=WEST), **({"rain_mm": None} | {told: wet})
    )
    climate = climate_of(series, NORTHERN, walls(azimuth, code="vinyl-siding"))
    slots = day_slots(climate.steps, utc("2026-06-09"), 1, 0.0)
    windows = windows_of(climate, slots, policy=Policy(rain=school))
    assert ("R" in windows.letters(0, at_hour(14.25))) is now
    assert ("R" in windows.letters(0, at_hour(12.0))) is later


def test_the_first_morning_is_not_wet_with_rain_that_falls_two_days_later() -> None:
    """The first days are run twice; a downpour at the end of the second had soaked the first hours of the series."""
    rain = np.where(np.isin(np.arange(96), range(42, 48)), 5.0, 0.0)
    series = replace(steady(utc("2026-06-10"), 96, wind_ms=4.0), rain_mm=rain)
    climate = climate_of(series, NORTHERN, (*walls(200.0), *walls(200.0, tilt=5, code="metal-roof")))
    assert climate.water_film[:, : 12 * STEPS_PER_HOUR].max() < 0.001
    assert climate.water_film[:, 48 * STEPS_PER_HOUR - 1].min() > 0.03


def test_a_surface_changes_little_with_a_little_of_its_tilt() -> None:
    """At thirty degrees a roof kept five times the water of a wall and lost heat by another law."""
    series = replace(stretch(real_year(), utc("2025-03-01").date(), 5), typical_year=False)
    tilts = (0.0, 1.0, 14.0, 15.0, 29.9, 30.1, 44.9, 45.1, 89.0, 90.0)
    faces = tuple(f for t in tilts for f in walls(SOUTH, code="metal-roof", tilt=t))
    climate = climate_of(series, (36.1, -79.95, -5.0), faces)
    kept = climate.water_film.max(axis=1)
    assert kept[0] == pytest.approx(surface.FLOOR_FILM_MAX) and kept[-1] == pytest.approx(surface.WALL_FILM_MAX)
    assert (np.diff(kept) <= 1e-12).all(), "the steeper, the less it keeps"
    for a, b in ((4, 5), (6, 7)):
        assert abs(kept[a] - kept[b]) < 0.002
        assert np.abs(climate.convection[a] - climate.convection[b]).max() < 0.1
        assert np.abs(climate.surface[a] - climate.surface[b]).mean() < 0.05


@pytest.mark.parametrize(("wind", "over"), [(1.0, 20.0), (3.0, 0.0), (3.0, 30.0), (6.0, 20.0)])
def test_convection_lies_among_the_published_laws(wind: float, over: float) -> None:
    """Of a wall's weather side; wind at 10 m, of which about half moves at the wall of a low building in a suburb."""
    natural = 1.31 * over ** (1 / 3)
    mcadams_1954 = 5.7 + 3.8 * 0.5 * wind
    walton_1983 = natural + 2.537 * 1.11 * np.sqrt(0.55 * wind)
    liu_harris_2007 = 1.53 * wind + 1.43
    ours = np.hypot(surface.forced_convection(wind), natural) + CONVECTION_FLOOR
    assert min(walton_1983, liu_harris_2007) < ours < mcadams_1954


def _peak_in_wind(azimuth: float, wind_from: float) -> float:
    series = clear_days(NORTHERN, utc("2026-07-10"), 3)
    blown = replace(series, wind_ms=np.full(72, 4.0), wind_from_deg=np.full(72, wind_from))
    return float(climate_of(blown, NORTHERN, walls(azimuth, absorptance=0.9)).surface.max())


def test_no_wall_hangs_on_the_last_bit_of_the_winds_angle() -> None:
    """4 m/s along a wall: a fifth of a degree was worth 6 K. It is the wind that turns here; the sun stays."""
    along = [_peak_in_wind(WEST, NORTH + turn) for turn in (-0.1, 0.0, 0.1)]
    assert np.ptp(along) < 0.05
    by_angle = [_peak_in_wind(WEST, WEST + off) for off in range(0, 181, 15)]
    assert (np.diff(by_angle) > -1e-9).all(), "from before the wall to behind it it only gets hotter"
    assert by_angle[0] == pytest.approx(by_angle[4]), "windward up to 60°"
    assert by_angle[8] == pytest.approx(by_angle[12]), "in the lee from 120° on"
    assert by_angle[12] - by_angle[0] > 4
    assert max(np.diff(by_angle)) < 3.5
    mirrored = [_peak_in_wind(WEST, (WEST - off) % 360) for off in range(0, 181, 15)]
    assert by_angle == pytest.approx(mirrored, abs=0.01), "the same on either side"


def test_a_film_evaporates_with_the_latent_heat_it_took() -> None:
    """A cloudburst of two hours, then sun: the wet wall is cooler than the dry one until the film is gone."""
    fair = steady(utc("2026-06-21"), 48, cloud=0.2, wind_ms=2.0, wind_from_deg=180.0, rh_pct=60)
    shower = np.isin(np.arange(48), (34, 35)) * 30.0
    wet = climate_of(replace(fair, rain_mm=shower), (45.0, 0.0, 0.0), walls(SOUTH))
    dry = climate_of(fair, (45.0, 0.0, 0.0), walls(SOUTH))
    just_after = 36 * STEPS_PER_HOUR
    assert wet.water_film[0, just_after - 1] == pytest.approx(surface.WALL_FILM_MAX)
    assert wet.surface[0, just_after] < dry.surface[0, just_after] - 3
    assert wet.water_film[0, just_after + 4 * STEPS_PER_HOUR] == 0
    assert wet.surface[0, -1] == pytest.approx(dry.surface[0, -1], abs=0.3)


def test_frost_settles_on_a_face_that_is_warmer_than_the_dew_point() -> None:
    """At -6 °C and 93 % the dew point is -6.95 °C and the frost point -6.2: a roof at -6.5 °C has frost on it."""
    air = steady(utc("2026-01-10"), 72, air_c=-6.0, rh_pct=93.0, cloud=0.87, wind_ms=4.0)
    climate = climate_of(air, NORTHERN, walls(NORTH, code="metal-roof", tilt=20.0))
    dew, settles = float(climate.steps.dew[0]), float(climate.steps.settles[0])
    assert dew == pytest.approx(-6.95, abs=0.05) and settles == pytest.approx(-6.18, abs=0.05)
    night = slice(6 * STEPS_PER_HOUR, 10 * STEPS_PER_HOUR)
    between = (climate.surface[0, night] > dew) & (climate.surface[0, night] < settles)
    assert between.any(), climate.surface[0, night]
    grows = np.diff(climate.water_film[0, night]) > 0
    assert grows[between[1:]].all()


def test_a_board_with_air_below_is_cooler_in_the_sun_and_warmer_in_the_night() -> None:
    """What loses heat on both sides swings less about the air, so that a deck burns less at noon and dews later."""
    series = clear_days(NORTHERN, utc("2026-07-10"), 4, dew_c=12.0)
    (closed,) = walls(SOUTH, code="wood-deck", tilt=0.0)
    climate = climate_of(series, NORTHERN, (closed, replace(closed, open_back=True)))
    over_air = climate.surface - climate.steps.air
    noon, night = over_air.max(axis=1), over_air.min(axis=1)
    assert noon[1] < 0.75 * noon[0] and noon[1] > 8
    assert night[0] < night[1] < -0.3
    wet = (climate.water_film > 0.01).sum(axis=1)
    assert wet[1] < wet[0]


def test_condensation_stops_when_the_surface_meets_the_dew_point() -> None:
    climate = climate_of(clear_days(NORTHERN, utc("2026-09-10"), 3, dew_c=9.0), NORTHERN, walls(NORTH))
    growing = np.diff(climate.water_film[0]) > 1e-6
    saturated = vapour_density(saturation_pressure(climate.surface[0]), climate.surface[0])[1:]
    air = vapour_density(climate.steps.vapour, climate.steps.air)[1:]
    assert growing.any()
    assert (air[growing] > saturated[growing] * 0.995).all()


def test_no_face_is_refused() -> None:
    with pytest.raises(ValueError, match="no faces"):
        surface_climate(to_steps(steady(utc("2026-06-21"), 24), 45.0, 0.0, 0.0), ())


def test_wind_brings_a_sunlit_wall_nearer_to_the_air() -> None:
    """Still air takes about 9 W/(m² K) off a warm wall, radiation with it; 8 m/s against it more than twice that."""
    noon = 36 * STEPS_PER_HOUR
    above = {}
    for wind in (0.2, 8.0):
        series = steady(utc("2026-06-21"), 48, cloud=0.2, wind_ms=wind, wind_from_deg=180.0)
        climate = climate_of(series, (45.0, 0.0, 0.0), walls(SOUTH))
        above[wind] = climate.surface[0, noon] - climate.steps.air[noon]
    assert above[0.2] > 1.6 * above[8.0] > 3
