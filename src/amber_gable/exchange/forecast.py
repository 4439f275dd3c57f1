"""Forecasts over HTTP: the small protocol every provider answers, and the client for the JSON it sends."""

import csv
import io
from dataclasses import replace
from datetime import datetime
from typing import Any, Protocol

import httpx2

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather import WeatherSeries
from amber_gable.exchange.weather_csv import COLUMN_NAMES, read_csv

MAX_HOURS = 24 * 40


class ForecastUnavailable(Exception):
    """The provider could not be reached or answered nonsense; the message says which."""


class ForecastProvider(Protocol):
    """Hourly forecast for a place as issued at or before a time. Raises ForecastUnavailable."""

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries: ...


class HttpForecast:
    """A provider that answers GET {address}/forecast with columns named as in the plain weather CSV."""

    def __init__(self, address: str, timeout_s: float = 3.0) -> None:
        self.address, self.timeout_s = address.rstrip("/"), timeout_s

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        query: dict[str, str | float] = {"lat": latitude, "lon": longitude, "issued": at.isoformat()}
        try:
            # Proxies of the environment are for the outside; the configured address is used as it stands.
            with httpx2.Client(timeout=self.timeout_s, trust_env=False) as client:
                answer = client.get(f"{self.address}/forecast", params=query)
            answer.raise_for_status()
            return parse_forecast(answer.json())
        except httpx2.HTTPError as error:
            raise ForecastUnavailable(f"the forecast service did not answer ({type(error).__name__})") from error
        except (InputError, KeyError, TypeError, ValueError) as error:
            raise ForecastUnavailable(f"the forecast service sent something unusable ({error})") from error


def parse_forecast(answer: dict[str, Any]) -> WeatherSeries:
    """The service's JSON as a series. Every check of the plain CSV holds here too: it is read as one."""
    times = answer["time"]
    if not isinstance(times, list) or not 0 < len(times) <= MAX_HOURS:
        raise InputError("forecast, time", f"must list 1 to {MAX_HOURS} hours", "ask the service's keeper")
    names = [name for name in COLUMN_NAMES if name in answer]
    columns = [answer[name] for name in names]
    if any(len(c) != len(times) for c in columns):
        raise InputError("forecast", "columns differ in length", "ask the service's keeper")
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(["time", *names])
    writer.writerows(zip(times, *columns, strict=True))
    series = read_csv(text.getvalue(), str(answer.get("source", "forecast"))[:80])
    issued = datetime.fromisoformat(answer["issued"])
    return replace(
        series, latitude=float(answer["latitude"]), longitude=float(answer["longitude"]), issued=int(issued.timestamp())
    )
