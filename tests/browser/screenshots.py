"""Takes the pictures in docs/screenshots from the demo data: `make screenshots`."""

import shutil
import tempfile
from pathlib import Path

from playwright.sync_api import sync_playwright

from amber_gable.standins.weather.service import weather_service
from amber_gable.web.app import create_app
from amber_gable.web.run import demo_space, open_database
from tests.browser.conftest import CHROMIUM_OPTIONS
from tests.web.server import running

OUT = Path(__file__).parents[2] / "docs" / "screenshots"
RISE = "/jobs/coopers-rise"
WIDE, PHONE = (1280, 800), (390, 844)
# name -> path, size, demo clock
SHOTS = {
    "jobs": ("/", WIDE, "2026-09-14T06:30-03:00"),
    "survey": (f"{RISE}/survey", WIDE, "2026-09-14T06:30-03:00"),
    "survey-face": (f"{RISE}/survey/opening/west-w1", WIDE, "2026-09-14T06:30-03:00"),
    "specification": (f"{RISE}/specification", WIDE, "2026-09-14T06:30-03:00"),
    "quantities": (f"{RISE}/quantities", WIDE, "2026-09-14T06:30-03:00"),
    "weather": (f"{RISE}/weather?face=back&at=2026-09-15T10:30:00-03:00", WIDE, "2026-09-14T06:30-03:00"),
    "plan": (f"{RISE}/plan", WIDE, "2026-09-14T06:30-03:00"),
    "today": (f"{RISE}/today", WIDE, "2026-09-16T11:10-03:00"),
    "today-phone": (f"{RISE}/today", PHONE, "2026-09-16T11:10-03:00"),
    "weather-phone": (f"{RISE}/weather?face=west-gable&at=2026-09-16T11:00:00-03:00", PHONE, "2026-09-16T11:10-03:00"),
}


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        running(weather_service()) as weather,
        sync_playwright() as playwright,
    ):
        space = demo_space(open_database(Path(folder) / "demo.sqlite3"), int(weather.rsplit(":", 1)[1]))
        browser = playwright.chromium.launch(executable_path=shutil.which("chromium"), args=CHROMIUM_OPTIONS)
        with running(create_app(space)) as address:
            for name, (path, (width, height), clock) in SHOTS.items():
                page = browser.new_page(viewport={"width": width, "height": height}, base_url=address)
                headers = {"origin": address}
                page.request.post(f"{address}/clock", form={"to": clock}, headers=headers)
                page.goto(path)
                page.evaluate("document.fonts.ready")
                page.screenshot(path=OUT / f"{name}.png")
                page.close()
                print(OUT / f"{name}.png")
        browser.close()


if __name__ == "__main__":
    main()
