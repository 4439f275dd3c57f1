"""Least and greatest values over many stretches of a series at once (sparse table)."""

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.air import Array


class LeastOver:
    """Answers min(values[f, a:b]) for whole arrays of a and b in constant time each.

    values (F, T). Levels double in length; two overlapping blocks cover any stretch.
    """

    def __init__(self, values: Array) -> None:
        self.levels = [np.asarray(values, dtype=float)]
        width = 1
        while 2 * width <= values.shape[1]:
            last = self.levels[-1]
            self.levels.append(np.minimum(last[:, :-width], last[:, width:]))
            width *= 2
        self.table = np.full((len(self.levels), *values.shape), np.inf)
        for i, level in enumerate(self.levels):
            self.table[i, :, : level.shape[1]] = level

    def __call__(self, first: npt.NDArray[np.int64], end: npt.NDArray[np.int64]) -> Array:
        """first, end (F, S) or (S,): half-open stretches of at least one step, inside the series. Result (F, S)."""
        faces, count = self.table.shape[1:]
        first = np.broadcast_to(np.clip(first, 0, count - 1), (faces, np.shape(first)[-1]))
        end = np.broadcast_to(np.clip(end, 1, count), first.shape)
        end = np.maximum(end, first + 1)
        level = np.frexp((end - first).astype(float))[1] - 1
        row = np.arange(faces)[:, None]
        return np.asarray(np.minimum(self.table[level, row, first], self.table[level, row, end - (1 << level)]))


class GreatestOver:
    """Answers max(values[f, a:b]), as `LeastOver`."""

    def __init__(self, values: Array) -> None:
        self.least = LeastOver(-np.asarray(values, dtype=float))

    def __call__(self, first: npt.NDArray[np.int64], end: npt.NDArray[np.int64]) -> Array:
        return -self.least(first, end)
