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


def _specified(page: Page, hand: Hand) -> None:
    hand.touch(page.locator(".rail a", has_text="Specification"))
    hand.button("Derive from the survey")
    expect(page.get_by_text("no steps yet")).to_have_count(0)
    assert hand.count <= MOST, hand.count


def test_a_garage_door_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Garage door")
    hand.link("Add the first face")
    hand.fill(**{"name": "Drive", "outline.width_m": "5", "outline.height_m": "2.8", "azimuth_deg": "E"})
    hand.button("Save")
    hand.touch(page.locator("summary", has_text="Items"))
    hand.touch(page.locator("a[href*='spec.kind=garage-door']"))
    hand.touch(page.locator("svg.elevation"))
    expect(page.locator("main [name='spec.width_m']").first).to_be_visible()
    hand.fill(**{"spec.width_m": "2.5", "spec.height_m": "2.1", "substrate": "metal-door"})
    hand.button("Save")
    hand.link("All faces")
    hand.link("Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "satin")
    _specified(page, hand)
    (door,) = _only_job(empty).property.items
    assert (door.spec.kind, door.substrate, door.condition.gloss) == ("garage-door", "metal-door", "satin")


def test_a_stoop_from_nothing_to_specified(page: Page, empty: Context) -> None:
    hand = _begun(page, "Stoop")
    hand.link("Block out the house")
    hand.link("A deck or porch")
    hand.fill(name="Stoop", width_m="3", depth_m="1.5", looks="S", substrate="concrete-slab")
    hand.button("Build it")
    hand.link("Condition")
    hand.say("coating", "waterborne")
    hand.say("sheen", "dull")
    hand.say("scrape", "edges")
    _specified(page, hand)
    (finish,) = _only_job(empty).job.finishes
    assert {"wash", "scrape", "coat-1", "coat-2"} <= {o.id for o in finish.operations}
