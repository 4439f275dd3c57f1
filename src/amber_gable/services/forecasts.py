"""The weather a job is judged by: an imported file if there is one, else the newest forecast that could be had."""

from dataclasses import dataclass
from datetime import UTC, datetime

from amber_gable.domain.errors import InputError
from amber_gable.domain.survey import Property
from amber_gable.domain.weather import WeatherSeries
from amber_gable.exchange.files import decode
from amber_gable.exchange.forecast import ForecastUnavailable
from amber_gable.exchange.weather_file import read_weather
from amber_gable.services.workspace import Workspace
from amber_gable.store.weather import drop_series, load_series, save_series

FRESH_H = 1.0
RETRY_S = 60.0


@dataclass(frozen=True)
class Weather:
    """A series and how far to trust it. `trouble` says why nothing newer is in use."""

    series: WeatherSeries | None
    from_file: bool
    age_h: float | None
    trouble: str | None


def job_weather(space: Workspace, property_: Property, *, insist: bool = False) -> Weather:
    """The weather in use. Asks the provider when the forecast is older than an hour, at most once a minute after a
    failure unless the user insists; a provider that does not answer leaves the last forecast in use."""
    now = space.clock.now()
    with space.database.reading() as session:
        filed = load_series(session, property_.id, "file")
        if filed is not None:
            return Weather(filed, True, None, None)
        held = load_series(session, property_.id, "forecast")
    trouble = None
    if insist or _age_h(held, now) is None or not 0 <= (_age_h(held, now) or 0) < FRESH_H:
        held, trouble = _ask(space, property_, held, now, insist)
    return Weather(held, False, _age_h(held, now), trouble)


def _age_h(series: WeatherSeries | None, now: datetime) -> float | None:
    return None if series is None or series.issued is None else (now.timestamp() - series.issued) / 3600


def _ask(
    space: Workspace, property_: Property, held: WeatherSeries | None, now: datetime, insist: bool
) -> tuple[WeatherSeries | None, str | None]:
    if space.provider is None:
        return held, "no forecast service is set up: import a weather file"
    failed = space.provider_failure
    if failed is not None and not insist and abs(now.timestamp() - failed[0]) < RETRY_S:
        return held, failed[1]
    try:
        series = space.provider.forecast(property_.latitude, property_.longitude, now.astimezone(UTC))
    except ForecastUnavailable as error:
        space.provider_failure = (now.timestamp(), str(error))
        return held, str(error)
    space.provider_failure = None
    with space.database.writing() as session:
        save_series(session, property_.id, "forecast", series)
    return series, None


def import_weather(space: Workspace, property_id: str, data: bytes, name: str) -> WeatherSeries:
    """Use a weather file for the property from now on. Raises InputError and changes nothing when it is unusable."""
    series = read_weather(decode(data, name), name)
    if len(series) < 72:
        raise InputError(name, f"holds {len(series)} hours; at least 72 are needed", "bring three days or more")
    with space.database.writing() as session:
        save_series(session, property_id, "file", series)
    return series


def drop_weather_file(space: Workspace, property_id: str) -> None:
    """Go back to the forecast service."""
    with space.database.writing() as session:
        drop_series(session, property_id, "file")
