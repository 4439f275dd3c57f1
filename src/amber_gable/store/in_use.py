"""A database that a program works on is marked, so that nobody puts another in its place meanwhile."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from filelock import FileLock, Timeout

from amber_gable.domain.errors import InputError


@contextmanager
def held(path: Path, purpose: str) -> Iterator[None]:
    """Hold the database file for as long as the block runs; the mark goes when the process ends, however it ends.

    Raises InputError when another process holds it.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    lock = FileLock(path.with_name(path.name + ".lock"), timeout=0)
    try:
        lock.acquire()
    except Timeout:
        raise InputError(
            str(path), f"is in use by a running program, so {purpose} cannot go on", "stop the program, then try again"
        ) from None
    try:
        yield
    finally:
        lock.release()
