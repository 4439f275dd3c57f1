"""Least and greatest values over many stretches of a series at once."""

from math import prod

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array, Ints
from amber_gable.core.weather.wall.compiled import Loop

SHORT = 6


def least_over(values: Array, first: Ints, end: Ints) -> Array:
    """min(values[..., first:end]) for whole arrays of half-open stretches of at least one step.

    values (..., T), free of NaN; first, end (..., S), cut to the series; the leading axes go together as numpy
    broadcasts them. Result (..., S).
    """
    return _extreme(values, first, end, 1.0)


def greatest_over(values: Array, first: Ints, end: Ints) -> Array:
    """max(values[..., first:end]), as `least_over`."""
    return _extreme(values, first, end, -1.0)


def _extreme(values: Array, first: Ints, end: Ints, sign: float) -> Array:
    lead = np.broadcast_shapes(values.shape[:-1], first.shape[:-1], end.shape[:-1])
    row, begins, ends = (_rows_of(a, lead) for a in (values, first, end))
    flat = np.ascontiguousarray(values.reshape(-1, values.shape[-1]), dtype=float)
    stretches = [np.ascontiguousarray(a.reshape(-1, a.shape[-1]), dtype=np.int64) for a in (first, end)]
    compiled, out = _LOOP.code_for(5 + prod(lead)), np.empty((prod(lead), first.shape[-1]))
    if compiled is None:
        out = sign * least_plainly(sign * flat[row], stretches[0][begins], stretches[1][ends])
    else:
        queue = np.empty(flat.shape[1], dtype=np.int64)
        compiled(flat, row, stretches[0], begins, stretches[1], ends, sign, queue, out)
    return out.reshape(*lead, -1)


def _rows_of(array: npt.NDArray[np.generic], lead: tuple[int, ...]) -> Ints:
    """Which row of the array, flattened, each row of the result reads."""
    own = array.shape[:-1]
    return np.ascontiguousarray(np.broadcast_to(np.arange(prod(own)).reshape(own), lead).ravel(), dtype=np.int64)


def least_plainly(values: Array, first: Ints, end: Ints) -> Array:
    """The same in numpy for values (R, T) and stretches (R, S): blocks of doubling length, two of which overlap to
    cover any stretch."""
    count = values.shape[1]
    levels, width = [values], 1
    while 2 * width <= count:
        last = levels[-1]
        levels.append(np.minimum(last[:, :-width], last[:, width:]))
        width *= 2
    table = np.full((len(levels), *values.shape), np.inf)
    for i, level in enumerate(levels):
        table[i, :, : level.shape[1]] = level
    first = np.clip(first, 0, count - 1)
    end = np.maximum(np.clip(end, 1, count), first + 1)
    step = np.frexp((end - first).astype(float))[1] - 1
    row = np.arange(len(values))[:, None]
    return np.asarray(np.minimum(table[step, row, first], table[step, row, end - (1 << step)]))


def _loop(
    values: Array, row: Ints, first: Ints, begins: Ints, end: Ints, ends: Ints, sign: float, queue: Ints, out: Array
) -> None:
    # Short stretches are looked through. For others there is a queue of steps with rising values: its head is the least
    # of the stretch. Stretches that move on are followed at a cost of one visit a step; one that goes back begins anew.
    count = values.shape[1]
    for r in range(out.shape[0]):
        v = row[r]
        head, tail, low, high = 0, 0, 0, 0
        for s in range(out.shape[1]):
            a = min(max(first[begins[r], s], 0), count - 1)
            b = max(min(max(end[ends[r], s], 1), count), a + 1)
            if b - a <= SHORT:
                best = sign * values[v, a]
                for k in range(a + 1, b):
                    best = min(best, sign * values[v, k])
                out[r, s] = sign * best
                continue
            if a < low or b < high or a >= high:
                head, tail, high = 0, 0, a
            low = a
            while high < b:
                value = sign * values[v, high]
                while tail > head and sign * values[v, queue[tail - 1]] >= value:
                    tail -= 1
                queue[tail] = high
                tail += 1
                high += 1
            while queue[head] < a:
                head += 1
            out[r, s] = values[v, queue[head]]


_LOOP = Loop(_loop, "f2 i1 i2 i1 i2 i1 x v1 w2")
