"""The rules a plan is held against, each with a name and a reason; written apart from the planner, of which nothing is
used here (docs/trade.md §11, §12)."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from itertools import pairwise

from amber_gable.core.plancheck.planned import Breach, Planned, PlannedStep, days_between, has
from amber_gable.core.specification.cautions.stops import job_stops
from amber_gable.core.state.judgement import frees_lead
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.core.work.waits import film_stage, wait_hours
from amber_gable.domain.grid import SLOT_H
from amber_gable.domain.house.survey import Item
from amber_gable.domain.work.operation import EARLY_FILMS, OperationKind, Technique

_K, _T = OperationKind, Technique
_NEAR = timedelta(seconds=90)
"""Times are rounded to minutes."""
HANGS = ("shutter-pair", "gutter")
"""Items that hang before a wall."""
BARED_DAYS = 1
MASKED_DAYS = 1


def windows(plan: Planned) -> Iterator[Breach]:
    """Every slot of a task is open for its work in the weather of its surface."""
    seen = set()
    for step in plan.steps:
        if (step.task.id, step.key) in seen:
            continue
        seen.add((step.task.id, step.key))
        found = plan.work(step).windows
        first, end = plan.slots(step.task)
        if first < 0 or end > found.ok.shape[1]:
            yield Breach("window", f"{step.words}: it lies outside the weather that is known")
        elif not found.ok[0, first:end].all():
            shut = next(s for s in range(first, end) if not found.ok[0, s])
            letters = "".join(found.letters(0, shut))
            when = plan.site.slots.time(shut)
            yield Breach("window", f"{step.words}: shut at {when:%H:%M} ({letters or 'outside the day'})")


def crew_day(plan: Planned) -> Iterator[Breach]:
    """Work lies in the crew's day, on days on which it works, and not before the plan begins."""
    crew, slots = plan.site.bundle.job.crew, plan.site.slots
    for task in plan.plan.tasks:
        first, end = plan.slots(task)
        if task.start < plan.begin - _NEAR:
            yield Breach("begin", f"“{task.operation}” on {task.face_name} stands before the plan begins")
        for slot in range(max(first, 0), min(end, len(slots))):
            hour, weekday = float(slots.hours[slot]), int(slots.weekday[slot])
            free = (weekday == 5 and not crew.work_saturday) or (weekday == 6 and not crew.work_sunday)
            if free or hour < crew.first_h - 1e-6 or hour + SLOT_H > crew.last_h + 1e-6:
                yield Breach("day", f"“{task.operation}” on {task.face_name} at {slots.time(slot):%a %d %b %H:%M} lies "
                             "outside the crew's day")  # fmt: skip
                break


def hands(plan: Planned) -> Iterator[Breach]:
    """Never more people at work than there are, and nobody at two things on one piece at once."""
    people = plan.site.bundle.job.crew.people
    edges = sorted(
        [(t.start, 1, t) for t in plan.plan.tasks] + [(t.end, 0, t) for t in plan.plan.tasks],
        key=lambda e: (e[0], e[1], e[2].id),
    )
    missing = plan.site.bundle.missing_on
    at_work = 0
    for when, begins, task in edges:
        at_work += (task.people or people) * (1 if begins else -1)
        there = people - missing.get(when.date(), 0)
        if begins and at_work > there:
            yield Breach("hands", f"at {when:%a %d %b %H:%M} {at_work} people are at work of {there}")
    for task in plan.plan.tasks:
        if not 1 <= (task.people or people) <= people:
            yield Breach("hands", f"“{task.operation}” on {task.face_name} takes {task.people} of {people} people")


def order(plan: Planned) -> Iterator[Breach]:
    """The steps of a part follow one another with the wait or the stage that lies between."""
    for steps in plan.of_part.values():
        for a in steps:
            for b in steps:
                if a.number < b.number and a.task.id != b.task.id and a.meets(b):
                    yield from _follows(plan, a, b)


def _follows(plan: Planned, a: PlannedStep, b: PlannedStep) -> Iterator[Breach]:
    if b.task.start < a.task.end - _NEAR:
        yield Breach("order", f"{b.words} begins before {a.words} is done")
        return
    if a.operation.kind.lays_film:
        stage = film_stage(b.operation)
        ready = plan.reached(a, stage) if stage is not None else a.task.end
        if ready is None or b.task.start < ready - _NEAR:
            yield Breach("film", f"{b.words} comes before the film of {a.words} is ready{_at(ready)}")
    else:
        # A task's longest wait holds for what comes after it, but for what only wants a dry surface.
        ready = a.task.end + timedelta(hours=wait_hours(a.operation, b.operation))
        if b.task.start < ready - _NEAR:
            yield Breach("wait", f"{b.words} comes before the wait behind {a.words} is over{_at(ready)}")


def _at(when: datetime | None) -> str:
    return "" if when is None else f", {when:%a %d %b %H:%M}"


def longest_recoat(plan: Planned) -> Iterator[Breach]:
    """No film waits longer for the next than its sheet allows, unless it is dulled between."""
    bundle = plan.site.bundle
    for steps in plan.of_part.values():
        films = [s for s in steps if s.operation.kind.lays_film and s.operation.product]
        for a, b in pairwise(sorted(films, key=lambda s: s.number)):
            limit = coat_limits(bundle.product(a.operation.product or ""), bundle.policy).get("max_recoat")
            dulled = any(s.operation.kind is _K.SAND and a.number < s.number < b.number for s in steps)
            if limit is None or dulled or not a.meets(b) or a.operation.where is not b.operation.where:
                continue
            if b.task.start - a.task.end > timedelta(hours=limit.value) + _NEAR:
                yield Breach("recoat", f"{b.words} comes later than {limit.value:.0f} h after {a.words}")


def stops(plan: Planned) -> Iterator[Breach]:
    """Nothing is planned on a part that a stop without a day holds."""
    held = job_stops(plan.site.bundle)
    for key, steps in plan.of_part.items():
        for stop in held.get(key, ()):
            if stop.until is None:
                yield Breach("stop", f"{steps[0].words}: {stop.words}")


def washed_first(plan: Planned) -> Iterator[Breach]:
    """All washing of a face, and all its dusty work that is no part's own between its films, before its first full
    film."""
    for steps in plan.of_face.values():
        films = [s for s in steps if _full_film(s) and s.on_wall]
        if not films:
            continue
        first = min(films, key=lambda s: s.task.start)
        for step in steps:
            early = not any(f.key == step.key and f.number < step.number for f in films)
            if step.on_wall and step.dirty and early and step.task.end > first.task.start + _NEAR:
                yield Breach("washed first", f"{step.words} comes after the face's first film, {first.words}")


def _full_film(step: PlannedStep) -> bool:
    return step.operation.kind.lays_film and step.operation.id not in EARLY_FILMS


def wet_beside(plan: Planned) -> Iterator[Breach]:
    """Nothing wet and nothing dusty on a face while a film there is not rain-ready, or not dry to touch."""
    for steps in plan.of_face.values():
        for film in (s for s in steps if _full_film(s) and s.on_wall):
            ready = {True: plan.reached(film, DryingStage.RAIN_READY), False: plan.reached(film, DryingStage.TOUCH)}
            for step in steps:
                if not step.on_wall or not step.dirty or step.key == film.key or step.task.end <= film.task.start:
                    continue
                until = ready[step.operation.kind.wets]
                if step.task.start >= film.task.end - _NEAR and until is not None and step.task.start < until - _NEAR:
                    yield Breach("beside", f"{step.words} comes beside the wet film of {film.words}")


def hung_back_last(plan: Planned) -> Iterator[Breach]:
    """What hangs before a wall goes back after all films of what is behind it."""
    for steps in plan.of_face.values():
        walls = [s for s in steps if not isinstance(s.part, Item) and s.operation.kind.lays_film]
        for step in steps:
            if step.operation.kind is not _K.FIT or has(step, _T.MOVE):
                continue
            hangs = not isinstance(step.part, Item) or step.part.spec.kind in HANGS
            films = [o for o, op in enumerate(plan.orders[step.key]) if op.kind.lays_film]
            if not hangs or not films or step.number < films[-1]:
                continue
            late = next((w for w in walls if w.task.end > step.task.start + _NEAR), None)
            if late is not None:
                yield Breach("hung back", f"{step.words} comes before {late.words}")


def contained(plan: Planned) -> Iterator[Breach]:
    """Where lead is presumed, no paint comes off before the face is contained."""
    for steps in plan.of_face.values():
        set_up = [s for s in steps if has(s, _T.CONTAIN)]
        if not set_up:
            continue
        stands = min(set_up, key=lambda s: s.task.end)
        for step in steps:
            frees = step.operation.technique is not None and frees_lead(
                plan.site.bundle, step.part, step.operation.kind, [step.operation.technique]
            )
            if frees and step.task.id != stands.task.id and step.task.start < stands.task.end - _NEAR:
                yield Breach("contained", f"{step.words} comes before the containment of the face, {stands.words}")


def masked(plan: Planned) -> Iterator[Breach]:
    """Masking stands before the full films of its part, and not for days before the first."""
    for steps in plan.of_part.values():
        for mask in (s for s in steps if has(s, _T.MASK)):
            films = [s for s in steps if _full_film(s) and s.number > mask.number and s.meets(mask)]
            if not films:
                continue
            first = min(films, key=lambda s: s.task.start)
            days = days_between(mask.task.start.date(), first.task.start.date())
            if days > MASKED_DAYS:
                yield Breach("masked", f"{mask.words} stands {days} days before {first.words}", must=False)


def bared(plan: Planned) -> Iterator[Breach]:
    """What was bared is primed the same or the next day."""
    for steps in plan.of_part.values():
        films = sorted((s for s in steps if s.operation.kind.lays_film), key=lambda s: s.number)
        for film in films[:1]:
            bares = [
                s
                for s in steps
                if s.number < film.number and s.operation.kind in (_K.STRIP, _K.SCRAPE, _K.SAND) and s.meets(film)
            ]
            if not film.operation.bare or not bares:
                continue
            last = max(bares, key=lambda s: s.task.end)
            days = days_between(last.task.end.date(), film.task.start.date())
            if days > BARED_DAYS:
                yield Breach("bared", f"{last.words} leaves it bare for {days} days until {film.words}", must=False)


def cleaned_up(plan: Planned) -> Iterator[Breach]:
    """Every day on which presumed lead paint comes off a face ends with its clean-up."""
    for face, steps in plan.of_face.items():
        dusty = {
            s.task.start.date()
            for s in steps
            if s.operation.technique is not None
            and s.operation.kind in (_K.STRIP, _K.SCRAPE, _K.SAND)
            and frees_lead(plan.site.bundle, s.part, s.operation.kind, [s.operation.technique])
        }
        cleaned = {s.task.start.date() for s in steps if has(s, _T.DAILY_CLEAN)}
        for day in sorted(dusty - cleaned):
            yield Breach("clean-up", f"{face}: presumed lead paint comes off on {day:%a %d %b}, no clean-up is planned "
                         "that day", must=False)  # fmt: skip


RULES = (
    windows, crew_day, hands, order, longest_recoat, stops, washed_first, wet_beside, hung_back_last, contained, masked,
    bared, cleaned_up,
)  # fmt: skip


def breaches(plan: Planned) -> list[Breach]:
    """All that is wrong, each once, in the order of the rules."""
    return list(dict.fromkeys(b for rule in RULES for b in rule(plan)))
