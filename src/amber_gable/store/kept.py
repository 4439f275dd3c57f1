"""What was read from the store, kept in memory until it is changed: read and validated once for all who ask."""

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from sqlalchemy.orm import Session

from amber_gable.store.changes import Numbers, numbers

T = TypeVar("T")
Key = tuple[str, str]


@dataclass(frozen=True)
class _Entry:
    scopes: tuple[str, ...]
    numbers: Numbers
    value: Any


class Kept:
    """Values by key, each good for as long as the numbers of its scopes stand. What a transaction reads of its own
    changes is seen by it alone until it is committed."""

    def __init__(self, size: int = 256) -> None:
        self._size, self._lock = size, threading.Lock()
        self._entries: OrderedDict[Key, _Entry] = OrderedDict()

    def find(self, session: Session, key: Key) -> Any | None:
        """The value if it still stands, at the price of one statement; None where it must be read."""
        entry = session.info.get("fresh", {}).get(key)
        if entry is None:
            with self._lock:
                entry = self._entries.get(key)
                if entry is not None:
                    self._entries.move_to_end(key)
        if entry is None or numbers(session, entry.scopes) != entry.numbers:
            return None
        return entry.value

    def read(self, session: Session, key: Key, scopes: tuple[str, ...], load: Callable[[], T]) -> T:
        """Read anew and keep. The numbers are taken first: what changes while it is read is read again next time."""
        seen = numbers(session, scopes)
        value = load()
        entry = _Entry(scopes, seen, value)
        if "fresh" in session.info:
            session.info["fresh"][key] = entry
        else:
            self._put({key: entry})
        return value

    def publish(self, session: Session) -> None:
        """After a commit: what the transaction read is what everybody would read."""
        self._put(session.info["fresh"])

    def _put(self, entries: dict[Key, _Entry]) -> None:
        with self._lock:
            for key, entry in entries.items():
                self._entries[key] = entry
                self._entries.move_to_end(key)
            while len(self._entries) > self._size:
                self._entries.popitem(last=False)


def kept_in(session: Session) -> Kept:
    kept: Kept = session.info["kept"]
    return kept
