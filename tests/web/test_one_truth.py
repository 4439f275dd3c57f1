"""What Today shows as now or next has one answer: Weather, Plan, the part's page and the strip of sky give the same,
with the same times and reason, whatever was ticked, metered, recoloured and planned again on the way there."""

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from html import unescape
from pathlib import Path
from tempfile import TemporaryDirectory

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from amber_gable.core.state.job_state import TaskState
from amber_gable.core.state.progress import progress
from amber_gable.core.state.task_status import Status
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.forecast import ForecastProvider
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import JobView, job_view
from amber_gable.store.backup import back_up
from tests.clients import submit, visit
from tests.fixtures import StandIn, open_space
from tests.web.forms import form_of

JOBS = ("coopers-rise", "net-loft", "quarry-lane", "heron-deck", "feed-barn")
HOURS = 14 * 24
PANEL = {"hx-request": "true"}
"""Only the answer, without the lanes."""


class OneForecast:
    """The forecast of Monday morning for all hours: what differs then is what was done."""

    known: dict[tuple[float, float], WeatherSeries] = {}  # noqa: RUF012

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        place = (latitude, longitude)
        if place not in self.known:
            self.known[place] = StandIn().forecast(
                latitude, longitude, datetime.fromisoformat("2026-09-14T06:30-03:00")
            )
        return self.known[place]


@contextmanager
def demo(demo_file: Path, provider: ForecastProvider) -> Iterator[Context]:
    with TemporaryDirectory() as folder:
        back_up(demo_file, Path(folder) / "demo.sqlite3")
        ctx = open_space(Path(folder) / "demo.sqlite3")
        ctx.space.provider = provider
        yield ctx
        ctx.space.database.engine.dispose()


# A move is a word and a number that says which of those there are.
Move = tuple[str, int]
MOVES = st.lists(
    st.tuples(
        st.sampled_from(["done", "done", "done", "started", "part-done", "not-done", "back", "wet", "dry", "colour",
                         "plan", "hours", "hours"]),
        st.integers(0, 30),
    ),
    min_size=2,
    max_size=7,
)  # fmt: skip


def _note(client: TestClient, view: JobView, said: str, which: int) -> None:
    board = view.board
    assert board is not None
    tasks = [t for t in (board.now, board.next, *board.open) if t is not None]
    if tasks:
        data = {"task": tasks[which % min(len(tasks), 4)].task.id, "said": said, "how_far": "40", "why": "ran short"}
        assert client.post(f"/jobs/{view.bundle.job.id}/today/note", data=data).status_code == 200


def _back(client: TestClient, view: JobView, which: int) -> None:
    record = view.bundle.job.record
    if record:
        data = {"touch": record[which % len(record)].touch}
        submit(client, f"/jobs/{view.bundle.job.id}/today/back", data=data)


def _meter(client: TestClient, view: JobView, pct: str, which: int) -> None:
    zones = view.bundle.property.zones
    data = {"kind": "zone", "part": zones[which % len(zones)].id, "pct": pct}
    submit(client, f"/jobs/{view.bundle.job.id}/today/reading", data=data)


def _colour(client: TestClient, view: JobView, which: int) -> None:
    finishes = view.bundle.job.finishes
    kind, id_ = finishes[which % len(finishes)].part
    page = f"/jobs/{view.bundle.job.id}/specification/{kind}/{id_}"
    form = form_of(client.get(page).text, f"{page}/colour")
    submit(client, f"{page}/colour", data=form | {"colour": "#d8d2c4", "colour_name": "Another white"})


def make(client: TestClient, ctx: Context, job: str, move: Move) -> None:
    word, which = move
    view = job_view(ctx, job)
    assert isinstance(ctx.space.clock, DemoClock)
    acts: dict[str, Callable[[], object]] = {
        "back": lambda: _back(client, view, which),
        "wet": lambda: _meter(client, view, "17", which),
        "dry": lambda: _meter(client, view, "13", which),
        "colour": lambda: _colour(client, view, which),
        "plan": lambda: client.post(f"/jobs/{job}/plan"),
        "hours": lambda: ctx.space.clock.step(1 + which % 9),
    }
    acts.get(word, lambda: _note(client, view, word, which))()


def _found(pattern: str, page: str) -> str | None:
    match = re.search(pattern, page, re.DOTALL)
    return unescape(re.sub(r"\s+", " ", match[1])).strip() if match else None


def _forbidden(state: TaskState, view: JobView) -> list[str]:
    """Why the parts of a task forbid it at this moment, asked of each of its stretches anew."""
    assert view.state is not None
    out = []
    for key in state.task.extent.parts if state.task.extent else ():
        part = view.state.parts[key]
        for cell in part.cells:
            if cell.next is None or not {o.id for o in cell.next.operations} & set(state.steps):
                continue
            out += [w.words for w in cell.waits if w.until is None or w.until > view.now]
    return out


def one_truth(client: TestClient, ctx: Context, job: str) -> None:
    """Every page's answer for what Today shows as now and next."""
    view = job_view(ctx, job)
    board = view.board
    if board is None:
        return
    today = client.get(f"/jobs/{job}/today").text
    plan = client.get(f"/jobs/{job}/plan").text
    for kind, state in (("now", board.now), ("next", board.next)):
        # What comes next stands first where nothing is now.
        style = "now first" if kind == "next" and board.now is None else f"{kind} "
        card = rf'<section data-task="([^"]+)" class="work-card {style}'
        if state is None:
            assert kind == "next" or not re.search('class="work-card now (?!first)', today)
            continue
        task = state.task
        assert _found(card, today) == task.id
        assert state.answer is not None
        asked = {"task": task.id}
        weather = client.get(f"/jobs/{job}/weather", params=asked, headers=PANEL).text
        asked["at"] = state.answer.at.isoformat()
        at_that = client.get(f"/jobs/{job}/weather", params=asked, headers=PANEL).text
        shown = _found(r'<p class="answer [a-z]+">(.*?)</p>', at_that)
        if kind == "now":
            assert state.status is Status.RUNNING or state.workable
            assert state.status is Status.RUNNING or not _forbidden(state, view)
            headline = _found(r'<p class="work-answer [a-z]+">(.*?)</p>', today)
            assert headline == _found(r'<p class="answer [a-z]+">(.*?)</p>', weather) == shown
            _same_on_the_parts_page(client, view, state, headline)
            if task.kind.lays_film and state.workable and not _another_film_today(view, state):
                said = _found(r'Last stroke today</span> <span class="reading">(.*?)</span>', today)
                assert headline == f"Yes, until {said}"
            assert rf">{task.operation}" in unescape(plan) or task.operation[:20] in unescape(plan)
        elif state.status is Status.AHEAD and state.workable:
            assert shown is not None
            assert shown.startswith("Yes"), "as planned, it may be done when its time comes"


def _another_film_today(view: JobView, state: TaskState) -> bool:
    """Whether a film may be laid later today: the last stroke is that of the day's last one."""
    assert view.board is not None
    later = (t for t in view.board.open if t.task.kind.lays_film and t.workable and t is not state)
    return any(t.task.start.astimezone(view.now.tzinfo).date() == view.now.date() for t in later)


def _same_on_the_parts_page(client: TestClient, view: JobView, state: TaskState, headline: str | None) -> None:
    """Where the task is the next thing on its stretch, the part's page says of it what Today says."""
    if state.judged is None:
        return
    kind, id_ = state.judged.state.part.key
    cell = state.judged.cell
    if cell.next is None or tuple(o.id for o in cell.next.operations) != state.steps:
        return
    page = client.get(f"/jobs/{view.bundle.job.id}/standing/{kind}/{id_}", headers=PANEL).text
    answers = re.findall(r'<p class="work-answer small [a-z]+">(.*?)</p>', page, re.DOTALL)
    assert headline in [unescape(a).strip() for a in answers]


def nothing_comes_back(client: TestClient, ctx: Context, job: str) -> None:
    """Planned again nothing is planned that was done, and planned twice it is the same plan."""
    plans: list[Plan] = []
    for _ in range(2):
        submit(client, f"/jobs/{job}/plan")
        kept = job_view(ctx, job).kept
        assert kept is not None
        plans.append(kept.plan)
    assert plans[0] == plans[1]
    done = progress(job_view(ctx, job).bundle.job.record)
    for task in plans[0].tasks:
        assert task.extent is not None
        for key in task.extent.parts:
            for step in task.steps:
                found = done.get((key, step))
                over = (
                    [p for p in found.done if p.left < task.extent.right - 1e-6 and p.right > task.extent.left + 1e-6]
                    if found
                    else []
                )
                assert not over, (task.id, step)


def _walk(app: FastAPI, demo_file: Path, job: str, hour: int, moves: list[Move], provider: ForecastProvider) -> None:
    with demo(demo_file, provider) as ctx, visit(app, ctx) as client:
        assert isinstance(ctx.space.clock, DemoClock)
        ctx.space.clock.step(hour)
        for move in moves:
            make(client, ctx, job, move)
        one_truth(client, ctx, job)
        nothing_comes_back(client, ctx, job)
        one_truth(client, ctx, job)


@given(st.sampled_from(JOBS), st.integers(0, 76), MOVES)
@settings(
    max_examples=6,
    phases=[Phase.generate],
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
def test_every_page_gives_the_same_answer(
    app: FastAPI, demo_file: Path, job: str, hour: int, moves: list[Move]
) -> None:
    _walk(app, demo_file, job, hour, moves, OneForecast())


@pytest.mark.long
@pytest.mark.parametrize("job", JOBS)
def test_every_hour_of_two_weeks_gives_the_same_answer(app: FastAPI, demo_file: Path, job: str) -> None:
    """Hour by hour with the forecasts of each hour, planned again every evening, ticked as planned."""
    with demo(demo_file, StandIn()) as ctx, visit(app, ctx) as client:
        assert isinstance(ctx.space.clock, DemoClock)
        for hour in range(HOURS):
            view = job_view(ctx, job)
            late = view.board.late if view.board is not None else []
            for state in late[:: 2 if hour % 3 else 1]:
                submit(client, f"/jobs/{job}/today/note", data={"task": state.task.id, "said": "done"})
            if view.now.hour == 19:
                nothing_comes_back(client, ctx, job)
            one_truth(client, ctx, job)
            ctx.space.clock.step(1)
