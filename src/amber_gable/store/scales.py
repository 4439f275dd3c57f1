"""How much memory a value holds, for caches that are bounded by it."""

import sys
from typing import Any

import numpy as np


class Scales:
    """Estimates the memory of many values quickly. Arrays and plain text are measured exactly; of each other type the
    first, second, fourth, eighth … value is measured, and the rest is taken as the mean of those."""

    def __init__(self) -> None:
        self._kinds: dict[tuple[type, str], tuple[int, int, int]] = {}

    def weigh(self, kind: str, value: object) -> int:
        """Bytes, about. `kind` tells apart values of one type that differ in size."""
        if isinstance(value, str | bytes) or hasattr(value, "nbytes"):
            return weight(value)
        known = type(value), kind
        count, weighed, total = self._kinds.get(known, (0, 0, 0))
        if count & (count + 1) == 0:
            weighed, total = weighed + 1, total + weight(value)
        self._kinds[known] = (count + 1, weighed, total)
        return total // weighed


SCALES = Scales()
"""Of the whole program: what one cache has weighed no other need weigh again."""


def weight(value: object) -> int:
    """The memory that a result takes, in bytes, approximately. An object with `nbytes` is taken at that. Of any other
    object all it refers to is added up, each thing once; left out are things, other than arrays, with an `nbytes` of
    their own, which are cached and counted by themselves."""
    own = getattr(value, "nbytes", None)
    if own is not None:
        return int(own)
    seen, total, left = set[int](), 0, [value]
    while left:
        one = left.pop()
        if id(one) in seen or isinstance(one, type) or callable(one):
            continue
        seen.add(id(one))
        if isinstance(one, np.ndarray):
            total += one.nbytes
        elif not hasattr(one, "nbytes"):
            total += sys.getsizeof(one)
            left += _parts(one)
    return total


def _parts(one: object) -> list[Any]:
    if isinstance(one, dict):
        return [*one.keys(), *one.values()]
    if isinstance(one, list | tuple | set | frozenset):
        return list(one)
    return [vars(one)] if hasattr(one, "__dict__") else []
