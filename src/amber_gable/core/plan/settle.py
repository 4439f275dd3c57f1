"""What a solver placed, moved up within its day as far as the true waits and the hands allow, with what kept it."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from math import ceil, inf
from types import MappingProxyType

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.earliest import Board
from amber_gable.core.plan.open_tasks import PlanTasks
from amber_gable.core.plan.serial import Hands, open_marks
from amber_gable.core.plan.tasks import VISIT_MIN, Placement

_DAY = 24 * 60 // VISIT_MIN


def settled(
    found: PlanTasks, placements: Sequence[Placement], stand: Mapping[str, tuple[int, int]] = MappingProxyType({})
) -> list[Placement]:
    """No task comes later than it was placed, and none on another day. A film with a longest time for its follower
    stays where it is; what began later in the plan before (`stand`) is moved up no further. `earliest` and `busy_with`
    are filled in."""
    board = Board(found.tasks, found.shift, found.site.slots.start, found.first)
    hands = Hands(found.there)
    out: list[Placement] = []
    open_ = {id_: open_marks(o) for id_, o in board.open.items()}
    for placed in sorted(placements, key=lambda p: (p.start, p.end)):
        task, minutes = board.tasks[placed.id], placed.end - placed.start
        need, ready, at = ceil(minutes / VISIT_MIN), board.ready[placed.id], placed.start // VISIT_MIN
        if task.latest_after is None and board.latest[placed.id] == inf:
            before = stand.get(placed.id, (0, 0))[0] // VISIT_MIN
            first = max(ceil(ready / VISIT_MIN), at // _DAY * _DAY, before if before <= at else 0)
            fits = (open_[placed.id][first:at] >= need) & (hands.runs(placed.hands)[first:at] >= need)
            at = first + int(np.argmax(fits)) if fits.any() else at
        start, behind = at * VISIT_MIN, board.behind.get(placed.id)
        moved = replace(placed, start=start, end=start + minutes, earliest=ready, behind=behind)
        hands.take(at, at + need, placed.hands)
        board.put(moved)
        out.append(moved)
    return [_told(p, out, open_[p.id], hands) for p in sorted(out, key=lambda p: p.start)]


def _told(placed: Placement, all_: Sequence[Placement], open_: npt.NDArray[np.int64], hands: Hands) -> Placement:
    """With what kept it from its first open moment: whoever had the hands then, or, where they were free on a day
    before it, that another day has room for it."""
    need, at = ceil((placed.end - placed.start) / VISIT_MIN), placed.start // VISIT_MIN
    first = ceil(placed.earliest / VISIT_MIN)
    could = np.flatnonzero(open_[first:at] >= need) + first
    if not could.size:
        return placed
    free = could[hands.runs(placed.hands)[could] >= need]
    if free.size and free[0] // _DAY < at // _DAY:
        return replace(placed, could=int(free[0]) * VISIT_MIN)
    before = [p for p in all_ if p.end <= placed.start and p.id != placed.id and p.end > int(could[0]) * VISIT_MIN]
    return replace(placed, busy_with=max(before, key=lambda p: p.end).id if before else None)
