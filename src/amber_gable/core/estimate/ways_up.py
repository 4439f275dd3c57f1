"""Ladder, tower and lift side by side for a face: what each takes in hours (docs/trade.md §12, §13)."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from amber_gable.core.estimate.hours import Hours
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.labour import part_labour
from amber_gable.core.work.pace import Pace
from amber_gable.core.work.record import part_moves
from amber_gable.domain.house.survey import Face
from amber_gable.domain.work.access import Access


@dataclass(frozen=True)
class WayUp:
    """One way up a face: hours of all work on it, moves among them; days the crew is on the face. `saves_h` against
    the ladder: a hire is worth it as long as it costs less than so many hours of work."""

    access: Access
    hours: float
    moves: float
    moves_h: float
    days: float
    saves_h: float
    chosen: bool


@dataclass(frozen=True)
class FaceWays:
    face: Face
    ways: tuple[WayUp, ...]

    @property
    def least(self) -> WayUp:
        """That of the fewest hours."""
        return min(self.ways, key=lambda w: w.hours)


def ways_up(hours: Hours, shift_h: float) -> list[FaceWays]:
    """Faces with work above 3 m, in their order. `shift_h`: what one person works in a day."""
    out = []
    for face in {p.face.id: p.face for p in hours.parts.values()}.values():
        keys = [k for k in hours.work if hours.parts[k].face.id == face.id]
        if any(hours.parts[k].heights.high for k in keys):
            out.append(FaceWays(face, tuple(_ways(hours, face, keys, shift_h))))
    return out


def _ways(hours: Hours, face: Face, keys: list[Key], shift_h: float) -> Iterable[WayUp]:
    pace, ladder = hours.pace, 0.0
    for access in Access:
        there = replace(pace, access={**pace.access, face.id: access})
        total, moves, moves_h = 0.0, 0.0, 0.0
        for key in keys:
            own, moved, moved_h = _of_part(hours, key, there)
            total, moves, moves_h = total + own + moved_h, moves + moved, moves_h + moved_h
        ladder = total if access is Access.LADDER else ladder
        days = total / (shift_h * pace.people)
        yield WayUp(access, total, moves, moves_h, days, ladder - total, pace.way_up(face.id) is access)


def _of_part(hours: Hours, key: Key, pace: Pace) -> tuple[float, float, float]:
    """Hours of its operations, moves, hours of the moves."""
    part, operations = hours.parts[key], [line.operation for line in hours.work[key].lines]
    moved = part_moves(part, operations, pace)
    own = sum(part_labour(part, o, pace).hours for o in operations)
    return (own, moved.labour.amount, moved.hours) if moved is not None else (own, 0.0, 0.0)
