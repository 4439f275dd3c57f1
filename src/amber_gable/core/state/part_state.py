"""What stands on each part now and what it waits for: a fact with its reasons, from the specification, the record of
the site, meter readings and the weather up to now."""

from dataclasses import dataclass, replace

from amber_gable.core.state.film import Film
from amber_gable.core.state.part_waits import waits_of
from amber_gable.core.state.progress import Cell
from amber_gable.core.state.surroundings import Surroundings, film_noted, laid_in
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.core.work.steps import steps_of
from amber_gable.core.work.stints import Stint, stints
from amber_gable.core.work.waits import WHOLE
from amber_gable.domain.job.site_record import Mishap, Spoiled
from amber_gable.domain.wording import timed_at
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.mending import EFFECTS, MISHAPS, Mend
from amber_gable.domain.work.operation import Operation, OperationKind, Technique


@dataclass(frozen=True)
class CellState:
    """A stretch of a part: what is next on it, what that waits for, the film on top, what is masked or taken down, and
    what somebody should look at."""

    cell: Cell
    next: Stint | None
    waits: tuple[Wait, ...]
    film: Film | None
    away: tuple[str, ...]
    findings: tuple[str, ...]

    @property
    def finished(self) -> bool:
        return self.next is None


@dataclass(frozen=True)
class PartState:
    part: PaintedPart
    finish: Finish
    operations: tuple[Operation, ...]
    cells: tuple[CellState, ...]

    @property
    def next_cell(self) -> CellState | None:
        """Where the work goes on: what is under way, else the stretch that is furthest behind."""
        left = [c for c in self.cells if not c.finished]
        running = [c for c in left if c.cell.running is not None]
        return next(iter(running or sorted(left, key=lambda c: -len(c.cell.open))), None)


def part_state(around: Surroundings, part: PaintedPart, finish: Finish) -> PartState:
    """The state of a finished part, stretch by stretch."""
    operations = steps_of(around.site.bundle, finish)
    both = zip(around.cells(finish), around.films(finish), strict=True)
    states = tuple(_cell_state(around, part, finish, cell, film) for cell, film in both)
    return PartState(part, finish, tuple(operations), states)


def part_states(around: Surroundings) -> dict[Key, PartState]:
    """The state of every finished part, in the order of the finishes."""
    return {f.part: part_state(around, around.parts[f.part], f) for f in around.site.bundle.job.finishes}


def _cell_state(around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell, film: Film | None) -> CellState:
    next_ = next(iter(stints(cell.open)), None)
    made = CellState(
        cell=cell,
        next=next_,
        waits=(),
        film=film,
        away=_away(cell),
        findings=_findings(around, part, finish, cell, film),
    )
    return made if next_ is None else replace(made, waits=waits_of(around, part, finish, cell, film, next_))


def _away(cell: Cell) -> tuple[str, ...]:
    """What is masked, covered or taken down, and not yet back: what is refitted comes after the last film."""
    films = [n for n, o in enumerate(cell.operations) if o.kind.lays_film]
    last = films[-1] if films else len(cell.operations)
    done = [(n, o) for n, (o, e) in enumerate(zip(cell.operations, cell.done, strict=True)) if e is not None]
    taped = max((n for n, o in done if o.kind is OperationKind.MASK), default=0)
    out = []
    for words, kind, back in (
        ("masked", OperationKind.MASK, any(o.technique is Technique.UNMASK and n > taped for n, o in done)),
        ("fittings down", OperationKind.FIT, any(o.kind is OperationKind.FIT and n > last for n, o in done)),
    ):
        if not back and any(o.kind is kind and n < last for n, o in done):
            out.append(words)
    return tuple(out)


def _findings(
    around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell, film: Film | None
) -> tuple[str, ...]:
    out = _laid_too_soon(around, part, finish, cell)
    told = _told_of(around, part, cell)
    mending = {o.mends for o in cell.open if isinstance(o, Mend)}
    out += [
        f"{MISHAPS[s.what].capitalize()}, {timed_at(s.at, around.tz)}, {s.by}: {EFFECTS[s.effect]}"
        for s in told
        if s.touch in mending
    ]
    rain_told = film is not None and any(s.what is Mishap.RAIN and s.at > film.laid_at for s in told)
    if film is not None and film.rained_at is not None and film.rained_at < around.now and not rain_told:
        ready = f", rain-ready only {timed_at(film.rain_ready_at, around.tz)}" if film.rain_ready_at else ""
        out.append(
            f"Rain reached {film.name} {timed_at(film.rained_at, around.tz)}{ready}: look at it in raking light. "
            "Say on Today what became of it."
        )
    if cell.refused is not None:
        out.append(f"Not done, {timed_at(cell.refused.at, around.tz)}, {cell.refused.by}: {cell.refused.why}")
    unseen = [o.name for o in cell.passed if o.kind is not OperationKind.CLEAN]
    if unseen:
        out.append("Not noted, though later work was: " + "; ".join(unseen))
    return tuple(out)


def _told_of(around: Surroundings, part: PaintedPart, cell: Cell) -> list[Spoiled]:
    """What was said to have become of films of the stretch."""
    return [
        s for s in around.site.bundle.spoils if part.key in s.extent.parts and s.extent.overlaps(cell.left, cell.right)
    ]


def _laid_too_soon(around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell) -> list[str]:
    """The risk of a film that was laid all over another before that could be coated."""
    whole = [(o, e) for o, e in laid_in(cell) if o.share >= WHOLE]
    if len(whole) < 2:
        return []
    (below, its), (_, entry) = whole[-2:]
    film = film_noted(around, part, finish, below, its)
    if film is None or not film.known or (film.recoat_at is not None and film.recoat_at <= entry.at):
        return []
    ready = f" only from {timed_at(film.recoat_at, around.tz)} on" if film.recoat_at else " only later"
    said = f" (“{entry.why}”, {entry.by})" if entry.why else ""
    return [
        f"Laid {timed_at(entry.at, around.tz)} on {film.name} of {timed_at(film.laid_at, around.tz)}, which could be "
        f"coated{ready}{said}: it may wrinkle, lift or stay soft. Press a thumb on it and look in raking light before "
        "anything else goes on."
    ]
