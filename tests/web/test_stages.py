"""The stages a phone's bar has room for: by how far the job is, and once it is planned by the clock."""

import re
from datetime import datetime

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.services.survey.blocking_out import block_out
from tests.clients import submit
from tests.web.survey.test_block_out import FORM, NEW


def _now(client: TestClient, path: str) -> list[str]:
    """What the bar shows, the page one is on among it."""
    return re.findall(r'<li class="now"><a href="/jobs/[^/]+/(\w+)"', client.get(path).text)


def test_a_new_job_is_surveyed_then_specified(client: TestClient, ctx: Context) -> None:
    job_id = start_job(ctx, NEW)
    assert _now(client, f"/jobs/{job_id}/survey") == ["survey", "specification", "quantities"]
    block_out(ctx, job_id, FORM, UnitSystem.METRIC)
    assert _now(client, f"/jobs/{job_id}/survey") == ["survey", "specification", "weather"]
    submit(client, f"/jobs/{job_id}/specification/derive")
    assert _now(client, f"/jobs/{job_id}/plan") == ["quantities", "weather", "plan"]
    assert _now(client, f"/jobs/{job_id}/survey") == ["survey", "quantities", "weather", "plan"]


@pytest.mark.parametrize(
    ("clock", "stages"),
    # The demo's plan begins on Monday 14 September; five days before it is still being made.
    [
        ("2026-09-09T08:00-03:00", ["quantities", "weather", "plan"]),
        ("2026-09-13T08:00-03:00", ["weather", "plan", "today"]),
        ("2026-09-16T10:00-03:00", ["weather", "plan", "today"]),
    ],
)
def test_a_planned_job_follows_the_clock(client: TestClient, ctx: Context, clock: str, stages: list[str]) -> None:
    ctx.space.clock.set(datetime.fromisoformat(clock))
    assert _now(client, "/jobs/coopers-rise/plan") == stages


def test_every_stage_is_one_touch_further_with_what_it_lacks(client: TestClient) -> None:
    page = client.get("/jobs/coopers-rise/survey").text
    sheet = page[page.index("all-sheet") : page.index("</details>", page.index("all-sheet"))]
    paths = ("survey", "specification", "quantities", "estimate", "weather", "plan", "today")
    assert [f"/jobs/coopers-rise/{p}" in sheet for p in paths] == [True] * 7
    assert "12 missing" in sheet and page.count("<b>12</b> essentials") == 1, "one count in the bar and on the page"
