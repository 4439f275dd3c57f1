"""Forecasts over HTTP: the small protocol every provider answers, and the client for the JSON it sends."""

import csv
import io
from dataclasses import replace
from datetime import datetime
from typing import Annotated, Any, Protocol

import numpy as np
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, ValidationError

from amber_gable.core.weather.outdoors.typical import PAST_DAYS
from amber_gable.domain.errors import InputError, first_words
from amber_gable.domain.weather.series import ENSEMBLE_COLUMNS, Floats, WeatherSeries
from amber_gable.exchange.weather.checks import in_bounds
from amber_gable.exchange.weather.hours_csv import COLUMN_NAMES, read_csv
from amber_gable.exchange.weather.http_answer import NoAnswer, fetch
from amber_gable.exchange.weather.run_to_hours import humidity_of

MAX_HOURS = 24 * 60
BEFORE_H = (PAST_DAYS + 1) * 24
"""Hours before its own that a service is asked for: boards and walls remember them."""
MAX_BYTES = 2_000_000
MOST_MEMBERS = 100
_AWAY_DEG = 0.5
"""How far from the place asked for a forecast may be made: some 50 km, two cells of a coarse grid."""


class ForecastUnavailable(Exception):
    """The provider could not be reached or answered nonsense; the message says which."""


class ForecastProvider(Protocol):
    """Hourly forecast for a place as issued at or before a time. Raises ForecastUnavailable."""

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries: ...


class HttpForecast:
    """A provider that answers GET {address}/forecast with columns named as in the plain weather CSV. `timeout_s` is
    for finding it, three times that for the whole answer; `members`: how many futures of its own it is asked for. What
    it names by an ETag is not sent twice."""

    def __init__(self, address: str, timeout_s: float = 3.0, members: int = 0) -> None:
        self.address, self.timeout_s, self.members = address.rstrip("/"), timeout_s, members
        self._named: dict[tuple[float, float], tuple[str, WeatherSeries]] = {}

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        query: dict[str, str | float] = {"lat": latitude, "lon": longitude, "issued": at.isoformat()}
        query["before_h"] = BEFORE_H
        if self.members:
            query["members"] = self.members
        etag, held = self._named.get((latitude, longitude), ("", None))
        try:
            answer = fetch(
                f"{self.address}/forecast",
                query,
                connect_s=self.timeout_s,
                total_s=3 * self.timeout_s,
                most_bytes=MAX_BYTES,
                etag=etag,
            )
        except NoAnswer as error:
            raise ForecastUnavailable(f"the forecast service {error}") from error
        try:
            series = held if answer.unchanged and held is not None else parse_forecast(answer.body)
        except (InputError, ValidationError) as error:
            raise ForecastUnavailable(f"the forecast service sent something unusable ({_first(error)})") from error
        away = max(abs((series.latitude or 0) - latitude), abs(((series.longitude or 0) - longitude + 180) % 360 - 180))
        if away > _AWAY_DEG:
            where = f"{series.latitude:g}, {series.longitude:g}"
            raise ForecastUnavailable(f"the forecast service answered for another place ({where})")
        if answer.etag:
            self._named[latitude, longitude] = (answer.etag, series)
        return series


_GUSTS = [name for name, (field, _) in COLUMN_NAMES.items() if field == "gust_ms"]
_Column = Annotated[list[float | None], Field(max_length=MAX_HOURS)]


_Member = Annotated[list[float], Field(max_length=MAX_HOURS)]


class _Answer(BaseModel):
    """The service's JSON. Columns of the plain CSV stand beside these fields; what else there is does not count."""

    model_config = ConfigDict(extra="allow", allow_inf_nan=False)
    __pydantic_extra__: dict[str, Any]

    source: Annotated[str, Field(min_length=1)] = "forecast"
    latitude: Annotated[float, Field(ge=-90, le=90)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    issued: AwareDatetime
    time: Annotated[list[str], Field(min_length=1, max_length=MAX_HOURS)]
    members: dict[str, Annotated[list[_Member], Field(min_length=1, max_length=MOST_MEMBERS)]] = {}
    before: dict[str, Annotated[list[str], Field(max_length=MAX_HOURS)] | _Column] = {}


class _Columns(BaseModel):
    model_config = ConfigDict(allow_inf_nan=False)
    columns: dict[str, _Column]


def parse_forecast(body: bytes) -> WeatherSeries:
    """The service's answer as a series. Every check of the plain CSV holds here too: it is read as one.

    Raises ValidationError or InputError.
    """
    answer = _Answer.model_validate_json(body)
    extra = answer.__pydantic_extra__
    columns = _Columns.model_validate({"columns": {n: extra[n] for n in COLUMN_NAMES if n in extra}}).columns
    # What a service names and tells of no hour, it does not have.
    columns = {name: values for name, values in columns.items() if any(v is not None for v in values)}
    if any(len(c) != len(answer.time) for c in columns.values()):
        raise InputError("forecast", "columns differ in length", "ask the service's keeper")
    earlier, times = _before(answer.before, [*columns, *answer.members]), answer.time
    if earlier:
        times = [*earlier["time"], *times]
        columns = {name: [*earlier[name], *values] for name, values in columns.items()}
    text = io.StringIO()
    writer = csv.writer(text)
    writer.writerow(["time", *columns])
    writer.writerows(zip(times, *columns.values(), strict=True))
    series = read_csv(text.getvalue(), answer.source[:80])
    issued = int(answer.issued.timestamp())
    members = answer.members
    if earlier:
        # What is over is the same in all futures.
        members = {n: [[*earlier[n], *row] for row in rows] for n, rows in members.items()}
    ensemble = _ensemble(members, len(series)) if members else None
    return replace(series, latitude=answer.latitude, longitude=answer.longitude, issued=issued, ensemble=ensemble)


def _before(told: dict[str, Any], wanted: list[str]) -> dict[str, list[Any]]:
    """The hours before the forecast's own, where the service told them of every column, those of its futures too; empty
    where it did not. Gusts that are over may be left out."""
    if told.get("time"):
        told = {**{name: [None] * len(told["time"]) for name in _GUSTS if name in wanted}, **told}
    if not told or any(not told.get(name) for name in ("time", *wanted)):
        return {}
    if len({len(told[name]) for name in ("time", *wanted)}) > 1:
        raise InputError("forecast", "columns of the hours before differ in length", "ask the service's keeper")
    return {name: list(told[name]) for name in ("time", *wanted)}


def _ensemble(members: dict[str, list[list[float]]], hours: int) -> dict[str, Floats]:
    """The service's own futures in our units: as many of each column, as long as its hours, and possible weather."""
    counts = {len(rows) for rows in members.values()}
    if len(counts) > 1 or any(len(row) != hours for rows in members.values() for row in rows):
        raise InputError("forecast members", "differ in number or length", "ask the service's keeper")
    out: dict[str, Floats] = {}
    for name, rows in members.items():
        field, convert = COLUMN_NAMES.get(name, ("", None))
        if convert is None or field not in (*ENSEMBLE_COLUMNS, "dew_c"):
            raise InputError("forecast members", f"'{name[:40]}' is no column of members", "leave it out")
        out[field] = np.array([convert(np.array(row)) for row in rows])
    dew = out.pop("dew_c", None)
    if dew is not None and "air_c" in out and "rh_pct" not in out:
        out["rh_pct"] = humidity_of(out["air_c"], dew)
    for field, values in out.items():
        in_bounds(field, values.ravel(), range(values.size), "forecast members")
    return out


def _first(error: InputError | ValidationError) -> str:
    if isinstance(error, InputError):
        return str(error)[:200]
    where, words = first_words(error)
    return f"{where[:60] or 'answer'} {words}"[:200]
