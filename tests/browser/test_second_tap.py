"""A second tap where the first one was notes nothing, by finger and by key."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from tests.browser.conftest import PHONE

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"


def _touches(ctx: Context) -> int:
    with ctx.reading() as session:
        return len({e.touch for e in load_bundle(session, "coopers-rise").job.record})


@pytest.fixture
def phone(contexts: Callable[..., BrowserContext], ctx: Context) -> Page:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-14T09:40-03:00"))
    page = contexts(**PHONE).new_page()
    page.goto(f"{RISE}/today")
    expect(page.locator(".work-card.now .done-act")).to_be_visible()
    return page


def _middle(what: Any) -> tuple[float, float]:
    what.scroll_into_view_if_needed()
    box = what.bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


@pytest.mark.parametrize("which", [".work-card.now .done-act", ".work-row > form button"])
def test_a_second_tap_on_the_same_spot_ticks_nothing(phone: Page, ctx: Context, which: str) -> None:
    x, y = _middle(phone.locator(which).first)
    phone.touchscreen.tap(x, y)
    noted = phone.locator("[data-noted]")
    expect(noted).to_have_count(1)
    expect(noted.get_by_role("status")).to_contain_text("Done at 09:40")
    for wait in (100, 900, 2000):
        phone.wait_for_timeout(wait)
        phone.touchscreen.tap(x, y)
    phone.wait_for_load_state("networkidle")
    assert _touches(ctx) == 1, "neither ticked nor taken back"
    noted.get_by_role("button", name="Take back").tap()
    expect(phone.locator("[data-noted]")).to_have_count(0)


def test_enter_pressed_twice_ticks_one_task(phone: Page, ctx: Context) -> None:
    phone.locator(".work-card.now .done-act").focus()
    phone.keyboard.press("Enter")
    expect(phone.locator("[data-noted]")).to_be_focused()
    phone.keyboard.press("Enter")
    phone.wait_for_load_state("networkidle")
    assert _touches(ctx) == 1
    phone.keyboard.press("Tab")
    expect(phone.get_by_role("button", name="Take back").first).to_be_focused()
