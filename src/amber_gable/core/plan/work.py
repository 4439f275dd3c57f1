"""The work of a job as pieces a crew can do in one go: what is left of each part's operations, put together where
nothing has to dry between them, on sections of faces cut at natural breaks."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import cached_property
from itertools import groupby
from math import ceil

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.tasks import openings, shifts
from amber_gable.core.specification.derived.protection import unprotected
from amber_gable.core.state.judgement import JudgedWork, work_of
from amber_gable.core.state.others_work import others_waits
from amber_gable.core.state.part_state import CellState, PartState
from amber_gable.core.state.part_waits import waits_of
from amber_gable.core.state.surroundings import Surroundings
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, together
from amber_gable.core.survey.drawing.geometry import section_share, sections
from amber_gable.core.work.labour import moves, part_labour
from amber_gable.core.work.pace import Pace, pace_of
from amber_gable.core.work.record import coat_paint
from amber_gable.core.work.sides import sides
from amber_gable.core.work.stints import Stint, stints
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.job.plan import task_id
from amber_gable.domain.job.site_record import Extent
from amber_gable.domain.progress import Progress, unseen
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.operation import Operation, OperationKind

SECTION_HOURS = (3.0, 1.5, 0.75)
"""Longest stretch of one task. Longer work is cut at natural breaks, where a wet edge can end; where no window takes
such a stretch, into shorter ones."""
FRAMED = ("sash-window", "casement", "panelled-door", "flush-door", "glazed-door")
"""Items painted with the trim of a face."""
HUNG = ("shutter-pair", "gutter")
"""Items that hang before a wall."""
_LEAST = 1e-6


def area_share(part: PaintedPart, left: float, right: float) -> float:
    """Of a part's area, what lies between two shares of its width."""
    if part.item_kind:
        return right - left
    width = part.face.width_m
    return section_share(part.face, left * width, right * width)


@dataclass(frozen=True)
class Stretch:
    """A part, or some of its width (shares), on which one and the same of a stint is left to do; `cells` may differ in
    other steps."""

    state: PartState
    cells: tuple[CellState, ...]
    left: float
    right: float
    operations: tuple[Operation, ...]

    @property
    def key(self) -> Key:
        return self.state.part.key

    @property
    def area_share(self) -> float:
        return area_share(self.state.part, self.left, self.right)


@dataclass(frozen=True)
class WorkItem:
    """What is left of one stint on one section of a part or on a lot of like items, with everything needed to print it
    once it is placed. `first_film`: number of the part's first stint that dirt would spoil. `waits`: what it waits for
    as the parts stand now. `first_step`: of the whole stint, whatever of it is done."""

    first_step: str
    part: PaintedPart
    finish: Finish
    stint: Stint
    number: int
    stints: int
    first_film: int | None
    first_coat: int | None
    last_film: int | None
    section: str
    stretches: tuple[Stretch, ...]
    crew_hours: float
    work: JudgedWork
    waits: tuple[Wait, ...]

    @cached_property
    def id(self) -> str:
        return task_id(self.extent, self.first_step)

    @property
    def title(self) -> str:
        section = f", {self.section}" if self.section else ""
        return f"{self.stint.name}: {self.part.face.name}, {self.part.name}{section}"

    @property
    def in_place(self) -> bool:
        """Whether it is done on its wall."""
        return self.stint.first.where is None

    @property
    def goes_back(self) -> bool:
        """Whether it hangs something back before a wall: fittings of the wall, shutters, downspouts."""
        after_films = self.last_film is not None and self.number > self.last_film
        hangs = not self.part.item_kind or self.part.item_kind in HUNG
        return after_films and hangs and any(o.kind is OperationKind.FIT for o in self.stint.operations)

    @property
    def trim(self) -> bool:
        return self.part.item_kind in FRAMED or (not self.part.item_kind and SUBSTRATES[self.part.substrate].is_trim)

    @cached_property
    def keys(self) -> frozenset[Key]:
        """The parts it is on."""
        return frozenset(s.key for s in self.stretches)

    @property
    def minutes(self) -> int:
        return minutes_for(self.crew_hours)

    @property
    def surface_m2(self) -> float:
        share = max(o.share for o in self.stint.operations)
        return sum(s.state.part.surface_m2 * s.area_share for s in self.stretches) * share

    @property
    def litres(self) -> float | None:
        """Paint for it; None where it lays none."""
        first, product = self.stint.first, self.work.product
        if product is None:
            return None
        paints = [(coat_paint(s.state.part, first, product, s.state.finish.colour), s) for s in self.stretches]
        return sum(p.litres * s.area_share for p, s in paints if p is not None)

    @property
    def extent(self) -> Extent:
        first = self.stretches[0]
        return Extent(parts=tuple(s.key for s in self.stretches), left=first.left, right=first.right)

    @property
    def begun_at(self) -> datetime | None:
        """When any of it was begun that is not done."""
        steps = {o.id for o in self.stint.operations}
        running = [c.cell.running for s in self.stretches for c in s.cells]
        return min((r.at for r in running if r is not None and steps & set(r.steps)), default=None)

    def overlaps(self, other: "WorkItem") -> bool:
        """Whether the two lie on one and the same piece of a part."""
        if self.keys.isdisjoint(other.keys):
            return False
        return any(
            a.key == b.key and a.left < b.right - _LEAST and b.left < a.right - _LEAST
            for a in self.stretches
            for b in other.stretches
        )


def person_hours(part: PaintedPart, operations: tuple[Operation, ...], pace: Pace) -> float:
    """Of operations done in one go on a whole part, with the moves of the ladder for them."""
    moved = moves(part, operations, pace)
    return sum(part_labour(part, o, pace).hours for o in operations) + (moved.hours if moved else 0.0)


def minutes_for(crew_hours: float) -> int:
    return max(1, ceil(crew_hours * 60 - 1e-6))


def work_items(around: Surroundings, states: Mapping[Key, PartState], progress: Progress = unseen) -> list[WorkItem]:
    """What is left of all parts that nothing stops, cut into sections, in the order of the work on each part."""
    items: list[WorkItem] = []
    groups = _groups(around, states)
    for n, group in enumerate(groups):
        progress(n / len(groups), f"{n} of {len(groups)} parts cut into steps")
        whole = stints(group[0].operations)
        for number, stint in enumerate(whole):
            for lot in _lots(around, group, stint):
                items.append(_item(around, group, number, whole, lot))
    return items


def stopped_for_good(state: PartState) -> list[Wait]:
    """Stops of the part that no day ends."""
    return [w for c in state.cells for w in c.waits if w.letter == "S" and w.until is None]


def _groups(around: Surroundings, states: Mapping[Key, PartState]) -> list[list[PartState]]:
    """Parts with paint to take and without a stop that lasts: zones one by one, like items of a face with like steps
    and colour together, whichever of them holds what is done once for the face."""
    groups: dict[object, list[PartState]] = {}
    for state in states.values():
        part = state.part
        if part.surface_m2 <= 0 or stopped_for_good(state):
            continue
        steps = tuple((o.id, o.product, o.method, o.wait_h) for o in unprotected(state.operations))
        held = tuple(w for c in state.cells for w in c.waits if w.letter == "S")
        # What waits for others, now or before its coats, is not put together with what does not.
        held += tuple(others_waits(around.site.bundle, part, film=True, now=around.now, tz=around.tz))
        alike = (part.face.id, part.item_kind, part.substrate, state.finish.colour, steps, held)
        group = groups.setdefault(alike if part.item_kind else part.key, [])
        if len(state.operations) == len(steps):
            group.append(state)
        elif not group or len(group[0].operations) == len(steps):
            # What is done once for the face is in the steps that the group is cut by.
            group.insert(0, state)
        else:
            groups[part.key] = [state]
    return list(groups.values())


@dataclass(frozen=True)
class Lot:
    """Work done in one go, in words: what is worked on, and where."""

    section: str
    stretches: tuple[Stretch, ...]


def _lots(around: Surroundings, group: Sequence[PartState], stint: Stint) -> Iterator[Lot]:
    """What is left of a stint, cut so that each piece fits the windows."""
    site, crew, pace = around.site, around.site.bundle.job.crew, pace_of(around.site.bundle)
    first = group[0]
    work = work_of(site, first.part.part, first.finish, stint)
    shift = shifts(site.slots, crew)
    steps = {o.id for o in stint.operations}
    # Like items may differ in amounts (metres of putty): their hours are added one by one.
    doing = [(s, tuple(o for o in s.operations if o.id in steps)) for s in group]
    hours = sum(person_hours(s.part, operations, pace) for s, operations in doing) / crew.people
    if first.part.item_kind:
        for side in sides(first.part, stint.first):
            share = side.right - side.left
            left = [s for state in group for s in _left_of(state, stint, side.left, side.right)]
            count = _fewest(len(group), hours * share, work, shift)
            for members in _like_lots(left, ceil(len(group) / count), share):
                names = "" if len(members) == len(group) else ", ".join(m.state.part.name for m in members)
                which = names if len(names) < 60 else f"{len(members)} of {len(group)}"
                yield Lot(", ".join(w for w in (which, side.name) if w), members)
        return
    face = first.part.face
    for left_m, right_m in _strips(first.part, hours, work, shift):
        for stretch in _left_of(first, stint, left_m / face.width_m, right_m / face.width_m):
            whole_face = stretch.left < _LEAST and stretch.right > 1 - _LEAST
            at = (stretch.left * face.width_m, stretch.right * face.width_m)
            section = "" if whole_face else f"{at[0]:.1f}–{at[1]:.1f} m from left"
            yield Lot(section, (stretch,))


def _like_lots(left: Sequence[Stretch], per_lot: int, share: float) -> Iterator[tuple[Stretch, ...]]:
    """Like items, or one side of each, so many in a lot, all at the same step; what is half done stands alone."""
    whole = [s for s in left if s.right - s.left > share - _LEAST]
    lots = [whole[i : i + per_lot] for i in range(0, len(whole), per_lot)]
    lots += [[s] for s in left if s.right - s.left <= share - _LEAST]
    for lot in lots:
        for _, same in groupby(lot, key=lambda s: tuple(o.id for o in s.operations)):
            yield tuple(same)


def _left_of(state: PartState, stint: Stint, left: float, right: float) -> list[Stretch]:
    """The stretches between two shares of the width on which some of the stint is left."""
    wanted = {o.id for o in stint.operations}
    out: list[Stretch] = []
    for cell in state.cells:
        a, b = max(left, cell.cell.left), min(right, cell.cell.right)
        operations = tuple(o for o in cell.cell.open if o.id in wanted)
        if b - a <= _LEAST or not operations:
            continue
        before = out[-1] if out else None
        if before is not None and before.operations == operations and a - before.right < _LEAST:
            # Where an earlier step was left off is no place to stop a coat.
            out[-1] = replace(before, cells=(*before.cells, cell), right=b)
        else:
            out.append(Stretch(state, (cell,), a, b, operations))
    return out


def _item(around: Surroundings, group: Sequence[PartState], number: int, whole: Sequence[Stint], lot: Lot) -> WorkItem:
    stretches, site = lot.stretches, around.site
    first, pace = stretches[0], pace_of(site.bundle)
    left = Stint(first.operations)
    return WorkItem(
        first_step=whole[number].first.id,
        part=together([s.state.part for s in stretches]),
        finish=group[0].finish,
        stint=left,
        number=number,
        stints=len(whole),
        first_film=next((n for n, s in enumerate(whole) if s.full_film), None),
        first_coat=next((n for n, s in enumerate(whole) if s.first.kind is OperationKind.COAT), None),
        last_film=next((n for n, s in reversed(list(enumerate(whole))) if s.lays_film), None),
        section=lot.section,
        stretches=stretches,
        crew_hours=sum(person_hours(s.state.part, s.operations, pace) * s.area_share for s in stretches) / pace.people,
        work=work_of(site, first.state.part.part, first.state.finish, left),
        waits=tuple(
            dict.fromkeys(
                w
                for s in stretches
                for c in s.cells
                for w in waits_of(around, s.state.part, s.state.finish, c.cell, c.film, left)
            )
        ),
    )


def _fits(minutes: int, work: JudgedWork, shift: npt.NDArray[np.int64]) -> bool:
    """Whether a stretch of that length fits a window on at least half of the days that have any."""
    slots = work.windows.slots
    open_ = openings(work.windows.ok[0], shift).minutes
    days = len(np.unique(slots.day[open_ > 0]))
    return len(np.unique(slots.day[open_ >= minutes])) * 2 >= max(days, 1)


def _strips(
    part: PaintedPart, crew_hours: float, work: JudgedWork, shift: npt.NDArray[np.int64]
) -> tuple[tuple[float, float], ...]:
    """The fewest sections that fit their windows; the shortest if none do."""
    strips: tuple[tuple[float, float], ...] = ()
    for longest in SECTION_HOURS:
        strips = sections(part.face, ceil(crew_hours / longest))
        widest = max(section_share(part.face, *strip) for strip in strips)
        if _fits(minutes_for(crew_hours * widest), work, shift):
            break
    return strips


def _fewest(pieces: int, crew_hours: float, work: JudgedWork, shift: npt.NDArray[np.int64]) -> int:
    """Like items in the fewest lots that fit their windows; one by one if none do."""
    count = 1
    for longest in SECTION_HOURS:
        count = min(pieces, max(1, ceil(crew_hours / longest)))
        if _fits(minutes_for(crew_hours / count), work, shift):
            break
    return count
