"""Shared fixtures: a demo installation with its forecasts taken straight from the stand-in."""

from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from hypothesis import settings

from amber_gable.domain.weather import WeatherSeries
from amber_gable.exchange.forecast import ForecastUnavailable, parse_forecast
from amber_gable.exchange.meter import MeterPlace, MeterReading, MeterUnavailable, parse_reading
from amber_gable.services.clock import DemoClock
from amber_gable.services.jobs import load_demo
from amber_gable.services.workspace import Computed, Workspace
from amber_gable.standins.weather.service import weather_service
from amber_gable.store.database import Database
from amber_gable.web.app import create_app
from amber_gable.web.run import plan_unplanned

settings.register_profile("repeatable", derandomize=True, deadline=None)
settings.load_profile("repeatable")

HOST = "http://127.0.0.1:8765"


class StandIn:
    """The simulated services without a socket; `down` makes them unreachable."""

    def __init__(self) -> None:
        self.client, self.down, self.asked = TestClient(weather_service()), False, 0

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        self.asked += 1
        if self.down:
            raise ForecastUnavailable("the forecast service did not answer (ConnectError)")
        query = {"lat": str(latitude), "lon": str(longitude), "issued": at.isoformat()}
        return parse_forecast(self.client.get("/forecast", params=query).json())

    def read(self, place: MeterPlace) -> MeterReading:
        if self.down:
            raise MeterUnavailable("the meter did not answer (ConnectError)")
        return parse_reading(self.client.get("/reading", params=place.model_dump(mode="json")).text)


# Results are kept by the digest of their inputs, so tests may share them.
SHARED = Computed(size=200)


def open_space(path: Path) -> Workspace:
    database = Database(path, lambda: 1_789_000_000)
    database.migrate()
    service = StandIn()
    return Workspace(database, DemoClock(database), service, service, SHARED)


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A demo database with plans, made once and copied for each test that may change it."""
    path = tmp_path_factory.mktemp("demo") / "demo.sqlite3"
    space = open_space(path)
    load_demo(space)
    plan_unplanned(space)
    space.database.engine.dispose()
    return path


@pytest.fixture
def space(demo_file: Path, tmp_path: Path) -> Iterator[Workspace]:
    from amber_gable.store.backup import back_up

    back_up(demo_file, tmp_path / "demo.sqlite3")
    space = open_space(tmp_path / "demo.sqlite3")
    yield space
    space.database.engine.dispose()


@pytest.fixture
def client(space: Workspace) -> TestClient:
    """A browser-like client on the demo: same origin, wants pages, follows redirects."""
    headers = {"origin": HOST, "accept": "text/html"}
    return TestClient(create_app(space), base_url=HOST, headers=headers, raise_server_exceptions=False)
