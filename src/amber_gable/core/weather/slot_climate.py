"""Surfaces of a place through the weather, and the windows judged on them: all a program needs that knows no jobs."""

from dataclasses import dataclass, field
from datetime import datetime, tzinfo

import numpy as np

from amber_gable.core.weather.air import Array
from amber_gable.core.weather.drying import StageRates, stage_rates
from amber_gable.core.weather.limits import Limit
from amber_gable.core.weather.slots import Slots, make_slots
from amber_gable.core.weather.steps import to_steps
from amber_gable.core.weather.surface import Climate, FaceSurface, surface_climate
from amber_gable.core.weather.typical import stretch
from amber_gable.core.weather.windows import Windows, film_windows, preparation_windows
from amber_gable.domain.method import Method
from amber_gable.domain.operation import OperationKind
from amber_gable.domain.product import Product
from amber_gable.domain.weather import WeatherSeries
from amber_gable.domain.working import CrewDay, Policy


@dataclass(frozen=True)
class Place:
    """Where the surfaces stand: degrees north and east, m, and the local time."""

    latitude: float
    longitude: float
    altitude_m: float
    tz: tzinfo


@dataclass(frozen=True)
class SlotClimate:
    """Surfaces through the weather, the slots they are judged in, and the windows judged so far; `kept` holds what
    others worked out from them alone."""

    climate: Climate
    slots: Slots
    _known: dict[tuple[object, ...], Windows] = field(default_factory=dict, repr=False)
    kept: dict[tuple[object, ...], Array] = field(default_factory=dict, repr=False)
    _rates: dict[tuple[int, Product], StageRates] = field(default_factory=dict, repr=False)

    def coat(
        self,
        row: int,
        product: Product,
        method: Method,
        policy: Policy,
        crew: CrewDay,
        moisture_pct: float | None,
        moisture: Limit | None = None,
    ) -> Windows:
        """Windows (1, S) for laying `product` on the surface of that row."""
        key = (row, product, method, policy, crew, moisture_pct, moisture)
        if key not in self._known:
            reading = np.array([np.nan if moisture_pct is None else moisture_pct])
            self._known[key] = film_windows(
                self.climate.rows([row]), self.slots, product, method, policy, crew, reading, moisture
            )
        return self._known[key]

    def drying(self, row: int, product: Product) -> StageRates:
        """How fast a film of `product` dries on the surface of that row at every step, (1, T)."""
        key = (row, product)
        if key not in self._rates:
            self._rates[key] = stage_rates(self.climate.rows([row]), product)
        return self._rates[key]

    def preparation(self, row: int, kind: OperationKind, policy: Policy, crew: CrewDay) -> Windows:
        """Windows (1, S) for a step that lays no film."""
        key = (row, kind, policy, crew)
        if key not in self._known:
            self._known[key] = preparation_windows(self.climate.rows([row]), self.slots, kind, policy, crew)
        return self._known[key]


def slot_climate(
    place: Place,
    surfaces: tuple[FaceSurface, ...],
    series: WeatherSeries,
    begin: datetime,
    days: int,
    tz: tzinfo | None = None,
) -> SlotClimate:
    """Run the weather over the surfaces for `days` days from the local date of `begin`.

    Raises NoClimate when the weather does not cover the days.
    """
    zone_info = tz or place.tz
    part = stretch(series, begin.astimezone(zone_info).date(), days)
    steps = to_steps(part, place.latitude, place.longitude, place.altitude_m)
    return SlotClimate(surface_climate(steps, surfaces), make_slots(steps, begin, days, zone_info))
