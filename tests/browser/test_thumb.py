"""On a phone what is touched on site is as large as a thumb, and what is read there is large enough."""

from collections.abc import Callable
from datetime import datetime
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page

from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from tests.browser.conftest import PHONE

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"
LEAST_PX, READ_PX, AXIS_PX = 44, 14, 12
# Links in running text are read, not hunted for; lanes answer over their whole width, and by the buttons above them.
SMALL = """() => {
  const touched = "a, button, select, summary, input:not([type=hidden], [type=radio], [type=checkbox])";
  return [...document.querySelectorAll(touched)]
    .filter((e) => e.checkVisibility() && !e.matches(".skip, .visually-hidden") && !e.closest("svg"))
    .filter((e) => !(e.matches("p a, li a, dd a") && getComputedStyle(e).display === "inline"))
    .map((e) => [Math.round(e.getBoundingClientRect().height), e.outerHTML.slice(0, 90)]);
}"""
TEXT = """() => {
  const out = [], walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const e = walker.currentNode.parentElement, text = walker.currentNode.data.trim();
    if (!text || !e.checkVisibility() || e.closest(".visually-hidden, script, style")) continue;
    out.push([parseFloat(getComputedStyle(e).fontSize), !!e.closest("svg"), text.slice(0, 40)]);
  }
  return out;
}"""


@pytest.fixture
def phone(contexts: Callable[..., BrowserContext], ctx: Context) -> Page:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-16T14:20-03:00"))
    return contexts(**PHONE).new_page()


def test_targets_and_letters_are_large_enough(phone: Page) -> None:
    for path in ("/", f"{RISE}/today", f"{RISE}/weather", f"{RISE}/plan"):
        phone.goto(path)
        phone.wait_for_load_state("networkidle")
        targets: list[Any] = phone.evaluate(SMALL)
        assert len(targets) > 5, path
        assert [t for t in targets if t[0] < LEAST_PX] == [], path
        text: list[Any] = phone.evaluate(TEXT)
        assert len(text) > 20, path
        assert [t for t in text if t[0] < (AXIS_PX if t[1] else READ_PX)] == [], path


def test_the_plan_begins_with_today(phone: Page) -> None:
    phone.goto(f"{RISE}/plan")
    tops = {
        name: phone.locator(what).first.bounding_box()
        for name, what in (("today", ".plan-day:not(.over)"), ("over", ".plan-day.over"), ("lanes", ".lanes"))
    }
    today, over, lanes = (tops[n] for n in ("today", "over", "lanes"))
    assert today is not None and over is not None and lanes is not None
    assert today["y"] < over["y"] and today["y"] < lanes["y"]
