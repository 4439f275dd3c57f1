"""The mapping of a feed or logger as a form: every column with its first values and what it may be taken for."""

from collections.abc import Mapping as Form
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo
from typing import Any

import numpy as np

from amber_gable.domain.weather.feed import NAMES, UNITS, TimeForm, WeatherQuantity
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.wording import timed
from amber_gable.services.weather.held.sources import Draft
from amber_gable.web.views.units import Units

SHOWN, ROWS, WIDEST = 3, 10, 24
"""Values shown of a column, hours shown, and letters the values may take."""
TIMES = {
    TimeForm.ISO: "time, 2026-09-15 14:00",
    TimeForm.SECONDS: "time, seconds since 1970",
    TimeForm.MILLISECONDS: "time, milliseconds since 1970",
    TimeForm.DAY_FIRST: "time, 15/09/2026",
    TimeForm.MONTH_FIRST: "time, 09/15/2026",
}
USES: list[tuple[str, list[tuple[str, str]]]] = [
    ("The time", [(form.value, words) for form, words in TIMES.items()]),
    *(
        (NAMES[q].capitalize(), [(f"{q.value}|{u.symbol}", f"{NAMES[q]}, {u.symbol}") for u in UNITS[q]])
        for q in WeatherQuantity
    ),
]
"""What a column may be taken for, in groups."""
_KINDS = {
    "air_c": ("Air", "temperature"),
    "rh_pct": ("Humidity %", ""),
    "wind_ms": ("Wind", "wind"),
    "wind_from_deg": ("from °", ""),
    "cloud": ("Cloud %", ""),
    "rain_mm": ("Rain mm", ""),
    "rain_pct": ("Chance %", ""),
    "ghi": ("Sun W/m²", ""),
}


@dataclass(frozen=True)
class ColumnRow:
    number: int
    path: str
    values: str
    use: str


def column_rows(draft: Draft, form: Form[str, str] | None = None) -> list[ColumnRow]:
    """As guessed, or as the form has them by now."""
    out = []
    for n, (path, values) in enumerate(draft.sample.columns.items()):
        told = [_short(v) for v in values[:SHOWN]]
        while len(", ".join(told)) > WIDEST and len(told) > 1:
            told.pop()
        shown = ", ".join(told) + (" …" if len(values) > len(told) else "")
        use = draft.uses.get(path, "") if form is None else form.get(f"use-{n}", "")
        out.append(ColumnRow(n, path, shown, use))
    return out


def _short(value: Any) -> str:
    text = "–" if value is None or value == "" else str(value)
    return text if len(text) <= 22 else f"{text[:21]}…"


@dataclass(frozen=True)
class ShownHours:
    """What was understood: the span in words, a table of its first hours, and its notes."""

    span: str
    heads: list[str]
    rows: list[tuple[str, list[str]]]
    notes: list[str]


def shown_hours(series: WeatherSeries, units: Units, tz: tzinfo) -> ShownHours:
    """In the reader's units and the place's time."""
    names = [n for n in _KINDS if getattr(series, n) is not None and np.isfinite(getattr(series, n)).any()]
    heads = [f"{words} {units.symbol(kind)}" if kind else words for words, kind in (_KINDS[n] for n in names)]
    begin = datetime.fromtimestamp(series.start, UTC).astimezone(tz)
    end = datetime.fromtimestamp(series.end, UTC).astimezone(tz)
    rows = []
    for hour in range(min(ROWS, len(series))):
        at = (begin.astimezone(UTC) + timedelta(hours=hour)).astimezone(tz)
        cells = [_cell(n, float(getattr(series, n)[hour]), units) for n in names]
        rows.append((f"{at:%a %H:%M}", cells))
    span = f"{len(series)} hours, {timed(begin)} to {timed(end)}"
    return ShownHours(span, heads, rows, list(series.notes))


def _cell(name: str, value: float, units: Units) -> str:
    if not np.isfinite(value):
        return "–"
    kind = _KINDS[name][1]
    if kind:
        return units.figure(value, kind, 1)
    if name == "cloud":
        return f"{100 * value:.0f}"
    return f"{value:.1f}" if name == "rain_mm" else f"{value:.0f}"
