"""A look on Today and on the part's page: answered with enough or one more, never ticked off unanswered."""

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.site_record import Said
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.plan.planning import make_plan
from amber_gable.store.job.jobs import load_bundle, save_bundle
from tests.clients import submit
from tests.small_jobs import entry_door

pytestmark = [pytest.mark.weather, pytest.mark.usefixtures("indoors")]
BASE = "/jobs/entry-door"
PART = f"{BASE}/standing/item/door"


@pytest.fixture
def planned(ctx: Context) -> Context:
    with ctx.writing() as session:
        save_bundle(session, entry_door("look"))
    view = job_view(ctx, "entry-door", waits=True)
    assert view.weather.series is not None
    make_plan(ctx, view.bundle, view.weather.series)
    return ctx


def _said(ctx: Context) -> list[Said]:
    with ctx.reading() as session:
        return [e.said for e in load_bundle(session, "entry-door").job.record if "look" in e.steps]


def test_a_look_is_answered_and_the_possible_coat_goes_or_stays(planned: Context, client: TestClient) -> None:
    refused = client.post(PART, data={"step": "look", "said": "done"})
    assert refused.status_code == 422 and "enough, or one more coat" in refused.text
    strange = client.post(PART, data={"step": "coat-1", "said": "enough"})
    assert strange.status_code == 422 and "answer a look" in strange.text
    assert not _said(planned)
    for step in ("take-down", "wash", "coat-1", "coat-2"):
        submit(client, PART, data={"step": step, "said": "done", "why": "all of it entered at the end of the week"})
    page = client.get(PART).text
    assert "One more" in page and "Third coat, if the look asks for it" in page
    submit(client, PART, data={"step": "look", "said": "enough"})
    assert _said(planned) == [Said.ENOUGH]
    assert "not wanted" in client.get(PART).text
    assert client.get(f"{BASE}/today").status_code == client.get(f"{BASE}/plan").status_code == 200


def test_today_offers_the_answer_in_one_tap(planned: Context, client: TestClient) -> None:
    view = job_view(planned, "entry-door", waits=True)
    assert view.kept is not None
    look = next(t for t in view.kept.plan.tasks if t.steps == ("look",))
    page = client.get(f"{BASE}/today?day={look.start.date()}").text
    assert 'value="enough"' in page and 'value="one-more"' in page
    submit(client, f"{BASE}/today/note", data={"task": look.id, "said": "one-more"})
    assert _said(planned) == [Said.ONE_MORE]


def test_the_possible_coat_is_told_apart_on_the_estimate(planned: Context, client: TestClient) -> None:
    page = client.get(f"{BASE}/estimate").text
    assert "Possible, if a look asks for it" in page and "Third coat, if the look asks for it" in page
