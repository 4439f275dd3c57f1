"""Tables as programs write them: which mark parts the cells, which line holds the headings."""

import csv
import io
from dataclasses import dataclass

from amber_gable.domain.errors import InputError

MARKS = ("\t", ";", "|", ",")
MOST_LINES = 120_000
_LOOKED_AT = 60


@dataclass(frozen=True)
class TextTable:
    """headings: of the line `header` (from 1); rows with the lines they stand in; mark: what parts the cells."""

    headings: list[str]
    header: int
    rows: list[tuple[int, list[str]]]
    mark: str


def read_table(text: str, name: str, header: int | None = None) -> TextTable:
    """The table of a text. Without `header`, its headings are the first line followed by lines as wide that hold
    figures: what instruments write above it is passed over. Raises InputError."""
    lines = text.lstrip("\ufeff").splitlines()
    if len(lines) > MOST_LINES:
        raise InputError(name, f"has {len(lines)} lines", f"bring {MOST_LINES} at most: cut it by months")
    mark = _mark(lines)
    try:
        cells = list(csv.reader(io.StringIO("\n".join(lines)), delimiter=mark))
    except csv.Error as error:
        raise InputError(
            name, f"is no table that can be read ({error})", "look for a quotation mark left open"
        ) from None
    at = _header(cells) if header is None else header - 1
    if at is None or at >= len(cells) or len(cells[at]) < 2:
        raise InputError(name, "holds no table", "bring a line of headings and a line for each reading")
    headings = _told_apart([c.strip() for c in cells[at]])
    rows = [
        (n, [c.strip() for c in row]) for n, row in enumerate(cells[at + 1 :], at + 2) if any(c.strip() for c in row)
    ]
    return TextTable(headings, at + 1, rows, mark)


def _mark(lines: list[str]) -> str:
    """The one that parts most lines into as many cells."""

    def agreed(mark: str) -> tuple[int, int]:
        counts = [line.count(mark) for line in lines[:_LOOKED_AT] if line.strip()]
        usual = max(set(counts), key=counts.count, default=0)
        return (counts.count(usual) if usual else 0, usual)

    return max(MARKS, key=agreed)


def _header(cells: list[list[str]]) -> int | None:
    for at, row in enumerate(cells[:_LOOKED_AT]):
        after = cells[at + 1 : at + 3]
        if (
            len(row) > 1
            and after
            and all(len(r) == len(row) for r in after)
            and not _figures(row)
            and _figures(after[-1])
        ):
            return at
    return None


def _figures(row: list[str]) -> bool:
    """Whether any cell but a first one, which may be a time, is a figure."""
    return any(_is_figure(c) for c in row[1:])


def _is_figure(cell: str) -> bool:
    try:
        float(cell.strip().replace(",", "."))
    except ValueError:
        return False
    return True


def _told_apart(headings: list[str]) -> list[str]:
    """Headings that stand twice, or nowhere, by their number."""
    out: list[str] = []
    for n, heading in enumerate(headings, 1):
        name = heading or f"column {n}"
        out.append(name if name not in out else f"{name} ({n})")
    return out
