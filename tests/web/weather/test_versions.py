"""What was forecast when: kept, seen again, and held against the newest."""

import re
from dataclasses import replace
from datetime import datetime

import numpy as np
import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.site_record import Said
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.today.noting import Note, note_tasks
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.weather.held.versions import compare, version_series, versions
from tests.fixtures import StandIn

PAGE = "/jobs/coopers-rise/weather/versions"
MONDAY = datetime.fromisoformat("2026-09-14T06:30-03:00")


class Wetter(StandIn):
    """The simulated service with six hours of rain on Wednesday, from `hour` on, and none else that day."""

    def __init__(self, hour: int) -> None:
        super().__init__()
        self.hour = hour

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        series = super().forecast(latitude, longitude, at)
        wednesday = int(datetime.fromisoformat("2026-09-16T00:00-03:00").timestamp())
        hours = (series.start + 3600 * np.arange(len(series)) - wednesday) / 3600
        assert series.rain_mm is not None and series.rain_pct is not None
        wet = (hours >= self.hour) & (hours < self.hour + 6)
        rain = np.where(wet, 2.0, np.where((hours >= 0) & (hours < 24), 0.0, series.rain_mm))
        return replace(series, rain_mm=rain, rain_pct=np.where(wet, 90.0, np.where(rain > 0, 80.0, 0.0)))


def _said(page: str) -> str:
    return re.sub(r"<[^>]+>|\s+", " ", page)


@pytest.fixture
def wetter(ctx: Context) -> Context:
    """The forecast of Monday morning, by which the plan was made, and one an hour later that is wet on Wednesday."""
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(MONDAY)
    ctx.space.clock.step(1.1)
    ctx.space.provider = Wetter(9)
    return ctx


@pytest.mark.weather
def test_rain_that_comes_into_the_forecast_costs_coats_in_words_and_hours(wetter: Context, client: TestClient) -> None:
    page = _said(client.get(PAGE).text)
    assert "Mon 14 Sep 06:30" in page and "the plan was made" in page
    assert "New: the front Wednesday 09:00 to 15:00 (12 mm)" in page
    view = job_view(wetter, "coopers-rise", waits=True)
    first = versions(view)[-1]
    found = compare(view, version_series(view, first.kept.kept_at))
    assert found is not None
    coats = [t for t in (view.kept.plan.tasks if view.kept else ()) if t.kind.lays_film and t.start.day == 16]
    hit = {t.id for t in coats if t.start < datetime.fromisoformat("2026-09-16T15:00-03:00")}
    # A coat laid into the rain, or caught by it before it is rain-ready, has lost its window; the others kept theirs.
    assert hit and hit <= {m.task.id for m in found.lost}
    assert all(m.letter in "RDMC" for m in found.lost)
    told = {1: "1 coat loses its window"}.get(len(found.lost), f"{len(found.lost)} coats lose their windows")
    assert told in page
    # Six wet hours cost the faces that could be coated in them those hours; what the sun makes too hot on a dry
    # Wednesday gains some that are cool. Which faces are ready by then hangs on the plan.
    gained = {f.face.id: f.now_h - f.then_h for f in found.faces}
    assert all(hours <= 3 for hours in gained.values()), gained
    assert sum(hours <= -5 for hours in gained.values()) >= 2 and sum(gained.values()) < -8, gained
    plan = _said(client.get("/jobs/coopers-rise/plan").text)
    assert "Planned by the forecast of Mon 14 Sep 06:30" in plan
    assert "the front Wednesday 09:00 to 15:00 (12 mm)" in plan


@pytest.mark.weather
def test_the_lanes_can_be_seen_as_they_were_believed(wetter: Context, client: TestClient) -> None:
    then = int(MONDAY.timestamp())
    at = "at=2026-09-16T10:00-03:00&face=back&product=last"
    told, warned = _warnings(wetter)
    assert told
    assert "rain" in _answer(client.get(f"/jobs/coopers-rise/weather?{at}").text)
    believed = client.get(f"/jobs/coopers-rise/weather?{at}&then={then}").text
    assert "as they were believed Mon 14 Sep 06:30" in _said(believed)
    assert "rain" not in _answer(believed)
    body = re.sub(r"(?s)<header.*?</header>|<dialog.*?</dialog>", "", believed)
    assert f"then={then}" in believed and "hx-trigger" not in body
    assert _warnings(wetter) == (told, warned), "the weather in use says what threatens, whatever was looked at since"


def _warnings(ctx: Context) -> tuple[set[str], object]:
    """What threatens the plan, and what is remembered of it."""
    view = job_view(ctx, "coopers-rise", waits=True)
    threats = {t.task.id for t in view.threats}
    return threats, view.kept.warned if view.kept is not None else None


def _answer(page: str) -> str:
    found = re.search(r'<section class="why" id="why".*?</section>', page, re.S)
    assert found is not None
    return _said(found[0])


def test_what_was_noted_while_a_forecast_was_the_newest_stands_beside_it(wetter: Context, client: TestClient) -> None:
    client.get(PAGE)
    kept = job_view(wetter, "coopers-rise").kept
    assert kept is not None
    for task, at in zip(kept.plan.tasks, ("07:10", "07:20", "07:35"), strict=False):
        note_tasks(
            wetter,
            "coopers-rise",
            [task.id],
            Note(said=Said.STARTED, by="Ina", at=datetime.fromisoformat(f"2026-09-14T{at}-03:00")),
        )
    newest, first = versions(job_view(wetter, "coopers-rise"))
    assert first.decided == ("the plan was made", "work was noted 3 times")
    assert newest.decided == ()


@pytest.mark.weather
def test_the_front_that_moves_is_told_by_hours(wetter: Context, client: TestClient) -> None:
    client.get(PAGE)
    wetter.space.clock.step(1)  # type: ignore[union-attr]
    wetter.space.provider = Wetter(15)
    page = _said(client.get(f"{PAGE}?then={_latest(wetter)}").text)
    assert "The front of Wednesday comes 6 hours later (at 15:00, not 09:00)" in page


def _latest(ctx: Context) -> int:
    return versions(job_view(ctx, "coopers-rise"))[0].kept.kept_at


def test_what_is_not_kept_or_was_not_yet_had_is_not_found(ctx: Context, client: TestClient) -> None:
    assert client.get(f"{PAGE}?then=5").status_code == 404
    assert client.get(f"{PAGE}?then={10**17}").status_code == 422
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.step(30)
    job_weather(ctx, job_view(ctx, "coopers-rise").bundle.property)
    later = _latest(ctx)
    assert client.get(f"{PAGE}?then={later}").status_code == 200
    ctx.space.clock.set(MONDAY)
    assert client.get(f"{PAGE}?then={later}").status_code == 404


def test_a_first_forecast_says_that_it_is_alone(client: TestClient) -> None:
    assert "So far there is one forecast" in _said(client.get(PAGE).text)
