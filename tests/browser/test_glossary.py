"""Words of the trade: explained where they first stand, to eye, keyboard and screen reader, and never twice."""

from collections.abc import Callable

import pytest
from playwright.sync_api import BrowserContext, Page, expect

from amber_gable.domain.glossary import glossary
from tests.browser.conftest import PHONE, serious_barriers, sticks_out
from tests.browser.held import held

pytestmark = pytest.mark.browser
PLAN = "/jobs/coopers-rise/plan"


def test_a_word_is_explained_once_where_it_is_first_seen(page: Page) -> None:
    page.goto(PLAN)
    first = page.locator("dfn.term").first
    expect(first).to_be_visible()
    told = page.locator("dfn.term").evaluate_all("all => all.map(e => e.firstChild.data.toLowerCase())")
    means = {form.lower(): t.word for t in glossary() for form in t.written}
    words = [means[w] for w in told]
    assert len(words) == len(set(words)) >= 5
    assert page.locator("main .term-words").count() == 0, "what is read or copied stays as it was written"
    assert page.locator("a dfn, button dfn, summary dfn, label dfn").count() == 0, "nothing is touched for two things"
    # By keyboard; what a screen reader says is what is shown.
    first.focus()
    id_ = first.get_attribute("aria-describedby")
    expect(page.locator(f"#{id_}")).to_be_visible()
    expect(page.locator(f"#{id_}")).to_have_text(next(t.meaning for t in glossary() if t.word == words[0]))
    page.keyboard.press("Escape")
    page.mouse.move(0, 0)
    expect(page.locator(f"#{id_}")).to_be_hidden()


def test_on_a_phone_a_touch_tells_it_above_the_bar(contexts: Callable[..., BrowserContext]) -> None:
    phone = contexts(**PHONE).new_page()
    phone.goto(PLAN)
    word = phone.locator("dfn.term").first
    word.tap()
    said = phone.locator(f"#{word.get_attribute('aria-describedby')}")
    expect(said).to_be_visible()
    box = said.bounding_box()
    assert box is not None and box["x"] >= 0 and box["x"] + box["width"] <= 390 and box["y"] + box["height"] < 800
    assert not sticks_out(phone) and serious_barriers(phone) == []


def test_a_word_of_two_meanings_is_not_explained_by_the_wrong_one(page: Page) -> None:
    page.goto("/jobs/coopers-rise/quantities")
    expect(page.locator("dfn.term").first).to_be_visible()
    # How far a litre goes is called spread too.
    assert "spread" not in [w.strip().lower() for w in page.locator("dfn.term").all_inner_texts()]
    page.goto("/glossary")
    expect(page.get_by_role("term").filter(has_text="spread above the dew point")).to_be_visible()
    assert page.locator("dfn").count() == 0


def test_a_piece_that_is_fetched_anew_is_explained_anew_and_read_on(page: Page) -> None:
    word = page.locator("#why dfn.term", has_text="Dew point")
    # The odds come while somebody reads.
    with held(page, "**/weather/sure*"):
        page.goto("/jobs/coopers-rise/weather?face=back&at=2026-09-15T12:30:00-03:00")
        expect(word).to_have_count(1)
        page.get_by_label("On by a quarter of an hour").click()
        expect(page.locator("#why")).to_contain_text("12:45")
        expect(word).to_have_count(1)
        word.focus()
        expect(page.locator(".term-words.shown")).to_contain_text("water settles out")
    expect(page.locator("#why")).to_contain_text("% sure")
    expect(page.locator(".term-words.shown")).to_contain_text("water settles out")
    expect(word).to_be_focused()
    assert page.locator(".term-words").count() == page.locator("dfn.term").count(), "none is left behind"
