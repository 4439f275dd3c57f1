"""What stands on each part now and what it waits for: a fact with its reasons, from the specification, the record of
the site, meter readings and the weather up to now."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, time, timedelta, tzinfo

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate, part_moisture_limit, part_water_limit
from amber_gable.core.specification.cautions.stops import Stop
from amber_gable.core.state.film import Film, film_of
from amber_gable.core.state.others_work import others_waits
from amber_gable.core.state.progress import Cell, Progress, cells
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.core.survey.findings.moisture import judged_moisture
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.judged.rules import RAIN_MEASURABLE
from amber_gable.core.work.stints import Stint, stints
from amber_gable.core.work.waits import PAST, dampens, film_stage, keeps_rain_out, seals, shuts_in, wait_hours
from amber_gable.domain.findings.condition import MoistureReading
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.substrates import SUBSTRATES, Substrate
from amber_gable.domain.job.site_record import SiteEntry
from amber_gable.domain.paint.product import Product
from amber_gable.domain.wording import timed_at
from amber_gable.domain.work.finish import Finish, coat_colour
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

DAMP = "damp"
"""The stop of wood over its limit that is not yet wet (core/specification/rules/wood.py)."""


DRY_TO_SEE = "it is dry to see and touch"
"""The test of a wait for which the step names none."""
SHEET_CLEAR = "a sheet taped on overnight is clear underneath, and the wall dry to see and touch"
"""The test of masonry, which no meter reads; it takes a night."""
NIGHT = timedelta(hours=10)
"""How long the sheet stays on at least."""


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


@dataclass(frozen=True)
class Surroundings:
    """What the states of all parts of a job are worked out from."""

    site: SiteClimate
    now: datetime
    record: Progress
    stops: Mapping[Key, Sequence[Stop]]
    parts: Mapping[Key, PaintedPart]

    @property
    def tz(self) -> tzinfo:
        return self.site.slots.tz


def part_state(around: Surroundings, part: PaintedPart, finish: Finish) -> PartState:
    """The state of a finished part, stretch by stretch."""
    operations = around.site.bundle.operations(finish)
    found = cells(part.key, operations, around.record)
    return PartState(part, finish, tuple(operations), tuple(_cell_state(around, part, finish, cell) for cell in found))


def part_states(around: Surroundings) -> dict[Key, PartState]:
    """The state of every finished part, in the order of the finishes."""
    return {f.part: part_state(around, around.parts[f.part], f) for f in around.site.bundle.job.finishes}


def _cell_state(around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell) -> CellState:
    film = _film(around, part, finish, cell)
    next_ = next(iter(stints(cell.open)), None)
    made = CellState(
        cell=cell,
        next=next_,
        waits=(),
        film=film,
        away=_away(cell),
        findings=_findings(around, cell, film),
    )
    return made if next_ is None else replace(made, waits=waits_of(around, part, finish, made, next_))


def waits_of(
    around: Surroundings, part: PaintedPart, finish: Finish, state: CellState, stint: Stint
) -> tuple[Wait, ...]:
    """What a stint on the stretch waits for as it is now, whether it is the next one or a later one."""
    reading = _reading_since(part, _last_wetted(state.cell), around.tz)
    waits = [
        *_stops(around, part),
        *others_waits(around.site.bundle, part, film=stint.lays_film, now=around.now, tz=around.tz),
        *_fixed(around, part, finish, state.cell, stint, reading),
        *_below(around, state.cell, state.film, stint),
    ]
    if shuts_in(stint.first):
        waits += _soaked(around, part, state.cell, stint, finish)
    return tuple(waits)


def _last_wetted(cell: Cell) -> datetime | None:
    """When the work last left the stretch wet."""
    return max((e.at for o, e in _noted(cell) if dampens(o)), default=None)


def _noted(cell: Cell) -> list[tuple[Operation, SiteEntry]]:
    """The steps behind the work. One that nobody noted is taken to have ended when the next noted one did."""
    out: list[tuple[Operation, SiteEntry]] = []
    later: SiteEntry | None = cell.running
    for operation, entry in reversed(list(zip(cell.operations, cell.done, strict=True))):
        later = entry or later
        if later is not None and (entry is not None or operation in cell.passed):
            out.append((operation, later))
    return out[::-1]


def _film(around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell) -> Film | None:
    """The film on top, as it was noted; an entry without its product is taken as specified."""
    laid = [(o, e) for o, e in zip(cell.operations, cell.done, strict=True) if o.kind.lays_film and e is not None]
    if not laid:
        return None
    operation, entry = laid[-1]
    products = {p.code: p for p in around.site.bundle.products}
    product = products.get(entry.product or "") or products.get(operation.product or "")
    if product is None:
        return None
    colour = entry.colour or coat_colour(operation, product, finish.colour)
    return film_of(around.site, part.part, product, colour, entry.at, operation.where)


def _stops(around: Surroundings, part: PaintedPart) -> list[Wait]:
    """Stops of the survey. Wood that is damp and no more bars what would seal it (`_fixed`); a wet one's water is found
    first."""
    out = []
    for stop in around.stops.get(part.key, ()):
        if stop.rule == DAMP:
            continue
        until = None if stop.until is None else datetime.combine(stop.until, time(), around.tz)
        if until is None or until > around.now:
            out.append(Wait("S", stop.words.rstrip("."), until, stop.todo))
    return out


def _fixed(
    around: Surroundings,
    part: PaintedPart,
    finish: Finish,
    cell: Cell,
    after: Stint,
    reading: tuple[float, datetime] | None,
) -> list[Wait]:
    """Waits of steps that lay no film, and what a meter says instead of them."""
    out = []
    limit = part_moisture_limit(around.site.bundle, part.part, _product(around, after.first), finish)
    held = judged_moisture(part.condition, around.tz)
    damp = held is not None and limit is not None and held > limit.value
    dry = reading is not None and limit is not None and reading[0] <= limit.value
    if damp and seals(after.first) and held is not None and limit is not None:
        before = ", before it was last wetted" if _last_wetted(cell) is not None else ""
        when = f" on {timed_at(reading[1], around.tz)}" if reading else before
        # What was wetted since tells nothing until it is read again.
        since = None if reading is None else around.site.damp_since(part.part, limit, reading[1])
        until = None if since is None else since[1]
        lifts = "more dry days, then a new reading" if until is None else "predicted from the reading; a new one tells"
        if until is None or until > around.now:
            words = f"the wood read {held:.0f} %{when}; at most {limit.value:g} % is allowed"
            out.append(Wait("M", words, until, lifts))
    longest: dict[str, Wait] = {}
    for operation, entry in _noted(cell):
        hours = 0.0 if operation.kind.lays_film else wait_hours(operation, after.first)
        until = entry.at + timedelta(hours=hours)
        wet = dampens(operation)
        if not hours or until <= around.now or (wet and (dry or (damp and seals(after.first)))):
            continue
        letter = "M" if wet else "B"
        # A meter tells of wood what no eye does.
        metered = wet and limit is not None and seals(after.first)
        # What goes on a dry surface waits for that alone, not for the step's own test.
        only_dry = hours < operation.wait_h
        sheet = wet and limit is None and _is_masonry(part) and not only_dry
        begins = entry.at + (NIGHT if sheet else timedelta())
        if not metered and _passed(cell, operation, begins) is not None:
            continue
        seen = SHEET_CLEAR if sheet else DRY_TO_SEE if only_dry or not operation.wait_until else operation.wait_until
        lifts = f"or when {seen}"
        if metered and limit is not None:
            lifts = f"a meter reading of {limit.value:g} % or less shortens it"
        test = None if metered or around.now < begins else (operation.id, seen)
        wait = Wait(letter, f"{PAST[operation.kind]} {timed_at(entry.at, around.tz)}", until, lifts, test=test)
        known = longest.get(letter)
        if known is None or (known.until is not None and until > known.until):
            longest[letter] = wait
    return out + list(longest.values())


def _passed(cell: Cell, operation: Operation, since: datetime) -> datetime | None:
    """When the test that ends the wait behind a step was passed, if that was not before it could be."""
    tested = dict(zip((o.id for o in cell.operations), cell.tested, strict=False)).get(operation.id)
    return tested.at if tested is not None and tested.at >= since else None


def _product(around: Surroundings, operation: Operation) -> Product | None:
    return next((p for p in around.site.bundle.products if p.code == operation.product), None)


def _below(around: Surroundings, cell: Cell, film: Film | None, after: Stint) -> list[Wait]:
    """What the film below must have reached, and what is too late for it."""
    stage = film_stage(after.first)
    if film is None or stage is None:
        return []
    laid = f"{film.name} laid {timed_at(film.laid_at, around.tz)}"
    out = []
    if film.known:
        at = film.touch_at if stage is DryingStage.TOUCH else film.recoat_at
        if at is None or at > around.now:
            what = "is not dry to touch yet" if stage is DryingStage.TOUCH else "cannot be coated yet"
            out.append(
                Wait("B", f"{laid} {what}", at, "" if at else "a forecast that reaches further, or a warmer spell")
            )
    late = film.latest_recoat is not None and film.latest_recoat < around.now
    if late and after.lays_film and film.latest_recoat is not None and not _sanded_since(cell, film):
        out.append(
            Wait("B", f"{laid}: its longest recoat time ended {timed_at(film.latest_recoat, around.tz)}", None,
                 "add a light sanding to its steps, and note it when it is done")
        )  # fmt: skip
    return out


def _sanded_since(cell: Cell, film: Film) -> bool:
    """Whether the film was dulled after it was laid, so that the next one holds on it however late."""
    return any(o.kind is OperationKind.SAND and e.at > film.laid_at for o, e in _noted(cell))


def _bare_to_rain(cell: Cell, substrate: Substrate) -> bool:
    """No film on it yet that keeps rain from the substrate. Nothing is sealed before it was washed, so that rain before
    the washing is behind its wait."""
    done = zip(cell.operations, cell.done, strict=True)
    return not any(e is not None and keeps_rain_out(o, substrate) for o, e in done)


def _soaked(around: Surroundings, part: PaintedPart, cell: Cell, stint: Stint, finish: Finish) -> list[Wait]:
    """Water that the weather has left in the prepared part, where its last reading tells nothing worse (`_fixed`)."""
    product = _product(around, stint.first)
    limit = part_water_limit(around.site.bundle, part.part, product, finish)
    read = judged_moisture(part.condition, around.tz)
    if (
        limit is None
        or not _bare_to_rain(cell, SUBSTRATES[part.substrate])
        or (read is not None and read > limit.value)
    ):
        return []
    found = around.site.damp_since(part.part, limit, around.now)
    if found is None or found[0] <= limit.value:
        return []
    pct, until = found
    words = f"by the weather since it holds about {pct:.0f} %; at most {limit.value:g} % is allowed"
    if not _is_masonry(part):
        return [Wait("M", words, until, "a meter reading below the limit shortens it")]
    test, wetted = None, next(((o, e) for o, e in reversed(_noted(cell)) if dampens(o)), None)
    if wetted is not None:
        operation, begins = wetted[0], wetted[1].at + NIGHT
        passed = _passed(cell, operation, begins)
        if passed is not None and not _rained_on(around, part, passed):
            return []
        test = (operation.id, SHEET_CLEAR) if around.now >= begins else None
    return [Wait("M", words, until, f"or when {SHEET_CLEAR}", test=test)]


def _is_masonry(part: PaintedPart) -> bool:
    return "masonry" in SUBSTRATES[part.substrate].tags


def _rained_on(around: Surroundings, part: PaintedPart, since: datetime) -> bool:
    """Whether rain reached the part between that moment and now."""
    climate = around.site.surface_of(part.part, part.part.colour_now).climate
    first, end = (
        int(np.clip((t.timestamp() - climate.steps.start) // STEP_S, 0, len(climate.steps)))
        for t in (since, around.now)
    )
    return bool((climate.wall_rain[0, first:end] >= RAIN_MEASURABLE).any())


def _reading_since(part: PaintedPart, since: datetime | None, tz: tzinfo) -> tuple[float, datetime] | None:
    """The wettest of the latest day's readings after the surface was last wetted by the work, and when the last of them
    was taken; None where there is none. Undated ones come from the survey."""
    dated = [(r, _aware(r.at, tz)) for r in part.condition.moisture if r.at is not None]
    later: list[tuple[MoistureReading, datetime]] = [(r, at) for r, at in dated if since is None or at > since]
    if not later:
        return None
    condition = part.condition.model_copy(update={"moisture": tuple(r for r, _ in later)})
    judged = judged_moisture(condition, tz)
    return None if judged is None else (judged, max(at for _, at in later))


def _aware(at: datetime, tz: tzinfo) -> datetime:
    return at if at.tzinfo is not None else at.replace(tzinfo=tz)


def _away(cell: Cell) -> tuple[str, ...]:
    """What is masked, covered or taken down, and not yet back: what is refitted comes after the last film."""
    films = [n for n, o in enumerate(cell.operations) if o.kind.lays_film]
    last = films[-1] if films else len(cell.operations)
    done = [(n, o) for n, (o, e) in enumerate(zip(cell.operations, cell.done, strict=True)) if e is not None]
    out = []
    for words, kind, back in (
        ("masked", OperationKind.MASK, any(o.technique is Technique.UNMASK for _, o in done)),
        ("fittings down", OperationKind.FIT, any(o.kind is OperationKind.FIT and n > last for n, o in done)),
    ):
        if not back and any(o.kind is kind and n < last for n, o in done):
            out.append(words)
    return tuple(out)


def _findings(around: Surroundings, cell: Cell, film: Film | None) -> tuple[str, ...]:
    out = []
    if film is not None and film.rained_at is not None and film.rained_at < around.now:
        ready = f", rain-ready only {timed_at(film.rain_ready_at, around.tz)}" if film.rain_ready_at else ""
        out.append(
            f"Rain reached {film.name} {timed_at(film.rained_at, around.tz)}{ready}: look at it in raking light. "
            "Where it ran, spotted or washed off, mark the coat as not done."
        )
    if cell.refused is not None:
        out.append(f"Not done, {timed_at(cell.refused.at, around.tz)}, {cell.refused.by}: {cell.refused.why}")
    unseen = [o.name for o in cell.passed if o.kind is not OperationKind.CLEAN]
    if unseen:
        out.append("Not noted, though later work was: " + "; ".join(unseen))
    return tuple(out)
