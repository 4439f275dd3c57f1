"""Shares of a surface as people say them: edges, a quarter, half, most."""

import re

SAID_SHARES: tuple[tuple[str, float], ...] = (
    ("none", 0.0),
    ("edges", 5.0),
    ("a quarter", 25.0),
    ("half", 50.0),
    ("most", 80.0),
)
"""Words and the per cent they stand for, in rising order."""
_MORE = {"nothing": 0.0, "few": 5.0, "tenth": 10.0, "quarter": 25.0, "third": 33.0, "all": 100.0, "everything": 100.0}
_WORDS = {words.removeprefix("a "): pct for words, pct in SAID_SHARES} | _MORE
_NUMBER = re.compile(r"([-−+]?)\s*(\d*[.,]?\d+)\s*(?:%|per ?cent|pct)?")
_FRACTION = re.compile(r"(\d+)\s*/\s*(\d+)")


def parse_share(text: str) -> float:
    """Per cent from `20`, `20%`, `1/4`, `a quarter`, `edges`. Raises ValueError saying what to write."""
    said = text.strip().lower()
    word = re.sub(r"^(?:about|some|the|a|an)\s+", "", re.sub(r"\s+of it$", "", said))
    if word in _WORDS:
        return _WORDS[word]
    if found := _FRACTION.fullmatch(said):
        top, bottom = int(found[1]), int(found[2])
        pct = 100.0 * top / bottom if bottom else -1.0
    elif found := _NUMBER.fullmatch(said):
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
