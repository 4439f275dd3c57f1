"""Weather files brought for a house: in use as its weather or kept as its typical year. One of another place is taken
only when somebody says so, knowing how far away it is."""

import secrets
from dataclasses import dataclass
from typing import Literal

from amber_gable.domain.errors import InputError
from amber_gable.domain.house.survey import Property
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.files import decode
from amber_gable.exchange.weather.any_file import read_weather
from amber_gable.services.context import Context
from amber_gable.services.weather.held.far_away import away_words
from amber_gable.services.weather.held.sources import hold_sample
from amber_gable.store.weather.series import drop_series, save_series

LEAST_H = 72
Use = Literal["file", "year"]
"""As the weather in use, or as a typical year beside it."""


@dataclass(frozen=True)
class FarFile:
    """A file that waits to be taken or left: how far away its place is, in words."""

    name: str
    use: Use
    words: str


def bring_file(ctx: Context, property_: Property, data: bytes, name: str, use: Use) -> str:
    """Take a file, and return ''; one of another place is held, and the token returned by which it can be taken.
    Raises InputError and changes nothing when it is unusable."""
    text = decode(data, name)
    series = _read(text, name, use)
    if away_words(series, property_):
        return hold_sample(ctx, f"{use}-{secrets.token_hex(6)}", f"{name}\n{text}")
    _keep(ctx, property_.id, use, series)
    return ""


def far_file(ctx: Context, property_: Property, token: str) -> FarFile:
    """Raises InputError where the file is no longer held."""
    name, use, text = _held(ctx, token)
    return FarFile(name, use, away_words(_read(text, name, use), property_))


def take_far_file(ctx: Context, property_: Property, token: str) -> Use:
    """Use it all the same. Raises InputError where it is no longer held."""
    name, use, text = _held(ctx, token)
    _keep(ctx, property_.id, use, _read(text, name, use))
    ctx.space.samples.pop(token, None)
    return use


def _held(ctx: Context, token: str) -> tuple[str, Use, str]:
    name, _, text = ctx.space.samples.get(token, "").partition("\n")
    if not text:
        raise InputError("weather file", "is no longer held", "choose it once more; nothing was changed")
    return name, "year" if token.startswith("year-") else "file", text


def _read(text: str, name: str, use: Use) -> WeatherSeries:
    series = read_weather(text, name)
    if use == "year" and not series.typical_year:
        raise InputError(name, "is no typical year", "bring an EPW or TMY3 file of the nearest station")
    if len(series) < LEAST_H:
        raise InputError(name, f"holds {len(series)} hours; at least {LEAST_H} are needed", "bring three days or more")
    return series


def _keep(ctx: Context, property_id: str, use: Use, series: WeatherSeries) -> None:
    with ctx.writing() as session:
        save_series(session, property_id, use, series)


def drop_weather_file(ctx: Context, property_id: str) -> None:
    """Go back to the forecast service."""
    with ctx.writing() as session:
        drop_series(session, property_id, "file")
