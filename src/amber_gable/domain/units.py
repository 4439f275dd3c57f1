"""The quantities of the trade in both systems of units: one table, one formatter, one reader.

Inside the program everything is metric. Factors are exact by definition (international foot, inch, pound, US gallon).
Lengths are typed in feet and inches and have a reader of their own (core/survey/amounts/measures.py).
"""

import re
from dataclasses import dataclass
from enum import StrEnum
from math import isfinite


class UnitSystem(StrEnum):
    """What a bare number means, and how figures are shown."""

    METRIC = "metric"
    US = "us"


class Quantity(StrEnum):
    """What a figure is of."""

    AREA = "area"
    SMALL_LENGTH = "small-length"
    RUN = "run"
    VOLUME = "volume"
    COVERAGE = "coverage"
    AREA_RATE = "area-rate"
    TEMPERATURE = "temperature"
    TEMPERATURE_DIFFERENCE = "temperature-difference"
    WIND = "wind"
    RAIN = "rain"
    RAIN_RATE = "rain-rate"
    FILM = "film"
    WATER_FILM = "water-film"
    DENSITY = "density"
    MASS = "mass"
    PRESSURE = "pressure"


@dataclass(frozen=True)
class Unit:
    """`metric value = value × factor + offset`. `digits` are shown where nobody says how many."""

    symbol: str
    factor: float = 1.0
    offset: float = 0.0
    digits: int = 1

    def of(self, metric: float) -> float:
        return (metric - self.offset) / self.factor

    def metric(self, value: float) -> float:
        return value * self.factor + self.offset


FOOT_M, INCH_M = 0.3048, 0.0254
_GALLON, _POUND = 3.785411784, 0.45359237
_Q = Quantity
UNITS: dict[Quantity, tuple[Unit, Unit]] = {
    # metric, US
    _Q.AREA: (Unit("m²"), Unit("ft²", FOOT_M**2, digits=0)),
    _Q.SMALL_LENGTH: (Unit("mm", digits=0), Unit("in", INCH_M * 1000, digits=2)),
    _Q.RUN: (Unit("m"), Unit("ft", FOOT_M)),
    _Q.VOLUME: (Unit("L"), Unit("gal", _GALLON, digits=2)),
    _Q.COVERAGE: (Unit("m²/L"), Unit("ft²/gal", FOOT_M**2 / _GALLON, digits=0)),
    _Q.AREA_RATE: (Unit("m²/h"), Unit("ft²/h", FOOT_M**2, digits=0)),
    _Q.TEMPERATURE: (Unit("°C"), Unit("°F", 1 / 1.8, -32 / 1.8)),
    _Q.TEMPERATURE_DIFFERENCE: (Unit("K"), Unit("°F", 1 / 1.8)),
    _Q.WIND: (Unit("m/s"), Unit("mph", 0.44704, digits=0)),
    _Q.RAIN: (Unit("mm"), Unit("in", INCH_M * 1000, digits=2)),
    _Q.RAIN_RATE: (Unit("mm/h"), Unit("in/h", INCH_M * 1000, digits=2)),
    _Q.FILM: (Unit("µm", digits=0), Unit("mil", 25.4)),
    _Q.WATER_FILM: (Unit("g/m²", digits=0), Unit("oz/100 ft²", 28.349523125 / (100 * FOOT_M**2), digits=1)),
    _Q.DENSITY: (Unit("kg/L", digits=2), Unit("lb/gal", _POUND / _GALLON)),
    _Q.MASS: (Unit("kg"), Unit("lb", _POUND)),
    _Q.PRESSURE: (Unit("bar", digits=0), Unit("psi", 0.06894757293168, digits=0)),
}
_OF_SYMBOL = {
    metric.symbol: q for q, (metric, _) in UNITS.items() if q not in (_Q.RAIN,)
}  # a length in mm, unless it is said to be rain


def unit(quantity: Quantity, system: UnitSystem) -> Unit:
    metric, us = UNITS[quantity]
    return us if system is UnitSystem.US else metric


def quantity_of(symbol: str) -> Quantity | None:
    """The quantity that a metric symbol stands for; None for what is the same in both systems (%, h, W/m²)."""
    return _OF_SYMBOL.get(symbol)


def number(quantity: Quantity, metric: float, system: UnitSystem, digits: int | None = None) -> str:
    """The figure alone, '-0' as '0'; 'none' for what is not finite."""
    if not isfinite(metric):
        return "none"
    here = unit(quantity, system)
    # Digits asked for are those of the metric figure: feet squared and ounces need fewer, mils and inches more.
    shown = here.digits if digits is None else max(0, digits + here.digits - unit(quantity, UnitSystem.METRIC).digits)
    text = f"{here.of(metric):.{shown}f}"
    return f"{0:.{shown}f}" if float(text) == 0 else text


def shown(quantity: Quantity, metric: float, system: UnitSystem, digits: int | None = None) -> str:
    """The figure with its unit."""
    return f"{number(quantity, metric, system, digits)} {unit(quantity, system).symbol}"


_DIGITS = 10


def typed(quantity: Quantity, metric: float, system: UnitSystem) -> str:
    """For a form: read back it gives the same figure."""
    return f"{unit(quantity, system).of(metric):.{_DIGITS}g}"


_TYPED = re.compile(r"\s*([-−+]?\d+(?:[.,]\d+)?|[-−+]?[.,]\d+)\s*(\S.*?)?\s*")


def read(quantity: Quantity, text: str, system: UnitSystem) -> float:
    """A figure as typed, in metric units: a bare number in the reader's units, or with the unit of either system.

    Raises ValueError saying what to write.
    """
    found = _TYPED.fullmatch(text)
    here = unit(quantity, system)
    if found is None:
        raise ValueError(f"“{text.strip()[:30]}” is not a number of {here.symbol}")
    value = float(found[1].replace(",", ".").replace("−", "-"))
    symbol = (found[2] or here.symbol).replace("º", "°").replace("μ", "µ")
    for known in UNITS[quantity]:
        if symbol.lower() in (known.symbol.lower(), known.symbol.lower().replace("²", "2").lstrip("°")):
            # What was shown in feet and sent back unchanged stays what it was.
            return round(known.metric(value), 6)
    raise ValueError(f"“{symbol[:20]}” is not a unit of it; write {' or '.join(u.symbol for u in UNITS[quantity])}")


_FIGURE = r"[-−]?\d+(?:\.\d+)?"
_SYMBOLS = "|".join(sorted((re.escape(s) for s in _OF_SYMBOL), key=len, reverse=True))
_PROSE = re.compile(
    rf"(?P<low>{_FIGURE})(?:(?P<to>–| (?:to|and|or|×|by) )(?P<high>{_FIGURE}))?[ \u202f](?P<unit>{_SYMBOLS})(?![\w²/])"
)


def in_units(text: str, system: UnitSystem) -> str:
    """Our own words, which are written in metric units, for a reader of `system`: '5–35 °C' as '41–95 °F'."""
    return text if system is UnitSystem.METRIC else _PROSE.sub(_converted, text)


def _converted(found: re.Match[str]) -> str:
    us = UNITS[_OF_SYMBOL[found["unit"]]][1]
    figures = _rounded(found["low"], us)
    if found["high"] is not None:
        figures += found["to"] + _rounded(found["high"], us)
    return f"{figures} {us.symbol}"


def _rounded(figure: str, us: Unit) -> str:
    """As many figures as were written, two at least, and none less than the whole number."""
    value = us.of(float(figure.replace("−", "-")))
    written = max(2, len(figure.lstrip("-−0.").replace(".", "")))
    whole = len(f"{abs(value):.0f}") if abs(value) >= 1 else 0
    small = 0 if abs(value) >= 0.1 or not value else 1 if abs(value) >= 0.01 else 2
    return f"{value:.{max(0, written - whole) + small}f}"
