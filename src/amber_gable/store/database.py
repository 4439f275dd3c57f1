"""Opening the database: migrations, durability settings, and stamped rows."""

import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from sqlalchemy import Engine, create_engine, event

from amber_gable.store.backup import back_up
from amber_gable.store.changes import count
from amber_gable.store.kept import Kept
from amber_gable.store.pictures import Pictures
from amber_gable.store.soundness import MIGRATIONS, check_ours, known_revisions
from amber_gable.store.tables import Tracked
from amber_gable.store.transaction import Transaction


class Database:
    """One SQLite file in WAL mode with foreign keys on. `now` gives epoch seconds for the rows' stamps."""

    def __init__(self, path: Path, now: Callable[[], int]) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.path, self.now, self.kept, self.pictures = path, now, Kept(), Pictures(path)
        self.engine: Engine = create_engine(f"sqlite:///{path}", connect_args={"timeout": 10})
        event.listen(self.engine, "connect", _prepare)

    def migrate(self) -> None:
        """Bring the file to the newest schema; a file with data is copied beside itself first.

        Raises InputError, and writes nothing, for another program's file and for one of a newer version.
        """
        present, newest = check_ours(self.path), known_revisions()[0]
        if present == newest:
            return
        if present is not None:
            beside = self.path.with_name(f"{self.path.stem}.before-{newest}{self.path.suffix}")
            back_up(self.path, beside, pictures=False)
        # Loaded when it is first needed: the program starts without it.
        from alembic import command
        from alembic.config import Config

        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        with self.engine.begin() as connection:
            connection.exec_driver_sql("BEGIN IMMEDIATE")
            config.attributes["connection"] = connection
            command.upgrade(config, "head")

    @contextmanager
    def reading(self) -> Iterator[Transaction]:
        """One moment of the database, whatever is written meanwhile."""
        with self.moment() as session:
            yield session

    def moment(self, by: str = "") -> Transaction:
        """A session that reads one moment of the database, until it is closed."""
        session = Transaction(self.engine, self.kept, self.pictures, by=by)
        session.connection().exec_driver_sql("BEGIN")
        return session

    @contextmanager
    def writing(self, by: str = "") -> Iterator[Transaction]:
        """One transaction of whoever is named: everything in it is saved, or nothing."""
        with Transaction(self.engine, self.kept, self.pictures, by=by, writes=True) as session:
            with session.begin():
                # Taking the write lock first makes two writers queue instead of failing half-way.
                session.connection().exec_driver_sql("BEGIN IMMEDIATE")
                event.listen(session, "before_flush", self._stamp)
                yield session
            self.kept.publish(session)

    def _stamp(self, session: Transaction, *_: object) -> None:
        now, by = self.now(), session.by
        changed = [row for row in session.dirty if session.is_modified(row)]
        for row in session.new:
            if isinstance(row, Tracked):
                row.created_at = row.updated_at = now
                row.created_by = row.updated_by = by
                row.version = row.version or 1
        for row in changed:
            if isinstance(row, Tracked):
                row.updated_at, row.updated_by = now, by
                row.version += 1
        count(session, changed, (*session.new, *session.deleted))


def _prepare(connection: sqlite3.Connection, _: object) -> None:
    # SQLAlchemy then leaves BEGIN to us.
    connection.isolation_level = None
    for pragma in ("journal_mode=WAL", "foreign_keys=ON", "synchronous=FULL", "busy_timeout=10000"):
        connection.execute(f"PRAGMA {pragma}")
