"""The hidden true weather and the forecasts drawn around it (docs/physics.md §10): same seed, same values."""

from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta
from functools import lru_cache

import numpy as np

from amber_gable.core.weather.outdoors.air import Array, saturation_pressure
from amber_gable.standins.weather.errors import Errors, drawn, errors
from amber_gable.standins.weather.regimes import regime_of

HISTORY_H, AHEAD_H = 72, 15 * 24
SHOWERS_AT, SHOWERS_WIDE, SHOWER_MM = 15.0, 2.6, 1.4
"""Local hour at which convection peaks, how wide it is, h, and the mean depth of a shower."""
SEA_FROM, BREEZE_AT, BREEZE_WIDE, BREEZE_MS = 150.0, 14.5, 3.0, 3.5
"""The sea wind: where it comes from, when it is strongest, how long it lasts, h, and its speed."""
TIMING = (0.6, 3.6)
"""Spread of the hour of a front, h, at 12 h and at five days ahead."""
KNOWN_H = 1
"""Showers this near are seen coming; further off nobody knows which hour they fall in."""


@dataclass(frozen=True)
class Hourly:
    """Arrays of shape (H,) from epoch second `start`; units as in WeatherSeries. `shower` the part of the rain that is
    convective, `shower_chance` how likely it was in that hour, 0-1."""

    start: int
    air: Array
    dew: Array
    wind: Array
    wind_from: Array
    cloud: Array
    rain: Array
    shower: Array
    shower_chance: Array


def truth(seed: str, latitude: float, longitude: float, start: datetime, hours: int) -> Hourly:
    """What the weather does. Solar time at the longitude sets the day's run; the season follows the hemisphere."""
    begin = start.astimezone(UTC)
    solar = [begin + timedelta(hours=h + 0.5 + longitude / 15) for h in range(hours)]
    rows = [_hour(seed, latitude, t) for t in solar]
    columns = [np.array(c, dtype=float) for c in zip(*rows, strict=True)]
    air, dew, wind, bearing, cloud, rain, shower, chance = columns
    return Hourly(
        int(start.timestamp()),
        air,
        np.minimum(dew, air),
        wind,
        bearing % 360,
        np.clip(cloud, 0, 1),
        rain + shower,
        shower,
        chance,
    )


@lru_cache(maxsize=16_384)
def _hour(seed: str, latitude: float, t: datetime) -> tuple[float, ...]:
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
    noise, shower_luck = (draws[t.hour] for draws in _chances(seed, t.date(), round(latitude, 2)))
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
    wind, bearing = _with_breeze(wind, glide("wind_from") + 12 * noise[1], glide("breeze"), hour)
    chance = today.showers * np.exp(-0.5 * ((hour - SHOWERS_AT) / SHOWERS_WIDE) ** 2)
    luck, depth = shower_luck
    shower = 0.0
    if luck < chance:
        # A squall: cooler, cloudy, gusty for its hour.
        shower = float(_depth(depth))
        air, dew, cloud, wind = air - 1.5, dew + 0.3, max(cloud, 0.9), wind * 1.3
    return air, dew, wind, bearing, cloud, max(rain, 0.0), shower, chance


@lru_cache(maxsize=64)
def _chances(seed: str, day: date, latitude: float) -> tuple[Array, Array]:
    """Of a day's hours: noise (24, 3), and luck and depth of showers (24, 2)."""
    return drawn(seed, day, latitude).normal(size=(24, 3)), drawn(seed, "showers", day, latitude).random(size=(24, 2))


def _with_breeze(wind: float, bearing: float, share: float, hour: float) -> tuple[float, float]:
    """The wind with the sea wind of that hour added to it: speed, and where it comes from."""
    sea = BREEZE_MS * share * np.exp(-0.5 * ((hour - BREEZE_AT) / BREEZE_WIDE) ** 2)
    east = wind * np.sin(np.radians(bearing)) + sea * np.sin(np.radians(SEA_FROM))
    north = wind * np.cos(np.radians(bearing)) + sea * np.cos(np.radians(SEA_FROM))
    return max(float(np.hypot(east, north)), 0.3), float(np.degrees(np.arctan2(east, north)))


def forecast(seed: str, latitude: float, longitude: float, issued: datetime) -> tuple[Hourly, Array]:
    """A forecast issued at a full hour and its rain probability (%): three days of analysis, fifteen days ahead.

    Errors run on from hour to hour and from run to run, and grow with lead: 0.7 °C at 6 h to 3.5 °C at ten days; the
    rain of fronts keeps its amount but loses its hour (sd 0.6 h at 12 h, 3.6 h at five days), showers are only likely
    or not. The chance of rain is what those errors leave: of the hours told 30 %, three in ten are wet.
    """
    issued = _full_hour(issued)
    real = truth(seed, latitude, longitude, issued - timedelta(hours=HISTORY_H), HISTORY_H + AHEAD_H)
    seen = LEAD <= KNOWN_H
    shower = np.where(seen, real.shower, 0.0)
    chance = np.where(seen, (real.shower > 0).astype(float), real.shower_chance)
    told = _erred(real, errors(seed, latitude, longitude, issued, HISTORY_H, AHEAD_H))
    lasting = np.where(LEAD == 0, real.rain - real.shower, told.rain)
    return replace(told, rain=lasting + shower, shower=shower, shower_chance=chance), _probability(lasting, chance)


def ensemble(seed: str, latitude: float, longitude: float, issued: datetime, count: int) -> list[Hourly]:
    """`count` futures around the forecast, as far from it as it may be from what comes; each has showers of its own."""
    issued = _full_hour(issued)
    middle, _ = forecast(seed, latitude, longitude, issued)
    out = []
    for n in range(count):
        own = f"{seed}/future {n}"
        told = _erred(middle, errors(own, latitude, longitude, issued, HISTORY_H, AHEAD_H))
        luck, depth = drawn(own, latitude, longitude, "showers", issued.isoformat()).random(size=(2, len(LEAD)))
        falls = (luck < middle.shower_chance) & (LEAD > KNOWN_H)
        shower = np.where(falls, _depth(depth), middle.shower)
        out.append(replace(told, rain=told.rain + shower, shower=shower))
    return out


LEAD = np.maximum(np.arange(HISTORY_H + AHEAD_H) - HISTORY_H, 0)
"""Hours after the issue of each hour of a forecast."""
_LATE = np.interp(LEAD, [0, 12, 120], [0, *TIMING])


def _full_hour(issued: datetime) -> datetime:
    return issued.astimezone(UTC).replace(minute=0, second=0, microsecond=0)


def _depth(luck: Array) -> Array:
    """Of a shower, mm."""
    return np.asarray(0.3 - SHOWER_MM * np.log(np.maximum(luck, 0.02)))


def _erred(base: Hourly, err: Errors) -> Hourly:
    """A weather with the errors of a forecast; of its rain only what lasts, at another hour."""
    sd = np.where(LEAD == 0, 0.0, np.clip(0.7 * LEAD / 6, 0, 0.7) + np.clip(LEAD - 6, 0, 234) * (2.8 / 234))
    share = np.clip(LEAD / 240, 0, 1)
    air = base.air + sd * err.air * 0.8
    dew = base.dew + sd * err.dew * 0.6
    source = np.clip(np.arange(len(LEAD)) + np.round(_LATE * err.shift).astype(int), 0, len(LEAD) - 1)
    return replace(
        base,
        air=air,
        dew=np.minimum(dew, air),
        wind=base.wind * np.exp(share * 0.35 * err.wind),
        cloud=np.clip(base.cloud + share * 0.25 * err.cloud, 0, 1),
        rain=(base.rain - base.shower)[source],
    )


def _probability(lasting: Array, shower_chance: Array) -> Array:
    """Chance of measurable rain in each hour, %: the hours forecast wet, spread by how far their timing may be off, and
    the showers beside them."""
    hours = np.arange(len(lasting))
    wet = (lasting > 0.1).astype(float)
    # The hour itself blurs a little by being whole.
    blur = np.hypot(_LATE, 0.3)
    weight = np.exp(-0.5 * ((hours[None, :] - hours[:, None]) / blur[:, None]) ** 2)
    front = (weight @ wet) / weight.sum(axis=1)
    return np.asarray(np.clip(100 * (1 - (1 - front) * (1 - shower_chance)), 0, 100).round())


def humidity(air: Array, dew: Array) -> Array:
    """Relative humidity %, shape as given."""
    return np.asarray(np.clip(100 * saturation_pressure(dew) / saturation_pressure(air), 0, 100))
