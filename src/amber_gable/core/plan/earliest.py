"""Earliest-first planning for one crew: at each moment the task that can begin soonest goes next.

A serial schedule: windows, waits and stages of what lies below and the crew's shifts are respected; a task is never
split, because sections already end at natural breaks.
"""

from collections.abc import Sequence
from math import ceil, inf

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.tasks import SLOT_MIN, VISIT_MIN, After, Openings, OpenTask, Placement, Refusal, openings
from amber_gable.domain.progress import Progress, unseen

NEVER = 10**9


class Board:
    """What is placed so far, and for each task how many it still waits for, from when it could begin, and `behind`
    which task that is so."""

    def __init__(self, tasks: Sequence[OpenTask], shift: npt.NDArray[np.int64], start: int, begin: int) -> None:
        self.tasks = {t.id: t for t in tasks}
        self.start, self.placed = start, dict[str, Placement]()
        self.open = {t.id: openings(t.allowed, shift) for t in tasks if t.minutes}
        self.followers: dict[str, list[tuple[OpenTask, After]]] = {t.id: [] for t in tasks}
        self.lacking, self.ready, self.latest = dict[str, int](), dict[str, int](), dict[str, float]()
        self.behind: dict[str, str] = {}
        for task in tasks:
            for edge in task.after:
                self.followers[edge.id].append((task, edge))
            self.lacking[task.id] = len(task.after)
            self.ready[task.id] = NEVER if task.not_before is None else max(begin, task.not_before)
            self.latest[task.id] = inf
        self.chain = _chains(self.tasks, self.followers)
        for task in tasks:
            if not task.minutes and not self.lacking[task.id]:
                self._pass(task)

    def put(self, placement: Placement) -> None:
        self.placed[placement.id] = placement
        task = self.tasks[placement.id]
        for follower, edge in self.followers[task.id]:
            self.lacking[follower.id] -= 1
            from_ = self._from(task, placement, edge)
            if from_ >= self.ready[follower.id]:
                self.ready[follower.id] = from_
                self.behind[follower.id] = task.id if task.minutes else self.behind.get(task.id, task.id)
            if edge.stage is not None and not edge.sanded and task.latest_after is not None and follower.stages:
                self.latest[follower.id] = min(self.latest[follower.id], placement.end + task.latest_after)
            if not follower.minutes and not self.lacking[follower.id]:
                self._pass(follower)

    def _pass(self, gate: OpenTask) -> None:
        at = self.ready[gate.id]
        self.put(Placement(gate.id, at, at, at, None))

    def _from(self, task: OpenTask, placement: Placement, edge: After) -> int:
        """The minute from which what follows may begin."""
        if edge.stage is None or not task.stages:
            return placement.end + edge.wait_min
        at = float(task.stages[edge.stage][max(0, ceil(placement.end / SLOT_MIN) - 1)])
        return ceil((at - self.start) / 60) if np.isfinite(at) else NEVER


def _chains(tasks: dict[str, OpenTask], followers: dict[str, list[tuple[OpenTask, After]]]) -> dict[str, int]:
    """The length of the longest chain of steps that waits behind each task."""
    depth: dict[str, int] = {}

    def chain(id_: str) -> int:
        if id_ not in depth:
            depth[id_] = max((bool(f.minutes) + chain(f.id) for f, _ in followers[id_]), default=0)
        return depth[id_]

    return {id_: chain(id_) for id_ in tasks}


def place(
    candidates: Sequence[OpenTask],
    shift: npt.NDArray[np.int64],
    start: int,
    begin: int = 0,
    progress: Progress = unseen,
) -> tuple[list[Placement], list[Refusal]]:
    """Place the tasks on slots that begin at epoch second `start`, from minute `begin` on.

    shift (S,) numbers each slot's crew shift, -1 outside. What is under way goes on first. Of the tasks that can begin
    soonest, the one on the face being worked goes first, then the one with the longest chain of steps behind it, then
    the one with the fewest chances left, then the order given. Same input, same plan.
    """
    board = Board(candidates, shift, start, begin)
    rank = {t.id: n for n, t in enumerate(candidates)}
    waiting = [t.id for t in candidates if t.minutes]
    now, face, last = begin, "", None
    count = len(waiting)
    while True:
        done = count - len(waiting)
        progress(done / max(count, 1), f"{done} of {count} steps placed")
        best: tuple[tuple[object, ...], str, int] | None = None
        for id_ in waiting:
            if board.lacking[id_] or board.ready[id_] >= NEVER:
                continue
            task, ready = board.tasks[id_], board.ready[id_]
            at = _begins(task, board.open[id_], max(ready, now), now, face)
            if at is None or at > board.latest[id_]:
                continue
            chances = board.open[id_].count(at, task.minutes)
            soon = max(at, now + VISIT_MIN) if at < now + VISIT_MIN else at
            key = (soon, not task.under_way, task.face != face, -board.chain[id_], chances, rank[id_])
            if best is None or key < best[0]:
                best = (key, id_, at)
        if best is None:
            break
        _, id_, at = best
        task = board.tasks[id_]
        held = last if now > board.ready[id_] and last is not None else None
        board.put(Placement(id_, at, at + task.minutes, board.ready[id_], held, behind=board.behind.get(id_)))
        now, face, last = at + task.minutes, task.face, id_
        waiting.remove(id_)
    placed = sorted((p for p in board.placed.values() if board.tasks[p.id].minutes), key=lambda p: p.start)
    return placed, [refusal(board, id_) for id_ in waiting]


def _begins(task: OpenTask, open_: Openings, ready: int, now: int, face: str) -> int | None:
    """The first minute it can begin: at once on the face being worked, elsewhere on a mark of the clock."""
    if ready > now or task.face != face:
        ready = ceil(ready / VISIT_MIN) * VISIT_MIN
    return open_.first(ready, task.minutes)


def refusal(board: Board, id_: str) -> Refusal:
    """Why a task is left out."""
    task = board.tasks[id_]
    missing = next((e.id for e in task.after if e.id not in board.placed), None)
    if missing is not None:
        while not board.tasks[missing].minutes:
            missing = next(e.id for e in board.tasks[missing].after if e.id not in board.placed)
        return Refusal(id_, "after", missing, refusal(board, missing).root)
    if task.not_before is None:
        return Refusal(id_, "held", task.held_by, id_)
    ready = board.ready[id_]
    if ready >= len(task.allowed) * SLOT_MIN:
        return Refusal(id_, "ready", "", id_)
    first = board.open[id_].first(ready, task.minutes)
    if first is not None:
        return Refusal(id_, "recoat" if first > board.latest[id_] else "crew", "", id_)
    slot = ready // SLOT_MIN
    letters = task.letters[slot:]
    letters = letters[(letters != "") & (letters != "N")]
    values, counts = np.unique(letters, return_counts=True)
    some = bool(task.allowed[slot:].any())
    if not len(values) and not some:
        return Refusal(id_, "late", "", id_)
    most = str(values[np.argmax(counts)]) if len(values) else "N"
    return Refusal(id_, "short" if some else "weather", most, id_)
