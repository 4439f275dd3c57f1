"""A feed mapped on a phone with what is understood beside it, and two forecasts held against each other."""

import re
from collections.abc import Callable
from datetime import datetime, timedelta, timezone

import pytest
from fastapi import FastAPI
from playwright.sync_api import BrowserContext, Page, expect

from tests.browser.conftest import PHONE, serious_barriers
from tests.web.server import running

pytestmark = pytest.mark.browser
FIRST = datetime(2026, 9, 14, tzinfo=timezone(timedelta(hours=-3)))


def _feed() -> FastAPI:
    app = FastAPI()

    @app.get("/hours")
    def hours() -> list[dict[str, object]]:
        moments = [FIRST + timedelta(hours=h) for h in range(96)]
        return [{"at": t.isoformat(), "temp": 59.0, "humid": 0.6, "wind": 4} for t in moments]

    return app


def test_a_feed_is_mapped_on_a_phone_and_follows_each_choice(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(**PHONE).new_page()
    with running(_feed()) as address:
        page.goto("/settings")
        page.get_by_label("Address").fill(f"{address}/hours?lat={{lat}}&lon={{lon}}")
        page.get_by_role("button", name="Read it").tap()
        expect(page.locator("#understood")).to_contain_text("96 hours")
        # Nothing in the feed says that it counts in Fahrenheit: 59 °C cannot be a day, and the eye sees it.
        expect(page.locator("#understood")).to_contain_text("59.0")
        page.get_by_label("Take [].temp for").select_option("air, °F")
        expect(page.locator("#understood")).to_contain_text("15.0")
        page.get_by_label("Take [].temp for").select_option("leave out")
        expect(page.locator("#understood")).to_contain_text("no column is the air")
        assert serious_barriers(page) == []
        page.get_by_label("Take [].temp for").select_option("air, °F")
        page.get_by_label("Name", exact=False).first.fill("Harbour hours")
        page.get_by_role("button", name="Keep it").tap()
        expect(page.get_by_text("Forecasts come from Harbour hours")).to_be_visible()
        page.goto("/jobs/coopers-rise/weather")
        expect(page.locator("#source")).to_contain_text("Harbour hours")


def test_a_day_later_the_forecast_of_the_plan_is_held_against_the_newest(page: Page) -> None:
    page.goto("/jobs/coopers-rise/plan")
    page.get_by_role("button", name="+1 d").click()
    page.get_by_role("link", name="What that changes").click()
    expect(page.locator(".versions-answer")).to_contain_text("when the plan was made")
    expect(page.locator(".versions-faces tr")).to_have_count(8)
    assert serious_barriers(page) == []
    page.evaluate("document.documentElement.dataset.bsTheme = 'dark'")
    assert serious_barriers(page) == []
    page.get_by_role("link", name="See the lanes as they were believed then").click()
    expect(page.get_by_role("status").first).to_contain_text("as they were believed Mon 14 Sep")
    page.locator("#lane-drawing .seg.open").first.click()
    expect(page).to_have_url(re.compile(r"then=\d+"))
    page.get_by_role("link", name="Back to the newest").click()
    expect(page.locator("#lane-drawing")).to_be_visible()
    assert "then=" not in page.url


def test_a_job_is_begun_by_a_towns_name_deleted_and_brought_back(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(**PHONE).new_page()
    page.goto("/")
    page.get_by_label("Job name").fill("2 Mill Road")
    page.get_by_label("Customer").fill("Ines Ward")
    page.locator("[name=place]").press_sequentially("newport")
    page.get_by_role("radio", name=re.compile("OR, United States")).check()
    page.get_by_role("button", name="Start the survey").tap()
    expect(page).to_have_url(re.compile("/survey"))
    page.get_by_role("link", name="2 Mill Road").first.tap()
    expect(page.locator("[name=place]")).to_have_value("Newport")
    expect(page.locator("[name=time_zone]")).to_have_value("America/Los_Angeles")
    assert serious_barriers(page) == []
    page.locator("[name=longitude]").fill("124.05")
    page.get_by_role("button", name="Keep it so").tap()
    expect(page.get_by_role("alert")).to_contain_text("with longitude -124.05 it lies near Newport, OR")
    page.locator("[name=longitude]").fill("-124.05")
    page.get_by_role("button", name="Keep it so").tap()
    expect(page.get_by_text("Kept.")).to_be_visible()
    page.get_by_role("button", name="Delete it").tap()
    expect(page.get_by_text("was deleted")).to_be_visible()
    page.get_by_role("button", name="Bring it back").tap()
    expect(page.get_by_role("link", name=re.compile("2 Mill Road"))).to_be_visible()
