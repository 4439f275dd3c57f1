"""The film story: what it shows of a quarter hour is what the command line computes of it, and it is quick to move."""

import html
import json
import re
from datetime import datetime

import numpy as np
import pytest
from fastapi.testclient import TestClient

from amber_gable.core.weather.film.drying import stage_rates
from amber_gable.core.weather.film.film_events import film_events
from amber_gable.core.weather.film.limits import coat_limits
from amber_gable.core.weather.futures.members import Coat
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.weather.faces.compared_coats import compared_coats
from amber_gable.services.weather.faces.face_odds import face_odds
from amber_gable.services.weather.faces.judged_faces import LaneQuestion
from amber_gable.services.weather.told.film_story import film_story

FILM = "/jobs/coopers-rise/weather/film"
NOON = datetime.fromisoformat("2026-09-16T12:00-03:00")


def test_a_quarter_hour_of_the_story_is_that_of_the_lanes_and_of_the_events(untouched: Context) -> None:
    view = job_view(untouched, "coopers-rise", waits=True)
    row = next(r for r in LaneQuestion("coat").rows(view) if r.face.id == "west-gable")
    (odds,) = face_odds(view, [row])
    story = film_story(view, row, odds, NOON)
    assert story is not None and isinstance(row.step, Coat)
    assert len(story.moments) == 72 and story.begin.hour == 4
    at = row.slot_of(NOON)
    shown = next(m for m in story.moments if m.start == NOON)
    stages = {s.name: s for s in story.moments[32].stages}
    assert shown is story.moments[32]
    for (stage, when), name in zip(row.stages(at), ("touch", "rain-ready", "recoat"), strict=False):
        assert stages[name].likely == when, stage
        early, late = stages[name].early, stages[name].late
        assert early is None or late is None or early <= (when or late) <= late
    limits = coat_limits(row.step.product, view.bundle.policy, row.step.damp and row.step.damp.limit, sprays=False)
    rates, slots = stage_rates(row.climate, row.step.product), row.windows.slots
    assert list(shown.events) == film_events(row.climate, row.step.product, rates, limits, int(slots.end[at]))
    assert shown.sure == pytest.approx(row.share(odds)[at])
    count = story.surface_band.shape[1]
    inside = (story.surface[:count] >= story.surface_band[0] - 1.5) & (
        story.surface[:count] <= story.surface_band[1] + 1.5
    )
    assert inside.mean() > 0.9, "the forecast lies in its own band, near its edges where a front may come sooner"
    assert np.ptp(story.surface_band[:, 150]) > np.ptp(story.surface_band[:, 20]), "later is less sure"


def test_a_late_stroke_into_a_wet_night_is_spoilt_and_says_by_what_and_when(visitor: TestClient) -> None:
    page = visitor.get(FILM, params={"face": "west-gable", "product": "coat", "at": "2026-09-16T17:30:00-03:00"}).text
    found = re.search(r"data-moments>(.*?)</script>", page)
    assert found is not None
    moments = json.loads(html.unescape(found[1]))
    late = next(m for m in moments if "17:30" in m["title"])
    early = next(m for m in moments if "09:00" in m["title"])
    assert late["events"] and re.search(r"(Rain|Dew) .*: \w{3} \d\d:\d\d to ", late["told"]) and not late["ok"]
    assert late["flags"][1]["x"] is None or late["flags"][1]["x"] > early["flags"][1]["x"]
    assert late["x"] > early["x"] and late["told"] in html.unescape(page)


def test_other_products_and_methods_stand_beside_the_coat(untouched: Context, visitor: TestClient) -> None:
    view = job_view(untouched, "net-loft", waits=True)
    row = LaneQuestion("last").rows(view)[0]
    assert isinstance(row.step, Coat)
    compared = compared_coats(view, row)
    assert compared[0].chosen and compared[0].method is row.step.method
    assert len({(c.product.code, c.method) for c in compared}) == len(compared) > 1
    assert [c.likely for c in compared[1:]] == sorted((c.likely for c in compared[1:]), reverse=True)
    to_come = row.windows.ok[0][row.slot_of(view.now) : 6 * 96]
    (odds,) = face_odds(view, [row])
    coming = np.flatnonzero(row.windows.ok[0][: 6 * 96])
    coming = coming[coming > row.slot_of(view.now)]
    assert compared[0].sure == pytest.approx(odds.share[coming].mean()), "the same futures as the lanes speak of"
    assert compared[0].hours == pytest.approx(to_come.sum() / 4, abs=0.25)
    part = visitor.get(
        "/jobs/net-loft/weather/film/compare", params={"product": "last"}, headers={"hx-request": "true"}
    )
    assert part.text.count("<tr") == len(compared) + 1 and "<html" not in part.text


@pytest.mark.parametrize(("at", "words"), [
    ("2026-10-30T12:00:00-03:00", "does not reach that day"), ("nonsense", "data-moments"), ("", "data-moments"),
])  # fmt: skip
def test_a_day_past_the_weather_and_no_day_at_all(visitor: TestClient, at: str, words: str) -> None:
    answer = visitor.get(FILM, params={"face": "back", "at": at})
    assert answer.status_code == 200 and words in answer.text
