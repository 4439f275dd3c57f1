"""How hot a colour gets: peak surface temperature on the site's design hot day (docs/physics.md §5).

The design day is clear and calm, and a colour takes up the most it may. Its greatest air temperature, without the
site's own figure, is taken from the latitude: 40 °C up to 30°, 0.45 K less for each degree beyond, 6.5 K less per 1000
m of height; an assumption of ours that gives 33 °C at 45° and can be overridden. Four days of the warm half year are
tried, for a south wall is hottest when the sun is lower; the later ones are cooler.
"""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import lru_cache

import numpy as np

from amber_gable.core.specification.colour.absorptance import absorptance_of
from amber_gable.core.specification.colour.difference import as_hex, linear
from amber_gable.core.weather.outdoors.air import Array, saturation_pressure
from amber_gable.core.weather.wall.steps import CALM_MS, Steps, to_steps
from amber_gable.core.weather.wall.surface import FaceSurface, surface_climate
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.survey import Property
from amber_gable.domain.weather.series import WeatherSeries

VINYL_LIMIT_C, VINYL_SOFTENS_C = 65.0, 74.0
DOOR_WARN_C = 60.0
_DAYS = ((6, 21, -1.0), (7, 21, 0.0), (8, 21, -1.0), (9, 15, -4.0))
"""Month, day and how much cooler than the design temperature; half a year later in the south."""
_SWING_K = 11.0
_DEW_C = 15.0


@dataclass(frozen=True)
class Peak:
    """Greatest surface temperature, °C, and the solar hour and day of the year's warm half at which it is reached."""

    surface_c: float
    hour: float
    month: int
    day: int


def design_hot_c(latitude: float, altitude_m: float) -> float:
    """Greatest air temperature of the design hot day, °C (see the module's words)."""
    return 40.0 - 0.45 * max(abs(latitude) - 30.0, 0.0) - 6.5 * altitude_m / 1000.0


def peaks(place: Property, surfaces: tuple[FaceSurface, ...], hot_c: float | None = None) -> tuple[Peak, ...]:
    """Peak of each surface, in the order given. `hot_c`: the site's own design temperature, °C."""
    top = design_hot_c(place.latitude, place.altitude_m) if hot_c is None else hot_c
    return _peaks(place.latitude, place.longitude, place.altitude_m, top, surfaces)


@lru_cache(maxsize=64)
def _peaks(
    latitude: float, longitude: float, altitude_m: float, top: float, surfaces: tuple[FaceSurface, ...]
) -> tuple[Peak, ...]:
    best: list[Peak | None] = [None] * len(surfaces)
    for month, day, steps in _design_days(latitude, longitude, altitude_m, top):
        surface = surface_climate(steps, surfaces).surface
        for i in range(len(surfaces)):
            at = int(np.argmax(surface[i]))
            known = best[i]
            if known is None or surface[i, at] > known.surface_c:
                best[i] = Peak(float(surface[i, at]), at * STEP_S / 3600.0, month, day)
    return tuple(p for p in best if p is not None)


@lru_cache(maxsize=16)
def _design_days(
    latitude: float, longitude: float, altitude_m: float, top: float
) -> tuple[tuple[int, int, Steps], ...]:
    """Month, day and weather of each: the same for every colour that is tried on a house."""
    days = []
    for month, day, cooler in _DAYS:
        month_here = month if latitude >= 0 else (month + 5) % 12 + 1
        start = datetime(2026, month_here, day, tzinfo=UTC) - timedelta(hours=longitude / 15)
        begin = int(start.timestamp()) // STEP_S * STEP_S
        days.append((month_here, day, to_steps(_day(begin, top + cooler), latitude, longitude, altitude_m)))
    return tuple(days)


def _day(start: int, top_c: float) -> WeatherSeries:
    """24 clear hours by solar time, warmest at 15 h."""
    hour = np.arange(24) + 0.5
    air: Array = top_c - _SWING_K / 2 + _SWING_K / 2 * np.cos(2 * np.pi * (hour - 15) / 24)
    dew = np.minimum(air - 1.0, _DEW_C)
    return WeatherSeries(
        start=start,
        air_c=air,
        rh_pct=np.asarray(100 * saturation_pressure(dew) / saturation_pressure(air)),
        wind_ms=np.full(24, CALM_MS),
        wind_from_deg=np.zeros(24),
        cloud=np.zeros(24),
        rain_mm=np.zeros(24),
        source="design hot day",
    )


def admissible_absorptance(one: tuple[float, float], other: tuple[float, float], limit_c: float) -> float:
    """Greatest absorptance under the limit, between two known points (absorptance, peak °C). The curve is a little
    hollow between them, so it is taken half a kelvin low unless the limit is a point itself."""
    (a, cool), (b, hot) = sorted((one, other))
    if hot - cool < 1e-6 or limit_c >= hot:
        return b
    if limit_c <= cool + 0.05:
        return a * (limit_c / cool) if limit_c < cool - 0.05 else a
    return a + (b - a) * (max(limit_c - 0.5, cool) - cool) / (hot - cool)


def lightened(colour: str, absorptance: float) -> str:
    """The colour mixed with white, or with black, in linear light until it takes up no more and no less than that."""
    light, end = linear(colour), np.ones(3)
    if absorptance_of(colour).high < absorptance:
        end = np.zeros(3)
    low, high = 0.0, 1.0
    for _ in range(30):
        middle = (low + high) / 2
        there = absorptance_of(as_hex(light + (end - light) * middle)).high
        if (there > absorptance) == (end[0] > 0):
            low = middle
        else:
            high = middle
    return as_hex(light + (end - light) * high)
