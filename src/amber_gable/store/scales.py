"""How much memory a value holds, for caches that are bounded by it."""

import sys
from typing import Any

import numpy as np


class Scales:
    """Weighs quickly enough to be asked at every turn: what says its own size or is plain text exactly, of each other
    kind the first, second, fourth, eighth … value, and the rest as the mean of those."""

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
    """Bytes that a result holds, about. What says so itself (`nbytes`) is believed; of others every part is counted
    once, but for such as say so: they are kept, and counted, elsewhere."""
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
