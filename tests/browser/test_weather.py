"""Weather in a real browser: the slider and its buttons on a phone, how sure it is coming in beside the page, the film
that follows its slider, and the lanes on paper."""

import re
from collections.abc import Callable
from datetime import datetime, timedelta
from pathlib import Path

import pytest
from fastapi import FastAPI
from playwright.sync_api import BrowserContext, Locator, Page, expect

from amber_gable.services.context import Context
from tests.browser.conftest import PHONE, WIDE, serious_barriers, sticks_out
from tests.fixtures import open_space

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise/weather"


def test_a_phone_steps_and_drags_one_cursor_and_hits_no_slots(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(**PHONE).new_page()
    page.goto(f"{RISE}?product=skerry-housecoat&face=back&at=2026-09-15T12:30:00-03:00")
    why = page.locator("#why")
    expect(why.locator(".answer")).to_have_text(re.compile(r"Yes, until 17:30\s+\d+ % sure"))
    page.get_by_label("On by a quarter of an hour").tap()
    expect(why).to_contain_text("Back, Tue 15 Sep 12:45")
    page.get_by_label("Time of day", exact=True).fill("60")
    expect(why).to_contain_text("Back, Tue 15 Sep 19:00")
    expect(why).to_contain_text("No: dark")
    page.get_by_label("A day later").tap()
    expect(why).to_contain_text("Back, Wed 16 Sep 19:00")
    page.locator("#day-faces a", has_text="East gable").tap()
    expect(why).to_contain_text("East gable, Wed 16 Sep 19:00")
    # Over the end of the days shown lies another page of them.
    page.get_by_label("A day later").tap()
    page.wait_for_url(re.compile("at=2026-09-17"))
    expect(page.locator("#why")).to_contain_text("East gable, Thu 17 Sep 19:00")
    small = page.evaluate(
        "() => [...document.querySelectorAll('main a, main button, main input:not([type=radio]), main select')]"
        ".filter(e => e.offsetParent"
        " && !e.closest('p') && getComputedStyle(e).pointerEvents !== 'none' && e.getBoundingClientRect().height < 24)"
        ".map(e => e.outerHTML.slice(0, 90))"
    )
    assert small == []
    letters = page.evaluate(
        "() => [...document.querySelectorAll('#lane-drawing text')].map(e => parseFloat(getComputedStyle(e).fontSize))"
    )
    assert min(letters) >= 12
    assert serious_barriers(page) == []


def test_a_day_is_stepped_hour_by_hour_from_the_keyboard(page: Page) -> None:
    page.goto(f"{RISE}?product=skerry-housecoat&face=back&at=2026-09-15T07:00:00-03:00")
    page.locator("[data-lanes]").focus()
    answers = []
    for hour in range(8, 19):
        for _ in range(4):
            page.keyboard.press("ArrowRight")
        expect(page.locator("#why")).to_contain_text(f"Back, Tue 15 Sep {hour:02d}:00")
        answers.append(page.locator("#why .answer").inner_text())
    assert answers[0].startswith(("No", "Not ready", "Weather fine"))
    assert any(a.startswith("Yes, until 17:30") for a in answers) and answers[-1].startswith("No: dark")
    page.go_back()
    expect(page.locator("#why")).to_have_count(0)


def test_the_film_follows_its_slider_without_asking_the_server(page: Page) -> None:
    page.goto(f"{RISE}?product=coat&face=back&at=2026-09-16T10:00:00-03:00")
    page.get_by_role("link", name="The film’s story").click()
    film = page.locator("[data-film]")
    expect(film).to_contain_text("Wed 16 Sep 10:00–10:15")
    expect(page.locator(".compared tr").nth(1)).to_contain_text("as asked")
    asked: list[str] = []
    page.on("request", lambda r: asked.append(r.url) if "/jobs/" in r.url else None)
    slider = page.get_by_label("When the last stroke is laid")
    first = float(film.locator("[data-laid]").get_attribute("x1") or 0)
    for n in range(30, 60, 6):
        slider.fill(str(n))
    expect(film).to_contain_text("Wed 16 Sep 17:30–17:45")
    assert float(film.locator("[data-laid]").get_attribute("x1") or 0) > first + 100
    expect(film.locator("[data-told]")).to_contain_text(re.compile("Rain|Dew|Nothing spoils it"))
    assert asked == []
    page.reload()
    expect(page.locator("[data-film]")).to_contain_text("Wed 16 Sep 17:30–17:45")
    page.set_viewport_size({"width": 390, "height": 844})
    assert not sticks_out(page)
    assert serious_barriers(page) == []


def test_the_lanes_print_with_their_letters_and_words_and_nothing_to_press(page: Page) -> None:
    page.goto(f"{RISE}?product=coat")
    # The drawing that comes with how sure it is has come.
    expect(page.locator("#sureness progress")).to_have_count(0)
    page.emulate_media(media="print")
    for hidden in (".rail", ".sky", ".day-slider", ".lane-tools", "#schools", ".source"):
        assert not page.locator(hidden).first.is_visible(), hidden
    for shown in ("#lane-drawing", ".legend", "#why", "#day-faces"):
        assert page.locator(shown).first.is_visible(), shown
    drawing, sheet = (page.locator(s).bounding_box() for s in ("#lane-drawing", "#sheet"))
    assert drawing and sheet and drawing["x"] + drawing["width"] <= sheet["x"] + sheet["width"] + 1


def test_a_slip_on_a_phone_keeps_the_forecast_that_was_typed(
    contexts: Callable[..., BrowserContext],
) -> None:
    page = contexts(**PHONE).new_page()
    page.goto(f"{RISE}/typed")
    page.get_by_label(re.compile("^Low")).first.fill("9")
    page.get_by_label(re.compile("^High")).first.fill("7")
    page.get_by_role("button", name="Use this forecast").tap()
    expect(page.get_by_role("alert").first).to_contain_text("the high is below the low")
    page.get_by_label(re.compile("^High")).first.fill("19")
    page.get_by_role("button", name="Use this forecast").tap()
    expect(page.get_by_text("The typed forecast is in use.")).to_be_visible()
    expect(page.locator("#lane-drawing")).to_be_visible()
    page.get_by_role("button", name="No longer use it").tap()
    expect(page.get_by_text("simulated forecast service")).to_be_visible()
    assert serious_barriers(page) == []


def test_from_nothing_to_the_lanes_of_a_first_wall_by_a_typed_forecast_in_25_touches(
    page: Page, app: FastAPI, tmp_path: Path
) -> None:
    """No service, no network, no job: each field filled and each button pressed counts."""
    app.state.space = open_space(tmp_path / "empty.sqlite3").space
    app.state.space.provider = None
    touches = 0

    def fill(**fields: str) -> None:
        nonlocal touches
        for name, text in fields.items():
            page.locator(f"main [name='{name.replace('__', '.')}']").fill(text)
            touches += 1

    def press(what: Locator) -> None:
        nonlocal touches
        what.first.click()
        touches += 1

    page.goto("/")
    fill(name="9 Weir Lane", customer="Nell Hart", place="Otter Ferry", latitude="45.3", longitude="-62.2")
    fill(time_zone="America/Halifax")
    press(page.get_by_role("button", name="Start the survey"))
    press(page.get_by_text("Add the first face"))
    fill(name="South wall", size="8 x 3", azimuth_deg="180")
    press(page.get_by_role("button", name="Save"))
    press(page.get_by_text("Say what it is made of"))
    expect(page).to_have_url(re.compile("/survey/zone/new"))
    fill(name="Siding")
    press(page.get_by_role("button", name="Save"))
    expect(page).to_have_url(re.compile("/survey/zone/siding"))
    press(page.locator(".rail").get_by_role("link", name="Weather"))
    fill(low0="9", high0="19", low1="11", high1="17", low2="8", high2="18")
    press(page.get_by_role("button", name="Use this forecast"))
    expect(page.locator("#lane-drawing .seg.open").first).to_be_visible()
    expect(page.locator("#day-faces")).to_contain_text(re.compile(r"last stroke \d\d:\d\d \d+ %"))
    assert touches <= 25


def test_the_sun_goes_round_the_house_with_its_slider(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(**PHONE).new_page()
    page.goto(f"{RISE}/sun?product=coat&at=2026-09-16T09:00:00-03:00")
    house = page.locator("[data-sun]")
    places = []
    for slot in (16, 36, 56):
        page.get_by_label("Time of day").fill(str(slot))
        places.append(house.locator("[data-disc]").get_attribute("transform"))
    assert len(set(places)) == 3
    expect(house).to_contain_text("Wed 16 Sep 18:00")
    page.get_by_label("A quarter of an hour later").tap()
    expect(house).to_contain_text("Wed 16 Sep 18:15")
    assert not sticks_out(page)
    assert serious_barriers(page) == []
    house.locator("[data-row='back'] a").tap()
    expect(page.locator("#why")).to_contain_text("Back, Wed 16 Sep 18:15")


def test_the_strip_of_sky_goes_on_with_the_clock_and_stays_unfolded(
    contexts: Callable[..., BrowserContext], ctx: Context
) -> None:
    class Running:
        steppable, at = False, datetime.fromisoformat("2026-09-15T10:40-03:00")

        def now(self) -> datetime:
            return self.at

    ctx.space.clock = clock = Running()  # type: ignore[assignment]
    page = contexts(**PHONE).new_page()
    # The minute is waited for by the test, not by the clock.
    page.add_init_script("window.setInterval = (tick) => { window.theMinute = tick; }")
    page.goto(RISE)
    page.locator(".sky-fold").tap()
    expect(page.locator(".sky-clock .reading")).to_have_text("10:40")
    clock.at += timedelta(minutes=61)
    page.evaluate("window.theMinute()")
    expect(page.locator(".sky-clock .reading")).to_have_text("11:41")
    expect(page.locator(".sky-readings")).to_be_visible()


def test_film_and_sun_are_stepped_by_links_without_scripts(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(java_script_enabled=False, **WIDE).new_page()
    page.goto(f"{RISE}/film?product=coat&face=back&at=2026-09-16T10:00:00-03:00")
    page.get_by_label("A quarter of an hour later").click()
    expect(page.locator("[data-film]")).to_contain_text("Wed 16 Sep 10:15–10:30")
    page.get_by_role("link", name="Compare them").click()
    expect(page.locator(".compared")).to_contain_text("as asked")
    page.goto(f"{RISE}/sun?at=2026-09-16T10:00:00-03:00")
    page.get_by_label("A quarter of an hour later").click()
    expect(page.locator("[data-sun]")).to_contain_text("Wed 16 Sep 10:15")
