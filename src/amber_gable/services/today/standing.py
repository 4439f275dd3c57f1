"""How far each part has come by the record alone: no weather is asked."""

from dataclasses import dataclass

from amber_gable.core.state.job_state import Status, TaskState
from amber_gable.core.state.progress import Cell, Laid, cells, laid_films, left_to_note, progress, share_behind
from amber_gable.core.survey.painted import Key
from amber_gable.domain.job import JobBundle
from amber_gable.domain.operation import Operation
from amber_gable.domain.plan import Plan


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
        operations = bundle.operations(finish)
        pieces = cells(finish.part, operations, found)
        out[finish.part] = Standing(share_behind(operations, pieces), tuple(laid_films(operations, pieces)))
    return out


def tasks_by_record(bundle: JobBundle, plan: Plan) -> tuple[TaskState, ...]:
    """A plan's tasks where no weather is at hand: done, or not judged."""
    found = progress(bundle.job.record)
    operations = {f.part: bundle.operations(f) for f in bundle.job.finishes}
    out = []
    for task in plan.tasks:
        left = task.extent is None or left_to_note(task.extent, task.steps, operations, found)
        out.append(TaskState(task, Status.AHEAD if left else Status.DONE))
    return tuple(out)


def part_cells(bundle: JobBundle, key: Key) -> tuple[tuple[Operation, ...], list[Cell]]:
    """The steps of a part and the stretches they have come to; nothing for a part that gets none."""
    finish = bundle.finish_of(*key)
    if finish is None:
        return (), []
    operations = tuple(bundle.operations(finish))
    return operations, cells(key, operations, progress(bundle.job.record))
