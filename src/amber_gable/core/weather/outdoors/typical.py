"""A stretch of a weather series, with the days before and after that surfaces and films need."""

from dataclasses import replace
from datetime import date, datetime, timedelta, tzinfo

import numpy as np

from amber_gable.domain.errors import NoClimate
from amber_gable.domain.weather.series import HOUR, WeatherSeries

LEAD_DAYS, TAIL_DAYS = 2, 5
PAST_DAYS = 30
"""Boards and walls remember the weather of so many days (docs/physics.md §6)."""


def at_place(series: WeatherSeries, longitude: float, tz: tzinfo) -> WeatherSeries:
    """A typical year at another place: its hours keep their place in the day there, by the sun, to the whole hour.
    Where the file does not say where it was made, its clock is taken for the standard time of `tz`. Anything but a
    typical year, and one of the same zone, comes back as it is."""
    if not series.typical_year:
        return series
    if series.longitude is None:
        january = datetime(2001, 1, 1, tzinfo=tz)
        standard = (january.utcoffset() or timedelta()) - (january.dst() or timedelta())
        offset = standard.total_seconds() / 3600
    else:
        offset = series.utc_offset_h + round(((longitude - series.longitude + 180) % 360 - 180) / 15)
    return series if offset == series.utc_offset_h else replace(series, utc_offset_h=offset)


def stretch(series: WeatherSeries, start: date, days: int) -> WeatherSeries:
    """The hours from two days before `start` to five after the last day, as far as the series has them.

    A typical year is read as the year of `start` and runs round: after 31 December comes 1 January; 29 February is 28
    February again. Raises NoClimate when the series holds none of the days.
    """
    zone = series.zone
    begin = datetime(start.year, start.month, start.day, tzinfo=zone) - timedelta(days=LEAD_DAYS)
    hours = (days + LEAD_DAYS + TAIL_DAYS) * 24
    first = int(begin.timestamp())
    if series.typical_year:
        wanted = [begin + timedelta(hours=h) for h in range(hours)]
        index = np.array([_hour_of_year(t) for t in wanted])
        return series.take(index, first)
    offset = (first - series.start) // HOUR
    index = np.arange(max(offset, 0), min(offset + hours, len(series)))
    inside = (index >= offset + LEAD_DAYS * 24) & (index < offset + (LEAD_DAYS + days) * 24)
    if not inside.any():
        last = datetime.fromtimestamp(series.end - 1, zone).date()
        raise NoClimate(
            f"the weather covers {series.start_time.astimezone(zone).date()} to {last}, not the {days} days from "
            f"{start}; choose a start inside it"
        )
    return series.take(index, series.start + int(index[0]) * HOUR)


def past(series: WeatherSeries, start: date) -> WeatherSeries | None:
    """The hours before those of `stretch`, back to thirty days before `start`, as far as the series has them; None
    where it has none. A typical year has them all, those of the year before."""
    zone = series.zone
    end = datetime(start.year, start.month, start.day, tzinfo=zone) - timedelta(days=LEAD_DAYS)
    begin = end - timedelta(days=PAST_DAYS - LEAD_DAYS)
    hours, first = (PAST_DAYS - LEAD_DAYS) * 24, int(begin.timestamp())
    if series.typical_year:
        return series.take(np.array([_hour_of_year(begin + timedelta(hours=h)) for h in range(hours)]), first)
    offset = (first - series.start) // HOUR
    index = np.arange(max(offset, 0), min(offset + hours, len(series)))
    return series.take(index, series.start + int(index[0]) * HOUR) if len(index) else None


def _hour_of_year(t: datetime) -> int:
    day = 28 if (t.month, t.day) == (2, 29) else t.day
    return (date(2001, t.month, day) - date(2001, 1, 1)).days * 24 + t.hour
