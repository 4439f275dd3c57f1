"""Hourly weather brought to the 10-minute steps on which surfaces are computed."""

from dataclasses import dataclass

import numpy as np
import pandas as pd

from amber_gable.core.weather import sky, sun
from amber_gable.core.weather.air import Array, dew_point, vapour_pressure
from amber_gable.core.weather.sun import HorizontalLight, SunPosition
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.weather import WeatherSeries


@dataclass(frozen=True)
class Steps:
    """Weather at the middle of each step; every array has shape (T,). `start` epoch s UTC of the first step.

    air, dew point °C; vapour Pa; rh %; wind m/s at 10 m and the bearing it comes from; cloud 0-1; rain mm/h (None
    when not known); rain probability % (None when not given); downward infrared W/m²; the sun and its light.
    """

    start: int
    air: Array
    vapour: Array
    dew: Array
    rh: Array
    wind: Array
    wind_from: Array
    cloud: Array
    rain: Array | None
    rain_pct: Array | None
    ir_down: Array
    sun: SunPosition
    light: HorizontalLight

    def __len__(self) -> int:
        return len(self.air)

    @property
    def times(self) -> Array:
        """Epoch seconds at which each step begins, shape (T,)."""
        return np.asarray(self.start + STEP_S * np.arange(len(self)), dtype=float)


def to_steps(series: WeatherSeries, latitude: float, longitude: float, altitude_m: float) -> Steps:
    """Interpolate an hourly series to steps.

    State quantities run straight between mid-hours; the wind's direction by its components; rain stays as it fell in
    its hour. Sunshine keeps each hour's clearness and takes its shape from the sun's height, so that a morning hour
    does not lend light to the time before sunrise.
    """
    n = len(series) * STEPS_PER_HOUR
    mid_hour = np.arange(len(series)) + 0.5
    at = (np.arange(n) + 0.5) / STEPS_PER_HOUR

    def smooth(column: Array) -> Array:
        return np.asarray(np.interp(at, mid_hour, column))

    hour_of = np.arange(n) // STEPS_PER_HOUR
    air = smooth(series.air_c)
    # Vapour pressure, not relative humidity, is the slow quantity of the air.
    vapour = smooth(vapour_pressure(series.air_c, series.rh_pct))
    saturated = vapour_pressure(air, 100.0)
    vapour = np.minimum(vapour, saturated)
    bearing = np.radians(series.wind_from_deg)
    wind_from = np.degrees(np.arctan2(smooth(np.sin(bearing)), smooth(np.cos(bearing)))) % 360.0

    times = pd.date_range(pd.Timestamp(series.start, unit="s", tz="UTC"), periods=n, freq=f"{STEP_S}s")
    middle = times + pd.Timedelta(seconds=STEP_S / 2)
    position = sun.position(middle, latitude, longitude, altitude_m)
    light = sun.horizontal_light(series, position, hour_of, smooth)
    dew = dew_point(vapour)
    cloud = smooth(series.cloud) if series.cloud is not None else light.cloud
    infrared = smooth(series.ir_down) if series.ir_down is not None else sky.infrared_down(air, dew, cloud)
    return Steps(
        start=series.start,
        air=air,
        vapour=vapour,
        dew=dew,
        rh=np.asarray(100.0 * vapour / saturated),
        wind=smooth(series.wind_ms),
        wind_from=np.asarray(wind_from),
        cloud=cloud,
        rain=None if series.rain_mm is None else series.rain_mm[hour_of],
        rain_pct=None if series.rain_pct is None else series.rain_pct[hour_of],
        ir_down=infrared,
        sun=position,
        light=light,
    )
