"""Findings set on many surfaces at once: one step, one undo, and what was painted on a drawing stays."""

import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.survey.findings.answers import Surface, kind_key
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

HERE = "/jobs/coopers-rise/survey/findings"


def _surfaces(ctx: Context) -> list[Surface]:
    with ctx.reading() as session:
        house = load_bundle(session, "coopers-rise").property
    return [*house.zones, *house.items]


def test_one_touch_answers_for_the_whole_house_and_one_takes_it_back(client: TestClient, ctx: Context) -> None:
    before = _surfaces(ctx)
    page = client.post(HERE, data={"test": "coating", "value": "waterborne"}, headers={"hx-request": "true"}).text
    assert "27 surfaces changed" in page and "<html" not in page
    assert {s.condition.coating for s in _surfaces(ctx)} == {"waterborne"}
    tested = [t for s in _surfaces(ctx) for t in s.condition.tests if t.test == "coating"]
    assert len(tested) == len(before) and all(t.on is not None for t in tested)
    back = re.search(r'name="back" value="([^"]+)"', page)
    assert back
    again = client.post("/jobs/coopers-rise/undo", data={"back": back[1]})
    assert again.url.path == HERE and _surfaces(ctx) == before


def test_nothing_found_is_an_answer_too(client: TestClient, ctx: Context) -> None:
    """The kitchen wing was never scraped at: its 0 % is no reading until somebody says so."""
    submit(client, HERE, data={"test": "scrape", "value": "none", "of": "zone.wood-lap", "face": "wing-east"})
    wing = next(s for s in _surfaces(ctx) if s.face == "wing-east" and kind_key(s) == "zone.wood-lap")
    assert wing.condition.loose_pct == 0 and "scrape" in {t.test for t in wing.condition.tests}


def test_what_is_different_is_told_of_a_kind_on_a_face(client: TestClient, ctx: Context) -> None:
    submit(client, HERE, data={"test": "scrape", "value": "none"})
    submit(client, HERE, data={"test": "scrape", "value": "half", "of": "item.sash-window", "face": "back"})
    submit(client, HERE, data={"test": "bleach", "typed": "20%", "of": "zone.wood-lap", "face": "east-gable"})
    told = {s.name + s.face: s.condition for s in _surfaces(ctx)}
    assert told["Sash 7back"].loose_pct == told["Sash 8back"].loose_pct == 50
    assert told["Sash 1front"].loose_pct == 0
    assert told["Sidingeast-gable"].mildew_pct == 20 and told["Sidingback"].mildew_pct == 30


def test_what_was_painted_on_a_drawing_stays_and_the_page_says_so(client: TestClient, ctx: Context) -> None:
    page = client.post(
        HERE,
        data={"test": "scrape", "value": "most", "of": "zone.wood-lap", "face": "front"},
        headers={"hx-request": "true"},
    ).text
    assert "No surfaces changed" in page and "1 painted on the drawing stays as painted" in page
    front = next(s for s in _surfaces(ctx) if s.face == "front" and kind_key(s) == "zone.wood-lap")
    assert front.condition.loose_pct == pytest.approx(24.3)


def test_who_answers_what_matters_less_finds_it_still_open(client: TestClient) -> None:
    panel = {"hx-request": "true"}
    more = client.post(HERE, data={"test": "patch", "value": "lifts", "of": "zone.wood-lap"}, headers=panel).text
    first = client.post(HERE, data={"test": "sheen", "value": "dull", "of": "zone.wood-lap"}, headers=panel).text
    assert 'class="more-findings" open' in more and 'class="more-findings" open' not in first


def test_a_meter_reading_goes_to_its_own_wall(client: TestClient, ctx: Context) -> None:
    zone = next(s for s in _surfaces(ctx) if s.face == "wing-east" and kind_key(s) == "zone.wood-lap")
    submit(client, f"{HERE}/moisture/zone/{zone.id}", data={"pct": "14,5 %"})
    mended = next(s for s in _surfaces(ctx) if s.id == zone.id)
    assert [r.pct for r in mended.condition.moisture] == [14.5]


@pytest.mark.parametrize(
    ("form", "words"),
    [
        ({"test": "scrape", "typed": "-3"}, "less than nothing"),
        ({"test": "scrape", "typed": ""}, "is needed"),
        ({"test": "coating", "value": "jam"}, ""),
        ({"test": "coats", "typed": "-2"}, ""),
        ({"test": "rot", "value": "1"}, ""),
        ({"test": "nails", "value": "12"}, ""),
    ],
)
def test_what_cannot_be_is_refused_at_its_field_and_nothing_is_saved(
    client: TestClient, ctx: Context, form: dict[str, str], words: str
) -> None:
    before = _surfaces(ctx)
    page = client.post(HERE, data=form)
    assert page.status_code == 422 and words in page.text
    if form["test"] in ("scrape", "coating", "coats"):
        assert f'id="fault-{form["test"]}"' in page.text and form.get("typed", "") in page.text
    assert _surfaces(ctx) == before


def test_an_empty_house_says_where_to_begin_and_a_foreign_address_is_no_way_back(client: TestClient) -> None:
    page = client.post(HERE, data={"test": "coating", "value": "oil", "of": "zone.nothing", "face": "nowhere"})
    assert page.status_code == 200 and "0 surfaces" in page.text
    submit(client, HERE, data={"test": "coating", "value": "oil"})
    away = client.post("/jobs/coopers-rise/undo", data={"back": "//elsewhere"}, follow_redirects=False)
    assert away.headers["location"].startswith("/jobs/coopers-rise/survey")
