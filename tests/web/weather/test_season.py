"""The year of each face: a typical year kept beside the forecast, the same months as the command line's."""

import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.weather.told.season import face_seasons, kept_year
from amber_gable.web.views.weather.season import year_strips
from tests.fixtures import unchanged
from tests.weather_cases import TMY3

PAGE = "/jobs/coopers-rise/weather/season"


def test_a_year_beside_the_forecast_tells_months_and_best_weeks(client: TestClient, ctx: Context) -> None:
    assert "No typical year" in client.get(PAGE).text
    asked = client.post(PAGE, files={"file": (TMY3.name, TMY3.read_bytes())})
    assert "away, near" in asked.text and kept_year(ctx, "14-coopers-rise") is None, "a far station's is asked about"
    page = client.post(asked.url.path).text
    assert TMY3.name in page and "Best weeks:" in page
    view = job_view(ctx, "coopers-rise")
    assert not job_weather(ctx, view.bundle.property).from_file, "the forecast stays what the lanes are judged by"
    year = kept_year(ctx, view.bundle.property.id)
    assert year is not None
    found = {s.face.id: s.found for s in face_seasons(ctx, view.bundle, year)}
    back, front = found["back"], found["front"]
    hours = {m.month: m.workable_h for m in back.months}
    assert len(hours) == 12 and hours[1] < hours[5] > hours[12]
    assert sum(hours.values()) == pytest.approx(back.workable_h)
    assert back.workable_h > front.workable_h, "the shade is workable for longer than the sun"
    strip = next(s for s in year_strips(face_seasons(ctx, view.bundle, year)) if s.name == "Back")
    assert max(b.height for b in strip.bars) <= 74.0 and len(strip.weeks) == 4
    shown = re.findall(r">(\d+) h</text>", page)
    assert len(shown) == 12 * len(found)


def test_what_is_no_typical_year_is_refused_and_nothing_kept(client: TestClient, ctx: Context) -> None:
    week = "time,air_c,rh_pct,wind_m_s,wind_from_deg,cloud_pct\n2026-09-14T06:00-03:00,15,70,2,180,40\n"
    with unchanged(ctx):
        answer = client.post(PAGE, files={"file": ("week.csv", week.encode())})
    assert answer.status_code == 422 and "is no typical year" in answer.text
