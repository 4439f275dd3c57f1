"""What a step on a stretch of a part waits for as it is now: stops, others, drying, films and water."""

from datetime import datetime, time, timedelta, tzinfo

import numpy as np

from amber_gable.core.climate.job_climate import part_moisture_limit, part_water_limit
from amber_gable.core.state.beside import beside_waits
from amber_gable.core.state.drying_wood import WET_WOOD, drying, last_read
from amber_gable.core.state.film import Film
from amber_gable.core.state.others_work import others_waits
from amber_gable.core.state.progress import Cell
from amber_gable.core.state.surroundings import Surroundings, noted
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.core.survey.findings.moisture import judged_moisture
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.judged.rules import RAIN_ON_FACE
from amber_gable.core.work.sides import sides
from amber_gable.core.work.stints import Stint
from amber_gable.core.work.waits import (
    PAST,
    dampens,
    film_stage,
    keeps_rain_out,
    old_film_sheds,
    seals,
    shuts_in,
    wait_hours,
)
from amber_gable.domain.findings.condition import MoistureReading
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.substrates import SUBSTRATES, Substrate
from amber_gable.domain.paint.product import Product
from amber_gable.domain.wording import timed_at
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.operation import Operation, OperationKind

DAMP = "damp"
"""The stop of wood over its limit that is not yet wet (core/specification/rules/wood.py)."""


DRY_TO_SEE = "it is dry to see and touch"
"""The test of a wait for which the step names none."""
SHEET_CLEAR = "a sheet taped on overnight is clear underneath, and the wall dry to see and touch"
"""The test of masonry, which no meter reads; it takes a night."""
NIGHT = timedelta(hours=10)
"""How long the sheet stays on at least."""


def waits_of(
    around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell, film: Film | None, stint: Stint
) -> tuple[Wait, ...]:
    """What a stint on the stretch waits for as it is now, whether it is the next one or a later one."""
    reading = _reading_since(part, _last_wetted(cell), around.tz)
    waits = [
        *_stops(around, part, cell, stint),
        *others_waits(around.site.bundle, part, film=stint.lays_film, now=around.now, tz=around.tz),
        *_fixed(around, part, finish, cell, stint, reading),
        *_below(around, cell, film, stint),
        *_other_side(around, part, finish, cell, stint),
        *beside_waits(around, part, stint),
    ]
    if shuts_in(stint.first):
        waits += _soaked(around, part, cell, stint, finish)
    return tuple(waits)


def _last_wetted(cell: Cell) -> datetime | None:
    """When the work last left the stretch wet."""
    return max((e.at for o, e in noted(cell) if dampens(o)), default=None)


def _stops(around: Surroundings, part: PaintedPart, cell: Cell, stint: Stint) -> list[Wait]:
    """Stops of the survey. Wood that is damp and no more bars what would seal it (`_fixed`), and so does wood that was
    washed or rained on and dries; water of any other is found first, which stops no wet work."""
    out = []
    for stop in around.stops.get(part.key, ()):
        if stop.rule == DAMP:
            continue
        if stop.rule == WET_WOOD and (dampens(stint.first) or drying(part.part, noted(cell), around.site, around.tz)):
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
        read = reading[1] if reading else last_read(part.condition, around.tz)
        when = f" on {timed_at(read, around.tz)}" if read else ""
        # The prediction goes on from the reading. What was washed since waits for that besides.
        since = None if read is None else around.site.damp_since(part.part, limit, read)
        until = None if since is None else since[1]
        lifts = "more dry days, then a new reading" if until is None else "predicted from the reading; a new one tells"
        if until is None or until > around.now:
            words = f"the wood read {held:.0f} %{when}; at most {limit.value:g} % is allowed"
            out.append(Wait("M", words, until, lifts))
    longest: dict[str, Wait] = {}
    for operation, entry in noted(cell):
        hours = 0.0 if operation.kind.lays_film else wait_hours(operation, after.first)
        until = entry.at + timedelta(hours=hours)
        wet = dampens(operation)
        told = wet and reading is not None and (dry or (damp and seals(after.first)))
        if not hours or until <= around.now or told:
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


def _other_side(around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell, stint: Stint) -> list[Wait]:
    """The film on the other side of an item that lies down, which must bear its weight before it is turned."""
    mine = next((s for s in sides(part, stint.first) if s.left - 1e-6 <= cell.left < s.right), None)
    if mine is None or mine.name == "":
        return []
    out = []
    for other, film in zip(around.cells(finish), around.films(finish), strict=True):
        if mine.left <= other.left < mine.right:
            continue
        if film is not None and film.known and (film.recoat_at is None or film.recoat_at > around.now):
            words = f"{film.name} laid {timed_at(film.laid_at, around.tz)} on its other side does not bear turning yet"
            out.append(Wait("B", words, film.recoat_at, "" if film.recoat_at else "a warmer spell"))
    return out


def _sanded_since(cell: Cell, film: Film) -> bool:
    """Whether the film was dulled after it was laid, so that the next one holds on it however late."""
    return any(o.kind is OperationKind.SAND and e.at > film.laid_at for o, e in noted(cell))


def _bare_to_rain(cell: Cell, substrate: Substrate) -> bool:
    """No film on it yet that keeps rain from the substrate. Nothing is sealed before it was washed, so that rain before
    the washing is behind its wait."""
    done = zip(cell.operations, cell.done, strict=True)
    return not any(e is not None and keeps_rain_out(o, substrate) for o, e in done)


def _soaked(around: Surroundings, part: PaintedPart, cell: Cell, stint: Stint, finish: Finish) -> list[Wait]:
    """Water that the weather has left in the prepared part, where its last reading tells nothing worse (`_fixed`). What
    fell before the weather that is known is asked about once the part was washed and that wait is over."""
    product = _product(around, stint.first)
    limit = part_water_limit(around.site.bundle, part.part, product, finish)
    read = judged_moisture(part.condition, around.tz)
    if (
        limit is None
        or not _bare_to_rain(cell, SUBSTRATES[part.substrate])
        or old_film_sheds(part.condition, SUBSTRATES[part.substrate])
        or (read is not None and read > limit.value)
    ):
        return []
    found = around.site.damp_since(part.part, limit, around.now)
    if found is None or found[0] <= limit.value:
        return []
    pct, until = found
    unknown = np.isposinf(pct)
    words = f"by the weather since it holds about {pct:.0f} %; at most {limit.value:g} % is allowed"
    if unknown:
        words = "it may hold water from before the weather that is known"
    if not _is_masonry(part):
        return [Wait("M", words, until, "a meter reading below the limit shortens it")]
    test, wetted = None, next(((o, e) for o, e in reversed(noted(cell)) if dampens(o)), None)
    if wetted is not None:
        operation, begins = wetted[0], wetted[1].at + NIGHT
        passed = _passed(cell, operation, begins)
        if passed is not None and not _rained_on(around, part, passed):
            return []
        test = (operation.id, SHEET_CLEAR) if around.now >= begins else None
    if unknown and (wetted is None or around.now < wetted[1].at + timedelta(hours=wait_hours(wetted[0], stint.first))):
        return []
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
    return bool((climate.wall_rain[0, first:end] >= RAIN_ON_FACE).any())


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
