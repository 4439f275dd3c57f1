"""Moisture of each face: what the page says is what a coat is held against, readings close and open a face."""

import re
from datetime import datetime, timedelta

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.survey.conditions import add_moisture
from amber_gable.services.weather.faces.face_moisture import face_moistures
from amber_gable.services.weather.faces.judged_faces import LaneQuestion

PAGE = "/jobs/coopers-rise/weather/moisture"


def test_the_page_dates_a_face_as_its_lanes_do(untouched: Context) -> None:
    view = job_view(untouched, "coopers-rise", waits=True)
    found = {m.face.id: m for m in face_moistures(view)}
    assert found
    for row in LaneQuestion("coat").rows(view):
        one = found.get(row.face.id)
        if one is None:
            continue
        assert (one.half_band >= 0).all() and len(one.pct) == len(one.times)
        if one.fit and row.judged is not None:
            assert not any(w.letter == "M" for w in row.judged.waits), row.face.name


@pytest.mark.parametrize(("pct", "fit"), [("26", False), ("11", True)])
def test_a_reading_closes_a_face_or_opens_it(client: TestClient, ctx: Context, pct: str, fit: bool) -> None:
    add_moisture(ctx, "coopers-rise", "zone", "back-siding", pct, "low board")
    view = job_view(ctx, "coopers-rise", waits=True)
    back = next(m for m in face_moistures(view) if m.face.id == "back")
    assert back.fit is fit and back.readings[-1][1] == float(pct)
    page = client.get(PAGE).text
    section = re.search(r"<h2>Back <.*?</section>", page)
    assert section is not None
    assert f"read {pct} %" in section[0]
    assert ("Dry enough now" in section[0]) is fit
    if not fit:
        assert re.search("Dry enough from|Too wet in all the days known", section[0])


def test_two_readings_say_how_good_the_prediction_was(client: TestClient, ctx: Context) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    for pct in ("18", "16.5"):
        add_moisture(ctx, "coopers-rise", "zone", "back-siding", pct, "")
        ctx.space.clock.set(ctx.space.clock.now() + timedelta(days=1))
    page = client.get(PAGE).text
    assert re.search(r"said \d+\.\d %, read 16\.5 %", page)


def test_a_house_without_weather_or_water_says_so(client: TestClient, ctx: Context) -> None:
    ctx.space.provider = None
    ctx.space.clock.set(datetime.fromisoformat("2027-03-01T08:00-04:00"))  # type: ignore[union-attr]
    assert "holds water" in client.get(PAGE).text
