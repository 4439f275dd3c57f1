"""Which forecasts are kept, and for how long."""

from dataclasses import replace
from datetime import datetime, timedelta, timezone
from pathlib import Path

import numpy as np
import pytest

from amber_gable.domain.job.plan import Plan
from amber_gable.services.opening import bring_up
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import save_bundle
from amber_gable.store.job.plans import save_plan
from amber_gable.store.weather.versions import keep_version, list_versions, load_version
from tests.fixtures import database_at
from tests.jobs import coopers_rise
from tests.weather_cases import steady

PLACE = coopers_rise().property.id
FIRST = datetime(2026, 9, 1, tzinfo=timezone(timedelta(hours=-3)))
T0 = int(FIRST.timestamp())
H = 3600


@pytest.fixture
def database(tmp_path: Path) -> Database:
    database = database_at(tmp_path / "v.sqlite3", T0)
    bring_up(database)
    with database.writing() as session:
        save_bundle(session, coopers_rise())
    return database


def _keep(database: Database, hour: float, air: float) -> None:
    series = replace(steady(FIRST, 240, air_c=air), issued=T0 + int(hour * H))
    with database.writing() as session:
        keep_version(session, PLACE, "forecast", series, T0 + int(hour * H))


def _hours(database: Database, until: float = 1e6) -> list[float]:
    with database.reading() as session:
        return [(v.kept_at - T0) / H for v in list_versions(session, PLACE, T0 + int(until * H))]


def test_a_version_is_seen_again_as_it_was_and_the_same_one_is_kept_once(database: Database) -> None:
    _keep(database, 0, 11.0)
    _keep(database, 1, 12.0)
    with database.writing() as session:
        again = replace(steady(FIRST, 240, air_c=12.0), issued=T0 + H)
        keep_version(session, PLACE, "forecast", again, T0 + 2 * H)
    assert _hours(database) == [1, 0]
    with database.reading() as session:
        first = load_version(session, PLACE, T0)
        assert first is not None and np.all(first.air_c == 11.0) and first.issued == T0
        assert load_version(session, PLACE, T0 + 5) is None


def test_old_versions_thin_out_but_not_those_that_a_plan_was_made_by(database: Database) -> None:
    with database.writing() as session:
        save_plan(session, "coopers-rise", Plan(), "f", T0 + int(6.5 * H))
    hours = range(0, 24 * 4)
    for hour in hours:
        _keep(database, hour, 10 + hour / 100)
    kept = _hours(database)
    newest = hours[-1]
    assert [h for h in kept if h >= newest - 48] == list(range(newest, newest - 49, -1)), "two days whole"
    old = [h for h in kept if h < newest - 48]
    assert len(old) == len({(T0 + h * H) // (6 * H) for h in old}) + 1, "one of each six hours, and the plan's own"
    assert 6 in old
    _keep(database, 24 * 40, 5.0)
    assert _hours(database) == [24 * 40, 6], "after a month only what a plan was made by"


def test_a_clock_set_back_does_not_see_what_came_later(database: Database) -> None:
    _keep(database, 0, 11.0)
    _keep(database, 30, 12.0)
    assert _hours(database, until=10) == [0]
    _keep(database, 10, 13.0)
    assert _hours(database, until=10) == [10, 0]
