"""Small jobs from an empty program to specified: every field filled and every touch counted, at most thirty."""

import pytest
from playwright.sync_api import Page, expect

from amber_gable.services.context import Context
from tests.browser.test_first_minutes import Hand, _only_job, empty

__all__ = ["empty"]
pytestmark = pytest.mark.browser
MOST = 30


def _begun(page: Page, name: str) -> Hand:
    hand = Hand(page, finger=False)
    page.goto("/")
    hand.fill(name=name, customer="Ines Calder", place="New Glasgow", year_built="1996")
    hand.button("Start the survey")
    return hand


def _go(page: Page, hand: Hand, name: str) -> None:
    """Follow a link once the page that has it is there."""
    expect(page.get_by_role("link", name=name).first).to_be_visible()
    hand.link(name)


def _specified(page: Page, hand: Hand) -> None:
    if not page.url.endswith("/specification"):
        hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.button("Derive from the survey")
    expect(page.get_by_text("no steps yet")).to_have_count(0)
    assert hand.count <= MOST, hand.count


def test_a_garage_door_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Garage door")
    _go(page, hand, "Add the first face")
    hand.fill(**{"name": "Drive", "outline.width_m": "5", "outline.height_m": "2.8", "azimuth_deg": "E"})
    hand.button("Save")
    hand.touch(page.locator("summary", has_text="Items"))
    hand.touch(page.locator("a[href*='spec.kind=garage-door']"))
    hand.touch(page.locator("svg.elevation"))
    expect(page.locator("main [name='spec.width_m']").first).to_be_visible()
    hand.fill(**{"spec.width_m": "2.5", "spec.height_m": "2.1", "substrate": "metal-door"})
    hand.button("Save")
    _go(page, hand, "All faces")
    _go(page, hand, "Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "satin")
    _specified(page, hand)
    (door,) = _only_job(empty).property.items
    assert (door.spec.kind, door.substrate, door.condition.gloss) == ("garage-door", "metal-door", "satin")


def test_a_stoop_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Stoop")
    _go(page, hand, "Block out the house")
    _go(page, hand, "A deck or porch")
    hand.fill(name="Stoop", width_m="3", depth_m="1.5", looks="S", substrate="concrete-slab")
    hand.button("Build it")
    _go(page, hand, "Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "dull")
    hand.say("scrape", "edges")
    _specified(page, hand)
    (finish,) = _only_job(empty).job.finishes
    assert {"wash", "scrape", "coat-1", "coat-2"} <= {o.id for o in finish.operations}


def _face(page: Page, hand: Hand, name: str, azimuth: str) -> None:
    _go(page, hand, "Add the first face")
    hand.fill(**{"name": name, "outline.width_m": "12", "outline.height_m": "5", "azimuth_deg": azimuth})
    hand.button("Save")


def _item(page: Page, hand: Hand, kind: str, **sizes: str) -> None:
    hand.touch(page.locator("summary", has_text="Items"))
    hand.touch(page.locator(f"a[href*='spec.kind={kind}']"))
    hand.touch(page.locator("svg.elevation"))
    expect(page.locator("main [name='substrate']").first).to_be_visible()
    hand.fill(**{f"spec.{name}": size for name, size in sizes.items()})
    with page.expect_response("**/item/save"):
        hand.button("Save")


def _painted_elsewhere(page: Page, hand: Hand, school: str) -> None:
    """Before anything is derived, the school of the place is chosen for the job."""
    hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.touch(page.locator("details.school summary", has_text="Where are doors"))
    hand.touch(page.locator(f"details.school[open] input[value='{school}']"))
    hand.touch(page.locator("details.school[open] button"))


SASH = {"width_m": "0.9", "height_m": "1.5", "panes_across": "2", "panes_down": "2"}


def test_a_sash_in_place_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "One sash")
    _face(page, hand, "Garden", "N")
    _item(page, hand, "sash-window", **SASH)
    _go(page, hand, "All faces")
    _go(page, hand, "Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "dull")
    _specified(page, hand)
    (finish,) = _only_job(empty).job.finishes
    assert {"free", "coat-1", "refit"} <= {o.id for o in finish.operations}


def test_two_sashes_apart_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Two sashes")
    _face(page, hand, "Street", "S")
    _item(page, hand, "sash-window", **SASH)
    hand.button("Duplicate")
    expect(page.locator("svg.elevation .item")).to_have_count(2)
    _told_and_specified(page, hand, "under-cover")
    _all_elsewhere(empty, "sash-window", 2)


def test_five_shutters_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Five shutters")
    _face(page, hand, "Street", "S")
    hand.fill(line="5 window 0.9 x 1.4, shutters, not painted")
    hand.button("Put them up")
    expect(page.locator("svg.elevation .item")).to_have_count(5)
    _told_and_specified(page, hand, "stands")
    _all_elsewhere(empty, "shutter-pair", 5)


def _told_and_specified(page: Page, hand: Hand, school: str) -> None:
    _go(page, hand, "All faces")
    _go(page, hand, "Condition")
    hand.say("coating", "oil")
    hand.say("sheen", "gloss")
    _painted_elsewhere(page, hand, school)
    _specified(page, hand)


def _all_elsewhere(empty: Context, kind: str, count: int) -> None:
    found = _only_job(empty)
    assert [i.spec.kind for i in found.property.items] == [kind] * count
    assert len(found.job.finishes) == count
    assert all(any(o.where for o in f.operations) for f in found.job.finishes)


def test_a_front_in_the_cold_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Cold front")
    _face(page, hand, "Front", "S")
    _go(page, hand, "Say what it is made of")
    expect(page.locator("main [name='substrate']").first).to_be_visible()
    hand.fill(name="Siding", substrate="wood-lap")
    hand.button("Save")
    expect(page.get_by_role("link", name="Say what it is made of")).to_have_count(0)
    _go(page, hand, "All faces")
    _go(page, hand, "Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "dull")
    hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.touch(page.locator("details.school summary", has_text="For which weeks"))
    hand.touch(page.locator("details.school[open] input[value='cold']"))
    hand.touch(page.locator("details.school[open] button"))
    _specified(page, hand)
    assert _only_job(empty).schools["season"] == "cold"
