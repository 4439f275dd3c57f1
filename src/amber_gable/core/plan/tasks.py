"""What the planner places: operations on face sections, with where they may go. Time counts in minutes from the start
of the slots; weather is judged in slots."""

from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.domain.grid import SLOT_H, SLOT_S
from amber_gable.domain.work.working import CrewDay

SLOT_MIN = SLOT_S // 60
VISIT_MIN = 5
"""A visit to another face, or one after a wait, begins on a mark of the clock: so much is lost by changing places."""


@dataclass(frozen=True)
class After:
    """What must be behind first: `id`, and from its end either a fixed wait or a stage of its film. `sanded`: between
    the two it is dulled, so that the film below has no longest time."""

    id: str
    wait_min: int = 0
    stage: DryingStage | None = None
    sanded: bool = False


@dataclass(frozen=True)
class Soon:
    """A task that had better not be left lying: what names it should begin at most so many days after it. `why` says
    what becomes of it."""

    id: str
    days: int
    why: str


@dataclass(frozen=True)
class OpenTask:
    """One operation on one section; a gate where `minutes` is 0: it takes no time, and is passed when all before it is
    done.

    allowed (S,): slots in which it may be done. letters (S,): what stops each other slot. not_before: minute from which
    the part is ready as it stands, None where no day is known (`held_by` says why). stages: for a film, by stage, the
    epoch second (S,) at which it is reached when the last stroke is in slot s. latest_after: longest wait, in minutes,
    for the coat that follows. under_way: begun already. modes: (hands, minutes) in which it may be done where people
    work apart, the fewest hands first; empty where the crew works together, in `minutes`. soon: what it should follow
    within days.
    """

    id: str
    face: str
    minutes: int
    after: tuple[After, ...]
    allowed: npt.NDArray[np.bool_]
    letters: npt.NDArray[np.str_]
    not_before: int | None = 0
    held_by: str = ""
    stages: dict[DryingStage, Array] = field(default_factory=dict)
    latest_after: int | None = None
    under_way: bool = False
    modes: tuple[tuple[int, int], ...] = ()
    soon: tuple[Soon, ...] = ()


@dataclass(frozen=True)
class Placement:
    """A task's place: minutes [start, end). earliest: minute from which it could have begun. busy_with: id of the
    task that kept the crew from it then, None where none did. could: minute of a day before at which it might have
    begun, left for a day with other work. hands: how many people are at it, 0 for the whole crew. behind: the task
    after which `earliest` comes."""

    id: str
    start: int
    end: int
    earliest: int
    busy_with: str | None
    hands: int = 0
    could: int | None = None
    behind: str | None = None


@dataclass(frozen=True)
class Refusal:
    """A task left out. cause: 'after' (detail: the id it waits for), 'held' (detail: what the part waits for), 'ready',
    'late', 'recoat', 'crew', 'short' or 'weather' (detail: the letter that stops most). `root`: the task at the head of
    the chain it waits in, itself where it waits for none."""

    id: str
    cause: str
    detail: str
    root: str


@dataclass(frozen=True)
class Openings:
    """For every slot, how many minutes of one and the same shift are open from its beginning; shape (S,)."""

    minutes: npt.NDArray[np.int64]

    def first(self, minute: int, length: int) -> int | None:
        """The first minute from `minute` on at which work of that length fits; None where none does."""
        slot = minute // SLOT_MIN
        if slot < len(self.minutes) and self.minutes[slot] - (minute - slot * SLOT_MIN) >= length:
            return minute
        later = np.flatnonzero(self.minutes[slot + 1 :] >= length)
        return None if not later.size else int(slot + 1 + later[0]) * SLOT_MIN

    def count(self, minute: int, length: int) -> int:
        """In how many slots from there on it could begin."""
        return int((self.minutes[minute // SLOT_MIN :] >= length).sum())


def openings(allowed: npt.NDArray[np.bool_], shift: npt.NDArray[np.int64]) -> Openings:
    """Open stretches inside shifts. Shift -1 is outside every shift."""
    good = allowed & (shift >= 0)
    breaks = np.flatnonzero(~good[:-1] | ~good[1:] | (shift[:-1] != shift[1:])) + 1
    ends = np.concatenate([breaks, [len(good)]])
    index = np.arange(len(good))
    end = ends[np.searchsorted(ends, index, side="right")]
    return Openings(np.where(good, (end - index) * SLOT_MIN, 0))


def shifts(slots: Slots, crew: CrewDay) -> npt.NDArray[np.int64]:
    """(S,): the crew's shift each slot belongs to, -1 outside working hours and on days off."""
    inside = (slots.hours >= crew.first_h - 1e-6) & (slots.hours + SLOT_H <= crew.last_h + 1e-6)
    works = ((slots.weekday != 5) | crew.work_saturday) & ((slots.weekday != 6) | crew.work_sunday)
    return np.where(inside & works, slots.day, -1)
