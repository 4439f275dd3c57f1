"""Colour as the eye and the sun meet it (physics.md §5, §8). Colours are sRGB #rrggbb; linear light 0-1, D65."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import TYPE_CHECKING

import numpy as np

from amber_gable.core.weather.outdoors.air import Array

if TYPE_CHECKING:
    from coloraide import Color

LUMINANCE = np.array([0.2126, 0.7152, 0.0722])
_D65 = "lab-d65"


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


@cache
def _library() -> "type[Color]":
    """Loaded when it is first needed: the program starts without it."""
    from coloraide import Color

    return Color


@lru_cache(maxsize=4096)
def lab(hex_colour: str) -> Lab:
    """CIELAB of a colour."""
    l_, a, b = _library()("srgb-linear", linear(hex_colour).tolist()).convert(_D65).coords()
    return Lab(l_, float(np.hypot(a, b)), float(np.degrees(np.arctan2(b, a)) % 360))


def ciede2000(one: Sequence[float], other: Sequence[float]) -> float:
    """CIEDE2000 (kL = kC = kH = 1) between two colours given as L*, a*, b* under D65, through coloraide."""
    return float(_library()(_D65, list(one)).delta_e(_library()(_D65, list(other)), method="2000"))


def difference(one: Array, other: Array) -> float:
    """CIEDE2000 between two colours in linear light (3,)."""
    first, second = (_library()("srgb-linear", light.tolist()).convert(_D65).coords() for light in (one, other))
    return ciede2000(first, second)


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
