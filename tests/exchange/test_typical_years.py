"""EPW and TMY3: read true, and refused with the line when they are cut or impossible."""

from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from functools import cache

import numpy as np
import pytest

from amber_gable.core.weather.outdoors.sun import step_positions
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.errors import InputError
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.working import Policy
from amber_gable.exchange.weather.any_file import read_weather
from amber_gable.exchange.weather.present_weather import (
    HEAVY,
    LIGHT,
    MODERATE,
    SNOW_HEAVY,
    SNOW_LIGHT,
    SNOW_MODERATE,
    epw_codes,
    synoptic_code,
)
from tests.weather_cases import FULL_DAY, TMY3, TMY3_NO_RAIN, real_year

DAY_STEPS = 24 * STEPS_PER_HOUR
EPW_HEAD = [
    "LOCATION,Made Town,-,-,made,000000,45.000,8.000,1.0,250.0",
    *(f"{name},0" for name in ("DESIGN CONDITIONS", "TYPICAL/EXTREME PERIODS", "GROUND TEMPERATURES")),
    "HOLIDAYS/DAYLIGHT SAVINGS,No,0,0,0",
    "COMMENTS 1,made for a test",
    "COMMENTS 2,-",
    "DATA PERIODS,1,1,Data,Sunday, 1/ 1,12/31",
]


@cache
def sun_heights(later_min: int = 0) -> np.ndarray:
    """Mean sine of the sun's height over each hour of the made year, or over hours so many minutes later."""
    first = datetime(2000, 12, 31, 23, tzinfo=UTC).timestamp() + 60 * later_min
    elevation = step_positions(int(first) + STEP_S // 2, 8760, 45.0, 8.0, 250.0).elevation
    return np.maximum(np.sin(np.radians(elevation)), 0.0).reshape(8760, -1).mean(axis=1)


@cache
def epw(change: Callable[[int, list[str]], None] | None = None) -> str:
    """A made EPW year: rows carry several years, as typical years do. `change` edits the fields of an hour."""
    lines = list(EPW_HEAD)
    heights = sun_heights()
    for h in range(8760):
        t = datetime(2001, 1, 1, tzinfo=UTC) + timedelta(hours=h)
        fields = ["0"] * 35
        fields[:5] = [str(2005 + t.month % 5), str(t.month), str(t.day), str(t.hour + 1), "0"]
        fields[5] = "?9?9?9"
        air = 12 + 10 * np.sin(2 * np.pi * (h - 2900) / 8760)
        fields[6:9] = [f"{air:.1f}", f"{air - 4:.1f}", "75"]
        fields[12:16] = ["320", *sunshine(heights[h])]
        fields[20:23] = ["180", "2.5", "4"]
        fields[26:28] = ["0", "999999999"]
        fields[33] = "1.2" if t.day == 5 and 10 <= t.hour < 14 else "0.0"
        if change:
            change(h, fields)
        lines.append(",".join(fields))
    return "\n".join(lines) + "\n"


def sunshine(height: float) -> list[str]:
    """Global, direct and diffuse of a fair sky that close at that sine of the sun's height."""
    direct, diffuse = (600.0, 80.0) if height > 0.05 else (0.0, 800.0 * height)
    return [f"{value:.0f}" for value in (direct * height + diffuse, direct, diffuse)]


def test_an_epw_is_read_with_its_place_and_all_columns() -> None:
    series = read_weather(epw(), "made.epw")
    assert (series.latitude, series.longitude, series.utc_offset_h, series.altitude_m) == (45.0, 8.0, 1.0, 250.0)
    assert series.typical_year
    assert len(series) == 8760
    assert series.start_time == datetime(2000, 12, 31, 23, tzinfo=UTC)
    assert series.rain_mm is not None
    assert series.rain_mm.sum() == pytest.approx(12 * 4 * 1.2)
    assert series.cloud is not None
    assert series.cloud.max() == pytest.approx(0.4)
    assert series.ir_down is not None
    assert series.notes == ()


@pytest.mark.parametrize("later_min", [45, -30])
def test_sunshine_that_stands_off_its_label_is_found_by_its_closure_and_said(later_min: int) -> None:
    """Its light then lies where the sun makes direct × sine + diffuse the global, whatever the label says."""
    heights = sun_heights(later_min)

    def moved(h: int, fields: list[str]) -> None:
        fields[13:16] = sunshine(heights[h])

    series = read_weather(epw(moved), "moved.epw")
    assert series.light_offset_min == later_min
    side = "later" if later_min > 0 else "earlier"
    assert any(f"{abs(later_min)} minutes {side} than its label" in note for note in series.notes)
    steps = to_steps(series, 45.0, 8.0, 250.0)
    shift = later_min * 60 // STEP_S
    june = slice(160 * DAY_STEPS + shift, 170 * DAY_STEPS + shift)
    means = steps.light.ghi[june].reshape(-1, STEPS_PER_HOUR).mean(axis=1)
    assert series.ghi is not None
    assert np.abs(means - series.ghi[160 * 24 : 170 * 24]).max() < 20


def test_direct_sunshine_that_closes_nowhere_is_not_used_and_said() -> None:
    def doubled(_: int, fields: list[str]) -> None:
        fields[14] = str(2 * int(fields[14]))

    series = read_weather(epw(doubled), "doubled.epw")
    assert series.dni is None and series.ghi is not None
    assert any("direct sunshine is not used" in note for note in series.notes)


def test_air_and_wind_of_a_typical_year_are_those_at_the_label_and_rain_that_of_the_hour_before() -> None:
    def noon(h: int, fields: list[str]) -> None:
        fields[6], fields[21] = ("25.0", "9") if h % 24 == 11 else ("15.0", "2")
        fields[7], fields[8] = "5.0", "50"
        fields[33] = "2.0" if h % 24 == 11 else "0.0"

    series = read_weather(epw(noon), "noon.epw")
    steps = to_steps(series, 45.0, 8.0, 250.0)
    day, noon = slice(100 * DAY_STEPS, 101 * DAY_STEPS), 12 * STEPS_PER_HOUR
    # Label 12:00: at the boundary between the steps that end and begin then; its rain fell from 11 to 12.
    assert np.argmax(steps.air[day]) in (noon - 1, noon) and np.argmax(steps.wind[day]) in (noon - 1, noon)
    assert steps.rain is not None
    assert np.flatnonzero(steps.rain[day]).tolist() == list(range(noon - STEPS_PER_HOUR, noon))


def _gone(*columns: int, value: str) -> Callable[[int, list[str]], None]:
    def change(_: int, fields: list[str]) -> None:
        for c in columns:
            fields[c] = value

    return change


def test_an_epw_without_rain_says_so_and_takes_weather_codes_where_it_has_them() -> None:
    dry = read_weather(epw(_gone(33, value="999")), "dry.epw")
    assert dry.rain_mm is None
    assert "holds no rain" in dry.notes[0]

    def coded(h: int, fields: list[str]) -> None:
        fields[33] = "999"
        fields[27] = "919999999" if h % 100 == 0 else "999999999"

    series = read_weather(epw(coded), "coded.epw")
    assert series.rain_mm is not None
    assert set(np.unique(series.rain_mm)) == {0.0, MODERATE}
    assert "rough" in series.notes[0]


def test_missing_humidity_comes_from_the_dew_point_and_missing_cloud_from_the_light() -> None:
    full = read_weather(epw(), "full.epw")
    series = read_weather(epw(_gone(8, value="999")), "dew.epw")
    assert series.rh_pct.mean() == pytest.approx(full.rh_pct.mean(), abs=5)
    clear = read_weather(epw(_gone(22, value="99")), "cloud.epw")
    assert clear.cloud is None
    assert "bright" in clear.notes[0]


def _line(text: str, number: int, new: str | None) -> str:
    lines = text.splitlines()
    lines[number - 1 : number] = [] if new is None else [new]
    return "\n".join(lines)


# what is done to a good EPW -> words the refusal must hold
BROKEN_EPW: list[tuple[str, Callable[[str], str], list[str]]] = [
    (
        "cut between two lines",
        lambda t: "\n".join(t.splitlines()[:4000]),
        ["line 4000", "ends after 3992 of 8760", "fetch"],
    ),
    ("cut inside a line", lambda t: t[: len(t) // 2], ["the line is cut"]),
    ("a line lost", lambda t: _line(t, 500, None), ["line 500", "expected"]),
    ("no location", lambda t: _line(t, 1, "HELLO,1"), ["column 'time' is missing"]),
    ("location cut", lambda t: _line(t, 1, "LOCATION,x,y"), ["line 1", "LOCATION"]),
    ("no data line", lambda t: t.replace("DATA PERIODS", "DATA"), ["DATA PERIODS"]),
    ("letters for a number", lambda t: t.replace("8.0,75,", "8.0,wet,", 1), ["'wet' is not a number", "line"]),
    ("humidity of 140", lambda t: t.replace(",75,", ",140,", 1), ["relative humidity 140", "line 9"]),
    ("wind of 300 m/s", lambda t: t.replace(",180,2.5,", ",180,300,", 1), ["wind speed 300 m/s"]),
]


@pytest.mark.parametrize(("spoil", "words"), [b[1:] for b in BROKEN_EPW], ids=[b[0] for b in BROKEN_EPW])
def test_a_broken_epw_is_refused_with_its_line(spoil: Callable[[str], str], words: list[str]) -> None:
    with pytest.raises(InputError) as refused:
        read_weather(spoil(epw()), "broken.epw")
    assert str(refused.value).startswith("broken.epw")
    for word in words:
        assert word in str(refused.value)


def test_a_long_gap_is_refused_and_a_short_one_bridged() -> None:
    def gap(hours: int) -> Callable[[int, list[str]], None]:
        def change(h: int, fields: list[str]) -> None:
            if 100 <= h < 100 + hours:
                fields[6] = "99.9"

        return change

    series = read_weather(epw(gap(3)), "short.epw")
    assert series.air_c[99] > series.air_c.min() - 1
    assert series.air_c[100:103].max() < 20
    with pytest.raises(InputError, match="air temperature is missing for 12 hours running"):
        read_weather(epw(gap(12)), "long.epw")


def test_the_tmy3_year_of_a_real_station() -> None:
    series = real_year()
    assert (series.latitude, series.longitude, series.utc_offset_h) == (36.1, -79.95, -5.0)
    assert series.rain_mm is not None
    # Its column holds tenths of a millimetre under a heading of mm: 834.5 mm in the year, not 8345.
    assert series.rain_mm.sum() == pytest.approx(834.5)
    assert series.notes == ()


def test_an_hour_without_sunshine_is_bridged_and_said_and_a_day_without_drops_it_in_words() -> None:
    """One missing hour took the whole column away without a word."""

    def dark(hours: int, field: int) -> Callable[[int, list[str]], None]:
        def change(h: int, fields: list[str]) -> None:
            if 3900 <= h < 3900 + hours:
                fields[field] = "9999"

        return change

    whole, bridged = read_weather(epw(), "whole.epw"), read_weather(epw(dark(2, 13)), "short.epw")
    assert whole.ghi is not None and bridged.ghi is not None
    away = np.abs(bridged.ghi - whole.ghi)
    assert away[3900:3902].max() < 60 and np.delete(away, [3900, 3901]).max() == 0
    assert any("global sunshine is missing in 2 hours, run straight" in n for n in bridged.notes)
    long = read_weather(epw(dark(12, 13)), "long.epw")
    assert long.ghi is None and long.cloud is not None
    assert any("missing in 12 hours, so none of it is used" in n for n in long.notes)
    assert any("diffuse sunshine is missing in 5 hours" in n for n in read_weather(epw(dark(5, 15)), "d.epw").notes)


def test_hours_whose_rain_is_missing_stay_unknown_and_are_counted() -> None:
    """Seven hundred hours that a file leaves out were dry without a word."""

    def lacking(hour: int, fields: list[str]) -> None:
        fields[33] = "999" if 1000 <= hour < 1700 else "0.4"

    series = read_weather(epw(lacking), "gap.epw")
    assert series.rain_mm is not None
    assert np.isnan(series.rain_mm[1000:1700]).all() and np.isfinite(series.rain_mm).sum() == 8760 - 700
    assert any("rain is not known in 700 hours" in n for n in series.notes)


def test_a_station_whose_rain_is_mostly_missing_keeps_the_rain_that_it_has() -> None:
    """268 hours of rain, 302 mm, were dropped because the other hours were not known; these are asked about."""
    series = read_weather(TMY3_NO_RAIN.read_text(), TMY3_NO_RAIN.name)
    assert series.rain_mm is not None
    assert np.isfinite(series.rain_mm).sum() == 268 and np.nansum(series.rain_mm) == pytest.approx(302.2)
    assert any("rain is not known in 8492 hours" in n for n in series.notes)


def test_rain_of_5_mm_an_hour_is_never_open_whatever_else_is_missing() -> None:
    """A fifth of the year without its rain: what is known closes, what is not is asked about (it stood open)."""

    def gappy(hour: int, fields: list[str]) -> None:
        fields[33] = "999" if hour % 5 == 0 else "5.0" if 4000 <= hour < 4100 else "0.0"

    series = read_weather(epw(gappy), "gappy.epw")
    assert series.rain_mm is not None
    begin = datetime(2026, 6, 16, tzinfo=UTC)
    weather = place_weather(Place(45.0, 8.0, 250.0, UTC), series, begin, 3)
    (wall,) = surfaces_through(weather, [FaceSurface(180.0, 90.0, SUBSTRATES["vinyl-siding"], 0.5)])
    windows = wall.coat(generic_product("exterior-acrylic-standard"), Method.BRUSH, Policy(), FULL_DAY)
    rains = (weather.slots.start + 900 * np.arange(len(weather.slots)))[np.isin(windows.first_letters()[0], ["R", "?"])]
    hours = {int((t - weather.slots.start) // 3600) for t in rains}
    assert windows.ok.sum() == 0 and len(hours) > 24


def test_an_empty_field_under_flag_9_is_a_dry_hour_and_a_year_of_nothing_else_holds_no_rain() -> None:
    """Stations that write down only what they see left 1,132 hours of rain unread."""

    def when_seen(h: int, fields: list[str]) -> None:
        fields[33] = "999"
        fields[26:28] = ["0", "919999999"] if h % 8 == 0 else ["9", "" if h % 2 else "999999999"]

    series = read_weather(epw(when_seen), "seen.epw")
    assert series.rain_mm is not None and np.isfinite(series.rain_mm).all()
    assert series.rain_mm.sum() == pytest.approx(1095 * MODERATE)

    def never(h: int, fields: list[str]) -> None:
        fields[33], fields[26:28] = "999", ["9", "999999999"]

    assert read_weather(epw(never), "never.epw").rain_mm is None


def test_rain_that_was_seen_counts_where_its_depth_is_missing() -> None:
    def seen(hour: int, fields: list[str]) -> None:
        fields[33] = "999" if hour < 100 else "0.4"
        fields[27] = "909999999" if hour == 50 else "999999999"

    rain = read_weather(epw(seen), "seen.epw").rain_mm
    assert rain is not None
    assert rain[50] == LIGHT and np.isnan(rain[:50]).all() and np.isnan(rain[51:100]).all()


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (lambda t: "\n".join(t.splitlines()[:5000]), "ends after 4998 of 8760"),
        (lambda t: t.replace(",Wspd (m/s),", ",Wind,"), "column 'Wspd (m/s)' is missing"),
        (lambda t: t.replace("01/01/1988,02:00", "01/01/1988,xx:00"), "date or time cannot be read"),
        (lambda t: t[: len(t) // 3], "fields of"),
    ],
)
def test_a_broken_tmy3_is_refused(spoil: Callable[[str], str], words: str) -> None:
    with pytest.raises(InputError, match=words.replace("(", r"\(").replace(")", r"\)")):
        read_weather(spoil(TMY3.read_text()), "broken.csv")


@pytest.mark.parametrize(
    ("codes", "rate"),
    [
        ("999999999", 0.0),
        ("909999999", LIGHT),
        ("929999999", HEAVY),
        ("990999999", 0.3),
        ("999099999", SNOW_LIGHT),
        ("999919999", SNOW_MODERATE),
        ("999992999", SNOW_HEAVY),
        ("909299999", SNOW_HEAVY),
        ("999999990", SNOW_LIGHT),
        ("999999499", 0.0),
        ("x", None),
    ],
)
def test_epw_weather_codes(codes: str, rate: float | None) -> None:
    assert epw_codes(codes) == rate


@pytest.mark.parametrize(
    ("code", "rate"),
    [
        (0, 0.0),
        (61, LIGHT),
        (63, MODERATE),
        (65, HEAVY),
        (52, 0.3),
        (80, LIGHT),
        (81, MODERATE),
        (82, HEAVY),
        (95, MODERATE),
        (97, HEAVY),
        (21, LIGHT),
        (29, MODERATE),
        (71, SNOW_LIGHT),
        (75, SNOW_HEAVY),
        (86, SNOW_MODERATE),
        (45, 0.0),
        (10, 0.0),
        (-9900, None),
    ],
)
def test_synoptic_codes(code: int, rate: float | None) -> None:
    assert synoptic_code(code) == rate
