"""Copies of the database that are whole even while it is in use, and their way back."""

import shutil
import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path

from amber_gable.domain.errors import InputError
from amber_gable.store.in_use import held
from amber_gable.store.soundness import check_ours

_BESIDE = ("", "-wal", "-shm", "-journal", ".lock")


def back_up(source: Path, target: Path) -> None:
    """Write a consistent copy of the database to `target`, replacing it only when the copy is complete.

    Raises InputError when there is no database, or `target` is the database itself or a file that is no backup.
    """
    if not source.exists():
        raise InputError(str(source), "there is no database here", "start the program once, or name another file")
    if target.is_dir():
        raise InputError(str(target), "is a folder", "name a file in it")
    if target.resolve() in {source.with_name(source.name + rest).resolve() for rest in _BESIDE} or (
        target.exists() and target.samefile(source)
    ):
        raise InputError(str(target), "is the database itself", "name another file; nothing was written")
    # An older backup may be written over, anybody's letters may not.
    check_ours(target)
    target.parent.mkdir(parents=True, exist_ok=True)
    part = target.with_name(target.name + ".part")
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(part)) as copy:
        live.backup(copy)
    part.replace(target)


def restore(backup: Path, target: Path, now: datetime) -> Path | None:
    """Put a checked backup in the database's place. Returns where the present database is kept, by the time `now`.

    Raises InputError, and changes nothing, for what is no sound backup of a schema known here, and while a program
    works on the database.
    """
    if not backup.exists():
        raise InputError(str(backup), "there is no such backup", "check the name")
    if target.exists() and backup.samefile(target):
        raise InputError(str(backup), "is the database itself", "name a backup of it")
    if check_ours(backup, whole=True) is None:
        raise InputError(str(backup), "is empty", "choose another; nothing was changed")
    with held(target, "restoring"):
        kept = _kept(target, now) if target.exists() else None
        with closing(sqlite3.connect(backup)) as copy, closing(sqlite3.connect(target)) as live:
            # SQLite's own copying: one transaction, seen whole by whoever has the file open.
            copy.backup(live)
    return kept


def _kept(path: Path, now: datetime) -> Path:
    """A copy of the file beside it, under a name nothing has."""
    stem = f"{path.stem}.before-restore-{now:%Y%m%d-%H%M%S}"
    kept = path.with_name(stem + path.suffix)
    number = 2
    while kept.exists():
        kept = path.with_name(f"{stem}-{number}{path.suffix}")
        number += 1
    try:
        back_up(path, kept)
    except sqlite3.DatabaseError:
        # What cannot be read as a database is set aside as it is.
        kept.with_name(kept.name + ".part").unlink(missing_ok=True)
        shutil.move(path, kept)
        for rest in ("-wal", "-shm"):
            path.with_name(path.name + rest).unlink(missing_ok=True)
    return kept
