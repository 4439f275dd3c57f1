"""Somebody else's weather read by a mapping: rows of times and figures in our units, with the row at fault where one
cannot be read."""

import json
from dataclasses import dataclass
from datetime import UTC, datetime, tzinfo
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.feed import NAMES, PLACE, FeedUnit, Mapping, TimeForm, WeatherQuantity
from amber_gable.domain.weather.series import BOUNDS, HOUR, MAY_LACK_HOURS, REQUIRED_COLUMNS, Floats, WeatherSeries
from amber_gable.exchange.weather.json_paths import lists_in, values_at
from amber_gable.exchange.weather.run_to_hours import COMPASS, assembled, gathered, humidity_of, run_straight
from amber_gable.exchange.weather.table_text import read_table

_FORMS = {
    TimeForm.DAY_FIRST: ("%d/%m/%Y", "%d.%m.%Y", "%d-%m-%Y", "%d/%m/%y", "%d.%m.%y"),
    TimeForm.MONTH_FIRST: ("%m/%d/%Y", "%m-%d-%Y", "%m/%d/%y"),
}
_CLOCKS = ("%H:%M", "%H:%M:%S", "%I:%M %p", "%I:%M:%S %p")
_NONE = ("", "-", "--", "–", "na", "n/a", "nan", "null", "none")
WIDEST_H = 6
_EARLIEST, _LATEST = 0, 7_258_118_400
"""1970 to 2200, epoch s."""


@dataclass(frozen=True)
class Sample:
    """What a mapping is made from: every column with its values as they stand; `header` of a table."""

    columns: dict[str, list[Any]]
    header: int = 1


@dataclass(frozen=True)
class Rows:
    """times (epoch s, rising) and figures (NaN where there is none) by our names."""

    times: list[int]
    columns: dict[str, Floats]


def sample_of(text: str, kind: str, name: str, header: int | None = None) -> Sample:
    """Raises InputError where nothing of the kind is in it."""
    if kind == "json":
        columns = lists_in(_document(text, name))
        if not columns:
            raise InputError(name, "holds no list of values", "bring JSON with a list of hours")
        return Sample(columns)
    if text.lstrip()[:1] == "<":
        raise InputError(name, "is a page (HTML), not a table", "give the address that answers with data")
    table = read_table(text, name, header)
    width = len(table.headings)
    rows = [row + [""] * (width - len(row)) for _, row in table.rows]
    return Sample({h: [row[n] for row in rows] for n, h in enumerate(table.headings)}, table.header)


def _document(text: str, name: str) -> Any:
    try:
        return json.loads(text)
    except (ValueError, RecursionError) as error:
        start = text.lstrip()[:1]
        what = "is a page (HTML), not JSON" if start == "<" else f"is not JSON ({str(error)[:80]})"
        raise InputError(name, what, "give the address that answers with data") from None


def read_rows(text: str, mapping: Mapping, name: str, place: tzinfo) -> Rows:
    """The rows that `mapping` tells of. Raises InputError."""
    if mapping.kind == "json":
        document = _document(text, name)
        found = {p: values_at(document, p) for p in (mapping.time, *(c.path for c in mapping.columns))}
    else:
        columns = sample_of(text, "csv", name, mapping.header).columns
        found = {p: columns.get(p) for p in (mapping.time, *(c.path for c in mapping.columns))}
    times = found[mapping.time]
    if not times:
        raise InputError(name, f"'{mapping.time}' (the time) is not there any more", "map it anew")
    zone = place if mapping.zone == PLACE else ZoneInfo(mapping.zone)
    if mapping.kind == "csv":
        # What an instrument writes below its table, or a line it broke off.
        keep = [n for n, t in enumerate(times) if str(t).strip()]
        found = {p: None if v is None else [v[n] for n in keep] for p, v in found.items()}
    moments = _moments(found[mapping.time] or [], mapping, zone, name)
    out: dict[str, Floats] = {}
    for column in mapping.columns:
        values = found[column.path]
        if values is None:
            raise InputError(name, f"'{column.path}' ({NAMES[column.quantity]}) is not there any more", "map it anew")
        if len(values) != len(moments):
            raise InputError(
                name, f"'{column.path}' has {len(values)} values for {len(moments)} times", "map lists of one length"
            )
        where = f"{name}, {column.path}"
        out[column.quantity.value] = _figures(values, column.quantity, column.of_unit, where)
    return _in_order(moments, out, name)


def _moments(values: list[Any], mapping: Mapping, zone: tzinfo, name: str) -> list[int]:
    """Epoch s. A local time that stands twice when clocks go back is the later one the second time."""
    out: list[int] = []
    for n, value in enumerate(values, 1):
        found = _moment(value, mapping.time_form, f"{name}, row {n}, {mapping.time}")
        if found.tzinfo is None:
            found = found.replace(tzinfo=zone)
            later = found.replace(fold=1)
            if out and found.timestamp() <= out[-1] < later.timestamp():
                found = later
        out.append(int(found.timestamp()))
    return out


def _moment(value: Any, form: TimeForm, where: str) -> datetime:
    """Without a zone where the value names none."""
    try:
        if form in (TimeForm.SECONDS, TimeForm.MILLISECONDS):
            seconds = float(value) / (1000 if form is TimeForm.MILLISECONDS else 1)
            if not _EARLIEST <= seconds < _LATEST:
                raise ValueError
            return datetime.fromtimestamp(seconds, UTC)
        text = str(value).strip()
        return datetime.fromisoformat(text) if form is TimeForm.ISO else _dated(text, form)
    except (ValueError, TypeError, OverflowError, OSError):
        told = {
            TimeForm.ISO: "2026-09-15 14:00",
            TimeForm.DAY_FIRST: "15/09/2026 14:00",
            TimeForm.MONTH_FIRST: "09/15/2026 2:00 PM",
        }.get(form, f"{form.value} since 1970")
        raise InputError(where, f"'{str(value)[:30]}' is not a time such as {told}", "say how it is told") from None


def _dated(text: str, form: TimeForm) -> datetime:
    for day in _FORMS[form]:
        for clock in _CLOCKS:
            try:
                # Its zone is the mapping's to say.
                return datetime.strptime(text, f"{day} {clock}")  # noqa: DTZ007
            except ValueError:
                continue
    raise ValueError(text)


def _figures(values: list[Any], quantity: WeatherQuantity, unit: FeedUnit, where: str) -> Floats:
    out = np.full(len(values), 0.0 if unit.empty_none else np.nan)
    for n, value in enumerate(values):
        text = str("" if value is None else value).strip()
        if text.lower() in _NONE:
            continue
        if quantity is WeatherQuantity.WIND_FROM and text.upper() in COMPASS:
            out[n] = 22.5 * COMPASS.index(text.upper())
            continue
        try:
            figure = float(text.replace(",", ".").replace("−", "-"))
        except ValueError:
            raise InputError(
                f"{where}, row {n + 1}", f"'{text[:30]}' is not a figure", "leave that column out"
            ) from None
        out[n] = (figure + unit.offset) * unit.factor
    if unit.running:
        # A counter that falls was set back to nothing.
        step = np.diff(out, prepend=np.nan)
        out = np.where(step < 0, out, step)
    low, high = BOUNDS.get(quantity.value, BOUNDS["air_c"])
    bad = np.flatnonzero((out < low) | (out > high))
    if bad.size:
        at = int(bad[0])
        told = f"{values[at]} {unit.symbol}"
        raise InputError(
            f"{where}, row {at + 1}", f"{NAMES[quantity]} {told} cannot be", "check the column and its unit"
        )
    return out


def _in_order(times: list[int], columns: dict[str, Floats], name: str) -> Rows:
    """Newest first is turned round; what stands twice, or goes back and forth, is refused."""
    if len(times) < 2:
        raise InputError(name, f"holds {len(times)} readings", "two at least are needed")
    if times[0] > times[-1]:
        times, columns = times[::-1], {n: c[::-1] for n, c in columns.items()}
    steps = np.diff(times)
    if (steps <= 0).any():
        at = int(np.flatnonzero(steps <= 0)[0]) + 1
        told = datetime.fromtimestamp(times[at], UTC)
        raise InputError(name, f"{told:%Y-%m-%d %H:%M} UTC does not follow the time before it", "give each time once")
    return Rows(times, columns)


def forecast_of(rows: Rows, tz: tzinfo, issued: datetime, source: str) -> WeatherSeries:
    """Hours of a feed's forecast. Nothing that lacks is guessed, but for quantities it does not tell at all, which are
    noted. Raises InputError."""
    steps = np.diff(rows.times)
    if steps.max() > WIDEST_H * HOUR:
        at = datetime.fromtimestamp(rows.times[int(steps.argmax())], UTC).astimezone(tz)
        raise InputError(
            source, f"leaves out {steps.max() / HOUR:.0f} hours after {at:%d %b %H:%M}", "a gap is not filled"
        )
    step = float(np.median(steps))
    start, columns = (
        run_straight(rows.times, rows.columns) if step >= HOUR else gathered(rows.times, rows.columns, step)
    )
    strict = [values for name, values in columns.items() if name not in MAY_LACK_HOURS]
    whole = np.flatnonzero(np.all([np.isfinite(v) for v in strict], axis=0))
    if not whole.size:
        raise InputError(source, "tells no hour whole", "map what it tells of every hour")
    # The first and the last hour may be told in part, and are left out then; a gap within is not filled.
    first, last = int(whole[0]), int(whole[-1]) + 1
    start, columns = start + first * HOUR, {name: values[first:last] for name, values in columns.items()}
    for name, values in columns.items():
        lacking = np.flatnonzero(~np.isfinite(values))
        if lacking.size and name not in MAY_LACK_HOURS:
            at = datetime.fromtimestamp(start + int(lacking[0]) * HOUR, UTC).astimezone(tz)
            raise InputError(
                source, f"tells no {NAMES[WeatherQuantity(name)]} at {at:%d %b %H:%M}", "a gap is not filled"
            )
    return assembled(start, columns, tz, issued, source, [])


def observed_of(rows: Rows, source: str) -> WeatherSeries:
    """Hours that an instrument measured; NaN in hours and of quantities that it did not."""
    step = float(np.median(np.diff(rows.times)))
    if step > HOUR:
        raise InputError(source, f"has a reading every {step / HOUR:.1f} hours", "one an hour at least is needed")
    start, columns = gathered(rows.times, rows.columns, step)
    if "dew_c" in columns and "rh_pct" not in columns:
        columns["rh_pct"] = humidity_of(columns["air_c"], columns["dew_c"])
    columns.pop("dew_c", None)
    nothing = np.full(len(columns["air_c"]), np.nan)
    held: dict[str, Any] = dict.fromkeys(REQUIRED_COLUMNS, nothing) | columns
    return WeatherSeries(start=start, source=source, **held)
