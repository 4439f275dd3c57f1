"""The one source of time."""

from datetime import UTC, datetime, timedelta
from typing import Protocol

from amber_gable.store.database import Database
from amber_gable.store.tables import SettingRow

DEMO_START = datetime.fromisoformat("2026-09-14T06:30:00-03:00")
_KEY = "demo-clock"


class Clock(Protocol):
    def now(self) -> datetime:
        """The present moment, with its zone."""
        ...


class SystemClock:
    """The machine's clock."""

    steppable = False

    def now(self) -> datetime:
        return datetime.now(UTC)


class DemoClock:
    """Stands still until it is stepped; where it stands is kept in the database."""

    steppable = True

    def __init__(self, database: Database) -> None:
        self._database = database
        with database.reading() as session:
            row = session.get(SettingRow, _KEY)
            self._now = datetime.fromisoformat(row.value) if row else DEMO_START

    def now(self) -> datetime:
        return self._now

    def set(self, moment: datetime) -> None:
        with self._database.writing() as session:
            session.merge(SettingRow(key=_KEY, value=moment.isoformat()))
        self._now = moment

    def step(self, hours: float) -> None:
        """Move by that many hours; a step back is allowed, to look again."""
        self.set(self._now + timedelta(hours=hours))

    def reset(self) -> None:
        self.set(DEMO_START)
