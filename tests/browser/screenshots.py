"""Takes the pictures in docs/screenshots from the demo data: `make screenshots`."""

import io
import shutil
import tempfile
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import Browser, sync_playwright

from amber_gable.core.survey.homography import homography
from amber_gable.run import demo_space, open_database
from amber_gable.services.job_view import job_view
from amber_gable.services.today.noting import Note, note_tasks
from amber_gable.services.workspace import Workspace
from amber_gable.standins.weather.service import weather_service
from amber_gable.web.app import create_app
from tests.browser.conftest import CHROMIUM_OPTIONS
from tests.web.server import running

OUT = Path(__file__).parents[2] / "docs" / "screenshots"
RISE = "/jobs/coopers-rise"
WIDE, PHONE = (1280, 800), (390, 844)
# name -> path, size, demo clock
SHOTS = {
    "jobs": ("/", WIDE, "2026-09-14T06:30-03:00"),
    "survey": (f"{RISE}/survey", WIDE, "2026-09-14T06:30-03:00"),
    "survey-face": (f"{RISE}/survey/opening/front-w4", WIDE, "2026-09-14T06:30-03:00"),
    "survey-condition": (f"{RISE}/survey/zone/front-siding/condition", WIDE, "2026-09-14T06:30-03:00"),
    "survey-walk-phone": (f"{RISE}/survey/walk?at=wing-back", PHONE, "2026-09-14T06:30-03:00"),
    "survey-findings": (f"{RISE}/survey/findings", WIDE, "2026-09-14T06:30-03:00"),
    "survey-photo": (f"{RISE}/survey/photos/photo-1", WIDE, "2026-09-14T06:30-03:00"),
    "specification": (f"{RISE}/specification", WIDE, "2026-09-14T06:30-03:00"),
    "specification-part": (f"{RISE}/specification/item/front-w2-item", (1280, 1100), "2026-09-14T06:30-03:00"),
    "specification-colours": (f"{RISE}/specification/colours?right=harbour&hour=17", WIDE, "2026-09-14T06:30-03:00"),
    "stores": ("/stores", WIDE, "2026-09-14T06:30-03:00"),
    "quantities": (f"{RISE}/quantities", WIDE, "2026-09-14T06:30-03:00"),
    "weather": (f"{RISE}/weather?product=coat&face=back&at=2026-09-15T12:30:00-03:00", WIDE, "2026-09-14T06:30-03:00"),
    "weather-film": (
        f"{RISE}/weather/film?product=coat&face=west-gable&at=2026-09-16T16:30:00-03:00",
        WIDE,
        "2026-09-14T06:30-03:00",
    ),
    "weather-sun": (f"{RISE}/weather/sun?product=coat&at=2026-09-15T15:00:00-03:00", WIDE, "2026-09-14T06:30-03:00"),
    "plan": (f"{RISE}/plan", WIDE, "2026-09-14T06:30-03:00"),
    "today": (f"{RISE}/today", WIDE, "2026-09-16T13:40-03:00"),
    "today-phone": (f"{RISE}/today", PHONE, "2026-09-16T13:40-03:00"),
    "weather-phone": (
        f"{RISE}/weather?product=coat&face=west-gable&at=2026-09-16T13:30:00-03:00",
        PHONE,
        "2026-09-16T13:40-03:00",
    ),
}


def _made_up_photo(browser: Browser, address: str) -> None:
    """A picture as if taken aslant of the east gable: its drawing, seen in perspective, with its marks."""
    page = browser.new_page(viewport={"width": 1280, "height": 900}, base_url=address)
    page.goto(f"{RISE}/survey/face/east-gable")
    box = page.locator("#picture svg.elevation").bounding_box()
    assert box
    flat = Image.open(io.BytesIO(page.screenshot(clip=box))).convert("RGB")  # type: ignore[arg-type]
    svg = page.locator("#picture svg.elevation").evaluate("e => ({...e.dataset})")
    page.close()
    left, ground, scale = (float(svg[k]) for k in ("left", "ground", "scale"))
    right, top = left + 7.4 * scale, ground - 5.6 * scale
    wall = [(left, ground), (right, ground), (right, top), (left, top)]
    seen = ((150.0, 690.0), (930.0, 610.0), (905.0, 150.0), (205.0, 80.0))
    back = homography(seen, (wall[0], wall[1], wall[2], wall[3]))
    size, sky = (1100, 760), (196, 208, 214)
    lens = tuple(back.flatten()[:8])
    shown = flat.transform(size, Image.Transform.PERSPECTIVE, lens, Image.Resampling.BICUBIC, fillcolor=sky)
    out = io.BytesIO()
    shown.save(out, "JPEG", quality=90)
    there = np.linalg.inv(back)

    def at(x: float, y: float) -> str:
        u, v, w = there @ np.array([left + x * scale, ground - y * scale, 1.0])
        return f"{u / w:.1f}, {v / w:.1f}"

    headers = {"origin": address}
    files = {"file": {"name": "East gable.jpg", "mimeType": "image/jpeg", "buffer": out.getvalue()}}
    asked = browser.new_page()
    asked.request.post(f"{address}{RISE}/survey/photos?face=east-gable", multipart=files, headers=headers)
    marks = {f"c{n}": at(x, y) for n, (x, y) in enumerate(((0, 0), (7.4, 0), (7.4, 5.6), (0, 5.6)), 1)}
    window = {"a": at(3.2, 3.6), "b": at(4.1, 3.6), "length": "0.9 m"}
    window |= {"a2": at(3.2, 3.6), "b2": at(3.2, 5.0), "length2": "1.4 m", "m1": at(1.0, 1.3), "m2": at(1.3, 1.75)}
    asked.request.post(f"{address}{RISE}/survey/photos/photo-1/measure", form=marks | window, headers=headers)
    asked.close()


def _keep_up(space: Workspace, job: str) -> None:
    """Note what should have been done by now, as it was planned."""
    board = job_view(space, job).board
    for state in board.late if board is not None else ():
        note_tasks(space, job, [state.task.id], Note("done", "Ina", state.task.end.isoformat()))


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
            _made_up_photo(browser, address)
            for name, (path, (width, height), clock) in SHOTS.items():
                page = browser.new_page(viewport={"width": width, "height": height}, base_url=address)
                headers = {"origin": address}
                page.request.post(f"{address}/clock", form={"to": clock}, headers=headers)
                if clock > "2026-09-14T07":
                    _keep_up(space, "coopers-rise")
                page.goto(path)
                page.evaluate("document.fonts.ready")
                # What is worked out or fetched beside the page has come.
                page.wait_for_load_state("networkidle")
                page.wait_for_function("!document.querySelector('#sureness progress, #compare[hx-get]')")
                page.wait_for_load_state("networkidle")
                page.screenshot(path=OUT / f"{name}.png")
                page.close()
                print(OUT / f"{name}.png")
        browser.close()


if __name__ == "__main__":
    main()
