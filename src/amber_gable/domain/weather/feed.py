"""How the hours of somebody else's weather, a feed's JSON or a logger's table, are understood: which of its columns is
which quantity, in what unit, and how its times are told."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal, Self
from urllib.parse import urlsplit
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import Field, field_validator, model_validator

from amber_gable.domain.base import Id, Name, Record

PLACE = "place"
"""Times without a zone are those of the place."""


class WeatherQuantity(StrEnum):
    """Quantities of a weather series (WeatherSeries' names), and the dew point, which humidity is worked out from."""

    AIR = "air_c"
    HUMIDITY = "rh_pct"
    DEW_POINT = "dew_c"
    WIND = "wind_ms"
    WIND_FROM = "wind_from_deg"
    GUST = "gust_ms"
    CLOUD = "cloud"
    RAIN = "rain_mm"
    RAIN_CHANCE = "rain_pct"
    SUN = "ghi"


class TimeForm(StrEnum):
    """How moments are written; where a day is told by figures and slashes or points, what comes first."""

    ISO = "iso"
    SECONDS = "seconds"
    MILLISECONDS = "milliseconds"
    DAY_FIRST = "day-first"
    MONTH_FIRST = "month-first"


@dataclass(frozen=True)
class FeedUnit:
    """ours = (figure + offset) × factor. running: a total that grows, of which each step's share is taken; empty_none:
    a value that is absent means none."""

    symbol: str
    factor: float = 1.0
    offset: float = 0.0
    running: bool = False
    empty_none: bool = False


_WARMTH = (FeedUnit("°C"), FeedUnit("°F", 1 / 1.8, -32), FeedUnit("K", 1, -273.15))
_SPEED = (FeedUnit("m/s"), FeedUnit("km/h", 1 / 3.6), FeedUnit("mph", 0.44704), FeedUnit("kn", 0.514444))
_MM, _INCH = 1.0, 25.4
UNITS: dict[WeatherQuantity, tuple[FeedUnit, ...]] = {
    WeatherQuantity.AIR: _WARMTH,
    WeatherQuantity.HUMIDITY: (FeedUnit("%"), FeedUnit("0–1", 100)),
    WeatherQuantity.DEW_POINT: _WARMTH,
    WeatherQuantity.WIND: _SPEED,
    WeatherQuantity.GUST: _SPEED,
    WeatherQuantity.WIND_FROM: (FeedUnit("° or letters"),),
    WeatherQuantity.CLOUD: (FeedUnit("%", 0.01), FeedUnit("0–1"), FeedUnit("eighths", 1 / 8)),
    WeatherQuantity.RAIN: (
        FeedUnit("mm", _MM), FeedUnit("in", _INCH),
        FeedUnit("mm, absent: none", _MM, empty_none=True), FeedUnit("in, absent: none", _INCH, empty_none=True),
        FeedUnit("mm, running total", _MM, running=True), FeedUnit("in, running total", _INCH, running=True),
    ),
    WeatherQuantity.RAIN_CHANCE: (
        FeedUnit("%"), FeedUnit("0–1", 100), FeedUnit("%, absent: none", empty_none=True),
        FeedUnit("0–1, absent: none", 100, empty_none=True),
    ),
    WeatherQuantity.SUN: (FeedUnit("W/m²"),),
}  # fmt: skip
NAMES = {
    WeatherQuantity.AIR: "air",
    WeatherQuantity.HUMIDITY: "humidity",
    WeatherQuantity.DEW_POINT: "dew point",
    WeatherQuantity.WIND: "wind",
    WeatherQuantity.WIND_FROM: "wind from",
    WeatherQuantity.GUST: "gusts",
    WeatherQuantity.CLOUD: "cloud",
    WeatherQuantity.RAIN: "rain",
    WeatherQuantity.RAIN_CHANCE: "chance of rain",
    WeatherQuantity.SUN: "sunshine",
}
Path = Annotated[str, Field(min_length=1, max_length=200)]


class MappedColumn(Record):
    """path: where the values stand: a heading, or names joined by points, `[]` after one that holds a list of rows."""

    path: Path
    quantity: WeatherQuantity
    unit: str

    @model_validator(mode="after")
    def _known_unit(self) -> Self:
        if all(u.symbol != self.unit for u in UNITS[self.quantity]):
            known = ", ".join(u.symbol for u in UNITS[self.quantity])
            raise ValueError(f"'{self.unit}' is not a unit of {NAMES[self.quantity]}: {known}")
        return self

    @property
    def of_unit(self) -> FeedUnit:
        return next(u for u in UNITS[self.quantity] if u.symbol == self.unit)


class Mapping(Record):
    """header: the line of a table that holds the headings, from 1."""

    kind: Literal["json", "csv"]
    time: Path
    time_form: TimeForm = TimeForm.ISO
    zone: Annotated[str, Field(max_length=60)] = PLACE
    header: Annotated[int, Field(ge=1, le=200)] = 1
    columns: Annotated[tuple[MappedColumn, ...], Field(max_length=30)]

    @field_validator("zone")
    @classmethod
    def _zone_is_known(cls, zone: str) -> str:
        if zone != PLACE:
            try:
                ZoneInfo(zone)
            except (ZoneInfoNotFoundError, ValueError, OSError):
                raise ValueError(f"'{zone}' is not a time zone; write UTC, or such as America/Halifax") from None
        return zone

    @model_validator(mode="after")
    def _each_once(self) -> Self:
        _once(
            [c.quantity.value for c in self.columns], lambda q: f"{NAMES[WeatherQuantity(q)]} is taken from two columns"
        )
        _once([self.time, *(c.path for c in self.columns)], lambda p: f"'{p}' is taken for two quantities")
        if all(c.quantity is not WeatherQuantity.AIR for c in self.columns):
            raise ValueError("no column is the air’s temperature, without which nothing can be worked out")
        return self


def _once(names: list[str], words: Callable[[str], str]) -> None:
    for name in names:
        if names.count(name) > 1:
            raise ValueError(f"{words(name)}: leave one out")


class Feed(Record):
    """Forecasts at an address; `{lat}` and `{lon}` in it stand for the place."""

    kind: Literal["feed"] = "feed"
    id: Id
    name: Name
    address: Annotated[str, Field(min_length=8, max_length=1000)]
    mapping: Mapping

    @field_validator("address")
    @classmethod
    def _can_be_asked(cls, address: str) -> str:
        if fault := address_fault(address):
            raise ValueError(fault)
        return address


class Logger(Record):
    """What an instrument on site wrote down, brought as files of one form."""

    kind: Literal["logger"] = "logger"
    id: Id
    name: Name
    mapping: Mapping


Source = Feed | Logger


def placed(address: str, latitude: float, longitude: float) -> str:
    """The address for a place."""
    return address.replace("{lat}", f"{latitude:.4f}").replace("{lon}", f"{longitude:.4f}")


def address_fault(address: str) -> str:
    """Why it cannot be asked; '' where it can."""
    if any(name not in ("lat", "lon") for name in re.findall(r"\{([^}]*)", address)):
        return "only {lat} and {lon} may stand in braces"
    try:
        parts = urlsplit(placed(address, 0.0, 0.0))
        host = parts.hostname
    except ValueError:
        return "is not an address"
    if parts.scheme not in ("http", "https") or not host:
        return "begins with http:// or https:// and a host"
    return ""
