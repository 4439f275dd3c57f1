"""Long work beside the pages: one run of the same work, stopped within a second, told of when it fails, gone without a
trace; and pages that show how far it is instead of waiting."""

import gc
import logging
import re
import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import date
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.errors import InputError
from amber_gable.domain.progress import Progress, unseen, within
from amber_gable.services.computed import Computed
from amber_gable.services.context import Context
from amber_gable.services.plan import long_runs
from amber_gable.services.plan.long_runs import ClimateWork, PlanWork
from amber_gable.services.plan.planning import kept_plan, make_plan
from amber_gable.services.runs.run import Run, RunState
from amber_gable.services.runs.runner import KEPT, Runner
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

PATIENCE_S = 60
PLAN = "/jobs/coopers-rise/plan"


@dataclass(frozen=True)
class Work:
    """Made work: what it does is given by hand, and is no part of what it is."""

    key: str
    does: str = ""
    back: str = "/"
    when_stopped: str = "/runs"

    def title(self, ctx: Any) -> str:
        return f"work of {self.key}"

    def do(self, ctx: Any, progress: Progress) -> None:
        ctx.space[self.does or self.key](progress)


NOBODY = Context(None)  # type: ignore[arg-type]


def _runner(at_once: int = 2, **does: Callable[[Progress], None]) -> Runner:
    return Runner(does, at_once=at_once)  # type: ignore[arg-type]


class Gate:
    """Work that goes on, telling how far it is, until it is let go or stopped."""

    def __init__(self) -> None:
        self.begun, self.go, self.calls = threading.Event(), threading.Event(), 0

    def __call__(self, progress: Progress) -> None:
        while not self.go.wait(0.005):
            self.calls += 1
            progress(0.4, "4 of 10 steps placed")
            self.begun.set()


@pytest.fixture
def gate() -> Iterator[Gate]:
    made = Gate()
    yield made
    made.go.set()


def test_the_same_work_is_one_run_and_other_work_of_its_key_takes_its_place(gate: Gate) -> None:
    runner = _runner(gate=gate, quick=lambda told: told(0.5, "half"))
    first = runner.submit(NOBODY, Work("plan", "gate"))
    assert gate.begun.wait(PATIENCE_S)
    assert runner.submit(NOBODY, Work("plan", "gate")) is first
    assert (first.state, first.percent, first.words) == (RunState.RUNNING, 40, "4 of 10 steps placed")
    other = runner.submit(NOBODY, Work("plan", "quick"))
    assert other.wait(PATIENCE_S) and first.wait(PATIENCE_S)
    assert (first.state, other.state, other.share) == (RunState.STOPPED, RunState.DONE, 1.0)
    assert runner.latest("plan") in (first, other) and runner.active == []
    assert runner.submit(NOBODY, Work("plan", "quick")) is not other, (
        "what is over is done anew when it is asked for again"
    )


def test_only_so_many_run_at_once_and_what_waits_can_be_stopped(gate: Gate) -> None:
    done: list[str] = []
    runner = _runner(1, gate=gate, a=lambda _: done.append("a"), b=lambda _: done.append("b"))
    runner.submit(NOBODY, Work("gate"))
    assert gate.begun.wait(PATIENCE_S)
    a, b = runner.submit(NOBODY, Work("a")), runner.submit(NOBODY, Work("b"))
    assert (a.state, b.state) == (RunState.WAITING, RunState.WAITING)
    assert [r.work.key for r in runner.active] == ["b", "a", "gate"]
    runner.stop(a.id)
    assert a.state is RunState.STOPPED
    gate.go.set()
    assert b.wait(PATIENCE_S) and done == ["b"], "what was stopped never began"
    assert runner.stop("nothing") is None


def test_what_is_stopped_works_no_more(gate: Gate) -> None:
    runner = _runner(gate=gate)
    run = runner.submit(NOBODY, Work("gate"))
    assert gate.begun.wait(PATIENCE_S)
    (thread,) = (t for t in threading.enumerate() if t.name == "run gate")
    runner.stop(run.id)
    assert run.wait(PATIENCE_S)
    assert run.state is RunState.STOPPED and run.untold and run.share == 0.4
    thread.join(PATIENCE_S)
    assert not thread.is_alive(), "its processor time falls to nothing"


def test_work_that_fails_says_why_and_a_fault_has_a_number_in_the_log(caplog: pytest.LogCaptureFixture) -> None:
    def refused(progress: Progress) -> None:
        raise InputError("plan", "there is no weather", "bring some")

    def broken(progress: Progress) -> None:
        raise ZeroDivisionError("a bug")

    runner = _runner(refused=refused, broken=broken)
    known, fault = runner.submit(NOBODY, Work("refused")), runner.submit(NOBODY, Work("broken"))
    assert known.wait(PATIENCE_S) and fault.wait(PATIENCE_S)
    assert known.trouble == "plan: there is no weather; bring some"
    number = re.search(r"number ([0-9a-f]{8})$", fault.trouble)
    logged = [r for r in caplog.records if r.levelno == logging.ERROR]
    assert number and len(logged) == 1 and number[1] in logged[0].getMessage()
    assert logged[0].exc_info and isinstance(logged[0].exc_info[1], ZeroDivisionError)
    assert known.state is fault.state is RunState.FAILED


def test_an_executor_that_cannot_begin_is_a_failure_of_the_run() -> None:
    class Away:
        def begin(self, run: Run, ended: object) -> None:
            raise ConnectionError("the other machine is away")

    run = Runner({}, Away()).submit(NOBODY, Work("far"))  # type: ignore[arg-type]
    assert run.wait(0) and run.state is RunState.FAILED


def test_a_thousand_runs_leave_nothing_behind() -> None:
    before = threading.active_count()
    runner = _runner(quick=lambda told: told(0.5, "half"))
    runs = [runner.submit(NOBODY, Work(f"quick {n}", "quick")) for n in range(1000)]
    assert all(r.wait(PATIENCE_S) for r in runs)
    for thread in threading.enumerate():
        if thread.name.startswith("run "):
            thread.join(PATIENCE_S)
    assert threading.active_count() <= before
    assert {r.state for r in runs} == {RunState.DONE}
    assert len(runner.runs()) == KEPT and runner.active == []
    del runs
    gc.collect()
    assert sum(type(o) is Run for o in gc.get_objects()) <= KEPT + 20, "and no memory"


def test_a_part_of_the_work_tells_its_share_of_the_whole() -> None:
    told: list[tuple[float, str]] = []
    part = within(within(lambda *said: told.append(said), 0.2, 1.0), 0.5, 1.0)
    part(0.0, "begins")
    part(1.0, "ends")
    assert told == [(pytest.approx(0.6), "begins"), (1.0, "ends")]


@pytest.fixture
def hurried(ctx: Context) -> Iterator[Context]:
    """Pages wait for nothing."""
    ctx.space.runner.patience = 0
    yield ctx
    for run in ctx.space.runner.active:
        run.stop()
        run.wait(PATIENCE_S)


@pytest.fixture
def slow_plan(monkeypatch: pytest.MonkeyPatch, gate: Gate) -> Gate:
    """Planning that waits, before it plans, until it is let go."""

    def slowly(ctx: Any, bundle: Any, series: Any, begins: date | None, progress: Progress) -> None:
        gate(progress)
        make_plan(ctx, bundle, series, begins, progress)

    monkeypatch.setattr(long_runs, "make_plan", slowly)
    return gate


def _planned_at(ctx: Context) -> int:
    with ctx.reading() as session:
        bundle = load_bundle(session, "coopers-rise")
    kept = kept_plan(ctx, bundle)
    assert kept is not None
    return kept.planned_at


def test_a_plan_that_takes_long_shows_how_far_it_is_and_then_itself(
    hurried: Context, slow_plan: Gate, client: TestClient
) -> None:
    before = _planned_at(hurried)
    submit(client, "/clock", data={"hours": "1"})
    page = client.post(PLAN)
    assert page.url.path == PLAN and slow_plan.begun.wait(PATIENCE_S)
    text = client.get(PLAN).text
    assert "Plan of 14 Cooper&#39;s Rise" in text and "4 of 10 steps placed" in text
    assert 'http-equiv="refresh"' in text, "without scripts the page comes anew by itself"
    assert "Being planned</button>" in text and _planned_at(hurried) == before
    assert "1</b> under way" in client.get("/jobs/coopers-rise/today").text
    listed = client.get("/runs").text
    assert "Under way (1)" in listed and "4 of 10 steps placed" in listed
    (run,) = hurried.space.runner.active
    part = client.get(f"/runs/{run.id}", headers={"hx-request": "true"}).text
    assert 'data-state="running" data-percent="40"' in part and "<html" not in part
    submit(client, PLAN)
    assert hurried.space.runner.active == [run], "asked for twice, planned once"
    crew = {"crew": "1", "people": "3", "start": "07:00", "end": "16:00"}
    submit(client, PLAN, data=crew)
    assert run.wait(PATIENCE_S) and run.state is RunState.STOPPED, "another crew wants another plan"
    (run,) = hurried.space.runner.active
    slow_plan.go.set()
    assert run.wait(PATIENCE_S)
    text = client.get(PLAN).text
    assert "steps placed" not in text and 'http-equiv="refresh"' not in text and "Plan again<" in text
    assert _planned_at(hurried) == before + 3600
    assert client.get(f"/runs/{run.id}").url.path == PLAN
    assert "under way" not in client.get("/jobs/coopers-rise/today").text
    assert "Plan of 14 Cooper" in client.get("/runs").text, "what ended is still listed"


def test_a_plan_that_is_stopped_leaves_the_old_one(hurried: Context, slow_plan: Gate, client: TestClient) -> None:
    before = _planned_at(hurried)
    submit(client, "/clock", data={"hours": "1"})
    submit(client, PLAN)
    (run,) = hurried.space.runner.active
    assert slow_plan.begun.wait(PATIENCE_S)
    page = client.post(f"/runs/{run.id}/stop")
    assert run.wait(PATIENCE_S) and page.url.path == PLAN
    assert ClimateWork("coopers-rise").when_stopped == "/runs", "its page would begin it anew"
    assert "Planning was stopped. The plan is as it was." in client.get(PLAN).text
    assert _planned_at(hurried) == before
    assert client.get("/runs/nothing").status_code == 404


def test_a_plan_that_fails_says_so_on_its_page(
    hurried: Context, client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> None:
        raise ZeroDivisionError("a bug")

    monkeypatch.setattr(long_runs, "make_plan", broken)
    before = _planned_at(hurried)
    submit(client, PLAN)
    found = hurried.space.runner.latest("plan/coopers-rise")
    assert found is not None and found.wait(PATIENCE_S)
    text = client.get(PLAN).text
    assert re.search(r"Not planned: something went wrong in the program; .* number [0-9a-f]{8}\.", text)
    assert _planned_at(hurried) == before and "ZeroDivisionError" not in text


def test_a_real_plan_is_stopped_between_two_steps(ctx: Context) -> None:
    """The planner itself hears it: after the first step that it places nothing more is worked out or kept."""
    before, told = _planned_at(ctx), list[str]()
    ctx.space.clock.step(1)  # type: ignore[union-attr]
    run = Run(PlanWork("coopers-rise"), "plan")

    def until_a_step(share: float, words: str) -> None:
        told.append(words)
        if words.startswith("1 of") and words.endswith("steps placed"):
            run.stop()
        run.progress(share, words)

    with pytest.raises(Exception) as ended:
        run.work.do(ctx, until_a_step)
    run.end(ended.value)
    assert run.state is RunState.STOPPED and told[-1].endswith("steps placed") and told[-1].startswith("1 of")
    assert any("parts cut into steps" in words for words in told)
    assert _planned_at(ctx) == before


def test_the_first_climate_of_a_large_job_does_not_hold_its_page(
    hurried: Context, gate: Gate, client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    computing = long_runs.job_climate

    def slowly(*given: Any, progress: Progress = unseen) -> Any:
        if progress is not unseen:
            gate(progress)
        return computing(*given, progress=progress)

    monkeypatch.setattr(long_runs, "job_climate", slowly)
    monkeypatch.setattr(long_runs, "LARGE", 1)
    monkeypatch.setattr(hurried.space, "computed", Computed())
    page = client.get("/jobs/coopers-rise/weather")
    assert page.status_code == 202
    assert "Being worked out" in page.text and "Climate of 14 Cooper&#39;s Rise" in page.text
    assert client.get("/jobs/coopers-rise/survey").status_code == 200, "a page without weather needs none of it"
    (run,) = hurried.space.runner.active
    told = client.get("/jobs/coopers-rise/today", headers={"accept": "application/json"})
    assert told.status_code == 503 and told.json()["title"] == "Still being worked out"
    strip = client.get("/jobs/coopers-rise/sky", headers={"hx-request": "true"})
    assert strip.status_code == 200 and "Dew point" in strip.text, "what a page fetches waits for it"
    gate.go.set()
    assert run.wait(PATIENCE_S)
    monkeypatch.setattr(hurried.space.runner, "patience", PATIENCE_S)
    assert client.get("/jobs/coopers-rise/weather").status_code == 200
