"""Surfaces of a place through the weather, and the windows judged on them: all a program needs that knows no jobs."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime, tzinfo

import numpy as np

from amber_gable.core.weather.film.drying import StageRates, stage_rates
from amber_gable.core.weather.judged.slots import Slots, make_slots
from amber_gable.core.weather.judged.windows import Windows, film_windows, preparation_windows
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.outdoors.typical import at_place, past, stretch
from amber_gable.core.weather.wall.damp import Damp
from amber_gable.core.weather.wall.steps import Steps, members_to_steps, to_steps
from amber_gable.core.weather.wall.surface import Climate, FaceSurface, WaterEvent, surface_climate
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.progress import Progress, unseen
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.operation import OperationKind
from amber_gable.domain.work.working import CrewDay, Policy

AT_ONCE = 32
"""Surfaces computed in one go: long enough to be quick, short enough to be stopped."""


@dataclass(frozen=True)
class Place:
    """Where the surfaces stand: degrees north and east, m, and the local time."""

    latitude: float
    longitude: float
    altitude_m: float
    tz: tzinfo


@dataclass(frozen=True)
class PlaceWeather:
    """The weather of a place, or that of the members of a forecast, and the slots in which work is judged there."""

    steps: Steps
    slots: Slots

    @property
    def nbytes(self) -> int:
        """Memory it holds, about."""
        lead = self.steps.lead
        parts = [self.steps, self.steps.sun, self.steps.light, *([] if lead is None else [lead, lead.sun, lead.light])]
        behind = [] if lead is None else list(lead.climates.values())
        return sum(a.nbytes for part in (*parts, *behind) for a in _arrays(part))


@dataclass(frozen=True)
class SurfaceClimate:
    """One surface through the weather of its place, and the windows judged on it so far; `kept` holds what others
    worked out from it alone. Nothing in it knows a job: jobs with the same surface share it."""

    climate: Climate
    slots: Slots
    kept: dict[tuple[object, ...], Array] = field(default_factory=dict, repr=False)
    _known: dict[tuple[object, ...], Windows] = field(default_factory=dict, repr=False)
    _rates: dict[Product, StageRates] = field(default_factory=dict, repr=False)
    _damp: dict[Damp, Array | None] = field(default_factory=dict, repr=False)

    def coat(
        self,
        product: Product,
        method: Method,
        policy: Policy,
        crew: CrewDay,
        damp: Damp | None = None,
        below: "SurfaceClimate | None" = None,
    ) -> Windows:
        """Windows (1, S) for laying `product`. `below`: the surface as it lies until then, in its own colour, whose
        water counts (None: this one)."""
        below = below or self
        key = (product, method, policy, crew, damp, below.climate.faces)
        if key not in self._known:
            moisture, limit = (None, None) if damp is None else (below.damp_pct(damp), damp.limit)
            self._known[key] = film_windows(self.climate, self.slots, product, method, policy, crew, moisture, limit)
        return self._known[key]

    def damp_pct(self, damp: Damp) -> Array | None:
        """How wet the substrate is at every step, (1, T), as a coat is to judge it; None for what holds no water."""
        if damp not in self._damp:
            self._damp[damp] = damp.pct(self.climate)
        return self._damp[damp]

    def preparation(self, kind: OperationKind, policy: Policy, crew: CrewDay) -> Windows:
        """Windows (1, S) for a step that lays no film."""
        key = (kind, policy, crew)
        if key not in self._known:
            self._known[key] = preparation_windows(self.climate, self.slots, kind, policy, crew)
        return self._known[key]

    def drying(self, product: Product) -> StageRates:
        """How fast a film of `product` dries at every step, (1, T)."""
        if product not in self._rates:
            self._rates[product] = stage_rates(self.climate, product)
        return self._rates[product]

    @property
    def nbytes(self) -> int:
        """Memory it holds, about; it grows with what is asked of it."""
        rates = sum(5 * r.touch.nbytes for r in list(self._rates.values()))
        windows = sum(w.nbytes for w in list(self._known.values()))
        damp = sum(a.nbytes for a in list(self._damp.values()) if a is not None)
        return sum(a.nbytes for a in _arrays(self.climate)) + rates + windows + _size(self.kept) + damp


def _arrays(of: object) -> list[np.ndarray]:
    return [a for a in vars(of).values() if isinstance(a, np.ndarray)]


def _size(arrays: dict[tuple[object, ...], Array]) -> int:
    return sum(a.nbytes for a in list(arrays.values()))


def place_weather(
    place: Place,
    series: WeatherSeries | Sequence[WeatherSeries],
    begin: datetime,
    days: int,
    tz: tzinfo | None = None,
    slot_s: int = SLOT_S,
) -> PlaceWeather:
    """The weather of a place for `days` days from the local date of `begin`; of several series, that of members.

    Raises NoClimate when the weather does not cover the days.
    """
    zone, site = tz or place.tz, (place.latitude, place.longitude, place.altitude_m)
    first = begin.astimezone(zone).date()
    each = [series] if isinstance(series, WeatherSeries) else series
    there = [at_place(one, place.longitude, zone) for one in each]
    pieces = [stretch(one, first, days) for one in there]
    steps = to_steps(pieces[0], *site) if isinstance(series, WeatherSeries) else members_to_steps(pieces, *site)
    steps = replace(steps, lead=lead_steps(place, there[0], first, steps.start))
    return PlaceWeather(steps, make_slots(steps, begin, days, zone, slot_s))


def lead_steps(place: Place, there: WeatherSeries, first: date, until: int) -> Steps | None:
    """The weeks before a stretch that begins at epoch second `until`; None where they are not known, tell nothing of
    rain, or do not reach it. `there`: a series as it is at the place."""
    before = past(there, first)
    if before is None or before.end != until or (before.rain_mm is None and before.rain_pct is None):
        return None
    return to_steps(before, place.latitude, place.longitude, place.altitude_m)


def surfaces_through(
    weather: PlaceWeather,
    surfaces: Sequence[FaceSurface],
    progress: Progress = unseen,
    water: Sequence[WaterEvent] = (),
) -> list[SurfaceClimate]:
    """Each surface through the weather of its place, in the order given; `water` is done to all of them."""
    found: dict[int, SurfaceClimate] = {}
    for place in ((False, False), (True, False), (True, True)):
        mine = [n for n, s in enumerate(surfaces) if (s.under_cover, s.heated) == place]
        for first in range(0, len(mine), AT_ONCE):
            progress(len(found) / len(surfaces), f"{len(found)} of {len(surfaces)} surfaces")
            some = mine[first : first + AT_ONCE]
            climate = surface_climate(weather.steps, tuple(surfaces[n] for n in some), water)
            found |= {n: SurfaceClimate(climate.rows([i]), weather.slots) for i, n in enumerate(some)}
    return [found[n] for n in range(len(surfaces))]
