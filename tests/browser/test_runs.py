"""Long work followed in a browser: the wall fills, a quarter is said aloud, and what came of it appears by itself, with
scripts and without."""

import re
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, expect

from amber_gable.domain.progress import Progress
from amber_gable.services.context import Context
from amber_gable.services.plan import long_runs
from amber_gable.services.plan.planning import make_plan
from tests.browser.conftest import PHONE, WIDE, serious_barriers, sticks_out
from tests.web.yard.test_runs import Gate

pytestmark = pytest.mark.browser
PLAN = "/jobs/coopers-rise/plan"


@pytest.fixture
def slow_plan(ctx: Context, monkeypatch: pytest.MonkeyPatch) -> Iterator[Gate]:
    gate = Gate()

    def slowly(ctx: Any, bundle: Any, series: Any, begins: Any, progress: Progress) -> None:
        gate(progress)
        make_plan(ctx, bundle, series, begins, progress)

    monkeypatch.setattr(long_runs, "make_plan", slowly)
    ctx.space.runner.patience = 0
    yield gate
    gate.go.set()
    for run in ctx.space.runner.active:
        run.wait(60)


def test_a_long_plan_is_followed_and_then_there(contexts: Callable[..., BrowserContext], slow_plan: Gate) -> None:
    context = contexts(**PHONE)
    page = context.new_page()
    page.goto(PLAN)
    page.get_by_role("button", name=re.compile("^Plan again")).click()
    expect(page.get_by_role("button", name="Being planned")).to_be_disabled()
    expect(page.locator(".run-words")).to_contain_text("4 of 10 steps placed")
    expect(page.locator(".run-aloud")).to_have_text("a quarter is done")
    expect(page.get_by_role("progressbar", name="Plan of 14 Cooper's Rise")).to_have_attribute("value", "40")
    found = {"barriers": serious_barriers(page)}
    other = context.new_page()
    other.goto("/runs")
    found["barriers of the list"] = serious_barriers(other)
    for one in (page, other):
        found[f"{one.url} sticks out"] = sticks_out(one) and [one.url]
    assert not any(found.values()), found
    # Whoever types is not interrupted.
    page.locator(".plan-crew summary").click()
    page.get_by_label("People").focus()
    slow_plan.go.set()
    expect(other.get_by_role("cell", name="done")).to_be_visible()
    page.get_by_role("link", name="Show what came of it").click()
    expect(page.locator(".run-card")).to_have_count(0)
    expect(page.get_by_role("button", name=re.compile("^Plan again"))).to_be_enabled()


def test_it_is_followed_and_stopped_without_scripts(contexts: Callable[..., BrowserContext], slow_plan: Gate) -> None:
    page = contexts(**WIDE, java_script_enabled=False).new_page()
    page.goto(PLAN)
    page.get_by_role("button", name=re.compile("^Plan again")).click()
    expect(page.locator(".run-words")).to_contain_text("4 of 10 steps placed")
    page.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("Planning was stopped. The plan is as it was.")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Plan again")).click()
    slow_plan.go.set()
    expect(page.locator(".run-card")).to_have_count(0)
    expect(page.get_by_text("Planning was stopped")).to_have_count(0)
