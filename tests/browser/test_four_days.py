"""Four days of a week on a phone, by thumb: ticking, two readings, a shower on a fresh coat and what became of it, a
colour changed, a plan renewed. What is counted are touches: a tick and rain are one, a reading four at most, a spoiled
film three."""

import re
from collections.abc import Callable
from datetime import datetime, timedelta

import pytest
from playwright.sync_api import BrowserContext, Locator, Page, expect

from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.forecast import ForecastProvider
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from tests.browser.conftest import PHONE, sticks_out

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"
TODAY = f"{RISE}/today"


class Thumb:
    """Taps, counted."""

    def __init__(self, page: Page) -> None:
        self.page, self.touches = page, 0

    def tap(self, what: Locator) -> None:
        what.scroll_into_view_if_needed()
        what.tap()
        self.touches += 1

    def counted(self, act: Callable[[], None]) -> int:
        before = self.touches
        act()
        return self.touches - before


class Showers:
    """The forecast with rain on an east wind at some hours."""

    def __init__(self, real: ForecastProvider) -> None:
        self.real, self.rain = real, list[datetime]()

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        series = self.real.forecast(latitude, longitude, at)
        for hour in self.rain:
            n = int((hour.timestamp() - series.start) // 3600)
            if series.rain_mm is not None and 0 <= n < len(series):
                series.rain_mm[n] = 6.0
                series.wind_from_deg[n], series.wind_ms[n] = 90.0, 5.0
        return series


def _to(ctx: Context, when: str) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat(f"2026-09-{when}-03:00"))


def _is_over(card: Locator, clock: str) -> bool:
    """Whether the visit on the card should have been done by then."""
    late = card.locator("header .label").inner_text().startswith("Late")
    return late or card.locator(".reading").inner_text().split("–")[1] <= clock


def _fits(page: Page) -> None:
    assert not sticks_out(page), "nothing is wider than the screen"


def test_four_days_by_thumb(contexts: Callable[..., BrowserContext], ctx: Context, address: str) -> None:
    assert ctx.space.provider is not None
    showers = Showers(ctx.space.provider)
    ctx.space.provider = showers
    page = contexts(**PHONE).new_page()
    thumb = Thumb(page)
    now, rows = page.locator(".work-card.now:not(.first)").first, page.locator(".work-row")

    def visit(when: str) -> None:
        _to(ctx, when)
        page.goto(TODAY)
        _fits(page)

    # Monday: fog first; the first visit is ticked with one touch, the answer stands in the first 500 px.
    visit("14T08:10")
    box = page.locator(".work-answer").first.bounding_box()
    assert box is not None
    assert box["y"] + box["height"] < 500
    first = page.locator(".work-lines").first.inner_text()

    def tick() -> None:
        thumb.tap(now.get_by_role("button", name="Done", exact=True))
        expect(page.locator(".touches .said-done")).to_have_count(1)

    assert thumb.counted(tick) == 1
    assert page.locator(".work-lines").first.inner_text().split("\n")[0] == first.split("\n")[0], (
        "it stays where it was"
    )
    assert page.locator(".work-card").nth(1).locator(".work-lines").inner_text() != first, "what is next stands below"
    _fits(page)
    thumb.tap(page.get_by_role("button", name="Take back").first)
    expect(page.locator(".touches")).to_have_count(0)
    thumb.tap(now.get_by_role("button", name="Done", exact=True))
    expect(page.locator(".touches .said-done")).to_have_count(1)

    # By keyboard the focus goes to what was noted, so that a second Enter ticks nothing.
    _to(ctx, "14T09:59")
    page.goto(TODAY)
    now.get_by_role("button", name="Done", exact=True).focus()
    page.keyboard.press("Enter")
    expect(page.locator(".touches .said-done")).to_have_count(2)
    expect(page.locator("[data-noted]").first).to_be_focused()

    # Each visit is ticked when it is over.
    def keep_up(when: str) -> None:
        visit(when)
        while now.count() and _is_over(now, when[3:]):
            before = page.locator(".touches li").count()
            thumb.tap(now.get_by_role("button", name="Done", exact=True))
            expect(page.locator(".touches li")).to_have_count(before + 1)

    for clock in ("14T10:20", "14T12:23", "14T13:33", "14T17:31"):
        keep_up(clock)
    _fits(page)
    ahead = rows.count()
    visit("14T17:45")
    assert rows.count() <= ahead
    expect(page.locator(".work-card").first).to_contain_text("Tue 15 Sep")

    # Tuesday: of two kinds of work on the card one is done; then the rest of the day.
    visit("15T09:00")
    thumb.tap(now.get_by_text("Some of it, not done"))
    expect(now.get_by_label("How far, %")).to_have_count(0)
    thumb.tap(now.locator(".some-of-it button").first)
    expect(page.locator(".touches .said-done")).to_have_count(1)
    for clock in ("15T11:30", "15T14:30", "15T17:29"):
        keep_up(clock)

    # Wednesday: the meter says no, and the wall is off Now; a dry board says nothing against a wet one.
    keep_up("16T14:00")
    coat = page.locator(".work-card", has_text="First coat").first
    expect(coat).to_be_visible()

    def read(pct: str) -> None:
        thumb.tap(coat.get_by_text("Wood moisture"))
        field = coat.get_by_label("The meter reads, %")
        thumb.tap(field)
        field.fill(pct)
        thumb.tap(coat.get_by_role("button", name="Keep"))

    surface = coat.locator("[name=surface]").first.get_attribute("value")
    assert surface is not None
    part = surface.partition("/")[2]
    assert thumb.counted(lambda: read("17")) <= 4
    expect(page.locator("#lacks-specification")).to_have_text("1 stopped")
    now_here = page.locator(f".work-card.now:has([name=surface][value='{surface}'])")
    expect(now_here.filter(has_text="First coat")).to_have_count(0)
    _fits(page)
    page.goto(f"{RISE}/specification/zone/{part}")
    expect(page.locator("#standing")).to_contain_text("the wood read 17 %")
    page.goto(f"{RISE}/weather?face={part.removesuffix('-siding')}&product=coat")
    expect(page.locator("#why .answer")).to_contain_text("the wood read 17 %")
    _fits(page)

    # The next day's reading is what counts; the plan is renewed by one touch.
    visit("18T10:00")
    reading = page.request.post(
        f"{RISE}/today/reading", form={"kind": "zone", "part": part, "pct": "14"}, headers={"origin": address}
    )
    assert reading.ok
    page.goto(f"{RISE}/plan")
    thumb.tap(page.get_by_role("button", name=re.compile("^Plan again")))
    expect(page.locator(".plan-day").first).to_be_visible()
    expect(page.locator("#lacks-plan")).not_to_contain_text("out of date")
    _fits(page)

    # A coat is laid, and a shower falls on it an hour later.
    noted = page.request.post(
        f"{RISE}/standing/zone/{part}",
        form={"step": "coat-1", "said": "done", "at": "2026-09-18T11:00"} | {"by": "Ina"},
        headers={"origin": address},
    )
    assert noted.status == 422, "it is only ten o'clock"
    _to(ctx, "18T11:30")
    page.request.post(
        f"{RISE}/standing/zone/{part}",
        form={"step": "coat-1", "said": "done", "at": "2026-09-18T11:00", "by": "Ina"},
        headers={"origin": address},
    )
    showers.rain = [datetime.fromisoformat("2026-09-18T12:00-03:00") + timedelta(hours=h) for h in (0, 1)]
    _to(ctx, "18T14:30")
    page.goto(f"{RISE}/specification/zone/{part}")
    expect(page.locator("#standing")).to_contain_text("Rain reached")
    _fits(page)
    visit("18T14:40")
    expect(page.locator(".film-said").first).to_contain_text("coat 1 of 2")
    asked = page.locator(".fresh-asked")
    expect(asked).to_contain_text("Rain at 12:00: what became of it?")
    assert thumb.counted(lambda: thumb.tap(asked.get_by_role("button", name="It shows"))) == 1
    expect(asked).to_have_count(0)
    thumb.tap(page.locator(".touches li", has_text="rain").get_by_role("button", name="Take back"))
    expect(asked).to_be_visible()

    def spoiled() -> None:
        film = page.locator(".fresh-film").first
        thumb.tap(film.locator("summary", has_text="Spoiled"))
        thumb.tap(film.get_by_text("rain", exact=True))
        thumb.tap(film.locator(".fresh-form").get_by_role("button", name="It ran or came off"))
        expect(page.locator(".touches li", has_text="it ran, came off")).to_be_visible()

    assert thumb.counted(spoiled) == 3
    _fits(page)

    # The customer changes the colour: named old and new on Today, the plan out of date.
    page.goto(f"{RISE}/specification/zone/{part}")
    page.get_by_label("Colour name").fill("Harbour slate")
    page.locator("#col").evaluate("(e) => { e.value = '#556677'; }")
    page.get_by_label("If the customer changed it").fill("darker, please")
    thumb.tap(page.get_by_role("button", name="Set colour"))
    expect(page.locator(".said").first).to_contain_text("Saved")
    visit("18T15:00")
    expect(page.locator("#work")).to_contain_text("Harbour slate")
    expect(page.locator("#work")).to_contain_text("darker, please")
    expect(page.locator("#lacks-plan")).to_have_text("out of date")

    # Another job is one touch away.
    def other() -> None:
        thumb.tap(page.get_by_role("link", name="Heron Deck"))
        expect(page.locator(".tb-name")).to_contain_text("Heron Deck")

    assert thumb.counted(other) == 1
    _fits(page)
