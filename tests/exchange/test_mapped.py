"""Feeds and loggers read by a mapping: made-up documents of many shapes, and what is said of those that cannot be."""

import json
from datetime import UTC, datetime, timedelta, timezone
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.feed import UNITS, MappedColumn, Mapping, TimeForm, WeatherQuantity
from amber_gable.exchange.weather.json_paths import lists_in, values_at
from amber_gable.exchange.weather.mapped import forecast_of, observed_of, read_rows, sample_of
from amber_gable.exchange.weather.mapping_guess import guessed

TZ = timezone(timedelta(hours=-3))
NOON = datetime(2026, 9, 15, 12, tzinfo=TZ)
T0 = int(NOON.timestamp())
HALIFAX = ZoneInfo("America/Halifax")

TIMES = ["2026-09-15T12:00", "2026-09-15T13:00", "2026-09-15T14:00"]
LISTS = {"at": "quay", "hours": {"t": TIMES, "warm": [50, 59, 68], "w": [36, 18, 0]}}
ROWS = {
    "cells": [
        {"dt": T0, "main": {"air": 283.15, "moist": 0.8}, "wet": {"h1": 1.5}},
        {"dt": T0 + 3600, "main": {"air": 285.15, "moist": 0.7}, "wet": {}},
        {"dt": T0 + 7200, "main": {"air": 287.15, "moist": 0.6}},
    ]
}


def _mapping(kind: str, time: str, form: str = "iso", zone: str = "place", header: int = 1, **columns: str) -> Mapping:
    """Columns as quantity='path|unit'."""
    found = [dict(zip(("path", "unit"), told.split("|"), strict=True), quantity=q) for q, told in columns.items()]
    raw = {"kind": kind, "time": time, "time_form": form, "zone": zone, "header": header, "columns": found}
    return Mapping.model_validate(raw)


def test_paths_find_lists_and_rows_and_keep_what_lacks_in_its_place() -> None:
    assert list(lists_in(LISTS)) == ["hours.t", "hours.warm", "hours.w"]
    assert list(lists_in(ROWS)) == ["cells[].dt", "cells[].main.air", "cells[].main.moist", "cells[].wet.h1"]
    assert values_at(ROWS, "cells[].wet.h1") == [1.5, None, None]
    assert values_at([{"a": 1}, {"a": 2}], "[].a") == [1, 2]
    assert values_at(ROWS, "cells[].main") == [None] * 3
    assert values_at(LISTS, "hours.none") is None and values_at(LISTS, "at[].x") is None


def test_a_feed_of_lists_in_other_units_and_local_times() -> None:
    rows = read_rows(
        json.dumps(LISTS), _mapping("json", "hours.t", air_c="hours.warm|°F", wind_ms="hours.w|km/h"), "f", TZ
    )
    series = forecast_of(rows, TZ, NOON, "Quay")
    assert series.start == T0 and series.issued == T0 and series.utc_offset_h == -3
    assert series.air_c.tolist() == pytest.approx([10, 15, 20]) and series.wind_ms.tolist() == pytest.approx([10, 5, 0])
    assert [n.split(":")[0] for n in series.notes] == ["it holds no humidity", "it holds no cloud", "it holds no rain"]


def test_a_feed_of_rows_in_kelvin_shares_and_seconds_with_rain_told_only_when_it_rains() -> None:
    mapping = _mapping(
        "json", "cells[].dt", "seconds",
        air_c="cells[].main.air|K", rh_pct="cells[].main.moist|0–1", rain_mm="cells[].wet.h1|mm, absent: none",
    )  # fmt: skip
    series = forecast_of(read_rows(json.dumps(ROWS), mapping, "f", TZ), TZ, NOON, "Quay")
    assert series.air_c.tolist() == pytest.approx([10, 12, 14]) and series.rh_pct.tolist() == pytest.approx(
        [80, 70, 60]
    )
    assert series.rain_mm is not None and series.rain_mm.tolist() == [1.5, 0, 0]


def test_the_zone_of_times_without_one_is_the_mappings() -> None:
    for zone, start in (("place", T0), ("UTC", T0 - 3 * 3600), ("America/Halifax", T0)):
        rows = read_rows(json.dumps(LISTS), _mapping("json", "hours.t", zone=zone, air_c="hours.warm|°F"), "f", TZ)
        assert rows.times[0] == start, zone


def test_newest_first_is_turned_round() -> None:
    turned, mapping = (
        {"cells": ROWS["cells"][::-1]},
        _mapping("json", "cells[].dt", "seconds", air_c="cells[].main.air|K"),
    )
    rows = read_rows(json.dumps(turned), mapping, "f", TZ)
    assert rows.times[0] == T0 and rows.columns["air_c"][0] == pytest.approx(10)


LOGGER = """Yard box 3\t
serial;0042
Date/Time;Temp 1 (°C);RH 1 (%);Rain counter (mm);Battery (V)
{lines}
"""


def _logged(first: datetime, count: int, minutes: int = 15) -> str:
    lines = []
    for n in range(count):
        t = first + timedelta(minutes=minutes * n)
        lines.append(f"{t:%d/%m/%Y %H:%M};{10 + n / 10:.1f};70,5;{0.2 * (n // 4):.1f};3,6".replace(".", ","))
    return LOGGER.format(lines="\n".join(lines))


def test_a_logger_with_words_above_its_table_decimal_commas_and_a_rain_counter() -> None:
    text = _logged(datetime(2026, 9, 15, 12, tzinfo=UTC), 16)
    sample = sample_of(text, "csv", "box.csv")
    assert sample.header == 3 and next(iter(sample.columns)) == "Date/Time"
    guess = guessed(sample)
    assert guess == {
        "Date/Time": TimeForm.DAY_FIRST,
        "Temp 1 (°C)": (WeatherQuantity.AIR, "°C"),
        "RH 1 (%)": (WeatherQuantity.HUMIDITY, "%"),
        "Rain counter (mm)": (WeatherQuantity.RAIN, "mm, running total"),
    }
    mapping = _of_guess("csv", guess, header=3)
    seen = observed_of(read_rows(text, mapping, "box.csv", HALIFAX), "Yard box")
    assert seen.start == T0 and len(seen) == 4
    assert seen.air_c.tolist() == pytest.approx([10.15, 10.55, 10.95, 11.35]) and seen.rh_pct[0] == 70.5
    # The counter rises by 0.2 at each full hour; what it stood at when the table begins is of nobody knows when.
    assert seen.rain_mm is not None and seen.rain_mm[1:].tolist() == pytest.approx([0.2, 0.2, 0.2])
    assert np.isnan(seen.wind_ms).all()


def _of_guess(kind: str, guess: dict[str, Any], header: int = 1) -> Mapping:
    time, form = next((p, g) for p, g in guess.items() if isinstance(g, TimeForm))
    columns = {g[0].value: f"{p}|{g[1]}" for p, g in guess.items() if not isinstance(g, TimeForm)}
    return _mapping(kind, time, form.value, header=header, **columns)


def test_hours_of_a_logger_that_are_half_missing_are_not_known() -> None:
    lines = _logged(datetime(2026, 9, 15, 12, tzinfo=UTC), 16).splitlines()
    text = "\n".join(lines[:3] + lines[3:5] + lines[10:])
    mapping = _of_guess("csv", guessed(sample_of(text, "csv", "b")), header=3)
    seen = observed_of(read_rows(text, mapping, "b", HALIFAX), "b")
    assert np.isfinite(seen.air_c).tolist() == [True, False, True, True]


def test_the_hour_that_comes_twice_in_autumn_is_told_apart() -> None:
    clocks = ("00:30", "01:00", "01:30", "01:00", "01:30", "02:00")
    local = [f"2026-11-01 {clock}" for clock in clocks]
    document = {"t": local, "a": [5, 5, 5, 4, 4, 4]}
    rows = read_rows(json.dumps(document), _mapping("json", "t", air_c="a|°C"), "f", HALIFAX)
    assert np.diff(rows.times).tolist() == [1800] * 5


@pytest.mark.parametrize(
    ("names", "expected"),
    [
        (["at.time", "at.air_temperature", "at.rel_humidity", "at.wind_speed", "at.wind_direction"],
         ["iso", "air_c °C", "rh_pct %", "wind_ms m/s", "wind_from_deg ° or letters"]),
        (["when", "air temp °F", "gust mph", "wind mph", "dew pt °F", "precip chance %", "sky eighths"],
         ["iso", "air_c °F", "gust_ms mph", "wind_ms mph", "dew_c °F", "rain_pct %", "cloud eighths"]),
    ],
)  # fmt: skip
def test_a_guess_by_names(names: list[str], expected: list[str]) -> None:
    times = ["2026-09-15T12:00", "2026-09-15T13:00"]
    sample = type("S", (), {"columns": {n: times if i == 0 else [3, 5] for i, n in enumerate(names)}})()
    guess = guessed(sample)
    told = [guess.get(n, "") for n in names]
    assert [g.value if isinstance(g, TimeForm) else f"{g[0].value} {g[1]}" if g else "" for g in told] == expected


def test_a_quotation_mark_left_open_is_said() -> None:
    text = 'time;air\n"2026-09-15 12:00;1\n' + "2026-09-15 13:00;2\n" * 9000
    with pytest.raises(InputError, match="quotation mark left open"):
        sample_of(text, "csv", "box.csv", 1)


BAD: list[tuple[Any, str]] = [
    ("<html>busy</html>", "is a page (HTML), not JSON"),
    ("{", "is not JSON"),
    ({"hours": {}}, "'hours.t' (the time) is not there any more"),
    ({"hours": {"t": TIMES}}, "'hours.warm' (air) is not there any more"),
    ({"hours": {"t": TIMES, "warm": [50, 59]}}, "has 2 values for 3 times"),
    ({"hours": {"t": TIMES, "warm": [50, "x", 68]}}, "hours.warm, row 2: 'x' is not a figure"),
    ({"hours": {"t": TIMES, "warm": [50, 590, 68]}}, "row 2: air 590 °F cannot be"),
    ({"hours": {"t": TIMES, "warm": [50, None, 68]}}, "tells no air at 15 Sep 13:00"),
    ({"hours": {"t": ["2026-09-15T12:00"] * 3, "warm": [50, 59, 68]}}, "does not follow the time before it"),
    ({"hours": {"t": ["noon", "one", "two"], "warm": [50, 59, 68]}}, "row 1, hours.t: 'noon' is not a time"),
    ({"hours": {"t": ["2026-09-15T12:00", "2026-09-16T12:00"], "warm": [50, 59]}}, "leaves out 24 hours"),
]  # fmt: skip


@pytest.mark.parametrize(("document", "words"), BAD, ids=range(len(BAD)))
def test_what_a_feed_may_not_do(document: Any, words: str) -> None:
    text = document if isinstance(document, str) else json.dumps(document)
    with pytest.raises(InputError) as caught:
        forecast_of(read_rows(text, _mapping("json", "hours.t", air_c="hours.warm|°F"), "f", TZ), TZ, NOON, "f")
    assert words in str(caught.value)


@pytest.mark.parametrize(
    ("columns", "words"),
    [
        ({"rh_pct": "a|%"}, "no column is the air"),
        ({"air_c": "a|furlong"}, "'furlong' is not a unit of air"),
        ({"air_c": "a|°C", "rh_pct": "a|%"}, "'a' is taken for two quantities"),
        ({"air_c": "t|°C"}, "'t' is taken for two quantities"),
    ],
)
def test_a_mapping_that_cannot_be(columns: dict[str, str], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        _mapping("json", "t", **columns)


def test_every_unit_turns_a_figure_into_ours() -> None:
    """One figure each, worked out by hand."""
    told = {
        ("air_c", "°F"): (50, 10), ("air_c", "K"): (283.15, 10), ("rh_pct", "0–1"): (0.5, 50),
        ("wind_ms", "km/h"): (36, 10), ("wind_ms", "mph"): (10, 4.4704), ("wind_ms", "kn"): (10, 5.14444),
        ("cloud", "%"): (50, 0.5), ("cloud", "eighths"): (4, 0.5), ("rain_mm", "in"): (0.5, 12.7),
        ("rain_pct", "0–1"): (0.3, 30),
    }  # fmt: skip
    for (quantity, symbol), (theirs, ours) in told.items():
        column = MappedColumn(path="x", quantity=WeatherQuantity(quantity), unit=symbol).of_unit
        assert (theirs + column.offset) * column.factor == pytest.approx(ours, rel=1e-5), symbol
    assert {u.symbol for units in UNITS.values() for u in units} >= {s for _, s in told}


def test_a_quarter_hourly_feed_is_gathered_to_hours() -> None:
    times = [(datetime(2026, 9, 15, 15, tzinfo=UTC) + timedelta(minutes=15 * n)).isoformat() for n in range(12)]
    document = {"t": times, "a": list(range(12)), "r": [0.25] * 12, "g": [4, 9, None, 6] * 3}
    mapping = _mapping("json", "t", air_c="a|°C", rain_mm="r|mm", gust_ms="g|m/s")
    series = forecast_of(read_rows(json.dumps(document), mapping, "f", TZ), TZ, NOON, "f")
    assert series.air_c.tolist() == [1.5, 5.5, 9.5]
    assert series.rain_mm is not None and series.rain_mm.tolist() == [1, 1, 1]
    assert series.gust_ms is not None and series.gust_ms.tolist() == [9, 9, 9], "the strongest of the hour"
