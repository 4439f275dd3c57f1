"""The job walked through in a browser, as a contractor would: mouse, keyboard, back button, two tabs, phone."""

import re
from collections.abc import Callable
from datetime import datetime

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from amber_gable.domain.grid import SLOTS_PER_HOUR
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from tests.browser.conftest import WIDE

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"
DAY_OF_SASHES = "2026-09-23"  # one on which the demo's plan coats a single sash, with an order of its own


def test_from_the_jobs_list_to_the_day_sheet(page: Page) -> None:
    page.goto("/")
    page.locator(".job-card", has_text="14 Cooper's Rise").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Today")
    for stage in ("Survey", "Specification", "Quantities", "Weather", "Plan", "Today"):
        page.get_by_role("navigation").get_by_role("link", name=stage).click()
        expect(page.get_by_role("heading", level=1)).to_have_text(stage)
        expect(page.locator(".sky-readings")).to_contain_text("Dew point")
    expect(page.locator(".work-card")).to_contain_text("Contain: ground sheeted")
    page.go_back()
    expect(page.get_by_role("heading", level=1)).to_have_text("Plan")


def test_number_keys_jump_between_stages_but_not_while_typing(page: Page) -> None:
    page.goto(f"{RISE}/survey")
    page.keyboard.press("5")
    expect(page).to_have_url(re.compile("/weather"))
    page.wait_for_load_state("load")
    page.keyboard.press("1")
    expect(page).to_have_url(re.compile("/survey"))
    page.goto(f"{RISE}/survey/face/front")
    page.get_by_label("Width", exact=True).click()
    page.keyboard.press("5")
    expect(page).to_have_url(re.compile("/survey/face/front"))


def test_a_tap_on_a_lane_asks_why_and_the_arrows_walk_on(page: Page) -> None:
    page.goto(f"{RISE}/weather")
    lanes = page.locator("[data-lanes]")
    geometry = lanes.evaluate("e => ({...e.dataset})")
    row, slot = 2, (12 - 4) * SLOTS_PER_HOUR
    x = float(geometry["step"]) + (slot + 0.5) * float(geometry["slotw"])
    lanes.locator("svg").click(position={"x": x, "y": 34 + (row + 0.4) * float(geometry["rowh"])})
    why = page.locator("#why")
    expect(why).to_contain_text("Back, Tue 15 Sep 12:00")
    expect(why.locator(".answer")).to_contain_text("Yes, until")
    expect(page.locator("#rules")).to_contain_text("Back, Tue 15 Sep 12:00")
    lanes.focus()
    page.keyboard.press("ArrowUp")
    expect(why).to_contain_text("West gable, Tue 15 Sep 12:00")
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    expect(why).to_contain_text("West gable, Tue 15 Sep 13:00")
    page.reload()
    expect(page.locator("#why")).to_contain_text("West gable, Tue 15 Sep 13:00")
    page.get_by_label("On by a quarter of an hour").click()
    expect(page.locator("#why")).to_contain_text("West gable, Tue 15 Sep 13:15")


# A key, and in the same moment the drawing that comes anew with how sure it is.
KEY_AND_DRAWING = """() => {
  const lanes = document.querySelector("[data-lanes]"), fresh = document.createElement("i")
  lanes.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }))
  fresh.dataset.shown = ""
  document.body.append(fresh)
  document.dispatchEvent(new CustomEvent("htmx:after:swap"))
}"""


def test_the_address_follows_a_key_pressed_as_the_drawing_comes_anew(page: Page) -> None:
    page.goto(f"{RISE}/weather?face=back&at=2026-09-15T15:00:00Z")
    page.evaluate(KEY_AND_DRAWING)
    expect(page.locator("#why")).to_contain_text("Back, Tue 15 Sep 12:15")
    expect(page).to_have_url(re.compile(r"face=back&at=2026-09-15T15%3A15"))


def test_a_tap_after_a_clock_change_asks_for_the_hour_under_the_finger(page: Page, ctx: Context) -> None:
    """Friday before the clocks go back; the tap is on the Tuesday after."""
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-10-30T08:00-03:00"))
    page.goto(f"{RISE}/weather?days=10")
    lanes = page.locator("[data-lanes]")
    geometry = lanes.evaluate("e => ({...e.dataset})")
    x = 4 * float(geometry["step"]) + ((10 - 4) * SLOTS_PER_HOUR + 0.5) * float(geometry["slotw"])
    lanes.locator("svg").click(position={"x": x, "y": 34 + 0.4 * float(geometry["rowh"])})
    expect(page.locator("#why")).to_contain_text("Tue 3 Nov 10:00")


def test_lanes_work_as_plain_links_without_scripts(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(java_script_enabled=False, **WIDE).new_page()
    page.goto(f"{RISE}/weather")
    page.locator(".lane").nth(2).locator("rect.seg.open").nth(1).click(force=True)
    expect(page.locator("#why .answer")).to_contain_text("Yes, until")


def test_an_impatient_double_click_plans_once(page: Page) -> None:
    page.goto(f"{RISE}/plan")
    posts: list[str] = []
    page.on("request", lambda r: posts.append(r.url) if r.method == "POST" else None)
    page.get_by_role("button", name="Plan again from now").dblclick()
    expect(page.locator(".plan-day").first).to_be_visible()
    assert len(posts) == 1


def test_the_day_sheet_prints_on_one_page_and_its_painting_orders_on_the_next(page: Page) -> None:
    days = {}
    for day in ("2026-09-14", "2026-09-15", DAY_OF_SASHES):
        page.goto(f"{RISE}/today?day={day}")
        orders = page.locator(".special-order").count()
        for paper in ("A4", "Letter"):
            pdf = page.pdf(format=paper)
            days[day, paper, bool(orders)] = len(re.findall(rb"/Type\s*/Page\b", pdf))
    assert {pages for (_, _, orders), pages in days.items() if not orders} <= {1}, days
    assert {pages for (_, _, orders), pages in days.items() if orders} == {2}, days


def test_steps_of_a_painting_order_are_ticked_off_and_stay_so(page: Page) -> None:
    page.goto(f"{RISE}/today?day={DAY_OF_SASHES}")
    box = page.locator(".order-ticks input").first
    box.check()
    page.reload()
    expect(page.locator(".order-ticks input").first).to_be_checked()
    expect(page.locator(".order-ticks input").nth(1)).not_to_be_checked()
