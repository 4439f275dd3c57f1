"""The job walked through in a browser, as a contractor would: mouse, keyboard, back button, two tabs, phone."""

import re

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Page, expect

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"
STAGES = ["survey", "specification", "quantities", "weather", "plan", "today"]
SURVEY = [
    "face/front", "face/new", "opening/front-w1", "zone/front-trim", "item/shutters-1", "photos", "files",
    "zone/front-siding/condition", "item/front-door-item/condition", "walk?at=wing-east", "walk?at=end",
    "face/west-gable/surroundings",
]  # fmt: skip
PAGES = ["/", *(f"{RISE}/{s}" for s in STAGES), *(f"{RISE}/survey/{s}" for s in SURVEY)]


def test_from_the_jobs_list_to_the_day_sheet(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name=re.compile("14 Cooper's Rise")).click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Today")
    for stage in ("Survey", "Specification", "Quantities", "Weather", "Plan", "Today"):
        page.get_by_role("navigation").get_by_role("link", name=stage).click()
        expect(page.get_by_role("heading", level=1)).to_have_text(stage)
        expect(page.locator(".sky-readings")).to_contain_text("Dew point")
    expect(page.locator(".now-card")).to_contain_text("Wash by hose and brush")
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
    box = lanes.locator("svg").bounding_box()
    assert box
    geometry = lanes.evaluate("e => ({...e.dataset})")
    row, slot = 2, (12 - 4) * 2
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
    expect(why).to_contain_text("West gable, Tue 15 Sep 14:00")
    page.reload()
    expect(page.locator("#why")).to_contain_text("West gable, Tue 15 Sep 14:00")
    page.get_by_label("Half an hour later").click()
    expect(page.locator("#why")).to_contain_text("West gable, Tue 15 Sep 14:30")


def test_lanes_work_as_plain_links_without_scripts(chromium: Browser, address: str) -> None:
    context = chromium.new_context(java_script_enabled=False, base_url=address, viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(f"{RISE}/weather")
    page.locator(".lane").nth(2).locator("rect.seg.open").nth(1).click(force=True)
    expect(page.locator("#why .answer")).to_contain_text("Yes, until")
    context.close()


def test_an_impatient_double_click_plans_once(page: Page) -> None:
    page.goto(f"{RISE}/plan")
    posts: list[str] = []
    page.on("request", lambda r: posts.append(r.url) if r.method == "POST" else None)
    page.get_by_role("button", name="Plan again from now").dblclick()
    expect(page.locator(".plan-day").first).to_be_visible()
    assert len(posts) == 1


def serious_barriers(page: Page) -> list[str]:
    found = Axe().run(page).response["violations"]
    return [
        f"{v['id']}: {[n['target'] for n in v['nodes'][:2]]}" for v in found if v["impact"] in ("serious", "critical")
    ]


WIDE = [f"{RISE}/specification", f"{RISE}/weather", "/jobs/heron-deck/weather", "/jobs/heron-deck/survey/face/deck"]


@pytest.mark.parametrize("path", WIDE)
def test_no_wide_page_has_a_serious_barrier(page: Page, path: str) -> None:
    page.goto(path)
    assert serious_barriers(page) == []


@pytest.mark.parametrize(("path", "theme"), [*((p, "day") for p in PAGES), *((p, "night") for p in PAGES[:8])])
def test_on_a_phone_nothing_sticks_out_and_targets_are_large(
    chromium: Browser, address: str, path: str, theme: str
) -> None:
    size = {"width": 390, "height": 844}
    context = chromium.new_context(viewport=size, has_touch=True, is_mobile=True, base_url=address)
    context.add_cookies([{"name": "theme", "value": theme, "url": address}])
    page = context.new_page()
    page.goto(path)
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
    small = page.evaluate(
        # A tick is as large as the label round it.
        """() => [...document.querySelectorAll('.act, .school-option, select, .rail li a, '
                + 'input:not([type=hidden], [type=checkbox], [type=radio])')]
            .filter(e => e.offsetParent && e.getBoundingClientRect().height < 43.5)
            .map(e => e.outerHTML.slice(0, 80))"""
    )
    assert small == []
    if theme == "day":
        assert serious_barriers(page) == []
    context.close()


def test_the_day_sheet_prints_on_one_page(page: Page) -> None:
    page.goto(f"{RISE}/today?day=2026-09-16")
    for paper in ("A4", "Letter"):
        pdf = page.pdf(format=paper)
        assert len(re.findall(rb"/Type\s*/Page\b", pdf)) == 1, paper
