"""What would help a coat that the weather keeps away, each as hours gained, computed by doing it: the weather on the
face is changed as a towel, a cloth or a tent would change it, and every rule is judged anew."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

import numpy as np

from amber_gable.core.weather.futures.members import Coat, wetness
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import film_windows
from amber_gable.core.weather.wall.slot_climate import PlaceWeather
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.core.weather.wall.surface import FaceSurface, WaterEvent, surface_climate
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.working import CrewDay, Policy

SMALL = frozenset({"door", "trim", "railing", "gutter", "floor"})
"""Tags of what a towel dries in reasonable time."""
CLOTH_LETS = 0.3
"""Light that shading cloth lets through, all of it scattered: an assumption, of the usual 70 % net."""
TENT_WIND, TENT_LIGHT, HEATER_K = 0.2, 0.35, 10.0
"""Of the wind and the light outside what is felt behind sheeting, and what a heater adds: assumptions. Burners that
give off water and fumes are not for it; the vapour stays as it was outside."""


@dataclass(frozen=True)
class Help:
    """hours: workable with it, of the days looked at; gained against the coat as it was asked for."""

    kind: str
    words: str
    hours: float
    gained: float


def helps(
    weather: PlaceWeather,
    coat: Coat,
    policy: Policy,
    crew: CrewDay,
    products: Iterable[Product] = (),
    methods: Iterable[Method] = (),
    faces: Sequence[tuple[str, FaceSurface]] = (),
    days: int = 7,
    since: float = -np.inf,
) -> list[Help]:
    """Everything that would gain at least a slot in the first `days`, from epoch second `since` on, most first; waiting
    for the days after them last.

    products, methods: others that may be used on the surface; faces: others of the house by name.
    """
    slots = weather.slots
    to_come = slots.start + slots.length_s * np.arange(len(slots)) >= since

    def hours(coat: Coat, steps: Steps = weather.steps, first: int = 0, end: int = days) -> float:
        climate = surface_climate(steps, (coat.surface,), coat.water)
        moisture = wetness(coat, {coat.surface: climate})
        limit = None if coat.damp is None else coat.damp.limit
        windows = film_windows(climate, slots, coat.product, coat.method, policy, crew, moisture, limit)
        return float(windows.ok[0, to_come & (slots.day >= first) & (slots.day < end)].sum() * slots.length_h)

    now = hours(coat)
    found = [Help(kind, words, h, h - now) for kind, words, h in _tried(weather, coat, crew, hours)]
    found += [
        Help("product", f"{p.name} instead", h, h - now)
        for p in products
        if p.code != coat.product.code
        for h in (hours(replace(coat, product=p)),)
    ]
    found += [
        Help("method", f"{m.value} instead of {coat.method.value}", h, h - now)
        for m in methods
        if m is not coat.method
        for h in (hours(replace(coat, method=m)),)
    ]
    found += [
        Help("face", f"{name} first", h, h - now)
        for name, surface in faces
        if surface != coat.surface
        for h in (hours(replace(coat, surface=surface)),)
    ]
    better = sorted((f for f in found if f.gained >= slots.length_h), key=lambda f: -f.gained)
    better = _tin_first(better)
    later = hours(coat, first=days, end=2 * days) if slots.day[-1] >= 2 * days - 1 else 0.0
    return better + ([Help("wait", "waiting a week", later, later - now)] if later - now >= slots.length_h else [])


def _tin_first(better: list[Help]) -> list[Help]:
    """Another product before what is put up or wiped, where it gains at least half as much as the best: it takes
    nobody's time on the day."""
    tin = next((f for f in better if f.kind == "product"), None)
    if tin is None or tin.gained < better[0].gained / 2:
        return better
    return [tin, *(f for f in better if f is not tin)]


def _tried(
    weather: PlaceWeather, coat: Coat, crew: CrewDay, hours: Callable[..., float]
) -> Iterator[tuple[str, str, float]]:
    """What can be done to the surface itself: kind, words, hours."""
    steps = weather.steps
    if coat.surface.substrate.tags & SMALL:
        wiped = tuple(WaterEvent(at, towel=True) for at in _mornings(weather.slots, crew))
        towel = replace(coat, water=tuple(sorted((*coat.water, *wiped), key=lambda e: e.at)))
        yield "towel", "wiped dry when the day begins", hours(towel)
    yield "shade", "shading cloth before it", hours(coat, steps=_shaded(steps))
    yield "tent", "sheeted in", hours(coat, steps=_sheeted(steps, 0.0))
    yield "heated tent", "sheeted in and heated", hours(coat, steps=_sheeted(steps, HEATER_K))


def _mornings(slots: Slots, crew: CrewDay) -> list[float]:
    begins = [datetime.fromisoformat(day).replace(tzinfo=slots.tz) for day in slots.dates]
    return [(day + timedelta(hours=crew.first_h)).timestamp() for day in begins]


def _shaded(steps: Steps) -> Steps:
    """Behind cloth: no beam, a part of all light as scattered light."""
    light = steps.light
    through = CLOTH_LETS * light.ghi
    return replace(steps, light=replace(light, ghi=through, dhi=through, dni=np.zeros_like(light.dni)))


def _sheeted(steps: Steps, warmer_k: float) -> Steps:
    """Behind sheeting; with a heater warmer."""
    return steps.sheltered(TENT_LIGHT, TENT_WIND, warmer_k)
