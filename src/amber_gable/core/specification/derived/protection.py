"""What is done once for a face, and with which of its parts: covering with the first that is worked on, containment
with the first whose work disturbs old paint."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from math import ceil

from amber_gable.core.specification.cautions.dangers import DANGERS, Danger
from amber_gable.core.specification.derived.diagnosis import derive
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts, part_key
from amber_gable.core.work.labour import part_labour
from amber_gable.core.work.pace import Pace, pace_of
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

_BREAKS = {Danger.ABRASION, Danger.HEAT, Danger.CAUSTIC, Danger.METHYLENE}
CHALKS = ("light", "heavy")
"""Grades of chalking that scrubbing takes off."""
_DAY_H = 7.0
"""Of a working day, what is left for the work itself once the sheets lie and are cleaned again."""


ROLES = frozenset(
    {"contain", "lay-again", "daily-clean", "final-check", "cover", "cut-back", "fittings-down", "fittings-back"}
)
"""Steps that are done once for a face."""


@dataclass(frozen=True)
class Protection:
    """`first`: what is done once for the face is done with this part. `contains`: so is its containment, for
    `dusty_days`."""

    first: bool
    contains: bool
    dusty_days: int


def disturbs(technique: Technique | None, kind: OperationKind, chalks: bool) -> bool:
    """Whether work breaks an old film, dry or wet; scrubbing breaks nothing but takes chalk off."""
    if technique is None:
        return False
    return bool(DANGERS[technique] & _BREAKS) or (chalks and kind is OperationKind.WASH)


COME_OFF = ("panelled-door", "flush-door", "glazed-door", "sash-window", "casement", "shutter-pair")
"""Kinds of items that may be painted elsewhere."""


def _away(bundle: JobBundle, part: PaintedPart, schools: Mapping[str, str] | None = None) -> bool:
    """Whether the part is painted elsewhere, under `schools` or those of its finish; a company's system is laid in
    place."""
    finish = bundle.finish_of(*part.key)
    if schools is None and finish is not None and not finish.derived:
        return False
    held = schools or {**bundle.schools, **(finish.schools if finish is not None else {})}
    return part.item_kind in COME_OFF and held["place"] != "in-place"


def protection(bundle: JobBundle, part: PaintedPart, facts: Callable[[PaintedPart], Facts]) -> Protection:
    """Of a part, in a job where `facts` are those of a part by itself. Worked on is what has a finish, and the part
    that is asked about."""
    worked = _worked(bundle, part)
    parts, mine = painted_parts(bundle.property, bundle.deduction), facts(part)
    away = _away(bundle, part, mine.schools)
    # What is taken away drips on no ground here, and is contained where it lies.
    worked = [k for k in worked if k == part.key or _away(bundle, parts[k]) is away]
    own = [p for p in worked if p == part.key or _derived(bundle, p)]
    first = own[0] == part.key and not away
    if not mine.get("lead"):
        return Protection(first, False, 0)
    pace = pace_of(bundle)

    @cache
    def hours(key: Key) -> float:
        return _dusty_hours(bundle, parts[key], part, facts, pace)

    dusty = next((k for k in own if hours(k)), None)
    if dusty not in (None, part.key) or (dusty is None and own[0] != part.key):
        # Its containment stands with another part.
        return Protection(first, False, 0)
    total = sum(hours(k) for k in worked)
    return Protection(first, total > 0, max(1, ceil(total / (_DAY_H * pace.people))))


def _worked(bundle: JobBundle, part: PaintedPart) -> list[Key]:
    """The parts of its face that are worked on, the zone that takes the rest of the face first."""
    place, face = bundle.property, part.face.id
    zones = place.zones_of(face)
    rest = [z for z in zones if z.area.kind == "face"]
    every: Iterable[Zone | Item] = (*rest, *(z for z in zones if z not in rest), *place.items_of(face))
    keys = (part_key(p) for p in every)
    return [k for k in dict.fromkeys(keys) if k == part.key or bundle.finish_of(*k) is not None]


def _derived(bundle: JobBundle, key: Key) -> bool:
    finish = bundle.finish_of(*key)
    return finish is not None and finish.derived


def _dusty_hours(
    bundle: JobBundle, part: PaintedPart, asked: PaintedPart, facts: Callable[[PaintedPart], Facts], pace: Pace
) -> float:
    """Person-hours of the work that disturbs old paint on a part; none where nothing was ever painted."""
    known = facts(part)
    if known.get("painted") is False:
        return 0.0
    chalks = known.get("chalking") in CHALKS
    return sum(
        part_labour(part, o, pace).hours
        for o in _operations(bundle, part, asked, known)
        if disturbs(o.technique, o.kind, chalks)
    )


def _operations(bundle: JobBundle, part: PaintedPart, asked: PaintedPart, facts: Facts) -> Iterator[Operation]:
    """The preparation of a part: of a company's system as it stands there, else as the rules give it."""
    finish = bundle.finish_of(*part.key)
    if finish is not None and not finish.derived and part.key != asked.key:
        yield from bundle.operations(finish)
        return
    try:
        steps = derive(facts).steps
    except NoSteps:
        return
    for step in steps:
        if not step.kind.lays_film and step.technique is not None:
            yield Operation(
                id=step.role,
                name=step.name,
                kind=step.kind,
                technique=step.technique,
                share=step.share,
                amount=step.amount,
                unit=step.unit,
            )


BESIDE = frozenset({"mask-left", "unmask-left"})
"""Steps for what stays as it is beside the part."""


def unprotected(operations: Iterable[Operation]) -> list[Operation]:
    """Without what is done once for a face."""
    return [o for o in operations if o.id not in ROLES]


def by_itself(operations: Iterable[Operation]) -> list[Operation]:
    """Without what is done once for a face, and for what stays as it is there."""
    return [o for o in unprotected(operations) if o.id not in BESIDE]
