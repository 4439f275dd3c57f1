"""Earliest-first planning for one crew: at each moment the task that can begin soonest goes next.

A serial schedule: windows, ready times of earlier coats and the crew's shifts are respected; a task is never split,
because sections already end at natural breaks.
"""

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.tasks import OpenTask, Placement, Refusal, runs
from amber_gable.domain.grid import SLOT_S


def place(
    candidates: Sequence[OpenTask],
    shift: npt.NDArray[np.int64],
    start: int,
    begin_slot: int = 0,
) -> tuple[list[Placement], list[Refusal]]:
    """Place the tasks on slots that begin at epoch second `start`.

    shift (S,) numbers each slot's crew shift, -1 outside. Of the tasks that can begin soonest, the one on the face
    being worked goes first, then the one with the longest chain of steps behind it, then the one with the fewest
    chances left, then the order given. Same input, same plan.
    """
    by_id = {c.id: c for c in candidates}
    openings = {c.id: np.flatnonzero(runs(c.allowed, shift, c.duration_slots)) for c in candidates}
    waited_for = _waited_for(by_id)
    placed: dict[str, Placement] = {}
    waiting = list(by_id)
    now, face, last = begin_slot, "", None
    while True:
        best: tuple[tuple[object, ...], str, int, int] | None = None
        for rank, id_ in enumerate(waiting):
            task = by_id[id_]
            if any(a not in placed for a in task.after):
                continue
            ready = _ready_slot(task, by_id, placed, start, begin_slot)
            chances = openings[id_]
            k = int(np.searchsorted(chances, max(ready, now)))
            if k == len(chances) or _too_late(task, by_id, placed, start, int(chances[k])):
                continue
            first = int(chances[k])
            key = (first, task.face != face, -waited_for[id_], len(chances) - k, rank)
            if best is None or key < best[0]:
                best = (key, id_, first, ready)
        if best is None:
            break
        _, id_, first, ready = best
        task = by_id[id_]
        held = last if now > ready and last is not None else None
        placed[id_] = Placement(id_, first, first + task.duration_slots, ready, held)
        now, face, last = first + task.duration_slots, task.face, id_
        waiting.remove(id_)
    order = sorted(placed.values(), key=lambda p: p.first)
    return order, [_refusal(by_id[i], by_id, placed, openings[i], start, begin_slot) for i in waiting]


def _waited_for(by_id: dict[str, OpenTask]) -> dict[str, int]:
    """The length of the longest chain of steps that waits behind each task."""
    followers: dict[str, list[str]] = {id_: [] for id_ in by_id}
    for task in by_id.values():
        for a in task.after:
            followers[a].append(task.id)
    depth: dict[str, int] = {}

    def chain(id_: str) -> int:
        if id_ not in depth:
            depth[id_] = max((1 + chain(f) for f in followers[id_]), default=0)
        return depth[id_]

    return {id_: chain(id_) for id_ in by_id}


def _ready_slot(
    task: OpenTask, by_id: dict[str, OpenTask], placed: dict[str, Placement], start: int, begin: int
) -> int:
    """First slot at which everything the task waits for is ready."""
    slot = begin
    for a in task.after:
        at = by_id[a].ready[placed[a].end - 1]
        slot = max(slot, int(np.ceil((at - start) / SLOT_S)) if np.isfinite(at) else len(task.allowed))
    return slot


def _too_late(task: OpenTask, by_id: dict[str, OpenTask], placed: dict[str, Placement], start: int, first: int) -> bool:
    """Past the longest recoat time of the coat below, which would want sanding first."""
    return any(
        (limit := by_id[a].latest_after) is not None and (first - placed[a].end) * SLOT_S > limit for a in task.after
    )


def _refusal(
    task: OpenTask,
    by_id: dict[str, OpenTask],
    placed: dict[str, Placement],
    openings: npt.NDArray[np.int64],
    start: int,
    begin: int,
) -> Refusal:
    missing = [a for a in task.after if a not in placed]
    if missing:
        return Refusal(task.id, "after", missing[0])
    ready = _ready_slot(task, by_id, placed, start, begin)
    if ready >= len(task.allowed):
        return Refusal(task.id, "ready", "")
    later = openings[openings >= ready]
    if len(later) and _too_late(task, by_id, placed, start, int(later[0])):
        return Refusal(task.id, "recoat", "")
    if len(later):
        return Refusal(task.id, "crew", "")
    letters = task.letters[ready:]
    letters = letters[(letters != "") & (letters != "N")]
    values, counts = np.unique(letters, return_counts=True)
    if task.allowed[ready:].any() and len(values):
        return Refusal(task.id, "short", str(values[np.argmax(counts)]))
    return Refusal(task.id, "weather", str(values[np.argmax(counts)]) if len(values) else "N")
