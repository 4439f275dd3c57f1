"""What was computed lately, kept within a bound of memory."""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Sequence
from concurrent.futures import Future
from functools import partial
from typing import Any, TypeVar

from amber_gable.domain.progress import Cancelled
from amber_gable.store.scales import SCALES

T = TypeVar("T")
MIB = 2**20
DIGEST = 64
"""Letters of a digest, which ends a key; what stands before it says what kind of result it is."""


class Computed:
    """Results by what they were computed from: may be thrown away at any time, the least lately used first. Two who
    want the same thing do the work once, the second waits for the first; nobody waits for what another wants, and no
    lock is held while something is computed.

    About `most` bytes are held at most. A result is weighed when it comes, and one that grows whenever it is used; what
    is heavier than all of it is handed out and not kept.
    """

    def __init__(self, most: int = 256 * MIB) -> None:
        self.most, self._lock = most, threading.Lock()
        self._kept: OrderedDict[Hashable, Future[Any]] = OrderedDict()
        self._weights: dict[Hashable, int] = {}
        self._held = 0

    @property
    def held(self) -> int:
        """Bytes that the results hold, as they were last weighed."""
        return self._held

    def __len__(self) -> int:
        return len(self._kept)

    def known(self, key: Hashable) -> Any | None:
        """A result that is there; None where it would have to be computed or waited for."""
        with self._lock:
            found = self._kept.get(key)
        return found.result() if found is not None and found.done() and found.exception() is None else None

    def get(self, key: Hashable, compute: Callable[[], T]) -> T:
        return self.get_all([key], lambda _: [compute()])[0]

    def get_all(self, keys: Sequence[Hashable], compute: Callable[[list[int]], Sequence[T]]) -> list[T]:
        """The results of all keys. `compute` is given the places in `keys` of those that nobody has or works on, and
        returns theirs in one go."""
        mine: dict[int, Future[Any]] = {}
        with self._lock:
            for n, key in enumerate(keys):
                if key not in self._kept:
                    mine[n] = self._kept[key] = Future()
            wanted = [self._kept[key] for key in keys]
        if mine:
            # What is one's own comes first: who waits for others lets nobody wait for oneself.
            try:
                for future, value in zip(mine.values(), compute(list(mine)), strict=True):
                    future.set_result(value)
            except BaseException as error:
                self._failed([keys[n] for n in mine], list(mine.values()), error)
        values = [self._outcome(keys[n], wanted[n], n in mine, partial(compute, [n])) for n in range(len(keys))]
        self._weigh(keys, wanted, values)
        return values

    def _outcome(self, key: Hashable, future: Future[T], own: bool, alone: Callable[[], Sequence[T]]) -> T:
        try:
            return future.result()
        except Cancelled:
            if own:
                raise
            # Whoever was at it was told to stop; who waits still wants it.
            return self.get(key, lambda: alone()[0])

    def _failed(self, keys: list[Hashable], futures: list[Future[Any]], error: BaseException) -> None:
        """Those who waited are told; who asks later tries anew."""
        with self._lock:
            for key, future in zip(keys, futures, strict=True):
                if self._kept.get(key) is future:
                    del self._kept[key]
        for future in futures:
            if not future.done():
                future.set_exception(error)

    def _weigh(self, keys: Sequence[Hashable], futures: list[Future[Any]], values: Sequence[Any]) -> None:
        weights = [
            SCALES.weigh(_kind(key), value) if key not in self._weights or hasattr(value, "nbytes") else None
            for key, value in zip(keys, values, strict=True)
        ]
        with self._lock:
            for key, future, one in zip(keys, futures, weights, strict=True):
                if self._kept.get(key) is not future:
                    continue
                self._kept.move_to_end(key)
                if one is not None:
                    self._held += one - self._weights.get(key, 0)
                    self._weights[key] = one
            if self._held > self.most:
                self._let_go()

    def _let_go(self) -> None:
        for key in list(self._kept):
            if self._held <= self.most:
                break
            if key in self._weights:
                del self._kept[key]
                self._held -= self._weights.pop(key)


def _kind(key: Hashable) -> str:
    return key[:-DIGEST] if isinstance(key, str) else ""
