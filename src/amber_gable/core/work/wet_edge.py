"""How much a crew keeps wet: the section whose first edge is still wet when the last stroke meets it (docs/physics.md
§7).

It is told as an area: on boards it runs along the wall from break to break, on plain walls from top to bottom.
"""

from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.labour import part_labour
from amber_gable.core.work.pace import Pace
from amber_gable.domain.work.operation import Operation

LAPS_BELOW_M2 = 0.6
"""For each person: less is what an arm reaches without moving; the strokes of the next reach meet a dry edge. An
assumption."""


def section_m2_per_minute(part: PaintedPart, operation: Operation, pace: Pace) -> float | None:
    """Surface that the crew together covers in a minute; None where nothing is brushed or rolled on a wall."""
    by_hand = operation.method is not None and not operation.method.sprays
    if not by_hand or not operation.kind.lays_film or part.item_kind or operation.share <= 0:
        return None
    hours = part_labour(part, operation, pace).hours / operation.share
    return part.surface_m2 * pace.people / (60 * hours) if hours > 0 else None
