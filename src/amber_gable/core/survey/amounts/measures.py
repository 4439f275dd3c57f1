"""Lengths, sizes, bearings and shares of a surface as people type them."""

import re
from typing import NamedTuple

from amber_gable.domain.units import FOOT_M, INCH_M, UnitSystem

LONGEST_M = 200.0


class Size(NamedTuple):
    width_m: float
    height_m: float


_PER_M = {
    "m": 1.0, "metre": 1.0, "metres": 1.0, "meter": 1.0, "meters": 1.0, "cm": 0.01, "mm": 0.001,
    "ft": FOOT_M, "foot": FOOT_M, "feet": FOOT_M, "'": FOOT_M, "in": INCH_M, "inch": INCH_M, "inches": INCH_M, '"':
    INCH_M,
}  # fmt: skip
_SIGNS = str.maketrans(
    {"’": "'", "′": "'", "‘": "'", "”": '"', "″": '"', "“": '"', "×": "x", "*": "x", "X": "x", ",": "."}
)
_NUMBER = r"(?:\d+(?:\.\d+)?|\.\d+)"
# 22, 22.5, 7-1/2, 7 1/2, 1/2
_AMOUNT = re.compile(rf"\s*(?:(?P<whole>{_NUMBER})[\s-]+)?(?:(?P<top>\d+)/(?P<bottom>\d+)|(?P<plain>{_NUMBER}))\s*")
_UNIT = re.compile(r"(''|[a-z]+|'|\")\s*-?\s*")


def parse_length(text: str, system: UnitSystem = UnitSystem.METRIC) -> float:
    """A length in m from `8.4 m`, `840 cm`, `8400`, `27'`, `27' 6"`, `7-1/2 in`. Raises ValueError saying what to
    write.

    A bare number is metres (feet in US units) below 100 and millimetres from 1000; between, it is refused as unclear.
    """
    parts = _parts(text)
    if len(parts) == 1 and parts[0][1] is None:
        return _checked(_bare([parts[0][0]], system, text)[0], text)
    if any(unit is None for _, unit in parts[:-1]):
        raise ValueError(f"“{text.strip()[:40]}” is not a length; write it such as 8.4 m or 27' 6\"")
    total, smallest = 0.0, float("inf")
    for amount, unit in parts:
        # 27' 6 means six inches; 1 m 20 means twenty centimetres.
        scale = _PER_M[unit] if unit else {FOOT_M: INCH_M, 1.0: 0.01}.get(smallest, 0.0)
        if not scale or scale >= smallest:
            raise ValueError(f"“{text.strip()[:40]}” mixes units in a way that cannot be read; write one length")
        total, smallest = total + amount * scale, scale
    return _checked(total, text)


def parse_size(text: str, system: UnitSystem = UnitSystem.METRIC) -> Size:
    """Width and height in m from `27' x 9'`, `8.4 x 2.9 m`, `8400x2900`, `2 m by 80 cm`. Raises ValueError.

    A unit on one side alone holds for both.
    """
    halves = re.split(r"\s*(?:\bby\b|x)\s*", text.strip().lower().translate(_SIGNS))
    if len(halves) != 2 or not all(halves):
        raise ValueError(f"“{text.strip()[:40]}” is not a size; write width x height, such as 8.4 x 2.9 m")
    left, right = (_parts(h) for h in halves)
    if _is_bare(left) and _is_bare(right):
        return Size(*(_checked(v, text) for v in _bare([left[0][0], right[0][0]], system, text)))
    if _is_bare(left) or _is_bare(right):
        given = (right if _is_bare(left) else left)[0][1]
        if _is_bare(left):
            halves[0] += f" {given}"
        else:
            halves[1] += f" {given}"
    return Size(parse_length(halves[0], system), parse_length(halves[1], system))


def _is_bare(parts: list[tuple[float, str | None]]) -> bool:
    return len(parts) == 1 and parts[0][1] is None


def _parts(text: str) -> list[tuple[float, str | None]]:
    """Amounts with their units, in order."""
    rest = text.strip().lower().translate(_SIGNS)
    if re.match(r"[-−–]\s*[\d.]", rest):
        raise ValueError(f"“{text.strip()[:40]}” is less than nothing; write how long it is, such as 8.4 m or 27' 6\"")
    out: list[tuple[float, str | None]] = []
    while rest:
        amount = _AMOUNT.match(rest)
        if amount is None:
            raise ValueError(f"“{text.strip()[:40]}” is not a length; write it such as 8.4 m or 27' 6\"")
        rest = rest[amount.end() :]
        unit = _UNIT.match(rest)
        name = None
        if unit is not None:
            name = '"' if unit[1] == "''" else unit[1]
            if name not in _PER_M:
                raise ValueError(f"“{name}” is not a unit of length; use m, cm, mm, ft or in")
            rest = rest[unit.end() :]
        out.append((_value(amount), name))
    if not out:
        raise ValueError("a length is needed, such as 8.4 m or 27' 6\"")
    return out


def _value(found: re.Match[str]) -> float:
    value = float(found["whole"] or 0)
    if found["plain"]:
        if found["whole"]:
            raise ValueError(f"“{found[0].strip()}” is two numbers; put a unit or a fraction between them")
        return float(found["plain"])
    if int(found["bottom"]) == 0:
        raise ValueError(f"“{found[0].strip()}” divides by zero")
    return value + int(found["top"]) / int(found["bottom"])


def _bare(amounts: list[float], system: UnitSystem, text: str) -> list[float]:
    """Bare numbers share one unit, told by the largest."""
    largest = max(amounts)
    if largest < 100:
        return [a * (FOOT_M if system is UnitSystem.US else 1.0) for a in amounts]
    if largest >= 1000:
        return [a * 0.001 for a in amounts]
    raise ValueError(f"“{text.strip()[:40]}” could be centimetres or millimetres; add the unit")


def _checked(metres: float, text: str) -> float:
    if not 0 <= metres <= LONGEST_M:
        raise ValueError(
            f"“{text.strip()[:40]}” is {metres:,.0f} m; no wall is longer than {LONGEST_M:g} m: check the unit"
        )
    return round(metres, 7)


_POINTS = ("n", "nne", "ne", "ene", "e", "ese", "se", "sse", "s", "ssw", "sw", "wsw", "w", "wnw", "nw", "nnw")
_COMPASS = {"north": "n", "east": "e", "south": "s", "west": "w"}
# N 30 E: from north thirty degrees towards east.
_QUADRANT = re.compile(r"([ns])\s*(\d+(?:[.,]\d+)?)\s*°?\s*([ew])")


def parse_bearing(text: str) -> float:
    """Degrees from `SW`, `south-west`, `188`, `188°`, `N 30 E`. Raises ValueError saying what to write."""
    plain = text.strip().lower()
    for word, letter in _COMPASS.items():
        plain = plain.replace(word, letter)
    joined = re.sub(r"[\s\-.]+(?![\d])", "", plain)
    if joined in _POINTS:
        return _POINTS.index(joined) * 22.5
    quadrant = _QUADRANT.fullmatch(plain)
    if quadrant is not None:
        off = float(quadrant[2].replace(",", "."))
        if off <= 90:
            start, sign = (0.0, 1) if quadrant[1] == "n" else (180.0, -1)
            return (start + sign * (off if quadrant[3] == "e" else -off)) % 360
    number = re.fullmatch(r"(\d+(?:[.,]\d+)?)\s*(?:°|deg|degrees)?", plain)
    degrees = float(number[1].replace(",", ".")) if number else -1.0
    if not 0 <= degrees <= 360:
        raise ValueError(f"“{text.strip()[:30]}” is not a bearing; write degrees from north such as 225, or SW")
    return degrees % 360


SAID_SHARES: tuple[tuple[str, float], ...] = (
    ("none", 0.0),
    ("edges", 5.0),
    ("a quarter", 25.0),
    ("half", 50.0),
    ("most", 80.0),
)
"""Words and the per cent they stand for, in rising order."""
_MORE = {"nothing": 0.0, "few": 5.0, "tenth": 10.0, "quarter": 25.0, "third": 33.0, "all": 100.0, "everything": 100.0}
_SHARES = {words.removeprefix("a "): pct for words, pct in SAID_SHARES} | _MORE
_PER_CENT = re.compile(r"([-−+]?)\s*(\d*[.,]?\d+)\s*(?:%|per ?cent|pct)?")
_PART = re.compile(r"(\d+)\s*/\s*(\d+)")


def parse_share(text: str) -> float:
    """Per cent from `20`, `20%`, `1/4`, `a quarter`, `edges`. Raises ValueError saying what to write."""
    said = text.strip().lower()
    word = re.sub(r"^(?:about|some|the|a|an)\s+", "", re.sub(r"\s+of it$", "", said))
    if word in _SHARES:
        return _SHARES[word]
    if found := _PART.fullmatch(said):
        top, bottom = int(found[1]), int(found[2])
        pct = 100.0 * top / bottom if bottom else -1.0
    elif found := _PER_CENT.fullmatch(said):
        pct = float(found[2].replace(",", ".")) * (-1 if found[1] in ("-", "−") else 1)
    else:
        raise ValueError(f"“{text.strip()[:30]}” is no share; write 20 % or edges, a quarter, half, most")
    if pct < 0:
        raise ValueError(f"“{text.strip()[:30]}” is less than nothing; write 0 to 100 %")
    if pct > 100:
        raise ValueError(f"“{text.strip()[:30]}” is more than all of it; write 0 to 100 %")
    return pct


def said_share(pct: float) -> str:
    """The word that comes nearest; only what is exactly 0 is none."""
    if pct == 0:
        return SAID_SHARES[0][0]
    return min(SAID_SHARES[1:], key=lambda s: abs(s[1] - pct))[0]
