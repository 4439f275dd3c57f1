"""From a job and its climate to placed tasks."""

from dataclasses import dataclass
from datetime import datetime
from math import ceil

import numpy as np
import numpy.typing as npt

from amber_gable.core.estimate.labour import person_hours, texture_factor
from amber_gable.core.estimate.quantities import coat_colour
from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.explain import why, why_not
from amber_gable.core.plan.tasks import Candidate, runs
from amber_gable.core.survey.sections import section_share, sections, working_height
from amber_gable.core.survey.takeoff import ZoneArea, zone_areas
from amber_gable.core.weather.site import SiteClimate
from amber_gable.core.weather.slots import Slots
from amber_gable.core.weather.steps import SLOT
from amber_gable.core.weather.windows import Windows, moment
from amber_gable.domain.job import CrewDay, Finish
from amber_gable.domain.plan import Plan, Task, Unplaced
from amber_gable.domain.product import Operation
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import Face

SECTION_HOURS = (3.0, 1.5, 0.75)
"""Longest stretch of one task. Longer work is cut at natural breaks, where a wet edge can end; where no window takes
such a stretch, into shorter ones."""


@dataclass(frozen=True)
class WorkItem:
    """One operation on one section of a zone, with everything needed to print it once it is placed."""

    id: str
    area: ZoneArea
    finish: Finish
    operation: Operation
    section: str
    left_m: float
    right_m: float
    surface_m2: float
    crew_hours: float
    windows: Windows
    colour: str | None = None

    @property
    def title(self) -> str:
        part = f", {self.section}" if self.section else ""
        return f"{self.operation.name}: {self.area.face.name}, {self.area.zone.name}{part}"


def shifts(slots: Slots, crew: CrewDay) -> npt.NDArray[np.int64]:
    """(S,): the crew's shift each slot belongs to, -1 outside working hours and on days off."""
    inside = (slots.hours >= crew.first_h - 1e-6) & (slots.hours + 0.5 <= crew.last_h + 1e-6)
    works = ((slots.weekday != 5) | crew.work_saturday) & ((slots.weekday != 6) | crew.work_sunday)
    return np.where(inside & works, slots.day, -1)


def work_items(site: SiteClimate) -> list[WorkItem]:
    """All operations of all finished zones, cut into sections, in the order of the work on each zone."""
    bundle = site.bundle
    areas = zone_areas(bundle.property, bundle.job.deduction)
    items: list[WorkItem] = []
    for finish in bundle.job.finishes:
        area = areas[finish.zone]
        if area.plan_m2 <= 0:
            continue
        for operation in bundle.system(finish.system).operations:
            items += _sections_of(site, area, finish, operation)
    return items


def _sections_of(site: SiteClimate, area: ZoneArea, finish: Finish, operation: Operation) -> list[WorkItem]:
    substrate = SUBSTRATES[area.zone.substrate]
    bundle = site.bundle
    hours = person_hours(
        operation,
        area.surface_m2,
        working_height(area.zone, area.face),
        texture_factor(substrate.texture, substrate.profile_factor),
        level=area.face.tilt_deg < 30,
    )
    colour = None
    if operation.product is None or operation.method is None:
        windows = site.for_preparation(area.zone, operation.kind)
    else:
        product = bundle.product(operation.product)
        colour = coat_colour(operation, product, finish.colour)
        windows = site.for_coat(area.zone, product, operation.method, colour)
    strips = _strips(area.face, hours / bundle.job.crew.people, windows, shifts(site.slots, bundle.job.crew))
    out = []
    for number, (left, right) in enumerate(strips, 1):
        share = section_share(area.face, left, right)
        out.append(
            WorkItem(
                id=f"{finish.zone}/{operation.id}/{number}",
                area=area,
                finish=finish,
                operation=operation,
                section=f"{left:.1f}–{right:.1f} m from left" if len(strips) > 1 else "",
                left_m=left,
                right_m=right,
                surface_m2=area.surface_m2 * operation.share * share,
                crew_hours=hours * share / bundle.job.crew.people,
                windows=windows,
                colour=colour,
            )
        )
    return out


def _strips(
    face: Face, crew_hours: float, windows: Windows, shift: npt.NDArray[np.int64]
) -> tuple[tuple[float, float], ...]:
    """The fewest sections that fit a window on at least half of the days with any; the shortest if none do."""
    day = windows.slots.day
    any_days = len(np.unique(day[windows.ok[0] & (shift >= 0)]))
    strips: tuple[tuple[float, float], ...] = ()
    for longest in SECTION_HOURS:
        strips = sections(face, ceil(crew_hours / longest))
        widest = max(section_share(face, *strip) for strip in strips)
        fitting = runs(windows.ok[0], shift, _slots_for(crew_hours * widest))
        if len(np.unique(day[fitting])) * 2 >= max(any_days, 1):
            break
    return strips


def _slots_for(crew_hours: float) -> int:
    return max(1, ceil(crew_hours * 3600 / SLOT - 1e-9))


def _fields_first(item: WorkItem, items: list[WorkItem]) -> tuple[str, ...]:
    """Trim follows the field it frames: its first step the field's first, its first film the field's last."""
    operations = [i.operation for i in items if i.finish is item.finish]
    films = [o for o in operations if o.kind.lays_film]
    if not SUBSTRATES[item.area.zone.substrate].is_trim:
        return ()
    fields = [i for i in items if i.area.face is item.area.face and not SUBSTRATES[i.area.zone.substrate].is_trim]
    by_zone = {i.area.zone.id: [o.operation for o in fields if o.area.zone is i.area.zone] for i in fields}
    out: list[str] = []
    for zone, steps in by_zone.items():
        if item.operation is operations[0]:
            out += [i.id for i in fields if i.area.zone.id == zone and i.operation is steps[0]]
        if films and item.operation is films[0]:
            out += [i.id for i in fields if i.area.zone.id == zone and i.operation is steps[-1]]
    return tuple(out)


def _candidates(items: list[WorkItem], site: SiteClimate) -> list[Candidate]:
    slots = site.slots
    slot_ends = slots.start + SLOT * (np.arange(len(slots)) + 1.0)
    out = []
    for item in items:
        operations = site.bundle.system(item.finish.system).operations
        at = operations.index(item.operation)
        before = operations[at - 1] if at else None
        after = tuple(
            other.id
            for other in items
            if before is not None
            and other.operation is before
            and other.finish is item.finish
            and other.left_m < item.right_m - 1e-6
            and other.right_m > item.left_m + 1e-6
        )
        recoat = item.windows.recoat_at
        longest = site.bundle.product(item.operation.product).max_recoat_h if item.operation.product else None
        out.append(
            Candidate(
                id=item.id,
                face=item.area.face.id,
                duration_slots=_slots_for(item.crew_hours),
                after=_fields_first(item, items) + after,
                allowed=item.windows.ok[0],
                letters=item.windows.first_letters()[0],
                ready=np.asarray(recoat[0] if recoat is not None else slot_ends + item.operation.wait_h * 3600),
                latest_after=None if longest is None else longest * 3600,
            )
        )
    return out


def plan_job(site: SiteClimate, begin: datetime) -> Plan:
    """Place every operation of the job for its crew, from `begin` to the end of the site's slots."""
    items = {i.id: i for i in work_items(site)}
    slots = site.slots
    candidates = {c.id: c for c in _candidates(list(items.values()), site)}
    first = max(0, ceil((begin.timestamp() - slots.start) / SLOT))
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
        unplaced=tuple(
            Unplaced(
                id=r.id,
                face_name=items[r.id].area.face.name,
                zone_name=items[r.id].area.zone.name,
                section=items[r.id].section,
                operation=items[r.id].operation.name,
                why=why_not(r, titles),
            )
            for r in refused
        ),
        finish=max((t.end for t in tasks), default=None),
    )


def threatened_tasks(site: SiteClimate, plan: Plan, now: datetime) -> tuple[tuple[Task, str], ...]:
    """Placed tasks not yet begun that the site's weather would stop, each with the first letter that stops it.

    Tasks outside the site's slots, or of zones and products the job no longer has, are passed over.
    """
    slots = site.slots
    zones = {z.id: z for z in site.bundle.property.zones}
    products = {p.code: p for p in site.bundle.products}
    out = []
    for task in plan.tasks:
        first, end = (int((t.timestamp() - slots.start) // SLOT) for t in (task.start, task.end))
        if task.start < now or task.zone not in zones or first < 0 or end > len(slots):
            continue
        zone = zones[task.zone]
        if task.product is None or task.method is None:
            windows = site.for_preparation(zone, task.kind)
        elif task.product in products:
            windows = site.for_coat(zone, products[task.product], task.method, task.colour or zone.colour_now)
        else:
            continue
        shut = np.flatnonzero(~windows.ok[0, first:end])
        if shut.size:
            out.append((task, windows.letters(0, first + int(shut[0]))[0]))
    return tuple(out)


def _task(
    item: WorkItem, candidate: Candidate, first: int, end: int, slots: Slots, reason: str, blocked: tuple[str, ...]
) -> Task:
    windows, last, zone = item.windows, end - 1, item.area.zone
    touch, rain = windows.touch_at, windows.rain_ready_at
    ready = moment(float(candidate.ready[last]), slots)
    return Task(
        id=item.id,
        face=item.area.face.id,
        face_name=item.area.face.name,
        zone=zone.id,
        zone_name=zone.name,
        section=item.section,
        operation=item.operation.name,
        kind=item.operation.kind,
        product=item.operation.product,
        colour=item.colour,
        method=item.operation.method,
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
