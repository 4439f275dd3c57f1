"""Hours drawn from a typed forecast: the day's low and high are met, moisture persists, rain falls when it was said,
and what may be painted is about what the hours themselves would have said."""

from dataclasses import replace
from datetime import date, datetime, timedelta, timezone, tzinfo
from zoneinfo import ZoneInfo

import numpy as np
import pytest

from amber_gable.core.weather.futures.ensemble import draw_members
from amber_gable.core.weather.outdoors.air import dew_point, vapour_pressure
from amber_gable.core.weather.outdoors.diurnal import NIGHT_AFTER_H, typed_hours
from amber_gable.core.weather.outdoors.typical import stretch
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.weather.typed_forecast import RainKind, TypedDay, TypedForecast, TypedRain
from amber_gable.domain.work.working import Policy
from tests.weather_cases import EAST, FULL_DAY, NORTH, NORTHERN, SOUTH, WEST, real_year

SEPTEMBER = date(2026, 9, 15)
HALIFAX = ZoneInfo("America/Halifax")


def _hours(
    *days: TypedDay, tz: tzinfo = HALIFAX, first: date = SEPTEMBER, lat: float = 45.25, sea: bool = False
) -> WeatherSeries:
    typed = TypedForecast(first=first, days=days, by_the_sea=sea)
    return typed_hours(typed, lat, NORTHERN[1], 12.0, tz, datetime(first.year, first.month, first.day, 6, tzinfo=tz))


def _day(series: WeatherSeries, n: int) -> slice:
    return slice(24 * n, 24 * n + 24)


def test_each_day_comes_to_its_low_before_sunrise_and_to_its_high_after_noon() -> None:
    days = (TypedDay(low_c=8, high_c=19), TypedDay(low_c=11, high_c=16), TypedDay(low_c=3, high_c=21))
    series = _hours(*days)
    assert len(series) == 72 + NIGHT_AFTER_H
    for n, day in enumerate(days):
        air = series.air_c[_day(series, n)]
        assert air[4:9].min() == pytest.approx(day.low_c, abs=0.4), "hours are means: not quite the low itself"
        assert air.max() == pytest.approx(day.high_c, abs=0.3)
        assert 5 <= int(air[3:12].argmin()) + 3 <= 7 and 14 <= int(air.argmax()) <= 16
    assert np.abs(np.diff(series.air_c)).max() < 3.5, "no leap where one day ends and the next begins"
    sea = _hours(*days, sea=True)
    assert sea.air_c[11] > series.air_c[11] and sea.air_c[16] < series.air_c[16], "its warmth comes earlier"
    assert sea.air_c[20] - sea.air_c[29] < series.air_c[20] - series.air_c[29], "and its night falls less"


@pytest.mark.parametrize(("tz", "first", "hours"), [
    (HALIFAX, date(2026, 10, 31), 73), (HALIFAX, date(2026, 3, 7), 71),
    (timezone(timedelta(hours=5, minutes=30)), SEPTEMBER, 72),
])  # fmt: skip
def test_days_of_23_and_25_hours_and_zones_of_half_hours_keep_their_order(tz: tzinfo, first: date, hours: int) -> None:
    series = _hours(*[TypedDay(low_c=5, high_c=15)] * 3, tz=tz, first=first)
    assert len(series) == hours + NIGHT_AFTER_H
    assert np.isfinite(series.air_c).all() and series.air_c.max() < 15.1 and series.air_c.min() > 4.9


def test_a_day_without_sunrise_or_sunset_still_has_a_course() -> None:
    for first in (date(2026, 6, 20), date(2026, 12, 20)):
        series = _hours(TypedDay(low_c=-2, high_c=6), first=first, lat=66.5)
        assert series.air_c.min() == pytest.approx(-2, abs=0.5) and series.air_c.max() == pytest.approx(6, abs=0.5)


def test_the_dew_point_persists_and_the_night_that_reaches_it_is_fog() -> None:
    series = _hours(TypedDay(low_c=9, high_c=19, dew_c=11), TypedDay(low_c=9, high_c=19, dew_c=5))
    dew = dew_point(vapour_pressure(series.air_c, series.rh_pct))
    assert dew[12] == pytest.approx(11, abs=0.2) and dew[36] == pytest.approx(5, abs=0.3)
    assert series.rh_pct[5:7] == pytest.approx(100, abs=0.5)
    humid = _hours(TypedDay(low_c=10, high_c=20, rh_pct=60))
    assert humid.rh_pct[11:16].mean() == pytest.approx(57, abs=4), "as said of the day"
    nothing = _hours(TypedDay(low_c=10, high_c=20))
    assert 90 < nothing.rh_pct[5] < 97
    assert any("no moisture was typed" in n for n in nothing.notes) and len(humid.notes) == 1


def test_rain_falls_in_its_hours_with_its_chance_and_only_where_it_is_likely() -> None:
    rain = TypedRain(from_h=14.5, until_h=20, chance_pct=70, kind=RainKind.RAIN)
    unlikely = TypedRain(from_h=6, until_h=10, chance_pct=30)
    series = _hours(TypedDay(low_c=9, high_c=19, rain=(rain, unlikely)))
    assert series.rain_mm is not None and series.rain_pct is not None and series.cloud is not None
    assert series.rain_mm[13:21].tolist() == pytest.approx([0, 1.25, 2.5, 2.5, 2.5, 2.5, 2.5, 0])
    assert series.rain_pct[[5, 7, 12, 16, 20]].tolist() == [3, 30, 3, 70, 3]
    assert series.rain_mm[6:10].sum() == 0 and (series.cloud[15:20] >= 0.9).all()


def test_what_is_typed_is_held_less_sure_than_what_a_service_sends() -> None:
    series = _hours(*[TypedDay(low_c=8, high_c=19, dew_c=5)] * 3)
    wide, usual = (
        np.std([m.air_c[48] - series.air_c[48] for m in draw_members(s, 300, 5)])
        for s in (series, replace(series, doubt=1.0))
    )
    assert wide == pytest.approx(1.5 * usual, rel=0.01)


def _heard(day: date) -> TypedForecast:
    """A real day and the two after it, as the radio would have told them."""
    series, days = stretch(real_year(), day, 3), []
    tz = timezone(timedelta(hours=series.utc_offset_h))
    first = (int(datetime(day.year, day.month, day.day, tzinfo=tz).timestamp()) - series.start) // 3600
    assert series.rain_mm is not None and series.cloud is not None
    for n in range(3):
        here = slice(first + 24 * n, first + 24 * n + 24)
        air, turn = series.air_c[here], np.radians(series.wind_from_deg[here])
        wet = np.flatnonzero(np.nan_to_num(series.rain_mm[here]) >= 0.1)
        runs = np.split(wet, np.flatnonzero(np.diff(wet) > 1) + 1) if wet.size else []
        low = round(float(air[:10].min()))
        high = max(round(float(air.max())), low)
        days.append(
            TypedDay(
                low_c=low,
                high_c=high,
                dew_c=min(round(float(dew_point(vapour_pressure(air, series.rh_pct[here])).mean())), high),
                cloud=round(float(series.cloud[here][8:18].mean()), 1),
                wind_ms=round(float(series.wind_ms[here].mean())),
                wind_from_deg=float(np.degrees(np.arctan2(np.sin(turn).mean(), np.cos(turn).mean())) % 360),
                rain=tuple(TypedRain(from_h=int(r[0]), until_h=int(r[-1]) + 1, chance_pct=90) for r in runs),
            )
        )
    return TypedForecast(first=day, days=tuple(days))


def test_thirty_real_days_as_heard_and_by_the_hour_agree_on_the_hours_on_most() -> None:
    """Every week from April to October, four walls, their mean: within 20 % (or half an hour) on at least 22 of 30; on
    the rest morning dew and moist noons, which two figures a day do not tell, make the difference."""
    year = real_year()
    tz = timezone(timedelta(hours=year.utc_offset_h))
    place = Place(year.latitude or 0, year.longitude or 0, year.altitude_m, tz)
    walls = [FaceSurface(az, 90.0, substrate("wood-lap"), 0.6) for az in (NORTH, EAST, SOUTH, WEST)]
    product, agree, total = generic_product("exterior-acrylic-standard"), 0, np.zeros(2)

    def hours(series: WeatherSeries, begin: datetime) -> float:
        weather = place_weather(place, series, begin, 3)
        judged = [s.coat(product, Method.BRUSH, Policy(), FULL_DAY) for s in surfaces_through(weather, walls)]
        return float(np.mean([w.days(0)[0].workable_h for w in judged]))

    for week in range(30):
        day = date(2025, 4, 3) + timedelta(days=7 * week)
        begin = datetime(day.year, day.month, day.day, tzinfo=tz)
        typed = typed_hours(_heard(day), place.latitude, place.longitude, place.altitude_m, tz, begin)
        real, heard = hours(year, begin), hours(typed, begin)
        agree += abs(real - heard) <= max(0.2 * max(real, heard), 0.5)
        total += real, heard
    assert agree >= 22, agree
    assert total[1] == pytest.approx(total[0], rel=0.1)
