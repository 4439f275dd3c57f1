"""The demo behind real HTTP on the loopback, and Debian's Chromium."""

import shutil
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from amber_gable.standins.weather.service import weather_service
from amber_gable.web.app import create_app
from amber_gable.web.run import demo_space, open_database
from tests.web.server import running

# Two test workers share two cores; a slow answer is not a wrong one.
expect.set_options(timeout=15_000)
CHROMIUM_OPTIONS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update"]


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    path = shutil.which("chromium")
    assert path, "Debian's chromium is needed: apt-get install chromium"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=path, args=CHROMIUM_OPTIONS)
        yield browser
        browser.close()


@pytest.fixture(scope="module")
def address(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    path: Path = tmp_path_factory.mktemp("browser") / "demo.sqlite3"
    with running(weather_service()) as weather:
        space = demo_space(open_database(path), int(weather.rsplit(":", 1)[1]))
        with running(create_app(space)) as app:
            yield app


@pytest.fixture
def page(chromium: Browser, address: str) -> Iterator[Page]:
    """A page that fails its test when the browser reports an error or a blocked script or style."""
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, base_url=address)
    page = context.new_page()
    complaints: list[str] = []
    page.on("console", lambda m: complaints.append(m.text) if m.type in ("error", "warning") else None)
    page.on("pageerror", lambda e: complaints.append(str(e)))
    yield page
    expected = [c for c in complaints if "409" not in c and "422" not in c]
    context.close()
    assert expected == []
