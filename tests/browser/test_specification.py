"""The specification in the browser: from nothing to a complete one, by mouse and by keyboard, at every size."""

import json
import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.jobs import coopers_rise_json

pytestmark = pytest.mark.browser
SPEC = "/jobs/coopers-rise/specification"


@pytest.fixture
def bare_job(tmp_path: Path) -> Path:
    """14 Cooper's Rise as surveyed, with nothing specified, under another name."""
    raw = coopers_rise_json()
    raw["job"] |= {"id": "rise-bare", "name": "14 Cooper's Rise, anew", "finishes": [], "schemes": [], "schools": {}}
    raw["property"]["id"] = "rise-bare"
    raw["property"]["photos"] = []
    path = tmp_path / "rise-bare.json"
    path.write_text(json.dumps(raw))
    return path


def test_from_an_empty_specification_to_a_complete_one(page: Page, bare_job: Path) -> None:
    page.goto("/")
    page.set_input_files("input[type=file]", bare_job)
    page.get_by_role("button", name="Import").click()
    expect(page).to_have_url(re.compile("/jobs/rise-bare/"))
    page.goto("/jobs/rise-bare/specification")
    expect(page.locator(".answer")).to_contain_text("28 parts have no steps yet")
    page.get_by_role("button", name="Derive from the survey").click()
    expect(page.locator(".said")).to_contain_text("28 parts are changed")
    expect(page.locator(".spec-line.open")).to_have_count(0)

    page.locator(".spec-line", has_text="Siding").first.click()
    page.locator("select[name=library]").select_option("Oat")
    page.get_by_role("button", name="Set colour").click()
    expect(page.locator(".said")).to_contain_text("Saved")
    page.get_by_role("button", name=re.compile("Same colour")).click()
    expect(page.locator(".said")).to_contain_text("6 like parts set")
    # Each step says what, on how much, for how long, and because of which finding.
    steps = page.locator(".told > li")
    assert steps.count() >= 10
    for i in range(steps.count()):
        step = steps.nth(i)
        expect(step.locator(".told-on")).to_have_text(re.compile(r"\d|once"))
        expect(step.locator(".told-sum")).to_have_text(re.compile(r"(min|h)"))
        if "film" not in (step.get_attribute("class") or ""):
            expect(step.locator(".because")).to_contain_text("because")
    # Every finding that asks for something is answered by a step or says what to do.
    for finding in page.locator(".findings li").all():
        assert len(finding.inner_text()) > 30

    page.goto("/jobs/rise-bare/specification")
    page.get_by_label("Read by").fill("Wren Calloway")
    page.get_by_role("button", name="I have read them all").click()
    expect(page.locator("#safety")).to_contain_text("read by Wren Calloway")
    expect(page.locator("#safety")).not_to_contain_text("not read")
    expect(page.locator(".answer")).to_contain_text("4 parts ask for a decision")
    expect(page.locator(".spec-line.done")).to_have_count(24)
    page.goto("/jobs/rise-bare/quantities")
    expect(page.locator(".orders")).to_contain_text("Oat")
    expect(page.locator("main")).not_to_contain_text("Not in these litres")


def test_a_school_and_a_step_by_keyboard_alone(page: Page) -> None:
    page.goto(f"{SPEC}/zone/east-gable-siding")
    before = page.locator(".told > li").count()
    page.locator("summary", has_text="Schools side by side").press("Enter")
    table = page.locator("table.schools", has_text="Is sound paint primed?")
    table.get_by_role("button", name="Take").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".said")).to_contain_text("in: Primer all over")
    expect(page.locator(".told > li")).to_have_count(before + 1)
    page.locator("table.schools").get_by_role("button", name="As the job").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".told > li")).to_have_count(before)
    change = page.locator(".told-edit summary").nth(1)
    change.focus()
    page.keyboard.press("Enter")
    page.locator(".told-edit[open] [name=reason]").focus()
    page.keyboard.type("agreed with the customer")
    page.keyboard.press("Enter")
    expect(page.locator(".told .by-hand")).to_have_count(1)
    expect(page.locator(".told .by-hand .because")).to_contain_text("by hand: agreed with the customer")
    page.go_back()
    page.reload()
    expect(page.locator(".told .by-hand")).to_have_count(1)


def test_a_forbidden_step_keeps_what_was_typed(page: Page) -> None:
    page.goto(f"{SPEC}/zone/west-gable-siding")
    page.locator(".told-edit summary").first.click()
    form = page.locator(".told-edit[open] form")
    form.locator("[name=technique]").select_option("pressure-wash")
    form.locator("[name=reason]").fill("quicker")
    form.get_by_role("button", name="Change it").click()
    expect(page.locator(".warn.stop").first).to_contain_text("forbidden here (lead)")
    expect(page.locator(".told-edit[open] [name=reason]")).to_have_value("quicker")


def test_the_house_turns_with_the_hour(page: Page) -> None:
    asked: list[str] = []
    page.on("request", lambda r: asked.append(r.url) if "/colours/preview" in r.url else None)
    page.goto(f"{SPEC}/colours?right=harbour&hour=9")
    page.wait_for_timeout(200)
    assert asked == [], "nothing was chosen yet"
    east = page.locator("figure", has_text="East gable").first
    expect(east).to_contain_text("in the sun")
    fill = east.locator("svg path[fill]").first.get_attribute("fill")
    page.locator("#hour").focus()
    for _ in range(16):
        page.keyboard.press("ArrowRight")
    expect(page.locator(".preview-when")).to_contain_text("17:00")
    expect(east).to_contain_text("in shade")
    assert east.locator("svg path[fill]").first.get_attribute("fill") != fill
    page.locator("select[name=right]").select_option("sage")
    expect(page.locator(".preview-name").nth(1)).to_contain_text("Sage and cream")
