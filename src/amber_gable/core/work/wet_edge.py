"""How much wall a crew keeps wet: the section whose first edge is still wet when the last stroke meets it (physics.md
§7)."""

from amber_gable.core.survey.painted import PaintedPart
from amber_gable.core.work.record import part_labour
from amber_gable.domain.operation import Operation

LADDER_SET_M = 1.2
"""What is reached to both sides from one set of a ladder: an assumption. Narrower sections show lap marks."""


def section_m_per_minute(part: PaintedPart, operation: Operation, people: int) -> float | None:
    """Width along the face, worked over its whole height by `people` together, that a minute brings; None where no coat
    is brushed or rolled on a wall."""
    by_hand = operation.method is not None and not operation.method.sprays
    if not by_hand or not operation.kind.lays_film or part.item_kind or operation.share <= 0:
        return None
    hours = part_labour(part, operation).hours / operation.share
    return part.face.width_m * people / (60 * hours) if hours > 0 else None
