"""From a job, its state and its climate to placed tasks."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from math import ceil

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.explain import Titles, why, why_not
from amber_gable.core.plan.order import (
    contained_first,
    covered_first,
    dirt_before_films,
    frees_lead_paint,
    on_face,
    within_part,
)
from amber_gable.core.plan.problem import plan_problem
from amber_gable.core.plan.tasks import SLOT_MIN, After, OpenTask, Placement, Refusal, shifts
from amber_gable.core.plan.work import WorkItem, stopped_for_good, work_items
from amber_gable.core.state.job_state import surroundings
from amber_gable.core.state.part_state import PartState, part_states
from amber_gable.core.state.surroundings import Surroundings
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.domain.job.plan import Plan, Task, Unplaced
from amber_gable.domain.progress import Progress, unseen, within
from amber_gable.domain.work.operation import Technique
from amber_gable.domain.work.people import Person

LEAST_LEFT_MIN = 10
"""What is under way longer than it was to take is not done: so much is left of it at least."""


def plan_job(site: SiteClimate, begin: datetime, progress: Progress = unseen, people: Sequence[Person] = ()) -> Plan:
    """Place what is left of the job for its crew, from `begin` to the end of the site's slots, starting from what the
    record says is done. Nothing is placed on a part that a stop holds. `people`: the hands of the crew, as many unnamed
    ones where it is not known who they are."""
    site = replace(site, bundle=plan_problem(site.bundle, people).bundle)
    around = surroundings(site, begin)
    states = part_states(around)
    items = {i.id: i for i in work_items(around, states, within(progress, 0.0, 0.3))}
    slots = site.slots
    first = max(0, ceil((begin.timestamp() - slots.start) / 60))
    tasks = _open_tasks(list(items.values()), around, _uncontained(states))
    placed, refused = place(tasks, shifts(slots, site.bundle.job.crew), slots.start, first, within(progress, 0.3, 1.0))
    candidates = {t.id: t for t in tasks}
    titles: Titles = {i.id: i.title for i in items.values()} | _gate_titles(site)
    made = [_task(items[p.id], candidates[p.id], p, slots, titles) for p in placed]
    return Plan(
        tasks=tuple(made),
        unplaced=(*_stopped(states), *(_unplaced(items, r, titles) for r in refused)),
        finish=max((t.end for t in made), default=None),
    )


def _uncontained(states: Mapping[Key, PartState]) -> dict[str, str]:
    """Faces whose containment is still to be set up with a part that a stop holds, and the name of that part."""
    return {
        s.part.face.id: s.part.name
        for s in states.values()
        if stopped_for_good(s)
        for o in s.operations
        if o.technique is Technique.CONTAIN and any(o.id in {x.id for x in c.cell.open} for c in s.cells)
    }


def _open_tasks(items: Sequence[WorkItem], around: Surroundings, uncontained: Mapping[str, str]) -> list[OpenTask]:
    site = around.site
    gates, behind = dirt_before_films(items, site.bundle)
    contained, dusty = contained_first(items, site.bundle)
    covered, dripping = covered_first(items, site.bundle)
    gates |= contained | covered
    count = len(site.slots)
    open_, none = np.ones(count, dtype=bool), np.full(count, "", dtype="<U1")
    out = [OpenTask(name, "", 0, edges, open_, none) for name, edges in gates.items()]
    for item in items:
        windows = item.work.windows
        edges = [*within_part(item, items), *on_face(item, items, site.bundle)]
        edges += [After(g) for g in (*behind.get(item.id, ()), *dusty.get(item.id, ()), *dripping.get(item.id, ()))]
        ends = [w.until for w in item.waits]
        held = next((w for w in item.waits if w.until is None), None)
        face = item.part.face.id
        words = held.words if held is not None else ""
        if not words and face in uncontained and frees_lead_paint(item, site.bundle):
            words = f"the containment of this face stands with {uncontained[face]}, which is stopped"
        ready = max((ceil((e.timestamp() - site.slots.start) / 60) for e in ends if e is not None), default=0)
        out.append(
            OpenTask(
                id=item.id,
                face=face,
                minutes=_minutes_left(item, around.now),
                after=tuple(dict.fromkeys(edges)),
                allowed=windows.ok[0],
                letters=windows.first_letters()[0],
                not_before=None if words else ready,
                held_by=words,
                stages=_stages(item),
                latest_after=_latest(item, site),
                under_way=item.begun_at is not None,
            )
        )
    return out


def _minutes_left(item: WorkItem, now: datetime) -> int:
    """Of work under way, what is left of its time."""
    if item.begun_at is None:
        return item.minutes
    worked = max(0.0, (now - item.begun_at).total_seconds() / 60)
    return max(min(LEAST_LEFT_MIN, item.minutes), ceil(item.minutes - worked))


def _stages(item: WorkItem) -> dict[DryingStage, np.ndarray]:
    windows = item.work.windows
    if windows.touch_at is None or windows.rain_ready_at is None or windows.recoat_at is None:
        return {}
    return {
        DryingStage.TOUCH: windows.touch_at[0],
        DryingStage.RAIN_READY: windows.rain_ready_at[0],
        DryingStage.RECOAT: windows.recoat_at[0],
    }


def _latest(item: WorkItem, site: SiteClimate) -> int | None:
    if item.work.product is None:
        return None
    longest = coat_limits(item.work.product, site.bundle.policy).get("max_recoat")
    return None if longest is None else int(longest.value * 60)


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


def _task(item: WorkItem, candidate: OpenTask, placement: Placement, slots: Slots, titles: Titles) -> Task:
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
