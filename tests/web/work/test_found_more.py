"""More damage than surveyed, noted while working: survey, steps, hours and the record follow; it can be taken back."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.core.work.record import job_work
from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.services.today.found_more import finds
from amber_gable.store.job.jobs import load_bundle, save_bundle
from tests.clients import submit
from tests.jobs import one_wall
from tests.web.forms import form_of

pytestmark = pytest.mark.usefixtures("indoors")
JOB = "/jobs/coopers-rise"
FOUND = f"{JOB}/today/found/zone/back-siding"
BACK = ("zone", "back-siding")


def _bundle(ctx: Context) -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, "coopers-rise")


def test_a_larger_share_changes_steps_hours_and_the_record(ctx: Context, client: TestClient) -> None:
    before = job_work(_bundle(ctx))[BACK]
    surveyed = _bundle(ctx).property.part(BACK)
    assert surveyed is not None
    was = surveyed.condition.loose_pct
    submit(client, FOUND, data={"scrape": f"{was + 30:g}", "probe": "0.6", "by": "Ada"})
    bundle = _bundle(ctx)
    part = bundle.property.part(BACK)
    assert part is not None and part.condition.loose_pct == was + 30 and part.condition.rot_m2 == 0.6
    after = job_work(bundle)[BACK]
    assert after.hours > before.hours + 1, "scraping, feathering, and the rot cut out and filled"
    (line,) = bundle.job.found_more
    assert line.found == {"loose_pct": (was, was + 30), "rot_m2": (0.0, 0.6)}
    assert line.hours == pytest.approx((before.hours, after.hours), abs=0.01) and line.by == "Ada"
    today = client.get(f"{JOB}/today").text
    assert f"{was + 30:.0f} %" in today and "Ada" in today
    assert "out of date" in client.get(f"{JOB}/plan").text


def test_of_a_part_with_the_companys_system_it_is_said_that_its_steps_stay(ctx: Context, client: TestClient) -> None:
    bundle = one_wall(system="generic-peeling-wood")
    with ctx.writing() as session:
        save_bundle(session, bundle)
    found = f"/jobs/{bundle.job.id}/today/found/zone/siding"
    page = client.get(found).text
    assert "stay as they are" in page and f"/jobs/{bundle.job.id}/specification/zone/siding" in page
    assert "stay as they are" not in client.get(FOUND).text
    submit(client, found, data={"scrape": "60"})
    with ctx.reading() as session:
        after = load_bundle(session, bundle.job.id)
    (finish,), (line,) = after.job.finishes, after.job.found_more
    assert finish.system == "generic-peeling-wood" and line.hours[0] == line.hours[1]
    assert after.property.zones[0].condition.loose_pct == 60


def test_it_is_taken_back_whole_and_no_longer_told(ctx: Context, client: TestClient) -> None:
    submit(client, FOUND, data={"probe": "0.6"})
    assert len(finds(_bundle(ctx))) == 1
    client.post(f"{JOB}/undo", data=form_of(client.get(f"{JOB}/survey").text, f"{JOB}/undo"))
    assert _bundle(ctx).property.part(BACK).condition.rot_m2 == 0.0  # type: ignore[union-attr]
    assert not finds(_bundle(ctx))


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ({}, "say how much"),
        ({"scrape": "1"}, "no more than was surveyed"),
        ({"scrape": "120"}, "120"),
        ({"probe": "much"}, "much"),
    ],
    ids=["nothing", "less", "too much", "no figure"],
)
def test_what_is_no_more_is_refused_and_nothing_is_kept(
    ctx: Context, client: TestClient, typed: dict[str, str], said: str
) -> None:
    answer = client.post(f"{JOB}/today/found/zone/front-siding", data=typed)
    assert answer.status_code == 422 and said in answer.text
    assert not _bundle(ctx).job.found_more
