"""One line of steps for a job: whatever was done last is taken back first, in the survey and beside it."""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.services.job.undo import redo_step, steps_of, undo_step
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.weather.series import load_series, save_series
from tests.clients import submit
from tests.weather_cases import steady
from tests.web.forms import form_of

pytestmark = pytest.mark.usefixtures("indoors")
RISE = "/jobs/coopers-rise"
SIDING = f"{RISE}/specification/zone/front-siding"
Do = Callable[[TestClient], Any]


def _bundle(ctx: Context) -> JobBundle:
    with ctx.reading() as session:
        return load_bundle(session, "coopers-rise")


def _post(path: str, **data: str) -> Do:
    return lambda client: client.post(f"{RISE}/{path}", data=data)


def _colour(client: TestClient) -> Any:
    form = form_of(client.get(SIDING).text, f"{SIDING}/colour")
    return client.post(f"{SIDING}/colour", data=form | {"library": "Bottle Green"})


def _details(client: TestClient) -> Any:
    form = form_of(client.get(f"{RISE}/details").text, f"{RISE}/details")
    return client.post(
        f"{RISE}/details", data=form | {"customer": "Somebody Else", "year_built": "1911", "people": "5"}
    )


def _leave(client: TestClient) -> Any:
    sash = f"{RISE}/specification/item/front-w1-item"
    return client.post(f"{sash}/leave", data=form_of(client.get(sash).text, f"{sash}/leave"))


DONE: dict[str, Do] = {
    "change what Siding on Street front gets": _colour,
    "change the details of the job": _details,
    "choose “Pressure wash siding”": _post("specification/school", topic="wash", school="pressure", level="job"),
    "choose “Airless and turbine”": _post("specification/school", topic="method", school="spray", level="company"),
    "note the lead test": _post("specification/lead", found="no"),
    "change the year for lead paint": _post("specification/lead-year", year="1925"),
    "take a colour scheme": _post("specification/colours/schemes/harbour/apply"),
    "drop a scheme": _post("specification/colours/schemes/harbour/drop"),
    "note who read the safety cards": _post("specification/acknowledge", by="Ina Tolland"),
    "change the crew": _post("plan", crew="1", people="3", start="07:00", end="15:00"),
    "delete Entry door": _post("survey/opening/front-door/delete"),
    "leave Sash 1 on Street front as it is": _leave,
}


@pytest.mark.parametrize("words", DONE)
def test_each_thing_done_is_taken_back_whole_and_done_again(ctx: Context, client: TestClient, words: str) -> None:
    before = _bundle(ctx)
    answer = DONE[words](client)
    assert answer.status_code < 400, answer.text
    after = _bundle(ctx)
    assert after != before, "something was done"
    assert steps_of(ctx, "14-coopers-rise").undo == words
    assert undo_step(ctx, "coopers-rise")
    assert _unrecorded(_bundle(ctx)) == _unrecorded(before)
    assert redo_step(ctx, "coopers-rise")
    assert _unrecorded(_bundle(ctx)) == _unrecorded(after)


def _unrecorded(bundle: JobBundle) -> JobBundle:
    """Without what is only ever added to: that a colour went there and back was told to the customer each time."""
    return bundle.model_copy(update={"job": bundle.job.model_copy(update={"changes": ()})})


def test_steps_come_back_in_the_order_they_were_done_whatever_they_were_done_to(
    ctx: Context, client: TestClient
) -> None:
    order = ["delete Entry door", "choose “Pressure wash siding”", "change the details of the job"]
    seen = [_bundle(ctx)]
    for words in order:
        DONE[words](client)
        seen.append(_bundle(ctx))
    page = client.get(f"{RISE}/weather").text
    for words, before in zip(reversed(order), reversed(seen[:-1]), strict=True):
        assert f"Undo: {words}" in page
        page = client.post(f"{RISE}/undo", data={"back": f"{RISE}/weather?said=saved", "what": words}).text
        assert "Taken back." in page and f'title="Redo: {words}"' in page
        assert _bundle(ctx) == before
    assert 'id="undo-job"' not in page, "nothing is left"
    # What is done now goes another way: what was taken back cannot come after it.
    DONE["note the lead test"](client)
    assert 'id="redo-job"' not in client.get(f"{RISE}/survey").text


def test_what_somebody_else_did_meanwhile_is_not_taken_back_unseen(ctx: Context, client: TestClient) -> None:
    DONE["delete Entry door"](client)
    DONE["note the lead test"](client)
    after = _bundle(ctx)
    page = client.post(f"{RISE}/undo", data={"back": f"{RISE}/survey", "what": "delete Entry door"}).text
    assert "Something else was done meanwhile" in page and 'title="Undo: note the lead test"' in page
    assert _bundle(ctx) == after


def test_the_drawing_tables_button_takes_back_only_what_it_says(ctx: Context, client: TestClient) -> None:
    table = client.get(f"{RISE}/survey/face/front", headers={"hx-request": "true"}).text
    assert f'action="{RISE}/undo"' in table
    DONE["delete Entry door"](client)
    shown = form_of(client.get(f"{RISE}/survey/face/front").text, f"{RISE}/undo")
    assert (shown["what"], shown["back"]) == ("delete Entry door", f"{RISE}/survey/face/front")
    DONE["note the lead test"](client)
    after = _bundle(ctx)
    late = client.post(f"{RISE}/undo", data=shown, headers={"hx-request": "true"}).text
    assert "Something else was done meanwhile; nothing was taken back" in late and "<html" not in late
    assert _bundle(ctx) == after
    submit(client, f"{RISE}/undo", data={"what": "note the lead test"})
    again = client.post(f"{RISE}/undo", data=shown, headers={"hx-request": "true"}).text
    assert 'id="table"' in again and any(o.id == "front-door" for o in _bundle(ctx).property.face("front").openings)


def test_a_page_whose_part_goes_leads_to_the_survey(ctx: Context, client: TestClient) -> None:
    made = str(client.post(f"{RISE}/survey/opening/front-door/duplicate").url)
    page = client.post(f"{RISE}/undo", data={"back": made[made.index("/jobs") :]})
    assert page.status_code == 200 and page.url.path == f"{RISE}/survey" and "Taken back." in page.text
    # No address of another's is followed.
    DONE["note the lead test"](client)
    assert client.post(f"{RISE}/undo", data={"back": "https://example.org/"}).url.path == f"{RISE}/survey"


def test_a_house_moved_and_moved_back_forgets_the_other_places_forecast(ctx: Context, client: TestClient) -> None:
    def held() -> bool:
        with ctx.reading() as session:
            return load_series(session, "14-coopers-rise", "forecast") is not None

    assert held()
    form = form_of(client.get(f"{RISE}/details").text, f"{RISE}/details")
    far = {"place": "Leeds", "latitude": "53.8", "longitude": "-1.5", "time_zone": "Europe/London"}
    submit(client, f"{RISE}/details", data=form | far)
    assert _bundle(ctx).property.time_zone == "Europe/London" and not held()
    with ctx.writing() as session:
        save_series(session, "14-coopers-rise", "forecast", steady(datetime(2026, 9, 14, tzinfo=UTC), 24))
    assert undo_step(ctx, "coopers-rise") and _bundle(ctx).property.time_zone == "America/Halifax"
    assert not held(), "Leeds' forecast says nothing of Saltmarsh Quay"


def test_a_customer_is_told_a_colour_that_went_there_and_back(ctx: Context, client: TestClient) -> None:
    _colour(client)
    undo_step(ctx, "coopers-rise")
    there, back = _bundle(ctx).job.changes
    assert (there.new, back.old) == ("Bottle Green", "Bottle Green") and back.new == there.old
