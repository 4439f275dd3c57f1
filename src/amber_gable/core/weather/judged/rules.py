"""The ten weather rules of the trade (docs/trade.md §10), each with value, limit and headroom for every face and
slot."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.film.drying import FORMS_FILM
from amber_gable.core.weather.film.limits import Limit
from amber_gable.core.weather.judged.extremes import greatest_over, least_over
from amber_gable.core.weather.judged.rain_chance import chance_in, chance_over
from amber_gable.core.weather.judged.slots import Slots, greatest, least
from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.core.weather.outdoors.driving_rain import rain_finds
from amber_gable.core.weather.wall.steps import RAIN_MEASURABLE, Steps
from amber_gable.core.weather.wall.surface import Climate
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.paint.product import Base
from amber_gable.domain.work.operation import OperationKind
from amber_gable.domain.work.working import CrewDay, Policy

WET_FILM = 0.010
"""Water film, kg/m², above which a surface counts as wet or a fresh film as dewed."""
RAIN_ON_FACE = 0.02
"""mm/h from which on drops mark a fresh film: about what a wall catches of the least rain that is measured in a
light wind (0.26 × 2/9 × 3 m/s × 0.1^(8/9)). An assumption."""
DIRECT_SUN = 120.0
WARM_AIR, WARM_SURFACE = 18.0, 32.0
DAYLIGHT_MARGIN = 0.5


@dataclass(frozen=True)
class WeatherRule:
    """A one-sided test. `number` is the rule's place in docs/trade.md §10; `least` says the value must not fall below
    the limit, otherwise it must not rise above it."""

    id: str
    number: int
    letter: str
    label: str
    unit: str
    least: bool
    helps: str


_RULES = [WeatherRule(*row) for row in (
    ("air-low", 1, "C", "Air, lowest while coating", "°C", True,
     "a paint for the cold (school ‘cold weeks’), or a warmer hour"),
    ("air-high", 1, "H", "Air, highest while coating", "°C", False, "a cooler hour"),
    ("surface-low", 2, "C", "Surface, lowest while coating", "°C", True,
     "a paint for the cold (school ‘cold weeks’), or a warmer hour; waiting until the sun has warmed the face"),
    ("surface-high", 2, "H", "Surface, highest while coating", "°C", False,
     "following the shade: another face first"),
    ("heats-up", 2, "H", "Surface, highest until dry to touch", "°C", False, "a cooler hour"),
    ("hold", 3, "C", "Surface, lowest until the film has formed", "°C", True, "an earlier last stroke"),
    ("spread", 4, "D", "Surface above dew point, least until dry to touch", "K", True, "an earlier last stroke"),
    ("condensation", 4, "D", "Dew on the fresh film", "g/m²", False, "a product that dries faster"),
    ("dry-surface", 5, "D", "Water on the surface", "g/m²", False, "toweling it dry and half an hour’s wait"),
    ("substrate", 5, "M", "Moisture of the substrate, with its doubt", "%", False,
     "more dry days, then a new reading"),
    ("before", 5, "?", "What fell on it before the weather begins", "", False,
     "a plastic sheet taped on overnight, or weather that reaches further back"),
    ("humidity", 6, "U", "Relative humidity, highest while coating", "%", False, "a drier hour"),
    ("rain", 7, "R", "Chance that it rains until rain-ready", "%", False,
     "a product that is rain-ready sooner, or a drier day"),
    ("rain-depth", 7, "R", "Rain, heaviest until rain-ready", "mm/h", False,
     "a product that is rain-ready sooner, or a drier day"),
    ("rain-face", 7, "R", "Rain on the face, heaviest until rain-ready", "mm/h", False,
     "a product that is rain-ready sooner, or a drier day"),
    ("wind", 8, "W", "Wind, strongest while coating, by its gusts too", "m/s", False,
     "a calmer hour, or brush instead of spray"),
    ("sun", 9, "H", "Direct sun on the face", "W/m²", False,
     "following the shade: another face first; the school ‘temperature decides’"),
    ("daylight", 10, "N", "Inside daylight", "h", True, "an hour with daylight"),
    ("working-day", 10, "N", "Inside the crew's day", "h", True, "a longer crew day"),
    ("horizon", 0, "?", "Weather known until the coat is safe", "h", True,
     "a forecast that reaches further, or a file that tells its rain"),
)]  # fmt: skip
RULES = {rule.id: rule for rule in _RULES}


def helps_against(letter: str) -> str:
    """What helps where a letter stops the work: what helps with each of its rules."""
    each = [words for rule in _RULES if rule.letter == letter for words in rule.helps.split("; ")]
    return "; ".join(dict.fromkeys(each))


@dataclass(frozen=True)
class Check:
    """A rule applied. value, limit of shape (..., S); an infinite limit means the rule sets none there. `source` says
    where the limit comes from."""

    rule: WeatherRule
    value: Array
    limit: Array
    source: str = ""

    @property
    def headroom(self) -> Array:
        """Distance to the limit, positive where the rule holds, shape (..., S)."""
        room = self.value - self.limit if self.rule.least else self.limit - self.value
        return np.asarray(room)

    @cached_property
    def stops(self) -> npt.NDArray[np.bool_]:
        """Where the rule does not hold, shape (..., S)."""
        return np.asarray(self.headroom < 0)


@dataclass(frozen=True)
class Drying:
    """When stages are reached by a coat laid at each slot's end: steps from the series' start (..., S), inf unknown."""

    touch: Array
    rain_ready: Array
    recoat: Array


def _check(rule_id: str, value: Array, limit: Array | float | Limit, lead: tuple[int, ...]) -> Check:
    rule = RULES[rule_id]
    shape = (*lead, np.shape(value)[-1])
    figure, source = (limit.value, limit.source) if isinstance(limit, Limit) else (limit, "")
    return Check(rule, np.broadcast_to(value, shape), np.broadcast_to(np.asarray(figure, dtype=float), shape), source)


def _boundary(at: Array, count: int) -> Ints:
    return np.asarray(np.minimum(np.ceil(at), count), dtype=np.int64)


def film_checks(
    climate: Climate,
    slots: Slots,
    limits: Mapping[str, Limit],
    drying: Drying,
    policy: Policy,
    crew: CrewDay,
    damp: Array | None,
    base: Base,
) -> list[Check]:
    """All ten rules for laying a coat on that `base` with these `limits` in each slot. What would spoil its film
    (weather/film/film_events.py) is a rule under every school. damp (F, S) or (..., S): moisture of the
    substrate %, NaN where nobody knows it, infinite where only what fell before the weather that is known
    could tell."""
    steps, lead, count = climate.steps, climate.lead, len(climate.steps)
    a, b = slots.first, slots.end
    touch, ready = _boundary(drying.touch, count), _boundary(drying.rain_ready, count)
    held_until = np.maximum(drying.touch, b + limits["hold"].value * 3600 / STEP_S)
    if base in FORMS_FILM:
        # A binder that has to flow together does not make up for a pause in the cold.
        held_until = np.maximum(held_until, drying.rain_ready)
    hold_end, latest = _boundary(held_until, count), np.maximum(held_until, drying.rain_ready)
    dew_end = ready if policy.dew == "rain-ready" else touch
    air_high, surface_high = _in_slots(steps, "air", slots, greatest), greatest(climate.surface, slots)
    beam = greatest(climate.poa_direct, slots)
    low = limits["surface_min"]
    until_formed = ", and until rain-ready" if base in FORMS_FILM else ""
    least_h = f"held {limits['hold'].value:g} h ({limits['hold'].source}){until_formed}"
    held = Limit(low.value, low.unit, f"{low.source}, {least_h}")
    checks = [
        _check("air-low", _in_slots(steps, "air", slots, least), limits["air_min"], lead),
        _check("air-high", air_high, limits["air_max"], lead),
        _check("surface-low", least(climate.surface, slots), low, lead),
        _check("surface-high", surface_high, limits["surface_max"], lead),
        _check("hold", least_over(climate.surface, b, hold_end), held, lead),
        _check("spread", least_over(climate.dew_margin, a, touch), limits["dew_margin"], lead),
        _check("condensation", 1000 * greatest_over(climate.water_film, b, dew_end), 1000 * WET_FILM, lead),
        _check("dry-surface", 1000 * greatest(climate.water_film, slots), 1000 * WET_FILM, lead),
        _check("humidity", _in_slots(steps, "rh", slots, greatest), limits["humidity"], lead),
        _check("sun", beam, _sun_limit(policy.sun, air_high, surface_high), lead),
        _check("horizon", _known_for(climate, a, drying.rain_ready, latest), 0.0, lead),
        *(_rain_on_face(climate, a, b, ready, policy) if policy.rain == "face" else _rain(climate, a, ready, policy)),
        *_presence(climate, slots, limits["wind"], crew),
    ]
    if policy.sun == "temperature" or base is Base.ALKYD:
        # Who keeps coats out of the sun relies on the shade; who lets temperature decide asks it of the film too. An
        # oil film that gets hot while it is wet wrinkles under every school.
        hottest = limits["surface_max"]
        why = "an oil film wrinkles" if base is Base.ALKYD else "sun school: temperature decides"
        until_dry = Limit(hottest.value, hottest.unit, f"{hottest.source}; {why}")
        checks.append(_check("heats-up", greatest_over(climate.surface, b, touch), until_dry, lead))
    if damp is not None and not np.isnan(damp).all() and "moisture" in limits:
        unknown = np.isposinf(damp)
        value = np.where(np.isnan(damp) | unknown, -np.inf, damp)

        def of_all(given: Array) -> Array:
            return given.reshape(*given.shape[:1], *(1,) * (len(lead) + 1 - given.ndim), *given.shape[1:])

        checks.append(_check("substrate", of_all(value), limits["moisture"], lead))
        if unknown.any():
            checks.append(_check("before", of_all(unknown.astype(float)), 0.5, lead))
    return checks


_ANY_SURFACE = (OperationKind.WASH, OperationKind.PROTECT, OperationKind.FIT, OperationKind.CLEAN)


def preparation_checks(
    climate: Climate, slots: Slots, kind: OperationKind, policy: Policy, crew: CrewDay
) -> list[Check]:
    """Rules for steps that lay no film: washing wants no frost, dry work a dry surface, covering and taking down
    neither; all want light and no rain."""
    a, b = slots.first, slots.end
    lead = climate.lead
    checks = [
        _check(
            "air-low", _in_slots(climate.steps, "air", slots, least), 5.0 if kind is OperationKind.CAULK else 2.0, lead
        ),
        *_rain(climate, a, b, policy),
        *_presence(climate, slots, policy.ladder_wind_max, crew),
    ]
    if climate.steps.rain_known is not None:
        checks.append(_check("horizon", _known_for(climate, a, b, b), 0.0, lead))
    if kind not in _ANY_SURFACE:
        checks.append(_check("dry-surface", 1000 * greatest(climate.water_film, slots), 1000 * WET_FILM, lead))
    return checks


def _sun_limit(school: str, air: Array, surface: Array) -> Array:
    """Strongest beam allowed on the face, W/m², shape (..., S); infinite where the school sets no limit."""
    if school == "temperature":
        return np.full(surface.shape, np.inf)
    if school == "follow-shade":
        return np.full(surface.shape, DIRECT_SUN)
    return np.where((air >= WARM_AIR) | (surface > WARM_SURFACE), DIRECT_SUN, np.inf)


def _in_slots(steps: Steps, name: str, slots: Slots, over: Callable[[Array, Slots], Array]) -> Array:
    """A quantity of the air over each slot, worked out once for all surfaces and coats."""
    key = (name, over.__name__, int(slots.first[0]), len(slots), slots.length_s)
    if key not in steps.in_slots:
        steps.in_slots[key] = over(getattr(steps, name), slots)
    return steps.in_slots[key]


def _known_for(climate: Climate, a: Ints, rain_until: Array | Ints, until: Array | Ints) -> Array:
    """Hours for which the weather is known beyond what must be: its rain until one step, all of it until another."""
    rain = climate.steps.next_unknown[..., a] - np.minimum(rain_until, 1e6)
    return np.asarray(np.minimum(len(climate.steps) - np.minimum(until, 1e6), rain) * STEP_S / 3600)


def _rain(climate: Climate, a: Ints, end: Ints, policy: Policy) -> Iterator[Check]:
    """Rain by probability and by depth, as far as the source gives them: neither excuses the other."""
    lead = climate.lead
    chance = _chance(climate.steps, a, end)
    if chance is not None:
        yield _check("rain", chance, policy.rain_probability_max_pct, lead)
    if climate.steps.rain is not None:
        yield _check("rain-depth", greatest_over(climate.steps.rain, a, end), RAIN_MEASURABLE - 1e-9, lead)


def _chance(steps: Steps, a: Ints, end: Ints, finds: npt.NDArray[np.bool_] | None = None) -> Array | None:
    """% that it rains in those steps, and where it would find each face (..., T) if that is asked; None where nothing
    tells."""
    if steps.wet_futures is not None:
        wet = steps.wet_futures
        return chance_in(wet if finds is None else wet[:, None, :] & finds, a, end)
    if steps.rain_pct is None:
        return None
    pct = steps.rain_pct if finds is None else np.ascontiguousarray(np.where(finds, steps.rain_pct, 0.0))
    return chance_over(pct, a, end)


def _rain_on_face(climate: Climate, a: Ints, b: Ints, end: Ints, policy: Policy) -> Iterator[Check]:
    """The crew stops for rain anywhere; the film it has laid only for what reaches its face."""
    steps, lead = climate.steps, climate.lead
    for_crew, for_film = _chance(steps, a, b), _chance(steps, b, end, rain_finds(climate))
    if for_crew is not None and for_film is not None:
        chance = np.maximum(for_crew, for_film)
        yield _check("rain", chance, policy.rain_probability_max_pct, lead)
    if steps.rain is not None:
        yield _check("rain-depth", greatest_over(steps.rain, a, b), RAIN_MEASURABLE - 1e-9, lead)
        yield _check("rain-face", greatest_over(climate.wall_rain, b, end), RAIN_ON_FACE - 1e-9, lead)


def _presence(climate: Climate, slots: Slots, wind_max: float | Limit, crew: CrewDay) -> Iterator[Check]:
    """Wind, daylight and the crew's day: what any work outside needs. Under cover lamps do for daylight."""
    lead = climate.lead
    yield _check("wind", _in_slots(climate.steps, "wind_at_work", slots, greatest), wind_max, lead)
    if not climate.faces[0].under_cover:
        yield _check("daylight", slots.daylight, DAYLIGHT_MARGIN - 1e-6, lead)
    inside = np.minimum(slots.hours - crew.first_h, crew.last_h - slots.hours - slots.length_h)
    yield _check("working-day", inside, -1e-6, lead)
