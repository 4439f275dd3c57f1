"""Copies of the database that are whole even while it is in use, and their way back.

A backup is one file: the pictures, which lie beside the database, are carried in a table of it.
"""

import shutil
import sqlite3
from contextlib import closing
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from amber_gable.domain.errors import InputError
from amber_gable.store.pictures import Pictures
from amber_gable.store.soundness import check_ours, held

_BESIDE = ("", "-wal", "-shm", "-journal", ".lock")


@dataclass(frozen=True)
class Restored:
    """`kept` is the copy of what was there before, None where nothing was; `lacking` the number of photos without their
    picture."""

    kept: Path | None
    lacking: int


def back_up(source: Path, target: Path, *, pictures: bool = True) -> int:
    """Write a consistent copy of the database to `target`, replacing it only when the copy is complete. Without
    `pictures` it is one to lie beside the database. Returns the number of photos whose picture is not there.

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
        lacking = _carry(copy, Pictures(source)) if pictures else 0
    part.replace(target)
    return lacking


def _carry(copy: sqlite3.Connection, pictures: Pictures) -> int:
    """Put the pictures into the copy. Returns how many are not there."""
    lacking = 0
    with copy:
        copy.execute("CREATE TABLE IF NOT EXISTS carried_picture (sha256 TEXT PRIMARY KEY, data BLOB NOT NULL)")
        for sha256 in _named(copy):
            if pictures.is_there(sha256):
                data = pictures.path(sha256).read_bytes()
                copy.execute("INSERT OR REPLACE INTO carried_picture VALUES (?, ?)", (sha256, data))
            else:
                lacking += 1
    return lacking


def _unpack(backup: sqlite3.Connection, pictures: Pictures) -> None:
    """Put the pictures of a backup beside the database; a backup of an older version carries none."""
    if backup.execute("SELECT 1 FROM sqlite_master WHERE name = 'carried_picture'").fetchone():
        for (data,) in backup.execute("SELECT data FROM carried_picture"):
            pictures.put(data)


def _named(file: sqlite3.Connection) -> list[str]:
    """Digests of the pictures that photos name; none where an older schema holds the pictures itself."""
    columns = {row[1] for row in file.execute("PRAGMA table_info(photo)")}
    if not columns or "data" in columns:
        return []
    return [sha256 for (sha256,) in file.execute("SELECT DISTINCT sha256 FROM photo")]


def restore(backup: Path, target: Path, now: datetime) -> Restored:
    """Put a checked backup in the database's place, with its pictures. The present database is kept under a name with
    the time `now`.

    Raises InputError, and changes nothing, for what is no sound backup of a schema known here, and while a program
    works on the database.
    """
    if not backup.exists():
        raise InputError(str(backup), "there is no such backup", "check the name")
    if target.exists() and backup.samefile(target):
        raise InputError(str(backup), "is the database itself", "name a backup of it")
    if check_ours(backup, whole=True) is None:
        raise InputError(str(backup), "is empty", "choose another; nothing was changed")
    pictures = Pictures(target)
    with held(target, "restoring"):
        kept = _kept(target, now) if target.exists() else None
        with closing(sqlite3.connect(backup)) as copy, closing(sqlite3.connect(target)) as live:
            # A row may name a picture only when that is there.
            _unpack(copy, pictures)
            # SQLite's own copying: one transaction, seen whole by whoever has the file open.
            copy.backup(live)
            live.execute("DROP TABLE IF EXISTS carried_picture")
            live.execute("VACUUM")
            lacking = sum(not pictures.is_there(sha256) for sha256 in _named(live))
    return Restored(kept, lacking)


def _kept(path: Path, now: datetime) -> Path:
    """A copy of the file beside it, under a name nothing has."""
    stem = f"{path.stem}.before-restore-{now:%Y%m%d-%H%M%S}"
    kept = path.with_name(stem + path.suffix)
    number = 2
    while kept.exists():
        kept = path.with_name(f"{stem}-{number}{path.suffix}")
        number += 1
    try:
        back_up(path, kept, pictures=False)
    except sqlite3.DatabaseError:
        # What cannot be read as a database is set aside as it is.
        kept.with_name(kept.name + ".part").unlink(missing_ok=True)
        shutil.move(path, kept)
        for rest in ("-wal", "-shm"):
            path.with_name(path.name + rest).unlink(missing_ok=True)
    return kept
