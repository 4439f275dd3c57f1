"""A new user's first minutes, every field filled and every button pressed counted."""

import re
from pathlib import Path

import pytest
from fastapi import FastAPI
from playwright.sync_api import Locator, Page, expect

from amber_gable.store.jobs import list_jobs, load_bundle
from tests.browser.conftest import serious_barriers
from tests.fixtures import open_space

pytestmark = pytest.mark.browser


def test_a_house_of_four_walls_and_sixteen_windows_in_20_touches(page: Page, app: FastAPI, tmp_path: Path) -> None:
    """From an empty program, in metres: two gables, a door, a row of windows on each storey, all of them to paint."""
    space = app.state.space = open_space(tmp_path / "empty.sqlite3")
    space.provider = None
    touches = 0

    def fill(**fields: str) -> None:
        nonlocal touches
        for name, text in fields.items():
            page.locator(f"main [name='{name}']").first.fill(text)
            touches += 1

    def press(what: Locator) -> None:
        nonlocal touches
        what.first.click()
        touches += 1

    page.goto("/")
    fill(name="14 Cooper's Rise", customer="Ottoline Farrow", place="New Glasgow")
    press(page.get_by_role("button", name="Start the survey"))
    press(page.get_by_role("link", name="Block out the house"))
    fill(width_m="9.6", depth_m="8", eaves_m="5.6", looks="188", pitch="35°")
    expect(page.locator("#block-drawn figure")).to_have_count(4)
    assert serious_barriers(page) == []
    press(page.get_by_role("button", name="Build it"))
    expect(page.locator("article.face")).to_have_count(4)
    assert serious_barriers(page) == []
    for name, line in (
        ("Front", "2 2/2 sash, shutters; door; 2 2/2 sash, shutters; 3 2/2 sash sill 3.7, shutters"),
        ("Left side", "sash sill 0.9 and 3.7"),
        ("Back", "3 sash sill 0.9 and 3.7"),
        ("Right side", "sash sill 0.9"),
    ):
        wall = page.locator("article.face", has=page.get_by_role("link", name=name, exact=True))
        wall.locator("[name=line]").fill(line)
        wall.get_by_role("button", name="Fill").click()
        touches += 2
        expect(page.get_by_text("Put up.")).to_be_visible()
    assert touches <= 20
    with space.database.reading() as session:
        house = load_bundle(session, list_jobs(session)[0].id).property
    kinds = [i.spec.kind for i in house.items]
    assert (kinds.count("sash-window"), kinds.count("panelled-door"), kinds.count("shutter-pair")) == (16, 1, 7)
    # By hand: 2 × 9.6 × 5.6 + 2 × (8 × 5.6 + ½ × 8 × 2.80), without openings.
    assert sum(f.area_m2 for f in house.faces) == pytest.approx(219.5, abs=0.3)
    press(page.get_by_role("button", name="Undo"))
    expect(page.locator("article.face", has_text="Right side").locator("[name=line]")).to_be_visible()
    expect(page).to_have_url(re.compile("/survey"))
