"""The moisture of boards and masonry stepped through time, compiled, with its twin in plain numpy.

A row is a surface in the weather of one member. `read` and `washed` (T,) are what happens at the beginning of each
step: a meter's figure that it takes on (NaN: none), and one below which washing does not leave it (-inf: none).
"""

from dataclasses import dataclass

import numpy as np

from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.compiled import Loop
from amber_gable.domain.grid import STEP_S

FIBRE_PCT = 30.0
"""Fibre saturation: wood does not read wetter by water on its face."""
SORBS = STEP_S / (48 * 3600)
"""Of what masonry lacks of the moisture of its air, how much it takes up in a step: an assumption, two days."""
STEADY_UNTIL = 0.6
"""Saturation down to which masonry dries as a wet surface does; below, by the square of what it holds
(docs/physics.md §6)."""


def wood_steps(
    share: Array, target: Array, supply: Array, events: tuple[Array, Array, Array], soaks: float, quick: float
) -> Array:
    """Moisture % at the end of each step, (R, T). share: how far a step brings the board to `target` %; supply: what %
    the rain of the step is worth. Up to `quick` % its face takes up what there is; beyond, a step brings it the share
    `soaks` nearer to fibre saturation. events: what is read and washed, and what each row begins at (R,)."""
    read, washed, begins = events
    out, start = np.empty_like(target), np.ascontiguousarray(begins)
    given = (share, target, supply, read, washed, start)
    compiled = _WOOD.code_for(target.shape[1] // 4 * (1 + len(target) // 50))
    if compiled is None:
        return wood_plainly(*given, soaks, quick)
    compiled(*(np.ascontiguousarray(a) for a in given), soaks, quick, out)
    return out


def wood_plainly(
    share: Array, target: Array, supply: Array, read: Array, washed: Array, start: Array, soaks: float, quick: float
) -> Array:
    """The same in numpy, all rows of a step at once."""
    out, m = np.empty_like(target), start.copy()
    for k in range(target.shape[1]):
        if read[k] == read[k]:
            m = np.full_like(m, read[k])
        m = np.maximum(m, washed[k])
        at_once = np.minimum(np.maximum(quick - m, 0.0), supply[:, k])
        wetter = np.minimum(np.maximum(FIBRE_PCT - m, 0.0) * soaks, supply[:, k] - at_once)
        m = m + share[:, k] * (target[:, k] - m) + at_once + wetter
        out[:, k] = m
    return out


@dataclass(frozen=True)
class MasonryDrive:
    """What masonry is driven by in each step, (R, T): `dries`, what it would lose if it were wet on its face and as
    warm as the dry one; `brake`, how much of the heat that its face is given that would take; `supply`, what reaches
    it; `air`, what it holds in the air around it. All but the brake in shares of what its zone holds."""

    dries: Array
    brake: Array
    supply: Array
    air: Array


def masonry_steps(drive: MasonryDrive, events: tuple[Array, Array], start: Array) -> Array:
    """Saturation 0-1 at the end of each step, (R, T), from `start` (R,)."""
    read, washed = events
    out, begin = np.empty_like(drive.dries), np.ascontiguousarray(start)
    given = (drive.dries, drive.brake, drive.supply, drive.air, read, washed, begin)
    dries = drive.dries
    compiled = _MASONRY.code_for(dries.shape[1] // 4 * (1 + len(dries) // 50))
    if compiled is None:
        return masonry_plainly(*given)
    compiled(*(np.ascontiguousarray(a) for a in given), out)
    return out


def masonry_plainly(
    dries: Array, brake: Array, supply: Array, air: Array, read: Array, washed: Array, start: Array
) -> Array:
    """The same in numpy, all rows of a step at once. A face that dries is cooled by what it loses, so that it loses
    less: by Penman (1948), 1 + brake times less where it is wet all over."""
    out, s = np.empty_like(dries), start.copy()
    for k in range(dries.shape[1]):
        if read[k] == read[k]:
            s = np.full_like(s, read[k])
        s = np.maximum(s, washed[k])
        free = s - air[:, k]
        part = np.clip(free / (STEADY_UNTIL - air[:, k]), 0.0, 1.0)
        lost = dries[:, k] * part * part / (1.0 + brake[:, k] * part * part)
        s = np.clip(s - np.where(free > 0, np.minimum(lost, free), free * SORBS) + supply[:, k], 0.0, 1.0)
        out[:, k] = s
    return out


def _wood(
    share: Array,
    target: Array,
    supply: Array,
    read: Array,
    washed: Array,
    start: Array,
    soaks: float,
    quick: float,
    out: Array,
) -> None:
    for r in range(target.shape[0]):
        m = start[r]
        for k in range(target.shape[1]):
            if read[k] == read[k]:
                m = read[k]
            m = max(m, washed[k])
            at_once = min(max(quick - m, 0.0), supply[r, k])
            wetter = min(max(FIBRE_PCT - m, 0.0) * soaks, supply[r, k] - at_once)
            m = m + share[r, k] * (target[r, k] - m) + at_once + wetter
            out[r, k] = m


def _masonry(
    dries: Array, brake: Array, supply: Array, air: Array, read: Array, washed: Array, start: Array, out: Array
) -> None:
    for r in range(dries.shape[0]):
        s = start[r]
        for k in range(dries.shape[1]):
            if read[k] == read[k]:
                s = read[k]
            s = max(s, washed[k])
            free = s - air[r, k]
            lost = free * SORBS
            if free > 0.0:
                part = min(free / (STEADY_UNTIL - air[r, k]), 1.0)
                lost = min(dries[r, k] * part * part / (1.0 + brake[r, k] * part * part), free)
            s = min(max(s - lost + supply[r, k], 0.0), 1.0)
            out[r, k] = s


_WOOD = Loop(_wood, "f2 f2 f2 f1 f1 f1 x x w2")
_MASONRY = Loop(_masonry, "f2 f2 f2 f2 f1 f1 f1 w2")
