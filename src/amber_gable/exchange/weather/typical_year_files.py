"""Typical-year weather files: EPW and TMY3 CSV. Their labels are the ends of their hours."""

import csv
import io
from datetime import UTC, datetime, timedelta
from typing import Any

import numpy as np

from amber_gable.core.weather.outdoors.air import saturation_pressure
from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.checks import bridge, in_bounds, missing_column, number, numbers
from amber_gable.exchange.weather.present_weather import epw_weather, synoptic_code
from amber_gable.exchange.weather.sunshine import read_sunshine

HOURS = 8760
_NO_RAIN = "the file holds no rain: add a rain column (plain CSV) or judge rain yourself"
# field -> (column index, value that means "missing", factor to our unit)
_EPW = {
    "air_c": (6, 99.9, 1.0),
    "dew_c": (7, 99.9, 1.0),
    "rh_pct": (8, 999.0, 1.0),
    "ir_down": (12, 9999.0, 1.0),
    "ghi": (13, 9999.0, 1.0),
    "dni": (14, 9999.0, 1.0),
    "dhi": (15, 9999.0, 1.0),
    "wind_from_deg": (20, 999.0, 1.0),
    "wind_ms": (21, 999.0, 1.0),
    "cloud": (22, 99.0, 0.1),
    "rain_mm": (33, 999.0, 1.0),
}
_EPW_LEAST = 24
_TMY3 = {
    "air_c": ("Dry-bulb (C)", 1.0),
    "rh_pct": ("RHum (%)", 1.0),
    "dew_c": ("Dew-point (C)", 1.0),
    "ghi": ("GHI (W/m^2)", 1.0),
    "dni": ("DNI (W/m^2)", 1.0),
    "dhi": ("DHI (W/m^2)", 1.0),
    "wind_from_deg": ("Wdir (degrees)", 1.0),
    "wind_ms": ("Wspd (m/s)", 1.0),
    "cloud": ("TotCld (tenths)", 0.1),
    # The column is headed mm but holds tenths: its values are hundredths of an inch brought to 0.1 mm.
    "rain_mm": ("Lprecip depth (mm)", 0.1),
}
_TMY3_MISSING = -9900.0


def read_epw(text: str, name: str) -> WeatherSeries:
    """An EnergyPlus weather file of one year. Refuses a file that is cut, out of order or has impossible values."""
    rows = list(csv.reader(io.StringIO(text)))
    head = rows[0] if rows else []
    if len(head) < 10 or head[0].strip().upper() != "LOCATION":
        raise InputError(f"{name}, line 1", "the LOCATION line is missing or short", "use a complete EPW file")
    latitude, longitude, zone, altitude = (number(head[i], name, 1, "LOCATION") for i in (6, 7, 8, 9))
    begins = next((i for i, r in enumerate(rows) if r and r[0].strip().upper().startswith("DATA PERIODS")), None)
    if begins is None:
        raise InputError(name, "the DATA PERIODS line is missing", "use a complete EPW file")
    data = [(i + 1, r) for i, r in enumerate(rows) if i > begins and r]
    for line, row in data:
        if len(row) < max(_EPW_LEAST, len(data[0][1])):
            raise InputError(f"{name}, line {line}", f"only {len(row)} fields: the line is cut", "fetch the file again")
    stamps = []
    for line, row in data:
        month, day, hour = (int(number(row[i], name, line, "date")) for i in (1, 2, 3))
        stamps.append((month, day, hour - 1))
    keep = _ordered_year(stamps, [line for line, _ in data], name)
    data = [data[i] for i in keep]
    lines = [line for line, _ in data]
    columns, gaps = {}, {}
    for field, (at, missing, factor) in _EPW.items():
        values = numbers([r[at] if len(r) > at else f"{missing}" for _, r in data], name, lines, field)
        # Writers mark what they do not have in their own ways; what no sky can hold is taken as not given.
        optional = field in ("cloud", "rain_mm", "ir_down")
        gaps[field] = (values >= missing) | ((values < 0) | (field == "cloud") & (values > 10) if optional else False)
        columns[field] = values * factor
    weather = np.array([np.nan if len(r) < 28 else epw_weather(r[26], r[27]) for _, r in data])
    return _series(columns, gaps, weather, lines, name, latitude, longitude, altitude, zone)


def read_tmy3(text: str, name: str) -> WeatherSeries:
    """A TMY3 CSV of one year. Refuses a file that is cut, out of order or has impossible values."""
    rows = list(csv.reader(io.StringIO(text)))
    if len(rows) < 3 or len(rows[0]) < 7:
        raise InputError(f"{name}, line 1", "the station line is missing or short", "use a complete TMY3 file")
    zone, latitude, longitude, altitude = (number(rows[0][i], name, 1, "station") for i in (3, 4, 5, 6))
    header = [h.strip() for h in rows[1]]
    place = {h: i for i, h in enumerate(header)}
    for wanted in (
        "Date (MM/DD/YYYY)",
        "Time (HH:MM)",
        *(c for f, (c, _) in _TMY3.items() if f not in ("rain_mm", "dew_c")),
    ):
        if wanted not in place:
            missing_column(name, 2, wanted, header)
    data = [(i, r) for i, r in enumerate(rows[2:], 3) if r]
    stamps = []
    for line, row in data:
        if len(row) < len(header):
            raise InputError(
                f"{name}, line {line}", f"only {len(row)} fields of {len(header)}: cut", "fetch the file again"
            )
        try:
            month, day, _ = (int(part) for part in row[0].split("/"))
            stamps.append((month, day, int(row[1].split(":")[0]) - 1))
        except ValueError:
            raise InputError(
                f"{name}, line {line}", "date or time cannot be read", "expected MM/DD/YYYY,HH:MM"
            ) from None
    keep = _ordered_year(stamps, [line for line, _ in data], name)
    data = [data[i] for i in keep]
    lines = [line for line, _ in data]
    columns, gaps = {}, {}
    for field, (column, factor) in _TMY3.items():
        at = place.get(column)
        missing = np.full(len(data), _TMY3_MISSING)
        values = missing if at is None else numbers([r[at] for _, r in data], name, lines, column)
        gaps[field] = values <= _TMY3_MISSING
        columns[field] = values * factor
    if (hours := place.get("Lprecip quantity (hr)")) is not None:
        # A depth that was gathered over several hours says nothing about this one.
        gaps["rain_mm"] |= np.array([r[hours].strip() != "1" for _, r in data])
    codes = place.get("PresWth (METAR code)")
    weather = np.array([np.nan if codes is None or (mm := _code(r[codes])) is None else mm for _, r in data])
    return _series(columns, gaps, weather, lines, name, latitude, longitude, altitude, zone)


def _code(text: str) -> float | None:
    return synoptic_code(int(text)) if text.strip().lstrip("-").isdigit() else None


def _ordered_year(stamps: list[tuple[int, int, int]], lines: list[int], name: str) -> list[int]:
    """Indices of the 8760 hours 1 January to 31 December, leap day left out. Refuses gaps and a file that stops."""
    keep = [i for i, (month, day, _) in enumerate(stamps) if (month, day) != (2, 29)]
    begin = datetime(2001, 1, 1, tzinfo=UTC)
    for hour, i in enumerate(keep[:HOURS]):
        t = begin + timedelta(hours=hour)
        month, day, clock = stamps[i]
        if (month, day, clock) != (t.month, t.day, t.hour):
            raise InputError(
                f"{name}, line {lines[i]}",
                f"expected {t:%d %B}, hour {t.hour + 1}, found month {month}, day {day}, hour {clock + 1}",
                "a typical year must hold every hour in order; fetch the file again",
            )
    if len(keep) != HOURS:
        where = f"{name}, line {lines[-1]}" if lines else name
        raise InputError(where, f"the file ends after {len(keep)} of {HOURS} hours", "it was cut; fetch it again")
    return keep


def _series(
    columns: dict[str, np.ndarray],
    gaps: dict[str, np.ndarray],
    weather_rain: np.ndarray,
    lines: list[int],
    name: str,
    latitude: float,
    longitude: float,
    altitude: float,
    zone: float,
) -> WeatherSeries:
    notes: list[str] = []
    start = int((datetime(2001, 1, 1, tzinfo=UTC) - timedelta(hours=zone)).timestamp())
    dry = gaps["rh_pct"]
    from_dew = 100 * saturation_pressure(columns["dew_c"]) / saturation_pressure(columns["air_c"])
    usable = dry & ~gaps["dew_c"] & ~gaps["air_c"]
    columns["rh_pct"] = np.where(usable, from_dew, columns["rh_pct"])
    gaps["rh_pct"] = dry & ~usable
    if not gaps["rh_pct"].all():
        # Stations report a little over saturation in fog.
        columns["rh_pct"] = np.where((columns["rh_pct"] > 100) & (columns["rh_pct"] <= 105), 100.0, columns["rh_pct"])
    values: dict[str, Any] = {}
    labels = {
        "air_c": "air temperature",
        "rh_pct": "humidity",
        "wind_ms": "wind speed",
        "wind_from_deg": "wind direction",
    }
    for field, label in labels.items():
        values[field] = bridge(columns[field], gaps[field], name, label, lines)
    offset_min = read_sunshine(columns, gaps, values, notes, (start, latitude, longitude, altitude))
    if gaps["cloud"].mean() < 0.02:
        values["cloud"] = bridge(columns["cloud"], gaps["cloud"], name, "cloud cover", lines)
    elif "ghi" in values:
        notes.append("no cloud cover in the file: taken from how bright the days around each night were")
    else:
        raise InputError(name, "the file has neither sunshine nor cloud cover", "use a file that has one of them")
    if "ir_down" in gaps and not gaps["ir_down"].any() and (columns["ir_down"] > 0).all():
        values["ir_down"] = columns["ir_down"]
    depth_known = ~gaps["rain_mm"]
    # Some stations report no depth and files carry zeros for it; a year without a drop is no depth at all.
    if columns["rain_mm"][depth_known].sum() > 0:
        # Rain that was seen counts where its depth is missing; that none was seen is no proof that none fell.
        seen = np.where(weather_rain > 0, weather_rain, np.nan)
        values["rain_mm"] = np.where(depth_known, columns["rain_mm"], seen)
    elif np.nansum(weather_rain) > 0:
        values["rain_mm"] = weather_rain
        notes.append("rain taken from the file's present-weather codes: its depth is rough")
    else:
        notes.append(_NO_RAIN)
    if "rain_mm" in values and (unknown := int(np.isnan(values["rain_mm"]).sum())):
        notes.append(f"rain is not known in {unknown} hours of the year: coats that reach into them are not answered")
    for field, column in values.items():
        in_bounds(field, column, lines, name)
    return WeatherSeries(
        start=start,
        latitude=latitude,
        longitude=longitude,
        altitude_m=altitude,
        utc_offset_h=zone,
        typical_year=True,
        # Air, wind and cloud were read off at the label, sunshine and rain gathered in the hour before it.
        state_at_h=1.0,
        light_offset_min=offset_min,
        source=name,
        notes=tuple(notes),
        **values,
    )
