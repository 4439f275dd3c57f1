"""What the first climate would have to wait for, fetched beforehand: libraries, and loops compiled or read in."""

from datetime import UTC, datetime

import numpy as np

from amber_gable.core.weather.wall.compiled import engine
from amber_gable.core.weather.wall.slot_climate import Place, place_weather, surfaces_through
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.method import Method
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.working import CrewDay, Policy


def warm() -> str:
    """Compute a small climate with a coat on it; returns how loops run here, 'compiled' or 'plain'."""
    begin, hours = datetime(2026, 6, 21, tzinfo=UTC), 24
    mild, half = np.full(hours, 18.0), np.full(hours, 50.0)
    series = WeatherSeries(int(begin.timestamp()), mild, half, np.ones(hours), np.zeros(hours))
    weather = place_weather(Place(45.0, 0.0, 0.0, UTC), series, begin, 1)
    (surface,) = surfaces_through(weather, [FaceSurface(180.0, 90.0, next(iter(SUBSTRATES.values())), 0.5)])
    surface.coat(next(iter(GENERIC_PRODUCTS.values())), Method.BRUSH, Policy(), CrewDay())
    return engine()
