"""Stage clocks of a drying film (docs/physics.md §7). Stage names follow ASTM D1640 and D5895.

The clock of a stage runs at a rate relative to 25 °C and 50 % RH; the stage is reached when the integral of the rate
equals the product's reference hours.
"""

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import KELVIN, Array, Ints, saturation_pressure
from amber_gable.core.weather.wall.balance import CONVECTION_FLOOR
from amber_gable.core.weather.wall.compiled import Loop
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.core.weather.wall.surface import Climate, forced_convection
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.paint.product import Base, Product

GAS = 8.314
REFERENCE_K = 25.0 + KELVIN
COALESCENCE_J_MOL = 45e3
"""Activation energy of coalescence and cure of waterborne films: an assumption, in the middle of published latices."""
OXIDATION_J_MOL = 55e3
"""Activation energy of alkyd oxidation: an assumption that halves the rate for about 10 °C less."""
SOLVENT_J_MOL = 35e3
"""Activation energy of a solvent's evaporation, about its heat of vaporisation: an assumption."""
_REFERENCE_WIND_MS = 1.0
"""Air of a room in which sheets are written, as wind at 10 m: about half of it moves near a wall (docs/physics.md
§7)."""
_REFERENCE_CONVECTION = forced_convection(_REFERENCE_WIND_MS) + CONVECTION_FLOOR
_REFERENCE_DEFICIT = float(0.5 * saturation_pressure(25.0))
HYDRATION_J_MOL = 40e3
"""Apparent activation energy of Portland cement (ASTM C1074 lets 40 to 45 kJ/mol be used)."""
HYDRATES_FROM_C, CEMENT_DRIES = 5.0, 1.0
"""Least surface temperature at which cement hardens in useful time, and how fast, against the reference room, water
may leave it before it wants for it: assumptions."""
RATE_MAX = 3.0
FORMS_FILM = (Base.WATERBORNE, Base.HYBRID, Base.ELASTOMERIC)
"""Bases whose binder must flow together and does not when it is cold; the others only wait."""
FREEZES_C = 0.0


CLOSES_H, FURNITURE_TIMES = 3.0, 3.0
"""A door or sash closes some hours after it is tack-free (docs/trade.md §11); furniture stands when feet have walked
for twice as long again (24 and 72 h): reference hours, and times the product's own for feet."""
THIN_UM, THICK_UM = 150.0, 400.0
"""Wet films up to the first dry by evaporation from their face, from the second on by diffusion through themselves."""


class DryingStage(StrEnum):
    TOUCH = "touch"
    RAIN_READY = "rain-ready"
    RECOAT = "recoat"
    CLOSE = "close"
    FOOT = "foot"
    FURNITURE = "furniture"

    def hours(self, product: Product, laid: float = 1.0) -> float:
        """Reference hours of the stage at 25 °C, 50 % RH, of a film `laid` times as thick as its sheet has it; infinite
        where nobody walks on it."""
        foot = np.inf if product.foot_h is None else product.foot_h
        return (
            thickness_factor(product, laid)
            * {
                DryingStage.TOUCH: product.touch_h,
                DryingStage.RAIN_READY: product.rain_ready_h,
                DryingStage.RECOAT: product.recoat_h,
                DryingStage.CLOSE: product.touch_h + CLOSES_H,
                DryingStage.FOOT: foot,
                DryingStage.FURNITURE: FURNITURE_TIMES * foot,
            }[self]
        )


def thickness_factor(product: Product, laid: float) -> float:
    """How much longer a film takes that is `laid` times its sheet's wet film: to the power 1 where evaporation governs,
    up to 2 for thick ones (docs/physics.md §7)."""
    power = float(np.interp(product.wet_film_um * laid, [THIN_UM, THICK_UM], [1.0, 2.0]))
    return float(laid**power)


@dataclass(frozen=True)
class StageRates:
    """Clock rates of shape (..., T), 1 at the reference climate, and that of plain evaporation."""

    touch: Array
    through: Array
    evaporation: Array

    def rows(self, index: list[int]) -> "StageRates":
        """Of some faces."""
        return StageRates(self.touch[index], self.through[index], self.evaporation[index])

    def clock(self, stage: DryingStage) -> Array:
        """Hours that the stage's clock has run at each step boundary, (..., T + 1)."""
        return self._touch_clock if stage in (DryingStage.TOUCH, DryingStage.CLOSE) else self._through_clock

    @cached_property
    def _touch_clock(self) -> Array:
        return clocks(self.touch)

    @cached_property
    def _through_clock(self) -> Array:
        return self._touch_clock if self.through is self.touch else clocks(self.through)


def evaporation_rate(surface_c: Array, vapour_pa: Array, convection: Array) -> Array:
    """Waterborne evaporation relative to the reference, between 0 and 3; arrays of any shapes that broadcast."""
    deficit = saturation_pressure(surface_c) - vapour_pa
    return np.asarray(
        np.clip(deficit * convection / (_REFERENCE_DEFICIT * _REFERENCE_CONVECTION), 0.0, RATE_MAX),
    )


def arrhenius(surface_c: npt.ArrayLike, activation_j_mol: float) -> Array:
    """Reaction rate relative to 25 °C."""
    kelvin = np.asarray(surface_c, dtype=float) + KELVIN
    return np.asarray(np.exp(-activation_j_mol / GAS * (1 / kelvin - 1 / REFERENCE_K)))


def alkyd_humidity_brake(rh_pct: Array) -> Array:
    """Oxidation slows mildly above 60 % RH: to half at saturation."""
    return np.asarray(1.0 - 0.5 * np.clip((rh_pct - 60.0) / 40.0, 0.0, 1.0))


def stage_rates(climate: Climate, product: Product) -> StageRates:
    """Rates of the touch-dry and through-dry clocks on every face and step.

    Waterborne and hybrid films: touch = min(r_e, 1.5 r_c), rain-ready and recoat the harmonic mean of r_e and r_c, r_c
    being 0 below the film-forming minimum, for which the sheet's least surface temperature is taken. The others have no
    such minimum; what is laid goes on, more slowly. Alkyd films: oxidation alone. Solvent films (shellac, solvent
    acrylic): temperature and the root of the wind's exchange, whatever the humidity. Silicates set by reaction, like it
    damp, and stand still in frost. Cement renders and washes harden by taking up water: not below 5 °C, and at half the
    pace where the air dries them out.
    """
    steps: Steps = climate.steps
    evaporation = evaporation_rate(climate.surface, steps.vapour, climate.convection)
    if product.base in (Base.SHELLAC, Base.SOLVENT_ACRYLIC):
        wind = np.sqrt(climate.convection / _REFERENCE_CONVECTION)
        solvent = np.clip(arrhenius(climate.surface, SOLVENT_J_MOL) * wind, 0.0, RATE_MAX)
        return StageRates(solvent, solvent, evaporation)
    if product.base is Base.SILICATE:
        damp = 1.0 - 0.3 * np.clip((40.0 - steps.rh) / 20.0, 0.0, 1.0)
        setting = arrhenius(climate.surface, COALESCENCE_J_MOL) * damp
        setting = np.where(climate.surface < FREEZES_C, 0.0, setting)
        return StageRates(setting, setting, evaporation)
    if product.base is Base.CEMENT:
        dried_out = 1.0 - 0.5 * np.clip((evaporation - CEMENT_DRIES) / CEMENT_DRIES, 0.0, 1.0)
        hardening = arrhenius(climate.surface, HYDRATION_J_MOL) * dried_out
        hardening = np.where(climate.surface < HYDRATES_FROM_C, 0.0, hardening)
        return StageRates(hardening, hardening, evaporation)
    if product.base is Base.ALKYD:
        rate = arrhenius(climate.surface, OXIDATION_J_MOL) * alkyd_humidity_brake(steps.rh)
        return StageRates(rate, rate, evaporation)
    coalescence = arrhenius(climate.surface, COALESCENCE_J_MOL)
    coalescence = np.where(climate.surface < product.surface_min_c, 0.0, coalescence)
    total = evaporation + coalescence
    both = np.divide(2 * evaporation * coalescence, total, out=np.zeros_like(total), where=total > 0)
    return StageRates(np.minimum(evaporation, 1.5 * coalescence), both, evaporation)


def clocks(rate: Array) -> Array:
    """Hours run at each step boundary, (..., T + 1), at a rate of shape (..., T)."""
    zero = np.zeros((*rate.shape[:-1], 1))
    return np.asarray(np.concatenate([zero, np.cumsum(rate, axis=-1)], axis=-1) * (STEP_S / 3600.0))


NOT_SOONER = (DryingStage.RAIN_READY, DryingStage.RECOAT, DryingStage.FOOT, DryingStage.FURNITURE)
"""Stages that are not told sooner than the sheet's own hours, unless the school of recoating lets the film tell."""


def stage_at(
    rates: StageRates, stage: DryingStage, product: Product, laid_at: Ints, laid: float = 1.0, *, by_film: bool = False
) -> Array:
    """When a stage is reached, as `reached` gives it, of a film `laid` times as thick as its sheet has it; `by_film`:
    also where that is sooner than the sheet's hours."""
    hours = stage.hours(product, laid)
    return not_sooner(reached(rates.clock(stage), laid_at, hours), laid_at, stage, hours, by_film=by_film)


def not_sooner(at: Array, laid_at: Ints, stage: DryingStage, hours: float, *, by_film: bool) -> Array:
    """Steps (..., S) at which a stage of films laid at (S,) is reached, put off to the sheet's hours at the least."""
    if by_film or stage not in NOT_SOONER:
        return at
    return np.asarray(np.maximum(at, laid_at + hours * 3600 / STEP_S))


def reached(clock: Array, laid_at: Ints, hours: float) -> Array:
    """When a stage is reached, in steps from the series' start (fractional), for films laid at the step boundaries.

    clock (..., T + 1) as `clocks` gives it; laid_at (S,) boundaries 0..T; result (..., S), infinity where the weather
    ends first.
    """
    flat = np.ascontiguousarray(clock.reshape(-1, clock.shape[-1]))
    compiled = _LOOP.code_for(2 * len(flat))
    if compiled is None:
        out = reached_plainly(flat, laid_at, hours)
    else:
        out = np.empty((len(flat), len(laid_at)))
        compiled(flat, np.ascontiguousarray(laid_at), hours, out)
    return out.reshape(*clock.shape[:-1], -1)


def reached_plainly(clock: Array, laid_at: Ints, hours: float) -> Array:
    """The same in numpy for a clock of shape (R, T + 1)."""
    out = np.empty((len(clock), len(laid_at)))
    for i, ticks in enumerate(clock):
        target = ticks[laid_at] + hours
        after = np.searchsorted(ticks, target - 1e-9)
        inside = np.clip(after, 1, len(ticks) - 1)
        before = ticks[inside - 1]
        part = np.divide(
            target - before, ticks[inside] - before, out=np.ones(len(target)), where=ticks[inside] > before
        )
        out[i] = np.where(after < len(ticks), inside - 1 + part, np.inf)
    return out


def _loop(clock: Array, laid_at: Ints, hours: float, out: Array) -> None:
    count = clock.shape[1]
    for r in range(clock.shape[0]):
        after, last = 0, -np.inf
        for s in range(laid_at.size):
            target = clock[r, laid_at[s]] + hours
            if target < last:
                after = 0
            last = target
            while after < count and clock[r, after] < target - 1e-9:
                after += 1
            if after >= count:
                out[r, s] = np.inf
                continue
            inside = max(after, 1)
            before, there = clock[r, inside - 1], clock[r, inside]
            part = (target - before) / (there - before) if there > before else 1.0
            out[r, s] = inside - 1 + part


_LOOP = Loop(_loop, "f2 i1 x w2")
