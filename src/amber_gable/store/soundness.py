"""What is asked before a database file is touched: whether it is ours, whole, of a known schema, and not in use."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from functools import cache
from pathlib import Path

from filelock import FileLock, Timeout

from amber_gable.domain.errors import InputError

MIGRATIONS = Path(__file__).parent / "migrations"
_ALWAYS = {"company", "property", "face", "zone", "job", "finish", "weather_series", "setting"}
"""Tables that every schema since the first has had."""


@cache
def known_revisions() -> tuple[str, ...]:
    """Every schema revision, the newest first: the numbers that the migrations' files begin with."""
    return tuple(sorted((p.stem[:4] for p in MIGRATIONS.glob("versions/[0-9]*.py")), reverse=True))


def check_ours(path: Path, *, whole: bool = False) -> str | None:
    """The file's schema revision; None for a new or empty file. `whole` also reads every page of it.

    Raises InputError for a file that is damaged, of another program, or from a newer version of this one. Writes
    nothing.
    """
    if not path.exists() or path.stat().st_size == 0:
        return None
    try:
        with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro", uri=True, timeout=10)) as file:
            tables = {name for (name,) in file.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
            if not tables:
                return None
            revisions = []
            if "alembic_version" in tables:
                revisions = [r for (r,) in file.execute("SELECT version_num FROM alembic_version")]
            sound = not whole or file.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
    except sqlite3.DatabaseError as error:
        raise InputError(str(path), f"is no database that can be read ({error})", "name another file") from None
    if not tables >= _ALWAYS or len(revisions) != 1:
        raise InputError(str(path), "is a database of another program", "name one of Amber Gable's")
    if revisions[0] not in known_revisions():
        raise InputError(
            str(path),
            f"was written by a newer version of the program: schema {revisions[0]}, known to {known_revisions()[0]}",
            "install that version; nothing was changed",
        )
    if not sound:
        raise InputError(str(path), "is damaged", "take an older backup; nothing was changed")
    return str(revisions[0])


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
