"""May this step be done here, and when: the one judgement that lanes, *Can I paint?*, plan, warnings, day sheet and
last stroke read.

Weather is judged in slots, for a film whose last stroke is at the slot's end and for its drying after that; what the
part waits for is held against the moment. A task is judged over the whole of its time.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from enum import StrEnum
from functools import cached_property, partial

import numpy as np
import numpy.typing as npt

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.specification.cautions.dangers import DANGERS, Danger
from amber_gable.core.specification.derived.part_facts import lead_presumed
from amber_gable.core.specification.derived.protection import CHALKS, disturbs
from amber_gable.core.state.part_state import CellState, PartState
from amber_gable.core.state.wait import Wait
from amber_gable.core.weather.futures.members import Coat, Preparation
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.judged.windows import Windows
from amber_gable.core.work.steps import steps_of
from amber_gable.core.work.stints import Stint
from amber_gable.core.work.waits import asks_before, keeps_rain_out, old_film_sheds, shuts_in
from amber_gable.domain.findings.condition import Coating
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.finish import Finish, coat_colour
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

LEAD_WIND_MAX = 9.0
"""Stronger, it carries chips and dust of lead paint past the sheets (docs/trade.md §10)."""
_BREAKS = {Danger.ABRASION, Danger.CAUSTIC}


@dataclass(frozen=True)
class JudgedWork:
    """A stint on a part, with what it lays where it lays a film."""

    stint: Stint
    product: Product | None
    colour: str | None
    windows: Windows
    step: Coat | Preparation


def work_of(site: SiteClimate, part: Zone | Item, finish: Finish, stint: Stint) -> JudgedWork:
    """The stint in the weather of the part's surface."""
    first = stint.first
    if first.product is None or first.method is None:
        wind = stint_wind(site.bundle, part, stint)
        windows = site.for_preparation(part, stint.kind, wind, first.where)
        return JudgedWork(stint, None, None, windows, site.preparation_of(part, stint.kind, wind, first.where))
    product = site.bundle.product(first.product)
    colour = coat_colour(first, product, finish.colour)
    operations = steps_of(site.bundle, finish)
    # On spots rain is only a wet surface.
    bare = shuts_in(first) and _still_bare(operations, first, part)
    before = operations[: operations.index(first)] if first in operations else operations
    coat = site.coat_of(
        part, product, first.method, colour, bare=bare, where=first.where, asks_before=asks_before(before)
    )
    return JudgedWork(stint, product, colour, site.windows(part, colour, coat, first.where), coat)


def stint_wind(bundle: JobBundle, part: Zone | Item, stint: Stint) -> float | None:
    """Strongest wind for work that breaks presumed lead paint, m/s; None for any other."""
    return LEAD_WIND_MAX if breaks_lead(bundle, part, (o.technique for o in stint.operations)) else None


def breaks_lead(bundle: JobBundle, part: Zone | Item, techniques: Iterable[Technique | None]) -> bool:
    """Whether work done so breaks old paint on the part in which lead was found or is presumed."""
    return _lead_paint(bundle, part) and any(DANGERS[way] & _BREAKS for way in techniques if way is not None)


def frees_lead(bundle: JobBundle, part: Zone | Item, kind: OperationKind, techniques: Iterable[Technique]) -> bool:
    """Whether such work takes that paint off the part in any way: broken, softened by heat or stripper, or as chalk."""
    chalks = part.condition.chalking in CHALKS
    return _lead_paint(bundle, part) and any(disturbs(technique, kind, chalks) for technique in techniques)


def _lead_paint(bundle: JobBundle, part: Zone | Item) -> bool:
    found = part.condition
    lead = lead_presumed(bundle, found) if found.lead_found is None else found.lead_found
    return lead and found.coating is not Coating.BARE


def _still_bare(operations: Sequence[Operation], first: Operation, part: Zone | Item) -> bool:
    """Whether neither sound old paint nor a step before it keeps rain from the substrate."""
    if old_film_sheds(part.condition, SUBSTRATES[part.substrate]):
        return False
    before = operations[: operations.index(first)] if first in operations else operations
    return not any(keeps_rain_out(o, SUBSTRATES[part.substrate]) for o in before)


class Verdict(StrEnum):
    YES = "yes"
    WEATHER = "weather"
    WAITS = "waits"
    STOPPED = "stopped"
    UNKNOWN = "beyond the weather known"


@dataclass(frozen=True)
class Answer:
    """What holds at a moment. `weather_ok`: the weather alone would allow it. `until` ends the open stretch (the last
    stroke of a film) and `closes` is the letter that ends it; `opens` is when it may be done next.
    `letters` stop it."""

    verdict: Verdict
    at: datetime
    weather_ok: bool
    letters: tuple[str, ...]
    waits: tuple[Wait, ...]
    until: datetime | None = None
    film: bool = True
    closes: str = ""
    opens: datetime | None = None

    @property
    def ok(self) -> bool:
        return self.verdict is Verdict.YES


@dataclass(frozen=True)
class Judged:
    """A step of a part in its state, for every slot from now on. Its weather is looked at when that is asked for."""

    state: PartState
    cell: CellState
    waits: tuple[Wait, ...]
    look: Callable[[], JudgedWork] = field(repr=False, compare=False)

    @cached_property
    def work(self) -> JudgedWork:
        return self.look()

    @property
    def slots(self) -> Slots:
        return self.work.windows.slots

    @cached_property
    def ready(self) -> float:
        """Epoch second at which the last of these waits ends: -inf without any, inf where no end is known."""
        ends = [w.until for w in self.lasting]
        return max((e.timestamp() if e is not None else np.inf for e in ends), default=-np.inf)

    @property
    def lasting(self) -> list[Wait]:
        """The waits that make later slots unusable: those with a known end, and those for something
        else than an earlier step. An earlier step that nobody planned may be done at any time, so it bars none."""
        return [w for w in self.waits if w.until is not None or not w.order]

    @cached_property
    def ok(self) -> npt.NDArray[np.bool_]:
        """(S,): slots in which the weather allows the step and which end after the part is ready."""
        ends = self.slots.start + SLOT_S * (np.arange(len(self.slots)) + 1.0)
        return np.asarray(self.work.windows.ok[0] & (ends > self.ready))

    @cached_property
    def letters(self) -> npt.NDArray[np.str_]:
        """(S,): the letter to show for each slot, '' where the step may be done. Night first, then what the part waits
        for, then the weather."""
        weather = self.work.windows.first_letters()[0]
        out: npt.NDArray[np.str_] = weather
        ends = self.slots.start + SLOT_S * (np.arange(len(self.slots)) + 1.0)
        for wait in sorted(self.lasting, key=lambda w: "BMOS".index(w.letter)):
            until = np.inf if wait.until is None else wait.until.timestamp()
            out = np.where((ends <= until) & (weather != "N"), wait.letter, out)
        return out

    def waits_at(self, at: datetime) -> tuple[Wait, ...]:
        """What the part still waits for at that moment, the gravest first."""
        return tuple(sorted((w for w in self.waits if w.until is None or w.until > at), key=_gravest))

    def answer(self, at: datetime) -> Answer:
        """May the step be done at that moment?"""
        slots = self.slots
        slot = int((at.timestamp() - slots.start) // SLOT_S)
        if not 0 <= slot < len(slots):
            return Answer(Verdict.UNKNOWN, at, False, ("?",), self.waits)
        weather_ok = bool(self.work.windows.weather_ok[0, slot])
        waits = self.waits_at(at)
        if not waits and self.ok[slot]:
            return replace(_open(slots, self.ok, self.letters, slot, at), film=self.work.product is not None)
        letters = tuple(self.work.windows.letters(0, slot))
        opens = self._opens(slot, at)
        if waits:
            verdict = Verdict.STOPPED if any(w.letter == "S" for w in waits) else Verdict.WAITS
            said = tuple(dict.fromkeys(w.letter for w in waits))
            return Answer(verdict, at, weather_ok, (*said, *letters), waits, opens=opens)
        return Answer(Verdict.WEATHER, at, weather_ok, letters, (), opens=opens)

    def _opens(self, slot: int, at: datetime) -> datetime | None:
        later = np.flatnonzero(self.ok[slot:])
        if not later.size:
            return None
        first = self.slots.time(slot + int(later[0]))
        ready = datetime.fromtimestamp(self.ready, first.tzinfo) if np.isfinite(self.ready) else at
        return max(first, ready, at)

    def first_shut(self, start: datetime, end: datetime) -> tuple[datetime, str] | None:
        """The first moment between the two at which the step may not go on, and by what letter; None where it may all
        the time, or where the weather is not known so far."""
        slots = self.slots
        first = int((start.timestamp() - slots.start) // SLOT_S)
        last = int(-((slots.start - end.timestamp()) // SLOT_S))
        if first < 0 or first >= len(slots):
            return None
        if start.timestamp() < self.ready:
            waits = [w for w in self.waits if w.until is None or w.until > start]
            return start, waits[0].letter
        shut = np.flatnonzero(~self.ok[first : min(max(last, first + 1), len(slots))])
        if not shut.size:
            return None
        slot = first + int(shut[0])
        return max(slots.time(slot), start), str(self.letters[slot])


def _gravest(wait: Wait) -> tuple[bool, bool, bool, float]:
    """Stops first, then what no day ends, then what is still to be done, then the longest."""
    endless = wait.until is None
    return (
        wait.letter != "S",
        wait.order or not endless,
        not wait.order,
        0.0 if wait.until is None else -wait.until.timestamp(),
    )


def _open(slots: Slots, ok: npt.NDArray[np.bool_], letters: npt.NDArray[np.str_], slot: int, at: datetime) -> Answer:
    """Yes, until the open stretch of that day ends."""
    end = slot
    while end < len(slots) and ok[end] and slots.day[end] == slots.day[slot]:
        end += 1
    closes = str(letters[end]) if end < len(slots) else "?"
    return Answer(Verdict.YES, at, True, (), (), until=slots.time(end), closes=closes)


def weather_answer(windows: Windows, slot: int) -> Answer:
    """The same for a coat that is only asked about, on a face whose state plays no part."""
    slots, ok = windows.slots, windows.ok[0]
    at = slots.time(slot)
    if ok[slot]:
        return _open(slots, ok, windows.first_letters()[0], slot, at)
    later = np.flatnonzero(ok[slot:])
    opens = slots.time(slot + int(later[0])) if later.size else None
    return Answer(Verdict.WEATHER, at, False, tuple(windows.letters(0, slot)), (), opens=opens)


def judge(
    site: SiteClimate,
    state: PartState,
    cell: CellState,
    stint: Stint | None = None,
    waits: tuple[Wait, ...] | None = None,
) -> Judged | None:
    """The cell's next step, or another stint on it with its own waits, as it may be done from now on; None where
    nothing is left."""
    wanted = stint or cell.next
    if wanted is None:
        return None
    look = partial(work_of, site, state.part.part, state.finish, wanted)
    return Judged(state, cell, cell.waits if waits is None else waits, look)


def hardest(judged: Sequence[tuple[Judged, Answer]]) -> tuple[Judged, Answer]:
    """Of several parts worked on together, the one with the strictest answer."""
    order = [Verdict.STOPPED, Verdict.WAITS, Verdict.UNKNOWN, Verdict.WEATHER, Verdict.YES]

    def rank(one: tuple[Judged, Answer]) -> tuple[int, float]:
        answer = one[1]
        if answer.until is not None:
            return order.index(answer.verdict), answer.until.timestamp()
        return order.index(answer.verdict), -(answer.opens.timestamp() if answer.opens is not None else np.inf)

    return min(judged, key=rank)
