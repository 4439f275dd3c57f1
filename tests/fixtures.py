"""Shared fixtures: a demo with its forecasts taken straight from the stand-in, made once for a whole run."""

import fcntl
import gc
import os
import pickle
import sqlite3
from collections.abc import Callable, Hashable, Iterator, Sequence
from contextlib import ExitStack, closing, contextmanager
from copy import copy
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Any, TypeVar

import pytest
from anyio.from_thread import start_blocking_portal
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlalchemy import Dialect, Engine, event
from sqlalchemy.util import LRUCache

from amber_gable.domain.errors import NoClimate
from amber_gable.domain.findings.meter import MeterPlace, MeterReading, MeterUnavailable
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.meter import parse_reading
from amber_gable.exchange.weather.forecast import BEFORE_H, ForecastUnavailable, parse_forecast
from amber_gable.run import plan_unplanned
from amber_gable.services.clock import DemoClock
from amber_gable.services.computed import MIB, Computed
from amber_gable.services.context import Context
from amber_gable.services.job.jobs import load_demo
from amber_gable.services.job.view import job_view
from amber_gable.services.workspace import Workspace
from amber_gable.standins.weather.service import weather_service
from amber_gable.store.database import Database
from amber_gable.store.job.jobs import list_jobs
from amber_gable.web.app import create_app
from tests.clients import LOOPS, Client, visit

T = TypeVar("T")


@cache
def _stand_in() -> Client:
    return Client(weather_service())


_AT_THE_END = ExitStack()


def pytest_sessionstart() -> None:
    LOOPS.append(_AT_THE_END.enter_context(start_blocking_portal()))


def pytest_unconfigure() -> None:
    LOOPS.clear()
    _AT_THE_END.close()


class StandIn:
    """The simulated services without a socket; `down` makes them unreachable."""

    def __init__(self) -> None:
        self.client, self.down, self.asked = _stand_in(), False, 0

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        self.asked += 1
        if self.down:
            raise ForecastUnavailable("the forecast service did not answer (ConnectError)")
        query = {"lat": str(latitude), "lon": str(longitude), "issued": at.isoformat(), "before_h": str(BEFORE_H)}
        return parse_forecast(self.client.get("/forecast", params=query).content)

    def read(self, place: MeterPlace) -> MeterReading:
        if self.down:
            raise MeterUnavailable("the meter did not answer (ConnectError)")
        return parse_reading(self.client.get("/reading", params=place.model_dump(mode="json")).text)


class Remembered(Computed):
    """Hands on what was computed."""

    def __init__(self) -> None:
        super().__init__()
        self.results: dict[Hashable, Any] = {}

    def get_all(self, keys: Sequence[Hashable], compute: Callable[[list[int]], Sequence[Any]]) -> list[Any]:
        found = super().get_all(keys, compute)
        self.results |= dict(zip(keys, found, strict=True))
        return found


# Results are kept by the digest of their inputs, so tests may share them; statements as they were compiled, too.
SHARED, STANDING, PARTS = Computed(), Computed(48 * MIB), Computed(48 * MIB)
EACH_BY_ITSELF: list[bool] = []
"""Not empty where it is noted which test touches what: what one test has read or worked out, the next does anew."""
STATEMENTS = LRUCache(1000)
DIALECT: list[Dialect] = []
EMPTY: list[bytes] = []


def _share_statements(engine: Engine) -> None:
    """What one engine compiled, another with the same dialect takes."""
    engine.dialect = DIALECT[0] if DIALECT else engine.dialect
    DIALECT[:] = [engine.dialect]
    engine.update_execution_options(compiled_cache=STATEMENTS)


def database_at(path: Path, now: int = 1_789_000_000, like: bytes | None = None) -> Database:
    """Migrated; an empty one is migrated once and copied from then on. `like`: the file it is a copy of."""
    new = not path.exists()
    copied = like or (EMPTY[0] if new and EMPTY else None)
    if copied is not None:
        path.write_bytes(copied)
    database = Database(path, lambda: now)
    _share_statements(database.engine)
    if copied is None:
        database.migrate()
    if new and not EMPTY and like is None:
        EMPTY.append(as_file(path))
    return database


def as_file(path: Path) -> bytes:
    """A database as a file of its own, with what was lately written to it."""
    with closing(sqlite3.connect(path)) as file:
        return file.serialize()


def open_space(path: Path, computed: Computed = SHARED, like: bytes | None = None) -> Context:
    database = database_at(path, like=like)
    service = StandIn()
    space = Workspace(database, DemoClock(database), service, service, computed)
    if computed is SHARED and not EACH_BY_ITSELF:
        space.standing, space.parts = STANDING, PARTS
    # A busy machine is waited for: what a page does that does not wait has tests of its own.
    space.runner.patience = 60
    return Context(space)


def _own(known: T) -> T:
    """What is known, to be added to without the other's noticing."""
    mine = copy(known)
    vars(mine).update({name: value.copy() for name, value in vars(known).items() if isinstance(value, dict)})
    return mine


def run_folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A folder that all workers of this run share."""
    base = tmp_path_factory.getbasetemp()
    return base.parent if "PYTEST_XDIST_WORKER" in os.environ else base


@contextmanager
def _alone(lock: Path) -> Iterator[None]:
    with lock.open("w") as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        yield


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A demo database with plans, and the climate of the demo week beside it: the first worker makes them, all others
    wait for it and read them. Never written to."""
    folder = run_folder(tmp_path_factory)
    path, known = folder / "demo.sqlite3", folder / "demo.computed"
    with _alone(folder / "demo.lock"):
        if not known.exists():
            made, parts = Remembered(), Remembered()
            ctx = open_space(path, made)
            ctx.space.parts = parts
            load_demo(ctx)
            plan_unplanned(ctx)
            ctx.space.database.engine.dispose()
            known.write_bytes(pickle.dumps((made.results, parts.results)))
    for computed, results in zip((SHARED, PARTS), pickle.loads(known.read_bytes()), strict=True):
        for key, value in results.items():
            computed.get(key, lambda value=value: value)
    return path


def look_round(ctx: Context) -> None:
    """Read every job and work out how it stands, as its pages do."""
    with ctx.reading() as session:
        jobs = [job.id for job in list_jobs(session)]
    for job in jobs:
        view = job_view(ctx, job)
        assert view.board is not None and view.threats is not None


@pytest.fixture(scope="session")
def app() -> FastAPI:
    """The application; a test hangs its own workspace on it."""
    return create_app(Workspace(None, None, None))  # type: ignore[arg-type]


@pytest.fixture
def indoors(monkeypatch: pytest.MonkeyPatch, request: pytest.FixtureRequest) -> None:
    """No climate on the pages, unless the test needs it: where no weather is looked at it is not computed anew for
    every colour that changes."""

    def none(*_: object) -> None:
        raise NoClimate("this test goes without weather")

    if request.node.get_closest_marker("weather") is None:
        monkeypatch.setattr("amber_gable.services.job.view.job_climate", none)


@pytest.fixture(scope="session")
def demo_as_file(untouched: Context) -> bytes:
    return as_file(untouched.space.database.path)


@pytest.fixture
def ctx(untouched: Context, demo_as_file: bytes, tmp_path: Path) -> Iterator[Context]:
    """The demo in a copy of its own, to be changed at will."""
    ctx = open_space(tmp_path / "demo.sqlite3", like=demo_as_file)
    if not EACH_BY_ITSELF:
        # What was read of the demo is what would be read of its copy.
        ctx.space.database.kept = _own(untouched.space.database.kept)
        ctx.space.drawings = _own(untouched.space.drawings)
    yield ctx
    ctx.space.database.engine.dispose()


@pytest.fixture
def client(app: FastAPI, ctx: Context) -> Iterator[TestClient]:
    with visit(app, ctx) as client:
        yield client


@pytest.fixture(scope="session")
def untouched(demo_file: Path) -> Iterator[Context]:
    """The demo for tests that only look: the database refuses every write."""
    ctx = open_space(demo_file)
    event.listen(ctx.space.database.engine, "connect", lambda connection, _: connection.execute("PRAGMA query_only=ON"))
    ctx.space.database.engine.dispose()
    look_round(ctx)
    # What stays to the end of the run need not be gone through again and again for what could be let go.
    gc.collect()
    gc.freeze()
    yield ctx
    ctx.space.database.engine.dispose()


@pytest.fixture
def visitor(app: FastAPI, untouched: Context) -> Iterator[TestClient]:
    """A client that can only look; for many tests on one demo."""
    with visit(app, untouched) as client:
        yield client


@contextmanager
def unchanged(ctx: Context) -> Iterator[None]:
    """Nothing at all may be committed in here."""
    with sqlite3.connect(ctx.space.database.path) as watch:
        before = watch.execute("PRAGMA data_version").fetchone()
        yield
        assert watch.execute("PRAGMA data_version").fetchone() == before, "something was saved"
