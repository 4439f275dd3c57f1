"""How many people may be at a piece of work, and how long it then takes."""

from math import ceil, floor

from amber_gable.core.plan.work import SECTION_HOURS, WorkItem

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


def room(item: WorkItem) -> int:
    """How many people can be at it side by side."""
    if item.part.item_kind:
        each = item.surface_m2 / len(item.stretches)
        return len(item.stretches) * (2 if each >= LARGE_ITEM_M2 else 1)
    width = sum(s.right - s.left for s in item.stretches) * item.part.face.width_m
    return max(1, floor(width / REACH_M))
