"""What is left of a planned task of which some is noted as done."""

from collections.abc import Iterable
from dataclasses import dataclass

from amber_gable.core.plan.work import area_share, person_hours
from amber_gable.core.state.job_state import JobState
from amber_gable.core.state.task_status import task_pieces
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.pace import pace_of
from amber_gable.domain.job.plan import Task
from amber_gable.domain.work.operation import Operation

_LEAST = 1e-3


@dataclass(frozen=True)
class LeftOver:
    area_m2: float
    hours: float


def left_over(state: JobState, task: Task) -> LeftOver | None:
    """Shares of the planned figures; None where nothing or all of it is left."""
    extent = task.extent
    if extent is None:
        return None
    pace = pace_of(state.around.site.bundle)

    def amounts(pieces: Iterable[tuple[PaintedPart, float, float, tuple[Operation, ...]]]) -> tuple[float, float]:
        area = hours = 0.0
        for part, left, right, operations in pieces:
            share = area_share(part, left, right)
            area += share * part.surface_m2 if operations else 0.0
            hours += share * person_hours(part, operations, pace) if operations else 0.0
        return area, hours

    parts = [state.parts[key] for key in extent.parts if key in state.parts]
    whole = amounts(
        (p.part, extent.left, extent.right, tuple(o for o in p.operations if o.id in task.steps)) for p in parts
    )
    cells = {p.part.key: [c.cell for c in p.cells] for p in parts}
    left = amounts(
        (
            state.parts[key].part,
            max(extent.left, cells[key][number].left),
            min(extent.right, cells[key][number].right),
            operations,
        )
        for key, number, operations in task_pieces(task, lambda key: cells.get(key, []))
    )
    if not all(whole):
        return None
    of_area, of_hours = left[0] / whole[0], left[1] / whole[1]
    if of_hours < _LEAST or of_hours > 1 - _LEAST:
        return None
    return LeftOver(task.area_m2 * of_area, task.hours * of_hours)
