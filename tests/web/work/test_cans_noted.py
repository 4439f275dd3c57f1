"""A can that is used up, or what is left in it, said on the ladder in two taps."""

import re
from datetime import datetime

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.site_record import CanNoted
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.today.cans import Cans
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

TODAY = "/jobs/coopers-rise/today"
pytestmark = [pytest.mark.usefixtures("indoors"), pytest.mark.weather]


@pytest.fixture(autouse=True)
def _at_work(ctx: Context) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-16T09:40-03:00"))


def _coat(ctx: Context) -> str:
    board = job_view(ctx, "coopers-rise").board
    assert board is not None
    return next(s.task.id for s in board.tasks if s.task.steps[0] == "coat-1" and s.task.litres)


def _number(ctx: Context, task: str) -> int | None:
    view = job_view(ctx, "coopers-rise")
    assert view.board is not None
    return Cans(view).number(next(s.task for s in view.board.tasks if s.task.id == task))


def _noted(ctx: Context) -> tuple[CanNoted, ...]:
    with ctx.reading() as session:
        return load_bundle(session, "coopers-rise").job.cans_noted


def test_a_can_that_is_used_up_is_followed_by_the_next_and_taken_back(ctx: Context, client: TestClient) -> None:
    task = _coat(ctx)
    assert _number(ctx, task) == 1
    submit(client, f"{TODAY}/can", data={"task": task, "empty": "1", "left": "3"})
    (can,) = _noted(ctx)
    assert (can.number, can.left_l) == (1, 0.0) and _number(ctx, task) == 2
    page = client.get(TODAY).text
    assert re.search(r"Can 1 of [^<]+: used up", page)
    submit(client, f"{TODAY}/back", data={"touch": can.touch})
    assert _number(ctx, task) == 1


def test_a_touch_that_is_sent_again_empties_no_second_can(ctx: Context, client: TestClient) -> None:
    told = {"task": _coat(ctx), "empty": "1", "touch": "0123456789abcdef0123456789abcdef"}
    for _ in range(2):
        submit(client, f"{TODAY}/can", data=told)
    assert [c.number for c in _noted(ctx)] == [1]


def test_what_is_left_decides_how_far_the_can_goes(ctx: Context, client: TestClient) -> None:
    task = _coat(ctx)
    submit(client, f"{TODAY}/can", data={"task": task, "left": "0.5"})
    view = job_view(ctx, "coopers-rise")
    assert view.board is not None
    coat = next(s.task for s in view.board.tasks if s.task.id == task)
    alike = [s.task for s in view.board.tasks if (s.task.product, s.task.colour) == (coat.product, coat.colour)]
    after = alike[alike.index(coat) + 1]
    assert (Cans(view).number(coat), Cans(view).number(after)) == (1, 2), "half a litre does not do for the wall"


WRONG = [
    ({"left": ""}, "say how much is left"),
    ({"left": "much"}, "much"),
    ({"left": "900"}, "the can holds"),
    ({"task": "nothing", "empty": "1"}, "nothing was bought for that work"),
]


def test_what_cannot_be_left_is_refused(ctx: Context, client: TestClient) -> None:
    task = _coat(ctx)
    for told, words in WRONG:
        answer = client.post(f"{TODAY}/can", data={"task": task} | told)
        assert answer.status_code == 422 and words in answer.text, words
    assert not _noted(ctx)
