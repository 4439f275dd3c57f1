"""Fewer days are looked for beside the pages: what is found takes the plan's place, unless the job moved on."""

import re
from collections.abc import Callable
from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.plan import Found, Plan
from amber_gable.domain.progress import Progress
from amber_gable.services.context import Context
from amber_gable.services.plan import long_runs
from amber_gable.services.plan.long_runs import FewerDays
from amber_gable.services.plan.planning import KeptPlan, kept_plan
from amber_gable.services.plan.solver import Asked
from amber_gable.services.runs.run import Run, RunState
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

pytestmark = pytest.mark.weather
LANE = "/jobs/quarry-lane"
PATIENCE_S = 90


def _kept(ctx: Context) -> KeptPlan:
    with ctx.reading() as session:
        bundle = load_bundle(session, "quarry-lane")
    kept = kept_plan(ctx, bundle)
    assert kept is not None
    return kept


def _run(ctx: Context) -> Run:
    run = ctx.space.runner.submit(ctx, FewerDays("quarry-lane"))
    assert run.wait(PATIENCE_S)
    return run


def test_fewer_days_are_found_proven_and_shown(ctx: Context, client: TestClient) -> None:
    first = _kept(ctx).plan
    assert "Earliest first" in client.get(f"{LANE}/plan").text
    ctx.space.runner.patience = 0.05
    page = client.post(f"{LANE}/plan/fewer-days").text
    assert "Fewer days for Quarry Lane" in page and "Stop" in page
    run = ctx.space.runner.latest("fewer-days/quarry-lane")
    assert run is not None and run.wait(PATIENCE_S) and run.state is RunState.DONE, run.trouble
    plan = _kept(ctx).plan
    assert plan.found is not None and plan.found.status == "optimal"
    assert plan.site_days < first.site_days and {t.id for t in plan.tasks} >= {t.id for t in first.tasks}
    page = client.get(f"{LANE}/plan").text
    assert "Proven:" in page and "Look for fewer days" not in page and re.search(r"<b>1</b> of 2", page)
    assert client.get(f"{LANE}/today").status_code == 200 and client.get("/").status_code == 200


def test_it_is_stopped_within_a_second_and_leaves_the_plan(ctx: Context, client: TestClient) -> None:
    before = _kept(ctx).plan
    run = ctx.space.runner.submit(ctx, FewerDays("quarry-lane"))
    assert not run.wait(0.3)
    submit(client, f"/runs/{run.id}/stop")
    assert run.wait(1.0) and run.state is RunState.STOPPED
    assert _kept(ctx).plan == before
    assert "Looking for fewer days was stopped. The plan is as it was." in client.get(f"{LANE}/plan").text.replace(
        "\n", " "
    )


Solver = Callable[[Asked, Progress], Plan]


@pytest.fixture
def solver(ctx: Context, monkeypatch: pytest.MonkeyPatch) -> Callable[[Solver], None]:
    return lambda made: monkeypatch.setattr(long_runs, "solve_apart", made)


def _later(plan: Plan, days: int) -> Plan:
    """The same plan, its last task so many days later, as if a solver had found it."""
    last = max(plan.tasks, key=lambda t: t.end)
    moved = last.model_copy(update={"start": last.start + timedelta(days), "end": last.end + timedelta(days)})
    tasks = tuple(moved if t.id == last.id else t for t in plan.tasks)
    return Plan(tasks=tasks, unplaced=plan.unplaced, finish=moved.end, found=Found(status="optimal", cost=1, bound=1))


def test_a_plan_that_is_no_better_is_not_kept(ctx: Context, solver: Callable[[Solver], None]) -> None:
    before = _kept(ctx).plan
    solver(lambda asked, progress: _later(before, 3))
    assert _run(ctx).state is RunState.DONE and _kept(ctx).plan == before
    solver(lambda asked, progress: _later(before, 0))
    assert _run(ctx).state is RunState.DONE and _kept(ctx).plan.found is not None


@pytest.mark.parametrize(
    ("url", "form"),
    [
        (f"{LANE}/survey/zone/ql-front-brick/delete", {}),
        (f"{LANE}/standing/zone/ql-front-brick", {"step": "cover", "said": "done"}),
        (f"{LANE}/plan", {}),
    ],
    ids=["the job changed", "work was noted", "it was planned again"],
)
def test_what_happened_meanwhile_is_not_overwritten(
    ctx: Context, client: TestClient, solver: Callable[[Solver], None], url: str, form: dict[str, str]
) -> None:
    def solve(asked: Asked, progress: Progress) -> Plan:
        found = _later(_kept(ctx).plan, 0)
        ctx.space.clock.step(1)  # type: ignore[union-attr]
        submit(client, url, data=form)
        return found

    solver(solve)
    run = _run(ctx)
    assert run.state is RunState.FAILED and "nothing was kept" in run.trouble
    assert _kept(ctx).plan.found is None
    assert "No plan with fewer days: plan: the job, its record or its plan changed" in client.get(f"{LANE}/plan").text


def test_once_a_job_is_planned_it_begins_by_itself_where_the_settings_say_so(
    ctx: Context, client: TestClient, solver: Callable[[Solver], None]
) -> None:
    solver(lambda asked, progress: _later(_kept(ctx).plan, 0))
    submit(client, f"{LANE}/plan")
    assert ctx.space.runner.latest("fewer-days/quarry-lane") is None
    ctx.space.solve_seconds = 5.0
    submit(client, f"{LANE}/plan")
    planned = ctx.space.runner.latest("plan/quarry-lane")
    assert planned is not None and planned.wait(PATIENCE_S)
    run = ctx.space.runner.latest("fewer-days/quarry-lane")
    assert run is not None and run.wait(PATIENCE_S) and run.state is RunState.DONE


def test_of_a_job_that_changed_since_it_was_planned_none_is_looked_for(ctx: Context, client: TestClient) -> None:
    submit(client, f"{LANE}/survey/zone/ql-front-brick/delete")
    run = _run(ctx)
    assert run.state is RunState.FAILED and "plan again first" in run.trouble
