"""Where a planned task stands by the record of the site: one rule, whether the weather is known or not."""

from collections.abc import Callable, Iterator, Sequence
from datetime import datetime
from enum import StrEnum

from amber_gable.core.state.progress import Cell
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.domain.job.plan import Task
from amber_gable.domain.work.operation import Operation

_LEAST = 1e-6
"""Two places along a part, as shares of its width, that are closer than this count as the same."""


class Status(StrEnum):
    """Where a planned task stands. `late`: its time is over; `due`: its time is now; `gone`: its part or its steps are
    no longer in the job."""

    DONE = "done"
    RUNNING = "running"
    LATE = "late"
    DUE = "due"
    AHEAD = "ahead"
    GONE = "gone"


TaskPiece = tuple[Key, int, tuple[Operation, ...]]
"""A part, the number of one of its cells from the left, and what of the task is open there."""


def task_pieces(task: Task, cells_of: Callable[[Key], Sequence[Cell]]) -> list[TaskPiece]:
    """The stretches that the task is on. `cells_of` gives a part's cells from left to right, none for one that gets no
    paint. A step that was passed over is not open: later work on the stretch was done or is under way."""
    return list(_pieces(task, cells_of))


def _pieces(task: Task, cells_of: Callable[[Key], Sequence[Cell]]) -> Iterator[TaskPiece]:
    if task.extent is None:
        return
    for key in task.extent.parts:
        for number, cell in enumerate(cells_of(key)):
            if not {o.id for o in cell.operations} & set(task.steps):
                break
            if cell.left < task.extent.right - _LEAST and cell.right > task.extent.left + _LEAST:
                yield key, number, tuple(o for o in cell.open if o.id in task.steps)


def task_status(
    task: Task, pieces: Sequence[TaskPiece], cells_of: Callable[[Key], Sequence[Cell]], now: datetime
) -> Status:
    """By what is left of it (`task_pieces`), by what is under way, and else by the clock."""
    if not pieces:
        return Status.GONE
    left = [cells_of(key)[number] for key, number, operations in pieces if operations]
    if not left:
        return Status.DONE
    if any(c.running is not None and set(c.running.steps) & set(task.steps) for c in left):
        return Status.RUNNING
    if task.end <= now:
        return Status.LATE
    return Status.DUE if task.start <= now else Status.AHEAD
