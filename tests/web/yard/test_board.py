"""The board by what needs attention: on the job's own clock, the most pressing first, long boards as lines."""

from datetime import datetime
from zoneinfo import ZoneInfo

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.listed_job import Coming, ListedJob
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import save_bundle
from amber_gable.web.views.yard.job_card import Attention, attention, by_attention
from tests.jobs import coopers_rise

HALIFAX = ZoneInfo("America/Halifax")
NOW = datetime(2026, 9, 14, 22, 0, tzinfo=HALIFAX)


def _job(next_at: str = "", unplaced: int = 0, *, planned: bool = True, name: str = "A", tz: str = "") -> ListedJob:
    zone = ZoneInfo(tz) if tz else HALIFAX
    at = int(datetime.fromisoformat(next_at).replace(tzinfo=zone).timestamp()) if next_at else 0
    coming = Coming("coat 1" if next_at else "", at, at, unplaced) if planned else None
    return ListedJob(name, name, "", "", zone, "house", False, coming)


@pytest.mark.parametrize(
    ("job", "asks"),
    [
        (_job("2026-09-14T07:00"), Attention.NOW),
        # At ten in the evening the whole of tomorrow is near, the morning after it is not.
        (_job("2026-09-15T19:30"), Attention.NOW),
        (_job("2026-09-16T00:30"), Attention.COMING),
        # In Hobart it is Tuesday already: Wednesday's work is tomorrow's.
        (_job("2026-09-16T18:00", tz="Australia/Hobart"), Attention.NOW),
        (_job("2026-09-20T07:00", unplaced=3), Attention.UNPLACED),
        (_job("2026-09-14T07:00", unplaced=3), Attention.NOW),
        (_job(planned=False), Attention.UNPLANNED),
        (_job(), Attention.PAST),
        (_job(unplaced=2), Attention.UNPLACED),
    ],
)
def test_what_a_job_asks_for(job: ListedJob, asks: Attention) -> None:
    assert attention(job, NOW) is asks


def test_the_most_pressing_first_and_in_time() -> None:
    jobs = [_job(name="done"), _job("2026-09-15T09:00", name="later"), _job(planned=False, name="new"),
            _job("2026-09-14T09:00", name="sooner"), _job("2026-09-21T09:00", name="next week")]  # fmt: skip
    found = [(a.name, [j.name for j in listed]) for a, listed in by_attention(jobs, NOW)]
    assert found == [
        ("NOW", ["sooner", "later"]),
        ("COMING", ["next week"]),
        ("UNPLANNED", ["new"]),
        ("PAST", ["done"]),
    ]


def test_of_a_long_board_the_first_are_drawn_and_all_are_there(client: TestClient, ctx: Context) -> None:
    bundle = coopers_rise()
    with ctx.writing() as session:
        for n in range(40):
            place = bundle.property.model_copy(update={"id": f"p{n}"})
            job = bundle.job.model_copy(update={"id": f"j{n}", "name": f"Weir Lane {n}"})
            save_bundle(session, bundle.model_copy(update={"property": place, "job": job}))
    page = client.get("/").text
    assert page.count('<svg class="elevation"') == 24
    assert all(f"/jobs/j{n}/survey" in page for n in range(40))
    assert page.index("Today and tomorrow") < page.index("To survey, specify or plan")
