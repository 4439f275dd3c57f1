"""From a job and its climate to placed tasks."""

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from math import ceil

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.explain import STOPPED, why, why_not
from amber_gable.core.plan.tasks import OpenTask
from amber_gable.core.plan.work import WorkItem, before_in_system, before_on_face, shifts, slots_for, work_items
from amber_gable.core.specification.stops import Stop, job_stops
from amber_gable.core.survey.painted import Key, part_key
from amber_gable.core.weather.limits import coat_limits
from amber_gable.core.weather.slots import Slots
from amber_gable.core.weather.windows import moment
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.plan import Plan, Task, Unplaced
from amber_gable.domain.survey import Item, Zone


def _candidates(items: list[WorkItem], site: SiteClimate) -> list[OpenTask]:
    slots = site.slots
    slot_ends = slots.start + SLOT_S * (np.arange(len(slots)) + 1.0)
    out = []
    for item in items:
        allowed, letters = item.windows.ok[0], item.windows.first_letters()[0]
        if item.not_before is not None:
            early = slots.day < (item.not_before - slots.time(0).date()).days
            allowed, letters = allowed & ~early, np.where(early, STOPPED, letters)
        recoat = item.windows.recoat_at
        limits = coat_limits(item.product, site.bundle.policy) if item.product else {}
        longest = limits["max_recoat"].value if "max_recoat" in limits else None
        out.append(
            OpenTask(
                id=item.id,
                face=item.part.face.id,
                duration_slots=slots_for(item.crew_hours),
                after=before_on_face(item, items, site.bundle) + before_in_system(item, items),
                allowed=allowed,
                letters=letters,
                ready=np.asarray(recoat[0] if recoat is not None else slot_ends + item.stint.wait_h * 3600),
                latest_after=None if longest is None else longest * 3600,
            )
        )
    return out


def plan_job(site: SiteClimate, begin: datetime) -> Plan:
    """Place every operation of the job for its crew, from `begin` to the end of the site's slots. Nothing is
    placed on a part that a stop holds."""
    stops = job_stops(site.bundle)
    items = {i.id: i for i in work_items(site, stops)}
    slots = site.slots
    candidates = {c.id: c for c in _candidates(list(items.values()), site)}
    first = max(0, ceil((begin.timestamp() - slots.start) / SLOT_S))
    placed, refused = place(list(candidates.values()), shifts(slots, site.bundle.job.crew), slots.start, first)
    titles = {i.id: i.title for i in items.values()}
    tasks = []
    for placement in placed:
        reason, blocked = why(candidates[placement.id], placement, slots, titles)
        tasks.append(
            _task(items[placement.id], candidates[placement.id], placement.first, placement.end, slots, reason, blocked)
        )
    return Plan(
        tasks=tuple(tasks),
        unplaced=_stopped(stops)
        + tuple(
            Unplaced(
                id=r.id,
                face_name=items[r.id].part.face.name,
                zone_name=items[r.id].part.name,
                section=items[r.id].section,
                operation=items[r.id].stint.name,
                why=_held_back(items[r.id], stops) or why_not(r, titles),
            )
            for r in refused
        ),
        finish=max((t.end for t in tasks), default=None),
    )


def _stopped(stops: Mapping[Key, Sequence[Stop]]) -> tuple[Unplaced, ...]:
    """One entry for every part that a stop without a day holds."""
    return tuple(
        Unplaced(
            id=f"{kind}.{id_}/stopped",
            face_name=found[0].face_name,
            zone_name=found[0].part_name,
            section="",
            operation="All of it",
            why=" ".join(s.said for s in found),
        )
        for (kind, id_), found in stops.items()
        if any(s.until is None for s in found)
    )


def _held_back(item: WorkItem, stops: Mapping[Key, Sequence[Stop]]) -> str:
    """The words of the stop whose day lies past the days looked at."""
    last = date.fromisoformat(item.windows.slots.dates[-1])
    late = [s for s in stops.get(item.part.key, ()) if s.until is not None and s.until > last]
    return " ".join(s.said for s in late)


def threatened_tasks(site: SiteClimate, plan: Plan, now: datetime) -> tuple[tuple[Task, str], ...]:
    """Placed tasks not yet begun that the site's weather would stop, each with the first letter that stops it.

    Tasks outside the site's slots, or of parts and products the job no longer has, are passed over.
    """
    slots = site.slots
    parts: dict[tuple[str, str], Zone | Item] = {part_key(z): z for z in site.bundle.property.zones}
    parts |= {part_key(i): i for i in site.bundle.property.items if site.knows(i)}
    products = {p.code: p for p in site.bundle.products}
    out = []
    for task in plan.tasks:
        first, end = (int((t.timestamp() - slots.start) // SLOT_S) for t in (task.start, task.end))
        part = parts.get(task.part)
        if part is None or task.start < now or first < 0 or end > len(slots):
            continue
        if task.product is None or task.method is None:
            windows = site.for_preparation(part, task.kind)
        elif task.product in products:
            windows = site.for_coat(part, products[task.product], task.method, task.colour or part.colour_now)
        else:
            continue
        shut = np.flatnonzero(~windows.ok[0, first:end])
        if shut.size:
            out.append((task, windows.letters(0, first + int(shut[0]))[0]))
    return tuple(out)


def _task(
    item: WorkItem, candidate: OpenTask, first: int, end: int, slots: Slots, reason: str, blocked: tuple[str, ...]
) -> Task:
    windows, last, (kind, id_) = item.windows, end - 1, item.part.key
    touch, rain = windows.touch_at, windows.rain_ready_at
    ready = moment(float(candidate.ready[last]), slots)
    return Task(
        id=item.id,
        face=item.part.face.id,
        face_name=item.part.face.name,
        zone=id_,
        zone_name=item.part.name,
        item=kind == "item",
        section=item.section,
        operation=item.stint.name,
        kind=item.stint.kind,
        techniques=tuple(o.technique for o in item.stint.operations if o.technique is not None),
        product=item.stint.first.product,
        colour=item.colour,
        method=item.stint.first.method,
        area_m2=round(item.surface_m2, 2),
        crew_hours=round(item.crew_hours, 2),
        start=slots.time(first),
        end=slots.time(end),
        touch_at=None if touch is None else moment(float(touch[0, last]), slots),
        rain_ready_at=None if rain is None else moment(float(rain[0, last]), slots),
        ready_at=ready,
        why=reason,
        blocked_by=blocked,
    )
