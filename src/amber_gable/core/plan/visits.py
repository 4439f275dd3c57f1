"""Small steps of one visit put together: what a crew does on a face in one go, and ticks off in one touch."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from amber_gable.core.state.job_state import TaskState
from amber_gable.core.state.task_status import Status
from amber_gable.domain.job.plan import Task
from amber_gable.domain.work.operation import Technique

SMALL = timedelta(minutes=30)
LONGEST = timedelta(hours=2)
_GAP = timedelta(minutes=5)


@dataclass(frozen=True)
class Visit:
    """Tasks that follow one another on a face."""

    tasks: tuple[TaskState, ...]

    @property
    def first(self) -> Task:
        return self.tasks[0].task

    @property
    def start(self) -> datetime:
        return self.first.start

    @property
    def end(self) -> datetime:
        return max(t.task.end for t in self.tasks)

    @property
    def status(self) -> Status:
        order = (Status.RUNNING, Status.LATE, Status.DUE, Status.AHEAD, Status.DONE, Status.GONE)
        return min((t.status for t in self.tasks), key=order.index)

    @property
    def hours(self) -> float:
        return (self.end - self.start).total_seconds() / 3600


def visits(tasks: Sequence[TaskState]) -> list[Visit]:
    """Tasks in the order of their start, bundled."""
    out: list[list[TaskState]] = []
    for state in sorted(tasks, key=lambda t: t.task.start):
        if out and _goes_along(out[-1], state):
            out[-1].append(state)
        else:
            out.append([state])
    return [Visit(tuple(group)) for group in out]


def _goes_along(group: Sequence[TaskState], state: TaskState) -> bool:
    first, last, task = group[0].task, group[-1].task, state.task
    if Technique.INSPECT in (*last.techniques, *task.techniques):
        # A look has an answer of its own.
        return False
    if task.face != last.face or task.start - last.end > _GAP or task.end - first.start > LONGEST:
        return False
    if task.start < last.end:
        # Somebody else is at it meanwhile.
        return False
    if min(last.end - last.start, task.end - task.start) >= SMALL:
        return False
    # A can is opened for one film; what lays none goes along with what lays none.
    return (last.product, last.colour, last.method) == (task.product, task.colour, task.method)
