"""When a coat may be laid: windows per face, product and method, slot by slot."""

from dataclasses import dataclass
from datetime import datetime
from functools import cached_property

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.film.drying import DryingStage, stage_at, stage_rates
from amber_gable.core.weather.film.limits import Limit, coat_limits
from amber_gable.core.weather.judged import slots as slots_
from amber_gable.core.weather.judged.rules import Check, Drying, film_checks, preparation_checks
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Base, Product
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.work.operation import OperationKind
from amber_gable.domain.work.working import CrewDay, Policy

OPEN_TIME_MIN = {
    Base.WATERBORNE: 12.0,
    Base.HYBRID: 15.0,
    Base.ALKYD: 30.0,
    Base.SOLVENT_ACRYLIC: 8.0,
    Base.SHELLAC: 3.0,
    Base.SILICATE: 10.0,
    Base.ELASTOMERIC: 12.0,
    Base.CEMENT: 15.0,
}
"""Minutes the edge of a fresh section stays workable at 25 °C and 50 % RH (docs/physics.md §7)."""


OF_THE_WALL = ("substrate", "before")
"""Rules of what the wall holds, judged with the weather and no part of it."""


@dataclass(frozen=True)
class Windows:
    """Verdicts of shape (F, S), or (F, M, S) in the weather of M members, for one product and method, with the checks
    behind them.

    touch_at, rain_ready_at, recoat_at: epoch seconds for a coat whose last stroke is at the slot's end; inf where the
    weather ends first. wet_edge_min: minutes. All None for work that lays no film.
    """

    slots: Slots
    checks: tuple[Check, ...]
    ok: npt.NDArray[np.bool_]
    touch_at: Array | None = None
    rain_ready_at: Array | None = None
    recoat_at: Array | None = None
    wet_edge_min: Array | None = None

    @property
    def nbytes(self) -> int:
        """Memory it holds, about; a limit that is the same everywhere is one figure."""
        times = (self.touch_at, self.rain_ready_at, self.recoat_at, self.wet_edge_min)
        figures = [*(c.value for c in self.checks), *(a for a in times if a is not None)]
        return sum(a.nbytes for a in figures if all(a.strides)) + (len(self.checks) + 8) * self.ok.nbytes

    def letters(self, face: int, slot: int) -> list[str]:
        """What stops this slot, in showing order."""
        stopped = {c.rule.letter for c in self.checks if c.stops[face, slot]}
        return [letter for letter in LETTERS if letter in stopped]

    @cached_property
    def weather_ok(self) -> npt.NDArray[np.bool_]:
        """(F, S): by the weather alone, leaving out the rules of what the wall holds."""
        return np.asarray(~np.any([c.stops for c in self.checks if c.rule.id not in OF_THE_WALL], axis=0))

    def first_letters(self) -> npt.NDArray[np.str_]:
        """(F, S): the letter to show for each slot, '' where work may go on."""
        return self._first_letters

    @cached_property
    def _first_letters(self) -> npt.NDArray[np.str_]:
        out = np.full(self.ok.shape, "", dtype="<U1")
        for letter in reversed(LETTERS):
            for check in self.checks:
                if check.rule.letter == letter:
                    out[check.stops] = letter
        return out

    def days(self, face: int) -> list["Day"]:
        """Workable hours of each local day: the stretches of them, and of these the first stroke and the last."""
        out = []
        for number, date in enumerate(self.slots.dates):
            open_ = np.flatnonzero(self.ok[face] & (self.slots.day == number))
            runs = [run for run in np.split(open_, np.flatnonzero(np.diff(open_) > 1) + 1) if len(run)]
            times = tuple((self.slots.time(int(run[0])), self.slots.time(int(run[-1]) + 1)) for run in runs)
            first, last = (times[0][0], times[-1][1]) if times else (None, None)
            out.append(Day(date, len(open_) * self.slots.length_h, first, last, times))
        return out


@dataclass(frozen=True)
class Day:
    date: str
    workable_h: float
    first: datetime | None
    last_stroke: datetime | None
    stretches: tuple[tuple[datetime, datetime], ...]


def film_windows(
    climate: Climate,
    slots: Slots,
    product: Product,
    method: Method,
    policy: Policy,
    crew: CrewDay,
    moisture_pct: Array | None = None,
    moisture: Limit | None = None,
    laid: float = 1.0,
) -> Windows:
    """Judge every slot for laying `product`, `laid` times as thick as its sheet has it. moisture_pct: how wet the
    substrate is, a figure that lasts for each face, (F,), NaN where there is none, or one for each step, (..., T);
    `moisture` what limits it; without a limit it stops nothing."""
    rates = stage_rates(climate, product)
    stages = (DryingStage.TOUCH, DryingStage.RAIN_READY, DryingStage.RECOAT)
    drying = Drying(*(stage_at(rates, s, product, slots.end, laid, by_film=policy.by_film) for s in stages))
    damp = None if moisture_pct is None else _in_slots(moisture_pct, slots)
    limits = coat_limits(product, policy, moisture, sprays=method.sprays)
    checks = film_checks(climate, slots, limits, drying, policy, crew, damp, product.base)
    start = climate.steps.start
    wet_edge = OPEN_TIME_MIN[product.base] / np.maximum(slots_.mean(rates.evaporation, slots), 0.1)
    return Windows(
        slots=slots,
        checks=tuple(checks),
        ok=~np.any([c.stops for c in checks], axis=0),
        touch_at=start + STEP_S * drying.touch,
        rain_ready_at=start + STEP_S * drying.rain_ready,
        recoat_at=start + STEP_S * drying.recoat,
        wet_edge_min=wet_edge,
    )


def _in_slots(moisture_pct: Array, slots: Slots) -> Array:
    """The wettest of each slot, (..., S)."""
    if moisture_pct.ndim == 1:
        return np.repeat(moisture_pct[:, None], len(slots), axis=1)
    return slots_.greatest(moisture_pct, slots)


def preparation_windows(climate: Climate, slots: Slots, kind: OperationKind, policy: Policy, crew: CrewDay) -> Windows:
    """Judge every slot for washing, scraping, sanding, repairing, caulking or masking."""
    checks = preparation_checks(climate, slots, kind, policy, crew)
    return Windows(slots=slots, checks=tuple(checks), ok=~np.any([c.stops for c in checks], axis=0))


@dataclass(frozen=True)
class SlotReadings:
    """Means over each slot, shape (F, S): °C, %, K, W/m² and the thickest water film in g/m²."""

    air: Array
    rh: Array
    dew: Array
    surface: Array
    dew_margin: Array
    poa_direct: Array
    water_film: Array


def slot_readings(climate: Climate, slots: Slots) -> SlotReadings:
    """What instruments held to the face would show in each slot."""
    shape = (len(climate.faces), len(slots))
    return SlotReadings(
        air=np.broadcast_to(slots_.mean(climate.steps.air, slots), shape),
        rh=np.broadcast_to(slots_.mean(climate.steps.rh, slots), shape),
        dew=np.broadcast_to(slots_.mean(climate.steps.dew, slots), shape),
        surface=slots_.mean(climate.surface, slots),
        dew_margin=slots_.mean(climate.dew_margin, slots),
        poa_direct=slots_.mean(climate.poa_direct, slots),
        water_film=1000 * slots_.greatest(climate.water_film, slots),
    )
