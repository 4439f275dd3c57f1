"""What loggers measured at a house: brought as files, laid over the hours of the forecast that are over."""

from dataclasses import dataclass
from datetime import UTC, datetime

import numpy as np

from amber_gable.core.weather.outdoors.observed import Apart, apart, joined
from amber_gable.domain.errors import InputError
from amber_gable.domain.house.survey import Property
from amber_gable.domain.weather.feed import Logger
from amber_gable.domain.weather.series import HOUR
from amber_gable.exchange.files import decode
from amber_gable.exchange.weather.mapped import observed_of, read_rows, sample_of
from amber_gable.services.context import Context
from amber_gable.services.weather.held.forecasts import Weather
from amber_gable.store.weather.series import drop_series, load_series, save_series
from amber_gable.store.weather.sources import loggers

KEPT_H = 60 * 24


@dataclass(frozen=True)
class LoggedHours:
    """By which logger, hours of the air it holds, until when (local), and how far the forecast was off."""

    source: str
    hours: int
    until: datetime
    apart: Apart | None


def known_loggers(ctx: Context) -> list[Logger]:
    with ctx.reading() as session:
        return loggers(session)


def bring_readings(ctx: Context, property_: Property, data: bytes, name: str, logger_id: str = "") -> int:
    """Take in what a logger wrote, by its mapping; without one named, by that whose columns the file has. Returns the
    hours it holds. Raises InputError, and keeps nothing then."""
    text = decode(data, name)
    logger = _logger_of(known_loggers(ctx), text, name, logger_id)
    found = observed_of(read_rows(text, logger.mapping, name, property_.tz), logger.name)
    if found.start > ctx.now.timestamp():
        raise InputError(name, "tells of hours that are still to come", "check the logger’s clock, or the mapping")
    with ctx.writing() as session:
        before = load_series(session, property_.id, "observed")
        save_series(session, property_.id, "observed", joined(before, found, KEPT_H))
    return int(np.isfinite(found.air_c).sum())


def _logger_of(known: list[Logger], text: str, name: str, logger_id: str) -> Logger:
    if logger_id:
        named = next((one for one in known if one.id == logger_id), None)
        if named is None:
            raise InputError(name, "its logger is no longer in Settings", "map the file there")
        return named
    for one in known:
        try:
            columns = sample_of(text, one.mapping.kind, name, one.mapping.header).columns
        except InputError:
            continue
        if {one.mapping.time, *(c.path for c in one.mapping.columns)} <= columns.keys():
            return one
    raise InputError(name, "is of no logger that is known here", "map a file of its kind once in Settings")


def forget_readings(ctx: Context, property_id: str) -> None:
    with ctx.writing() as session:
        drop_series(session, property_id, "observed")


def measured(weather: Weather, property_: Property, now: datetime) -> LoggedHours | None:
    """What was laid over the hours that are over; None where nothing was."""
    found = weather.measured
    if found is None:
        return None
    at = int(now.timestamp())
    known = np.flatnonzero(np.isfinite(found.air_c) & (found.start + HOUR * (1 + np.arange(len(found))) <= at))
    if not known.size:
        return None
    until = datetime.fromtimestamp(found.start + HOUR * (int(known[-1]) + 1), UTC).astimezone(property_.tz)
    off = None if weather.told is None else apart(weather.told, found, at)
    return LoggedHours(found.source, int(known.size), until, off)
