"""Sizes and prices of containers as people type them: `1 gal: $52`, `3.785 L 56; 18.9 L 240`, `1:56`."""

import re
from typing import Any

from amber_gable.domain.units import Quantity, UnitSystem, read

_LITRES = {
    "gal": 3.785411784, "gallon": 3.785411784, "gallons": 3.785411784, "l": 1.0, "litre": 1.0, "litres": 1.0,
    "liter": 1.0, "liters": 1.0, "ml": 0.001, "qt": 0.946352946, "quart": 0.946352946, "quarts": 0.946352946,
    "pint": 0.473176473, "pt": 0.473176473,
}  # fmt: skip
_LINE = re.compile(
    r"(?P<size>[\d.,]+)\s*(?P<unit>[a-z]*)\.?\s*(?:[:=@]|\bfor\b|\bat\b|\s)\s*"
    r"(?:[$€£]|cad|usd|eur|gbp)?\s*(?P<price>\d[\d.,]*)\s*(?:[$€£]|cad|usd|eur|gbp)?"
)


def typed_containers(text: str, system: UnitSystem) -> list[dict[str, Any]]:
    """Litres and price of every container. Raises ValueError with the line that cannot be read."""
    named = "1 gal: 52" if system is UnitSystem.US else "1 L: 15.40"
    out: list[dict[str, Any]] = []
    for line in text.replace(";", "\n").splitlines():
        said = line.strip().lower()
        if not said:
            continue
        found = _LINE.fullmatch(said)
        if found is None:
            raise ValueError(f"“{line.strip()[:40]}” is no container: write its size and price, such as {named}")
        if found["unit"] and found["unit"] not in _LITRES:
            raise ValueError(f"“{found['unit'][:12]}” is not a size of container; write L, mL, gal, qt or pint")
        if found["unit"]:
            litres = round(float(found["size"].replace(",", ".")) * _LITRES[found["unit"]], 6)
        else:
            litres = read(Quantity.VOLUME, found["size"], system)
        out.append({"litres": litres, "price": _price(found["price"])})
    return out


def _price(text: str) -> str:
    """`1,240.50`, `1.240,50` and `52,5` as they are meant: three figures behind a sign are thousands, fewer cents."""
    whole, _, last = text.replace(",", ".").rpartition(".")
    if whole and len(last) != 3:
        return f"{whole.replace('.', '')}.{last}"
    return whole.replace(".", "") + last
