"""A task is done by one rule, whether the weather is known or not."""

from datetime import datetime
from typing import Any

import pytest

from amber_gable.core.plan.build import plan_job
from amber_gable.core.state.job_state import board
from amber_gable.core.state.task_status import Status
from amber_gable.domain.job.plan import Plan
from amber_gable.services.today.standing import tasks_by_record
from tests.site_cases import at, record, site_of, state_of, wall

SEVEN = at(0, "07:00")
# what is noted, when it is asked, and how wash, scrape, prime, caulk and two coats then stand
CASES: list[tuple[str, list[Any], datetime, str]] = [
    ("nothing, early", [], at(0, "07:00"), "ahead ahead ahead ahead ahead ahead"),
    ("nothing, while the wash is due", [], at(0, "07:31"), "due ahead ahead ahead ahead ahead"),
    ("the wash forgotten", [], at(0, "11:00"), "late ahead ahead ahead ahead ahead"),
    ("washed", [("done", "wash", SEVEN)], at(0, "11:00"), "done ahead ahead ahead ahead ahead"),
    ("begun", [("started", "wash", SEVEN)], at(0, "11:00"), "running ahead ahead ahead ahead ahead"),
    ("passed over: primed, and nobody noted wash and scraping", [("done", "prime", SEVEN)], at(0, "11:00"),
     "done done done ahead ahead ahead"),
    ("scraping reopened", [("done", "wash scrape prime", SEVEN), ("not-done", "scrape", SEVEN, {"why": "missed"})],
     at(0, "11:00"), "done late done ahead ahead ahead"),
    ("half", [("part-done", "wash", SEVEN, {"how_far": 0.5})], at(0, "11:00"), "late ahead ahead ahead ahead ahead"),
]  # fmt: skip


@pytest.mark.parametrize(("lines", "now", "expected"), [c[1:] for c in CASES], ids=[c[0] for c in CASES])
def test_tasks_stand_alike_with_weather_and_without(lines: list[Any], now: datetime, expected: str) -> None:
    bundle = wall()
    plan = plan_job(site_of(bundle, SEVEN), SEVEN)
    # The scraping planned for the morning, so that its time is over where the case asks for that.
    tasks = [t.model_copy(update={"start": at(0, "08:00"), "end": at(0, "10:00")}) if "scrape" in t.steps else t
             for t in plan.tasks] if "late done" in expected else list(plan.tasks)  # fmt: skip
    plan = Plan(tasks=tuple(tasks))
    noted = bundle.model_copy(update={"job": bundle.job.model_copy(update={"record": record(*lines)})})
    with_weather = board(state_of(noted, now, plan=plan), plan).tasks
    without = tasks_by_record(noted, plan, now)
    assert [t.status.value for t in without] == expected.split()
    assert [t.status for t in with_weather] == [t.status for t in without]


def test_a_task_of_a_part_that_is_gone_is_gone_either_way() -> None:
    bundle = wall()
    plan = plan_job(site_of(bundle, SEVEN), SEVEN)
    bare = bundle.model_copy(update={"job": bundle.job.model_copy(update={"finishes": ()})})
    assert {t.status for t in tasks_by_record(bare, plan, SEVEN)} == {Status.GONE}
