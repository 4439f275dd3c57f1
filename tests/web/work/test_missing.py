"""Somebody is missing: noted in one tap on Today, taken back like any touch, and planned without."""

from collections import defaultdict
from datetime import date

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.services.plan.planning import KeptPlan, kept_plan
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

pytestmark = pytest.mark.weather
LANE = "/jobs/quarry-lane"
MONDAY = "2026-09-14"


def _bundle(ctx: Context) -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, "quarry-lane")


def _kept(ctx: Context) -> KeptPlan:
    kept = kept_plan(ctx, _bundle(ctx))
    assert kept is not None
    return kept


def _most_at_work(kept: KeptPlan) -> dict[str, int]:
    """The most people at work at once, by day."""
    most: dict[str, int] = defaultdict(int)
    for task in kept.plan.tasks:
        at_work = sum(t.people or 0 for t in kept.plan.tasks if t.start <= task.start < t.end)
        day = task.start.date().isoformat()
        most[day] = max(most[day], at_work)
    return most


def test_one_is_missing_and_the_new_plan_does_without(ctx: Context, client: TestClient) -> None:
    assert "<b>2</b> people today" in " ".join(client.get(f"{LANE}/today").text.split())
    assert _most_at_work(_kept(ctx))[MONDAY] == 2
    for _ in range(2):
        page = " ".join(client.post(f"{LANE}/today/missing", data={"on": MONDAY, "people": "1"}).text.split())
    assert "<b>1</b> of 2 people today" in page and "1 of the crew is missing on Mon 14 Sep" in page
    assert _bundle(ctx).missing_on == {date(2026, 9, 14): 1} and len(_bundle(ctx).job.missing) == 1
    assert _kept(ctx).job_changed and "The job changed since the plan was made" in page
    submit(client, f"{LANE}/plan")
    run = ctx.space.runner.latest("plan/quarry-lane")
    assert run is not None and run.wait(60)
    most = _most_at_work(_kept(ctx))
    assert most[MONDAY] == 1 and max(most.values()) == 2 and not _kept(ctx).out_of_date


def test_it_is_taken_back_and_the_plan_holds_again(ctx: Context, client: TestClient) -> None:
    submit(client, f"{LANE}/today/missing", data={"on": MONDAY, "people": "1"})
    (line,) = _bundle(ctx).job.missing
    submit(client, f"{LANE}/today/back", data={"touch": line.touch})
    assert not _kept(ctx).out_of_date and _bundle(ctx).missing_on == {}
    submit(client, f"{LANE}/today/missing", data={"on": MONDAY, "people": "2"})
    submit(client, f"{LANE}/today/missing", data={"on": MONDAY, "people": "0"})
    assert not _kept(ctx).out_of_date and len(_bundle(ctx).job.missing) == 3, "nothing is rubbed out"


def test_a_day_without_anybody_is_a_day_off(ctx: Context, client: TestClient) -> None:
    submit(client, f"{LANE}/today/missing", data={"on": MONDAY, "people": "2"})
    submit(client, f"{LANE}/plan")
    run = ctx.space.runner.latest("plan/quarry-lane")
    assert run is not None and run.wait(60)
    tasks = _kept(ctx).plan.tasks
    assert tasks and min(t.start for t in tasks).date() > date(2026, 9, 14)


WRONG = [
    ({"on": MONDAY}, "is needed"),
    ({"people": "1"}, "is needed"),
    ({"on": "Monday", "people": "1"}, "is not a day"),
    ({"on": MONDAY, "people": "3"}, "the crew is 2"),
    ({"on": MONDAY, "people": "x"}, "is not a number of people"),
]


def test_what_cannot_be_is_refused_in_words(ctx: Context, client: TestClient) -> None:
    for told, words in WRONG:
        answer = client.post(f"{LANE}/today/missing", data=told)
        assert answer.status_code == 422 and words in answer.text, words
    assert not _bundle(ctx).job.missing


def test_it_goes_out_with_the_job_and_comes_back(ctx: Context, client: TestClient) -> None:
    submit(client, f"{LANE}/today/missing", data={"on": MONDAY, "people": "1"})
    bundle = _bundle(ctx)
    assert JobBundle.model_validate_json(bundle.model_dump_json()).missing_on == bundle.missing_on
