"""Rows of the speed table that concern the engine: one house, many members, many jobs, beside a plain-numpy and a
scalar computation of the same."""

import os
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from datetime import datetime
from functools import cache
from pathlib import Path

import numpy as np

from amber_gable.core.weather.futures.ensemble import drawn_weather
from amber_gable.core.weather.futures.members import Coat, odds
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall import balance, surface
from amber_gable.core.weather.wall.compiled import PLAIN
from amber_gable.core.weather.wall.slot_climate import Place, PlaceWeather, place_weather, surfaces_through
from amber_gable.core.weather.wall.surface import FaceSurface, surface_climate
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from tests.jobs import coopers_rise
from tests.weather_cases import real_year

BEGIN = datetime.fromisoformat("2025-09-15T00:00-05:00")
DAYS = 9
"""With two days before and five after: sixteen days of weather."""
PLACE = Place(36.1, -79.95, 273.0, BEGIN.tzinfo)  # type: ignore[arg-type]
MIB = 2**20
Row = tuple[str, float, str, float | None]
"""What, figure, its unit, target."""


def house() -> list[FaceSurface]:
    """Twenty-four surfaces, each looking another way."""
    kinds = list(SUBSTRATES.values())
    return [FaceSurface(15.0 * n, 90.0 if n % 4 else 22.0, kinds[n % len(kinds)], 0.3 + 0.02 * n) for n in range(24)]


@cache
def fortnight() -> WeatherSeries:
    return replace(stretch(real_year(), BEGIN.date(), DAYS), typical_year=False)


def members(count: int, seed: int = 3) -> list[WeatherSeries]:
    """Made members: warmer and colder, drier, windier. What a forecast's would be is not the question here."""
    chance, base = np.random.default_rng(seed), fortnight()
    return [
        replace(
            base,
            air_c=base.air_c + chance.normal(0, 1.5),
            rh_pct=np.clip(base.rh_pct + chance.normal(0, 5, len(base)), 5, 100),
            wind_ms=base.wind_ms * chance.uniform(0.6, 1.4),
        )
        for _ in range(count)
    ]


def one_house() -> None:
    surfaces_through(place_weather(PLACE, fortnight(), BEGIN, DAYS), house())


def first_futures() -> None:
    """All that a page waits for the first time: fifty futures drawn around a forecast, 24 surfaces judged in each."""
    ensemble(drawn_weather(PLACE, fortnight(), BEGIN, 10, 50))


def ensemble(weather: PlaceWeather) -> None:
    """Stages and rules of a coat on every surface in every member, reduced."""
    bundle = coopers_rise()
    coats = [Coat(s, bundle.products[1 + n % 3], Method.BRUSH) for n, s in enumerate(house())]
    odds(weather, coats, bundle.policy, bundle.job.crew)


@contextmanager
def plain() -> Iterator[None]:
    os.environ[PLAIN] = "1"
    try:
        yield
    finally:
        del os.environ[PLAIN]


def least_ms(run: Callable[[], object], repeats: int) -> float:
    """For ratios: the least is what the computation itself takes."""
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        run()
        times.append(1000 * (time.perf_counter() - start))
    return min(times)


def engine_rows(median_ms: Callable[[Callable[[], object], int], float]) -> list[Row]:
    one_house()
    compiled = median_ms(one_house, 15)
    fast, slow = (_climate_alone(), _climate_alone(plainly=True))
    out: list[Row] = [
        ("one house, 24 surfaces × 16 days, from the weather on", compiled, "ms", 30),
        ("first futures of a house: 50 drawn, 24 coats judged", median_ms(first_futures, 5) / 1000, "s", 1.5),
        ("the same in plain numpy, times as long", _plain_house() / compiled, "×", None),
        ("its surfaces alone, plain numpy, times as long", slow / fast, "×", None),
        ("one surface × 2 days, scalar loop, times as long", _scalar_ratio(), "×", None),
    ]
    return out + _ensembles()


def _plain_house() -> float:
    with plain():
        return least_ms(one_house, 3)


def _climate_alone(*, plainly: bool = False) -> float:
    steps, surfaces = place_weather(PLACE, fortnight(), BEGIN, DAYS).steps, tuple(house())
    if not plainly:
        return least_ms(lambda: surface_climate(steps, surfaces), 9)
    with plain():
        return least_ms(lambda: surface_climate(steps, surfaces), 3)


def _scalar_ratio() -> float:
    """The loop as Python runs it, step by step, against its machine code, on the drive of one surface."""
    steps = place_weather(PLACE, fortnight(), BEGIN, DAYS).steps
    seen: list[tuple[object, ...]] = []
    stepped = surface.step_through
    surface.step_through = lambda *given: seen.append(given) or stepped(*given)  # type: ignore[assignment, func-returns-value]
    try:
        surface_climate(steps, (house()[1],))
    finally:
        surface.step_through = stepped
    drive, count = seen[0][0], 288
    assert isinstance(drive, balance.Balance)
    arrays = [getattr(drive, name) for name in drive.__dataclass_fields__]

    def run(loop: Callable[..., None]) -> None:
        out = [np.empty((count, 1)) for _ in range(3)]
        loop(*arrays, np.full(1, 15.0), np.zeros(1), *out, count)

    code = balance.LOOP.code
    return least_ms(lambda: run(balance.LOOP.function), 3) / least_ms(lambda: run(code), 30) if code else 1.0


def _ensembles() -> list[Row]:
    idle = _memory()
    made = {count: place_weather(PLACE, members(count), BEGIN, DAYS) for count in (1, 50, 200)}
    took = {count: least_ms(lambda w=weather: ensemble(w), 2) / 1000 for count, weather in made.items()}
    del made
    weather, peak = place_weather(PLACE, members(50), BEGIN, DAYS), 0.0
    _reset_peak()
    before = _memory()
    ensemble(weather)
    peak = _memory("VmHWM") - before
    start, held = time.perf_counter(), []
    for job in range(12):
        ensemble(place_weather(PLACE, members(50, seed=job), BEGIN, DAYS))
        held.append(_memory())
    jobs = time.perf_counter() - start
    return [
        ("50 members of it, stages and rules reduced", took[50], "s", 1.0),
        ("memory that takes beside its weather, at most", peak, "MiB", None),
        ("memory above the idle program meanwhile", _memory("VmHWM") - idle, "MiB", 300),
        ("200 members, times as long as 50", took[200] / took[50], "×", None),
        ("each of 50 members, share of one alone", took[50] / 50 / took[1], "×", None),
        ("12 jobs × 50 members", jobs, "s", 8.0),
        ("memory after the twelfth above that after the third", held[-1] - held[2], "MiB", None),
    ]


def _memory(what: str = "VmRSS") -> float:
    """Of this process, MiB, as Linux counts it."""
    line = next(n for n in Path("/proc/self/status").read_text().splitlines() if n.startswith(what))
    return int(line.split()[1]) / 1024


def _reset_peak() -> None:
    Path("/proc/self/clear_refs").write_text("5")
