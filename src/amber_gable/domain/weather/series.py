"""Hourly weather as arrays, with what is known about it."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta, timezone, tzinfo

import numpy as np
import numpy.typing as npt

from amber_gable.domain.weather.labelled_zone import Change, LabelledZone

Floats = npt.NDArray[np.float64]
HOUR = 3600


@dataclass(frozen=True)
class WeatherSeries:
    """Consecutive hours; every value stands for the hour that begins at its time.

    Arrays have shape (H,). `start` is epoch seconds UTC of the first hour. Optional quantities are None when the
    source has none: never filled with a guess without a line in `notes`.
    utc_offset_h: that of its first hour's label; offset_changes: others inside, in order.
    state_at_h: how far into its hour air, humidity, wind and cloud are given (0.5: its mean). light_offset_min: how
    much later than its hour the sunshine lies. doubt: how much wider than a service's its errors are. ensemble: the
    source's own futures, columns of shape (M, H); what it leaves out is drawn.
    Units: °C, %, m/s at 10 m (the hour's wind, and its strongest gust), degrees the wind comes from, cloud 0–1, mm in
    the hour, %, W/m². Rain and gusts may be unknown (NaN) in some hours.
    """

    start: int
    air_c: Floats
    rh_pct: Floats
    wind_ms: Floats
    wind_from_deg: Floats
    cloud: Floats | None = None
    rain_mm: Floats | None = None
    rain_pct: Floats | None = None
    ghi: Floats | None = None
    dni: Floats | None = None
    dhi: Floats | None = None
    ir_down: Floats | None = None
    gust_ms: Floats | None = None
    latitude: float | None = None
    longitude: float | None = None
    altitude_m: float = 0.0
    utc_offset_h: float = 0.0
    offset_changes: tuple[Change, ...] = ()
    typical_year: bool = False
    state_at_h: float = 0.5
    light_offset_min: float = 0.0
    doubt: float = 1.0
    source: str = ""
    issued: int | None = None
    ensemble: Mapping[str, Floats] | None = None
    notes: tuple[str, ...] = field(default=())

    def __len__(self) -> int:
        return len(self.air_c)

    @property
    def end(self) -> int:
        return self.start + len(self) * HOUR

    @property
    def zone(self) -> tzinfo:
        """The clock of its labels."""
        fixed = timezone(timedelta(hours=self.utc_offset_h))
        return LabelledZone(self.utc_offset_h, self.offset_changes) if self.offset_changes else fixed

    @property
    def start_time(self) -> datetime:
        return datetime.fromtimestamp(self.start, UTC)

    def take(self, index: npt.NDArray[np.int64], start: int) -> "WeatherSeries":
        """The hours of those indices, in that order, as a series that begins at `start`."""
        changes = {name: column[index] for name in COLUMNS if (column := getattr(self, name)) is not None}
        ensemble = None if self.ensemble is None else {n: rows[:, index] for n, rows in self.ensemble.items()}
        return replace(self, start=start, ensemble=ensemble, **changes)


COLUMNS = (
    "air_c",
    "rh_pct",
    "wind_ms",
    "wind_from_deg",
    "cloud",
    "rain_mm",
    "rain_pct",
    "ghi",
    "dni",
    "dhi",
    "ir_down",
    "gust_ms",
)
MAY_LACK_HOURS = ("rain_mm", "gust_ms")
REQUIRED_COLUMNS = COLUMNS[:4]
ENSEMBLE_COLUMNS = ("air_c", "rh_pct", "wind_ms", "cloud", "rain_mm")
# Limits of what can be weather at all: outside them the file is wrong, not the day.
BOUNDS: dict[str, tuple[float, float]] = {
    "air_c": (-80, 60),
    "rh_pct": (0, 100),
    "wind_ms": (0, 110),
    "wind_from_deg": (0, 360),
    "cloud": (0, 1),
    "rain_mm": (0, 300),
    "rain_pct": (0, 100),
    "ghi": (0, 1500),
    "dni": (0, 1500),
    "dhi": (0, 1000),
    "ir_down": (0, 700),
    "gust_ms": (0, 150),
}
