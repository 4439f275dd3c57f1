"""What the air asks of the people in it: heat index and wind chill (docs/physics.md §1), and from where on it matters.

Heat index: the US National Weather Service's regression (Rothfusz 1990, SR 90-23) with its two adjustments, and the
simple form after Steadman where that stays under 80 °F. It holds in the shade and a light wind; full sun adds up to
15 °F (the Service's figure), taken here as proportional to the direct beam: an assumption. Wind chill: of the air in
the wind at 10 m (Environment Canada and NWS, 2001), defined up to 10 °C and from 4.8 km/h on; outside that it is the
air's own temperature.

Steps of heat are the Service's (80, 90, 103, 125 °F); what is judged is the index where people stand, in the sun, but
only once the shade alone reaches the first: on a fresh bright day nobody is warned. Steps of cold follow the usual
guidance for work outside: gloves for light work from 4 °C, a warm place at hand from -7 °C, bare skin at risk of
freezing within half an hour from -28 °C. All are for people used to the work; local rules come first.
"""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array

SUN_ADDS_K = 15 / 1.8
FULL_BEAM = 900.0
"""Direct beam (W/m²) that counts as full sun."""


class Strain(StrEnum):
    HEAT = "heat"
    COLD = "cold"


@dataclass(frozen=True)
class AirLevel:
    """From `limit` on (°C; for cold downwards) it is called so, and this is what is usually done about it."""

    limit: float
    name: str
    advice: str


def _c(fahrenheit: float) -> float:
    return (fahrenheit - 32) / 1.8


HEAT_LEVELS = (
    AirLevel(_c(80), "warm", "Water and shade at hand, a cup every 20 minutes; newcomers begin with half days."),
    AirLevel(
        _c(90),
        "hot",
        "A break of 15 minutes in the shade at least every two hours, a cup of water every 15 to 20 minutes, nobody "
        "alone. Respirators and overalls add to it: shorter turns.",
    ),
    AirLevel(
        _c(103),
        "dangerous heat",
        "Heavy work before and after these hours. A break in the shade every hour, watch each other: headache, "
        "dizziness or confusion means stop, cool with water and call for help.",
    ),
    AirLevel(_c(125), "extreme heat", "No work outside in these hours."),
)
COLD_LEVELS = (
    AirLevel(4.0, "cold", "Layers that stay dry, gloves, something hot to drink. Wet hands stiffen on a ladder."),
    AirLevel(-7.0, "severe cold", "A warm place at hand and a break in it every hour; dry gloves to change into."),
    AirLevel(-28.0, "extreme cold", "Bare skin can freeze within half an hour: no work outside."),
)


def heat_index(air_c: npt.ArrayLike, rh_pct: npt.ArrayLike) -> Array:
    """°C, in the shade; arrays of one shape."""
    t = np.asarray(air_c, dtype=float) * 1.8 + 32
    rh = np.asarray(rh_pct, dtype=float)
    simple = 0.5 * (t + 61 + (t - 68) * 1.2 + rh * 0.094)
    full = (
        -42.379 + 2.04901523 * t + 10.14333127 * rh - 0.22475541 * t * rh - 6.83783e-3 * t**2
        - 5.481717e-2 * rh**2 + 1.22874e-3 * t**2 * rh + 8.5282e-4 * t * rh**2 - 1.99e-6 * t**2 * rh**2
    )  # fmt: skip
    dry = (rh < 13) & (t >= 80) & (t <= 112)
    full -= np.where(dry, (13 - rh) / 4 * np.sqrt(np.maximum(17 - np.abs(t - 95), 0) / 17), 0)
    damp = (rh > 85) & (t >= 80) & (t <= 87)
    full += np.where(damp, (rh - 85) / 10 * (87 - t) / 5, 0)
    return np.asarray((np.where((simple + t) / 2 >= 80, full, simple) - 32) / 1.8)


def in_sun(index_c: Array, dni: Array) -> Array:
    """The heat index where the direct beam (W/m²) reaches one, °C."""
    return np.asarray(index_c + SUN_ADDS_K * np.clip(dni / FULL_BEAM, 0, 1))


def wind_chill(air_c: npt.ArrayLike, wind_ms: npt.ArrayLike) -> Array:
    """°C; wind in m/s at 10 m."""
    t = np.asarray(air_c, dtype=float)
    v = np.asarray(wind_ms, dtype=float) * 3.6
    power = np.maximum(v, 4.8) ** 0.16
    chill = 13.12 + 0.6215 * t - 11.37 * power + 0.3965 * t * power
    return np.where((t <= 10) & (v >= 4.8), np.minimum(chill, t), t)


def level(strain: Strain, worst_c: float) -> AirLevel | None:
    """The step that the worst of a time reaches; None where it reaches none."""
    sign, levels = (1, HEAT_LEVELS) if strain is Strain.HEAT else (-1, COLD_LEVELS)
    return next((step for step in reversed(levels) if sign * worst_c >= sign * step.limit), None)
