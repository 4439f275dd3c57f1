"""Colours in and out: GIMP palettes (.gpl) and CSV with the columns name, colour and optionally collection."""

import csv
import io

from pydantic import ValidationError

from amber_gable.domain.errors import InputError
from amber_gable.domain.paint.colour_library import LibraryColour

MOST = 5000
OWN = "Own colours"


def read_palette(text: str, name: str) -> list[LibraryColour]:
    """Colours of a file by its content. Raises InputError naming the line; nothing is half read."""
    lines = text.lstrip("\ufeff").splitlines()
    found = _gpl(lines, name) if lines and lines[0].strip() == "GIMP Palette" else _csv(text, name)
    if not found:
        raise InputError(name, "holds no colours", "give at least one")
    if len(found) > MOST:
        raise InputError(name, f"holds {len(found)} colours", f"at most {MOST} are taken at once")
    first: dict[str, int] = {}
    for row, (line, colour) in enumerate(found):
        key = colour.name.lower()
        if key in first:
            raise InputError(f"{name}, line {line}", f"'{colour.name}' is there twice", "give each colour its own name")
        first[key] = row
    return [c for _, c in found]


def _gpl(lines: list[str], name: str) -> list[tuple[int, LibraryColour]]:
    """A GIMP palette: a head, then lines of red green blue (0-255) and a name."""
    collection, out = OWN, []
    for number, raw in enumerate(lines[1:], 2):
        line = raw.strip()
        if not line or line.startswith("#"):
            continue
        if line.startswith(("Name:", "Columns:")):
            collection = line[5:].strip() or collection if line.startswith("Name:") else collection
            continue
        words = line.split(None, 3)
        where = f"{name}, line {number}"
        if len(words) < 3 or not all(w.isdigit() and int(w) <= 255 for w in words[:3]):
            raise InputError(where, "needs red, green and blue from 0 to 255, then a name", "correct the line")
        hex_ = "#{:02x}{:02x}{:02x}".format(*(int(w) for w in words[:3]))
        label = words[3] if len(words) > 3 and words[3] != "Untitled" else hex_
        out.append((number, _colour(label, hex_, collection[:60], where)))
    return out


def _csv(text: str, name: str) -> list[tuple[int, LibraryColour]]:
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff")))
    columns = [c.strip().lower() for c in reader.fieldnames or []]
    lacking = [c for c in ("name", "colour") if c not in columns]
    if lacking:
        raise InputError(
            f"{name}, line 1",
            f"has no column '{lacking[0]}'",
            "the first line names the columns: name,colour,collection",
        )
    reader.fieldnames = columns
    out = []
    for number, row in enumerate(reader, 2):
        where = f"{name}, line {number}"
        out.append(
            (
                number,
                _colour(
                    (row.get("name") or "").strip(),
                    (row.get("colour") or "").strip().lower(),
                    (row.get("collection") or "").strip() or OWN,
                    where,
                ),
            )
        )
    return out


def _colour(name: str, colour: str, collection: str, where: str) -> LibraryColour:
    try:
        return LibraryColour(name=name, colour=colour, collection=collection)
    except ValidationError as error:
        field = str(error.errors()[0]["loc"][0])
        todo = {"colour": "write it as #rrggbb", "name": "give it a name of up to 120 letters"}
        raise InputError(f"{where}, column {field}", f"'{colour if field == 'colour' else name}' is no {field}",
                         todo.get(field, "shorten it")) from None  # fmt: skip


def write_gpl(colours: list[LibraryColour], title: str) -> str:
    """The colours as a GIMP palette."""
    lines = ["GIMP Palette", f"Name: {title}", "Columns: 6", "#"]
    for c in colours:
        r, g, b = (int(c.colour[i : i + 2], 16) for i in (1, 3, 5))
        lines.append(f"{r:3d} {g:3d} {b:3d}\t{c.name}")
    return "\n".join(lines) + "\n"
