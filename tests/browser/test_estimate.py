"""Estimate and Quantities as they are used: by keyboard at the table, by thumb on a phone, in two tabs."""

from collections.abc import Callable

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.conftest import PHONE, sticks_out

pytestmark = pytest.mark.browser
ESTIMATE, QUANTITIES = "/jobs/coopers-rise/estimate", "/jobs/coopers-rise/quantities"


def test_hours_are_opened_the_way_up_changed_and_taken_back_by_keyboard(page: Page) -> None:
    page.goto(QUANTITIES)
    page.keyboard.press("4")
    expect(page.locator("h1")).to_have_text("Estimate")
    hours = page.locator(".tb-big .reading")
    before = hours.inner_text()
    front = page.locator(".hours-row", has_text="Street front").locator("summary")
    front.focus()
    page.keyboard.press("Enter")
    line = page.get_by_role("row", name="Wash by hose and brush, rinse").first
    expect(line).to_contain_text("51 m² ÷ 30 m²/h × 1.07 (46 % from a ladder above 3 m)")
    expect(line).to_contain_text("1 h 49 min")
    # Ladder, tower, lift: two steps to the right.
    page.locator("input[name='access.front']:checked").focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    page.get_by_label("Why this way up Street front").fill("firm paving; no wires on this side")
    page.keyboard.press("Enter")
    expect(page.locator(".said")).to_contain_text("Reckoned anew")
    expect(page.locator("input[name='access.front']:checked")).to_have_value("lift")
    expect(hours).not_to_have_text(before)
    page.reload()
    expect(page.get_by_label("Why this way up Street front")).to_have_value("firm paving; no wires on this side")
    page.keyboard.press("Control+z")
    expect(page.locator("input[name='access.front']:checked")).to_have_value("ladder")
    expect(hours).to_have_text(before)


def test_a_level_chosen_in_another_tab_is_what_both_show_after_a_look(page: Page) -> None:
    other = page.context.new_page()
    page.goto(QUANTITIES)
    other.goto(QUANTITIES)
    cost = page.locator(".tb-big .reading").inner_text()
    other.get_by_label("95 of 100 jobs").check()
    other.get_by_role("button", name="Buy at this level").click()
    expect(other.locator(".tb-big .reading")).not_to_have_text(cost)
    page.goto(ESTIMATE)
    page.go_back()
    page.reload()
    expect(page.locator(".tb-big .reading")).to_have_text(other.locator(".tb-big .reading").inner_text())
    expect(page.get_by_label("95 of 100 jobs")).to_be_checked()


def test_what_is_used_and_where_the_hours_are_fits_a_phone(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(**PHONE).new_page()
    page.goto(QUANTITIES)
    assert not sticks_out(page)
    page.locator(".order summary").first.tap()
    expect(page.locator(".order-buy").first).to_contain_text("enough in 80 of 100 such jobs")
    assert not sticks_out(page)
    page.goto(ESTIMATE)
    page.locator(".hours-row summary").first.tap()
    expect(page.locator(".hours-lines").first).to_be_visible()
    assert not sticks_out(page)
    page.goto("/stores/stock")
    long = "behind the third door of the old boat shed, on the shelf under the window, left"
    page.get_by_label("What is in it").select_option("skerry-housecoat")
    page.get_by_label("Full it held").fill("10")
    page.get_by_label("Where it stands").fill(long[:60])
    page.get_by_role("button", name="Put it on the shelf").tap()
    expect(page.locator(".said")).to_contain_text("It is can")
    assert not sticks_out(page)
