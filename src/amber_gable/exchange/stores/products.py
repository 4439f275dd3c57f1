"""Data sheets in and out: JSON (format `amber-gable-products`) and CSV with one line per product (docs/formats.md)."""

import csv
import io
import json
from typing import Any, get_args

from pydantic import ValidationError

from amber_gable.domain.errors import InputError, words_of
from amber_gable.domain.paint.product import Product
from amber_gable.exchange.files import plain_cell, safe_cell
from amber_gable.exchange.job.bundle import refusal

FORMAT = "amber-gable-products"
_LISTS = ("methods", "substrates", "hazards", "vinyl_colours")
_FLAGS = ("primer", "self_priming", "vinyl_safe")
_COLUMNS = [*(n for n in Product.model_fields if n != "containers"), "containers"]


def dump_products(products: list[Product]) -> str:
    """Canonical JSON: the same sheets always give the same bytes."""
    sheets = [p.model_dump(mode="json", exclude_none=True) for p in products]
    return json.dumps({"format": FORMAT, "version": 1, "products": sheets}, indent=2, ensure_ascii=False) + "\n"


def read_products(text: str, name: str) -> list[Product]:
    """Sheets of a JSON or CSV file, told apart by their content. Raises InputError naming place and column; a file with
    one fault is refused whole."""
    stripped = text.lstrip("\ufeff \n\r\t")
    found = _json(stripped, name) if stripped.startswith(("{", "[")) else _csv(text, name)
    if not found:
        raise InputError(name, "holds no products", "give at least one")
    first: dict[str, str] = {}
    for where, product in found:
        if product.code in first:
            raise InputError(where, f"code '{product.code}' was used at {first[product.code]}", "give it its own code")
        first[product.code] = where
    return [p for _, p in found]


def _json(text: str, name: str) -> list[tuple[str, Product]]:
    try:
        raw = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        line = getattr(error, "lineno", 1)
        raise InputError(f"{name}, line {line}", "is not valid JSON", "mend the line") from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT or not isinstance(raw.get("products"), list):
        raise InputError(name, "is no product file", f'it must have "format": "{FORMAT}" and a list "products"')
    out = []
    for n, sheet in enumerate(raw["products"], 1):
        where = f"{name}, product {n}"
        try:
            out.append((where, Product.model_validate(sheet)))
        except ValidationError as error:
            raise refusal(error, where, sheet) from None
    return out


def write_csv(products: list[Product]) -> str:
    """One line per product; lists are joined by blanks, containers written '0.946:18.20 3.785:56.02'."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(_COLUMNS)
    for p in products:
        sheet = p.model_dump(mode="json")
        writer.writerow([_cell(sheet, c) if _is_number(c) else safe_cell(_cell(sheet, c)) for c in _COLUMNS])
    return out.getvalue()


def _cell(sheet: dict[str, Any], column: str) -> str:
    value = sheet[column]
    if column == "containers":
        return " ".join(f"{c['litres']:g}:{c['price']}" for c in value)
    if column in _LISTS:
        return " ".join(value)
    if column in _FLAGS:
        return "yes" if value else "no"
    return "" if value is None else f"{value:g}" if isinstance(value, float) else str(value)


def _csv(text: str, name: str) -> list[tuple[str, Product]]:
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff")))
    columns = [c.strip() for c in reader.fieldnames or []]
    needed = [n for n, f in Product.model_fields.items() if f.is_required()]
    lacking = [n for n in needed if n not in columns]
    if lacking:
        raise InputError(f"{name}, line 1", f"has no column '{lacking[0]}'", "the first line names the columns")
    strange = [c for c in columns if c not in _COLUMNS]
    if strange:
        raise InputError(f"{name}, line 1", f"column '{strange[0]}' is not known", f"one of: {', '.join(_COLUMNS)}")
    reader.fieldnames = columns
    out = []
    for row in reader:
        where = f"{name}, line {reader.line_num}"
        if None in row:
            raise InputError(where, "has more cells than the first line has columns", "put quotes round commas")
        sheet = {c: _value(c, (row[c] or "").strip(), where) for c in columns if (row[c] or "").strip()}
        try:
            out.append((where, Product.model_validate(sheet)))
        except ValidationError as error:
            first = error.errors(include_url=False)[0]
            column = str(first["loc"][0]) if first["loc"] else ""
            place = f"{where}, column {column}" if column else where
            given = f", not '{(row.get(column) or '').strip()}'" if column else ""
            message = words_of(first)
            raise InputError(place, message + given, "correct it; nothing was imported") from None
    return out


def _value(column: str, text: str, where: str) -> Any:
    """A cell as the sheet takes it; numbers are left as text for the sheet to judge."""
    if column == "containers":
        return [_container(part, f"{where}, column containers") for part in text.split()]
    if column in _LISTS:
        return text.split()
    if column in _FLAGS:
        if text.lower() not in ("yes", "no", "true", "false", "1", "0"):
            raise InputError(f"{where}, column {column}", f"'{text}' is neither yes nor no", "write yes or no")
        return text.lower() in ("yes", "true", "1")
    return text.replace(",", ".") if _is_number(column) else plain_cell(text)


def _container(part: str, where: str) -> dict[str, str]:
    litres, colon, price = part.partition(":")
    if not colon:
        raise InputError(where, f"'{part}' is no container", "write litres:price, such as 3.785:56.02")
    return {"litres": litres, "price": price}


def _is_number(column: str) -> bool:
    wanted = Product.model_fields[column].annotation
    return wanted in (float, int) or bool({float, int} & set(get_args(wanted)))
