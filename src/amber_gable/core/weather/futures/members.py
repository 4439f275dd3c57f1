"""Coats judged in every member of a forecast, and reduced at once to what is asked of many futures: how many of them
hold, what stops most, and when the stages come.

One surface in one block of members is computed, judged and let go before the next: memory does not grow with surfaces,
and with members only by the three times that quantiles need. Blocks run beside each other in threads; the compiled
loops and numpy let go of the interpreter.
"""

import os
from collections.abc import Sequence
from concurrent.futures import Future, ThreadPoolExecutor, as_completed
from dataclasses import dataclass, fields, replace
from typing import Any

import numpy as np

from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.judged.rules import RULES
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import Windows, film_windows, preparation_windows
from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.core.weather.outdoors.light import HorizontalLight
from amber_gable.core.weather.wall.damp import Damp
from amber_gable.core.weather.wall.dry_off import dry_from
from amber_gable.core.weather.wall.slot_climate import PlaceWeather
from amber_gable.core.weather.wall.steps import Steps
from amber_gable.core.weather.wall.surface import Climate, FaceSurface, WaterEvent, surface_climate
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.progress import Progress, unseen
from amber_gable.domain.work.operation import OperationKind
from amber_gable.domain.work.working import CrewDay, Policy

QUANTILES = (0.1, 0.5, 0.9)
BLOCK, BLOCK_STEPS = 50, 200_000
"""Members judged at once, and of long weather fewer: so many steps of all together."""
RULE_IDS = tuple(RULES)
_FIELDS = {f.name for f in (*fields(Steps), *fields(HorizontalLight))}


@dataclass(frozen=True)
class Coat:
    """A product on a surface, and the water in its substrate (None: of no concern). `below`: the surface as it lies
    until the coat is on, which dries in its own colour (None: as this one)."""

    surface: FaceSurface
    product: Product
    method: Method
    damp: Damp | None = None
    water: tuple[WaterEvent, ...] = ()
    below: FaceSurface | None = None


@dataclass(frozen=True)
class Preparation:
    """A step on a surface that lays no film. `wind_max`: strongest wind for it, m/s, where it bears less than a ladder
    does."""

    surface: FaceSurface
    kind: OperationKind
    water: tuple[WaterEvent, ...] = ()
    wind_max: float | None = None


@dataclass(frozen=True)
class Odds:
    """What is kept of a coat in M members, for each slot.

    share (S,): members in which every rule holds, 0 to 1. binds (S,): the place in RULE_IDS of the rule that stops most
    members, -1 where none stops any; of equals the first. stopped (S,): the share it stops. touch_at, rain_ready_at,
    recoat_at (3, S): epoch seconds at the QUANTILES of the members, none between two of them; inf where the weather
    ends first; None for work that lays no film. dry_from (3, D), of each local day: from when in the morning no water
    stands on the face, -inf where none does, inf where it does to the end of it.
    """

    share: Array
    binds: Ints
    stopped: Array
    dry_from: Array
    touch_at: Array | None = None
    rain_ready_at: Array | None = None
    recoat_at: Array | None = None

    def stage_at(self, stage: DryingStage) -> Array | None:
        """When a film comes to a stage, (3, S); None where it is not kept, or no film is laid."""
        return {
            DryingStage.TOUCH: self.touch_at,
            DryingStage.RAIN_READY: self.rain_ready_at,
            DryingStage.RECOAT: self.recoat_at,
        }.get(stage)

    def stopping_letter(self, slot: int) -> str:
        """The letter of the rule that stops most members; empty where none stops any."""
        binds = int(self.binds[slot])
        return RULES[RULE_IDS[binds]].letter if binds >= 0 else ""

    @property
    def nbytes(self) -> int:
        return sum(a.nbytes for a in vars(self).values() if isinstance(a, np.ndarray))


def odds(
    weather: PlaceWeather,
    coats: Sequence[Coat | Preparation],
    policy: Policy,
    crew: CrewDay,
    progress: Progress = unseen,
) -> list[Odds]:
    """Each coat or other step in the members of `weather`, in the order given. A weather without members counts as
    one."""
    on: dict[tuple[FaceSurface, tuple[WaterEvent, ...]], list[int]] = {}
    for n, coat in enumerate(coats):
        on.setdefault((coat.surface, coat.water), []).append(n)
    out, blocks = dict[int, Odds](), _blocks(weather.steps)
    progress(0.0, f"0 of {len(on)} surfaces")
    with ThreadPoolExecutor(min(len(on) or 1, os.cpu_count() or 1), "members") as pool:
        asked: dict[Future[list[Odds]], list[int]] = {
            pool.submit(_on_surface, weather.slots, blocks, [coats[n] for n in which], policy, crew): which
            for which in on.values()
        }
        try:
            for done, future in enumerate(as_completed(asked), 1):
                out |= dict(zip(asked[future], future.result(), strict=True))
                progress(done / len(on), f"{done} of {len(on)} surfaces")
        except BaseException:
            pool.shutdown(cancel_futures=True)
            raise
    return [out[n] for n in range(len(coats))]


def _on_surface(
    slots: Slots, blocks: Sequence[Steps], coats: Sequence[Coat | Preparation], policy: Policy, crew: CrewDay
) -> list[Odds]:
    tallies = [_Tally() for _ in coats]
    for block in blocks:
        climate = surface_climate(block, (coats[0].surface,), coats[0].water)
        dry, below = dry_from(climate, slots)[0], {coats[0].surface: climate}
        for coat, tally in zip(coats, tallies, strict=True):
            if isinstance(coat, Preparation):
                tally.add(preparation_windows(climate, slots, coat.kind, policy.in_wind(coat.wind_max), crew), dry)
                continue
            moisture, limit = (None, None) if coat.damp is None else (wetness(coat, below), coat.damp.limit)
            tally.add(film_windows(climate, slots, coat.product, coat.method, policy, crew, moisture, limit), dry)
    return [tally.odds() for tally in tallies]


def wetness(coat: Coat, climates: dict[FaceSurface, Climate]) -> Array | None:
    """How wet the substrate is under a coat, (1, ..., T) %; None for what holds no water. climates: by surface, that of
    the coat's own among them; that of what lies below is added to them."""
    if coat.damp is None:
        return None
    below = coat.below or coat.surface
    if below not in climates:
        climates[below] = surface_climate(climates[coat.surface].steps, (below,), coat.water)
    return coat.damp.pct(climates[below])


def _blocks(steps: Steps) -> list[Steps]:
    if not steps.members:
        return [_members_of(steps, slice(None), new_axis=True)]
    size = min(BLOCK, max(BLOCK_STEPS // len(steps), 1))
    return [_members_of(steps, slice(n, n + size)) for n in range(0, steps.members[0], size)]


def _members_of(steps: Steps, which: slice, *, new_axis: bool = False) -> Steps:
    """Some of the members; with a new axis, one weather as that of a single member."""

    def of(values: Steps | HorizontalLight) -> dict[str, Any]:
        arrays = {name: a for name, a in vars(values).items() if name in _FIELDS and isinstance(a, np.ndarray)}
        return {name: a[None] if new_axis else a[which] for name, a in arrays.items()}

    return replace(steps, **of(steps), light=replace(steps.light, **of(steps.light)))


class _Tally:
    """Counts over the members judged so far, and the times of each."""

    def __init__(self) -> None:
        self._members, self._held = 0, np.zeros(0)
        self._stops: dict[str, Array] = {}
        self._times: tuple[list[Array], ...] = ([], [], [])
        self._dry: list[Array] = []

    def add(self, windows: Windows, dry: Array) -> None:
        """Windows of shape (1, M, S), and from when each morning is dry, (M, D)."""
        members, slots = windows.ok.shape[1:]
        if not self._members:
            self._held = np.zeros(slots)
        self._members += members
        self._held += windows.ok[0].sum(axis=0)
        for check in windows.checks:
            before = self._stops.get(check.rule.id, np.zeros(slots))
            self._stops[check.rule.id] = before + check.stops[0].sum(axis=0)
        for kept, at in zip(self._times, (windows.touch_at, windows.rain_ready_at, windows.recoat_at), strict=True):
            if at is not None:
                kept.append(at[0])
        self._dry.append(dry)

    def odds(self) -> Odds:
        none = np.zeros(len(self._held))
        stops = np.array([self._stops.get(id_, none) for id_ in RULE_IDS])
        most = stops.max(axis=0)
        rank = [max(0, int(np.ceil(q * self._members)) - 1) for q in QUANTILES]
        touch, rain_ready, recoat = (np.sort(np.concatenate(k), axis=0)[rank] if k else None for k in self._times)
        return Odds(
            share=self._held / self._members,
            binds=np.where(most > 0, stops.argmax(axis=0), -1),
            stopped=most / self._members,
            dry_from=np.sort(np.concatenate(self._dry), axis=0)[rank],
            touch_at=touch,
            rain_ready_at=rain_ready,
            recoat_at=recoat,
        )
