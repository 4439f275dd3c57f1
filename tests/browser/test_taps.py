"""No tap is lost: scripts blocked or late, answers slow or none, hands quicker than the program."""

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import BrowserContext, Locator, Page, expect

from amber_gable.services.computed import Computed
from amber_gable.services.context import Context
from tests.browser.conftest import PHONE, TABLET, WIDE
from tests.browser.held import held
from tests.browser.test_survey_drawing import Mouse, on_screen

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"
CONDITION = f"{RISE}/survey/zone/wing-east-siding/condition"
SCRIPTS = re.compile(r"\.js$")


# On a busy machine htmx begins to listen well after the page is there.
SLOW_TIMERS = "{ const set = window.setTimeout; window.setTimeout = (f, ms = 0, ...a) => set(f, ms + 300, ...a) }"


def _row(page: Page, test: str) -> Locator:
    return page.locator(f"#test-wing-east-siding-{test}")


def _chosen(page: Page, test: str, value: str) -> None:
    """The choice stands in the record, not only on the screen."""
    page.reload()
    expect(_row(page, test).get_by_label(value, exact=True)).to_be_checked()


@pytest.fixture
def blocked(contexts: Callable[..., BrowserContext]) -> Page:
    """A tablet on which no script arrives, though scripts are allowed."""
    page = contexts(quiet=True, **TABLET).new_page()
    page.route(SCRIPTS, lambda route: route.abort())
    return page


def test_the_walk_from_survey_to_day_sheet_with_scripts_blocked(blocked: Page) -> None:
    # Clicked, not tapped: a finger that a busy machine lifts half a second late is a long press, and chooses nothing.
    page = blocked
    page.goto(CONDITION)
    _row(page, "rub").get_by_label("heavy", exact=True).click()
    _row(page, "rub").get_by_role("button", name="Save").click()
    expect(page.locator(".said")).to_contain_text("Saved")
    _chosen(page, "rub", "heavy")
    before = page.locator(".readings tr").count()
    page.get_by_role("button", name="Read the meter").click()
    expect(page.locator(".readings tr")).to_have_count(before + 1)
    page.goto(f"{RISE}/survey/walk?at=wing-east")
    page.get_by_role("button", name="Width and heights taken: tick").click()
    expect(page.get_by_role("button", name="Width and heights taken: take the tick away")).to_be_visible()
    page.goto(f"{RISE}/survey/opening/back-w1")
    page.locator("main [name=width_m]").fill("0.8")
    page.get_by_role("button", name="Save").click()
    expect(page.locator("main [name=width_m]")).to_have_value("0.8")
    page.goto(f"{RISE}/plan")
    page.get_by_role("button", name="Plan again from now").click()
    expect(page.locator(".plan-day").first).to_be_visible()
    page.get_by_role("navigation").get_by_role("link", name="Today").click()
    expect(page.locator(".work-card").first).to_be_visible()
    expect(page.get_by_role("button", name="Print")).to_be_hidden()


def test_what_is_chosen_before_late_scripts_come_is_saved_when_they_do(tablet: Page) -> None:
    tablet.add_init_script(SLOW_TIMERS)
    with held(tablet, SCRIPTS) as scripts:
        tablet.goto(CONDITION, wait_until="commit")
        _row(tablet, "rub").get_by_label("heavy", exact=True).tap()
        expect(_row(tablet, "rub").get_by_role("button", name="Save")).to_be_visible()
        with tablet.expect_response(lambda r: r.url.endswith("/condition/test")):
            scripts.let_go()
    expect(_row(tablet, "rub").locator(".test-mark")).to_have_text("✓")
    expect(_row(tablet, "rub").get_by_role("button", name="Save")).to_be_hidden()
    _chosen(tablet, "rub", "heavy")


def test_the_meter_is_read_before_late_scripts_come(tablet: Page) -> None:
    tablet.goto(CONDITION)
    before = tablet.locator(".readings tr").count()
    with held(tablet, SCRIPTS) as scripts:
        tablet.reload(wait_until="commit")
        tablet.get_by_role("button", name="Read the meter").tap()
        expect(tablet.locator(".readings tr")).to_have_count(before + 1)
        scripts.let_go()
    expect(tablet.locator("html")).to_have_attribute("data-ready", "")
    expect(tablet.locator(".readings tr")).to_have_count(before + 1)


def test_nothing_moves_under_a_finger_when_the_sky_arrives(
    contexts: Callable[..., BrowserContext], ctx: Context
) -> None:
    """On a tablet the strip grew by 76 px when it came, and took what was about to be tapped with it."""
    tops: dict[int, list[float]] = {}
    for size in (WIDE, TABLET, PHONE):
        ctx.space.computed = Computed()
        page = contexts(**size).new_page()
        with held(page, "**/sky") as answers:
            page.goto(CONDITION)
            expect(page.locator(".sky-none")).to_be_attached()
            measured = [page.locator("main").bounding_box()]
            answers.let_go()
            expect(page.locator(".sky-readings")).to_be_attached()
            measured.append(page.locator("main").bounding_box())
        tops[size["viewport"]["width"]] = [box["y"] for box in measured if box is not None]
    assert {width: len(set(found)) for width, found in tops.items()} == dict.fromkeys(tops, 1), tops


def test_the_last_of_quick_taps_counts(tablet: Page) -> None:
    tablet.goto(CONDITION)
    with held(tablet, "**/condition/test") as answers:
        for value in ("heavy", "none", "light"):
            _row(tablet, "rub").get_by_label(value, exact=True).tap()
        expect(tablet.locator(".tap-note")).to_have_text("Under way…")
        answers.let_go()
        expect(tablet.locator(".tap-note")).to_have_count(0)
    expect(_row(tablet, "rub").get_by_label("light", exact=True)).to_be_checked()
    _chosen(tablet, "rub", "light")


def test_an_added_reading_and_one_from_the_meter_both_show(tablet: Page) -> None:
    tablet.goto(CONDITION)
    before = tablet.locator(".readings tr").count()
    with held(tablet, re.compile("/condition/(moisture|meter)$")) as answers:
        tablet.locator(".moist-add [name=pct]").fill("14.5")
        tablet.get_by_role("button", name="Add", exact=True).tap()
        tablet.get_by_role("button", name="Read the meter").tap()
        tablet.get_by_role("button", name="Read the meter").tap()
        answers.let_go()
        expect(tablet.locator(".readings tr")).to_have_count(before + 2)
        expect(tablet.locator(".tap-note")).to_have_count(0)
    tablet.reload()
    expect(tablet.locator(".readings tr")).to_have_count(before + 2)


def test_openings_drawn_faster_than_the_program_answers_are_all_there(page: Page) -> None:
    page.goto(f"{RISE}/survey/face/back")
    openings = page.locator("#picture a.part[data-kind=opening]")
    before = openings.count()
    page.locator(".tools > .tool", has_text="Window").click()
    with held(page, "**/opening/save") as answers:
        for x in (0.4, 1.6, 2.8, 4.0):
            page.mouse.click(*on_screen(page, x, 1.2))
        answers.let_go()
        expect(openings).to_have_count(before + 4)
    page.reload()
    expect(openings).to_have_count(before + 4)


def test_a_program_that_does_not_answer_is_told_where_it_was_asked(
    contexts: Callable[..., BrowserContext],
) -> None:
    page = contexts(quiet=True, **WIDE).new_page()
    page.goto(CONDITION)
    before = page.locator(".readings tr").count()
    page.route("**/condition/moisture", lambda route: route.abort())
    page.locator(".moist-add [name=pct]").fill("13")
    page.get_by_role("button", name="Add", exact=True).click()
    note = page.locator("#moisture .tap-note")
    expect(note).to_contain_text("Not sent: the program does not answer")
    expect(page.locator(".moist-add [name=pct]")).to_have_value("13")
    page.unroute("**/condition/moisture")
    note.get_by_role("button", name="Try again").click()
    expect(page.locator(".readings tr")).to_have_count(before + 1)
    expect(page.locator(".tap-note")).to_have_count(0)


def test_a_fault_of_the_program_leaves_what_was_typed(contexts: Callable[..., BrowserContext]) -> None:
    page = contexts(quiet=True, **WIDE).new_page()
    page.goto(f"{RISE}/survey/opening/back-w1")
    words = '{"type": "about:blank", "title": "Something went wrong", "status": 500, "detail": "Nothing was saved."}'
    page.route("**/opening/save", lambda r: r.fulfill(status=500, content_type="application/problem+json", body=words))
    page.locator("main [name=width_m]").fill("0.85")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_role("alert")).to_contain_text("Something went wrong. Nothing was saved.")
    expect(page.locator("main [name=width_m]")).to_have_value("0.85")
    page.unroute("**/opening/save")
    with page.expect_response("**/opening/save"):
        page.get_by_role("button", name="Try again").click()
    expect(page.get_by_role("alert")).to_have_count(0)
    page.reload()
    expect(page.locator("main [name=width_m]")).to_have_value("0.85")


def test_a_window_moved_again_before_the_program_answered_lies_where_it_was_put_last(page: Page) -> None:
    page.goto(f"{RISE}/survey/face/back")
    window = page.locator('#picture a.part[data-kind=opening][data-id="back-w1"]')
    x = float(window.get_attribute("data-x") or 0)
    with held(page, "**/place") as answers:
        for shift in (0.4, 0.9):
            middle = on_screen(page, x + 0.45, 4.3)
            Mouse(page).drag(middle, on_screen(page, x + 0.45 + shift, 4.3))
        expect(page.locator(".tap-note")).to_have_text("Under way…")
        answers.let_go()
        expect(page.locator(".tap-note")).to_have_count(0)
    expect(window).to_have_attribute("data-x", re.compile(rf"^{x + 0.9:.1f}"))
    expect(page.get_by_role("alert")).to_have_count(0)
