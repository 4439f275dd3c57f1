"""How far each step of each part has come, from the record of the site."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from math import floor

from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.waits import WHOLE
from amber_gable.domain.job.site_record import Extent, Said, SiteEntry, standing
from amber_gable.domain.work.mending import Mend
from amber_gable.domain.work.operation import Operation

_LEAST = 1e-6
"""Shares of a width nearer than this are the same place."""


@dataclass(frozen=True)
class RecordPiece:
    """A stretch of a part, in shares of its width, and the entry that speaks of it."""

    left: float
    right: float
    entry: SiteEntry


@dataclass
class StepRecord:
    """Of one step on one part: what was done, what is under way, what was said to be not done, and where the test that
    ends its wait was passed. The pieces of each do not overlap."""

    done: list[RecordPiece] = field(default_factory=list)
    running: list[RecordPiece] = field(default_factory=list)
    refused: list[RecordPiece] = field(default_factory=list)
    tested: list[RecordPiece] = field(default_factory=list)


Progress = dict[tuple[Key, str], StepRecord]
"""By part and step."""


def progress(record: Sequence[SiteEntry]) -> Progress:
    """The record's entries in the order they were noted; later ones speak over earlier ones where they overlap."""
    out: Progress = {}
    for entry in standing(tuple(record)):
        if entry.extent is None:
            continue
        if entry.how_far is not None:
            # Who says how far it is has stopped there.
            whole = RecordPiece(entry.extent.left, entry.extent.right, entry)
            for held in (out.get((p, s)) for p in entry.extent.parts for s in entry.steps):
                if held is not None:
                    held.running = _without(held.running, whole)
        for key, left, right in _spoken_of(entry.extent, entry.how_far):
            for step in entry.steps:
                _enter(out.setdefault((key, step), StepRecord()), RecordPiece(left, right, entry))
    return out


def _spoken_of(extent: Extent, how_far: float | None) -> list[tuple[Key, float, float]]:
    """The stretches an entry speaks of. Of several parts, part done means that many of them whole."""
    left, right = extent.left, extent.right
    if how_far is None:
        return [(p, left, right) for p in extent.parts]
    if len(extent.parts) == 1:
        return [(extent.parts[0], left, left + how_far * (right - left))]
    return [(p, left, right) for p in extent.parts[: floor(how_far * len(extent.parts) + _LEAST)]]


def _enter(step: StepRecord, piece: RecordPiece) -> None:
    said = piece.entry.said
    if said in (Said.TESTED, Said.NOT_READY):
        step.tested = _without(step.tested, piece)
        if said is Said.TESTED:
            step.tested = _sorted(step.tested, piece)
        return
    step.running = _without(step.running, piece)
    step.refused = _without(step.refused, piece)
    if said is Said.STARTED:
        step.running = _sorted(step.running, piece)
        return
    step.done = _without(step.done, piece)
    if said is Said.NOT_DONE:
        step.refused = _sorted(step.refused, piece)
    else:
        step.done = _sorted(step.done, piece)


def _sorted(pieces: list[RecordPiece], more: RecordPiece) -> list[RecordPiece]:
    return sorted([*pieces, more], key=lambda p: p.left)


def _without(pieces: Iterable[RecordPiece], taken: RecordPiece) -> list[RecordPiece]:
    out = []
    for p in pieces:
        for left, right in ((p.left, min(p.right, taken.left)), (max(p.left, taken.right), p.right)):
            if right - left > _LEAST:
                out.append(RecordPiece(left, right, p.entry))
    return out


def left_to_note(
    extent: Extent, steps: Sequence[str], operations: Mapping[Key, Sequence[Operation]], found: Progress
) -> list[tuple[Extent, tuple[str, ...]]]:
    """What of some steps is not noted yet on an extent, like stretches of several parts together."""
    out: dict[tuple[float, float, tuple[str, ...]], list[Key]] = {}
    for key in extent.parts:
        for cell in cells(key, operations.get(key, ()), found):
            left, right = max(extent.left, cell.left), min(extent.right, cell.right)
            lacking = tuple(
                o.id for o, d in zip(cell.operations, cell.done, strict=True) if o.id in steps and d is None
            )
            if right - left > _LEAST and lacking:
                out.setdefault((left, right, lacking), []).append(key)
    return [
        (Extent(parts=tuple(parts), left=left, right=right), lacking) for (left, right, lacking), parts in out.items()
    ]


@dataclass(frozen=True)
class Cell:
    """A stretch of a part on which the same steps were done. `operations` without those that a look did not ask for;
    `done` has an entry for each that was noted as done;
    `passed` are steps before a later one that was done, which nobody noted; `open` what is still to do, in order;
    `tested` the test of each step's wait, where it was passed."""

    left: float
    right: float
    operations: tuple[Operation, ...]
    done: tuple[SiteEntry | None, ...]
    open: tuple[Operation, ...]
    passed: tuple[Operation, ...]
    running: SiteEntry | None
    refused: SiteEntry | None
    tested: tuple[SiteEntry | None, ...] = ()

    @property
    def share(self) -> float:
        return self.right - self.left

    def entry_of(self, step: str) -> SiteEntry | None:
        """What was noted of a step as done."""
        return next((e for o, e in zip(self.operations, self.done, strict=True) if o.id == step), None)


def cells(key: Key, operations: Sequence[Operation], found: Progress) -> list[Cell]:
    """The part from left to right, cut wherever its steps have come to different points."""
    steps = [found.get((key, o.id), StepRecord()) for o in operations]
    edges = {0.0, 1.0} | {x for o in operations if isinstance(o, Mend) for x in (o.left, o.right)}
    for step in steps:
        edges |= {x for p in (*step.done, *step.running, *step.refused, *step.tested) for x in (p.left, p.right)}
    cuts = _apart(sorted(edges))
    out: list[Cell] = []
    for left, right in pairwise(cuts):
        cell = _cell(tuple(operations), steps, left, right)
        before = out[-1] if out else None
        if before is not None and _alike(before, cell):
            out[-1] = _cell(tuple(operations), steps, before.left, right)
        else:
            out.append(cell)
    return out


def _apart(edges: list[float]) -> list[float]:
    out = [edges[0]]
    for x in edges[1:]:
        if x - out[-1] > _LEAST:
            out.append(x)
    out[-1] = edges[-1]
    return out


def _alike(a: Cell, b: Cell) -> bool:
    return (a.done, a.open, a.running, a.refused, a.tested) == (b.done, b.open, b.running, b.refused, b.tested)


def _cell(operations: tuple[Operation, ...], steps: list[StepRecord], left: float, right: float) -> Cell:
    def over(pieces: list[RecordPiece]) -> SiteEntry | None:
        return next((p.entry for p in pieces if p.left <= left + _LEAST and p.right >= right - _LEAST), None)

    if any(isinstance(o, Mend) for o in operations):
        # What mends a spoiled film is a step of the stretch on which it was spoiled.
        there = [(o, s) for o, s in zip(operations, steps, strict=True) if not isinstance(o, Mend) or o.on(left, right)]
        operations, steps = tuple(o for o, _ in there), [s for _, s in there]
    if any((entry := over(s.done)) is not None and entry.said is Said.ENOUGH for s in steps):
        # What the look did not ask for is no step of this stretch.
        wanted = [(o, s) for o, s in zip(operations, steps, strict=True) if not o.possible]
        operations, steps = tuple(o for o, _ in wanted), [s for _, s in wanted]
    done = tuple(over(s.done) for s in steps)
    running = [over(s.running) for s in steps]
    refused = [over(s.refused) for s in steps]
    # A step under way means that those before it are behind, as one that is done does.
    reached = max((i for i, (d, r) in enumerate(zip(done, running, strict=True)) if d or r), default=-1)
    open_ = tuple(
        o
        for i, (o, d) in enumerate(zip(operations, done, strict=True))
        if d is None and (i > reached or running[i] is not None or refused[i] is not None)
    )
    passed = tuple(o for i, o in enumerate(operations) if i < reached and done[i] is None and o not in open_)
    return Cell(
        left=left,
        right=right,
        operations=operations,
        done=done,
        open=open_,
        passed=passed,
        running=next((e for e in running if e is not None), None),
        refused=next((e for e in refused if e is not None), None),
        tested=tuple(over(s.tested) for s in steps),
    )


@dataclass(frozen=True)
class Laid:
    """A stretch of a part with films on it: how many of its coats and primers all over, and the colour on top."""

    left: float
    right: float
    films: int
    of: int
    colour: str


def laid_films(found: Sequence[Cell]) -> list[Laid]:
    """What stands on a part, from left to right; stretches without a film are left out."""
    out = []
    for cell in found:
        films = [(n, o) for n, o in enumerate(cell.operations) if o.kind.lays_film and o.share >= WHOLE]
        # A film that was laid again stands for the one that was spoiled.
        whole = [n for n, o in films if not isinstance(o, Mend)]
        done = [e for n in whole if (e := cell.done[n]) is not None]
        if done and done[-1].colour is not None:
            out.append(Laid(cell.left, cell.right, len(done), len(whole), done[-1].colour))
    return out


def share_behind(operations: Sequence[Operation], found: Sequence[Cell]) -> float:
    """How much of a part's steps is behind, from 0 to 1, each counting alike."""
    count = max(len(operations), 1)
    return sum(c.share * (count - len(c.open)) / count for c in found)
