"""The moisture of boards and masonry stepped through time, compiled, with its twin in plain numpy.

A row is a surface in the weather of one member. `read` and `washed` (T,) are what happens at the beginning of each
step: a meter's figure that it takes on (NaN: none), and one below which washing does not leave it (-inf: none).
"""

import numpy as np

from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.compiled import Loop

FIBRE_PCT = 30.0
"""Fibre saturation: wood does not read wetter by water on its face."""
STEADY_UNTIL = 0.6
"""Saturation down to which masonry dries as a wet surface does; below, by the square of what it holds
(docs/physics.md §6)."""


def wood_steps(
    share: Array, target: Array, supply: Array, events: tuple[Array, Array], soaks: float, quick: float
) -> Array:
    """Moisture % at the end of each step, (R, T). share: how far a step brings the board to `target` %; supply: what %
    the rain of the step is worth. Up to `quick` % its face takes up what there is; beyond, a step brings it the share
    `soaks` nearer to fibre saturation. It begins at its first target, or reading."""
    read, washed = events
    out, start = np.empty_like(target), np.ascontiguousarray(target[:, 0])
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


def masonry_steps(dries: Array, supply: Array, events: tuple[Array, Array], start: float) -> Array:
    """Saturation 0-1 at the end of each step, (R, T). dries: what a wet surface would lose in the step, `supply` what
    reaches it."""
    read, washed = events
    out, begin = np.empty_like(dries), np.full(len(dries), start)
    given = (dries, supply, read, washed, begin)
    compiled = _MASONRY.code_for(dries.shape[1] // 4 * (1 + len(dries) // 50))
    if compiled is None:
        return masonry_plainly(*given)
    compiled(*(np.ascontiguousarray(a) for a in given), out)
    return out


def masonry_plainly(dries: Array, supply: Array, read: Array, washed: Array, start: Array) -> Array:
    """The same in numpy, all rows of a step at once."""
    out, s = np.empty_like(dries), start.copy()
    for k in range(dries.shape[1]):
        if read[k] == read[k]:
            s = np.full_like(s, read[k])
        s = np.maximum(s, washed[k])
        part = np.minimum(s / STEADY_UNTIL, 1.0)
        s = np.clip(s - dries[:, k] * part * part + supply[:, k], 0.0, 1.0)
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


def _masonry(dries: Array, supply: Array, read: Array, washed: Array, start: Array, out: Array) -> None:
    for r in range(dries.shape[0]):
        s = start[r]
        for k in range(dries.shape[1]):
            if read[k] == read[k]:
                s = read[k]
            s = max(s, washed[k])
            part = min(s / STEADY_UNTIL, 1.0)
            s = min(max(s - dries[r, k] * part * part + supply[r, k], 0.0), 1.0)
            out[r, k] = s


_WOOD = Loop(_wood, "f2 f2 f2 f1 f1 f1 x x w2")
_MASONRY = Loop(_masonry, "f2 f2 f1 f1 f1 w2")
