"""Colour as the eye and the sun meet it (docs/physics.md §5, §8). Colours are sRGB #rrggbb; linear light 0-1, D65."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import atan2, cos, degrees, exp, hypot, radians, sin, sqrt

import numpy as np

from amber_gable.core.weather.outdoors.air import Array

LUMINANCE = np.array([0.2126, 0.7152, 0.0722])
_XYZ = np.array(
    [
        [0.41239079926595934, 0.357584339383878, 0.1804807884018343],
        [0.21263900587151027, 0.715168678767756, 0.07219231536073371],
        [0.01933081871559182, 0.11919477979462598, 0.9505321522496607],
    ]
)
"""From linear light to CIE XYZ (IEC 61966-2-1, D65)."""
_WHITE = np.array([0.3127 / 0.3290, 1.0, (1 - 0.3127 - 0.3290) / 0.3290])
_EPSILON, _KAPPA = 216 / 24389, 24389 / 27


@dataclass(frozen=True)
class Lab:
    """CIELAB under D65: lightness 0-100, chroma and hue angle (degrees)."""

    lightness: float
    chroma: float
    hue: float


def linear(hex_colour: str) -> Array:
    """Linear light (3,) of #rrggbb (IEC 61966-2-1)."""
    channels = np.array([int(hex_colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255.0
    return np.where(channels <= 0.04045, channels / 12.92, ((channels + 0.055) / 1.055) ** 2.4)


def as_hex(light: Array) -> str:
    """#rrggbb of linear light (3,), cut to what can be shown."""
    light = np.clip(light, 0.0, 1.0)
    channels = np.where(light <= 0.0031308, light * 12.92, 1.055 * light ** (1 / 2.4) - 0.055)
    return "#" + "".join(f"{round(float(c) * 255):02x}" for c in channels)


def luminance(hex_colour: str) -> float:
    """Relative luminance Y (0-1)."""
    return float(linear(hex_colour) @ LUMINANCE)


def _coordinates(light: Array) -> tuple[float, float, float]:
    """L*, a*, b* (CIE 15, D65, 2° observer) of linear light (3,)."""
    x, y, z = (_XYZ @ light) / _WHITE
    fx, fy, fz = (np.cbrt(v) if v > _EPSILON else (_KAPPA * v + 16) / 116 for v in (x, y, z))
    return float(116 * fy - 16), float(500 * (fx - fy)), float(200 * (fy - fz))


@lru_cache(maxsize=4096)
def lab(hex_colour: str) -> Lab:
    """CIELAB of a colour."""
    l_, a, b = _coordinates(linear(hex_colour))
    return Lab(l_, float(np.hypot(a, b)), float(np.degrees(np.arctan2(b, a)) % 360))


def ciede2000(one: Sequence[float], other: Sequence[float]) -> float:
    """CIEDE2000 (kL = kC = kH = 1) between two colours given as L*, a*, b* under D65, after Sharma, Wu & Dalal (2005).

    Written out because the library that has it takes a fifth of a second to load; the tests hold it to that library and
    to the paper's own pairs.
    """
    (l1, a1, b1), (l2, a2, b2) = one, other
    mean = ((hypot(a1, b1) + hypot(a2, b2)) / 2) ** 7
    g = 0.5 * (1 - sqrt(mean / (mean + 25.0**7)))
    a1, a2 = (1 + g) * a1, (1 + g) * a2
    c1, c2 = hypot(a1, b1), hypot(a2, b2)
    h1, h2 = (degrees(atan2(b, a)) % 360 if a or b else 0.0 for a, b in ((a1, b1), (a2, b2)))
    turn = 0.0 if not c1 * c2 else (h2 - h1 + 180) % 360 - 180 if abs(h2 - h1) > 180 else h2 - h1
    dl, dc, dh = l2 - l1, c2 - c1, 2 * sqrt(c1 * c2) * sin(radians(turn / 2))
    l_, c = (l1 + l2) / 2, (c1 + c2) / 2
    if not c1 * c2:
        h = h1 + h2
    elif abs(h1 - h2) <= 180:
        h = (h1 + h2) / 2
    else:
        h = (h1 + h2 + (360 if h1 + h2 < 360 else -360)) / 2
    t = (
        1 - 0.17 * cos(radians(h - 30)) + 0.24 * cos(radians(2 * h))
        + 0.32 * cos(radians(3 * h + 6)) - 0.20 * cos(radians(4 * h - 63))
    )  # fmt: skip
    sl = 1 + 0.015 * (l_ - 50) ** 2 / sqrt(20 + (l_ - 50) ** 2)
    sc, sh = 1 + 0.045 * c, 1 + 0.015 * c * t
    rotation = -2 * sqrt(c**7 / (c**7 + 25.0**7)) * sin(radians(60 * exp(-(((h - 275) / 25) ** 2))))
    parts = dl / sl, dc / sc, dh / sh
    return sqrt(sum(p**2 for p in parts) + rotation * parts[1] * parts[2])


def difference(one: Array, other: Array) -> float:
    """CIEDE2000 between two colours in linear light (3,)."""
    return ciede2000(_coordinates(one), _coordinates(other))


def contrast_ratio(one: str, other: str) -> float:
    """Luminance contrast (WCAG 2), 1 to 21: how plainly trim stands out from body."""
    high, low = sorted((luminance(one), luminance(other)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def contrast_words(ratio: float) -> str:
    """What a body and trim of that contrast look like from the street."""
    if ratio < 1.15:
        return "trim all but disappears into the body"
    if ratio < 1.6:
        return "tone on tone: the trim is felt more than seen"
    if ratio < 3.0:
        return "clear: the trim draws the house"
    return "strong: every edge of the trim shows"
