"""Bearings as people say them, in degrees clockwise from true north."""

import re

_POINTS = ("n", "nne", "ne", "ene", "e", "ese", "se", "sse", "s", "ssw", "sw", "wsw", "w", "wnw", "nw", "nnw")
_WORDS = {"north": "n", "east": "e", "south": "s", "west": "w"}
# N 30 E: from north thirty degrees towards east.
_QUADRANT = re.compile(r"([ns])\s*(\d+(?:[.,]\d+)?)\s*°?\s*([ew])")


def parse_bearing(text: str) -> float:
    """Degrees from `SW`, `south-west`, `188`, `188°`, `N 30 E`. Raises ValueError saying what to write."""
    plain = text.strip().lower()
    for word, letter in _WORDS.items():
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
