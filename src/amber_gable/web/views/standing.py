"""Where a part stands, as its page tells it: each stretch with what was done, what is next and what that waits for."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import tzinfo
from typing import TYPE_CHECKING

from amber_gable.domain.job.site_record import Said
from amber_gable.domain.wording import timed_at
from amber_gable.domain.work.operation import Operation, Technique
from amber_gable.services.today.standing import JudgedStretch
from amber_gable.web.views.units import Units

if TYPE_CHECKING:
    from amber_gable.core.state.answers import AnswerWords
    from amber_gable.core.state.progress import Cell
    from amber_gable.core.survey.amounts.painted import PaintedPart


@dataclass(frozen=True)
class StretchRow:
    """`where` is empty for the whole part; `answer` speaks of the next step, now."""

    where: str
    next: str
    answer: AnswerWords | None
    film: str
    away: str
    findings: tuple[str, ...]


@dataclass(frozen=True)
class StepRow:
    """A step with what was noted of it: 'done', 'under way', 'open', 'passed' or 'not wanted'. `looks`: it is answered
    with enough, or one more coat."""

    id: str
    name: str
    status: str
    noted: str
    looks: bool = False


def stretches(judged: Iterable[JudgedStretch], part: PaintedPart, zone: tzinfo, units: Units) -> list[StretchRow]:
    """Each stretch of a part as it stands now."""
    return [_stretch(one, part, zone, units) for one in judged]


def steps(operations: Sequence[Operation], cells: Sequence[Cell], zone: tzinfo) -> list[StepRow]:
    """Each step of a part as it was noted."""
    return [_step(cells, o, zone) for o in operations]


def _stretch(judged: JudgedStretch, part: PaintedPart, zone: tzinfo, units: Units) -> StretchRow:
    cell, width = judged.cell, part.face.width_m
    whole = cell.cell.left == 0.0 and cell.cell.right == 1.0
    where = ""
    if not whole and part.item_kind:
        where = judged.side or f"{100 * cell.cell.left:.0f} to {100 * cell.cell.right:.0f} %"
    elif not whole:
        ends = (units.length(width * cell.cell.left), units.length(width * cell.cell.right))
        where = f"{ends[0]} to {ends[1]}{'' if units.us else ' m'} from the left"
    film = cell.film
    said = ""
    if film is not None:
        stages = (("dry to touch", film.touch_at), ("rain-ready", film.rain_ready_at), ("recoat", film.recoat_at))
        known = ", ".join(f"{name} {timed_at(at, zone)}" for name, at in stages if at is not None)
        said = f"{film.name}, laid {timed_at(film.laid_at, zone)}" + (f": {known}" if known else "")
    return StretchRow(
        where=where,
        next=cell.next.name if cell.next is not None else "",
        answer=judged.answer,
        film=said,
        away=", ".join(cell.away),
        findings=cell.findings,
    )


def _step(cells: Sequence[Cell], o: Operation, zone: tzinfo) -> StepRow:
    entries = [c.entry_of(o.id) for c in cells]
    noted, looks = [e for e in entries if e is not None], o.technique is Technique.INSPECT
    share = sum(c.share for c, e in zip(cells, entries, strict=True) if e is not None)
    running = next((c.running for c in cells if c.running is not None and o.id in c.running.steps), None)
    if share > 0.999:
        status, last = "done", max(noted, key=lambda e: e.at)
    elif running is not None:
        status, last = "under way", running
    elif noted:
        status, last = f"{100 * share:.0f} % done", max(noted, key=lambda e: e.at)
    else:
        status = "passed" if all(o in c.passed for c in cells) else "open"
        if cells and not any(o in c.operations for c in cells):
            status = "not wanted"
        return StepRow(o.id, o.name, status, "", looks)
    said = "" if last.said is Said.DONE or not looks else f"{last.said.value.replace('-', ' ')}, "
    return StepRow(o.id, o.name, status, f"{said}{timed_at(last.at, zone)}, {last.by}", looks)
