"""What befalls a film: rain, dew, cold, frost, heat and dust, each with when and how badly; and a year's outlook."""

from collections.abc import Callable
from dataclasses import replace
from datetime import timedelta
from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest

from amber_gable.core.weather.film.drying import stage_rates
from amber_gable.core.weather.film.film_events import FilmEvent, film_events
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.core.weather.judged.outlook import WEEK_D, outlook
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.domain.grid import STEPS_PER_HOUR
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.weather.severity import Severity
from amber_gable.domain.work.working import Policy
from amber_gable.exchange.weather.any_file import read_weather
from tests.weather_cases import (
    NORTH,
    NORTHERN,
    SOUTH,
    TMY3,
    TMY3_NO_RAIN,
    WEST,
    climate_of,
    day_slots,
    real_year,
    steady,
    utc,
    walls,
    windows_of,
)

FIRST = utc("2026-06-08")
LAID_H = 39
Change = Callable[[WeatherSeries], WeatherSeries]


LOOSEST = Policy(sun="temperature", hold="touch-dry", dew="touch-dry", rain="face", recoat="film")


@pytest.mark.parametrize("code", ["exterior-acrylic-standard", "alkyd-gloss", "elastomeric-wall"])
@pytest.mark.parametrize("policy", [Policy(), LOOSEST], ids=["usual schools", "loosest schools"])
@pytest.mark.parametrize("year", [TMY3, TMY3_NO_RAIN], ids=["inland", "coast"])
def test_no_slot_is_open_whose_own_film_is_spoiled(code: str, policy: Policy, year: Path) -> None:
    """46 of 174 open slots of a spring carried a frost before rain-ready, 271 of 349 of a June a boiling oil film."""
    series, product, found = read_weather(year.read_text(), year.name), generic_product(code), []
    series = replace(series, rain_mm=None if series.rain_mm is None else np.nan_to_num(series.rain_mm))
    for begin in ("2025-04-01", "2025-06-05", "2025-10-01"):
        place = (series.latitude or 0.0, series.longitude or 0.0, series.utc_offset_h)
        climate = climate_of(stretch(series, utc(begin).date(), 24), place, walls(SOUTH, NORTH, absorptance=0.7))
        slots = day_slots(climate.steps, utc(begin), 24, series.utc_offset_h)
        windows = windows_of(climate, slots, code, policy=policy)
        rates, limits = stage_rates(climate, product), coat_limits(product, policy)
        for face in range(2):
            one, clocks = climate.rows([face]), rates.rows([face])
            for slot in np.flatnonzero(windows.ok[face])[::3].tolist():
                events = film_events(one, product, clocks, limits, int(slots.end[slot]))
                found += [(begin, face, slot, e.kind) for e in events if e.severity is Severity.SPOILS]
    assert not found, (len(found), found[:5])


def _between(name: str, value: float, first: int, end: int) -> Change:
    """That quantity has that value in those hours after the laying."""

    def change(series: WeatherSeries) -> WeatherSeries:
        column = np.array(getattr(series, name))
        column[LAID_H + first : LAID_H + end] = value
        return replace(series, **{name: column})

    return change


def _befalls(change: Change, code: str, absorptance: float = 0.0, cloud: float = 1.0) -> list[FilmEvent]:
    base = steady(FIRST, 120, cloud=cloud, wind_ms=3.0, wind_from_deg=WEST)
    climate = climate_of(change(base), NORTHERN, walls(WEST, absorptance=absorptance))
    product = generic_product(code)
    limits = coat_limits(product, Policy())
    return film_events(climate, product, stage_rates(climate, product), limits, LAID_H * STEPS_PER_HOUR)


ACRYLIC, OIL = "exterior-acrylic-standard", "alkyd-gloss"
CASES = [
    # what happens, product, kind, severity, hours after the laying when it begins and ends.
    # Rain and grit come with the hour itself; cold passes through the boards, which follow the air within half an hour.
    ("nothing", lambda s: s, ACRYLIC, None, None, 0.0, 0.0),
    ("rain within the hour", _between("rain_mm", 2.0, 1, 2), ACRYLIC, "rain", Severity.SPOILS, 1.0, 2.0),
    ("rain when it is half way", _between("rain_mm", 2.0, 2, 3), ACRYLIC, "rain", Severity.HARMS, 2.0, 3.0),
    ("rain when it is ready", _between("rain_mm", 2.0, 12, 14), ACRYLIC, None, None, 0.0, 0.0),
    ("a cold snap before it is dry", _between("air_c", 4.0, 0, 5), ACRYLIC, "cold", Severity.SPOILS, 0.0, 5.0),
    ("the same on oil", _between("air_c", 4.0, 0, 9), OIL, "cold", Severity.MARKS, 0.0, 9.0),
    ("frost", _between("air_c", -6.0, 0, 9), ACRYLIC, "frost", Severity.SPOILS, 0.0, 9.0),
    ("wind with grit", _between("wind_ms", 12.0, 0, 6), OIL, "dust", Severity.MARKS, 0.0, 6.0),
]


@pytest.mark.parametrize(
    ("change", "code", "kind", "severity", "after_h", "over_h"), [c[1:] for c in CASES], ids=[c[0] for c in CASES]
)
def test_what_befalls_a_film(
    change: Change, code: str, kind: str | None, severity: Severity | None, after_h: float, over_h: float
) -> None:
    found = _befalls(change, code)
    if kind is None:
        assert found == []
        return
    event = next(e for e in found if e.kind == kind)
    assert event.severity is severity, event.words
    laid = FIRST.timestamp() + LAID_H * 3600
    begins, ends = (event.at - laid) / 3600, (event.until - laid) / 3600
    if kind in ("rain", "dust"):
        assert (begins, ends) == pytest.approx((after_h, over_h))
    else:
        assert after_h <= begins <= after_h + 0.5 and abs(ends - over_h) <= 0.5


def test_a_wall_that_the_sun_comes_round_to_heats_its_film() -> None:
    """Laid in the shade at eleven; by three the west wall is past the limit while the oil is still soft."""
    events = _befalls(_between("air_c", 30.0, 0, 12), OIL, absorptance=0.9, cloud=0.0)
    heat = next(e for e in events if e.kind == "heat")
    assert heat.value > generic_product(OIL).surface_max_c and heat.unit == "°C"
    assert heat.severity is Severity.SPOILS, "an oil film that skins over wrinkles"


def test_dew_dulls_what_is_still_soft() -> None:
    def clear_night(series: WeatherSeries) -> WeatherSeries:
        return replace(series, cloud=np.zeros(120), rh_pct=np.full(120, 93.0), wind_ms=np.full(120, 0.5))

    dew = next(e for e in _befalls(clear_night, OIL) if e.kind == "dew")
    assert dew.value > 10.0 and dew.severity in (Severity.MARKS, Severity.HARMS)


def test_a_year_tells_its_months_its_coats_and_its_best_weeks() -> None:
    year = real_year()
    part = replace(year.take(np.arange(59 * 24, 59 * 24 + 75 * 24), year.start + 59 * 86400), typical_year=False)
    climate = climate_of(part, (36.1, -79.95, -5.0), walls(0.0, WEST))
    slots = day_slots(climate.steps, utc("2001-03-01"), 61, -5.0)
    windows = windows_of(climate, slots)
    for face in (0, 1):
        found = outlook(windows, face)
        assert [m.month for m in found.months] == [3, 4]
        assert sum(m.workable_h for m in found.months) == pytest.approx(found.workable_h)
        assert found.workable_h == pytest.approx(windows.ok[face].sum() * slots.length_h)
        for month in found.months:
            assert 0 < month.coats * 2 <= month.workable_h, "each takes two hours of them"
        weeks = sorted(found.best_weeks, key=lambda w: w.first)
        assert all(b.first - a.first >= timedelta(days=WEEK_D) for a, b in pairwise(weeks))
        hours = [w.workable_h for w in found.best_weeks]
        assert hours == sorted(hours, reverse=True) and len(hours) > 1
    assert outlook(windows, 0).workable_h > outlook(windows, 1).workable_h, "the shaded wall has more"
