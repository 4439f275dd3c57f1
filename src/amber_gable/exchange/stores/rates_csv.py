"""A company's rates as CSV: one line each, the trade's among them; what differs from them comes in as the company's
own (docs/formats.md)."""

import csv
import io
import math
from collections.abc import Mapping

from pydantic import ValidationError

from amber_gable.domain.errors import InputError, first_words
from amber_gable.domain.work.rates import (
    FACTOR_LEAST,
    FACTOR_MOST,
    PACE_FACTORS,
    RATES,
    OwnRate,
    factors_with,
    rates_with,
)
from amber_gable.exchange.files import plain_cell, safe_cell

_FORMER = ("handbook §17",)
"""What older versions called the source of the trade's medians in the files they wrote."""
COLUMNS = ("code", "what", "unit", "per_hour", "spread", "source")
_TODO = "correct it; nothing was taken over"


FACTOR = "factor-"
"""Before the code of a factor; its value stands where a rate has its figure."""


def write_rates(own: Mapping[str, OwnRate], factors: Mapping[str, float] | None = None) -> str:
    """Every rate and factor as it holds."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for r in rates_with(own).values():
        row = (r.code, r.words, r.unit.value, f"{r.per_hour:.9g}", f"{r.spread:g}", r.source)
        writer.writerow([safe_cell(c) for c in row])
    for f in factors_with(factors or {}).values():
        row = (f"{FACTOR}{f.code}", f.words, "times", f"{f.value:.9g}", "", f.source)
        writer.writerow([safe_cell(c) for c in row])
    return out.getvalue()


def read_rates(text: str, name: str) -> tuple[dict[str, OwnRate], dict[str, float]]:
    """The company's own rates and factors of a file. `what` and `unit` are for reading. Raises InputError with line and
    column."""
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff").replace("\r\n", "\n")), restkey="more")
    missing = [c for c in ("code", "per_hour") if c not in (reader.fieldnames or [])]
    if missing:
        raise InputError(f"{name}, line 1", f"has no column '{missing[0]}'", f"the columns are {', '.join(COLUMNS)}")
    out: dict[str, OwnRate] = {}
    factors: dict[str, float] = {}
    seen: set[str] = set()
    try:
        for row in reader:
            where = f"{name}, line {reader.line_num}"
            cells = {k: plain_cell((v or "").strip()) for k, v in row.items() if isinstance(v, str) or v is None}
            if "more" in row:
                raise InputError(where, "has more cells than the first line has columns", _TODO)
            if any(cells.values()):
                if cells["code"] in seen:
                    raise InputError(f"{where}, code", f"“{cells['code']}” stands there twice", _TODO)
                seen.add(cells["code"])
                if cells["code"].startswith(FACTOR):
                    _take_factor(cells, where, factors)
                else:
                    _take(cells, where, out)
    except csv.Error as error:
        raise InputError(f"{name}, line {reader.line_num}", f"is not CSV ({error})", _TODO) from None
    return out, factors


def _take(cells: Mapping[str, str], where: str, out: dict[str, OwnRate]) -> None:
    code = cells["code"]
    if code not in RATES:
        raise InputError(
            f"{where}, code", f"“{code[:30]}” is no rate that is known", "take the codes of a file taken out"
        )
    usual = RATES[code]
    fields = {
        "per_hour": _figure(cells, "per_hour", where, usual.per_hour),
        "spread": _figure(cells, "spread", where, usual.spread),
    }
    source = cells.get("source") or OwnRate.model_fields["source"].default
    if source in _FORMER:
        source = usual.source
    try:
        own = OwnRate.model_validate(fields | {"source": source})
    except ValidationError as error:
        raise InputError(where, " ".join(first_words(error)), _TODO) from None
    same = math.isclose(own.per_hour, usual.per_hour, rel_tol=1e-6) and math.isclose(own.spread, usual.spread)
    if not same or source not in (usual.source, OwnRate.model_fields["source"].default):
        out[code] = own


def _take_factor(cells: Mapping[str, str], where: str, out: dict[str, float]) -> None:
    code = cells["code"].removeprefix(FACTOR)
    if code not in PACE_FACTORS:
        why = f"“{cells['code'][:30]}” is no factor that is known"
        raise InputError(f"{where}, code", why, "take codes of a file taken out")
    value = _figure(cells, "per_hour", where, PACE_FACTORS[code].value)
    if not FACTOR_LEAST <= value <= FACTOR_MOST:
        raise InputError(
            f"{where}, per_hour", f"{value:g} is no factor from {FACTOR_LEAST:g} to {FACTOR_MOST:g}", _TODO
        )
    if not math.isclose(value, PACE_FACTORS[code].value, rel_tol=1e-6):
        out[code] = value


def _figure(cells: Mapping[str, str], column: str, where: str, usual: float) -> float:
    text = cells.get(column, "")
    if not text:
        return usual
    try:
        return float(text.replace(",", "."))
    except ValueError:
        raise InputError(f"{where}, {column}", f"“{text[:20]}” is not a number", _TODO) from None
