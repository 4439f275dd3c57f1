"""Takes the pictures in docs/screenshots from the demo data: `make screenshots`."""

import tempfile
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

from amber_gable.domain.job.site_record import Said
from amber_gable.run import demo_space, open_database
from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.long_runs import FewerDays
from amber_gable.services.today.noting import Note, note_tasks
from amber_gable.services.workspace import Workspace
from amber_gable.standins.weather.service import weather_service
from amber_gable.web.app import create_app
from tests.browser.conftest import CHROMIUM_OPTIONS, chromium_path
from tests.web.server import running

OUT = Path(__file__).parents[2] / "docs" / "screenshots"
RISE = "/jobs/coopers-rise"
WIDE, PHONE = (1280, 800), (390, 844)
# name -> path, size, demo clock
SHOTS = {
    "survey": (f"{RISE}/survey", WIDE, "2026-09-14T06:30-03:00"),
    "survey-face": (f"{RISE}/survey/opening/front-w4", WIDE, "2026-09-14T06:30-03:00"),
    "survey-condition": (f"{RISE}/survey/zone/front-siding/condition", WIDE, "2026-09-14T06:30-03:00"),
    "specification": (f"{RISE}/specification", WIDE, "2026-09-14T06:30-03:00"),
    "specification-part": (f"{RISE}/specification/item/front-w2-item", (1280, 1100), "2026-09-14T06:30-03:00"),
    "specification-colours": (f"{RISE}/specification/colours?right=harbour&hour=17", WIDE, "2026-09-14T06:30-03:00"),
    "stores": ("/stores", WIDE, "2026-09-14T06:30-03:00"),
    "quantities": (f"{RISE}/quantities", WIDE, "2026-09-14T06:30-03:00"),
    "stock": ("/stores/stock", WIDE, "2026-09-14T06:30-03:00"),
    "estimate": (f"{RISE}/estimate", WIDE, "2026-09-14T06:30-03:00"),
    "weather": (f"{RISE}/weather?product=coat&face=back&at=2026-09-15T12:30:00-03:00", WIDE, "2026-09-14T06:30-03:00"),
    "weather-film": (
        f"{RISE}/weather/film?product=coat&face=west-gable&at=2026-09-16T16:30:00-03:00",
        WIDE,
        "2026-09-14T06:30-03:00",
    ),
    "weather-sun": (f"{RISE}/weather/sun?product=coat&at=2026-09-15T15:00:00-03:00", WIDE, "2026-09-14T06:30-03:00"),
    "plan": ("/jobs/quarry-lane/plan", WIDE, "2026-09-14T06:30-03:00"),
    "today": (f"{RISE}/today", WIDE, "2026-09-16T13:40-03:00"),
    "today-phone": (f"{RISE}/today", PHONE, "2026-09-16T13:40-03:00"),
    "weather-phone": (
        f"{RISE}/weather?product=coat&face=west-gable&at=2026-09-16T13:30:00-03:00",
        PHONE,
        "2026-09-16T13:40-03:00",
    ),
    "jobs": ("/", WIDE, "2026-09-16T13:40-03:00"),
}


def _keep_up(ctx: Context, job: str) -> None:
    """Note what should have been done by now, as it was planned."""
    board = job_view(ctx, job).board
    for state in board.late if board is not None else ():
        note_tasks(ctx, job, [state.task.id], Note(said=Said.DONE, by="Ina", at=state.task.end))


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        running(weather_service()) as weather,
        sync_playwright() as playwright,
    ):
        ctx = Context(demo_space(open_database(Path(folder) / "demo.sqlite3"), int(weather.rsplit(":", 1)[1])))
        # The plan is shown once fewer days were looked for.
        ctx.space.runner.submit(ctx, FewerDays("quarry-lane")).wait(120)
        browser = playwright.chromium.launch(executable_path=chromium_path(), args=CHROMIUM_OPTIONS)
        with running(create_app(ctx.space)) as address:
            for name, (path, (width, height), clock) in SHOTS.items():
                page = browser.new_page(viewport={"width": width, "height": height}, base_url=address)
                headers = {"origin": address}
                page.request.post(f"{address}/clock", form={"to": clock}, headers=headers)
                if clock > "2026-09-14T07":
                    _keep_up(ctx, "coopers-rise")
                page.goto(path)
                page.evaluate("document.fonts.ready")
                # What is worked out or fetched beside the page has come.
                page.wait_for_load_state("networkidle")
                page.wait_for_function("!document.querySelector('#sureness progress, #compare[hx-get]')")
                page.wait_for_load_state("networkidle")
                page.screenshot(path=OUT / f"{name}.png")
                page.close()
                print(OUT / f"{name}.png")
        _empty_program(browser, Path(folder))
        browser.close()


def _empty_program(browser: Browser, folder: Path) -> None:
    """As it is first opened, at the demo's hour."""
    database = open_database(folder / "empty.sqlite3")
    with running(create_app(Workspace(database, DemoClock(database), None))) as address:
        page = browser.new_page(viewport={"width": WIDE[0], "height": WIDE[1]}, base_url=address)
        page.goto("/")
        page.evaluate("document.fonts.ready")
        page.wait_for_load_state("networkidle")
        page.screenshot(path=OUT / "start.png")
        print(OUT / "start.png")


if __name__ == "__main__":
    main()
