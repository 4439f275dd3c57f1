"""Work noted on site: one touch each, append-only, taken back, never entered twice; and what the customer changes."""

import re
from datetime import datetime, timedelta
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.site_record import Said
from amber_gable.exchange.job.bundle import dump_bundle
from amber_gable.exchange.job.bundle import load_bundle as read_bundle
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import JobView, job_view
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit
from tests.fixtures import unchanged
from tests.web.forms import form_of

RISE = "/jobs/coopers-rise"
FRONT = ("zone", "front-siding")
weather = pytest.mark.weather
pytestmark = pytest.mark.usefixtures("indoors")


def _view(ctx: Context) -> JobView:
    return job_view(ctx, "coopers-rise")


def _record(ctx: Context) -> Any:
    with ctx.reading() as session:
        return load_bundle(session, "coopers-rise").job.record


def _first(ctx: Context) -> str:
    kept = _view(ctx).kept
    assert kept is not None
    return kept.plan.tasks[0].id


def test_a_day_that_breaks_lead_paint_ends_with_its_clean_up(ctx: Context, client: TestClient) -> None:
    kept = _view(ctx).kept
    assert kept is not None
    scraped = next(t for t in kept.plan.tasks if "scrape" in t.steps and t.part == FRONT)
    sheet = f"{RISE}/today?day={scraped.start.astimezone(_view(ctx).bundle.property.tz).date()}"
    words = "HEPA clean-up of sheets, ground and sills"
    page = client.get(sheet).text
    assert "Street front" in page[page.index(words) : page.index(words) + 100]
    submit(client, f"{RISE}/specification/lead", data={"found": "no"})
    assert words not in client.get(sheet).text


def _note(client: TestClient, task: str, said: str, **more: str) -> Any:
    return client.post(f"{RISE}/today/note", data={"task": task, "said": said, **more})


def test_one_touch_notes_a_task_with_who_and_when(ctx: Context, client: TestClient) -> None:
    task = _first(ctx)
    page = _note(client, task, "started", by="Ina")
    assert page.url.path == f"{RISE}/today"
    _note(client, task, "done")
    started, done = _record(ctx)
    assert (started.said, done.said) == (Said.STARTED, Said.DONE)
    assert started.by == done.by == "Ina", "who it was is remembered on the device"
    assert started.at == started.noted == ctx.space.clock.now()
    assert done.steps == ("contain", "cut-back", "fittings-down", "wash")
    assert "Contain: ground sheeted" in done.work
    shown = client.get(f"{RISE}/today").text
    assert "Noted today" in shown
    assert re.search(r"said-done\">done", shown)


def test_what_is_noted_is_not_noted_twice_and_what_is_taken_back_may_be(ctx: Context, client: TestClient) -> None:
    task = _first(ctx)
    for _ in range(3):
        _note(client, task, "done")
    (entry,) = _record(ctx)
    submit(client, f"{RISE}/today/back", data={"touch": entry.touch})
    submit(client, f"{RISE}/today/back", data={"touch": entry.touch})
    assert [e.said for e in _record(ctx)] == [Said.DONE, Said.TAKEN_BACK], "a second tap takes nothing back"
    assert "Noted today" not in client.get(f"{RISE}/today").text
    _note(client, task, "done")
    assert [e.said for e in _record(ctx)] == [Said.DONE, Said.TAKEN_BACK, Said.DONE], "nothing is rubbed out"


def test_a_touch_sent_again_is_entered_once_with_the_time_it_was_made(ctx: Context, client: TestClient) -> None:
    """The answer was lost on the way: the device sends the same touch again, an hour later."""
    task, touch = _first(ctx), "0123456789abcdef0123456789abcdef"
    made = (ctx.space.clock.now() - timedelta(minutes=10)).isoformat()
    _note(client, task, "started", touch=touch, made=made)
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.step(1)
    _note(client, task, "started", touch=touch, made=made)
    (entry,) = _record(ctx)
    assert (entry.touch, entry.at, entry.noted) == (touch, datetime.fromisoformat(made), datetime.fromisoformat(made))
    _note(client, task, "done", touch="0123456789abcdef0123456789abcdee", made="2031-01-01T00:00:00Z")
    assert _record(ctx)[-1].noted == ctx.space.clock.now(), "a clock that runs ahead is not believed"


def test_part_done_counts_from_the_left_and_goes_on_from_there(ctx: Context, client: TestClient) -> None:
    task = _first(ctx)
    _note(client, task, "part-done", how_far="40 %")
    _note(client, task, "part-done", how_far="70")
    _note(client, task, "part-done", how_far="50")
    _note(client, task, "done")
    first, second, last = _record(ctx)
    assert first.how_far == 0.4
    assert (second.extent.left, second.how_far) == (0.4, pytest.approx(0.5))
    assert (last.extent.left, last.said) == (pytest.approx(0.7), Said.DONE)


def test_of_like_items_the_next_part_done_counts_on_from_those_that_are(ctx: Context, client: TestClient) -> None:
    """Three sashes are freed one after the other: a third of them, then two thirds."""
    kept = _view(ctx).kept
    assert kept is not None
    task = next(t for t in kept.plan.tasks if t.item and t.extent is not None and len(t.extent.parts) == 3)
    _note(client, task.id, "part-done", how_far="34")
    _note(client, task.id, "part-done", how_far="67")
    assert task.extent is not None
    first, second = _record(ctx)
    assert (first.extent.parts, first.how_far) == (task.extent.parts, pytest.approx(1 / 3)), "one whole"
    assert (second.extent.parts, second.how_far) == (task.extent.parts[1:], pytest.approx(0.5)), (
        "one more of the two that are left"
    )
    _note(client, task.id, "part-done", how_far="40")
    assert len(_record(ctx)) == 2, "one and a fifth: no third sash whole, nothing new"


WRONG = [
    ({"said": "finished"}, "choose started"),
    ({"said": "not-done", "why": "  "}, "say in a few words why"),
    ({"said": "part-done", "how_far": "all"}, "between 1 and 99"),
    ({"said": "part-done", "how_far": "140"}, "between 1 and 99"),
    ({"said": "done", "at": "yesterday"}, "is not a time"),
    ({"said": "done", "at": "2026-09-14T17:00"}, "still to come"),
    ({"said": "not-done", "why": "x" * 401}, "at most 400 letters"),
]


@pytest.mark.parametrize(("form", "words"), WRONG)
def test_what_cannot_be_is_refused_in_words_and_nothing_is_kept(
    ctx: Context, client: TestClient, form: dict[str, str], words: str
) -> None:
    with unchanged(ctx):
        page = client.post(f"{RISE}/today/note", data={"task": _first(ctx), **form})
    assert page.status_code == 422
    assert words in page.text


@weather
def test_what_is_no_longer_there_is_said_so_and_nothing_is_noted(ctx: Context, client: TestClient) -> None:
    with unchanged(ctx):
        late = _note(client, "gone/step/1", "done")
        assert late.status_code == 422
        assert "made anew meanwhile" in late.text, "planned again in another tab"
        assert "Yes, until" in late.text, "and what is now stands there"
        assert client.post(f"{RISE}/today/back", data={"touch": "nothing"}).status_code == 404
        assert (
            client.post(f"{RISE}/standing/zone/front-siding", data={"step": "polish", "said": "done"}).status_code
            == 404
        )


def test_work_is_noted_and_shown_though_no_weather_can_be_had(ctx: Context, client: TestClient) -> None:
    task = _first(ctx)
    _note(client, task, "done", by="Ina")
    today = client.get(f"{RISE}/today").text
    assert f'name="task" value="{task}"' not in today, "what is done is not offered again"
    assert "Noted today" in today
    assert "Scrape wet what is loose" in today, "and the rest of the day is there"
    here = f"{RISE}/standing/zone/back-siding"
    form = form_of(client.get(here).text, here)
    submit(client, here, data=form | {"step": "wash", "said": "done", "by": "Ole"})
    assert "done, Mon 14 Sep 06:30, Ole" in client.get(here).text


@weather
def test_a_step_is_noted_on_the_parts_page_planned_or_not(ctx: Context, client: TestClient) -> None:
    here = f"{RISE}/standing/zone/west-gable-siding"
    page = client.get(here).text
    assert "Next: Contain: ground sheeted" in page
    form = form_of(page, here)
    earlier = "2026-09-14T06:10"
    submit(client, here, data=form | {"step": "wash", "said": "done", "at": earlier, "by": "Ole"})
    after = client.get(here, headers={"hx-request": "true"}).text
    assert "<html" not in after
    assert "Next: Scrape wet" in after
    assert "Mon 14 Sep 06:10, Ole" in after
    assert "Not noted, though later work was: Contain" in after
    refused = client.post(here, data=form | {"step": "wash", "said": "not-done"})
    assert refused.status_code == 422
    assert "why it is not done" in refused.text


def test_the_record_goes_with_the_job_and_an_older_job_starts_with_nothing_done(
    ctx: Context, client: TestClient
) -> None:
    _note(client, _first(ctx), "done", by="Ina")
    with ctx.reading() as session:
        bundle = load_bundle(session, "coopers-rise")
    text = dump_bundle(bundle)
    assert read_bundle(text, "job.json") == bundle
    older = text.replace('"version": 6', '"version": 5')
    without = re.sub(r'"record": \[.*?\n    \],', "", older, flags=re.S)
    assert read_bundle(without, "older.json").job.record == ()


@weather
def test_planning_again_leaves_out_what_is_done_and_keeps_what_is_under_way(ctx: Context, client: TestClient) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.step(2.5)
    kept = _view(ctx).kept
    assert kept is not None
    first, second = kept.plan.tasks[:2]
    _note(client, first.id, "done")
    _note(client, second.id, "started")
    submit(client, f"{RISE}/plan")
    again = _view(ctx).kept
    assert again is not None
    assert first.id not in {t.id for t in again.plan.tasks}
    assert again.plan.tasks[0].steps == second.steps
    page = client.get(f"{RISE}/plan").text
    assert "under way" in page
    assert "out of date" not in page


def test_the_meter_is_read_from_the_ladder_in_one_tap_with_its_spot(ctx: Context, client: TestClient) -> None:
    surface = {"surface": "zone/east-gable-siding", "spot": "third board, left"}

    def readings() -> Any:
        with ctx.reading() as session:
            place = load_bundle(session, "coopers-rise").property
        return next(z for z in place.zones if z.id == "east-gable-siding").condition.moisture

    before = len(readings())
    submit(client, f"{RISE}/today/reading", data=surface | {"meter": "1"})
    assert len(readings()) == before + 1 and readings()[-1].spot == "third board, left"
    ctx.space.meter = None
    refused = client.post(f"{RISE}/today/reading", data=surface | {"meter": "1"})
    assert refused.status_code == 422 and "no meter is set up" in refused.text
    submit(client, f"{RISE}/today/reading", data=surface | {"pct": "14.5"})
    assert readings()[-1].pct == 14.5


@weather
def test_a_reading_from_the_ladder_is_kept_and_bars_the_coat_everywhere(ctx: Context, client: TestClient) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-16T13:30-03:00"))
    for step in ("cover", "wash"):
        data = {"step": step, "said": "done", "at": "2026-09-14T10:00"}
        submit(client, f"{RISE}/standing/zone/east-gable-siding", data=data)
    submit(client, f"{RISE}/plan")
    reading = {"kind": "zone", "part": "east-gable-siding", "pct": "17"}
    submit(client, f"{RISE}/today/reading", data=reading)
    state = _view(ctx).state
    assert state is not None
    judged = state.judged(("zone", "east-gable-siding"), film=True)
    assert judged is not None
    assert not judged.answer(state.now).ok
    wall = client.get(f"{RISE}/weather?product=coat&face=east-gable").text
    assert "wood read 17 % on Wed 16 Sep 13:30" in wall
    assert "cannot be" in client.get(f"{RISE}/plan").text
    assert client.post(f"{RISE}/today/reading", data=reading | {"pct": "wet"}).status_code == 422
    submit(client, f"{RISE}/today/reading", data=reading | {"pct": "14"})
    assert "wood read 17 %" in client.get(f"{RISE}/weather?product=coat&face=east-gable").text, "the wettest of a day"


def test_a_colour_the_customer_changes_is_kept_in_words_and_named_on_today(ctx: Context, client: TestClient) -> None:
    page = f"{RISE}/specification/zone/front-siding"
    form = form_of(client.get(page).text, f"{page}/colour")
    assert "words" in form, "the job is planned: its customer may be quoted"
    new = {"colour": "#556677", "colour_name": "Harbour slate", "words": "darker, like the neighbour’s"}
    assert client.post(f"{page}/colour", data=form | new).status_code == 200
    with ctx.reading() as session:
        (change,) = load_bundle(session, "coopers-rise").job.changes
    assert (change.what, change.old, change.new) == ("colour", "Pale oat", "Harbour slate")
    assert change.parts == (FRONT,)
    assert change.words == "darker, like the neighbour’s"
    today = client.get(f"{RISE}/today").text
    for words in (
        "Changed by the customer",
        "Pale oat",
        "Harbour slate",
        "darker, like the neighbour",
        "The job changed",
    ):
        assert words in today
    version = form_of(client.get(page).text, f"{page}/leave")
    submit(client, f"{page}/leave", data=version)
    with ctx.reading() as session:
        changes = load_bundle(session, "coopers-rise").job.changes
    assert [c.what for c in changes] == ["colour", "scope"]
    assert changes[1].new == "left as it is"


def test_nothing_is_noted_of_a_job_that_is_still_being_specified(ctx: Context, client: TestClient) -> None:
    page = "/jobs/garden-wall"
    submit(client, "/jobs/import", files={"file": ("job.json", _unplanned(ctx))})
    here = f"{page}/specification/zone/front-siding"
    form = form_of(client.get(here).text, f"{here}/colour")
    submit(client, f"{here}/colour", data=form | {"colour": "#556677", "colour_name": "Harbour slate"})
    with ctx.reading() as session:
        assert load_bundle(session, "garden-wall").job.changes == ()


def _unplanned(ctx: Context) -> str:
    """A copy of the demo's first job without a plan."""
    with ctx.reading() as session:
        bundle = load_bundle(session, "coopers-rise")
    place = bundle.property.model_copy(update={"id": "garden-wall"})
    job = bundle.job.model_copy(update={"id": "garden-wall"})
    return dump_bundle(bundle.model_copy(update={"property": place, "job": job}))


@weather
def test_the_plan_begins_on_the_day_asked_for_with_the_crew_asked_for(ctx: Context, client: TestClient) -> None:
    form = form_of(client.get(f"{RISE}/plan").text, f"{RISE}/plan") | {"crew": "1"}
    asked = {"begins": "2026-09-18", "people": "1", "start": "09:00", "end": "15:30"}
    submit(client, f"{RISE}/plan", data=form | asked)
    kept = _view(ctx).kept
    assert kept is not None
    assert min(t.start.date().isoformat() for t in kept.plan.tasks) >= "2026-09-18"
    hours = [t.start.astimezone(_view(ctx).now.tzinfo) for t in kept.plan.tasks]
    assert min(t.hour + t.minute / 60 for t in hours) >= 9.5, "half an hour of set-up"
    assert _view(ctx).bundle.job.crew.people == 1
    assert "1 person, 09:00–15:30, beginning Fri 18 Sep" in client.get(f"{RISE}/plan").text
    wrong = client.post(f"{RISE}/plan", data=form | asked | {"people": "two", "begins": "soon", "end": "at dusk"})
    assert wrong.status_code == 422
    for words in ("is not a number of people", "is not a day", "is no time of the day"):
        assert words in wrong.text
    late = client.post(f"{RISE}/plan", data=form | asked | {"begins": "2027-06-01"})
    assert late.status_code == 422
    assert "the weather covers" in late.text
    assert _view(ctx).kept == kept, "the plan stays"


@weather
def test_warnings_are_kept_with_the_plan_when_a_forecast_comes_and_by_no_page(ctx: Context, client: TestClient) -> None:
    """Opened by another program they go on from where they were, not from nothing; looking at them writes nothing."""
    assert isinstance(ctx.space.clock, DemoClock)
    seen = []
    for _ in range(12):
        believed = _view(ctx).weather.series
        assert believed is not None
        ctx.space.clock.step(4)
        before = _view(ctx).believing(believed).threats
        age_h = _view(ctx).weather.age_h
        assert age_h is not None and age_h < 1, "the forecast of this hour was asked for"
        kept = _view(ctx)
        with unchanged(ctx):
            shown = {(t.task.id, t.rule) for t in kept.threats}
            assert client.get("/jobs/coopers-rise/plan").status_code == 200
            assert {(t.task.id, t.rule) for t in _view(ctx).threats} == shown, "looking again changes nothing"
        assert kept.kept is not None
        assert set(kept.kept.warned) == {(t.task.id, t.rule) for t in before}, "as it was when the forecast came"
        seen.append(shown)
    assert any(seen)


@pytest.mark.parametrize("who", ["Zoë", "Łukasz", "王芳", "A; b=c", 'Ann "x"'])
def test_who_notes_may_have_any_letters_and_is_known_next_time(client: TestClient, ctx: Context, who: str) -> None:
    """A name that no header can hold is kept too: what is noted before the answer fails would be noted twice."""
    page = client.post(f"{RISE}/today/note", data={"task": _first(ctx), "said": "started", "by": who})
    assert page.status_code == 200
    assert client.post(f"{RISE}/today/note", data={"task": _first(ctx), "said": "done"}).status_code == 200
    assert {e.by for e in _record(ctx)[-2:]} == {who}


@weather
def test_the_test_that_ends_a_wait_is_answered_with_one_touch(ctx: Context, client: TestClient) -> None:
    """The front siding was washed an hour before its scraping is due: that waits until it is dry to see and touch."""
    kept = _view(ctx).kept
    assert kept is not None
    scrape = next(t for t in kept.plan.tasks if "scrape" in t.steps and t.part == FRONT)
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(scrape.start + timedelta(minutes=5))
    panel, sheet = f"{RISE}/standing/zone/front-siding", f"{RISE}/today"
    washed = (scrape.start - timedelta(hours=1)).isoformat()
    for step in ("contain", "wash"):
        submit(client, panel, data={"step": step, "said": "done", "at": washed})
    asked = 'action="/jobs/coopers-rise/today/test"'
    assert "Test: it is dry to see and touch?" in client.get(panel, headers={"hx-request": "true"}).text
    assert asked in client.get(sheet).text, "asked on Today too"
    answer = {"kind": "zone", "part": "front-siding", "step": "wash"}
    submit(client, f"{sheet}/test", data=answer | {"said": "not-ready"})
    assert asked in client.get(sheet).text, "not yet: it waits on"
    for _ in (1, 2):
        submit(client, f"{sheet}/test", data=answer | {"said": "tested", "touch": "0123456789abcdef0123456789abcdef"})
    assert asked not in client.get(sheet).text
    assert "Test:" not in client.get(panel, headers={"hx-request": "true"}).text
    assert [e.said for e in _record(ctx)][-2:] == [Said.NOT_READY, Said.TESTED]
    wrong = client.post(f"{sheet}/test", data=answer | {"part": "nowhere", "said": "tested"})
    assert wrong.status_code == 404
