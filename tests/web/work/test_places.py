"""What was just noted on Today keeps its place; what comes next stands below it."""

import re
from datetime import datetime
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.store.job.jobs import load_bundle

RISE = "/jobs/coopers-rise"
pytestmark = [pytest.mark.usefixtures("indoors"), pytest.mark.weather]


@pytest.fixture(autouse=True)
def _at_work(ctx: Context) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-14T09:40-03:00"))


def _places(page: str) -> list[str]:
    """The cards from top to bottom: `noted`, or the task that is to be done."""
    found = re.findall(r'<section (?:data-task="([^"]+)" )?class="work-card ([^"]+)"', page)
    return ["noted" if "noted" in classes else task for task, classes in found]


def _hidden(page: str) -> dict[str, list[str]]:
    part = page[page.index('id="shown"') :]
    part = part[: part.index("</div>")]
    out: dict[str, list[str]] = {"card": [], "row": [], "day": []}
    for name, value in re.findall(r'name="(card|row|day)" value="([^"]+)"', part):
        out[name].append(value)
    return out


def _tasks_of(page: str, first: str) -> list[str]:
    form = next(f for f in page.split('<form class="noting"')[1:] if f'name="task" value="{first}"' in f)
    return re.findall(r'name="task" value="([^"]+)"', form[: form.index("</form>")])


def _note(client: TestClient, page: str, first: str, place: str = "card", said: str = "done") -> str:
    data: dict[str, Any] = _hidden(page) | {"task": _tasks_of(page, first), "said": [said], "place": [place]}
    answer = client.post(f"{RISE}/today/note", data=data)
    assert answer.status_code == 200
    return answer.text


def test_the_card_that_was_tapped_stays_and_the_next_comes_below(client: TestClient, ctx: Context) -> None:
    page = client.get(f"{RISE}/today").text
    now, following = _places(page)
    page = _note(client, page, now)
    assert _places(page)[:2] == ["noted", following], "the next does not move under the finger"
    assert len(_places(page)) == 2 and "Done at 09:40" in page
    page = _note(client, page, following)
    assert _places(page)[:2] == ["noted", "noted"] and len(_places(page)) == 3
    # What is taken back is open again where it was.
    touch = re.findall(r'data-noted="([^"]+)"', page)[0]
    page = client.post(f"{RISE}/today/back", data=_hidden(page) | {"touch": [touch]}).text
    assert _places(page)[:2] == [now, "noted"]
    assert "noted" not in _places(client.get(f"{RISE}/today").text), "a page that is opened anew shows what is open"
    with ctx.reading() as session:
        record = load_bundle(session, "coopers-rise").job.record
    assert len({e.touch for e in record}) == 3


def test_work_that_goes_on_keeps_its_place_too(client: TestClient) -> None:
    page = client.get(f"{RISE}/today").text
    _, following = _places(page)
    page = _note(client, page, following, said="started")
    assert _places(page)[1] == following and "noted" not in _places(page)
    assert "Under way" in page


def test_a_row_of_the_day_stays_a_row_and_its_day_stays_shown(client: TestClient) -> None:
    day = f"{RISE}/today?day=2026-09-16"
    page = client.get(day).text
    assert _hidden(page)["day"] == ["2026-09-16"]
    rows = page.split('<li class="work-row')[1:]
    first = re.findall(r'name="task" value="([^"]+)"', rows[1])[0]
    after = _note(client, page, first, place="row")
    now = re.findall(r'<li class="work-row([^"]*)"', after)
    assert [" noted" in classes for classes in now][:3] == [False, True, False], "the second of them, where it was"
    assert "Wed 16 Sep" in after and len(now) == len(rows)


def test_a_second_phone_hears_who_had_done_it(client: TestClient, ctx: Context) -> None:
    page = client.get(f"{RISE}/today").text
    now, _ = _places(page)
    data = _hidden(page) | {"task": _tasks_of(page, now), "said": ["done"], "place": ["card"]}
    client.post(f"{RISE}/today/note", data=data | {"by": ["Ina"]})
    other = client.post(
        f"{RISE}/today/note", data=data | {"by": ["Ove"], "touch": ["fedcba9876543210fedcba9876543210"]}
    )
    assert other.status_code == 200 and "Already done at 09:40, Ina" in other.text
    with ctx.reading() as session:
        assert {e.by for e in load_bundle(session, "coopers-rise").job.record} == {"Ina"}
    names = re.findall(r'<option value="([^"]+)">', other.text[other.text.index('id="crew-names"') :][:200])
    assert names == ["Ina"], "who worked here is picked by name"


def test_what_is_noted_late_was_done_as_planned_by_one_tap(client: TestClient, ctx: Context) -> None:
    """What follows a wash waits from when it was done, not from when somebody found the phone."""
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(datetime.fromisoformat("2026-09-14T17:00-03:00"))
    page = client.get(f"{RISE}/today").text
    page = _note(client, page, _places(page)[0])
    found = re.search(r'name="touch" value="([^"]+)"><input type="hidden" name="at" value="([^"]+)"', page)
    assert found is not None and "It was  09:53, as planned" in page
    told = _hidden(page) | {"touch": [found[1]], "at": [found[2]]}
    page = client.post(f"{RISE}/today/moved", data=told).text
    assert "Done at 09:53" in page and "as planned</button>" not in page
    with ctx.reading() as session:
        record = load_bundle(session, "coopers-rise").job.record
    first, back, again = (record[0], *(e for e in record if e.takes_back), record[-1])
    assert back.takes_back == first.touch and again.steps == first.steps
    assert again.at == datetime.fromisoformat(found[2]) and again.touch != first.touch
    late = client.post(f"{RISE}/today/moved", data={"touch": again.touch, "at": "2026-09-15T09:00-03:00"})
    assert late.status_code == 422 and "still to come" in late.text


def test_a_lot_is_ticked_kind_by_kind_and_part_by_part(client: TestClient, ctx: Context) -> None:
    page = client.get(f"{RISE}/today").text
    now, following = _places(page)
    data = _hidden(page) | {"place": ["card"]}

    def record() -> list[Any]:
        with ctx.reading() as session:
            return list(load_bundle(session, "coopers-rise").job.record)

    # The first card is four kinds of work on one wall: the covering is done, the washing is not.
    kinds = re.findall(r'name="only" value="(step/[^"]+)"', page[: page.index(f'data-task="{following}"')])
    assert kinds == ["step/contain", "step/cut-back", "step/fittings-down", "step/wash"]
    page = client.post(f"{RISE}/today/note", data=data | {"task": [now], "only": ["step/contain"]}).text
    assert [e.steps for e in record()] == [("contain",)] and now in _places(page), "the rest of it is still to do"
    # Shutters and lamps are taken down one by one.
    lot = page[page.index(f'data-task="{following}"') :]
    parts = re.findall(r'name="only" value="(item/[^"]+)"', lot)
    tasks = _tasks_of(page, following)
    client.post(f"{RISE}/today/note", data=data | {"task": tasks, "only": [parts[0]]})
    assert record()[-1].extent.parts == (tuple(parts[0].split("/")),)
    nothing = client.post(f"{RISE}/today/note", data=data | {"task": tasks, "only": ["step/paint"]})
    assert nothing.status_code == 200 and len(record()) == 2, "what is no part of it notes nothing"
