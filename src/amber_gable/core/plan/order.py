"""What must be behind a piece of work before it begins: the trade's order within a part, on a face, and beside it."""

from collections.abc import Callable, Mapping, Sequence
from math import ceil, hypot

from amber_gable.core.plan.tasks import After, Soon
from amber_gable.core.plan.work import WorkItem
from amber_gable.core.state.judgement import frees_lead
from amber_gable.core.survey.drawing.house_plan import house_plan
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.work.sides import WHOLE, sides
from amber_gable.core.work.waits import film_stage, wait_hours
from amber_gable.domain.house.survey import Face
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import OperationKind, Technique

_K = OperationKind
DIRTY = (_K.WASH, _K.STRIP, _K.SCRAPE, _K.SAND, _K.DUST, _K.REPAIR)
"""What leaves water, chips or dust on whatever is beside it."""
BARES = (_K.STRIP, _K.SCRAPE, _K.SAND)
"""What may leave the ground bare."""
BESIDE_M = 0.6
"""Walls whose ends are nearer than this touch: what runs off the one wets the other."""

Gates = dict[str, tuple[After, ...]]
"""Moments without work of their own: passed when all that each names is done."""


def within_part(item: WorkItem, items: Sequence[WorkItem]) -> list[After]:
    """The steps before it on the same piece, each with the wait or the stage that lies between. An item that lies
    down is turned, before a film on its one side, only once the last film on its other side may take one too."""
    mine = [o for o in items if not item.keys.isdisjoint(o.keys)]
    before = [o for o in mine if o.number < item.number and item.overlaps(o)]
    sanded = [o.number for o in before if any(x.kind is _K.SAND for x in o.stint.operations)]
    out = []
    for other in before:
        if other.stint.lays_film:
            stage = film_stage(item.stint.first)
            dulled = any(n > other.number for n in sanded)
            out.append(After(other.id, 0, stage, dulled) if stage is not None else After(other.id))
        else:
            hours = max(wait_hours(o, item.stint.first) for o in other.stint.operations)
            out.append(After(other.id, ceil(hours * 60)))
    if sides(item.part, item.stint.first) == WHOLE:
        return out
    turned = [o for o in mine if o.stint.lays_film and o is not item and _at(o) < _at(item)]
    # The longest recoat time is that of films on each other, not of the two sides: as if it were sanded between.
    return out + [After(o.id, 0, DryingStage.RECOAT, sanded=True) for o in turned if o not in before]


def _at(item: WorkItem) -> tuple[int, float]:
    """Where it stands in the order of the films on its piece: by step, then by side."""
    return item.number, item.extent.left


def dirt_before_films(items: Sequence[WorkItem], bundle: JobBundle) -> tuple[Gates, dict[str, tuple[str, ...]]]:
    """All dirty work on a face, and all washing of what touches it, stands before any film there. Gates by name, and
    for each film the gates it waits for. What a part still sands between its own films is its own affair."""
    # What lies elsewhere dirties no wall, and no wall dirties it.
    items = [i for i in items if i.in_place]
    early = [i for i in items if i.first_film is None or i.number < i.first_film]
    dirty = [i for i in early if any(o.kind in DIRTY for o in i.stint.operations)]
    wet = [i for i in dirty if any(o.kind.wets for o in i.stint.operations)]
    beside = touching(bundle.property.faces)
    gates: Gates = {}
    for face in dict.fromkeys(i.part.face.id for i in items):
        mine = [After(i.id) for i in dirty if i.part.face.id == face]
        theirs = [After(i.id) for i in wet if i.part.face.id in beside.get(face, ())]
        gates[f"clean.{face}"] = (*mine, *theirs)
    waits: dict[str, tuple[str, ...]] = {
        i.id: (f"clean.{i.part.face.id}",) for i in items if i.stint.full_film and gates[f"clean.{i.part.face.id}"]
    }
    return {name: edges for name, edges in gates.items() if edges}, waits


def contained_first(items: Sequence[WorkItem], bundle: JobBundle) -> tuple[Gates, dict[str, tuple[str, ...]]]:
    """Paint that may hold lead is taken off, be it as chalk, only once its face is contained, with whichever part that
    stands. Gates by name, and for each piece of such work the gate it waits for."""
    return _set_up_first("contain", Technique.CONTAIN, items, bundle, lambda i: frees_lead_paint(i, bundle))


def covered_first(items: Sequence[WorkItem], bundle: JobBundle) -> tuple[Gates, dict[str, tuple[str, ...]]]:
    """Nothing drips or falls on a face before the ground below it is covered, with whichever part that stands. Gates
    and waits as above."""
    return _set_up_first("cover", Technique.COVER, items, bundle, _drops)


def _drops(item: WorkItem) -> bool:
    return item.in_place and any(o.kind in DIRTY or o.kind.lays_film for o in item.stint.operations)


def _set_up_first(
    name: str,
    technique: Technique,
    items: Sequence[WorkItem],
    bundle: JobBundle,
    waiting: Callable[[WorkItem], bool],
) -> tuple[Gates, dict[str, tuple[str, ...]]]:
    """What sets a face up comes before all work on it that is `waiting`."""
    late = bundle.schools["order"] == "fields-first"
    set_up = [i for i in items if any(o.technique is technique for o in i.stint.operations)]
    gates: Gates = {}
    waits: dict[str, tuple[str, ...]] = {}
    for face in dict.fromkeys(i.part.face.id for i in set_up):
        mine = [i for i in set_up if i.part.face.id == face]
        gates[f"{name}.{face}"] = tuple(After(i.id) for i in mine)
        for item in items:
            if item.part.face.id != face or item in mine or not waiting(item):
                continue
            # Trim begins after the field's first stint: that one cannot wait for what stands with trim.
            first = item.number == 0 and not item.trim and late and any(m.trim for m in mine)
            if not first:
                waits[item.id] = (f"{name}.{face}",)
    return gates, waits


def frees_lead_paint(item: WorkItem, bundle: JobBundle) -> bool:
    """Whether this piece of work takes off old paint in which lead was found or is presumed."""
    return any(frees_lead(bundle, item.part.part, o.kind, [o.technique]) for o in item.stint.operations if o.technique)


def touching(faces: Sequence[Face]) -> Mapping[str, frozenset[str]]:
    """Which faces touch: walls that share a corner, and all that is no wall with the walls of its building."""
    walls = house_plan(tuple(faces))
    ends = {w.face.id: (w.start, w.end) for w in walls}
    out: dict[str, set[str]] = {f.id: set() for f in faces}
    for a in faces:
        for b in faces:
            if a.id == b.id or a.building != b.building:
                continue
            if a.id in ends and b.id in ends:
                gap = min(hypot(p[0] - q[0], p[1] - q[1]) for p in ends[a.id] for q in ends[b.id])
                near = gap <= BESIDE_M
            else:
                near = True
            if near:
                out[a.id].add(b.id)
    return {id_: frozenset(found) for id_, found in out.items()}


def on_face(item: WorkItem, items: Sequence[WorkItem], bundle: JobBundle) -> list[After]:
    """What another part of the face must have behind it first, after the school of the order on a face.

    Fields first: trim begins after the field's first stint, its first coat once the field's last film is dry to touch.
    Trim first: the field's first coat comes once the trim's last film is. What was bared is primed before that.
    """
    late = bundle.schools["order"] == "fields-first"
    if item.trim is not late or (item.part.item_kind and not item.trim) or not item.in_place:
        return []
    others = [
        o
        for o in items
        if o.part.face.id == item.part.face.id
        and o.trim is not late
        and (not o.part.item_kind or o.trim)
        and o.in_place
    ]
    out = []
    if late and item.number == 0:
        out += [After(o.id) for o in others if o.number == 0 and not o.stint.lays_film]
    if item.number == item.first_coat:
        out += [After(o.id, 0, DryingStage.TOUCH, sanded=True) for o in others if o.number == o.last_film]
    return out


def hung_back_last(item: WorkItem, items: Sequence[WorkItem]) -> list[After]:
    """What came down from a wall goes back when every film of that wall is dry to touch: its fittings with a wall, and
    the items that hang before one."""
    if not item.goes_back:
        return []
    behind = [
        o
        for o in items
        if o.part.face.id == item.part.face.id and not o.part.item_kind and o.in_place and o.number == o.last_film
    ]
    return [After(o.id, 0, DryingStage.TOUCH, sanded=True) for o in behind]


def soon_after(item: WorkItem, items: Sequence[WorkItem]) -> list[Soon]:
    """What a film should follow by the next day: the masking it is laid against, and the work that bared its ground."""
    if not item.stint.lays_film:
        return []
    before = [o for o in items if o.number < item.number and item.overlaps(o)]
    films = [o.number for o in before if o.stint.lays_film]
    out = []
    for other in before:
        techniques = {o.technique for o in other.stint.operations}
        if Technique.MASK in techniques and item.stint.full_film and not any(n > other.number for n in films):
            out.append(Soon(other.id, 1, "tape that stands for days tears off or leaves its glue"))
        bares = any(o.kind in BARES for o in other.stint.operations)
        if bares and item.stint.first.bare and not any(n > other.number for n in films):
            out.append(Soon(other.id, 1, "what was bared greys and takes up rain"))
    return out
