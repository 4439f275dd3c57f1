"""How many people may be at a piece of work, and how long it then takes."""

from collections.abc import Mapping, Sequence
from datetime import date
from math import ceil, floor

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.work import SECTION_HOURS, WorkItem
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.domain.work.people import Person

REACH_M = 2.0
"""Width of wall or floor that one person needs to work beside another: an assumption."""
LARGE_ITEM_M2 = 4.0
"""An item of so much surface takes two people, a smaller one a single one."""
WORTH_MIN = 15
"""Nobody is sent for less than so many minutes beside another."""


def modes(item: WorkItem, people: int) -> tuple[tuple[int, int], ...]:
    """(hands, minutes), the fewest hands first: as many as find room, so that a coat is not in hand longer than one
    stretch may be."""
    person_min = item.crew_hours * 60 * people
    most = max(1, min(people, room(item), floor(person_min / WORTH_MIN)))
    found = [(n, max(1, ceil(person_min / n - 1e-6))) for n in range(1, most + 1)]
    if not item.stint.lays_film:
        return tuple(found)
    longest = ceil(SECTION_HOURS[0] * 60)
    return tuple(m for m in found if m[1] <= longest) or (found[-1],)


def people_there(slots: Slots, people: Sequence[Person], missing: Mapping[date, int]) -> npt.NDArray[np.int64]:
    """(S,): how many of the people work in each slot: by their days of the week, less who is missing that day."""
    of_weekday = np.array([sum(day in p.days for p in people) for day in range(7)], dtype=np.int64)
    there: npt.NDArray[np.int64] = of_weekday[slots.weekday]
    for day in np.unique(slots.day):
        mine = slots.day == day
        there[mine] -= missing.get(slots.time(int(np.argmax(mine))).date(), 0)
    return there.clip(min=0)


def room(item: WorkItem) -> int:
    """How many people can be at it side by side."""
    if item.part.item_kind:
        each = item.surface_m2 / len(item.stretches)
        return len(item.stretches) * (2 if each >= LARGE_ITEM_M2 else 1)
    width = sum(s.right - s.left for s in item.stretches) * item.part.face.width_m
    return max(1, floor(width / REACH_M))
