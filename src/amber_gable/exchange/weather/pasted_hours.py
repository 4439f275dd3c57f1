"""A table of hours pasted from any page or program: columns told by their headings, with the units these name.

The first line names the columns, which tabs, semicolons, bars, commas or two blanks and more part. Understood are a
time (`2026-09-15 14:00`, `15.09.2026 14:00`, or `14:00` running on from a first day), air, dew point or humidity, wind
and gusts with their direction in degrees or letters, cloud, rain and its chance; other columns are left out and said.
Rows every one to six hours are run straight to hours, rain shared out among them; what is further apart is refused.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, datetime, timedelta, tzinfo

import numpy as np

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.series import BOUNDS, HOUR, Floats, WeatherSeries
from amber_gable.exchange.weather.run_to_hours import COMPASS, assembled, run_straight

MOST_ROWS, WIDEST_H = 1000, 6


@dataclass(frozen=True)
class _Column:
    """units: what is looked for in the heading, and how its figures become ours; the first found holds."""

    field: str
    heading: re.Pattern[str]
    units: tuple[tuple[str, Callable[[float], float]], ...]


def _same(value: float) -> float:
    return value


_DEGREES = (("°?f\\b|fahrenheit", lambda v: (v - 32) / 1.8), ("", _same))
_SPEED = (
    ("km/?h|kph|kmh", lambda v: v / 3.6),
    ("mph|mi/h", lambda v: v * 0.44704),
    ("kn|kt", lambda v: v * 0.514444),
    ("", _same),
)
_COLUMNS = (
    _Column("time", re.compile(r"time|hour|date|when|^h$"), (("", _same),)),
    _Column("gust_ms", re.compile(r"gust"), _SPEED),
    _Column("feels", re.compile(r"feels|apparent|chill|index"), (("", _same),)),
    _Column("dew_c", re.compile(r"dew"), _DEGREES),
    _Column("wind_from_deg", re.compile(r"dir|from|bearing"), (("", _same),)),
    _Column("wind_ms", re.compile(r"wind"), _SPEED),
    _Column("rain_pct", re.compile(r"chance|prob|pop|(rain|precip).*%"), (("", _same),)),
    _Column("rain_mm", re.compile(r"rain|precip"), (('\\bin\\b|inch|"', lambda v: v * 25.4), ("", _same))),
    _Column("rh_pct", re.compile(r"humid|\brh\b"), (("", _same),)),
    _Column("cloud", re.compile(r"cloud|sky"), (("okta|/8|eighth", lambda v: v / 8), ("", lambda v: v / 100))),
    _Column("air_c", re.compile(r"temp|air|°c|°f"), _DEGREES),
)
_NAMES = {
    "air_c": "air", "rh_pct": "humidity", "wind_ms": "wind", "wind_from_deg": "where the wind is from",
    "gust_ms": "gusts",
    "cloud": "cloud", "rain_mm": "rain", "rain_pct": "chance of rain",
}  # fmt: skip


def read_pasted(text: str, first: date, tz: tzinfo, issued: datetime) -> WeatherSeries:
    """The table as a series whose notes say what was understood and what was left out. `first`: the day on which times
    without one begin. Raises InputError with the line at fault."""
    rows = [(n, _cells(line)) for n, line in enumerate(text.strip("\n").splitlines(), 1) if line.strip()]
    if len(rows) < 3:
        raise InputError("pasted table", "holds no hours", "paste a line of headings and a line for each hour")
    if len(rows) > MOST_ROWS:
        raise InputError("pasted table", f"has {len(rows)} lines", f"paste {MOST_ROWS} at most")
    (_, headings), body = rows[0], rows[1:]
    known, left = _headings(headings)
    times = _times([(n, _cell(cells, known["time"], n)) for n, cells in body], first, tz)
    columns = {f: _values(f, *known[f], body) for f in known if f != "time" and f in (*_NAMES, "dew_c")}
    for field in ("air_c",):
        if field not in columns:
            raise InputError("pasted table, line 1", f"no column of {_NAMES[field]} (found: {', '.join(headings)})", "")
    understood = ", ".join(
        words for name, words in _NAMES.items() if name in columns or (name == "rh_pct" and "dew_c" in columns)
    )
    notes = [f"pasted: {len(times)} lines, understood {understood}" + (f"; left out {', '.join(left)}" if left else "")]
    return assembled(*run_straight(times, columns), tz, issued, "pasted in", notes)


def _cells(line: str) -> list[str]:
    for mark in ("\t", ";", "|"):
        if mark in line:
            return [c.strip() for c in line.strip("|").split(mark)]
    if re.search(r"\S\s{2,}\S", line):
        return re.split(r"\s{2,}", line.strip())
    return [c.strip() for c in line.split(",")]


def _cell(cells: list[str], column: tuple[int, Callable[[float], float]], line: int) -> str:
    if column[0] >= len(cells):
        raise InputError(f"pasted table, line {line}", "has fewer columns than the headings", "complete the line")
    return cells[column[0]]


def _headings(headings: list[str]) -> tuple[dict[str, tuple[int, Callable[[float], float]]], list[str]]:
    """Each field's place and unit, and the headings that say nothing known; of two of one field the first holds."""
    known: dict[str, tuple[int, Callable[[float], float]]] = {}
    left, unitless = [], []
    for at, heading in enumerate(headings):
        lower = heading.lower()
        found = next((c for c in _COLUMNS if c.heading.search(lower)), None)
        if found is None or found.field in known or found.field == "feels":
            left.append(heading)
            continue
        unit, convert = next((u, turn) for u, turn in found.units if not u or re.search(u, lower))
        known[found.field] = (at, convert)
        if found.field == "gust_ms" and not unit:
            unitless.append(at)
    if unitless and "gust_ms" in known and "wind_ms" in known:
        # Gusts without a unit are told in the wind's.
        known["gust_ms"] = (unitless[0], known["wind_ms"][1])
    if "time" not in known:
        raise InputError("pasted table, line 1", f"no column of times (found: {', '.join(headings)})", "name it Time")
    return known, left


_FORMS = ("%Y-%m-%d %H:%M", "%Y-%m-%dT%H:%M", "%d.%m.%Y %H:%M", "%d/%m/%Y %H:%M", "%d %b %Y %H:%M")


def _times(stamps: list[tuple[int, str]], first: date, tz: tzinfo) -> list[int]:
    """Epoch seconds, rising; a clock alone runs on into the next day where it falls back."""
    out: list[int] = []
    day, last = first, -1.0
    for line, text in stamps:
        where = f"pasted table, line {line}, time"
        clock = re.fullmatch(r"(\d{1,2})(?:[:.h](\d{2}))?\s*(am|pm)?", text.lower())
        if clock is not None:
            hour = int(clock[1]) % 12 + 12 * (clock[3] == "pm") if clock[3] else int(clock[1])
            at = hour + int(clock[2] or 0) / 60
            if at >= 24 or int(clock[2] or 0) > 59:
                raise InputError(where, f"'{text[:20]}' is no time of the day", "write it such as 14:00")
            day = day + timedelta(days=1) if at <= last else day
            last = at
            moment = datetime(day.year, day.month, day.day, hour, int(clock[2] or 0), tzinfo=tz)
        else:
            moment = _stamp(text, where, tz)
        seconds = int(moment.timestamp())
        if out and not HOUR <= seconds - out[-1] <= WIDEST_H * HOUR:
            raise InputError(
                where, f"'{text[:25]}' does not follow the line before by one to {WIDEST_H} hours", "mend it"
            )
        out.append(seconds)
    return out


def _stamp(text: str, where: str, tz: tzinfo) -> datetime:
    try:
        found = datetime.fromisoformat(text)
    except ValueError:
        for form in _FORMS:
            try:
                return datetime.strptime(text, form).replace(tzinfo=tz)
            except ValueError:
                continue
        raise InputError(where, f"'{text[:25]}' is not a time", "write it such as 2026-09-15 14:00") from None
    return found if found.tzinfo is not None else found.replace(tzinfo=tz)


def _values(field: str, at: int, convert: Callable[[float], float], body: list[tuple[int, list[str]]]) -> Floats:
    out = []
    for line, cells in body:
        text = _cell(cells, (at, convert), line)
        if field == "wind_from_deg" and text.upper() in COMPASS:
            out.append(22.5 * COMPASS.index(text.upper()))
            continue
        found = re.match(r"[-−+]?\d+(?:[.,]\d+)?", text)
        if found is None and field in ("rain_mm", "rain_pct") and text in ("", "-", "–"):
            out.append(0.0)
            continue
        if found is None and field == "gust_ms" and text in ("", "-", "–"):
            out.append(np.nan)
            continue
        where = f"pasted table, line {line}"
        if found is None:
            raise InputError(where, f"'{text[:20]}' is not a figure", "correct the cell")
        value = convert(float(found[0].replace(",", ".").replace("−", "-")))
        low, high = BOUNDS.get(field, BOUNDS["air_c"])
        if not low <= value <= high:
            raise InputError(
                where, f"{_NAMES.get(field, 'dew point')} {value:g} is outside {low:g} to {high:g}", "correct it"
            )
        out.append(value)
    return np.array(out)
