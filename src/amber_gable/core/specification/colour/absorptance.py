"""What a coat takes up of the sun, from the colour one sees (docs/physics.md §5): a likely figure between two bounds.

Of the sun's energy on the ground 4.6 % is ultraviolet, 43.3 % visible and 52.1 % near infrared (ASTM G173-03, global).
The visible part is reflected by the luminance Y, the ultraviolet hardly. The infrared is what a colour does not tell:
tints with carbon black reflect of it no more than of light; most other pigments let it through to the white of the
base, which reflects about three quarters. The bounds are these two, drawn together towards black, which is hardly ever
made without carbon; a third of the way between them is taken as likely. That share and the ends of the bounds are our
assumption; a sheet's own solar reflectance replaces all three.
"""

from dataclasses import dataclass

from amber_gable.core.specification.colour.difference import luminance

ULTRAVIOLET, VISIBLE, INFRARED = 0.046, 0.433, 0.521
_UV_REFLECTED = 0.05
WHITEST = 0.88
"""Light that a white paint reflects; a screen shows more."""
WHITE_BASE = 0.75
"""Infrared that the white below the tint reflects."""
_CARBON_BELOW = 0.15
"""Luminance below which colours are darkened with carbon black, more the darker they are."""
LIKELY_SHARE = 1 / 3


@dataclass(frozen=True)
class Absorptance:
    """Shares of sunlight, 0-1: low <= likely <= high."""

    low: float
    likely: float
    high: float


def absorptance_of(hex_colour: str, solar_reflectance: float | None = None) -> Absorptance:
    """Of a coat in that colour; `solar_reflectance` as its sheet gives it."""
    if solar_reflectance is not None:
        return Absorptance(*(1 - solar_reflectance,) * 3)
    y = min(luminance(hex_colour), WHITEST)
    base = (WHITE_BASE - y) * min(y / _CARBON_BELOW, 1.0)

    def taken(share: float) -> float:
        return 1 - ULTRAVIOLET * _UV_REFLECTED - VISIBLE * y - INFRARED * (y + share * base)

    ends = sorted((taken(0.0), taken(1.0)))
    return Absorptance(ends[0], taken(LIKELY_SHARE), ends[1])


def solar_absorptance(hex_colour: str) -> float:
    """The likely absorptance of a colour without a sheet."""
    return absorptance_of(hex_colour).likely
