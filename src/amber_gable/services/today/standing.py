"""How far each part has come: by the record alone, and judged by the weather."""

from dataclasses import dataclass
from datetime import datetime

from amber_gable.core.state.answers import AnswerWords, told
from amber_gable.core.state.job_state import JobState, TaskState
from amber_gable.core.state.judgement import judge
from amber_gable.core.state.part_state import CellState, PartState
from amber_gable.core.state.progress import Cell, Laid, cells, laid_films, progress, share_behind
from amber_gable.core.state.task_status import task_pieces, task_status
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.sides import side_named
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.work.operation import Operation


@dataclass(frozen=True)
class Standing:
    """`share` of a part's steps that is behind, 0 to 1, and the films that stand on it."""

    share: float
    laid: tuple[Laid, ...]


def standings(bundle: JobBundle) -> dict[Key, Standing]:
    """Of every finished part; empty where nothing was noted yet."""
    found = progress(bundle.job.record)
    if not found:
        return {}
    out = {}
    for finish in bundle.job.finishes:
        operations = steps_of(bundle, finish)
        pieces = cells(finish.part, operations, found)
        out[finish.part] = Standing(share_behind(operations, pieces), tuple(laid_films(pieces)))
    return out


def tasks_by_record(bundle: JobBundle, plan: Plan, now: datetime) -> tuple[TaskState, ...]:
    """A plan's tasks where no weather is at hand: as they stand, and not judged."""
    found = progress(bundle.job.record)
    each = {f.part: cells(f.part, steps_of(bundle, f), found) for f in bundle.job.finishes}

    def cells_of(key: Key) -> list[Cell]:
        return each.get(key, [])

    return tuple(TaskState(t, task_status(t, task_pieces(t, cells_of), cells_of, now)) for t in plan.tasks)


@dataclass(frozen=True)
class JudgedStretch:
    """A stretch of a part as it stands, and in words whether its next step may be done now (None: nothing is left).
    `side`: the side of an item that lies down, where it is that alone."""

    cell: CellState
    answer: AnswerWords | None
    side: str = ""


def judged_stretches(state: JobState, part: PartState) -> list[JudgedStretch]:
    out = []
    for cell in part.cells:
        judged = judge(state.around.site, part, cell)
        words = told(judged.answer(state.now), state.around.tz) if judged is not None else None
        side = side_named(part.part, part.operations, cell.cell.left, cell.cell.right)
        out.append(JudgedStretch(cell, words, side))
    return out


def part_cells(bundle: JobBundle, key: Key) -> tuple[tuple[Operation, ...], list[Cell]]:
    """The steps of a part and the stretches they have come to; nothing for a part that gets none."""
    finish = bundle.finish_of(*key)
    if finish is None:
        return (), []
    operations = tuple(steps_of(bundle, finish))
    return operations, cells(key, operations, progress(bundle.job.record))
