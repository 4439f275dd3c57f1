"""What is typed and sent by Enter is what is kept: a form's first button does not answer for the field."""

from collections.abc import Callable
from datetime import datetime

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from amber_gable.domain.job.site_record import Said
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from tests.browser.conftest import WIDE

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"


def _mildew(ctx: Context) -> float | None:
    with ctx.reading() as session:
        place = load_bundle(session, "coopers-rise").property
    return next(z.condition.mildew_pct for z in place.zones if z.face == "east-gable" and z.substrate == "wood-lap")


@pytest.mark.parametrize("scripts", [True, False], ids=["with scripts", "without"])
def test_a_share_that_is_typed_for_many_is_kept(
    contexts: Callable[..., BrowserContext], ctx: Context, scripts: bool
) -> None:
    page: Page = contexts(java_script_enabled=scripts, **WIDE).new_page()
    page.goto(f"{RISE}/survey/findings?of=zone.wood-lap&face=east-gable")
    field = page.locator("#typed-bleach")
    field.fill("37")
    with page.expect_response(lambda r: r.request.method == "POST" or r.status == 303):
        field.press("Enter")
    page.wait_for_load_state("networkidle")
    assert _mildew(ctx) == 37.0, "not the first button's answer"


def test_enter_on_today_means_the_button_behind_the_field(
    contexts: Callable[..., BrowserContext], ctx: Context
) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-14T09:40-03:00"))
    page = contexts(**WIDE).new_page()
    page.goto(f"{RISE}/today")
    card = page.locator(".work-card.now")
    card.get_by_text("Some of it, not done").click()
    card.get_by_label("How far, %").fill("60")
    card.get_by_label("How far, %").press("Enter")
    expect(page.locator(".touches .said-part-done")).to_contain_text("60 %")
    card.get_by_text("Some of it, not done").click()
    card.get_by_label("Why, or why not").fill("the hose broke")
    card.get_by_label("Why, or why not").press("Enter")
    expect(page.locator(".touches .said-not-done")).to_be_visible()
    with ctx.reading() as session:
        said = [e.said for e in load_bundle(session, "coopers-rise").job.record]
    assert Said.DONE not in said
