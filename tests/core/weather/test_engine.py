"""The engine: compiled loops and their plain twins, members of a forecast, machine code that is never an old one."""

import os
import shutil
import subprocess
import sys
from dataclasses import fields, replace
from functools import cache
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.weather.film.drying import reached, reached_plainly
from amber_gable.core.weather.futures import members
from amber_gable.core.weather.futures.members import QUANTILES, RULE_IDS, Coat, odds
from amber_gable.core.weather.judged.extremes import least_over, least_plainly
from amber_gable.core.weather.outdoors import sun
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall import compiled
from amber_gable.core.weather.wall.compiled import PLAIN, engine
from amber_gable.core.weather.wall.slot_climate import Place, PlaceWeather, place_weather, surfaces_through
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.house.exposure import HorizonPoint
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.progress import Cancelled
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import Policy
from tests.weather_cases import FULL_DAY, NORTH, SOUTH, real_year, utc

BEGIN = utc("2025-03-12")
PLACE = Place(36.1, -79.95, 273.0, BEGIN.tzinfo)  # type: ignore[arg-type]
TREES = (HorizonPoint(azimuth_deg=150, elevation_deg=30), HorizonPoint(azimuth_deg=250, elevation_deg=5))
SURFACES = (
    FaceSurface(NORTH, 90.0, substrate("wood-lap"), 0.4),
    FaceSurface(SOUTH, 90.0, substrate("brick"), 0.7, horizon=TREES),
    FaceSurface(SOUTH, 20.0, substrate("metal-roof"), 0.8),
)
PRODUCTS = ("exterior-acrylic-standard", "peel-bonding-primer")
COATS = [Coat(s, generic_product(p), Method.BRUSH) for s in SURFACES for p in PRODUCTS]


@cache
def week() -> WeatherSeries:
    """Rain, frost and sun of a real March."""
    return replace(stretch(real_year(), BEGIN.date(), 3), typical_year=False)


def drawn(count: int) -> list[WeatherSeries]:
    """That week, warmer and colder, drier and windier."""
    chance = np.random.default_rng(11)
    return [
        replace(
            week(),
            air_c=week().air_c + chance.normal(2, 3),
            rh_pct=np.clip(week().rh_pct + chance.normal(0, 8), 5, 100),
            wind_ms=week().wind_ms * chance.uniform(0.5, 1.5),
            rain_mm=None if week().rain_mm is None else np.roll(week().rain_mm, int(chance.integers(-6, 6))),
        )
        for _ in range(count)
    ]


def test_without_compiled_loops_the_numbers_are_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    """From the weather to the windows; what compares with a limit may differ by nothing at all."""
    assert engine() == "compiled", "numba is among what the program installs"

    def everything() -> list[np.ndarray]:
        weather, out = place_weather(PLACE, week(), BEGIN, 3), []
        for surface in surfaces_through(weather, SURFACES):
            windows = surface.coat(generic_product(PRODUCTS[0]), Method.BRUSH, Policy(), FULL_DAY)
            assert windows.recoat_at is not None and windows.rain_ready_at is not None
            out += [surface.climate.surface, surface.climate.water_film, windows.rain_ready_at, windows.recoat_at]
            out += [c.value for c in windows.checks]
            out.append(windows.ok)
        return out

    fast = everything()
    monkeypatch.setenv(PLAIN, "1")
    assert engine() == "plain"
    for one, other in zip(fast, everything(), strict=True):
        if one.dtype == bool:
            assert (one == other).all()
        else:
            known = np.isfinite(one)
            assert (known == np.isfinite(other)).all()
            # Times are seconds since 1970: their last digit is a tenth of a microsecond.
            assert np.abs(one[known] - other[known]).max(initial=0) < (1e-9 if np.abs(one[known]).max() < 1e6 else 1e-4)


@given(
    rates=st.lists(st.floats(0, 3), min_size=2, max_size=40),
    laid=st.lists(st.integers(0, 40), min_size=1, max_size=8),
    hours=st.floats(0.05, 6),
)
def test_a_stage_is_reached_when_a_look_at_every_step_finds_it(
    rates: list[float], laid: list[int], hours: float
) -> None:
    """Laid in any order, also at the end of the weather, also where the clock stands."""
    clock = np.concatenate([[0.0], np.cumsum(rates)])[None, :]
    at = np.array([min(n, len(rates)) for n in laid])
    found = reached(clock, at, hours)
    assert np.array_equal(found, reached_plainly(clock, at, hours))
    for when, n in zip(found[0], at, strict=True):
        if np.isinf(when):
            assert clock[0, -1] - clock[0, n] < hours
        else:
            assert np.interp(when, np.arange(clock.shape[1]), clock[0]) == pytest.approx(clock[0, n] + hours, abs=1e-6)


def test_stretches_go_with_values_as_numpy_broadcasts_them() -> None:
    """One weather for all faces, faces in members, stretches that go back: as the plain way gives it, to the bit."""
    chance = np.random.default_rng(2)
    first = np.sort(chance.integers(0, 90, 12))
    for values, end in (
        (chance.normal(size=100), first + chance.integers(1, 30, (3, 4, 12))),
        (chance.normal(size=(4, 100)), first + chance.integers(1, 30, (3, 4, 12))),
        (chance.normal(size=(3, 4, 100)), first + 5),
    ):
        found = least_over(values, first, end)
        lead = np.broadcast_shapes(values.shape[:-1], end.shape[:-1])
        flat = np.broadcast_to(values, (*lead, 100)).reshape(-1, 100)
        ends = np.broadcast_to(end, (*lead, 12)).reshape(-1, 12)
        expected = least_plainly(flat, np.broadcast_to(first, ends.shape), ends)
        assert np.array_equal(found.reshape(-1, 12), expected)
        assert found.shape == (*lead, 12)


@pytest.mark.parametrize(
    ("latitude", "longitude", "day"), [(45, -62, "2026-03-20"), (-43, 147, "2026-12-21"), (66, 20, "2026-06-21")]
)
def test_the_sun_between_hours_is_where_spa_has_it(latitude: float, longitude: float, day: str) -> None:
    first, hours = int(utc(day).timestamp()), 72
    found = sun.step_positions(first, hours, latitude, longitude, 100.0)
    spa = sun.position(first + STEP_S * np.arange(hours * STEPS_PER_HOUR, dtype=float), latitude, longitude, 100.0)
    assert np.abs(found.elevation - spa.elevation).max() < 3e-5
    assert np.abs((found.azimuth - spa.azimuth + 180) % 360 - 180).max() < 1e-4
    assert np.array_equal(found.day, spa.day)
    assert np.array_equal(found.extraterrestrial, spa.extraterrestrial)


def _singly(weathers: list[WeatherSeries], coat: Coat) -> tuple[np.ndarray, list[str], np.ndarray]:
    """Share, binding rule and middle rain-ready time, counted one member after the other."""
    held, stops, ready = [], [], []
    for series in weathers:
        (surface,) = surfaces_through(place_weather(PLACE, series, BEGIN, 3), [coat.surface])
        windows = surface.coat(coat.product, coat.method, Policy(), FULL_DAY)
        assert windows.rain_ready_at is not None
        held.append(windows.ok[0])
        stops.append({c.rule.id: c.stops[0] for c in windows.checks})
        ready.append(windows.rain_ready_at[0])
    counts = {id_: np.sum([s[id_] for s in stops if id_ in s], axis=0) for id_ in RULE_IDS if id_ in stops[0]}
    binding = []
    for s in range(len(held[0])):
        most = max(counts, key=lambda id_: (counts[id_][s], -RULE_IDS.index(id_)))
        binding.append(most if counts[most][s] else "")
    middle = np.sort(ready, axis=0)[int(np.ceil(0.5 * len(weathers))) - 1]
    return np.mean(held, axis=0), binding, middle


def test_odds_are_what_one_member_after_the_other_gives(monkeypatch: pytest.MonkeyPatch) -> None:
    """Seven members in blocks of three; every coat on every surface."""
    monkeypatch.setattr(members, "BLOCK", 3)
    weathers = drawn(7)
    found = odds(place_weather(PLACE, weathers, BEGIN, 3), COATS, Policy(), FULL_DAY)
    assert any(0 < share < 1 for o in found for share in o.share), "members that differ"
    for coat, one in zip(COATS, found, strict=True):
        share, binding, middle = _singly(weathers, coat)
        assert one.share == pytest.approx(share, abs=1e-12)
        assert [RULE_IDS[n] if n >= 0 else "" for n in one.binds] == binding
        assert np.array_equal(np.isinf(one.rain_ready_at[1]), np.isinf(middle))
        known = np.isfinite(middle)
        assert np.abs(one.rain_ready_at[1][known] - middle[known]).max(initial=0) < 1e-3
        for times in (one.touch_at, one.rain_ready_at, one.recoat_at):
            assert len(times) == len(QUANTILES) and (times[0] <= times[1]).all() and (times[1] <= times[2]).all()


def test_one_weather_is_a_forecast_of_one_member() -> None:
    (alone,) = odds(place_weather(PLACE, week(), BEGIN, 3), COATS[:1], Policy(), FULL_DAY)
    (single,) = odds(place_weather(PLACE, [week()], BEGIN, 3), COATS[:1], Policy(), FULL_DAY)
    for field in fields(alone):
        assert np.array_equal(getattr(alone, field.name), getattr(single, field.name)), field.name
    assert set(alone.share) <= {0.0, 1.0}


def test_members_that_do_not_match_are_refused() -> None:
    other = replace(week(), rain_mm=None)
    with pytest.raises(NoClimate, match="same hours"):
        place_weather(PLACE, [week(), other], BEGIN, 3)


def test_long_work_tells_how_far_it_is_and_stops_when_told() -> None:
    weather: PlaceWeather = place_weather(PLACE, drawn(2), BEGIN, 3)
    told: list[float] = []

    def until_the_first(share: float, words: str) -> None:
        told.append(share)
        if share > 0:
            raise Cancelled

    with pytest.raises(Cancelled):
        odds(weather, COATS, Policy(), FULL_DAY, until_the_first)
    assert told == [0.0, pytest.approx(1 / len(SURFACES))]


LOOP = """
import numpy as np
from a.core.weather.wall.compiled import Loop, engine
from a.core.weather.wall.constants import FIGURE

def _loop(out):
    for n in range(out.size):
        out[n] = FIGURE

LOOP = Loop(_loop, "w1")
if __name__ == "__main__":
    out = np.zeros(1)
    code = LOOP.code
    (code or _loop)(out)
    print(engine(), out[0])
"""


def test_machine_code_of_an_older_version_is_not_used(tmp_path: Path) -> None:
    """A constant that a loop takes from another file is changed: numba by itself would run the old code."""
    here = tmp_path / "a" / "core" / "weather" / "wall"
    here.mkdir(parents=True)
    (tmp_path / "a" / "domain").mkdir()
    (tmp_path / "a" / "domain" / "grid.py").write_text("")
    shutil.copy(str(compiled.__file__), here / "compiled.py")
    (here / "loop.py").write_text(LOOP)

    def run(**environment: str) -> str:
        read = [sys.executable, "-m", "a.core.weather.wall.loop"]
        return subprocess.run(
            read, cwd=tmp_path, env=os.environ | environment, check=True, capture_output=True, text=True
        ).stdout.strip()

    places = []
    for figure in ("1.0", "2.0"):
        (here / "constants.py").write_text(f"FIGURE = {figure}\n")
        assert run() == f"compiled {figure}"
        places.append({p.name for p in (here / "__pycache__").glob("loops-*")})
    assert len(places[1]) == 1 and places[0] != places[1], "the older is thrown away"
    (tmp_path / "numba.py").write_text("raise ImportError('not installed')\n")
    assert run() == "plain 2.0", "without numba it runs all the same"
