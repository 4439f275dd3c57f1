"""A wall's openings told in one line, as a surveyor says them: `2 sash 0.9 x 1.4 sill 0.9, shutters; door; 2 sash`.

Pieces are parted by semicolons and stand from left to right in the order in which they are told. A piece is a count, a
kind, a size, a height of the sill (or several: `sill 0.9 and 3.7`, a row in each storey), and after a comma what goes
with it. What lies at one height is a row, spread evenly over the free wall.
"""

import re
from dataclasses import dataclass, replace

from shapely import Polygon, box

from amber_gable.core.survey.amounts.measures import parse_length, parse_size
from amber_gable.core.survey.drawing.geometry import SLIVER_M2
from amber_gable.domain.house.survey import OpeningKind
from amber_gable.domain.units import UnitSystem

LEAST_GAP_M = 0.05
MOST = 60
_COUNTS = {"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8}


@dataclass(frozen=True)
class UsualOpening:
    """What a kind of opening is, when nothing else is said: sizes m; `item` what is counted in it ('' nothing)."""

    kind: OpeningKind
    item: str
    name: str
    width_m: float
    height_m: float
    sill_m: float


_W, _D, _G, _V = OpeningKind.WINDOW, OpeningKind.DOOR, OpeningKind.GARAGE_DOOR, OpeningKind.VENT
KINDS: dict[str, UsualOpening] = {
    "sash": UsualOpening(_W, "sash-window", "Sash", 0.9, 1.4, 0.9),
    "sash window": UsualOpening(_W, "sash-window", "Sash", 0.9, 1.4, 0.9),
    "casement": UsualOpening(_W, "casement", "Casement", 1.2, 1.2, 0.9),
    "window": UsualOpening(_W, "sash-window", "Window", 0.9, 1.4, 0.9),
    "fixed window": UsualOpening(_W, "", "Window", 1.2, 1.2, 0.9),
    "garage door": UsualOpening(_G, "garage-door", "Garage door", 2.4, 2.1, 0.0),
    "glazed door": UsualOpening(_D, "glazed-door", "Glazed door", 0.9, 2.1, 0.0),
    "flush door": UsualOpening(_D, "flush-door", "Door", 0.9, 2.1, 0.0),
    "panelled door": UsualOpening(_D, "panelled-door", "Door", 0.9, 2.1, 0.0),
    "door": UsualOpening(_D, "panelled-door", "Door", 0.9, 2.1, 0.0),
    "vent": UsualOpening(_V, "", "Vent", 0.5, 0.6, 2.0),
}
_PANES = {1: (1, 1), 2: (2, 1), 3: (3, 1), 4: (2, 2), 6: (3, 2), 8: (4, 2), 9: (3, 3), 12: (4, 3)}
"""Panes of one sash: across, down."""
_WITH = {
    "shutters": "shutters",
    "shutter": "shutters",
    "no item": "bare",
    "not painted": "bare",
    "opening only": "bare",
}
UNDERSTOOD = (
    f"{', '.join(k for k in KINDS if ' ' not in k)}, glazed door, garage door, gutter; sill; 2/2; shutters; not painted"
)


@dataclass(frozen=True)
class ToldOpening:
    """One opening as it was told, m; panes of each sash (None: not told)."""

    usual: UsualOpening
    width_m: float
    height_m: float
    sill_m: float
    panes: tuple[int, int] | None = None
    shutters: bool = False
    painted: bool = True
    x_m: float = 0.0

    @property
    def leaf_m(self) -> float:
        """A shutter covers half its window, as far as one is made."""
        return min(self.width_m / 2, 0.45) if self.shutters else 0.0

    @property
    def taken_m(self) -> float:
        return self.width_m + 2 * self.leaf_m


def told_gutters(text: str) -> tuple[str, list[int]]:
    """The line without its gutters, and how many downspouts each of those has: `gutter`, `gutter, 2 downspouts`.
    Raises ValueError."""
    rest, gutters = [], []
    for piece in re.split(r"[;\n]", text):
        head, _, more = piece.strip().lower().partition(",")
        if not re.fullmatch(r"(?:a |1 |one )?gutter", head.strip()):
            rest += [piece] if piece.strip() else []
            continue
        pipes = re.fullmatch(r"\s*(\d+|[a-z]+)?\s*(?:downspouts?|downpipes?)?\s*", more)
        told = (pipes[1] if pipes else None) or "1"
        number = int(told) if told.isdigit() else 0 if told in ("no", "none") else _COUNTS.get(told, -1)
        if pipes is None or not 0 <= number <= 20:
            raise ValueError(f"“{piece.strip()[:40]}” is not understood; write gutter, 2 downspouts")
        gutters.append(number)
    return ";".join(rest), gutters


def read_line(text: str, system: UnitSystem = UnitSystem.METRIC) -> list[ToldOpening]:
    """Every opening the line tells of, row by row unplaced. Raises ValueError with the piece that is not understood."""
    out: list[ToldOpening] = []
    for piece in re.split(r"[;\n]", text):
        if piece.strip():
            out += _piece(piece.strip(), system)
    if not out:
        raise ValueError(f"nothing is told: write such as 3 sash 0.9 x 1.4 sill 0.9 ({UNDERSTOOD})")
    if len(out) > MOST:
        raise ValueError(f"{len(out)} openings on one wall are too many: {MOST} at most")
    return out


def _piece(piece: str, system: UnitSystem) -> list[ToldOpening]:
    head, *withs = [part.strip() for part in piece.lower().replace("×", "x").split(",")]
    shutters, painted = False, True
    for one in withs:
        if one not in _WITH:
            raise ValueError(f"“{one[:30]}” in “{piece[:40]}” is not understood; after a comma: shutters, not painted")
        shutters, painted = shutters or _WITH[one] == "shutters", painted and _WITH[one] != "bare"
    count, rest = _count(head)
    panes, rest = _panes(rest)
    usual, rest = _kind(rest, piece)
    sizes, _, sills = rest.partition("sill")
    try:
        size = parse_size(sizes, system) if sizes.strip() else None
        heights = [parse_length(s, system) for s in re.split(r"\band\b|&|\+", sills)] if sills.strip() else []
    except ValueError as error:
        raise ValueError(f"{error} (in “{piece[:40]}”)") from None
    width, height = size if size is not None else (usual.width_m, usual.height_m)
    made = ToldOpening(usual, width, height, usual.sill_m, panes, shutters, painted)
    return [replace(made, sill_m=sill) for sill in (heights or [usual.sill_m]) for _ in range(count)]


def _count(text: str) -> tuple[int, str]:
    # A figure with a slash tells panes: 2/2 sash.
    found = re.match(r"(\d+)\s+(?![/x.]|over)|(" + "|".join(_COUNTS) + r")\s+(?!over)", text)
    if found is None:
        return 1, text
    count = int(found[1]) if found[1] else _COUNTS[found[2]]
    if count < 1:
        raise ValueError(f"“{text[:30]}”: none of them is no opening")
    return count, text[found.end() :]


def _panes(text: str) -> tuple[tuple[int, int] | None, str]:
    found = re.match(r"(\d+|[a-z]+)\s*(?:/|-?over-?| over )\s*(\d+|[a-z]+)\s+", text)
    if found is None:
        return None, text
    one = int(found[1]) if found[1].isdigit() else _COUNTS.get(found[1], 0)
    if one not in _PANES:
        raise ValueError(f"“{found[0].strip()}” is not a way windows are divided here: 1/1, 2/2, 4/4, 6/6, 9/9 …")
    return _PANES[one], text[found.end() :]


def _kind(text: str, piece: str) -> tuple[UsualOpening, str]:
    for words in sorted(KINDS, key=len, reverse=True):
        found = re.match(rf"{words}(?:e?s)?\b", text)
        if found is not None:
            return KINDS[words], text[found.end() :]
    raise ValueError(f"“{piece[:40]}” names no opening known here: {UNDERSTOOD}")


def placed(told: list[ToldOpening], wall: Polygon, taken: list[tuple[float, float, float, float]]) -> list[ToldOpening]:
    """The openings with their left edges, evenly spread over the wall, or over its widest free stretch where something
    stands at their height already (`taken`: x, y, width, height) or where the wall ends, as under a roof or beside a
    wing. Raises ValueError where they do not fit."""
    out: list[ToldOpening] = []
    left, _, right, _ = wall.bounds
    for row in _rows(told):
        low, high = min(o.sill_m for o in row), max(o.sill_m + o.height_m for o in row)
        ends = box(left, low, right, high).difference(wall)
        none = [(p.bounds[0], p.bounds[2]) for p in getattr(ends, "geoms", [ends]) if p.area > SLIVER_M2]
        there = [(x, x + w) for x, y, w, h in taken if y < high and y + h > low]
        begin, end = _widest_free(right, there + none)
        needs = sum(o.taken_m for o in row)
        gap = (end - begin - needs) / (len(row) + 1)
        if gap < LEAST_GAP_M:
            raise ValueError(
                f"{len(row)} openings at {low:.2f} m need {needs:.2f} m and their gaps, {end - begin:.2f} m are free"
            )
        x = begin
        for opening in row:
            x += gap
            out.append(replace(opening, x_m=round(x + opening.leaf_m, 4)))
            x += opening.taken_m
    return out


def _rows(told: list[ToldOpening]) -> list[list[ToldOpening]]:
    """What overlaps in height stands in one row, in the order it was told."""
    rows: list[list[int]] = []
    for n, opening in enumerate(told):
        touching = [r for r in rows if any(_overlap(opening, told[m]) for m in r)]
        rows = [r for r in rows if r not in touching] + [sorted([m for r in touching for m in r] + [n])]
    return [[told[n] for n in row] for row in rows]


def _overlap(a: ToldOpening, b: ToldOpening) -> bool:
    return a.sill_m < b.sill_m + b.height_m and b.sill_m < a.sill_m + a.height_m


def _widest_free(width_m: float, taken: list[tuple[float, float]]) -> tuple[float, float]:
    free, at = [], 0.0
    for begin, end in sorted(taken):
        free.append((at, begin))
        at = max(at, end)
    return max([*free, (at, width_m)], key=lambda span: span[1] - span[0])
