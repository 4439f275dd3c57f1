"""The demo behind real HTTP on the loopback, and Debian's Chromium. Each worker runs one server and one browser; every
test gets the demo as it was shipped, in a copy of its own."""

import shutil
from collections.abc import Callable, Iterator
from contextlib import ExitStack
from pathlib import Path
from typing import Any

import axe_playwright_python
import pytest
from fastapi import FastAPI
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from amber_gable.exchange.meter import HttpMeter
from amber_gable.exchange.weather.forecast import HttpForecast
from amber_gable.services.context import Context
from amber_gable.services.weather.faces import face_odds
from amber_gable.standins.weather.service import weather_service
from tests.web.server import running

# On a machine that other work shares a slow answer is not a wrong one; a quick one costs nothing of this.
PATIENCE_MS = 60_000
expect.set_options(timeout=PATIENCE_MS)
CHROMIUM_OPTIONS = [
    "--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update",
    # A machine without a screen draws on the processor: what glides for the eye alone is drawn once.
    "--disable-smooth-scrolling", "--disable-threaded-animation", "--num-raster-threads=1",
]  # fmt: skip
PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
TABLET = {"viewport": {"width": 820, "height": 1180}, "has_touch": True, "is_mobile": True}
WIDE = {"viewport": {"width": 1280, "height": 800}}


# The browser lets go of touches on a page it has not drawn yet: what nobody has seen, nobody has meant. And what is
# measured on a page moves when its fonts arrive.
PAINTED = """() => document.fonts.ready.then(() => new Promise(seen => {
  const look = () => performance.getEntriesByType("paint").length ? seen() : requestAnimationFrame(look)
  look()
}))"""


def drawn(page: Page) -> Page:
    """A page that is there when it is drawn, and not as soon as it is loaded."""
    for name in ("goto", "reload"):
        setattr(page, name, _drawn_after(page, getattr(page, name)))
    return page


def _drawn_after(page: Page, go: Callable[..., Any]) -> Callable[..., Any]:
    def going(*given: Any, **options: Any) -> Any:
        answer = go(*given, **options)
        page.evaluate(PAINTED)
        return answer

    return going


@pytest.fixture(autouse=True)
def few_futures(monkeypatch: pytest.MonkeyPatch) -> None:
    """Every page of lanes works out how sure it is: here it is seen that it comes, not what fifty futures say."""
    monkeypatch.setattr(face_odds, "MEMBERS", 4)


def chromium_path() -> str:
    """The one without windows of its own, which takes half the processor, or the whole browser."""
    path = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    assert path, "Debian's chromium is needed: apt-get install chromium-headless-shell"
    return path


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=chromium_path(), args=CHROMIUM_OPTIONS, timeout=PATIENCE_MS
        )
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def services() -> Iterator[str]:
    with running(weather_service()) as address:
        yield address


@pytest.fixture(scope="session")
def served(app: FastAPI) -> Iterator[str]:
    with running(app) as address:
        yield address


@pytest.fixture
def address(app: FastAPI, served: str, services: str, ctx: Context) -> str:
    """Where the browser finds a demo of this test's own, with its services over HTTP."""
    ctx.space.provider = HttpForecast(services, PATIENCE_MS / 1000)
    ctx.space.meter = HttpMeter(services, PATIENCE_MS / 1000)
    app.state.space = ctx.space
    return served


@pytest.fixture
def contexts(chromium: Browser, address: str) -> Iterator[Callable[..., BrowserContext]]:
    """Makes browser contexts that fail their test when a page reports an error or a blocked script or style."""
    complaints: list[str] = []
    with ExitStack() as closing:

        def make(*, quiet: bool = False, **options: Any) -> BrowserContext:
            context = chromium.new_context(base_url=address, **options)
            context.set_default_timeout(PATIENCE_MS)
            closing.callback(context.close)
            if options.get("java_script_enabled", True):
                context.new_page = lambda open_=context.new_page: drawn(open_())  # type: ignore[method-assign]
            if not quiet:
                context.on("console", lambda m: complaints.append(m.text) if m.type in ("error", "warning") else None)
                context.on("weberror", lambda e: complaints.append(str(e.error)))
            return context

        yield make
    assert [c for c in complaints if "409" not in c and "422" not in c] == []


@pytest.fixture
def page(contexts: Callable[..., BrowserContext]) -> Page:
    return contexts(**WIDE).new_page()


@pytest.fixture
def tablet(contexts: Callable[..., BrowserContext]) -> Page:
    return contexts(**TABLET).new_page()


def sticks_out(page: Page) -> bool:
    """Whether something is wider than the screen; a phone makes its window as wide as that, so its size counts."""
    size = page.viewport_size
    assert size is not None
    return int(page.evaluate("document.documentElement.scrollWidth")) > size["width"]


# Of what is written in the same style on the same ground one piece is enough to look at: a plan writes 3,000.
MARK_STYLES = """() => {
  const seen = new Set(), written = [...document.querySelectorAll('input, select, textarea')]
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  while (texts.nextNode()) if (texts.currentNode.data.trim()) written.push(texts.currentNode.parentElement)
  for (const e of written) {
    const style = getComputedStyle(e)
    let key = `${style.color}/${style.fill}/${style.opacity}`
    for (let at = e, n = 0; at && n < 4; at = at.parentElement, n++) key += `/${at.tagName}.${at.getAttribute('class')}`
    e.toggleAttribute('data-style-of-its-own', !seen.has(key))
    seen.add(key)
  }
}"""


def serious_barriers(page: Page, *, only_contrast: bool = False) -> list[str]:
    """What a checker of accessibility finds serious."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(CHECKER)
    page.evaluate(MARK_STYLES)
    found: list[dict[str, Any]] = page.evaluate(CHECK, ONLY_CONTRAST if only_contrast else ALL)
    return [
        f"{v['id']}: {[(n['target'], n['failureSummary']) for n in v['nodes'][:2]]}"
        for v in found
        if v["impact"] in ("serious", "critical")
    ]


CHECKER = (
    (Path(axe_playwright_python.__file__).parent / "axe.min.js").read_text(encoding="utf-8")
    + """
  axe.configure({rules: [{id: "color-contrast", selector: "[data-style-of-its-own]"}]})
"""
)
CHECK = "options => axe.run(document, options).then(r => r.violations)"
# Without what passed, which is a hundred times more to carry over. That all stands in a landmark is never serious, and
# a quarter of the work.
ALL = {"resultTypes": ["violations"], "preload": False, "rules": {"region": {"enabled": False}}}
ONLY_CONTRAST = ALL | {"runOnly": {"type": "rule", "values": ["color-contrast"]}}
