"""One visit to every page: on a phone and at the table, by day and by night, nothing sticks out, what is touched is
large enough, and nobody is shut out."""

from collections.abc import Callable

import pytest
from playwright.sync_api import BrowserContext

from amber_gable.services.job.stages import STAGES
from tests.browser.conftest import PHONE, serious_barriers, sticks_out

pytestmark = pytest.mark.browser
RISE = "/jobs/coopers-rise"
SPEC = f"{RISE}/specification"
PAGES = {
    "stages": ["/", *(f"{RISE}/{s.path}" for s in STAGES)],
    "drawing table": [
        f"{RISE}/survey/{s}"
        for s in (
            "face/front", "face/new", "block", "opening/front-w1", "zone/front-trim", "item/shutters-1", "photos",
            "files",
        )
    ],
    "condition and walk": [
        f"{RISE}/survey/{s}"
        for s in (
            "zone/front-siding/condition", "item/front-door-item/condition", "walk?at=wing-east", "walk?at=end",
            "face/west-gable/surroundings", "findings", "block/floor", "block/fence", "block/walk",
        )
    ],
    "specification": [
        f"{SPEC}/zone/front-siding", f"{SPEC}/item/shutters-1", f"{SPEC}/colours",
        "/jobs/heron-deck/specification/zone/deck-boards", f"{SPEC}/others", f"{RISE}/today/found/zone/front-siding",
    ],
    "stores and a deck": [
        "/stores", "/stores/product/skerry-housecoat", "/stores/colours", "/jobs/heron-deck/weather",
        "/jobs/heron-deck/survey/face/deck",
    ],
    "weather's own": [
        f"{RISE}/weather/{s}" for s in ("moisture", "typed", "film?face=back", "film/compare", "sun", "season")
    ],
    "settings": [
        "/settings", "/settings/company", "/settings/rates", "/glossary", f"{RISE}/details",
        "/stores/product/own", "/jump?find=gable", "/stores/stock", "/stores/stock/labels",
    ],
}  # fmt: skip
# Laid out otherwise at the table than on a phone.
TWO_LAYOUTS = {
    SPEC, f"{RISE}/weather", f"{RISE}/survey/face/front", "/jobs/heron-deck/survey/face/deck",
}  # fmt: skip
# Between them they show every part of the style sheets.
BY_NIGHT = {
    "/",
    f"{RISE}/weather",
    f"{RISE}/weather/film?face=back",
    f"{RISE}/weather/moisture",
    "/settings",
    f"{RISE}/weather/sun",
    f"{RISE}/today",
    f"{RISE}/survey/face/front",
    f"{SPEC}/zone/front-siding",
    "/stores",
}
# A tick is as large as the label round it.
SMALL = """() => [...document.querySelectorAll('.act, .school-option, select, .rail li a, .tally, .kind, '
    + 'input:not([type=hidden], [type=checkbox], [type=radio])')]
    .filter(e => e.offsetParent && e.getBoundingClientRect().height < 43.5).map(e => e.outerHTML.slice(0, 80))"""


@pytest.mark.parametrize("pages", PAGES.values(), ids=PAGES)
def test_no_page_shuts_anybody_out(contexts: Callable[..., BrowserContext], pages: list[str]) -> None:
    page = contexts(**PHONE).new_page()
    found: dict[str, object] = {}
    for path in pages:
        page.set_viewport_size({"width": 390, "height": 844})
        page.goto(path)
        found[f"{path}: sticks out on a phone"] = sticks_out(page)
        found[f"{path}: too small to touch"] = page.evaluate(SMALL)
        found[f"{path}: barriers"] = serious_barriers(page)
        if path in BY_NIGHT:
            page.evaluate("document.documentElement.dataset.bsTheme = 'dark'")
            found[f"{path}: barriers by night"] = serious_barriers(page, only_contrast=True)
        page.set_viewport_size({"width": 1280, "height": 800})
        found[f"{path}: sticks out at the table"] = sticks_out(page)
        if path in TWO_LAYOUTS:
            page.evaluate("document.documentElement.dataset.bsTheme = 'light'")
            found[f"{path}: barriers at the table"] = serious_barriers(page)
    assert {where: what for where, what in found.items() if what} == {}
