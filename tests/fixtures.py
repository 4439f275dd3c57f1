"""Shared fixtures: a demo with its forecasts taken straight from the stand-in, made once for a whole run."""

import fcntl
import os
import pickle
import re
import sqlite3
from collections.abc import Callable, Hashable, Iterator, Sequence
from contextlib import contextmanager
from datetime import datetime
from functools import cache
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from sqlalchemy import event

from amber_gable.domain.errors import NoClimate
from amber_gable.domain.meter import MeterPlace, MeterReading, MeterUnavailable
from amber_gable.domain.weather import WeatherSeries
from amber_gable.exchange.forecast import ForecastUnavailable, parse_forecast
from amber_gable.exchange.meter import parse_reading
from amber_gable.run import plan_unplanned
from amber_gable.services.clock import DemoClock
from amber_gable.services.computed import Computed
from amber_gable.services.jobs import load_demo
from amber_gable.services.workspace import Workspace
from amber_gable.standins.weather.service import weather_service
from amber_gable.store.backup import back_up
from amber_gable.store.database import Database
from amber_gable.web.app import create_app

HOST = "http://127.0.0.1:8765"


@cache
def _stand_in() -> FastAPI:
    return weather_service()


class StandIn:
    """The simulated services without a socket; `down` makes them unreachable."""

    def __init__(self) -> None:
        self.client, self.down, self.asked = TestClient(_stand_in()), False, 0

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        self.asked += 1
        if self.down:
            raise ForecastUnavailable("the forecast service did not answer (ConnectError)")
        query = {"lat": str(latitude), "lon": str(longitude), "issued": at.isoformat()}
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


# Results are kept by the digest of their inputs, so tests may share them.
SHARED = Computed()


def open_space(path: Path, computed: Computed = SHARED) -> Workspace:
    database = Database(path, lambda: 1_789_000_000)
    database.migrate()
    service = StandIn()
    space = Workspace(database, DemoClock(database), service, service, computed)
    # A busy machine is waited for: what a page does that does not wait has tests of its own.
    space.runner.patience = 60
    return space


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
            made = Remembered()
            space = open_space(path, made)
            load_demo(space)
            plan_unplanned(space)
            space.database.engine.dispose()
            known.write_bytes(pickle.dumps(made.results))
    for key, value in pickle.loads(known.read_bytes()).items():
        SHARED.get(key, lambda value=value: value)
    return path


@pytest.fixture(scope="session")
def app() -> FastAPI:
    """The application; a test hangs its own workspace on it."""
    return create_app(Workspace(None, None, None))  # type: ignore[arg-type]


class Reader(TestClient):
    """Reads pages as a browser shows them: where a template's line ends is one blank more."""

    def send(self, *args: Any, **options: Any) -> Any:
        answer = super().send(*args, **options)
        if answer.headers.get("content-type", "").startswith("text/html"):
            line_ends = re.compile(rb"(<textarea.*?</textarea>)|\s*\n\s*", re.DOTALL)
            answer._content = line_ends.sub(lambda found: found[1] or b" ", answer.content)
        return answer


def visit(app: FastAPI, space: Workspace) -> TestClient:
    """A browser-like client: same origin, wants pages, follows redirects."""
    app.state.space = space
    headers = {"origin": HOST, "accept": "text/html"}
    return Reader(app, base_url=HOST, headers=headers, raise_server_exceptions=False)


@pytest.fixture
def indoors(monkeypatch: pytest.MonkeyPatch, request: pytest.FixtureRequest) -> None:
    """No climate on the pages, unless the test needs it: where no weather is looked at it is not computed anew for
    every colour that changes."""

    def none(*_: object) -> None:
        raise NoClimate("this test goes without weather")

    if request.node.get_closest_marker("weather") is None:
        monkeypatch.setattr("amber_gable.services.job_view.job_climate", none)


@pytest.fixture
def space(demo_file: Path, tmp_path: Path) -> Iterator[Workspace]:
    """The demo in a copy of its own, to be changed at will."""
    back_up(demo_file, tmp_path / "demo.sqlite3")
    space = open_space(tmp_path / "demo.sqlite3")
    yield space
    space.database.engine.dispose()


@pytest.fixture
def client(app: FastAPI, space: Workspace) -> Iterator[TestClient]:
    with visit(app, space) as client:
        yield client


@pytest.fixture(scope="session")
def untouched(demo_file: Path) -> Iterator[Workspace]:
    """The demo for tests that only look: the database refuses every write."""
    space = open_space(demo_file)
    event.listen(space.database.engine, "connect", lambda connection, _: connection.execute("PRAGMA query_only=ON"))
    space.database.engine.dispose()
    yield space
    space.database.engine.dispose()


@pytest.fixture
def visitor(app: FastAPI, untouched: Workspace) -> Iterator[TestClient]:
    """A client that can only look; for many tests on one demo."""
    with visit(app, untouched) as client:
        yield client


@contextmanager
def unchanged(space: Workspace) -> Iterator[None]:
    """Nothing at all may be committed in here."""
    with sqlite3.connect(space.database.path) as watch:
        before = watch.execute("PRAGMA data_version").fetchone()
        yield
        assert watch.execute("PRAGMA data_version").fetchone() == before, "something was saved"
