"""Water in boards and masonry: how long it keeps a coat away, what readings make of it."""

from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta, timezone

import numpy as np
import pytest

from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.wall.balance import LATENT_HEAT
from amber_gable.core.weather.wall.compiled import PLAIN
from amber_gable.core.weather.wall.damp import Damp
from amber_gable.core.weather.wall.moisture_loop import SORBS
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.substrate_moisture import (
    DAY_STEPS,
    DRY_MASONRY_PCT,
    IN_SATURATED_AIR,
    METER_PCT,
    Moisture,
    MoistureEvent,
    dry_masonry,
    through,
)
from amber_gable.core.weather.wall.surface import Climate, WaterEvent, surface_climate
from amber_gable.domain.findings.moisture_figures import MasonryFigures, moisture_figures
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.substrates import SUBSTRATES, substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import Policy
from tests.weather_cases import FULL_DAY, NORTH, NORTHERN, SOUTH, clear_days, climate_of, steady, utc, walls

FIRST = utc("2026-05-18")
WASHED_AT = (FIRST + timedelta(days=2, hours=4 + 9)).timestamp()
"""Nine o'clock of the third day, by the house's clock."""


def spring(days: int = 14, mean_c: float = 16.0, dew_c: float = 6.0) -> WeatherSeries:
    """Good days on end: 10 to 22 °C, clear and calm."""
    return clear_days(NORTHERN, FIRST, days, mean_c=mean_c, dew_c=dew_c)


def summer() -> WeatherSeries:
    return spring(mean_c=23.0, dew_c=11.0)


def _hours_to(climate: Climate, found: Moisture, limit: float, since: float = WASHED_AT) -> float:
    """Hours from then until it reads the limit, for good."""
    over = np.flatnonzero((found.pct[0] > limit) & (climate.steps.times >= since))
    return float(climate.steps.times[over[-1]] - since) / 3600 if over.size else 0.0


WASHED = [
    # substrate, tilt, weather, limit %, least and most hours until it is dry enough: trade.md §3 and §11
    ("wood-lap", 90.0, spring, 15.0, 12, 48),  # one to three good days
    ("wood-deck", 0.0, spring, 15.0, 48, 96),  # about three good sunny days
    ("brick", 90.0, summer, DRY_MASONRY_PCT, 20, 60),  # a day or two in summer
    ("block", 90.0, summer, DRY_MASONRY_PCT, 24, 84),  # closed the day after
    ("stucco-heavy", 90.0, spring, DRY_MASONRY_PCT, 120, 290),  # up to weeks
    ("fibre-cement-lap", 90.0, spring, DRY_MASONRY_PCT, 2, 30),
]
IN_THE_SHADE = 1.6
"""Times as long masonry may take on a calm north wall, where no sun gives the heat that its water takes with it."""


@pytest.mark.parametrize("azimuth", [SOUTH, NORTH], ids=["south", "north"])
@pytest.mark.parametrize(("code", "tilt", "weather", "limit", "least", "most"), WASHED, ids=[w[0] for w in WASHED])
def test_what_was_washed_is_dry_when_painters_say(
    code: str,
    tilt: float,
    weather: Callable[[], WeatherSeries],
    limit: float,
    least: float,
    most: float,
    azimuth: float,
) -> None:
    climate = climate_of(weather(), NORTHERN, walls(azimuth, code=code, tilt=tilt))
    if azimuth == NORTH and limit == DRY_MASONRY_PCT:
        most *= IN_THE_SHADE
    found = through(climate, [MoistureEvent(WASHED_AT)])
    assert found is not None
    assert least <= _hours_to(climate, found, limit) <= most


def test_a_deck_of_eighteen_percent_needs_about_three_good_days_and_less_with_air_below() -> None:
    climate = climate_of(spring(), NORTHERN, walls(NORTH, code="wood-deck", tilt=0.0))
    read = [MoistureEvent(WASHED_AT, 18.0)]
    closed, open_ = (through(climate, read, open_below=below) for below in (False, True))
    assert closed is not None and open_ is not None
    assert 36 <= _hours_to(climate, open_, 15.0) < _hours_to(climate, closed, 15.0) <= 84


def _rain(mm_h: float, hours: int, wind_from: float) -> WeatherSeries:
    """A gale with rain from one side in the third night, good days before and after."""
    base = spring()
    depth, wind = np.zeros(len(base)), base.wind_ms.copy()
    depth[60 : 60 + hours], wind[60 : 60 + hours] = mm_h, 8.0
    return replace(base, rain_mm=depth, wind_ms=wind, wind_from_deg=np.full(len(base), wind_from))


def test_a_hundred_millimetres_on_heavy_stucco_close_it_for_days_and_its_lee_not_at_all() -> None:
    climate = climate_of(_rain(5.0, 20, SOUTH), NORTHERN, walls(SOUTH, code="stucco-heavy"))
    lee = climate_of(_rain(5.0, 20, NORTH), NORTHERN, walls(SOUTH, code="stucco-heavy"))
    ends = climate.steps.start + 80 * 3600.0
    wet, dry = through(climate), through(lee)
    assert wet is not None and dry is not None
    assert _hours_to(climate, wet, DRY_MASONRY_PCT, ends) > 48
    assert dry.pct.max() < DRY_MASONRY_PCT
    sealed = through(climate, bare=False)
    assert sealed is not None and sealed.pct.max() < DRY_MASONRY_PCT, "a film keeps the rain out"


@pytest.mark.parametrize("code", ["brick", "stucco-heavy", "concrete-slab"])
def test_masonry_evaporates_with_no_more_heat_than_its_face_is_given(code: str) -> None:
    """The sun and sky warm the dry face some kelvins over the wet bulb; that difference times what carries heat to it
    is all that can leave as vapour. A washed wall lost 940 W/m² where 500 were absorbed."""
    climate = climate_of(summer(), NORTHERN, walls(SOUTH, code=code, absorptance=0.6))
    found = through(climate, [MoistureEvent(WASHED_AT)])
    figures = moisture_figures(SUBSTRATES[code])
    assert found is not None and isinstance(figures, MasonryFigures)
    first = int(np.searchsorted(climate.steps.times, WASHED_AT)) + 1
    days = [slice(first + n * DAY_STEPS, first + (n + 1) * DAY_STEPS) for n in range(4)]
    lost = -np.diff(found.pct[0]) / 100 * figures.holds_kg * LATENT_HEAT / STEP_S
    given, absorbed = climate.convection[0] + 5.5, 0.6 * climate.poa_global[0]
    assert lost[first:].max() < absorbed.max()
    for day in days:
        assert lost[day].mean() < absorbed[day].mean() + 8.0 * given[day].mean(), "8 K between air and wet bulb"
    assert 20 < lost[days[0]].mean() < 120, "one to four litres a square metre and day"


def test_masonry_comes_to_the_moisture_of_its_air_and_no_further() -> None:
    """Half a year of dry air leaves what the air holds; damp air more, and never what a taped sheet would show."""
    held = {}
    for rh in (50.0, 85.0, 97.0):
        air = steady(FIRST, 24 * 40, air_c=15.0, rh_pct=rh, cloud=1.0)
        found = through(climate_of(air, NORTHERN, walls(NORTH, code="brick")), [MoistureEvent(WASHED_AT)])
        assert found is not None
        held[rh] = float(found.pct[0, -1])
    assert held[50.0] < held[85.0] < held[97.0]
    assert held[50.0] < 2.0 and held[85.0] < DRY_MASONRY_PCT


def _wet_evenings(before: int) -> WeatherSeries:
    """Fair autumn days from so many days before the first of October on, with six evenings of wind and rain from the
    north from the first on."""
    begin = utc("2026-10-01") - timedelta(days=before)
    fair = clear_days(NORTHERN, begin, before + 30, mean_c=12.0, dew_c=7.0)
    hours = np.arange(len(fair)) - 24 * before
    wet = (hours >= 0) & (hours < 6 * 24) & (hours % 24 >= 17)
    return replace(
        fair,
        rain_mm=np.where(wet, 6.0, 0.0),
        wind_ms=np.where(wet, 10.0, fair.wind_ms),
        wind_from_deg=np.where(wet, NORTH, fair.wind_from_deg),
    )


@pytest.mark.parametrize(("code", "within"), [("stucco-heavy", 1.0), ("wood-lap", 0.3), ("wood-deck", 0.3)])
def test_an_answer_does_not_hang_on_the_day_from_which_it_was_asked(code: str, within: float) -> None:
    """Heavy render on a north wall after six wet evenings: asked from 1 October it was 71 % and closed on the 9th,
    asked from the 9th it was 7.5 % and open for hours."""
    series, place = _wet_evenings(40), Place(*NORTHERN[:2], 0.0, timezone(timedelta(hours=NORTHERN[2])))
    at, found = utc("2026-10-09"), {}
    for first in ("2026-10-01", "2026-10-04", "2026-10-07", "2026-10-09"):
        weather = place_weather(place, series, utc(first), 12)
        (wall,) = surfaces_through(weather, walls(NORTH, code=code))
        moisture = through(wall.climate)
        assert moisture is not None
        step = int((at.timestamp() - weather.steps.start) // STEP_S) + 12 * STEPS_PER_HOUR
        found[first] = float(moisture.pct[0, step])
        assert moisture.start_doubt[0, step] < 1.0, "thirty days before it are known"
    assert max(found.values()) - min(found.values()) < within, found
    if code == "stucco-heavy":
        assert min(found.values()) > DRY_MASONRY_PCT


def test_without_the_weeks_before_it_a_wall_is_asked_about_and_the_wash_or_a_reading_ends_the_question() -> None:
    """Three days of a forecast: nobody knows what soaked the render before. Washed, or read, it is known again."""
    series = clear_days(NORTHERN, utc("2026-10-01"), 16, mean_c=12.0, dew_c=7.0)
    place = Place(*NORTHERN[:2], 0.0, timezone(timedelta(hours=NORTHERN[2])))
    weather = place_weather(place, series, utc("2026-10-03"), 8)
    (wall,) = surfaces_through(weather, walls(NORTH, code="stucco-heavy"))
    limit = Limit(DRY_MASONRY_PCT, "%", "a test")
    product, at = generic_product("exterior-acrylic-standard"), weather.slots.start + 8 * 3600.0
    asked = wall.coat(product, Method.BRUSH, Policy(), FULL_DAY, Damp(limit))
    early = weather.slots.day < 4
    assert not asked.ok[0, early].any() and "?" in asked.first_letters()[0, early]
    read = wall.coat(product, Method.BRUSH, Policy(), FULL_DAY, Damp(limit, (MoistureEvent(at, 4.0),)))
    since = early & (weather.slots.start + 900.0 * np.arange(len(weather.slots)) >= at)
    stopping = {c.rule.id for c in read.checks if c.stops[0, since].any()}
    assert read.ok[0, since].any() and not stopping & {"before", "substrate"}
    (sealed,) = surfaces_through(weather, walls(NORTH, code="vinyl-siding"))
    assert sealed.coat(product, Method.BRUSH, Policy(), FULL_DAY).ok.any()


def test_masonry_loses_no_more_than_it_took_up() -> None:
    """100 kg/m² of rain or one: what the zone holds is between nothing and full, and never grows without water."""
    climate = climate_of(_rain(2.0, 6, SOUTH), NORTHERN, walls(SOUTH, code="brick"))
    found = through(climate)
    assert found is not None
    steps, falls = np.diff(found.pct[0]), climate.wall_rain[0][1:]
    assert found.pct.min() >= 0 and found.pct.max() <= 100
    assert (steps[falls == 0] <= 100 * IN_SATURATED_AIR * SORBS).all(), "no faster than it takes up water from the air"
    rise = steps[falls > 0].clip(0).sum() / 100 * 3.0
    assert rise <= falls.sum() / STEPS_PER_HOUR + 1e-9


def test_a_reading_is_taken_on_and_its_doubt_grows_with_what_is_computed_since() -> None:
    climate = climate_of(spring(), NORTHERN, walls(NORTH))
    found = through(climate, [MoistureEvent(WASHED_AT, 22.0)])
    assert found is not None
    at = int((WASHED_AT - climate.steps.start) // (3600 / STEPS_PER_HOUR))
    assert found.pct[0, at] == pytest.approx(22.0, abs=0.1)
    assert found.half_band[0, at - 1] > found.half_band[0, at] == pytest.approx(METER_PCT, abs=0.05)
    assert (np.diff(found.half_band[0, at:]) >= 0).all()


@pytest.mark.parametrize(("second", "slower"), [(18.5, True), (13.5, False)])
def test_readings_tune_the_time_constant_and_the_miss_is_kept(second: float, slower: bool) -> None:
    climate = climate_of(spring(), NORTHERN, walls(NORTH))
    later = WASHED_AT + 36 * 3600
    found = through(climate, [MoistureEvent(WASHED_AT, 20.0), MoistureEvent(later, second)])
    assert found is not None
    ((at, predicted, read),) = found.misses
    assert (at, read) == (later, second)
    assert predicted != second
    assert (found.factor > 1.1) if slower else (found.factor < 0.9)
    tuned = through(climate, [MoistureEvent(WASHED_AT, 20.0)])
    assert tuned is not None and tuned.factor == 1.0, "one reading tells nothing of the pace"


def test_readings_older_than_the_weather_count_at_its_beginning_and_what_holds_no_water_is_none() -> None:
    climate = climate_of(spring(), NORTHERN, walls(NORTH))
    old = through(climate, [MoistureEvent(climate.steps.start - 86400.0, 25.0)])
    assert old is not None and old.pct[0, 0] == pytest.approx(25.0, abs=0.1)
    assert through(climate_of(spring(), NORTHERN, walls(NORTH, code="vinyl-siding"))) is None
    assert dry_masonry(substrate("wood-lap")) is None and dry_masonry(substrate("vinyl-siding")) is None


def test_unread_wood_stops_only_where_even_its_low_end_is_too_wet() -> None:
    climate = climate_of(spring(dew_c=9.5), NORTHERN, walls(NORTH))
    limit = Limit(15.0, "%", "a test")
    doubted = Damp(limit).pct(climate)
    known = through(climate)
    assert doubted is not None and known is not None
    assert (doubted[0] < known.pct[0] - 2.0).all()
    at = int((WASHED_AT - climate.steps.start) // (3600 / STEPS_PER_HOUR))
    for reading, judged in ((17.0, 17.0 + METER_PCT), (14.8, 14.8 - METER_PCT)):
        read = Damp(limit, (MoistureEvent(WASHED_AT, reading),)).pct(climate)
        assert read is not None
        assert read[0, at] == pytest.approx(judged, abs=0.1), "only a sure prediction overrules what was read"
    washed = Damp(limit, (MoistureEvent(WASHED_AT),)).pct(climate)
    assert washed is not None and washed[0, at] == pytest.approx(18.0, abs=0.1)


def test_every_substrate_that_drinks_is_computed_alike_without_the_compiler(monkeypatch: pytest.MonkeyPatch) -> None:
    events = [MoistureEvent(WASHED_AT), MoistureEvent(WASHED_AT + 50 * 3600, 16.0)]
    for code in SUBSTRATES:
        climate = climate_of(_rain(2.0, 6, SOUTH), NORTHERN, walls(SOUTH, code=code))
        fast = through(climate, events)
        with monkeypatch.context() as plain:
            plain.setenv(PLAIN, "1")
            slow = through(climate, events)
        assert (fast is None) == (slow is None)
        if fast is not None and slow is not None:
            assert np.abs(fast.pct - slow.pct).max() < 1e-9, code
            assert np.isfinite(fast.pct).all() and fast.pct.min() >= 0


def test_a_towel_takes_the_dew_off_and_leaves_half_an_hour_of_damp() -> None:
    steps = to_steps(clear_days(NORTHERN, utc("2026-09-14"), 4, mean_c=12.0, dew_c=9.5), *NORTHERN[:2], 0.0)
    face = walls(NORTH, code="metal-door")
    at = steps.start + (2 * 24 + 5) * 3600.0
    left, wiped, hosed = (surface_climate(steps, face, w) for w in ((), (WaterEvent(at, True),), (WaterEvent(at),)))
    k = int((at - steps.start) * STEPS_PER_HOUR // 3600)
    half = STEPS_PER_HOUR // 2
    assert left.water_film[0, k + half] > 0.01, "the dew would still be there"
    assert wiped.water_film[0, k + half - 1] > 0.01, "damp for half an hour"
    assert wiped.water_film[0, k + half] < 0.01
    assert hosed.water_film[0, k] > 0.05
    assert np.array_equal(left.surface[0, :k], wiped.surface[0, :k]), "nothing before it is touched"


def test_oil_and_water_on_a_humid_day_need_their_own_time() -> None:
    """Oil waits longer than a water-borne coat, and cares less for the humidity (trade.md §5, physics.md §7)."""
    from tests.weather_cases import day_slots, windows_of

    ready = {}
    for code in ("alkyd-wood-primer", "acrylic-wood-primer"):
        for rh in (45.0, 78.0):
            climate = climate_of(steady(FIRST, 168, rh_pct=rh), NORTHERN, walls(NORTH, absorptance=0.0))
            slots = day_slots(climate.steps, FIRST + timedelta(days=2), 1, 0.0)
            windows = windows_of(climate, slots, code)
            assert windows.rain_ready_at is not None
            noon = len(slots) // 2
            ready[code, rh] = (float(windows.rain_ready_at[0, noon]) - slots.start) / 3600 - 12
    assert generic_product("alkyd-wood-primer").rain_ready_h > generic_product("acrylic-wood-primer").rain_ready_h
    assert ready["alkyd-wood-primer", 45.0] > 2 * ready["acrylic-wood-primer", 45.0]
    slowed = {c: ready[c, 78.0] / ready[c, 45.0] for c in ("alkyd-wood-primer", "acrylic-wood-primer")}
    assert 1.0 <= slowed["alkyd-wood-primer"] < 1.4 < slowed["acrylic-wood-primer"]


@pytest.mark.parametrize(("mm_h", "reads"), [(0.46, 9.6), (2.3, 17.9), (18.0, 18.3)])
def test_a_shower_only_wets_the_face_and_rain_that_goes_on_counts_as_a_washing(mm_h: float, reads: float) -> None:
    """Three hours driven at 8 m/s at a house among others, onto bare siding of 10 %, which catches a quarter of what an
    airfield's wall would: a third of a millimetre, 1.4 mm and 9 mm."""
    climate = climate_of(_rain(mm_h, 3, SOUTH), NORTHERN, walls(SOUTH))
    found = through(climate)
    assert found is not None
    after = int(63.5 * STEPS_PER_HOUR)
    assert found.pct[0, after] == pytest.approx(reads, abs=0.7)
    assert bool(found.wetted[0, after] > 3.0) is (mm_h > 1)
    assert found.wetted[0, : 60 * STEPS_PER_HOUR].max() == 0.0


def _damp_july(rain: bool = False) -> WeatherSeries:
    """A maritime July: 15 °C and 85 % on end, cloudy; with or without a night of rain in a gale from the south."""
    series = steady(FIRST, 24 * 40, air_c=15.0, rh_pct=86.0, cloud=0.9, wind_ms=3.0, wind_from_deg=SOUTH)
    hours = np.arange(len(series))
    falls = rain & (hours >= 60) & (hours < 72)
    return replace(series, rain_mm=np.where(falls, 9.0, 0.0), wind_ms=np.where(falls, 10.0, 3.0))


@pytest.mark.parametrize(
    ("rain", "read", "open_"),
    [(False, None, True), (True, None, False), (False, 17.5, False), (False, 13.0, True)],
    ids=["the air alone", "rain soaked it", "read too wet", "read dry"],
)
def test_unread_wood_in_damp_air_asks_for_the_meter_and_what_is_read_or_soaked_closes(
    rain: bool, read: float | None, open_: bool
) -> None:
    """Painters there do paint: by its equilibrium with the air alone siding was closed for 115 h of such a July."""
    climate = climate_of(_damp_july(rain), NORTHERN, walls(SOUTH))
    at = 73 * STEPS_PER_HOUR
    events = () if read is None else (MoistureEvent(climate.steps.start + (at - 6) * STEP_S, read),)
    limit = Limit(15.0, "%", "a test")
    predicted, judged = through(climate, events), Damp(limit, events).pct(climate)
    assert predicted is not None and judged is not None
    assert read is not None or predicted.pct[0, at] > 15.0, "by its air it would be too wet"
    assert bool(judged[0, at] <= 15.0) is open_


def test_the_benefit_of_the_doubt_is_for_the_air_and_not_for_rain() -> None:
    climate = climate_of(_rain(4.0, 6, SOUTH), NORTHERN, walls(SOUTH))
    judged, found = Damp(Limit(15.0, "%", "a test")).pct(climate), through(climate)
    assert judged is not None and found is not None
    before, after, later = (int(h * STEPS_PER_HOUR) for h in (59, 66, 240))
    given = found.pct[0] - judged[0]
    assert given[before] == pytest.approx(found.half_band[0, before])
    assert given[after] < 0.3 < given[later]
