"""A coat that is said to be done and can hardly be is asked about once, and taken with another time or a reason."""

import re
from datetime import datetime, timedelta
from typing import Any
from urllib.parse import quote

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.site_record import SiteEntry
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.planning import make_plan
from amber_gable.services.today.sureness import Sureness, sureness
from amber_gable.store.job.jobs import load_bundle, save_bundle
from tests.clients import submit
from tests.small_jobs import entry_door

pytestmark = [pytest.mark.weather, pytest.mark.usefixtures("indoors")]
BASE = "/jobs/entry-door"
PART = f"{BASE}/standing/item/door"
ASKED = "Can that be?"


@pytest.fixture
def planned(ctx: Context) -> Context:
    """A door that was washed and prepared two days ago, at noon of a working day."""
    with ctx.writing() as session:
        save_bundle(session, entry_door("counted"))
    view = job_view(ctx, "entry-door", waits=True)
    assert view.weather.series is not None
    make_plan(ctx, view.bundle, view.weather.series)
    return ctx


@pytest.fixture
def door(planned: Context, client: TestClient) -> TestClient:
    _to(planned, "2026-09-16T12:00-03:00")
    for step in ("take-down", "wash", "dull", "dust", "mask"):
        client.post(PART, data={"step": step, "said": "done", "at": "2026-09-14T09:00"})
    return client


def _to(ctx: Context, when: str) -> datetime:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat(when))
    return datetime.fromisoformat(when)


def _films(ctx: Context) -> list[SiteEntry]:
    with ctx.reading() as session:
        return [e for e in load_bundle(session, "entry-door").job.record if e.product is not None]


def _tick(ctx: Context, client: TestClient, step: str, **more: str) -> Any:
    kept = job_view(ctx, "entry-door").kept
    assert kept is not None
    task = next(t.id for t in kept.plan.tasks if step in t.steps)
    return client.post(f"{BASE}/today/note", data={"task": task, "said": "done", **more})


def test_a_coat_on_a_ready_surface_is_taken_without_a_word(planned: Context, door: TestClient) -> None:
    answer = _tick(planned, door, "coat-1")
    assert answer.status_code == 200 and ASKED not in answer.text
    assert len(_films(planned)) == 1


def test_two_coats_at_one_minute_are_asked_about(planned: Context, door: TestClient) -> None:
    _tick(planned, door, "coat-1")
    answer = _tick(planned, door, "coat-2")
    assert answer.status_code == 422 and ASKED in answer.text and "cannot be coated yet" in answer.text
    assert "It could be true from" in answer.text and 'value="2026-09-16T12:00"' in answer.text
    assert len(_films(planned)) == 1, "nothing is entered before it is answered"
    # Said again without a reason it is asked again; with a time at which it can be true it is taken.
    again = _tick(planned, door, "coat-2", answer="1", at="2026-09-16T12:00")
    assert again.status_code == 422 and "Say why it is so" in again.text
    now = _to(planned, "2026-09-18T12:00-03:00")
    taken = _tick(planned, door, "coat-2", answer="1", at=f"{now - timedelta(hours=2):%Y-%m-%dT%H:%M}")
    assert taken.status_code == 200 and len(_films(planned)) == 2


def test_a_reason_is_kept_and_the_film_judged_as_laid_then(planned: Context, door: TestClient) -> None:
    _tick(planned, door, "coat-1")
    answer = _tick(planned, door, "coat-2", answer="1", why="the boss wanted it")
    assert answer.status_code == 200
    first, second = _films(planned)
    assert (second.why, second.at) == ("the boss wanted it", first.at)
    panel = door.get(PART).text
    assert "it may wrinkle, lift or stay soft" in panel and "“the boss wanted it”" in panel


def test_a_second_coat_before_the_first_was_noted_is_asked_about(planned: Context, door: TestClient) -> None:
    answer = _tick(planned, door, "coat-2")
    assert answer.status_code == 422 and "first coat is not noted" in answer.text
    panel = door.post(PART, data={"step": "coat-2", "said": "done"})
    assert panel.status_code == 422 and "first coat is not noted" in panel.text
    assert not _films(planned)


def test_a_coat_before_work_that_is_planned_for_later_is_asked_about(planned: Context, client: TestClient) -> None:
    kept = job_view(planned, "entry-door").kept
    assert kept is not None
    wash = next(t for t in kept.plan.tasks if "wash" in t.steps)
    _to(planned, (wash.start - timedelta(hours=1)).isoformat())
    answer = _tick(planned, client, "coat-1")
    assert answer.status_code == 422 and "is not noted, and planned until" in answer.text
    _to(planned, (kept.plan.tasks[-1].end + timedelta(days=2)).isoformat())
    assert _tick(planned, client, "coat-1").status_code == 200, "what should be behind is taken to be"


def test_what_lays_no_film_and_what_is_not_said_to_be_done_are_not_asked_about(
    planned: Context, door: TestClient
) -> None:
    for step, said in (("refit", "done"), ("coat-2", "started")):
        answer = door.post(PART, data={"step": step, "said": said})
        assert answer.status_code == 200, step


def test_a_touch_that_was_entered_and_is_sent_again_is_not_asked_about(planned: Context, door: TestClient) -> None:
    touch = "0123456789abcdef0123456789abcdef"
    _tick(planned, door, "coat-1", touch=touch)
    answer = _tick(planned, door, "coat-1", touch=touch)
    assert answer.status_code == 200 and len(_films(planned)) == 1


def test_today_says_how_sure_a_yes_is(planned: Context, door: TestClient) -> None:
    kept = job_view(planned, "entry-door").kept
    assert kept is not None
    coat, refit = (next(t for t in kept.plan.tasks if step in t.steps) for step in ("coat-1", "refit"))
    state = job_view(planned, "entry-door", waits=True).asked_task(coat.id)
    assert state is not None and state.answer is not None and state.answer.opens is not None
    assert not door.get(f"{BASE}/today/sure?task={quote(coat.id)}").text.strip(), "it is too hot at noon"
    _to(planned, (state.answer.opens + timedelta(minutes=1)).isoformat())
    told = door.get(f"{BASE}/today/sure?task={quote(coat.id)}").text
    found = re.search(r">(\d+) %</b> of", told)
    assert found is not None and ("I would wait" in told) is (int(found[1]) < 70)
    assert not door.get(f"{BASE}/today/sure?task={quote(refit.id)}").text.strip(), "of a coat alone"
    assert Sureness(0.69, 0.7).wait and not Sureness(0.7, 0.7).wait
    for school, floor in (("90", 0.9), ("50", 0.5)):
        submit(door, f"{BASE}/schools", data={"level": "job", "topic": "sure", "school": school})
        sure = sureness(job_view(planned, "entry-door", waits=True), coat.id)
        assert sure is not None and sure.floor == floor
