"""The keyboard alone: jumping by typing, the list of keys, a house blocked out without a mouse."""

import re

import pytest
from fastapi import FastAPI
from playwright.sync_api import Page, expect

from tests.browser.conftest import serious_barriers

pytestmark = pytest.mark.browser


def test_a_few_letters_lead_to_a_face_of_another_job(page: Page) -> None:
    page.goto("/jobs/coopers-rise/quantities")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.press("j")
    page.keyboard.type("cedar")
    expect(page.locator("#jump .jump-found a").first).to_contain_text("Cedar deck")
    assert serious_barriers(page) == []
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/jobs/heron-deck/survey/face/deck"))
    # From there the stage of its own job, by the arrows; keys are heard once the page's scripts are there.
    page.wait_for_load_state("load")
    page.keyboard.press("j")
    page.keyboard.type("weather")
    expect(page.locator("#jump .jump-found a").first).to_contain_text("Heron Deck")
    page.keyboard.press("ArrowDown")
    expect(page.locator("#jump .jump-found a").first).to_be_focused()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("/jobs/heron-deck/weather"))


def test_a_house_is_blocked_out_by_the_keyboard_alone(page: Page, app: FastAPI) -> None:
    page.goto("/jobs/heron-deck/survey/block")
    page.locator("main [name=width_m]").focus()
    for text in ("9.6", "8", "5.6", "S"):
        page.keyboard.type(text)
        page.keyboard.press("Tab")
    page.keyboard.type("hip")
    page.keyboard.press("Tab")
    page.keyboard.type("35°")
    expect(page.locator("#block-drawn figure")).to_have_count(4)
    page.keyboard.press("Enter")
    expect(page).to_have_url(re.compile("said=blocked"))
    expect(page.locator("article.face")).to_have_count(6)


def test_after_a_save_the_page_stands_where_it_stood(page: Page) -> None:
    """A school chosen far down the page: what was looked at stays in view, and the word about it is seen."""
    page.goto("/jobs/coopers-rise/specification")
    page.locator("#schools details").last.locator("summary").click()
    choice = page.locator("#schools details").last.get_by_role("button").first
    choice.scroll_into_view_if_needed()
    before = page.evaluate("scrollY")
    assert before > 400
    choice.click()
    expect(page.locator(".said").first).to_be_visible()
    # The word is drawn before the scripts have come.
    page.wait_for_function("before => Math.abs(scrollY - before) < 200", arg=before)
    expect(page.locator(".said").first).to_be_in_viewport()
    # A page that one goes to anew begins at its top.
    page.goto("/jobs/coopers-rise/specification")
    assert page.evaluate("scrollY") == 0
