"""Copies of the database that are whole even while it is in use."""

import sqlite3
from contextlib import closing
from pathlib import Path

from amber_gable.domain.errors import InputError


def back_up(source: Path, target: Path) -> None:
    """Write a consistent copy of the database to `target`, replacing it only when the copy is complete."""
    if not source.exists():
        raise InputError(str(source), "there is no database here", "start the program once, or name another file")
    target.parent.mkdir(parents=True, exist_ok=True)
    part = target.with_name(target.name + ".part")
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(part)) as copy:
        live.backup(copy)
    part.replace(target)


def restore(backup: Path, target: Path) -> None:
    """Put a checked backup in the database's place. The present database is kept as `….before-restore`."""
    if not backup.exists():
        raise InputError(str(backup), "there is no such backup", "check the name")
    try:
        with closing(sqlite3.connect(backup)) as connection:
            sound = connection.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            known = connection.execute("SELECT count(*) FROM sqlite_master WHERE name = 'alembic_version'").fetchone()[
                0
            ]
    except sqlite3.DatabaseError:
        sound, known = False, 0
    if not sound or not known:
        raise InputError(str(backup), "is not a sound Amber Gable backup", "choose another; nothing was changed")
    if target.exists():
        back_up(target, target.with_name(target.name + ".before-restore"))
    back_up(backup, target)
    for rest in ("-wal", "-shm"):
        target.with_name(target.name + rest).unlink(missing_ok=True)
