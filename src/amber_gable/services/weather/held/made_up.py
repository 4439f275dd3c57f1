"""Made-up weather for sample jobs: a September of the simulated coast, told for today, whatever the day."""

import json
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.forecast import parse_forecast
from amber_gable.standins.weather.regimes import DEMO_SEED
from amber_gable.standins.weather.service import hourly_answer

SEASON = datetime(2026, 9, 1, tzinfo=UTC)
ROUND_DAYS = 28
"""So many days of the season follow each other, again and again."""


class MadeUpWeather:
    """A provider like any other; its nights and days are those of the house's own clock."""

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        shift = _shift(at)
        answer = hourly_answer(DEMO_SEED, latitude, longitude, at - shift)
        series = parse_forecast(json.dumps(answer).encode())
        moved = int(shift.total_seconds())
        issued = None if series.issued is None else series.issued + moved
        return replace(series, start=series.start + moved, issued=issued, source="made-up weather of a September")


def _shift(at: datetime) -> timedelta:
    """Whole days from the season's day that stands for this one."""
    days = (at.astimezone(UTC) - SEASON).days
    return timedelta(days=days - days % ROUND_DAYS)
