"""Colour as the sun meets it (physics.md §5)."""

import numpy as np


def luminance(hex_colour: str) -> float:
    """Relative luminance Y (0-1) of an sRGB colour #rrggbb (IEC 61966-2-1)."""
    channels = np.array([int(hex_colour[i : i + 2], 16) for i in (1, 3, 5)]) / 255.0
    linear = np.where(channels <= 0.04045, channels / 12.92, ((channels + 0.055) / 1.055) ** 2.4)
    return float(linear @ np.array([0.2126, 0.7152, 0.0722]))


def solar_absorptance(hex_colour: str) -> float:
    """Share of sunlight a coat of this colour takes up: 1 - (0.05 + 0.82 Y), without measured data (physics.md §5)."""
    return 1.0 - (0.05 + 0.82 * luminance(hex_colour))
