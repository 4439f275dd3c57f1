"""The condition of a surface: guided tests, the hand meter, damage painted on the drawing."""

import json

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.findings.guided_tests import GUIDED_TESTS
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit
from tests.fixtures import StandIn, unchanged
from tests.web.survey.test_survey import SURVEY, stored

pytestmark = pytest.mark.usefixtures("indoors")


def test_damage_painted_on_the_wall_becomes_a_share(client: TestClient, ctx: Context) -> None:
    here = f"{SURVEY}/zone/back-siding/condition"
    runs = [[row, 0, 15] for row in range(8)]  # 4 × 2 m
    page = client.post(f"{here}/marks", data={"damage": "peeling", "runs": json.dumps(runs)})
    assert "8.0 m²" in page.text
    zone = next(z for z in stored(ctx).property.zones if z.id == "back-siding")
    assert zone.condition.loose_pct == pytest.approx(100 * 8 / (9.6 * 5.6 - 4.2 * 2.8 - 4.8), abs=0.5)
    for damage, bad in (("peeling", "[[1,2]]"), ("peeling", "nonsense"), ("fire", "[]"), ("rot", "[[-1,0,3]]")):
        assert client.post(f"{here}/marks", data={"damage": damage, "runs": bad}).status_code == 422
    submit(client, f"{here}/marks", data={"damage": "peeling", "runs": "[]"})
    assert next(z for z in stored(ctx).property.zones if z.id == "back-siding").condition.loose_pct == 0


def test_a_test_keeps_its_date_note_and_reading_and_refuses_nonsense(client: TestClient, ctx: Context) -> None:
    here = f"{SURVEY}/zone/back-siding/condition"
    submit(client, f"{here}/test", data={"test": "cracks", "value": "0,4", "on": "2026-09-10", "note": "by the sill"})
    condition = next(z for z in stored(ctx).property.zones if z.id == "back-siding").condition
    made = next(t for t in condition.tests if t.test == "cracks")
    assert (condition.crack_mm, str(made.on), made.note) == (0.4, "2026-09-10", "by the sill")
    for test, value in (("cracks", "wide"), ("cracks", "-1"), ("scrape", "140"), ("rub", "purple"), ("nothing", "1")):
        page = client.post(f"{here}/test", data={"test": test, "value": value})
        assert page.status_code == 422, (test, value)
    submit(client, f"{here}/test", data={"test": "cracks", "value": ""})
    assert next(z for z in stored(ctx).property.zones if z.id == "back-siding").condition.crack_mm is None


def test_the_meter_is_read_through_its_protocol_and_its_silence_is_told(client: TestClient, ctx: Context) -> None:
    here = f"{SURVEY}/zone/back-siding/condition"
    before = len(next(z for z in stored(ctx).property.zones if z.id == "back-siding").condition.moisture)
    page = client.post(f"{here}/meter", data={"spot": "low board"})
    assert "Simulated hand meter" in page.text
    assert "low board" in page.text
    reading = next(z for z in stored(ctx).property.zones if z.id == "back-siding").condition.moisture[before]
    assert 8 < reading.pct < 30
    assert isinstance(ctx.space.meter, StandIn)
    ctx.space.meter.down = True
    silent = client.post(f"{here}/meter")
    assert silent.status_code == 422
    assert "did not answer" in silent.text.lower()
    ctx.space.meter = None
    assert "Read the meter" not in client.get(here).text
    typed = client.post(f"{here}/moisture", data={"pct": "wet"})
    assert typed.status_code == 422
    other = client.post(f"{here}/moisture/{before}/delete", data={"expected": "99"})
    assert "changed meanwhile" in other.text
    submit(client, f"{here}/moisture/{before}/delete", data={"expected": f"{reading.pct:g}"})
    assert len(next(z for z in stored(ctx).property.zones if z.id == "back-siding").condition.moisture) == before


NEW_TESTS = [
    # zone, test, a reading that is none -> its words, a reading, and how it is kept
    ("quarry-lane/survey/zone/ql-left-vinyl", "made", "beige", "is no colour", "#A39B8B", "#a39b8b"),
    ("quarry-lane/survey/zone/ql-left-brick", "bloom", "some", "dry-bloom", "returns", "returns"),
    ("coopers-rise/survey/zone/front-siding", "bleed", "maybe", "must be yes or no", "yes", True),
    ("coopers-rise/survey/zone/front-siding", "timber", "oak", "kiln-dried", "untreated", "untreated"),
    ("coopers-rise/survey/zone/front-siding", "patch", "fell off", "lifts", "lifts", "lifts"),
    ("feed-barn/survey/zone/south-roof", "rust", "much", "is no share", "12,5", 12.5),
    ("heron-deck/survey/zone/porch-slab", "stubs", "-1", "greater than or equal to 0", "4", 4),
    (
        "coopers-rise/survey/zone/front-siding",
        "built",
        "99",
        "“99” must be greater than or equal to 1500",
        "1995",
        1995,
    ),
    ("coopers-rise/survey/zone/front-siding", "age", "-3", "“-3” must be greater than or equal to 0", "12 years", 12),
    ("coopers-rise/survey/zone/front-siding", "coats", "2.5", "“2.5” must be a valid integer", "3 coats", 3),
    ("coopers-rise/survey/zone/front-siding", "deposit", "honey", "“honey” must be", "soot", "soot"),
]


@pytest.mark.parametrize(("zone", "test", "bad", "words", "good", "kept"), NEW_TESTS, ids=[t[1] for t in NEW_TESTS])
def test_a_guided_test_takes_its_reading_and_refuses_another(
    client: TestClient, ctx: Context, zone: str, test: str, bad: str, words: str, good: str, kept: object
) -> None:
    here = f"/jobs/{zone}/condition"
    assert client.get(here).status_code == 200
    refused = client.post(f"{here}/test", data={"test": test, "value": bad})
    assert refused.status_code == 422
    assert words in refused.text
    assert client.post(f"{here}/test", data={"test": test, "value": good}).status_code == 200
    job, id_ = zone.split("/")[0], zone.split("/")[-1]
    with ctx.reading() as session:
        bundle = load_bundle(session, job)
    field = next(t.field for t in GUIDED_TESTS if t.code == test)
    assert getattr(next(z for z in bundle.property.zones if z.id == id_).condition, field) == kept


def test_a_test_that_does_not_fit_the_surface_saves_nothing(client: TestClient, ctx: Context) -> None:
    here = f"{SURVEY}/zone/front-siding/condition"
    with unchanged(ctx):
        refused = client.post(f"{here}/test", data={"test": "rust", "value": "12"}, headers={"hx-request": "true"})
    assert refused.status_code == 404
    assert "does not fit the surface" in refused.text
