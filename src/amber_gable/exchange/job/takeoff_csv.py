"""The take-off as CSV: every face and what is on it, a line each, with the areas worked out; and back again.

The columns `plan_m2`, `factor`, `surface_m2` and `arithmetic` are for reading; they are left aside when a file comes
in.
"""

import csv
import io
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from amber_gable.core.survey.amounts.items import item_area, item_parts
from amber_gable.core.survey.amounts.measures import parse_bearing
from amber_gable.core.survey.amounts.takeoff import AreaLine, zone_areas
from amber_gable.domain.errors import InputError
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.files import plain_cell, safe_cell

COLUMNS = (
    "record", "face", "name", "kind", "building", "looks_deg", "tilt_deg", "x_m", "y_m", "sizes", "substrate",
    "texture", "colour", "plan_m2", "factor", "surface_m2", "arithmetic",
)  # fmt: skip
MOST_ROWS = 20_000
Part = Face | Opening | Obstacle | Zone | Item
_MODELS: dict[str, type[Part]] = {"face": Face, "opening": Opening, "obstacle": Obstacle, "zone": Zone, "item": Item}
_GROUPS = {"face": "outline", "zone": "area", "item": "spec"}
_TODO = "correct it; nothing was saved"


@dataclass(frozen=True)
class TakeoffRow:
    """A part as read, with the line it stands in and the name of its face. Its id is provisional."""

    line: int
    record: str
    face: str
    part: Part


def write_takeoff(bundle: JobBundle) -> str:
    """CSV of the whole property."""
    out = io.StringIO()
    writer = csv.DictWriter(out, COLUMNS, lineterminator="\n")
    writer.writeheader()
    for row in _rows(bundle):
        writer.writerow({k: safe_cell(v) if isinstance(v, str) else v for k, v in row.items()})
    return out.getvalue()


def _rows(bundle: JobBundle) -> Iterator[dict[str, Any]]:
    property_ = bundle.property
    areas = zone_areas(property_, bundle.deduction)
    for f in property_.faces:
        yield {
            "record": "face", "name": f.name, "kind": f.outline.kind, "building": f.building, "sizes":
            _sizes(f.outline), "looks_deg": f"{f.azimuth_deg:g}", "tilt_deg": f"{f.tilt_deg:g}", "plan_m2":
            round(f.area_m2, 4),
        }  # fmt: skip
        placed: list[Opening | Obstacle] = [*f.openings, *f.obstacles]
        for part in placed:
            yield {
                "record": "opening" if isinstance(part, Opening) else "obstacle", "face": f.name, "name": part.name,
                "kind": part.kind.value, "x_m": _num(part.x_m), "y_m": _num(part.y_m), "sizes": _sizes(part),
                "plan_m2": round(part.width_m * part.height_m, 4),
            }  # fmt: skip
        for z in property_.zones_of(f.id):
            a = areas[z.id]
            yield {
                "record": "zone", "face": f.name, "name": z.name, "kind": z.area.kind, "sizes": _area_sizes(z.area),
                "substrate": z.substrate, "texture": f"{z.profile.kind} {_sizes(z.profile)}" if z.profile else "",
                "colour": z.colour_now, "plan_m2": round(a.plan_m2, 4), "factor": round(a.profile_factor, 4),
                "surface_m2": round(a.surface_m2, 4), "arithmetic": " | ".join(_words(line) for line in a.lines),
            }  # fmt: skip
        for i in property_.items_of(f.id):
            parts = item_parts(i.spec)
            yield {
                "record": "item", "face": f.name, "name": i.name, "kind": i.spec.kind, "x_m": _num(i.x_m),
                "y_m": _num(i.y_m), "sizes": _sizes(i.spec), "substrate": i.substrate, "colour": i.colour_now,
                "surface_m2": round(item_area(i.spec), 4),
                "arithmetic": " | ".join(f"{p.name} {p.area_m2:.3f}" for p in parts),
            }  # fmt: skip


def _num(value: float) -> str:
    return f"{value:.6f}".rstrip("0").rstrip(".")


def _words(line: AreaLine) -> str:
    sizes = " × ".join(_num(s) for s in line.sizes)
    return f"{line.words} {sizes} = {line.value_m2:.3f}" if sizes else f"{line.words} {line.value_m2:.3f}"


def _sizes(record: Any) -> str:
    """The record's own numbers as `name=value; …`, without its place, which has columns."""
    out = []
    for name, value in record.model_dump(mode="json").items():
        if name in ("kind", "id", "name", "x_m", "y_m") or value is None:
            continue
        if name == "corners":
            text = " ".join(f"{_num(x)}/{_num(y)}" for x, y in value)
        elif isinstance(value, bool):
            text = "yes" if value else "no"
        else:
            text = _num(value) if isinstance(value, int | float) else str(value)
        out.append(f"{name}={text}")
    return "; ".join(out)


def _area_sizes(area: Any) -> str:
    if area.kind != "trim":
        return _sizes(area)
    return "; ".join(f"{r.part.value}={_num(r.girth_m)}/{_num(r.cover_m)}" for r in area.runs)


def read_takeoff(text: str, name: str) -> list[TakeoffRow]:
    """The file's parts in order, each valid by itself. Raises InputError with line and column."""
    reader = csv.DictReader(io.StringIO(text.replace("\r\n", "\n")), restkey="more")
    header = reader.fieldnames or []
    unknown = [c for c in header if c not in COLUMNS]
    if "record" not in header or unknown:
        why = f"has no column 'record'; the columns are {', '.join(COLUMNS)}" if "record" not in header else (
            f"has columns that are not known: {', '.join(str(u)[:20] for u in unknown[:5])}"
        )  # fmt: skip
        raise InputError(f"{name}, line 1", why, "see docs/formats.md; nothing was saved")
    out: list[TakeoffRow] = []
    try:
        for row in reader:
            line = reader.line_num
            if len(out) >= MOST_ROWS:
                raise InputError(f"{name}, line {line}", f"holds more than {MOST_ROWS} lines", "split the file")
            if "more" in row:
                raise InputError(f"{name}, line {line}", "has more cells than the first line has columns", _TODO)
            if any((v or "").strip() for v in row.values()):
                out.append(_row({k: plain_cell((v or "").strip()) for k, v in row.items()}, line, name, len(out)))
    except csv.Error as error:
        raise InputError(f"{name}, line {reader.line_num}", f"is not CSV ({error})", _TODO) from None
    return out


def _row(cells: dict[str, str], line: int, name: str, number: int) -> TakeoffRow:
    record = cells["record"].lower()
    model = _MODELS.get(record)
    if model is None:
        why = f"“{record[:20]}” is not one of {', '.join(_MODELS)}"
        raise InputError(f"{name}, line {line}, record", why, _TODO)
    if record != "face" and not cells.get("face"):
        raise InputError(f"{name}, line {line}, face", "is needed: the name of the face it is on", _TODO)

    def wrong(column: str, why: str) -> InputError:
        return InputError(f"{name}, line {line}, {column}", why, _TODO)

    values: dict[str, Any] = {"id": f"new-{number}", "name": cells.get("name", "")}
    for column in ("x_m", "y_m", "tilt_deg"):
        if cells.get(column):
            values[column] = _float(cells[column], lambda why, c=column: wrong(c, why))
    if cells.get("looks_deg"):
        try:
            values["azimuth_deg"] = parse_bearing(cells["looks_deg"])
        except ValueError as error:
            raise wrong("looks_deg", str(error)) from None
    for column, field in (("substrate", "substrate"), ("colour", "colour_now"), ("building", "building")):
        if cells.get(column):
            values[field] = cells[column].lower() if column == "colour" else cells[column]
    sizes = _read_sizes(cells.get("sizes", ""), lambda why: wrong("sizes", why))
    kind = cells.get("kind", "")
    if record in _GROUPS:
        values[_GROUPS[record]] = _area(kind, sizes) if record == "zone" else {"kind": kind, **sizes}
    else:
        values |= {"kind": kind, **sizes}
    if record in ("zone", "item"):
        values["face"] = "face"
    if cells.get("texture"):
        texture, _, rest = cells["texture"].partition(" ")
        values["profile"] = {"kind": texture, **_read_sizes(rest, lambda why: wrong("texture", why))}
    try:
        return TakeoffRow(line, record, cells.get("face", ""), model.model_validate(values))
    except ValidationError as error:
        column, why = _fault(error)
        raise wrong(column, why) from None


def _area(kind: str, sizes: dict[str, Any]) -> dict[str, Any]:
    if kind != "trim":
        return {"kind": kind, **sizes}
    runs = []
    for part, text in sizes.items():
        girth, _, cover = str(text).partition("/")
        runs.append({"part": part, "girth_m": girth, "cover_m": cover or 0})
    return {"kind": "trim", "runs": runs}


def _read_sizes(text: str, wrong: Any) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for pair in text.split(";"):
        if not pair.strip():
            continue
        key, found, value = (p.strip() for p in pair.partition("="))
        if not found or not value:
            raise wrong(f"“{pair.strip()[:30]}” is not written as name=value")
        if key == "corners":
            try:
                out[key] = [tuple(float(v) for v in corner.split("/")) for corner in value.split()]
            except ValueError:
                raise wrong(f"“{value[:30]}” is not written as corners x/y x/y x/y") from None
        else:
            out[key] = {"yes": True, "no": False}.get(value, value)
    return out


def _float(text: str, wrong: Any) -> float:
    try:
        return float(text)
    except ValueError:
        raise wrong(f"“{text[:20]}” is not a number") from None


_COLUMN_OF = {"azimuth_deg": "looks_deg", "colour_now": "colour", "profile": "texture"}
_IN_SIZES = {"outline", "area", "spec"}


def _fault(error: ValidationError) -> tuple[str, str]:
    """The column and reason of the first fault."""
    first = error.errors(include_url=False)[0]
    field = str(first["loc"][0]) if first["loc"] else "sizes"
    detail = str(first["loc"][-1])
    why = str(first["msg"]).removeprefix("Value error, ").replace("Input should be", "must be")
    if first["type"] == "union_tag_invalid":
        return "texture" if field == "profile" else "kind", f"“{first['ctx']['tag']}” is not known: {why[-160:]}"
    if field in _IN_SIZES or field in ("width_m", "height_m", "casing_m", "spans"):
        return "sizes", f"{detail} {why}" if detail not in ("outline", "area", "spec") else why
    return _COLUMN_OF.get(field, field), why if first["type"] != "missing" else "is needed"
