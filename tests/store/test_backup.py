"""Backups: whole while the database is in use, put back only when sound and only while nobody works on it."""

import sqlite3
from contextlib import closing
from datetime import datetime
from pathlib import Path

import pytest

from amber_gable.demo import demo_bundles
from amber_gable.domain.errors import InputError
from amber_gable.exchange.job.bundle import dump_bundle
from amber_gable.services.context import Context
from amber_gable.services.survey import photos
from amber_gable.store.backup import back_up, restore
from amber_gable.store.database import Database
from amber_gable.store.job import jobs, survey
from amber_gable.store.job.photos import live_photo
from amber_gable.store.soundness import held
from tests.exchange.test_photos import picture

JOB = "coopers-rise"
SHIPPED = "Two-storey house of 1931. Lead presumed."
NOW = datetime.fromisoformat("2026-09-14T06:30:00-03:00")


def _note(path: Path) -> str:
    """What stands in the note of the one job that the tests change."""
    with closing(sqlite3.connect(path)) as file:
        return str(file.execute("SELECT note FROM job WHERE id = ?", (JOB,)).fetchone()[0])


def _write(ctx: Context, note: str) -> None:
    with ctx.writing() as session:
        jobs.live_job(session, JOB).note = note


def test_a_backup_is_whole_while_the_database_is_in_use_and_restores(ctx: Context, tmp_path: Path) -> None:
    copy = tmp_path / "backups" / "copy.sqlite3"
    with ctx.writing() as session:
        survey.delete_part(session, JOB, "zone", "front-siding")
        back_up(ctx.space.database.path, copy)
    ctx.space.database.engine.dispose()
    restore(copy, ctx.space.database.path, NOW)
    with ctx.reading() as session:
        text = dump_bundle(jobs.load_bundle(session, JOB))
    assert text == demo_bundles()[0][1], "the open edit was not in the backup"


def test_nothing_is_restored_under_a_running_program(ctx: Context, tmp_path: Path) -> None:
    """What the program was told after the attempt is still there at its next start."""
    path, copy = ctx.space.database.path, tmp_path / "copy.sqlite3"
    back_up(path, copy)
    with held(path, "the program"):
        with pytest.raises(InputError, match="stop the program"):
            restore(copy, path, NOW)
        _write(ctx, "kept")
    ctx.space.database.engine.dispose()
    assert _note(path) == "kept"


def test_a_program_does_not_start_on_a_database_in_use(tmp_path: Path) -> None:
    path = tmp_path / "a.sqlite3"
    with held(path, "one"), pytest.raises(InputError, match="in use by a running program"), held(path, "another"):
        pass


def test_each_restore_keeps_what_was_there(ctx: Context, tmp_path: Path) -> None:
    path, copy = ctx.space.database.path, tmp_path / "copy.sqlite3"
    back_up(path, copy)
    kept = []
    for note in ("one", "two"):
        _write(ctx, note)
        ctx.space.database.engine.dispose()
        found = restore(copy, path, NOW)
        assert found.kept is not None
        kept.append(found.kept)
    assert [_note(k) for k in kept] == ["one", "two"]
    assert _note(path) == SHIPPED
    assert "20260914-063000" in kept[0].name


def test_a_damaged_database_is_set_aside_and_replaced(ctx: Context, tmp_path: Path) -> None:
    copy, broken = tmp_path / "copy.sqlite3", tmp_path / "broken.sqlite3"
    back_up(ctx.space.database.path, copy)
    broken.write_bytes(b"not a database at all " * 500)
    kept = restore(copy, broken, NOW).kept
    assert kept is not None and kept.read_bytes().startswith(b"not a database")
    assert _note(broken) == SHIPPED


def _changed(copy: Path, statement: str) -> None:
    with closing(sqlite3.connect(copy)) as file, file:
        file.execute(statement)


# How a good copy is spoilt, and what the refusal says.
SPOILT = {
    "of another program": ("DROP TABLE finish", "another program"),
    "never ours": ("DROP TABLE alembic_version", "another program"),
    "of a newer version": ("UPDATE alembic_version SET version_num = '9999'", "newer version"),
}


@pytest.mark.parametrize(("statement", "words"), SPOILT.values(), ids=SPOILT)
def test_a_foreign_or_newer_database_is_refused_everywhere(
    ctx: Context, tmp_path: Path, statement: str, words: str
) -> None:
    copy = tmp_path / "copy.sqlite3"
    back_up(ctx.space.database.path, copy)
    _changed(copy, statement)
    before = copy.read_bytes()
    with pytest.raises(InputError, match=words):
        restore(copy, ctx.space.database.path, NOW)
    with pytest.raises(InputError, match=words):
        Database(copy, lambda: 1).migrate()
    assert copy.read_bytes() == before, "a start on it changes nothing either"
    assert _note(ctx.space.database.path) == SHIPPED


def test_what_is_no_database_is_refused(ctx: Context, tmp_path: Path) -> None:
    text, empty = tmp_path / "text.sqlite3", tmp_path / "empty.sqlite3"
    text.write_text("hello " * 1000)
    empty.touch()
    for wrong in (text, empty, tmp_path / "missing.sqlite3", ctx.space.database.path):
        with pytest.raises(InputError):
            restore(wrong, ctx.space.database.path, NOW)
    assert not list(ctx.space.database.path.parent.glob("*before-restore*"))


@pytest.mark.parametrize("rest", ["", "-wal", ".lock"])
def test_a_backup_onto_the_database_itself_is_refused(ctx: Context, rest: str) -> None:
    path = ctx.space.database.path
    with pytest.raises(InputError, match="the database itself"):
        back_up(path, path.parent / "." / (path.name + rest))
    assert _note(path) == SHIPPED


def test_a_backup_writes_over_a_backup_and_nothing_else(ctx: Context, tmp_path: Path) -> None:
    letters, copy, link = tmp_path / "letters.txt", tmp_path / "copy.sqlite3", tmp_path / "link.sqlite3"
    letters.write_text("dear customer, " * 100)
    link.symlink_to(ctx.space.database.path)
    for wrong in (letters, link, tmp_path):
        with pytest.raises(InputError):
            back_up(ctx.space.database.path, wrong)
    assert letters.read_text().startswith("dear")
    for note in ("first", "second"):
        _write(ctx, note)
        back_up(ctx.space.database.path, copy)
    assert _note(copy) == "second"


def _with_photo(ctx: Context) -> Path:
    """Put a photo on the front of the job. Returns the file of its picture."""
    id_ = photos.add_photo(ctx, JOB, "front", picture(), "front.jpg")
    with ctx.reading() as session:
        return ctx.space.database.pictures.path(live_photo(session, JOB, id_).sha256)


def test_a_backup_carries_the_pictures_and_restores_them(ctx: Context, tmp_path: Path) -> None:
    """On another machine, where no picture lies beside the database."""
    file, copy, elsewhere = _with_photo(ctx), tmp_path / "copy.sqlite3", tmp_path / "elsewhere" / "new.sqlite3"
    stored = file.read_bytes()
    assert back_up(ctx.space.database.path, copy) == 0
    elsewhere.parent.mkdir()
    assert restore(copy, elsewhere, NOW).lacking == 0
    found = elsewhere.with_suffix(".photos") / file.parent.name / file.name
    assert found.read_bytes() == stored
    with closing(sqlite3.connect(elsewhere)) as database:
        tables = {name for (name,) in database.execute("SELECT name FROM sqlite_master")}
    assert "carried_picture" not in tables, "the database does not hold the pictures twice"
    assert back_up(elsewhere, copy) == 0, "what was restored can be backed up again"


def test_missing_pictures_are_told_when_backing_up_and_restoring(ctx: Context, tmp_path: Path) -> None:
    file, copy = _with_photo(ctx), tmp_path / "copy.sqlite3"
    file.unlink()
    assert back_up(ctx.space.database.path, copy) == 1
    ctx.space.database.engine.dispose()
    assert restore(copy, ctx.space.database.path, NOW).lacking == 1
