"""Made weather for tests: steady air, clear calm days, and the real typical year that pvlib ships."""

from datetime import UTC, datetime, timedelta, timezone
from functools import cache
from pathlib import Path

import numpy as np
import pvlib

from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.judged.slots import Slots, make_slots
from amber_gable.core.weather.judged.windows import Windows, film_windows
from amber_gable.core.weather.wall.steps import Steps, to_steps
from amber_gable.core.weather.wall.surface import Climate, FaceSurface, surface_climate
from amber_gable.domain.grid import SLOTS_PER_HOUR
from amber_gable.domain.house.substrates import substrate
from amber_gable.domain.paint.generic_products import generic_product
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import CrewDay, Policy
from amber_gable.exchange.weather.any_file import read_weather

TMY3 = Path(pvlib.__file__).parent / "data" / "723170TYA.CSV"
TMY3_NO_RAIN = Path(pvlib.__file__).parent / "data" / "703165TY.csv"
NORTH, EAST, SOUTH, WEST = 0.0, 90.0, 180.0, 270.0
NORTHERN, SOUTHERN = (45.25, -62.1, -4.0), (-42.9, 147.3, 10.0)
FULL_DAY = CrewDay(start_h=7, end_h=19, setup_h=0, cleanup_h=0)


@cache
def real_year() -> WeatherSeries:
    return read_weather(TMY3.read_text(), TMY3.name)


@cache
def steady(start: datetime, hours: int, offset_h: float = 0.0, **columns: float) -> WeatherSeries:
    """The same weather every hour: mild, dry, calm and overcast unless told otherwise."""
    base = {"air_c": 20.0, "rh_pct": 50.0, "wind_ms": 1.0, "wind_from_deg": 200.0, "cloud": 1.0, "rain_mm": 0.0}
    filled = {name: np.full(hours, float(value)) for name, value in (base | columns).items()}
    for values in filled.values():
        values.flags.writeable = False
    return WeatherSeries(start=int(start.timestamp()), utc_offset_h=offset_h, source="steady", **filled)


@cache
def clear_days(
    place: tuple[float, float, float], first: datetime, days: int, mean_c: float = 14.0, dew_c: float = 9.0
) -> WeatherSeries:
    """Clear calm days: 6 K swing about the mean with its peak at 15 h local, the dew point steady."""
    offset = place[2]
    start = first.replace(tzinfo=timezone(timedelta(hours=offset)))
    hour = np.arange(days * 24) % 24 + 0.5
    air = mean_c + 6 * np.cos(2 * np.pi * (hour - 15) / 24)
    saturation = np.exp(17.625 * air / (243.04 + air))
    rh = np.minimum(100 * np.exp(17.625 * dew_c / (243.04 + dew_c)) / saturation, 100)
    count = len(hour)
    return WeatherSeries(
        start=int(start.timestamp()),
        air_c=air,
        rh_pct=rh,
        wind_ms=np.full(count, 1.0),
        wind_from_deg=np.full(count, 225.0),
        cloud=np.zeros(count),
        rain_mm=np.zeros(count),
        latitude=place[0],
        longitude=place[1],
        utc_offset_h=offset,
        source="clear",
    )


def walls(
    *azimuths: float, code: str = "wood-lap", absorptance: float = 0.6, tilt: float = 90.0
) -> tuple[FaceSurface, ...]:
    return tuple(FaceSurface(a, tilt, substrate(code), absorptance) for a in azimuths)


# The same made weather on the same walls is asked for by many tests; none writes into what it is given.
_CLIMATES: dict[tuple[int, tuple[float, float, float], tuple[FaceSurface, ...]], tuple[WeatherSeries, Climate]] = {}


def climate_of(series: WeatherSeries, place: tuple[float, float, float], faces: tuple[FaceSurface, ...]) -> Climate:
    key = (id(series), place, faces)
    if key not in _CLIMATES:
        _CLIMATES[key] = (series, surface_climate(to_steps(series, place[0], place[1], 0.0), faces))
    return _CLIMATES[key][1]


def at_hour(hour: float) -> int:
    """The slot that begins at that hour of the first day."""
    return int(hour * SLOTS_PER_HOUR)


def day_slots(steps: Steps, begin: datetime, days: int, offset_h: float) -> Slots:
    zone = timezone(timedelta(hours=offset_h))
    return make_slots(steps, begin.replace(tzinfo=zone), days, zone)


FILM_ON_WOOD = Limit(15.0, "%", "film paint on wood")


def windows_of(
    climate: Climate,
    slots: Slots,
    code: str = "exterior-acrylic-standard",
    method: Method = Method.BRUSH,
    policy: Policy | None = None,
    moisture: list[float] | None = None,
) -> Windows:
    readings = None if moisture is None else np.array(moisture)
    return film_windows(
        climate, slots, generic_product(code), method, policy or Policy(), FULL_DAY, readings, FILM_ON_WOOD
    )


def utc(text: str) -> datetime:
    return datetime.fromisoformat(text).replace(tzinfo=UTC)
