"""Hours out of a typed forecast: a day's course between its low and its high.

Temperature after Parton & Logan (1981), A model for diurnal variation in soil and air temperature, Agricultural
Meteorology 23: by day a sine from the low, just before sunrise, to the high some hours after the sun's; by night it
falls exponentially to the next low (here brought to end exactly on it). Their constants for air at 1.5 m: the high lags
by 1.86 h, the night's decay is 2.20. By the sea the wind off the water ends the warming earlier and the night keeps
more of it: 1.0 h and 1.6, assumptions.

The dew point persists: what is typed for a day stands at its noon and runs straight to the next; air that cools below
it is fog at its own dew point. Where nothing is said of moisture the dew point is the day's low less 1 K inland, and
less 0.5 K by the sea: an assumption, of nights that come near saturation. Cloud persists likewise. Wind is the day's
mean with the course of a day: a quarter more in the early afternoon, a quarter less by night.
"""

from datetime import datetime, timedelta, tzinfo

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array, saturation_pressure
from amber_gable.core.weather.outdoors.sun import RISEN, step_positions
from amber_gable.domain.grid import HOUR_S, STEP_S, STEPS_PER_HOUR
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.weather.typed_forecast import TypedDay, TypedForecast

LAG_H, DECAY = 1.86, 2.20
SEA_LAG_H, SEA_DECAY = 1.0, 1.6
BELOW_LOW_K, SEA_BELOW_LOW_K = 1.0, 0.5
WIND_SWING, WINDIEST_H = 0.25, 14.0
SOURCE = "typed in"
DRY_CHANCE_PCT = 3.0
"""Chance of rain in hours of which none is said."""
LIKELY_PCT = 50.0
"""Chance from which on the rain that is said is taken to fall."""
DOUBT = 1.5
"""How much wider than a service's the errors of what is typed are: a day in two figures knows no hours."""
NIGHT_AFTER_H = 9
"""Hours of the night after the last day that are taken to go on as it does: what is laid that day dries in them."""


def typed_hours(
    typed: TypedForecast, latitude: float, longitude: float, altitude_m: float, tz: tzinfo, issued: datetime
) -> WeatherSeries:
    """The forecast as hours from the first local midnight, each value the mean of its hour."""
    midnight = datetime(typed.first.year, typed.first.month, typed.first.day, tzinfo=tz)
    after = typed.first + timedelta(days=len(typed.days))
    start = int(midnight.timestamp() // HOUR_S * HOUR_S)
    end = int(datetime(after.year, after.month, after.day, tzinfo=tz).timestamp()) + NIGHT_AFTER_H * HOUR_S
    hours = (end - start) // HOUR_S
    # Minutes are what the sine and the decay are taken at; an hour is their mean.
    middles: Array = np.asarray(start + STEP_S * (np.arange(hours * STEPS_PER_HOUR) + 0.5), dtype=float)
    # The last night's day is known whole, so that its sun sets when it does.
    sun = step_positions(start + STEP_S // 2, hours + 24 - NIGHT_AFTER_H, latitude, longitude, altitude_m)
    days = [*typed.days, typed.days[-1]]
    noons = np.array([_local(typed, n, 12.0, tz) for n in range(len(days))])
    suns = _suns(typed, len(days), start, sun.elevation > RISEN, tz)
    air = _air(typed, days, middles, suns).reshape(-1, STEPS_PER_HOUR).mean(axis=1)
    at: Array = np.asarray(start + HOUR_S * (np.arange(hours) + 0.5), dtype=float)

    def through(values: list[float]) -> Array:
        return np.asarray(np.interp(at, noons, values))

    dew = np.minimum(through([_dew(d, by_the_sea=typed.by_the_sea) for d in days]), air)
    local_h = np.array([_hour(t, tz) for t in at])
    wind = through([d.wind_ms for d in days]) * (1 + WIND_SWING * np.cos(2 * np.pi * (local_h - WINDIEST_H) / 24))
    bearing = np.radians([d.wind_from_deg for d in days])
    east, north = through(np.sin(bearing).tolist()), through(np.cos(bearing).tolist())
    chance, depth = _rain(typed, at, tz)
    return WeatherSeries(
        start=start,
        air_c=air,
        rh_pct=np.clip(100 * saturation_pressure(dew) / saturation_pressure(air), 0, 100),
        wind_ms=wind,
        wind_from_deg=np.degrees(np.arctan2(east, north)) % 360,
        cloud=np.where(depth > 0, np.maximum(through([d.cloud for d in days]), 0.9), through([d.cloud for d in days])),
        rain_mm=depth,
        rain_pct=chance,
        latitude=latitude,
        longitude=longitude,
        altitude_m=altitude_m,
        utc_offset_h=_offset_h(midnight),
        source=SOURCE,
        issued=int(issued.timestamp()),
        doubt=DOUBT,
        notes=_notes(typed),
    )


def told_until(series: WeatherSeries) -> int:
    """Epoch second at which what somebody brought as a forecast ends; the night drawn on after typed days was not
    told."""
    return series.end - (NIGHT_AFTER_H * HOUR_S if series.source == SOURCE else 0)


def _notes(typed: TypedForecast) -> tuple[str, ...]:
    count = len(typed.days)
    said = f"typed in for {count} day{'s' if count > 1 else ''}: hours are drawn between each day's low and high"
    assumed = any(d.dew_c is None and d.rh_pct is None for d in typed.days)
    return (f"{said}, and held less sure than a service's", *(("no moisture was typed: the air is taken to come near "
            "saturation at the low",) if assumed else ()))  # fmt: skip


def _offset_h(midnight: datetime) -> float:
    offset = midnight.utcoffset()
    return offset.total_seconds() / 3600 if offset else 0.0


def _local(typed: TypedForecast, day: int, hour: float, tz: tzinfo) -> float:
    """Epoch second of a local clock hour of a typed day."""
    date = typed.first + timedelta(days=day)
    return datetime(date.year, date.month, date.day, int(hour), tzinfo=tz).timestamp()


def _hour(t: float, tz: tzinfo) -> float:
    local = datetime.fromtimestamp(t, tz)
    return local.hour + local.minute / 60


def _dew(day: TypedDay, *, by_the_sea: bool) -> float:
    if day.dew_c is not None:
        return day.dew_c
    if day.rh_pct is not None:
        # What is said of humidity is of the day, half-way up to its high.
        warm = 0.25 * day.low_c + 0.75 * day.high_c
        vapour = day.rh_pct / 100 * saturation_pressure(warm)
        x = float(np.log(vapour / 610.94))
        return 243.04 * x / (17.625 - x)
    return day.low_c - (SEA_BELOW_LOW_K if by_the_sea else BELOW_LOW_K)


def _suns(
    typed: TypedForecast, days: int, start: int, lit: npt.NDArray[np.bool_], tz: tzinfo
) -> list[tuple[float, float]]:
    """Sunrise and sunset of each day, epoch s; where there are none, 6 and 18 h. A day is at least so long that its
    high comes before the sun sets."""
    lag = SEA_LAG_H if typed.by_the_sea else LAG_H
    at = start + STEP_S * (np.arange(len(lit)) + 0.5)
    out = []
    for n in range(days):
        midnight = _local(typed, n, 0.0, tz)
        of_day = (at >= midnight) & (at < midnight + 24 * HOUR_S)
        here = np.flatnonzero(lit & of_day)
        whole = here.size in (0, int(of_day.sum()))
        rise = midnight + 6 * HOUR_S if whole else float(at[here[0]])
        sunset = midnight + 18 * HOUR_S if whole else float(at[here[-1]])
        out.append((rise, max(sunset, rise + 2 * lag * HOUR_S)))
    return out


def _air(typed: TypedForecast, days: list[TypedDay], at: Array, suns: list[tuple[float, float]]) -> Array:
    """(T,) °C."""
    lag, decay = (SEA_LAG_H, SEA_DECAY) if typed.by_the_sea else (LAG_H, DECAY)
    rises = [rise for rise, _ in suns]
    out = np.empty(len(at))
    for i, t in enumerate(at):
        n = int(np.searchsorted(rises, t, side="right")) - 1
        # Before the first sunrise the night is one after a day like the first.
        day, low = days[max(n, 0)], days[min(n + 1, len(days) - 1)].low_c
        rise, sunset = suns[n] if n >= 0 else (suns[0][0] - 24 * HOUR_S, suns[0][1] - 24 * HOUR_S)
        length = (sunset - rise) / HOUR_S
        if t <= sunset:
            out[i] = _by_day(day, (t - rise) / HOUR_S, length, lag)
            continue
        next_rise = rises[n + 1] if n + 1 < len(rises) else rise + 24 * HOUR_S
        dusk, end = _by_day(day, length, length, lag), float(np.exp(-decay))
        gone = float(np.exp(-decay * (t - sunset) / (next_rise - sunset)))
        out[i] = low + (dusk - low) * (gone - end) / (1 - end)
    return out


def _by_day(day: TypedDay, since_rise_h: float, length_h: float, lag_h: float) -> float:
    return float(day.low_c + (day.high_c - day.low_c) * np.sin(np.pi * since_rise_h / (length_h + 2 * lag_h)))


def _rain(typed: TypedForecast, at: Array, tz: tzinfo) -> tuple[Array, Array]:
    """Chance % and depth mm of each hour; of several rains in one hour the likelier."""
    chance, depth = np.full(len(at), DRY_CHANCE_PCT), np.zeros(len(at))
    for n, day in enumerate(typed.days):
        midnight = _local(typed, n, 0.0, tz)
        for rain in day.rain:
            begin, end = (_clock(typed, n, h, midnight, tz) for h in (rain.from_h, rain.until_h))
            part = np.clip(np.minimum(at + HOUR_S / 2, end) - np.maximum(at - HOUR_S / 2, begin), 0, HOUR_S) / HOUR_S
            here = (part > 0) & (rain.chance_pct >= chance)
            chance[here] = rain.chance_pct
            depth[here] = rain.kind.figure * part[here] if rain.chance_pct >= LIKELY_PCT else 0.0
    return chance, depth


def _clock(typed: TypedForecast, day: int, hour: float, midnight: float, tz: tzinfo) -> float:
    if hour >= 24:
        return _local(typed, day + 1, 0.0, tz)
    # Clock hours, also where the clock changed since midnight.
    return _local(typed, day, int(hour), tz) + (hour % 1) * HOUR_S if hour else midnight
