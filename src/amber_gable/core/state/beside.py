"""What other parts of a face ask of a step: nothing dusty beside a wet film, nothing that runs or drips beside one that
is not rain-ready, and no film before the dust beside it is off (docs/trade.md §9.2)."""

from collections.abc import Iterator
from datetime import datetime

from amber_gable.core.state.film import Film
from amber_gable.core.state.progress import Cell
from amber_gable.core.state.surroundings import Surroundings, laid_in
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.work.stints import Stint
from amber_gable.core.work.waits import SPOTS, dampens
from amber_gable.domain.wording import timed_at
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

_DUSTY = (OperationKind.SAND, OperationKind.SCRAPE, OperationKind.DUST)


def beside_waits(around: Surroundings, part: PaintedPart, stint: Stint) -> list[Wait]:
    """Of a step in place on a face. What lies elsewhere has no face beside it."""
    first = stint.first
    if first.where is not None:
        return []
    wets, dusts = any(dampens(o) for o in stint.operations), any(_dusts(o) for o in stint.operations)
    if not (wets or dusts or stint.lays_film):
        return []
    out: list[Wait] = []
    for other, cell, film in _others(around, part):
        if wets or dusts:
            until = None if film is None else film.rain_ready_at if wets else film.touch_at
            if film is not None and film.known and (until is None or until > around.now):
                out.append(_too_wet(around, other, film, until, wets=wets))
        elif first.share >= SPOTS and (step := dust_left(cell)) is not None:
            out.append(Wait("B", f"first comes “{step.name}” on {other.name}", None, "once that is done and noted",
                            order=True))  # fmt: skip
    # The one that takes longest says it for all.
    lasting = [w for w in out if not w.order]
    longest = max(lasting, key=lambda w: (w.until is None, w.until or around.now), default=None)
    return [w for w in out if w.order][:1] + ([longest] if longest is not None else [])


def _dusts(operation: Operation) -> bool:
    return operation.kind in _DUSTY and not dampens(operation)


def _others(around: Surroundings, part: PaintedPart) -> Iterator[tuple[PaintedPart, Cell, Film | None]]:
    """The other parts of the face, stretch by stretch, with the film that lies on them in place. One on spots is soon
    dry and lies in their middle."""
    for finish in around.site.bundle.job.finishes:
        other = around.parts.get(finish.part)
        if other is None or other.key == part.key or other.face.id != part.face.id:
            continue
        for cell, film in zip(around.cells(finish), around.films(finish), strict=True):
            laid = laid_in(cell)
            beside = bool(laid) and laid[-1][0].share >= SPOTS and laid[-1][0].where is None
            yield other, cell, film if beside else None


def _too_wet(around: Surroundings, part: PaintedPart, film: Film, until: datetime | None, *, wets: bool) -> Wait:
    what = "water spoils it" if wets else "dust sticks in it"
    laid = f"{film.name} on {part.name}, laid {timed_at(film.laid_at, around.tz)}, is still wet: {what}"
    return Wait("B", laid, until, "" if until else "a warmer spell")


def dust_left(cell: Cell) -> Operation | None:
    """The step that takes the dust off a stretch which was sanded or scraped, and which nobody noted yet."""
    last = None
    for operation, entry in zip(cell.operations, cell.done, strict=True):
        if operation.kind is OperationKind.DUST or operation.technique is Technique.DENIB:
            last = None if entry is not None else last
            if last is not None and operation in cell.open:
                return operation
        elif entry is not None and _dusts(operation) and operation.where is None:
            last = operation
    return None
