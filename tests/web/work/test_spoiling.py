"""A spoiled film: what was said of it, what follows in steps, hours, litres and plan, and rain in one tap."""

import re
from datetime import datetime
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import Effect, Mishap
from amber_gable.domain.work.mending import Mend
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.planning import make_plan
from amber_gable.services.today.spoiling import fresh_films
from amber_gable.store.job.jobs import load_bundle, save_bundle
from tests.clients import submit
from tests.small_jobs import cold_front, entry_door

pytestmark = [pytest.mark.weather, pytest.mark.usefixtures("indoors")]
BASE = "/jobs/entry-door"
TODAY, PART = f"{BASE}/today", f"{BASE}/standing/item/door"
DOOR = ("item", "door")


def _to(ctx: Context, when: str) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat(f"2026-09-16T{when}-03:00"))


def _plan(ctx: Context, job: str = "entry-door") -> None:
    view = job_view(ctx, job, waits=True)
    assert view.weather.series is not None
    make_plan(ctx, view.bundle, view.weather.series)


def _bundle(ctx: Context, job: str = "entry-door") -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, job)


def _steps(ctx: Context, job: str = "entry-door") -> list[str]:
    bundle = _bundle(ctx, job)
    return [re.sub(r"-[0-9a-f]{8}$", "", o.id) for o in steps_of(bundle, bundle.job.finishes[0])]


@pytest.fixture
def coated(ctx: Context, client: TestClient) -> TestClient:
    """A door whose first coat was laid at eleven; it is half past."""
    with ctx.writing() as session:
        save_bundle(session, entry_door("counted"))
    _plan(ctx)
    _to(ctx, "11:30")
    for step in ("take-down", "wash", "dull", "dust", "mask"):
        client.post(PART, data={"step": step, "said": "done", "at": "2026-09-14T09:00"})
    submit(client, PART, data={"step": "coat-1", "said": "done", "at": "2026-09-16T11:00"})
    return client


def _film(page: str) -> str:
    return re.findall(r'name="film" value="([^"]+)"', page)[0]


def _say(client: TestClient, **told: str) -> Any:
    film = _film(client.get(TODAY).text)
    return client.post(f"{TODAY}/spoiled", data={"film": film, **told})


def test_what_ran_off_is_mended_before_the_next_coat(ctx: Context, coated: TestClient) -> None:
    before, specified = job_estimate(_bundle(ctx)), _steps(ctx)
    page = _say(coated, what="rain", effect="came-off", share="50", words="all is well")
    assert page.status_code == 200 and "ran, came off or lost its hold" in page.text
    bundle = _bundle(ctx)
    (line,) = bundle.job.spoiled
    assert (line.what, line.effect, line.share, line.step) == (Mishap.RAIN, Effect.CAME_OFF, 0.5, "coat-1")
    at = specified.index("coat-1") + 1
    assert _steps(ctx) == [*specified[:at], "mend-off", "mend-rub", "coat-1-again", *specified[at:]]
    assert any(e.product for e in bundle.job.record), "the first coat stays in the record"
    after = job_estimate(bundle)
    (coat,) = (x for x in before.hours.lines if x.operation and x.operation.id == "coat-1")
    again = next(x for x in after.hours.lines if x.operation and x.operation.id.startswith("coat-1-again"))
    assert again.hours == pytest.approx(coat.hours / 2) and after.hours.hours > before.hours.hours
    assert "The job changed since the plan was made" in coated.get(TODAY).text
    _plan(ctx)
    kept = job_view(ctx, "entry-door").kept
    assert kept is not None
    planned = [s for t in kept.plan.tasks for s in t.steps]
    order = [
        next(n for n, s in enumerate(planned) if s.startswith(w)) for w in ("mend-off", "mend-rub", "coat-1-again")
    ]
    assert order == sorted(order) and order[-1] < planned.index("coat-2")
    # The next coat is not taken for done without a word: the spoiled one comes first.
    asked = coated.post(PART, data={"step": "coat-2", "said": "done"})
    assert asked.status_code == 422 and "first coat, again is not noted" in asked.text


def test_it_is_taken_back_like_any_touch(ctx: Context, coated: TestClient) -> None:
    specified = _steps(ctx)
    for _ in range(2):
        _say(coated, what="touched", effect="marked")
    (line,) = _bundle(ctx).job.spoiled
    assert _steps(ctx) != specified
    submit(coated, f"{TODAY}/back", data={"touch": line.touch})
    assert _steps(ctx) == specified and _bundle(ctx).job.spoiled == (line,), "nothing is rubbed out"


def test_rain_is_one_tap_and_asks_of_each_fresh_film(ctx: Context, coated: TestClient) -> None:
    page = coated.post(f"{TODAY}/rain").text
    assert "Rain at 11:30: what became of it?" in page and "So soon it usually runs off." in page
    coated.post(f"{TODAY}/rain")
    assert len(_bundle(ctx).job.rained) == 1, "the same rain"
    specified = _steps(ctx)
    _say(coated, what="rain", effect="none")
    page = coated.get(TODAY).text
    assert "what became of it?" not in page and _steps(ctx) == specified
    assert "Rain, or what it left" not in page and "nothing to be seen" in page, (
        "what was said stands in the day's notes"
    )


def test_a_stretch_of_a_wall_is_spoiled_and_the_rest_goes_on(ctx: Context, client: TestClient) -> None:
    with ctx.writing() as session:
        save_bundle(session, cold_front())
    _plan(ctx, "cold-front")
    _to(ctx, "11:30")
    wall = "/jobs/cold-front/standing/zone/siding"
    steps = _steps(ctx, "cold-front")
    for step in steps[: steps.index("coat-1") + 1]:
        at = "2026-09-16T10:00" if step == "coat-1" else "2026-09-14T09:00"
        submit(client, wall, data={"step": step, "said": "done", "at": at, "why": "seen dry"})
    today = "/jobs/cold-front/today"
    client.post(f"{today}/rain")
    film = _film(client.get(today).text)
    told = {"film": film, "what": "rain", "effect": "came-off"}
    for wrong in ({"from_m": "2", "to_m": "9"}, {"from_m": "4", "to_m": "2"}):
        assert "reaches from 0.00 m to 7.00 m" in client.post(f"{today}/spoiled", data=told | wrong).text
    page = client.post(f"{today}/spoiled", data=told | {"from_m": "2", "to_m": "3.40"}).text
    assert "2.00 m to 3.40 m from the left" in page
    view = job_view(ctx, "cold-front", waits=True)
    assert view.state is not None
    waiting = [
        (round(c.cell.left * 7, 2), round(c.cell.right * 7, 2), any(isinstance(o, Mend) for o in c.cell.open))
        for c in view.state.parts["zone", "siding"].cells
    ]
    assert waiting == [(0.0, 2.0, False), (2.0, 3.4, True), (3.4, 7.0, False)]
    # What was said of one stretch says nothing of the others, which are still asked of.
    assert {round(f.extent.left * 7, 2) for f in fresh_films(view) if f.rain} == {0.0, 3.4}
    areas = {
        x.operation.id: x.labour.amount
        for x in job_estimate(_bundle(ctx, "cold-front")).hours.lines
        if x.operation is not None
    }
    again = next(area for step, area in areas.items() if step.startswith("coat-1-again"))
    assert again == pytest.approx(areas["coat-1"] * 1.4 / 7)


WRONG = [
    ({"effect": "marked"}, "say what happened"),
    ({"what": "rain"}, "say whether it shows"),
    ({"what": "rain", "effect": "marked", "share": "140"}, "between 1 and 100"),
    ({"what": "rain", "effect": "marked", "at": "2026-09-16T09:00"}, "the film was laid after that"),
    ({"what": "rain", "effect": "marked", "at": "2026-09-16T19:00"}, "still to come"),
    ({"what": "rain", "effect": "marked", "film": "gone"}, "not there any more"),
]


def test_what_cannot_be_is_refused_in_words(ctx: Context, coated: TestClient) -> None:
    for told, words in WRONG:
        answer = _say(coated, **told)
        assert answer.status_code == 422 and words in answer.text, words
    assert not _bundle(ctx).job.spoiled


def test_a_spoiled_job_goes_out_and_comes_back_whole(ctx: Context, coated: TestClient) -> None:
    coated.post(f"{TODAY}/rain")
    _say(coated, what="frost", effect="marked")
    bundle = _bundle(ctx)
    again = JobBundle.model_validate_json(bundle.model_dump_json())
    assert again == bundle and again.job.spoiled and again.job.rained
    copied = coated.post(f"{BASE}/copy")
    assert copied.status_code in (200, 404)


def test_the_sheet_tells_when_a_coat_was_laid_not_when_it_was_planned(ctx: Context, coated: TestClient) -> None:
    kept = job_view(ctx, "entry-door").kept
    assert kept is not None
    coat = next(t for t in kept.plan.tasks if "coat-1" in t.steps)
    page = coated.get(f"{TODAY}?day={coat.start.date()}").text
    sheet = page[page.index('class="day-sheet') :]
    assert "laid 11:00" in sheet and re.search(r"rain-ready\s+Wed 1[5-9]:", sheet)
