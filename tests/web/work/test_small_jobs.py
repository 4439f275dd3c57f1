"""A job of items alone goes all the way: lanes, plan, day sheet, every page and command."""

from collections.abc import Callable

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.planning import make_plan
from amber_gable.services.weather.faces.judged_faces import LaneQuestion
from amber_gable.store.job.jobs import save_bundle
from tests.small_jobs import ITEMS_ONLY, door_and_shutters

pytestmark = [pytest.mark.weather, pytest.mark.usefixtures("indoors")]
STAGES = ("survey", "specification", "quantities", "estimate", "weather", "plan", "today")
WEATHER = ("moisture", "film", "film/compare", "sun", "season", "versions")


@pytest.mark.parametrize("make", ITEMS_ONLY.values(), ids=ITEMS_ONLY)
def test_a_job_of_items_has_lanes_plan_and_every_page(
    ctx: Context, client: TestClient, make: Callable[[], JobBundle]
) -> None:
    bundle = make()
    with ctx.writing() as session:
        save_bundle(session, bundle)
    base = f"/jobs/{bundle.job.id}"
    view = job_view(ctx, bundle.job.id, waits=True)
    rows = LaneQuestion("coat").rows(view)
    assert [r.face.id for r in rows] == [f.id for f in bundle.property.faces], "a lane for every face with items"
    assert all(r.judged is not None and r.product is not None for r in rows)
    assert view.weather.series is not None
    plan = make_plan(ctx, view.bundle, view.weather.series)
    assert len(plan.tasks) + len(plan.unplaced) > 4
    face = bundle.property.faces[0].id
    for path in (*STAGES, *(f"weather/{w}" for w in WEATHER), f"weather?face={face}", f"survey/face/{face}"):
        answer = client.get(f"{base}/{path}")
        assert answer.status_code == 200, path
        assert "nothing to paint yet" not in answer.text, path
    board = client.get("/").text
    assert bundle.job.name in board


def test_a_face_with_items_lacks_nothing(ctx: Context, client: TestClient) -> None:
    bundle = ITEMS_ONLY["garage-door"]()
    with ctx.writing() as session:
        save_bundle(session, bundle)
    page = client.get("/jobs/garage-door/survey").text
    assert "nothing to paint" not in page


def test_shutters_on_stands_have_a_lane_of_their_own_beside_the_door_that_hangs(
    ctx: Context, client: TestClient
) -> None:
    bundle = door_and_shutters()
    with ctx.writing() as session:
        save_bundle(session, bundle)
    view = job_view(ctx, bundle.job.id, waits=True)
    assert view.weather.series is not None
    make_plan(ctx, view.bundle, view.weather.series)
    page = client.get("/jobs/door-and-shutters/weather?face=item.shutters").text
    assert "Shutters, on stands" in page and page.count('class="lane"') == 2
    assert client.get("/jobs/door-and-shutters/plan").text.count('class="lane"') == 2
