"""A new user's first minutes, from an empty program to specified, every field filled and every touch counted."""

import re
from collections.abc import Callable
from pathlib import Path

import pytest
from fastapi import FastAPI
from playwright.sync_api import BrowserContext, Locator, Page, expect

from amber_gable.domain.findings.condition import Coating, Gloss
from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import list_jobs, load_bundle
from tests.browser.conftest import PHONE, WIDE, serious_barriers, sticks_out
from tests.fixtures import open_space
from tests.jobs import FOOT, coopers_rise, demo_job

pytestmark = pytest.mark.browser


class Hand:
    """Fills and touches, and counts: one for a field, one for a touch."""

    def __init__(self, page: Page, *, finger: bool) -> None:
        self.page, self.finger, self.count = page, finger, 0

    def fill(self, **fields: str) -> None:
        for name, text in fields.items():
            field = self.page.locator(f"main [name='{name}']").first
            if field.evaluate("e => e.tagName") == "SELECT":
                field.select_option(text)
            else:
                field.fill(text)
            self.count += 1

    def touch(self, what: Locator) -> None:
        if self.finger:
            what.first.tap()
        else:
            what.first.click()
        self.count += 1

    def link(self, name: str) -> None:
        link = self.page.get_by_role("link", name=name)
        if not link.first.is_visible():
            self.touch(self.page.locator(".tb-fold"))
        self.touch(link)

    def button(self, name: str) -> None:
        self.touch(self.page.get_by_role("button", name=name))

    def wall(self, name: str, line: str) -> None:
        card = self.page.locator("article.face", has=self.page.get_by_role("link", name=name, exact=True))
        card.locator("[name=line]").fill(line)
        self.count += 1
        self.touch(card.get_by_role("button", name="Fill"))
        expect(self.page.get_by_text("Put up.")).to_be_visible()

    def kind(self, name: str) -> None:
        self.touch(self.page.locator(".kind", has_text=name))
        expect(self.page.locator(".kind[aria-current]")).to_contain_text(name)

    def face(self, name: str) -> None:
        self.touch(self.page.locator(".walls .wall", has_text=name))
        expect(self.page.locator(".walls .wall[aria-current]")).to_contain_text(name)

    def say(self, test: str, answer: str) -> None:
        row = self.page.locator(f"#finding-{test}")
        self.touch(row.locator(f".tally[value='{answer}']"))
        # It may already have been so on some: pressed means on all that are chosen.
        expect(row.locator(f".tally[value='{answer}']")).to_have_attribute("aria-pressed", "true")


@pytest.fixture
def empty(app: FastAPI, tmp_path: Path, ctx: Context) -> Context:
    fresh = open_space(tmp_path / "empty.sqlite3")
    app.state.space = fresh.space
    fresh.space.provider = None
    return fresh


def _only_job(ctx: Context) -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, list_jobs(session)[0].id)


@pytest.mark.parametrize(
    ("size", "finger"),
    [pytest.param(WIDE, False, marks=pytest.mark.long, id="table"), pytest.param(PHONE, True, id="phone")],
)
def test_coopers_rise_from_nothing_to_specified_in_70_touches(
    contexts: Callable[..., BrowserContext], empty: Context, size: dict[str, object], finger: bool
) -> None:
    page = contexts(**size).new_page()
    hand = Hand(page, finger=finger)
    page.goto("/")
    hand.fill(name="14 Cooper's Rise", customer="Ottoline Farrow", place="New Glasgow", year_built="1931")
    hand.button("Start the survey")
    hand.link("Block out the house")
    hand.fill(width_m="9.6", depth_m="7.4", eaves_m="5.6", looks="188", pitch="2.6 m", overhang_m="0.35")
    hand.touch(page.get_by_text("A wing: L, T, porch"))
    hand.fill(wing_side="back", wing_width_m="4.2", wing_depth_m="3", wing_from="right", wing_eaves_m="2.8")
    hand.fill(wing_roof="ridge-along", wing_pitch="0.9 m", wing_name="Kitchen wing")
    expect(page.locator("#block-drawn")).to_contain_text("Kitchen wing, back")
    expect(page.locator("#block-drawn figure")).to_have_count(7)
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    assert serious_barriers(page) == []
    hand.button("Build it")
    expect(page.locator("article.face")).to_have_count(7)
    for name, line in (
        (
            "Front",
            "2/2 sash 0.9 x 1.5, shutters; door 1.1 x 2.15 sill 0.3; 2/2 sash 0.9 x 1.5, shutters; "
            "3 2/2 sash sill 3.6, shutters; gutter",
        ),
        ("Left side", "2/2 sash sill 3.6; vent sill 6.3"),
        ("Back", "2 2/2 sash sill 3.6"),
        ("Right side", "2/2 sash sill 3.6; vent sill 6.3"),
        ("Kitchen wing, back", "glazed door 0.9 x 2.05 sill 0.2"),
    ):
        hand.wall(name, line)
    hand.link("Condition")
    hand.say("coating", "oil")
    hand.say("sheen", "gloss")
    for test in ("scrape", "rub", "bleach"):
        hand.say(test, "none")
    hand.touch(page.get_by_text("more, where they matter"))
    hand.say("patch", "holds")
    for kind, gloss in (("Shutter pair", "satin"), ("Wood trim", "satin"), ("Wood lap siding", "dull")):
        hand.kind(kind)
        hand.say("sheen", gloss)
    for zone, pct in (("front", "13.1"), ("left-side", "13.8"), ("back", "14.6"), ("right-side", "12.8")):
        page.locator(f"[id^=pct-{zone}-siding]").fill(pct)
        page.locator(f"[id^=pct-{zone}-siding]").press("Enter")
        hand.count += 2
        expect(page.locator(f"[id^=pct-{zone}-siding]")).to_have_value("")
    for face, test, answer in (
        ("Front", "scrape", "a quarter"), ("Left side", "scrape", "a quarter"), ("Back", "bleach", "a quarter"),
    ):  # fmt: skip
        hand.face(face)
        hand.say(test, answer)
    expect(page.locator("[aria-busy=true]")).to_have_count(0)
    assert serious_barriers(page) == []
    hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.button("Derive from the survey")
    expect(page.get_by_text("no steps yet")).to_have_count(0)
    expect(page.get_by_text("31 of 31 parts decided")).to_be_visible()
    expect(page.get_by_text("parts ask for a decision")).to_be_visible()  # so much presumed lead comes off
    assert hand.count <= 70
    _as_the_demo(_only_job(empty))


def _as_the_demo(job: JobBundle) -> None:
    """Wall by wall the sizes of the demo's survey."""
    demo = {f.id: f for f in coopers_rise().property.faces}
    house = {f.name: f for f in job.property.faces}
    for mine, theirs in (
        ("Front", "front"), ("Left side", "west-gable"), ("Back", "back"), ("Right side", "east-gable"),
        ("Kitchen wing, back", "wing-back"), ("Kitchen wing, right side", "wing-east"),
        ("Kitchen wing, left side", "wing-west"),
    ):  # fmt: skip
        assert house[mine].area_m2 == pytest.approx(demo[theirs].area_m2, rel=0.01), mine
        assert house[mine].azimuth_deg == demo[theirs].azimuth_deg
    assert len(house) == len(demo)
    kinds = [i.spec.kind for i in job.property.items]
    theirs = [i.spec.kind for i in coopers_rise().property.items]
    assert sorted(kinds) == sorted(theirs)
    siding = {z.face: z.condition for z in job.property.zones if z.substrate == "wood-lap"}
    assert len(siding) == 7 and {c.coating for c in siding.values()} == {Coating.OIL}
    assert {c.gloss for c in siding.values()} == {Gloss.DULL}
    assert siding["front"].loose_pct == siding["left-side"].loose_pct == 25 and siding["back"].mildew_pct == 25
    assert [len(siding[f].moisture) for f in ("front", "left-side", "back", "right-side")] == [1, 1, 1, 1]
    finished = {f.part for f in job.job.finishes}
    assert finished == {("zone", z.id) for z in job.property.zones} | {("item", i.id) for i in job.property.items}


def test_heron_deck_from_nothing_to_specified_in_35_touches(page: Page, empty: Context) -> None:
    """The cedar deck with its railing and stair, and the porch of concrete."""
    hand = Hand(page, finger=False)
    page.goto("/")
    hand.fill(name="Heron Deck", customer="Marit Heron", place="New Glasgow", year_built="2009")
    hand.button("Start the survey")
    hand.link("Block out the house")
    hand.link("A deck or porch")
    hand.fill(width_m="6", depth_m="4.2", looks="S", rails="4.4", treads="4")
    hand.button("Build it")
    hand.link("Block out")
    hand.link("A deck or porch")
    hand.fill(name="Porch", width_m="3.6", depth_m="2.2", looks="E", substrate="concrete-slab")
    hand.button("Build it")
    hand.link("Condition")
    hand.say("coating", "film-stain")
    hand.say("sheen", "dull")
    hand.say("scrape", "a quarter")
    hand.say("rub", "none")
    hand.say("bleach", "none")
    hand.kind("Concrete porch")
    hand.say("coating", "bare")
    hand.say("finger", "normal")
    hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.button("Derive from the survey")
    expect(page.get_by_text("no steps yet")).to_have_count(0)
    assert hand.count <= 35
    mine, demo = _only_job(empty).property, demo_job("4-heron-deck").property
    assert sorted(f.area_m2 for f in mine.faces) == pytest.approx(sorted(f.area_m2 for f in demo.faces))
    assert sorted(i.spec.kind for i in mine.items) == sorted(i.spec.kind for i in demo.items)
    assert len(_only_job(empty).job.finishes) == 4


def test_a_house_in_feet_with_deck_garage_door_and_gutters_in_70_touches(page: Page, empty: Context) -> None:
    """Four walls, two gables, eight windows, a deck, a garage door, gutters: as told, in feet and inches."""
    hand = Hand(page, finger=False)
    page.goto("/")
    hand.button("US units")
    hand.fill(name="27 Weir Lane", customer="Nell Hart", place="New Glasgow", year_built="1968")
    hand.button("Start the survey")
    hand.link("Block out the house")
    hand.fill(width_m="38' 6\"", depth_m="26", eaves_m="9' 6\"", looks="SE", pitch="6/12", substrate="vinyl-siding")
    hand.button("Build it")
    for name, line in (
        ("Front", "2 casement 4 x 4 sill 3; door; garage door 9 x 7; gutter"),
        ("Left side", "2 casement 4 x 4 sill 3; vent 2 x 2 sill 11"),
        ("Back", "2 casement 4 x 4 sill 3; glazed door 6 x 6' 8\"; gutter, 2 downspouts"),
        ("Right side", "2 casement 4 x 4 sill 3; vent 2 x 2 sill 11"),
    ):
        hand.wall(name, line)
    hand.link("Block out")
    hand.link("A deck or porch")
    hand.fill(width_m="16", depth_m="12", looks="NW", rails="all", treads="3")
    hand.button("Build it")
    hand.link("Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "dull")
    for test in ("scrape", "rub", "bleach"):
        hand.say(test, "none")
    hand.say("vinyl", "sound")
    hand.kind("Wood deck")
    hand.say("coating", "penetrating-stain")
    hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.button("Derive from the survey")
    expect(page.get_by_text("no steps yet")).to_have_count(0)
    assert hand.count <= 70
    house = _only_job(empty).property
    walls = {f.name: f.area_m2 / FOOT**2 for f in house.faces}
    # By hand: 38.5 × 9.5; 26 × 9.5 and the triangle, half of 26 × 6.5; 16 × 12.
    assert walls == pytest.approx(
        {"Front": 365.75, "Back": 365.75, "Left side": 331.5, "Right side": 331.5, "Deck": 192}
    )
    kinds = [i.spec.kind for i in house.items]
    assert {k: kinds.count(k) for k in ("casement", "gutter", "garage-door", "railing", "stair")} == {
        "casement": 8, "gutter": 2, "garage-door": 1, "railing": 3, "stair": 1,
    }  # fmt: skip


def test_the_browsers_place_is_taken_only_when_asked_for(contexts: Callable[..., BrowserContext]) -> None:
    surveyor = contexts(
        **WIDE, geolocation={"latitude": 45.58871, "longitude": -62.64556}, permissions=["geolocation"]
    ).new_page()
    surveyor.goto("/")
    expect(surveyor.get_by_label("Latitude")).to_have_value("")
    surveyor.get_by_role("button", name="Where I am now").click()
    expect(surveyor.get_by_label("Latitude")).to_have_value("45.58871")
    expect(surveyor.get_by_label("Longitude")).to_have_value("-62.64556")
    expect(surveyor.locator("[name=place]")).to_have_value("New Glasgow")
    surveyor.get_by_label("Job name").fill("9 Weir Lane")
    surveyor.get_by_label("Customer").fill("Nell Hart")
    surveyor.get_by_role("button", name="Start the survey").click()
    expect(surveyor).to_have_url(re.compile("/survey"))
    refused = contexts(**WIDE).new_page()
    refused.goto("/")
    refused.get_by_role("button", name="Where I am now").click()
    expect(refused.get_by_text("Type the town instead")).to_be_visible()


def test_a_footprint_is_tapped_corner_by_corner(contexts: Callable[..., BrowserContext], ctx: Context) -> None:
    phone = contexts(**PHONE).new_page()
    phone.goto("/jobs/feed-barn/survey/block/walk")
    pad = phone.locator(".walk-pad svg")
    box = pad.bounding_box()
    assert box is not None
    metre = box["width"] / 30

    def tap(x: float, y: float) -> None:
        pad.tap(position={"x": x * metre, "y": y * metre})

    # The street is below: 10 m along it, 6 in, 4 back, a step of 2 in, and home. The taps are not quite square.
    for corner in ((5, 18), (15.1, 17.8), (15, 12.1), (11, 11.9), (10.9, 10)):
        tap(*corner)
    expect(phone.locator("[name=walk]")).to_have_value("10 left 6 left 4 right 2")
    tap(2, 5)
    phone.get_by_role("button", name="Take the last corner back").tap()
    expect(phone.locator("[name=walk]")).to_have_value("10 left 6 left 4 right 2")
    phone.locator("[name=eaves_m]").fill("2.8")
    phone.locator("[name=looks]").fill("S")
    expect(phone.locator("#block-drawn figcaption")).to_have_count(6)
    assert serious_barriers(phone) == [] and not sticks_out(phone)
    phone.get_by_role("button", name="Build it").tap()
    expect(phone).to_have_url(re.compile("said=blocked"))
    with ctx.reading() as session:
        faces = load_bundle(session, "feed-barn").property.faces
    assert [round(f.width_m, 2) for f in faces[-6:]] == [10, 6, 4, 2, 6, 8]


def test_an_empty_program_leads_to_samples_and_to_a_company(
    contexts: Callable[..., BrowserContext], empty: Context
) -> None:
    for size in (PHONE, WIDE):
        page = contexts(**size).new_page()
        page.goto("/")
        assert not sticks_out(page) and serious_barriers(page) == []
    page.get_by_role("button", name="Bring the sample jobs").click()
    expect(page.locator(".sample-mark")).to_have_count(5)
    # What waits on each comes beside it; the weather is made up and told so.
    expect(page.locator(".waits", has_text="not planned").first).to_be_visible()
    assert serious_barriers(page) == []
    page.get_by_role("button", name="Drop the samples").click()
    expect(page.get_by_text("The sample jobs are gone.")).to_be_visible()
    # By keyboard alone: home, crew and a school.
    page.get_by_role("link", name="Set up the company").press("Enter")
    page.locator("[name=name]").fill("Larkspur")
    page.locator("[name=place]").fill("New Glasgow")
    page.locator("[name=people]").fill("3")
    page.locator("[name=method][value=hand]").focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("[name=method][value=spray]")).to_be_checked()
    assert not sticks_out(page) and serious_barriers(page) == []
    page.get_by_role("button", name="Set the company up").press("Enter")
    expect(page.get_by_text("The company is set up.")).to_be_visible()


def test_a_wall_is_filled_by_the_builder_as_by_the_typed_line(page: Page, ctx: Context) -> None:
    page.goto("/jobs/feed-barn/survey/block")
    Hand(page, finger=False).fill(width_m="9.6", depth_m="8", eaves_m="2 storeys", looks="S", pitch="35°")
    page.get_by_role("button", name="Build it").click()
    expect(page).to_have_url(re.compile(r"/survey(\?|$)"))
    page.goto("/jobs/feed-barn/survey/face/front")
    page.get_by_text("Put the line together").click()
    builder = page.locator(".line-build")
    builder.locator("[data-piece=count]").fill("2")
    builder.locator("[data-piece=shutters]").check()
    page.get_by_role("button", name="Add to the line").click()
    builder.locator("[data-piece=count]").fill("1")
    builder.locator("[data-piece=kind]").select_option("door")
    builder.locator("[data-piece=shutters]").uncheck()
    page.get_by_role("button", name="Add to the line").click()
    expect(page.locator("[name=line]")).to_have_value("2 sash, shutters; 1 door")
    page.get_by_role("button", name="Put them up").click()
    expect(page.locator("#picture a.part[data-kind=opening]")).to_have_count(3)
    # The page was swapped: the builder is there again for the next line.
    expect(page.get_by_text("Put the line together")).to_be_visible()
    assert serious_barriers(page) == [] and not sticks_out(page)
