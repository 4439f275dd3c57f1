"""Jumping to what has a name: the likeliest first, nothing of deleted jobs, a page without scripts."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.context import Context
from amber_gable.services.job.details import delete_job
from amber_gable.services.job.jump import jump

RISE = "coopers-rise"


@pytest.mark.parametrize(
    ("text", "job", "first"),
    [
        # Within a job its own stages and faces come before those of others.
        ("plan", RISE, ("Plan", "/jobs/coopers-rise/plan")),
        ("west", RISE, ("West gable", "/jobs/coopers-rise/survey/face/west-gable")),
        ("wes gab", RISE, ("West gable", "/jobs/coopers-rise/survey/face/west-gable")),
        ("sash 7", RISE, ("Sash 7", "/jobs/coopers-rise/survey/opening/back-w1")),
        # From anywhere: a job by its name, another job's stage by both, a product, a page.
        ("heron", "", ("Heron Deck", "/jobs/heron-deck/survey")),
        ("weather quarry", "", ("Weather", "/jobs/quarry-lane/weather")),
        ("quarry weather", RISE, ("Weather", "/jobs/quarry-lane/weather")),
        ("HOUSECOAT", "", ("Skerry Housecoat", "/stores/product/skerry-housecoat")),
        ("settings", RISE, ("Settings: feeds and loggers", "/settings")),
    ],
)
def test_the_likeliest_is_the_first(ctx: Context, text: str, job: str, first: tuple[str, str]) -> None:
    found = [(p.name, p.href) for p in jump(ctx, text, job)]
    assert first in found[:2] if text == "sash 7" else found[0] == first


def test_accents_and_case_do_not_matter_and_nonsense_finds_nothing(ctx: Context) -> None:
    assert jump(ctx, "hérön")[0].name == "Heron Deck"
    assert jump(ctx, "zzz") == [] and jump(ctx, "  ") == []
    assert len(jump(ctx, "a")) == 12, "no more than one can look over"


def test_a_deleted_job_is_not_jumped_to(ctx: Context) -> None:
    delete_job(ctx, "heron-deck")
    assert not [p for p in jump(ctx, "heron deck") if "heron-deck" in p.href]


def test_every_place_that_is_offered_is_there(client: TestClient, ctx: Context) -> None:
    seen = set()
    for text in (
        "14 cooper",
        "coopers",
        "stores",
        "front",
        "walk",
        "condition",
        "forecasts",
        "name",
        "today",
        "specific",
        "settings",
        "product",
    ):
        offered = jump(ctx, text, RISE)
        assert offered, text
        for place in offered:
            assert client.get(place.href).status_code == 200, place
            seen.add(place.href.split("/")[1 if "/jobs/" not in place.href else 3])
    assert {"survey", "specification", "weather", "today", "stores", "settings"} <= seen, "of every kind of page"


def test_the_page_does_the_same_without_scripts(client: TestClient) -> None:
    page = client.get("/jump", params={"find": "west", "job": RISE}).text
    assert "/jobs/coopers-rise/survey/face/west-gable" in page and page.count('id="jump-found"') == 1
    part = client.get("/jump", params={"find": "<zzz>"}, headers={"hx-request": "true"}).text
    assert "<html" not in part and "&lt;zzz&gt;" in part
