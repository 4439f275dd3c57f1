"""The plain weather CSV: one hour a line, units in the column names (docs/formats.md)."""

import csv
import io
from collections.abc import Callable
from datetime import datetime
from typing import Any

import numpy as np

from amber_gable.core.weather.outdoors.air import saturation_pressure
from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.labelled_zone import Change
from amber_gable.domain.weather.series import HOUR, MAY_LACK_HOURS, REQUIRED_COLUMNS, Floats, WeatherSeries
from amber_gable.exchange.weather.checks import in_bounds, missing_column, number, numbers

_Convert = Callable[[Floats], Floats]
# column name -> (our field, conversion to our unit)
COLUMN_NAMES: dict[str, tuple[str, _Convert]] = {
    "air_c": ("air_c", lambda v: v),
    "air_f": ("air_c", lambda v: (v - 32) / 1.8),
    "rh_pct": ("rh_pct", lambda v: v),
    "dew_point_c": ("dew_c", lambda v: v),
    "wind_m_s": ("wind_ms", lambda v: v),
    "wind_km_h": ("wind_ms", lambda v: v / 3.6),
    "wind_mph": ("wind_ms", lambda v: v * 0.44704),
    "gust_m_s": ("gust_ms", lambda v: v),
    "gust_km_h": ("gust_ms", lambda v: v / 3.6),
    "gust_mph": ("gust_ms", lambda v: v * 0.44704),
    "wind_from_deg": ("wind_from_deg", lambda v: v),
    "cloud_pct": ("cloud", lambda v: v / 100),
    "rain_mm": ("rain_mm", lambda v: v),
    "rain_in": ("rain_mm", lambda v: v * 25.4),
    "rain_probability_pct": ("rain_pct", lambda v: v),
    "ghi_w_m2": ("ghi", lambda v: v),
    "dni_w_m2": ("dni", lambda v: v),
    "dhi_w_m2": ("dhi", lambda v: v),
    "infrared_w_m2": ("ir_down", lambda v: v),
}
_NEEDED = {"air_c": "air_c", "rh_pct": "rh_pct", "wind_ms": "wind_m_s", "wind_from_deg": "wind_from_deg"}
_HEADINGS = ("latitude", "longitude", "altitude_m")


def read_csv(text: str, name: str) -> WeatherSeries:
    """A plain weather CSV. Lines that begin with # may give latitude, longitude, altitude_m as `# latitude: 45.1`."""
    about: dict[str, float] = {}
    table: list[tuple[int, list[str]]] = []
    for line, row in enumerate(csv.reader(io.StringIO(text)), 1):
        if not row or not any(cell.strip() for cell in row):
            continue
        if row[0].lstrip().startswith("#"):
            key, _, value = ",".join(row).lstrip("# ").partition(":")
            if key.strip() in _HEADINGS:
                about[key.strip()] = number(value, name, line, key.strip())
            continue
        table.append((line, row))
    if not table:
        raise InputError(name, "holds no data", "see docs/formats.md for the columns")
    head_line, header = table[0][0], [h.strip() for h in table[0][1]]
    if "time" not in header:
        missing_column(name, head_line, "time", header)
    unknown = [h for h in header if h != "time" and h not in COLUMN_NAMES]
    if unknown:
        raise InputError(
            f"{name}, line {head_line}",
            f"column '{unknown[0][:40]}' is not known",
            f"the columns are: time, {', '.join(COLUMN_NAMES)}",
        )
    table = table[1:]
    if not table:
        raise InputError(name, "has a header but no hours", "add the data lines")
    lines = [line for line, _ in table]
    for line, row in table:
        if len(row) != len(header):
            raise InputError(f"{name}, line {line}", f"{len(row)} fields instead of {len(header)}", "complete the line")
    start, offset, changes = _hours([(line, row[header.index("time")]) for line, row in table], name)
    values: dict[str, Any] = {}
    for at, column in enumerate(header):
        if column != "time":
            field, convert = COLUMN_NAMES[column]
            cells = [r[at] for _, r in table]
            if field in MAY_LACK_HOURS:
                blank = np.array([not c.strip() for c in cells])
                known = numbers(["0" if b else c for b, c in zip(blank, cells, strict=True)], name, lines, column)
                values[field] = np.where(blank, np.nan, convert(known))
            else:
                values[field] = convert(numbers(cells, name, lines, column))
    if "dew_c" in values and "air_c" in values and "rh_pct" not in values:
        values["rh_pct"] = 100 * saturation_pressure(values["dew_c"]) / saturation_pressure(values["air_c"])
    values.pop("dew_c", None)
    for field in REQUIRED_COLUMNS:
        if field not in values:
            missing_column(name, head_line, _NEEDED[field], header)
    if "cloud" not in values and "ghi" not in values:
        missing_column(name, head_line, "cloud_pct", header)
    for field, column_values in values.items():
        in_bounds(field, column_values, lines, name)
    notes = () if "rain_mm" in values or "rain_pct" in values else ("the file holds no rain: judge rain yourself",)
    return WeatherSeries(
        start=start,
        latitude=about.get("latitude"),
        longitude=about.get("longitude"),
        altitude_m=about.get("altitude_m", 0.0),
        utc_offset_h=offset,
        offset_changes=changes,
        source=name,
        notes=notes,
        **values,
    )


def _hours(stamps: list[tuple[int, str]], name: str) -> tuple[int, float, tuple[Change, ...]]:
    """Epoch second of the first hour, its offset from UTC in h, and where that changes. Refuses anything but
    consecutive full hours."""
    previous: datetime | None = None
    changes: list[Change] = []
    first: datetime | None = None
    for line, text in stamps:
        try:
            t = datetime.fromisoformat(text.strip())
        except ValueError:
            raise InputError(
                f"{name}, line {line}, time", f"'{text.strip()[:30]}' is not a time", "write 2026-09-14T06:00-03:00"
            ) from None
        if t.tzinfo is None:
            raise InputError(
                f"{name}, line {line}, time", "the offset from UTC is missing", "write 2026-09-14T06:00-03:00"
            )
        if previous is not None and (t - previous).total_seconds() != HOUR:
            raise InputError(
                f"{name}, line {line}, time",
                f"{text.strip()} does not follow {previous.isoformat()} by one hour",
                "give every hour once, in order",
            )
        if previous is not None and t.utcoffset() != previous.utcoffset():
            changes.append((int(t.timestamp()), _offset_h(t)))
        first = first or t
        previous = t
    assert first is not None
    if (first.minute, first.second, first.microsecond) != (0, 0, 0):
        raise InputError(f"{name}, line {stamps[0][0]}, time", "hours must begin on the full hour", "round the times")
    return int(first.timestamp()), _offset_h(first), tuple(changes)


def _offset_h(at: datetime) -> float:
    shift = at.utcoffset()
    return shift.total_seconds() / 3600 if shift else 0.0
