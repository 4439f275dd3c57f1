"""Hourly weather brought to the short steps on which surfaces are computed."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors import sky, sun
from amber_gable.core.weather.outdoors.air import KELVIN, Array, dew_point, frost_point, vapour_density, vapour_pressure
from amber_gable.core.weather.outdoors.light import HorizontalLight, horizontal_light
from amber_gable.core.weather.outdoors.sun import SunPosition
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.grid import STEP_S, STEPS_PER_HOUR
from amber_gable.domain.weather.series import COLUMNS, WeatherSeries

RAIN_MEASURABLE = 0.1
"""mm in an hour, from which on it counts as wet."""
RAINING_MM_H, LIKELY_PCT = 1.0, 30.0
"""Depth taken for an hour in which it rains, where only its chance is given, and the chance from which on it wets a
surface: assumptions. A smaller chance is the business of the rule that limits it."""

SHED_WIND = 0.1
"""Share of the wind that moves the air in a shed with its doors open: an assumption."""
HEATED_C = 18.0
"""A shop is heated to so much at the least: an assumption."""
CALM_MS = 0.5
"""Least wind taken for the air at a surface: a cup needs about as much to start."""
GUST_FACTOR = 1.66
"""Gusts of three seconds to the wind of ten minutes over roughly open land (docs/physics.md §1)."""


@dataclass(frozen=True)
class Steps:
    """Weather at the middle of each step: every array has shape (T,), or (M, T) where it stands for M members of one
    forecast; the sun's place is (T,). `start` epoch s UTC of the first step.

    air, dew point °C; vapour Pa; rh %; wind m/s at 10 m and the bearing it comes from; cloud 0-1; rain mm/h (None
    when not known; 0 in hours that lack it) and whether anything is known of the rain of each step (None: of all);
    rain probability % (None when not given); downward infrared W/m²; the sun and its light. gust: the strongest of each
    hour, m/s at 10 m (None when not given; NaN in hours that lack it). wet_futures (futures, T): when each of the
    source's own futures is wet (None: it has none, or these are the members of a forecast). shade (M,): where in its
    band each member takes a colour's absorptance, 0-1, NaN the likely one (None: all). covered: the air of a shed.
    lead: the weeks before, up to `start`, as one weather that all members share (None: not known).
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
    rain_known: npt.NDArray[np.bool_] | None
    rain_pct: Array | None
    ir_down: Array
    sun: SunPosition
    light: HorizontalLight
    shade: Array | None = None
    covered: bool = False
    lead: "Steps | None" = None
    gust: Array | None = None
    wet_futures: npt.NDArray[np.bool_] | None = None

    def __len__(self) -> int:
        """Number of steps, T."""
        return int(self.air.shape[-1])

    @property
    def members(self) -> tuple[int, ...]:
        """() for one weather, (M,) for M members."""
        return self.air.shape[:-1]

    @cached_property
    def in_slots(self) -> dict[tuple[str, str, int, int, int], Array]:
        """What was worked out of the air alone over slots."""
        return {}

    @cached_property
    def climates(self) -> dict[Any, Any]:
        """Surfaces that were computed through this weather as the weeks before another."""
        return {}

    @cached_property
    def _wind_powers(self) -> dict[float, Array]:
        return {}

    def wind_to(self, power: float) -> Array:
        """v^power, which forced convection goes with, taken once for all surfaces. Reported calm still stirs."""
        if power not in self._wind_powers:
            self._wind_powers[power] = np.maximum(self.wind, CALM_MS) ** power
        return self._wind_powers[power]

    @cached_property
    def settles(self) -> Array:
        """At or below which temperature vapour settles on a surface, °C: the dew point, below 0 °C the frost point."""
        return frost_point(self.vapour)

    @cached_property
    def ir_air(self) -> Array:
        """What a black body of the air's temperature gives off, W/m²."""
        return np.asarray(sky.STEFAN_BOLTZMANN * (self.air + KELVIN) ** 4)

    @cached_property
    def air_by_time(self) -> tuple[Array, Array]:
        """The air, °C, and its vapour, kg/m³, with time first, (T, M): as the heat balance takes them."""
        both = (self.air, vapour_density(self.vapour, self.air))
        air, vapour = (np.ascontiguousarray(a.reshape(-1, len(self)).T) for a in both)
        return air, vapour

    @cached_property
    def wind_bearing(self) -> tuple[Array, Array]:
        """Cosine and sine of the bearing that the wind comes from."""
        bearing = np.radians(self.wind_from)
        return np.cos(bearing), np.sin(bearing)

    @cached_property
    def next_unknown(self) -> Array:
        """The first step from each on whose rain is not known, (..., T); T where it is known to the end."""
        if self.rain_known is None:
            return np.full(len(self), float(len(self)))
        at = np.where(self.rain_known, len(self), np.arange(len(self)))
        return np.asarray(np.minimum.accumulate(at[..., ::-1], axis=-1)[..., ::-1], dtype=float)

    @cached_property
    def falling(self) -> Array:
        """Rain that wets surfaces, mm/h: what the source says, else, from a chance of LIKELY_PCT on, the depth to be
        expected of it; none where nothing is known."""
        if self.rain is not None:
            return self.rain
        if self.rain_pct is None:
            return np.zeros(self.air.shape)
        return np.where(self.rain_pct >= LIKELY_PCT, RAINING_MM_H * self.rain_pct / 100.0, 0.0)

    @cached_property
    def wind_at_work(self) -> Array:
        """What limits of the wind are held against, m/s: the wind, or that which usually has such gusts as the source
        tells, where that is more."""
        return self.wind if self.gust is None else np.fmax(self.wind, self.gust / GUST_FACTOR)

    @cached_property
    def rain_on_walls(self) -> Array:
        """Rain on a wall free on an airfield, square to the wind, mm/h: 2/9 v R^(8/9) (ISO 15927-3:2009)."""
        return np.asarray(2.0 / 9.0 * self.wind * self.falling ** (8.0 / 9.0))

    def sheltered(self, light: float, wind: float, warmer_k: float | Array = 0.0) -> "Steps":
        """Behind sheets or in a shed: no rain, a share of the light, all of it scattered, a share of the wind, the
        cover for the sky; with a heater warmer, the vapour as it is outside."""
        air = self.air + warmer_k
        through = light * self.light.ghi
        return replace(
            self,
            air=air,
            rh=np.asarray(100 * self.vapour / vapour_pressure(air, 100.0)),
            wind=wind * self.wind,
            gust=None if self.gust is None else wind * self.gust,
            rain=None if self.rain is None else np.zeros_like(self.rain),
            rain_pct=None if self.rain_pct is None else np.zeros_like(self.rain_pct),
            wet_futures=None if self.wet_futures is None else np.zeros_like(self.wet_futures),
            ir_down=np.asarray(sky.STEFAN_BOLTZMANN * (air + KELVIN) ** 4),
            light=replace(self.light, ghi=through, dhi=through, dni=np.zeros_like(self.light.dni)),
        )

    @cached_property
    def under_cover(self) -> "Steps":
        """In a shed or garage that nobody heats. Its air is that outside: a heavy one lags behind it."""
        return self if self.covered else replace(self.sheltered(light=0.0, wind=SHED_WIND), covered=True)

    @cached_property
    def heated(self) -> "Steps":
        """In a shop that is heated to HEATED_C where it is colder outside; the vapour is that outside."""
        if self.covered:
            return self
        warmer = np.maximum(HEATED_C - self.air, 0.0)
        return replace(self.sheltered(light=0.0, wind=SHED_WIND, warmer_k=warmer), covered=True)

    @property
    def times(self) -> Array:
        """Epoch seconds at which each step begins, shape (T,)."""
        return np.asarray(self.start + STEP_S * np.arange(len(self)), dtype=float)


def to_steps(series: WeatherSeries, latitude: float, longitude: float, altitude_m: float) -> Steps:
    """Interpolate an hourly series to steps.

    State quantities run straight between the moments at which they are given; the wind's direction by its components;
    rain stays as it fell in its hour; sunshine as in `light`.
    """
    columns = {name: getattr(series, name) for name in COLUMNS}
    steps = _interpolated(series, columns, latitude, longitude, altitude_m)
    if series.ensemble is None or "rain_mm" not in series.ensemble:
        return steps
    wet = np.repeat(series.ensemble["rain_mm"] >= RAIN_MEASURABLE, STEPS_PER_HOUR, axis=-1)
    return replace(steps, wet_futures=wet)


def members_to_steps(members: Sequence[WeatherSeries], latitude: float, longitude: float, altitude_m: float) -> Steps:
    """As `to_steps`, for members of one forecast: the same hours and quantities in each.

    Raises NoClimate where they differ in that.
    """
    first = members[0]
    given = [n for n in COLUMNS if getattr(first, n) is not None]
    for one in members:
        if (one.start, len(one)) != (first.start, len(first)) or given != [
            n for n in COLUMNS if getattr(one, n) is not None
        ]:
            raise NoClimate("the members of the forecast do not cover the same hours with the same quantities")
    columns = {n: np.stack([getattr(one, n) for one in members]) if n in given else None for n in COLUMNS}
    steps = _interpolated(first, columns, latitude, longitude, altitude_m)
    return replace(steps, shade=shades(len(members)))


def shades(members: int) -> Array:
    """(M,): where in its band each member takes a colour's absorptance, evenly spread whatever their number (van der
    Corput); NaN, the likely one, for the first."""
    out = np.full(members, np.nan)
    for n in range(1, members):
        bits = f"{n:b}"[::-1]
        out[n] = int(bits, 2) / 2 ** len(bits)
    return out


def _interpolated(
    stamped: WeatherSeries, columns: dict[str, Array | None], latitude: float, longitude: float, altitude_m: float
) -> Steps:
    given = {name: column for name, column in columns.items() if column is not None}
    hours, start = given["air_c"].shape[-1], stamped.start
    step = np.arange(hours * STEPS_PER_HOUR)
    hour_of = step // STEPS_PER_HOUR
    later = round(stamped.light_offset_min * 60 / STEP_S)
    state, mean = _between_hours(hours, stamped.state_at_h), _between_hours(hours, 0.5)
    lit = _between_hours(hours, 0.5 + later / STEPS_PER_HOUR)
    air = state(given["air_c"])
    # Vapour pressure, not relative humidity, is the slow quantity of the air.
    vapour = state(vapour_pressure(given["air_c"], given["rh_pct"]))
    saturated = vapour_pressure(air, 100.0)
    vapour = np.minimum(vapour, saturated)
    bearing = np.radians(given["wind_from_deg"])
    wind_from = np.degrees(np.arctan2(state(np.sin(bearing)), state(np.cos(bearing)))) % 360.0

    position = sun.step_positions(start + STEP_S // 2, hours, latitude, longitude, altitude_m)
    lit_hour = np.clip((step - later) // STEPS_PER_HOUR, 0, hours - 1)
    light = horizontal_light(given, position, lit_hour, lit)
    dew = dew_point(vapour)
    cloud = state(given["cloud"]) if "cloud" in given else light.cloud
    infrared = mean(given["ir_down"]) if "ir_down" in given else sky.infrared_down(air, dew, cloud)
    known = None
    if "rain_mm" in given and "rain_pct" not in given and np.isnan(given["rain_mm"]).any():
        known = np.isfinite(given["rain_mm"])
    return Steps(
        start=start,
        air=air,
        vapour=vapour,
        dew=dew,
        rh=np.asarray(100.0 * vapour / saturated),
        wind=state(given["wind_ms"]),
        wind_from=np.asarray(wind_from),
        cloud=cloud,
        rain=np.nan_to_num(given["rain_mm"])[..., hour_of] if "rain_mm" in given else None,
        rain_known=None if known is None else known[..., hour_of],
        rain_pct=given["rain_pct"][..., hour_of] if "rain_pct" in given else None,
        ir_down=infrared,
        sun=position,
        light=light,
        gust=given["gust_ms"][..., hour_of] if "gust_ms" in given else None,
    )


def _between_hours(hours: int, at_h: float) -> Callable[[Array], Array]:
    """Runs a column (..., H), whose values stand `at_h` hours into their hours, straight between them to (..., T);
    level beyond the first and the last."""
    at = np.clip((np.arange(hours * STEPS_PER_HOUR) + 0.5) / STEPS_PER_HOUR - at_h, 0, hours - 1)
    before = np.minimum(at.astype(np.int64), max(hours - 2, 0))
    after, part = np.minimum(before + 1, hours - 1), at - before

    def run(column: Array) -> Array:
        return np.asarray((column[..., after] - column[..., before]) * part + column[..., before])

    return run
