"""A job's plan: its tasks placed for a crew that works together, at once; and placed by the solver for people who work
apart, as well as can be shown."""

from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime, timedelta
from math import ceil
from types import MappingProxyType

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.explain import Titles, why, why_not
from amber_gable.core.plan.floor import Floor
from amber_gable.core.plan.open_tasks import PlanTasks, plan_tasks
from amber_gable.core.plan.serial import place_hands
from amber_gable.core.plan.settle import settled
from amber_gable.core.plan.tasks import SLOT_MIN, OpenTask, Placement, Refusal
from amber_gable.core.plan.work import WorkItem, stopped_for_good
from amber_gable.core.state.part_state import PartState
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.domain.job.plan import Found, Plan, Task, Unplaced
from amber_gable.domain.progress import Progress, unseen, within
from amber_gable.domain.work.people import Person

Before = Mapping[str, tuple[datetime, int]]
"""When each task began in a plan, and with how many hands."""


def plan_job(
    site: SiteClimate,
    begin: datetime,
    progress: Progress = unseen,
    people: Sequence[Person] = (),
    floor: Floor | None = None,
) -> Plan:
    """Place what is left of the job earliest first: for its crew together, or, where somebody is missing on a day, for
    people who work apart. Nothing is placed on a part that a stop holds. Arguments as `plan_tasks`."""
    found = plan_tasks(site, begin, within(progress, 0.0, 0.3), people, floor)
    start, rest = found.site.slots.start, within(progress, 0.3, 1.0)
    if not found.apart:
        return _plan(found, *place(found.tasks, found.shift, start, found.first, rest))
    placed, refused = place_hands(found.tasks, found.shift, start, found.there, found.first, rest)
    return _plan(found, settled(found, placed), refused)


def solved_plan(
    site: SiteClimate,
    begin: datetime,
    people: Sequence[Person] = (),
    *,
    before: Before = MappingProxyType({}),
    floor: Floor | None = None,
    seconds: float = 15.0,
    seed: int = 1,
    progress: Progress = unseen,
    better: Callable[[Plan], None] | None = None,
) -> Plan:
    """Place what is left of the job for people who work apart, in the fewest days that the solver finds in that time,
    counted in its own steps; the same seed gives the same plan. `before`: the plan before, which is kept to
    where that costs no day. `better` is told each plan that is better than the last. Other arguments as
    `plan_tasks`."""
    from amber_gable.core.plan.solve import Progressed, best_plan

    found = plan_tasks(site, begin, within(progress, 0.0, 0.2), people, floor)
    if not found.items:
        return _plan(found, (), (), Found(status="optimal", cost=0, bound=0))

    start = found.site.slots.start
    stand = {
        id_: (int((at.timestamp() - start) // 60), hands) for id_, (at, hands) in before.items() if id_ in found.items
    }

    def told(so_far: Progressed) -> None:
        quality = Found(status="feasible", cost=so_far.cost, bound=so_far.bound)
        plan = _plan(found, settled(found, so_far.placements, stand), (), quality)
        progress(0.6, f"{plan.site_days} days on site, done on {_day(plan)}; looking for fewer")
        if better is not None:
            better(plan)

    solved, refused = best_plan(
        found.tasks, found.shift, start, found.there, found.first, stand=stand, seconds=seconds, seed=seed, told=told
    )  # fmt: skip
    placed = settled(found, solved.placements, stand)
    quality = Found(status=solved.status, cost=solved.cost, bound=solved.bound, moves=_moves(found, placed, before))
    return _plan(found, placed, refused, quality)


def _moves(found: PlanTasks, placed: Sequence[Placement], before: Before) -> tuple[str, ...]:
    """What stands on another day than in the plan before."""
    out = []
    for p in placed:
        now = _time(p.start, found.site.slots)
        was = before[p.id][0].astimezone(now.tzinfo) if p.id in before else now
        if was.date() != now.date():
            out.append(f"{found.items[p.id].title}: {_brief(was)} → {_brief(now)}")
    return tuple(out)


def _brief(at: datetime) -> str:
    return f"{at:%a} {at.day} {at:%b}"


def _day(plan: Plan) -> str:
    return "no day" if plan.finish is None else f"{plan.finish:%a %d %b}"


def _plan(
    found: PlanTasks, placed: Sequence[Placement], refused: Sequence[Refusal], quality: Found | None = None
) -> Plan:
    candidates, items, slots = {t.id: t for t in found.tasks}, found.items, found.site.slots
    titles: Titles = {i.id: i.title for i in items.values()} | _gate_titles(found.site)
    made = [_task(items[p.id], candidates[p.id], p, slots, titles, found.people) for p in placed]
    return Plan(
        tasks=tuple(made),
        unplaced=(*_stopped(found.states), *(_unplaced(items, r, titles) for r in refused)),
        finish=max((t.end for t in made), default=None),
        found=quality,
    )


def _gate_titles(site: SiteClimate) -> Titles:
    faces = site.bundle.property.faces
    return {f"clean.{f.id}": f"the washing, scraping and sanding on and beside {f.name}" for f in faces} | {
        f"{name}.{f.id}": f"the {words} of {f.name}"
        for f in faces
        for name, words in (("contain", "containment"), ("cover", "covering"))
    }


def _stopped(states: Mapping[Key, PartState]) -> tuple[Unplaced, ...]:
    """One entry for every part that a stop without a day holds."""
    out = []
    for (kind, id_), state in states.items():
        found = tuple(dict.fromkeys(stopped_for_good(state)))
        if found:
            part, words = state.part, " ".join(_said(w.words, w.lifts) for w in found)
            out.append(
                Unplaced(id=f"{kind}.{id_}/stopped", face_name=part.face.name, zone_name=part.name, section="",
                         operation="All of it", why=words, cause=words)
            )  # fmt: skip
    return tuple(out)


def _said(words: str, lifts: str) -> str:
    return f"Stopped: {words}." + (f" What lifts it: {lifts}" if lifts else "")


def _unplaced(items: Mapping[str, WorkItem], refusal: Refusal, titles: Titles) -> Unplaced:
    item, root = items[refusal.id], items[refusal.root]
    words = why_not(refusal, titles)
    until, last = max(((w.until, w.words) for w in item.waits if w.until is not None), default=(None, ""))
    if refusal.cause == "ready" and until is not None:
        words = f"Not ready: {last}. Ends by itself on {until.date().isoformat()}, past the days looked at."
    behind = refusal.root != refusal.id
    return Unplaced(
        id=refusal.id,
        face_name=item.part.face.name,
        zone_name=item.part.name,
        section=item.section,
        operation=item.stint.name,
        why=words,
        cause=f"behind {root.id}" if behind else words,
        behind=behind,
    )


def _task(item: WorkItem, candidate: OpenTask, placement: Placement, slots: Slots, titles: Titles, people: int) -> Task:
    work, stint, (kind, id_) = item.work, item.stint, item.part.key
    last = max(0, ceil(placement.end / SLOT_MIN) - 1)
    reason, blocked = why(candidate, placement, slots, titles)

    def at(stage: DryingStage) -> datetime | None:
        return slots.moment(float(candidate.stages[stage][last])) if candidate.stages else None

    end = _time(placement.end, slots)
    return Task(
        id=item.id,
        face=item.part.face.id,
        face_name=item.part.face.name,
        zone=id_,
        zone_name=item.part.name,
        item=kind == "item",
        section=item.section,
        operation=stint.name,
        kind=stint.kind,
        techniques=tuple(o.technique for o in stint.operations if o.technique is not None),
        steps=tuple(o.id for o in stint.operations),
        extent=item.extent,
        product=stint.first.product,
        colour=work.colour,
        method=stint.first.method,
        area_m2=round(item.surface_m2, 2),
        litres=None if item.litres is None else round(item.litres, 3),
        crew_hours=round(item.crew_hours, 3),
        people=placement.hands or people,
        start=_time(placement.start, slots),
        end=end,
        touch_at=at(DryingStage.TOUCH),
        rain_ready_at=at(DryingStage.RAIN_READY),
        ready_at=at(DryingStage.RECOAT) if candidate.stages else end + timedelta(hours=stint.wait_h),
        why=reason,
        blocked_by=blocked,
    )


def _time(minute: int, slots: Slots) -> datetime:
    return datetime.fromtimestamp(slots.start + 60 * minute, UTC).astimezone(slots.tz)
