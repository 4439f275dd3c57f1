"""What was read from the store, kept in memory until it is changed: read and validated once for all who ask."""

import threading
from collections import OrderedDict
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, TypeVar

from amber_gable.store.changes import Numbers, numbers
from amber_gable.store.scales import SCALES
from amber_gable.store.transaction import Transaction

T = TypeVar("T")
Key = tuple[str, str]


@dataclass(frozen=True)
class Entry:
    scopes: tuple[str, ...]
    numbers: Numbers
    value: Any
    weight: int = 0


class Kept:
    """Values by key, each good for as long as the numbers of its scopes stand. What a transaction reads of its own
    changes is seen by it alone until it is committed. About `most` bytes are held at most."""

    def __init__(self, most: int = 96 * 2**20) -> None:
        self._most, self._held, self._lock = most, 0, threading.Lock()
        self._entries: OrderedDict[Key, Entry] = OrderedDict()

    def find(self, session: Transaction, key: Key) -> Any | None:
        """The value if it still stands, at the price of one statement; None where it must be read."""
        entry = (session.fresh or {}).get(key)
        if entry is None:
            with self._lock:
                entry = self._entries.get(key)
                if entry is not None:
                    self._entries.move_to_end(key)
        if entry is None or numbers(session, entry.scopes) != entry.numbers:
            return None
        return entry.value

    def read(self, session: Transaction, key: Key, scopes: tuple[str, ...], load: Callable[[], T]) -> T:
        """Read anew and keep. The numbers are taken first: what changes while it is read is read again next time."""
        seen = numbers(session, scopes)
        value = load()
        entry = Entry(scopes, seen, value)
        if session.fresh is not None:
            session.fresh[key] = entry
        else:
            self._put({key: entry})
        return value

    def get(self, session: Transaction, key: Key, scopes: tuple[str, ...], load: Callable[[], T]) -> T:
        """The value if it still stands, else read anew. What may be nothing is kept in a tuple."""
        found: T | None = self.find(session, key)
        return self.read(session, key, scopes, load) if found is None else found

    def read_all(
        self,
        session: Transaction,
        scopes: Mapping[Key, tuple[str, ...]],
        load: Callable[[list[Key]], Mapping[Key, T]],
    ) -> dict[Key, T]:
        """Many at once: one statement for the numbers, and one call of `load` for those that must be read."""
        seen = dict(numbers(session, {scope for mine in scopes.values() for scope in mine}))
        wanted = {
            key: Entry(mine, tuple((s, seen[s]) for s in sorted(mine) if s in seen), None)
            for key, mine in scopes.items()
        }
        with self._lock:
            held = {key: self._entries[key] for key in wanted if key in self._entries}
        out = {key: entry.value for key, entry in held.items() if entry.numbers == wanted[key].numbers}
        lacking = [key for key in wanted if key not in out]
        if lacking:
            found = load(lacking)
            self._put({key: replace(wanted[key], value=value) for key, value in found.items()})
            out |= found
        return out

    def publish(self, session: Transaction) -> None:
        """After a commit: what the transaction read is what everybody would read."""
        self._put(session.fresh or {})

    def _put(self, entries: dict[Key, Entry]) -> None:
        weighed = {key: replace(e, weight=SCALES.weigh(key[0], e.value)) for key, e in entries.items()}
        with self._lock:
            for key, entry in weighed.items():
                before = self._entries.pop(key, None)
                self._held += entry.weight - (before.weight if before is not None else 0)
                self._entries[key] = entry
            while self._held > self._most:
                _, oldest = self._entries.popitem(last=False)
                self._held -= oldest.weight
