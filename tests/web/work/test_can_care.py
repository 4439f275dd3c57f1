"""Today says what is wiped dry before its coat, where the cans spend the night before it, and how the pot is kept."""

import re

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.planning import make_plan
from amber_gable.store.job.jobs import save_bundle
from tests.small_jobs import door_and_shutters
from tests.web.weather.test_typed_forecast import RISE, alone

__all__ = ["alone"]
pytestmark = [pytest.mark.weather, pytest.mark.usefixtures("alone")]
TODAY = RISE.replace("weather", "today")


def _cold_week(client: TestClient, low: float, high: float) -> None:
    rows = [f"{h % 24}:00,{low if h % 24 < 9 or h % 24 > 19 else high},55,40,1" for h in range(240)]
    page = client.post(f"{RISE}/pasted", data={"table": "\n".join(["time,air,rh,cloud,wind", *rows])})
    assert page.status_code == 200


def _said(client: TestClient, day: str) -> str:
    found = re.search(
        r'<section class="crew-notes" id="can-care".*?</section>', client.get(f"{TODAY}?day={day}").text, re.S
    )
    return re.sub(r"<[^>]+>|\s+", " ", found[0]) if found else ""


@pytest.mark.parametrize(
    ("low", "words"),
    [(5.0, "takes about 2 h"), (9.5, " min in a warm room"), (-2.0, "spoilt"), (13.0, "")],
    ids=["cold", "cool", "frost", "mild"],
)
def test_the_eve_of_a_coat_says_where_the_cans_stay(ctx: Context, client: TestClient, low: float, words: str) -> None:
    _cold_week(client, low, 16.0)
    view = job_view(ctx, "coopers-rise", waits=True)
    assert view.weather.series is not None
    plan = make_plan(ctx, view.bundle, view.weather.series)
    laid = [(t.start.date(), view.bundle.product(t.product or "")) for t in plan.tasks if t.kind.lays_film]
    films = sorted({day for day, _ in laid})
    assert films, "a mild day lets coats be laid"
    # The first day of a paint that wants it warmer than the night.
    wants = min((day for day, paint in laid if paint.surface_min_c > low), default=films[0])
    eve = wants.fromordinal(wants.toordinal() - 1)
    said = _said(client, eve.isoformat())
    assert ("Cans indoors tonight" in said) is bool(words)
    assert words in said
    assert "Cans indoors tonight" not in _said(client, films[-1].isoformat()), "after the last coat no can is needed"


def test_shutters_under_the_dew_are_wiped_before_their_coat(ctx: Context, client: TestClient) -> None:
    """Clear, damp nights leave dew on what lies flat; the plan has its coat begin when the sun has dried it."""
    bundle = door_and_shutters()
    with ctx.writing() as session:
        save_bundle(session, bundle)
    rows = [f"{h % 24}:00,{9 if h % 24 < 9 or h % 24 > 19 else 19},{96 if h % 24 < 8 else 55},40,3" for h in range(240)]
    page = client.post(
        "/jobs/door-and-shutters/weather/pasted", data={"table": "\n".join(["time,air,rh,cloud,wind", *rows])}
    )
    assert page.status_code == 200
    view = job_view(ctx, bundle.job.id, waits=True)
    assert view.weather.series is not None
    plan = make_plan(ctx, view.bundle, view.weather.series)
    lying = [t for t in plan.tasks if t.kind.lays_film and t.zone == "shutters"]
    said = client.get(f"/jobs/door-and-shutters/today?day={lying[0].start.date()}").text
    words = " ".join(re.findall(r'id="wiped-first".*?</section>', said, re.S))
    assert "Shutters" in words and f'instead of <b class="n">{lying[0].start:%H:%M}' in words
