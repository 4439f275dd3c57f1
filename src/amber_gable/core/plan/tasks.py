"""What the planner places: operations on face sections, with where they may go."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.air import Array


@dataclass(frozen=True)
class OpenTask:
    """One operation on one section.

    after: ids that must be finished and ready first. allowed (S,): slots in which it may be done. letters (S,): what
    stops each other slot. ready (S,): epoch seconds at which the next step may begin when the task ends with slot s.
    latest_after: longest wait, in seconds, for the step that follows.
    """

    id: str
    face: str
    duration_slots: int
    after: tuple[str, ...]
    allowed: npt.NDArray[np.bool_]
    letters: npt.NDArray[np.str_]
    ready: Array
    latest_after: float | None = None


@dataclass(frozen=True)
class Placement:
    """Slots [first, end) taken; `earliest` the slot from which it could have begun; reasons in words' raw parts."""

    id: str
    first: int
    end: int
    earliest: int
    held_by: str | None


@dataclass(frozen=True)
class Refusal:
    """A task left out. cause: 'after' (detail: the id it waits for), 'ready', 'recoat', 'crew', 'short' or 'weather'
    (detail: the letter that stops most)."""

    id: str
    cause: str
    detail: str


def runs(allowed: npt.NDArray[np.bool_], shift: npt.NDArray[np.int64], length: int) -> npt.NDArray[np.bool_]:
    """(S,): slots at which `length` allowed slots of one and the same shift begin. Shift -1 is outside every shift."""
    good = allowed & (shift >= 0)
    count = len(good)
    out = np.zeros(count, dtype=bool)
    if length > count:
        return out
    total = np.concatenate([[0], np.cumsum(good)])
    last = count - length + 1
    out[:last] = (total[length:] - total[:last] == length) & (shift[:last] == shift[length - 1 :])
    return out
