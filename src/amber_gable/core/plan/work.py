"""The work of a job as pieces a crew can do in one go: operations put together where nothing has to dry between them,
on sections of faces cut at natural breaks."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date
from math import ceil

import numpy as np
import numpy.typing as npt

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.tasks import runs
from amber_gable.core.specification.rule import EARLY_FILMS
from amber_gable.core.specification.stops import Stop
from amber_gable.core.survey.painted import Key, PaintedPart, painted_parts, together
from amber_gable.core.survey.sections import section_share, sections
from amber_gable.core.weather.slots import Slots
from amber_gable.core.weather.windows import Windows
from amber_gable.core.work.record import coat_colour, part_labour
from amber_gable.domain.finish import Finish
from amber_gable.domain.grid import SLOT_H, SLOT_S
from amber_gable.domain.job import JobBundle
from amber_gable.domain.operation import Operation, OperationKind, Technique
from amber_gable.domain.product import Product
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import Face
from amber_gable.domain.working import CrewDay

SECTION_HOURS = (3.0, 1.5, 0.75)
"""Longest stretch of one task. Longer work is cut at natural breaks, where a wet edge can end; where no window takes
such a stretch, into shorter ones."""
SET_UP = (OperationKind.FIT, OperationKind.PROTECT)
FRAMED = ("sash-window", "casement", "panelled-door", "flush-door", "glazed-door")
"""Items painted with the trim of a face."""


@dataclass(frozen=True)
class Stint:
    """Operations of a system done in one go. The last one's wait holds; a film is always a stint of its own."""

    operations: tuple[Operation, ...]

    @property
    def first(self) -> Operation:
        return self.operations[0]

    @property
    def name(self) -> str:
        names = [o.name for o in self.operations]
        return ", then ".join([names[0], *(n if n[1:2].isupper() else n[0].lower() + n[1:] for n in names[1:])])

    @property
    def kind(self) -> OperationKind:
        """The kind whose weather rules are the strictest of those in it."""
        kinds = [o.kind for o in self.operations]
        for strict in (OperationKind.WASH, OperationKind.STRIP, OperationKind.CAULK):
            if strict in kinds:
                return strict
        return kinds[0]

    @property
    def lays_film(self) -> bool:
        return self.first.kind.lays_film

    @property
    def wait_h(self) -> float:
        return max(o.wait_h for o in self.operations)


def stints(operations: Sequence[Operation]) -> list[Stint]:
    """The operations in order, put together where one goes on from the other at once."""
    groups: list[list[Operation]] = []
    for operation in operations:
        if groups and _goes_on(groups[-1], operation):
            groups[-1].append(operation)
        else:
            groups.append([operation])
    return [Stint(tuple(g)) for g in groups]


def _goes_on(group: Sequence[Operation], operation: Operation) -> bool:
    """Both wet or both dry, with no wait between; what is only set up goes with whatever follows it, and tape comes off
    with the coat it lies beside, while that is soft."""
    first, last = group[0], group[-1]
    if first.kind.lays_film:
        return operation.technique is Technique.UNMASK and last.kind.lays_film
    if operation.kind.lays_film or last.wait_h > 0:
        return False
    return last.kind.wets == operation.kind.wets or last.kind in SET_UP


@dataclass(frozen=True)
class WorkItem:
    """One stint on one section of a part, with everything needed to print it once it is placed. `not_before`: the day a
    stop of the part ends."""

    id: str
    part: PaintedPart
    finish: Finish
    stint: Stint
    number: int
    stints: int
    section: str
    left_m: float
    right_m: float
    surface_m2: float
    crew_hours: float
    windows: Windows
    product: Product | None = None
    colour: str | None = None
    not_before: date | None = None

    @property
    def title(self) -> str:
        section = f", {self.section}" if self.section else ""
        return f"{self.stint.name}: {self.part.face.name}, {self.part.name}{section}"

    @property
    def trim(self) -> bool:
        return self.part.item_kind in FRAMED or (not self.part.item_kind and SUBSTRATES[self.part.substrate].is_trim)


def shifts(slots: Slots, crew: CrewDay) -> npt.NDArray[np.int64]:
    """(S,): the crew's shift each slot belongs to, -1 outside working hours and on days off."""
    inside = (slots.hours >= crew.first_h - 1e-6) & (slots.hours + SLOT_H <= crew.last_h + 1e-6)
    works = ((slots.weekday != 5) | crew.work_saturday) & ((slots.weekday != 6) | crew.work_sunday)
    return np.where(inside & works, slots.day, -1)


def slots_for(crew_hours: float) -> int:
    return max(1, ceil(crew_hours * 3600 / SLOT_S - 1e-9))


def work_items(site: SiteClimate, stops: Mapping[Key, Sequence[Stop]] | None = None) -> list[WorkItem]:
    """All stints of all finished parts that nothing stops, cut into sections, in the order of the work on each part. A
    part whose stops all end by themselves waits for the last of their days."""
    items: list[WorkItem] = []
    for parts, finishes in _groups(site.bundle, stops or {}):
        operations = [site.bundle.operations(f) for f in finishes]
        done = stints(operations[0])
        for number, stint in enumerate(done):
            # Like items may differ in amounts (metres of putty): their hours are added one by one.
            same = [tuple(next(o for o in ops if o.id == x.id) for x in stint.operations) for ops in operations]
            hours = sum(_hours(part, mine) for part, mine in zip(parts, same, strict=True))
            placed = _sections_of(site, together(parts), finishes[0], stint, number, len(done), hours)
            day = ends((stops or {}).get(parts[0].key, ()))
            items += [replace(i, not_before=day) for i in placed] if day else placed
    return items


def ends(stops: Sequence[Stop]) -> date | None:
    """The day the last of the stops ends by itself; None where there are none."""
    return max((s.until for s in stops if s.until is not None), default=None)


def _groups(bundle: JobBundle, stops: Mapping[Key, Sequence[Stop]]) -> list[tuple[list[PaintedPart], list[Finish]]]:
    """Finished parts with paint to take and without a stop that lasts: zones one by one, like items of a face with like
    steps and colour together."""
    parts = painted_parts(bundle.property, bundle.deduction)
    groups: dict[object, tuple[list[PaintedPart], list[Finish]]] = {}
    for finish in bundle.job.finishes:
        part = parts[finish.part]
        held = stops.get(part.key, ())
        if part.surface_m2 <= 0 or any(s.until is None for s in held):
            continue
        steps = tuple((o.id, o.product, o.method, o.wait_h) for o in bundle.operations(finish))
        key = (
            part.key
            if not part.item_kind
            else (part.face.id, part.item_kind, part.substrate, finish.colour, steps, ends(held))
        )
        group = groups.setdefault(key, ([], []))
        group[0].append(part)
        group[1].append(finish)
    return list(groups.values())


def _hours(part: PaintedPart, operations: Sequence[Operation]) -> float:
    return sum(part_labour(part, o).hours for o in operations)


def _sections_of(
    site: SiteClimate, part: PaintedPart, finish: Finish, stint: Stint, number: int, count: int, hours: float
) -> list[WorkItem]:
    bundle, first = site.bundle, stint.first
    people = bundle.job.crew.people
    colour = product = None
    if first.product is None or first.method is None:
        windows = site.for_preparation(part.part, stint.kind)
    else:
        product = bundle.product(first.product)
        colour = coat_colour(first, product, finish.colour)
        windows = site.for_coat(part.part, product, first.method, colour)
    shift = shifts(site.slots, bundle.job.crew)
    if part.item_kind:
        strips = _batches(part, hours / people, windows, shift)
    else:
        strips = _strips(part.face, hours / people, windows, shift)
    kind, id_ = part.key
    out = []
    for n, (left, right) in enumerate(strips, 1):
        share = (right - left) / part.face.width_m if part.item_kind else section_share(part.face, left, right)
        out.append(
            WorkItem(
                id=f"{id_ if kind == 'zone' else f'item.{id_}'}/{first.id}/{n}",
                part=part,
                finish=finish,
                stint=stint,
                number=number,
                stints=count,
                section=_where(part, n, len(strips), left, right),
                left_m=left,
                right_m=right,
                surface_m2=part.surface_m2 * max(o.share for o in stint.operations) * share,
                crew_hours=hours * share / people,
                windows=windows,
                product=product,
                colour=colour,
            )
        )
    return out


def _where(part: PaintedPart, n: int, count: int, left: float, right: float) -> str:
    """Which section it is, in words; nothing where there is only one."""
    if count == 1:
        return ""
    return f"{n} of {count} lots" if part.item_kind else f"{left:.1f}–{right:.1f} m from left"


def _often_enough(crew_hours: float, windows: Windows, shift: npt.NDArray[np.int64]) -> bool:
    """Whether a stretch of that length fits a window on at least half of the days that have any."""
    day = windows.slots.day
    any_days = len(np.unique(day[windows.ok[0] & (shift >= 0)]))
    fitting = runs(windows.ok[0], shift, slots_for(crew_hours))
    return len(np.unique(day[fitting])) * 2 >= max(any_days, 1)


def _strips(
    face: Face, crew_hours: float, windows: Windows, shift: npt.NDArray[np.int64]
) -> tuple[tuple[float, float], ...]:
    """The fewest sections that fit their windows; the shortest if none do."""
    strips: tuple[tuple[float, float], ...] = ()
    for longest in SECTION_HOURS:
        strips = sections(face, ceil(crew_hours / longest))
        widest = max(section_share(face, *strip) for strip in strips)
        if _often_enough(crew_hours * widest, windows, shift):
            break
    return strips


def _batches(
    part: PaintedPart, crew_hours: float, windows: Windows, shift: npt.NDArray[np.int64]
) -> tuple[tuple[float, float], ...]:
    """Like items in the fewest lots that fit their windows, as equal shares of the face's width; one by one if none
    do."""
    count = 1
    for longest in SECTION_HOURS:
        count = min(part.pieces, max(1, ceil(crew_hours / longest)))
        if _often_enough(crew_hours / count, windows, shift):
            break
    width = part.face.width_m
    return tuple((width * i / count, width * (i + 1) / count) for i in range(count))


def before_in_system(item: WorkItem, items: Sequence[WorkItem]) -> tuple[str, ...]:
    """Ids of the sections of the stint before that lie under this one."""
    return tuple(
        other.id
        for other in items
        if other.finish is item.finish
        and other.number == item.number - 1
        and other.left_m < item.right_m - 1e-6
        and other.right_m > item.left_m + 1e-6
    )


def before_on_face(item: WorkItem, items: Sequence[WorkItem], bundle: JobBundle) -> tuple[str, ...]:
    """What another part of the face must have behind it first, after the school of the order on a face.

    Fields first: trim begins after the field's first stint, its first film after the field's last. Trim first: the
    field's first film comes after the trim's last.
    """
    school = bundle.schools["order"]
    late = school == "fields-first"
    if item.trim is not late or (item.part.item_kind and not item.trim):
        return ()
    others = [
        o for o in items if o.part.face is item.part.face and o.trim is not late and (not o.part.item_kind or o.trim)
    ]
    films = [
        o.number for o in items if o.finish is item.finish and o.stint.lays_film and o.stint.first.id not in EARLY_FILMS
    ]
    out = []
    if late and item.number == 0:
        out += [o.id for o in others if o.number == 0]
    if films and item.number == min(films):
        out += [o.id for o in others if o.number == o.stints - 1]
    return tuple(out)
