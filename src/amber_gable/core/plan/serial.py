"""Earliest-first planning for people who work apart: of the tasks that can begin soonest the one with the longest chain
behind it goes next, with as many hands as let it end soonest.

Time is cut into marks of the clock of `VISIT_MIN`; a task holds its hands until the mark after its end, which is what
going to the next one takes.
"""

from collections.abc import Sequence
from math import ceil

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.earliest import NEVER, Board, refusal
from amber_gable.core.plan.tasks import SLOT_MIN, VISIT_MIN, Openings, OpenTask, Placement, Refusal
from amber_gable.domain.progress import Progress, unseen

MARKS = SLOT_MIN // VISIT_MIN


class Hands:
    """How many people are free at each mark, and from each mark on for how many marks so many are."""

    def __init__(self, there: npt.NDArray[np.int64]) -> None:
        """`there` (S,): how many people there are in each slot."""
        self.free = np.repeat(there, MARKS)
        self.people = int(there.max(initial=0))
        self._runs: dict[int, npt.NDArray[np.int64]] = {}

    def take(self, start: int, end: int, hands: int) -> None:
        """Marks [start, end)."""
        self.free[start:end] -= hands
        self._runs.clear()

    def runs(self, hands: int) -> npt.NDArray[np.int64]:
        if hands not in self._runs:
            self._runs[hands] = runs_of(self.free >= hands)
        return self._runs[hands]


def runs_of(good: npt.NDArray[np.bool_]) -> npt.NDArray[np.int64]:
    """From each place on, how many in a row are good."""
    index = np.arange(len(good))
    breaks = np.append(np.flatnonzero(~good), len(good))
    return breaks[np.searchsorted(breaks, index)] - index


def place_hands(
    candidates: Sequence[OpenTask],
    shift: npt.NDArray[np.int64],
    start: int,
    there: npt.NDArray[np.int64],
    begin: int = 0,
    progress: Progress = unseen,
) -> tuple[list[Placement], list[Refusal]]:
    """Place the tasks for `there` (S,) people in each slot; the rest as `earliest.place`. Every task has modes, or
    takes all hands."""
    board = Board(candidates, shift, start, begin)
    rank = {t.id: n for n, t in enumerate(candidates)}
    hands = Hands(there)
    open_ = {id_: open_marks(o) for id_, o in board.open.items()}
    waiting = [t.id for t in candidates if t.minutes]
    count = len(waiting)
    ends: dict[int, set[str]] = {}
    while True:
        done = count - len(waiting)
        progress(done / max(count, 1), f"{done} of {count} steps placed")
        best: tuple[tuple[object, ...], str, int, int, int] | None = None
        for id_ in waiting:
            if board.lacking[id_] or board.ready[id_] >= NEVER:
                continue
            task = board.tasks[id_]
            found = _soonest(task, open_[id_], hands, ceil(board.ready[id_] / VISIT_MIN))
            if found is None or found[1] * VISIT_MIN > board.latest[id_]:
                continue
            _, at, who, minutes = found
            goes_on = task.face in ends.get(at, ())
            chances = int((open_[id_][at:] * VISIT_MIN >= minutes).sum())
            key = (not task.under_way, at, not goes_on, -board.chain[id_], chances, rank[id_])
            if best is None or key < best[0]:
                best = (key, id_, at, who, minutes)
        if best is None:
            break
        _, id_, at, who, minutes = best
        task, until = board.tasks[id_], at + ceil(minutes / VISIT_MIN)
        begins = at * VISIT_MIN
        board.put(Placement(id_, begins, begins + minutes, board.ready[id_], None, who))
        hands.take(at, until, who)
        ends.setdefault(until, set()).add(task.face)
        waiting.remove(id_)
    placed = sorted((p for p in board.placed.values() if board.tasks[p.id].minutes), key=lambda p: p.start)
    return placed, [refusal(board, id_) for id_ in waiting]


def open_marks(openings: Openings) -> npt.NDArray[np.int64]:
    """From each mark on, for how many marks of one shift it is open; none or less where it is shut."""
    return np.repeat(openings.minutes, MARKS) // VISIT_MIN - np.tile(np.arange(MARKS), len(openings.minutes))


def modes_of(task: OpenTask, people: int) -> tuple[tuple[int, int], ...]:
    """(hands, minutes) in which a task may be done by people who work apart."""
    return task.modes or ((people, task.minutes),)


def _soonest(
    task: OpenTask, open_: npt.NDArray[np.int64], hands: Hands, ready: int
) -> tuple[int, int, int, int] | None:
    """(end, begin, hands, minutes) in marks, of the mode that ends soonest; of like ones the one with fewest hands."""
    best: tuple[int, int, int, int] | None = None
    for who, minutes in modes_of(task, hands.people):
        if who > hands.people:
            continue
        need = ceil(minutes / VISIT_MIN)
        fits = (open_[ready:] >= need) & (hands.runs(who)[ready:] >= need)
        at = ready + int(np.argmax(fits)) if fits.any() else None
        if at is not None and (best is None or at + need < best[0]):
            best = (at + need, at, who, minutes)
    return best
