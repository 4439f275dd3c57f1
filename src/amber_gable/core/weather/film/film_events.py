"""What spoils a film that was laid at a moment, when, and how badly (docs/physics.md §7)."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.film.drying import FORMS_FILM, FREEZES_C, DryingStage, StageRates
from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.judged.rules import RAIN_ON_FACE, WET_FILM
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.paint.product import Base, Product
from amber_gable.domain.weather.severity import Severity

DUST_WIND = 8.0
"""m/s from which on grit flies that sticks to a film: an assumption, a fresh breeze."""


@dataclass(frozen=True)
class FilmEvent:
    """From epoch second `at` to `until`; `value` in `unit` is the worst of it. `share`: how far to its stage the film
    had come when it began, 0-1."""

    kind: str
    at: float
    until: float
    value: float
    unit: str
    severity: Severity
    share: float
    words: str


@dataclass(frozen=True)
class _Kind:
    """stage: until when it can happen; `worst` over the values that are past the limit."""

    name: str
    stage: DryingStage
    unit: str
    worst: Callable[[Array], float]


_RAIN = _Kind("rain", DryingStage.RAIN_READY, "mm", lambda v: float(v.sum() * STEP_S / 3600))
_DEW = _Kind("dew", DryingStage.RAIN_READY, "g/m²", lambda v: float(v.max()))
_COLD = _Kind("cold", DryingStage.TOUCH, "°C", lambda v: float(v.min()))
_COLD_FORMING = _Kind("cold", DryingStage.RAIN_READY, "°C", lambda v: float(v.min()))
"""Of what must flow together: a pause in the cold is not made up for."""
_FROST = _Kind("frost", DryingStage.RAIN_READY, "°C", lambda v: float(v.min()))
_HEAT = _Kind("heat", DryingStage.TOUCH, "°C", lambda v: float(v.max()))
_DUST = _Kind("dust", DryingStage.TOUCH, "m/s", lambda v: float(v.max()))


def film_events(
    climate: Climate, product: Product, rates: StageRates, limits: Mapping[str, Limit], laid_at: int
) -> list[FilmEvent]:
    """What befalls a film on the first face of one weather, laid at that step boundary, in order of time."""
    steps = climate.steps
    surface, falls = climate.surface[0], climate.wall_rain[0]
    # Water that stands where none falls has condensed; what rain left is told of as rain.
    rained = np.convolve(falls > 0, np.ones(6))[: len(falls)] > 0
    dew = np.where(rained, 0.0, 1000 * climate.water_film[0])
    cold = _COLD_FORMING if product.base in FORMS_FILM else _COLD
    found = [
        (_RAIN, falls, falls >= RAIN_ON_FACE),
        (_DEW, dew, dew > 1000 * WET_FILM),
        (cold, surface, (surface < limits["surface_min"].value) & (surface >= FREEZES_C)),
        (_FROST, surface, surface < FREEZES_C),
        (_HEAT, surface, surface > limits["surface_max"].value),
        (_DUST, steps.wind, steps.wind > DUST_WIND),
    ]
    events = [
        e for kind, values, past in found for e in _events(kind, values, past, steps.start, product, rates, laid_at)
    ]
    return sorted(events, key=lambda e: e.at)


def _events(
    kind: _Kind,
    values: Array,
    past: npt.NDArray[np.bool_],
    start: int,
    product: Product,
    rates: StageRates,
    laid_at: int,
) -> Iterator[FilmEvent]:
    """One for the whole time in which it happens before its stage: when first, until when, how bad at worst."""
    clock, hours = rates.clock(kind.stage)[0], kind.stage.hours(product)
    end = int(np.searchsorted(clock, clock[laid_at] + hours - 1e-9))
    at = laid_at + np.flatnonzero(past[laid_at : min(end, len(past))])
    if not at.size:
        return
    worst = kind.worst(values[at])
    share = float(np.clip((clock[at[0]] - clock[laid_at]) / hours, 0.0, 1.0))
    severity, words = _judged(kind, product, share, worst, len(at) * STEP_S / 3600)
    yield FilmEvent(
        kind.name, start + STEP_S * float(at[0]), start + STEP_S * float(at[-1] + 1), worst, kind.unit, severity, share,
        words,
    )  # fmt: skip


def _judged(kind: _Kind, product: Product, share: float, worst: float, lasts_h: float) -> tuple[Severity, str]:
    """How bad, by how far the film had come and what carries it."""
    waterborne = product.base in FORMS_FILM
    if kind is _RAIN:
        if share < 0.35:
            return Severity.SPOILS, "washes it off or runs it down"
        return (Severity.HARMS, "spots and streaks it") if share < 0.75 else (Severity.MARKS, "may spot it")
    if kind is _DEW:
        if waterborne and share < 0.5:
            return Severity.HARMS, "draws streaks of soap out of it and dulls it"
        return Severity.MARKS, "may dull its gloss"
    if kind is _FROST:
        return (Severity.SPOILS, "breaks the film before it has formed") if waterborne else (Severity.MARKS, "stops it")
    if kind is _COLD:
        return Severity.MARKS, "slows it; dust and insects have longer"
    if kind is _COLD_FORMING:
        return (Severity.SPOILS if lasts_h >= 1.0 else Severity.HARMS), "keeps the film from flowing together"
    if kind is _HEAT and product.base is Base.ALKYD:
        return Severity.SPOILS, "skins it over while it is wet below: wrinkles and blisters"
    if kind is _HEAT:
        return Severity.HARMS, "skins it over: lap marks, blisters"
    return Severity.MARKS, "blows dust onto it"
