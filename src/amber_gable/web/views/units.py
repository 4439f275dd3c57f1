"""Figures in the units the user thinks in. Feet and inches are shown so that they can be typed back exactly."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from amber_gable.domain.units import FOOT_M, INCH_M, Quantity, UnitSystem, in_units, number, shown, unit

if TYPE_CHECKING:
    from amber_gable.core.survey.amounts.takeoff import AreaLine

SIXTEENTH_M = INCH_M / 16


@dataclass(frozen=True)
class Units:
    system: UnitSystem

    @property
    def us(self) -> bool:
        return self.system is UnitSystem.US

    @property
    def area_unit(self) -> str:
        return "ft²" if self.us else "m²"

    @property
    def length_unit(self) -> str:
        return "ft" if self.us else "m"

    def figure(self, value: float, kind: str, digits: int | None = None) -> str:
        """A figure alone; `kind` as in domain/units.py, `digits` those of the metric figure."""
        return number(Quantity(kind), value, self.system, digits)

    def shown(self, value: float, kind: str, digits: int | None = None) -> str:
        """A figure with its unit."""
        return shown(Quantity(kind), value, self.system, digits)

    def symbol(self, kind: str) -> str:
        return unit(Quantity(kind), self.system).symbol

    def per_area(self, price_m2: float) -> float:
        """A price per m² as one per the reader's unit of area."""
        return price_m2 * unit(Quantity.AREA, self.system).factor

    def per_volume(self, price_l: float) -> float:
        return price_l * unit(Quantity.VOLUME, self.system).factor

    def can(self, litres: float, *, figures: int = 6) -> str:
        """A container as it is called: 5 gal, 1 gal, 1 qt, 1 pt; 10 L."""
        if not self.us:
            return f"{litres:.{figures}g} L"
        quarts = unit(Quantity.VOLUME, self.system).of(litres) * 4
        for size, name in ((4, "gal"), (1, "qt"), (0.5, "pt")):
            if quarts / size > 0.97:
                return f"{round(quarts / size, 1):g} {name}"
        return f"{quarts * 32:.0f} fl oz"

    def told(self, words: str) -> str:
        """Our own words, written in metric units, as this reader reads them."""
        return in_units(words, self.system)

    def length(self, metres: float) -> str:
        """For reading: to the centimetre, or the nearest sixteenth of an inch."""
        return _feet(round(metres / SIXTEENTH_M) * SIXTEENTH_M) if self.us else f"{metres:.2f}"

    def fine(self, metres: float) -> str:
        """Sizes of boards and profiles: millimetres, or inches."""
        return _feet(round(metres / SIXTEENTH_M) * SIXTEENTH_M) if self.us else f"{metres * 1000:.0f}"

    def run(self, metres: float) -> str:
        """A long length in one figure, with its unit."""
        return f"{metres / FOOT_M:.1f} ft" if self.us else f"{metres:.1f} m"

    def typed(self, metres: float) -> str:
        """For a form: exact to what was typed."""
        if not self.us:
            text = f"{metres:.6f}".rstrip("0").rstrip(".")
            # A bare number from 100 on would be taken for millimetres or refused.
            return text if metres < 100 else f"{text} m"
        nearest = round(metres / SIXTEENTH_M) * SIXTEENTH_M
        return (
            _feet(nearest) if abs(nearest - metres) < 1e-7 else f"{metres / INCH_M:.7f}".rstrip("0").rstrip(".") + '"'
        )

    def area_value(self, m2: float) -> float:
        return m2 / FOOT_M**2 if self.us else m2

    def area(self, m2: float, digits: int | None = None) -> str:
        """A number without its unit; feet squared need a digit less."""
        if digits is None:
            digits = 1 if self.us else 2
        text = f"{self.area_value(m2):.{digits}f}"
        return "0" if float(text) == 0 else text

    def sum(self, line: AreaLine) -> str:
        """The multiplication behind a line, such as `½ × 7.40 × 2.60`; empty where the value stands by itself."""
        if len(line.sizes) < 2:
            return ""
        text = " × ".join(self.length(s) for s in line.sizes)
        if line.share == 0.5:
            text = f"½ × {text}"
        return f"{text} ÷ cos {line.pitch_deg:.1f}°" if line.pitch_deg else text


def _feet(metres: float) -> str:
    """`27' 6 1/2"`, exact to the sixteenth."""
    sixteenths = round(metres / SIXTEENTH_M)
    feet, rest = divmod(sixteenths, 192)
    inches, part = divmod(rest, 16)
    fraction = ""
    if part:
        bottom = 16
        while part % 2 == 0:
            part, bottom = part // 2, bottom // 2
        fraction = f"{part}/{bottom}"
    if not inches and not fraction:
        return f"{feet}'"
    words = f"{inches} {fraction}".strip() if inches else fraction
    return f"{feet}' {words}\"" if feet else f'{words}"'
