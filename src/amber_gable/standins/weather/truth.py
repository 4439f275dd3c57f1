"""The hidden true weather and the forecasts drawn around it (physics.md §10): same seed, same values."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

import numpy as np

from amber_gable.core.weather.air import Array, saturation_pressure
from amber_gable.standins.weather.errors import drawn, errors
from amber_gable.standins.weather.regimes import regime_of

HISTORY_H, AHEAD_H = 72, 15 * 24


@dataclass(frozen=True)
class Hourly:
    """Arrays of shape (H,) from epoch second `start`; units as in WeatherSeries."""

    start: int
    air: Array
    dew: Array
    wind: Array
    wind_from: Array
    cloud: Array
    rain: Array


def truth(seed: str, latitude: float, longitude: float, start: datetime, hours: int) -> Hourly:
    """What the weather does. Solar time at the longitude sets the day's run; the season follows the hemisphere."""
    begin = start.astimezone(UTC)
    solar = [begin + timedelta(hours=h + 0.5 + longitude / 15) for h in range(hours)]
    rows = [_hour(seed, latitude, t) for t in solar]
    air, dew, wind, bearing, cloud, rain = (np.array(c, dtype=float) for c in zip(*rows, strict=True))
    return Hourly(int(start.timestamp()), air, np.minimum(dew, air), wind, bearing % 360, np.clip(cloud, 0, 1), rain)


def _hour(seed: str, latitude: float, t: datetime) -> tuple[float, float, float, float, float, float]:
    hour = t.hour + t.minute / 60
    today = regime_of(t.date(), seed)
    # Parameters glide from one day's noon to the next's.
    other = regime_of((t + timedelta(days=1 if hour >= 12 else -1)).date(), seed)
    share = abs(hour - 12) / 24

    def glide(name: str) -> float:
        return float(getattr(today, name) * (1 - share) + getattr(other, name) * share)

    # The sea lags the sun by five weeks; the far hemisphere by half a year.
    days = t.timetuple().tm_yday - (209 if latitude >= 0 else 26)
    mean = 27.5 - 0.42 * abs(latitude) + 10.0 * np.cos(2 * np.pi * days / 365)
    noise = drawn(seed, t.date(), round(latitude, 2)).normal(size=(24, 3))[t.hour]
    middle = mean + glide("warmth") + 0.35 * noise[0]
    air = middle + glide("swing") * np.cos(2 * np.pi * (hour - 15) / 24)
    dew = middle - glide("dryness") + 0.25 * noise[1]
    night = np.clip((abs(hour - 12) - 5) / 3, 0, 1)
    cloud = today.cloud_day * (1 - night) + glide("cloud_night") * night
    wind = max(0.3, glide("wind") * (0.75 + 0.45 * np.exp(-(((hour - 14) / 4.5) ** 2))) * (1 + 0.08 * noise[2]))
    rain = sum(mm for first, length, mm in today.rain if first <= hour < first + length) * (1 + 0.2 * noise[0])
    if hour < today.fog_until:
        # Fog: air at its dew point, sky hidden, little wind.
        air, cloud, wind = min(air, dew + 0.4), 1.0, min(wind, 1.2)
    return air, dew, wind, glide("wind_from") + 12 * noise[1], cloud, max(rain, 0.0)


def forecast(seed: str, latitude: float, longitude: float, issued: datetime) -> tuple[Hourly, Array]:
    """A forecast issued at a full hour and its rain probability (%): three days of analysis, fifteen days ahead.

    Errors run on from hour to hour and from run to run, and grow with lead: 0.7 °C at 6 h to 3.5 °C at ten days; rain
    keeps its amount but loses its hour (sd 1 h at 12 h, 6 h at five days) and its certainty.
    """
    issued = issued.astimezone(UTC).replace(minute=0, second=0, microsecond=0)
    real = truth(seed, latitude, longitude, issued - timedelta(hours=HISTORY_H), HISTORY_H + AHEAD_H)
    err = errors(seed, latitude, longitude, issued, HISTORY_H, AHEAD_H)
    lead = np.maximum(np.arange(HISTORY_H + AHEAD_H) - HISTORY_H, 0)
    sd = np.where(lead == 0, 0.0, np.clip(0.7 * lead / 6, 0, 0.7) + np.clip(lead - 6, 0, 234) * (2.8 / 234))
    air = real.air + sd * err.air * 0.8
    dew = real.dew + sd * err.dew * 0.6
    cloud = real.cloud + np.clip(lead / 240, 0, 1) * 0.25 * err.cloud
    wind = real.wind * np.exp(np.clip(lead / 240, 0, 1) * 0.35 * err.wind)
    shift = np.round(np.interp(lead, [0, 12, 120], [0, 1, 6]) * err.shift * 0.6).astype(int)
    source = np.clip(np.arange(len(lead)) + shift, 0, len(lead) - 1)
    return (
        Hourly(
            real.start,
            air,
            np.minimum(dew, air),
            wind,
            real.wind_from,
            np.clip(cloud, 0, 1),
            np.where(lead == 0, real.rain, real.rain[source]),
        ),
        _probability(real.rain, lead),
    )


def _probability(rain: Array, lead: Array) -> Array:
    """Chance of measurable rain in each hour: the true hours blurred by the timing error and faded with lead."""
    hours = np.arange(len(rain))
    wet = (rain > 0.1).astype(float)
    blur = np.interp(lead, [0, 12, 120, 240], [0.3, 1.0, 6.0, 8.0])
    weight = np.exp(-0.5 * ((hours[None, :] - hours[:, None]) / blur[:, None]) ** 2)
    near = (weight @ wet) / weight.sum(axis=1)
    fade = np.interp(lead, [0, 24, 240], [0.0, 0.08, 0.35])
    return np.asarray(np.clip(100 * ((1 - fade) * near + fade * 0.12), 0, 100).round())


def humidity(air: Array, dew: Array) -> Array:
    """Relative humidity %, shape as given."""
    return np.asarray(np.clip(100 * saturation_pressure(dew) / saturation_pressure(air), 0, 100))
