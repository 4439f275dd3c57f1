"""A job as it stands: the state of every part, and of each task of a plan whether it is done, under way, or may be
done."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from itertools import chain, takewhile

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.specification.cautions.stops import Stop, job_stops
from amber_gable.core.state.judgement import Answer, Judged, Verdict, hardest, judge
from amber_gable.core.state.part_state import CellState, PartState, part_states
from amber_gable.core.state.part_waits import waits_of
from amber_gable.core.state.progress import Cell, progress
from amber_gable.core.state.surroundings import Surroundings
from amber_gable.core.state.task_status import Status, task_pieces, task_status
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.core.work.stints import Stint, stints
from amber_gable.domain.job.plan import Plan, Task


@dataclass(frozen=True)
class TaskState:
    """A task held against the state of its parts; it is judged when that is asked for. `at` is now, or its planned
    start where that lies ahead."""

    task: Task
    status: Status
    at: datetime | None = None
    steps: tuple[str, ...] = ()
    judge_it: Callable[[], list[Judged]] = field(default=list, repr=False, compare=False)

    @cached_property
    def _each(self) -> list[Judged]:
        return self.judge_it()

    @cached_property
    def _pieces(self) -> list[tuple[Judged, Answer]]:
        return [(one, one.answer(self.at)) for one in self._each] if self.at is not None else []

    @property
    def ready(self) -> bool:
        """Whether no part of it waits for anything by then, whatever the weather."""
        return self.at is None or not any(one.waits_at(self.at) for one in self._each)

    @cached_property
    def _hardest(self) -> tuple[Judged, Answer] | None:
        return hardest(self._pieces) if self._pieces else None

    @property
    def judged(self) -> Judged | None:
        """The part that stands most in its way."""
        return self._hardest[0] if self._hardest is not None else None

    @property
    def answer(self) -> Answer | None:
        return self._hardest[1] if self._hardest is not None else None

    @cached_property
    def shut(self) -> tuple[datetime, str] | None:
        """The first moment of its time at which it may not go on, with the letter."""
        if self.at is None:
            return None
        end = max(self.task.end, self.at)
        return min((s for one in self._each if (s := one.first_shut(self.at, end))), default=None)

    @property
    def open(self) -> bool:
        return self.status not in (Status.DONE, Status.GONE)

    @property
    def workable(self) -> bool:
        return self.open and self.answer is not None and self.answer.ok

    @property
    def stopped(self) -> bool:
        """Its part forbids it, whatever the weather, and no hour of today ends that."""
        return self.open and self.answer is not None and self.answer.verdict in (Verdict.STOPPED, Verdict.WAITS)


def surroundings(
    site: SiteClimate,
    now: datetime,
    stops: Mapping[Key, Sequence[Stop]] | None = None,
    parts: Mapping[Key, PaintedPart] | None = None,
) -> Surroundings:
    """What states are worked out from; `stops` and `parts` where they are known already."""
    bundle = site.bundle
    held = job_stops(bundle) if stops is None else stops
    found = painted_parts(bundle.property, bundle.deduction) if parts is None else parts
    return Surroundings(site, now.astimezone(site.slots.tz), progress(bundle.job.record), held, found)


@dataclass(frozen=True)
class JobState:
    """`planned`: when each step of each part is to be behind, where a plan says so."""

    around: Surroundings
    parts: dict[Key, PartState]
    planned: dict[tuple[Key, str], datetime]

    @property
    def now(self) -> datetime:
        return self.around.now

    def _cells(self, key: Key) -> list[Cell]:
        state = self.parts.get(key)
        return [c.cell for c in state.cells] if state is not None else []

    def task(self, task: Task) -> TaskState:
        """Where a task of the plan stands."""
        pieces = task_pieces(task, self._cells)
        status = task_status(task, pieces, self._cells, self.now)
        if status in (Status.GONE, Status.DONE):
            return TaskState(task, status)
        left = [(self.parts[key], self.parts[key].cells[n], ops) for key, n, ops in pieces if ops]
        ahead = status is Status.AHEAD
        steps = tuple(dict.fromkeys(o.id for _, _, ops in left for o in ops))

        def judge_it() -> list[Judged]:
            out = []
            for state, cell, operations in left:
                stint = Stint(operations)
                waits = self._waits(state, cell, stint, as_planned=ahead)
                one = judge(self.around.site, state, cell, stint, waits)
                out += [one] if one is not None else []
            return out

        return TaskState(task, status, task.start if ahead else self.now, steps, judge_it)

    def judged(self, key: Key, *, film: bool = False) -> Judged | None:
        """A part's next step, or its next film, where the work goes on; None where nothing of it is left."""
        state = self.parts.get(key)
        cell = state.next_cell if state is not None else None
        if state is None or cell is None:
            return None
        wanted = next((s for s in stints(cell.cell.open) if s.lays_film or not film), None)
        if wanted is None:
            return None
        return judge(self.around.site, state, cell, wanted, self._waits(state, cell, wanted, as_planned=False))

    def _waits(self, state: PartState, cell: CellState, stint: Stint, *, as_planned: bool) -> tuple[Wait, ...]:
        """What the task waits for: as planned, steps before it will have been done by then."""
        as_next = cell.next is not None and cell.next.operations == stint.operations
        waits = cell.waits if as_next else waits_of(self.around, state.part, state.finish, cell.cell, cell.film, stint)
        before = list(takewhile(lambda o: o.id != stint.first.id, cell.cell.open))
        if as_planned or not before or cell.next is None:
            return waits
        ends = [self.planned.get((state.part.key, o.id)) for o in before]
        until = max((e for e in ends if e is not None and e > self.now), default=None)
        first = Wait("B", f"first comes {cell.next.brief}", until, "once that is done and noted", order=True)
        return (first, *waits)


def job_state(around: Surroundings, plan: Plan | None = None) -> JobState:
    ends: dict[tuple[Key, str], datetime] = {}
    for task in plan.tasks if plan is not None else ():
        for key in task.extent.parts if task.extent is not None else ():
            for step in task.steps:
                ends[key, step] = max(task.end, ends.get((key, step), task.end))
    return JobState(around, part_states(around), ends)


@dataclass(frozen=True)
class Board:
    """A plan as it stands: `now` is what the crew does or should do, `next` what follows; `late` what should have been
    done. Nothing is `now` that its part forbids."""

    tasks: tuple[TaskState, ...]

    @cached_property
    def open(self) -> list[TaskState]:
        return [t for t in self.tasks if t.open]

    @cached_property
    def now(self) -> TaskState | None:
        running = (t for t in self.open if t.status is Status.RUNNING and not t.stopped)
        due = (t for t in self.open if t.status in (Status.LATE, Status.DUE) and t.workable)
        return next(chain(running, due), None)

    @cached_property
    def next(self) -> TaskState | None:
        """What can be done after that: due and workable, else the first that lies ahead."""
        now = self.now
        rest = (t for t in self.open if t is not now and (t.status is Status.AHEAD or t.workable))
        return next((t for t in rest if not t.stopped), None)

    @property
    def late(self) -> list[TaskState]:
        return [t for t in self.open if t.status is Status.LATE]


def board(state: JobState, plan: Plan) -> Board:
    return Board(tuple(state.task(t) for t in plan.tasks))
