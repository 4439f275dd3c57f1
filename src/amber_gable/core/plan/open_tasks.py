"""What is left of a job as tasks the planner can place: from its state and its climate, with the trade's order."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from math import ceil

import numpy as np
import numpy.typing as npt

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.plan.floor import Floor, sure_enough
from amber_gable.core.plan.hands import modes, people_there
from amber_gable.core.plan.order import (
    contained_first,
    covered_first,
    dirt_before_films,
    frees_lead_paint,
    hung_back_last,
    on_face,
    soon_after,
    within_part,
)
from amber_gable.core.plan.problem import plan_problem
from amber_gable.core.plan.tasks import After, OpenTask, shifts
from amber_gable.core.plan.work import WorkItem, stopped_for_good, work_items
from amber_gable.core.state.job_state import surroundings
from amber_gable.core.state.part_state import PartState, part_states
from amber_gable.core.state.surroundings import Surroundings
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.domain.progress import Progress, unseen
from amber_gable.domain.work.operation import Technique
from amber_gable.domain.work.people import Person, unnamed

LEAST_LEFT_MIN = 10
"""What is under way longer than it was to take is not done: so much is left of it at least."""


@dataclass(frozen=True)
class PlanTasks:
    """All that is left of a job: `tasks` with the gates between them, each piece of work by its id in `items`; `shift`
    (S,) numbers each slot's crew shift, -1 outside; `there` (S,) people are at hand; nothing begins before minute
    `first`."""

    site: SiteClimate
    states: Mapping[Key, PartState]
    items: Mapping[str, WorkItem]
    tasks: tuple[OpenTask, ...]
    shift: npt.NDArray[np.int64]
    there: npt.NDArray[np.int64]
    first: int

    @property
    def people(self) -> int:
        return self.site.bundle.job.crew.people

    @property
    def apart(self) -> bool:
        """Whether on some day fewer people are there than on others, so that they cannot be planned as one crew."""
        works = self.there[self.shift >= 0]
        return bool(works.size) and int(works.min()) < self.people


def plan_tasks(
    site: SiteClimate,
    begin: datetime,
    progress: Progress = unseen,
    people: Sequence[Person] = (),
    floor: Floor | None = None,
) -> PlanTasks:
    """What is left of the job from `begin` to the end of the site's slots, by what the record says is done. `people`:
    the hands of the crew, as many unnamed ones where it is not known who they are. `floor`: how sure the weather of
    every step must be; without one the forecast is taken as it is."""
    site = replace(site, bundle=plan_problem(site.bundle, people).bundle)
    around = surroundings(site, begin)
    states = part_states(around)
    items = {i.id: i for i in work_items(around, states, progress)}
    tasks = _open_tasks(list(items.values()), around, _uncontained(states))
    tasks = tasks if floor is None else sure_enough(tasks, items, site.bundle, floor)
    first = max(0, ceil((begin.timestamp() - site.slots.start) / 60))
    there = people_there(site.slots, people or unnamed(site.bundle.job.crew.people), site.bundle.missing_on)
    return PlanTasks(site, states, items, tuple(tasks), shifts(site.slots, site.bundle.job.crew), there, first)


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
        edges = [*within_part(item, items), *on_face(item, items, site.bundle), *hung_back_last(item, items)]
        edges += [After(g) for g in (*behind.get(item.id, ()), *dusty.get(item.id, ()), *dripping.get(item.id, ()))]
        ends = [w.until for w in item.waits]
        held = next((w for w in item.waits if w.until is None), None)
        face = item.part.face.id
        words = held.words if held is not None else ""
        if not words and face in uncontained and frees_lead_paint(item, site.bundle):
            words = f"the containment of this face stands with {uncontained[face]}, which is stopped"
        ready = max((ceil((e.timestamp() - site.slots.start) / 60) for e in ends if e is not None), default=0)
        minutes, people = _minutes_left(item, around.now), site.bundle.job.crew.people
        out.append(
            OpenTask(
                id=item.id,
                face=face,
                minutes=minutes,
                after=tuple(dict.fromkeys(edges)),
                allowed=windows.ok[0],
                letters=windows.first_letters()[0],
                not_before=None if words else ready,
                held_by=words,
                stages=_stages(item),
                latest_after=_latest(item, site),
                under_way=item.begun_at is not None,
                soon=tuple(soon_after(item, items)),
                # Whoever is at it goes on.
                modes=modes(item, people) if item.begun_at is None else ((people, minutes),),
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
