"""An empty program: sample jobs looked at and dropped, the company set up, and what a new job begins with."""

import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import numpy as np
import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.job.company_usual import Shelf
from amber_gable.services.company.set_up import set_up, stores
from amber_gable.services.company.stores import company, shelves
from amber_gable.services.context import Context
from amber_gable.services.job.details import start_job
from amber_gable.services.job.view import job_view
from amber_gable.services.job.yard import what_waits, yard_now
from amber_gable.services.weather.held.made_up import MadeUpWeather
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.tables import CompanyRow, JobRow, PropertyRow, SheetRow
from tests.clients import submit, visit
from tests.fixtures import open_space
from tests.web.forms import form_of

HOUSE = {"name": "9 Weir Lane", "customer": "Nell Hart", "place": "New Glasgow"}
SET_UP = {
    "name": "Larkspur & Daughters", "currency": "nzd", "place": "Nelson, New Zealand", "lead_cutoff_year": "1965",
    "unit_system": "us", "people": "3", "start": "06:30", "end": "16:00", "sunday": "1",
    "method": "spray", "sun": "follow-shade", "deduction": "net",
}  # fmt: skip


@pytest.fixture
def bare(tmp_path: Path, app: FastAPI) -> tuple[Context, TestClient]:
    """A program as it is first started, with nobody to ask for weather."""
    ctx = open_space(tmp_path / "new.sqlite3")
    ctx.space.provider = None
    return ctx, visit(app, ctx)


Bare = tuple[Context, TestClient]


def test_an_empty_program_says_what_it_does_and_has_three_ways_in(bare: Bare) -> None:
    page = bare[1].get("/").text
    ways = re.findall(r"<h2>([^<]+)</h2>", page[page.index('class="start"') : page.index('id="new-job"')])
    assert ways == ["Look round", "Set up the company", "Start a house"]
    assert 'class="elevation' in page, "a house is drawn before there is one"


def test_samples_are_marked_have_weather_and_go_without_a_trace(bare: Bare) -> None:
    ctx, client = bare
    mine = start_job(ctx, HOUSE)
    page = client.post("/samples").text
    assert page.count('class="sample-mark"') == 5 and "5 sample jobs" in page
    # They are nobody's: the stores, the units and the next job know nothing of them.
    assert shelves(ctx).company.id == "own"
    assert client.get("/jobs/sample-coopers-rise/weather").status_code == 200
    view = job_view(ctx, "sample-coopers-rise", waits=True)
    assert view.weather.series is not None and view.weather.series.source.startswith("made-up weather")
    assert job_view(ctx, mine).weather.series is None, "a house of one's own gets no made-up weather"
    # Brought again they are as they were shipped, not doubled.
    submit(client, "/jobs/sample-heron-deck/delete")
    assert client.post("/samples").text.count('class="sample-mark"') == 5
    left = client.post("/samples/drop").text
    assert "sample-mark" not in left and "9 Weir Lane" in left
    with ctx.reading() as session:
        assert [row.id for row in session.query(JobRow)] == [mine]
        assert [row.id for row in session.query(PropertyRow)] == [mine]
        assert {row.company_id for row in session.query(SheetRow)} == {"own"}
        assert [row.id for row in session.query(CompanyRow)] == ["own"]


def test_the_samples_company_is_never_taken_for_ones_own(bare: Bare) -> None:
    """Neither when it is the only one nor when it came first."""
    ctx, client = bare
    submit(client, "/samples")
    assert shelves(ctx).company.id == "own"
    assert stores.usual_of(ctx) is None
    start_job(ctx, HOUSE)
    assert shelves(ctx).company.id == "own"
    with ctx.reading() as session:
        row = stores.company_row(session)
        assert row is not None and not row.sample


def test_made_up_weather_is_of_a_september_whatever_the_day() -> None:
    winter = datetime(2027, 1, 20, 6, 30, tzinfo=UTC)
    found = MadeUpWeather().forecast(44.7, -63.6, winter)
    assert found.start < winter.timestamp() < found.end and found.issued == int(winter.replace(minute=0).timestamp())
    assert 10 < float(np.mean(found.air_c)) < 22, "a painter's week, not January's"
    # What is told of tomorrow today, and what is told of it tomorrow, is the same weather to within a forecast's error.
    later = MadeUpWeather().forecast(44.7, -63.6, winter + timedelta(days=1))
    shared = later.air_c[:48] - found.air_c[24:72]
    assert float(np.abs(shared).mean()) < 1.0


def test_the_company_is_set_up_once_and_new_jobs_begin_with_it(bare: Bare) -> None:
    ctx, client = bare
    begun_before = start_job(ctx, HOUSE)
    page = client.post("/settings/company", data=SET_UP)
    assert page.url.path == "/" and "The company is set up" in page.text
    again = client.get("/settings/company").text
    assert 'value="Larkspur &amp; Daughters"' in again and 'value="NZD"' in again and 'value="06:30"' in again
    assert re.search(r'name="method"\s+value="spray" checked', again)
    assert "Keep it so" in again
    # The home stays where it is as long as its name does; another town brings its own place along.
    form = form_of(again, "/settings/company")
    submit(client, "/settings/company", data=form | {"people": "4"})
    home = set_up(ctx).usual.home  # type: ignore[union-attr]
    assert home is not None and round(home.latitude) == -41
    submit(client, "/settings/company", data=form | {"place": "New Glasgow"})
    home = set_up(ctx).usual.home  # type: ignore[union-attr]
    assert home is not None and (round(home.latitude), home.time_zone) == (46, "America/Halifax")
    submit(client, "/settings/company", data=SET_UP)
    with ctx.reading() as session:
        assert company(session).lead_cutoff_year == 1965
        old = load_bundle(session, begun_before)
    assert old.job.crew.people == 2 and old.company.schools == {}, "what is begun stays as it was begun"
    job_id = start_job(ctx, {**HOUSE, "name": "2 Tide Row", "place": "Nelson"})
    with ctx.reading() as session:
        new = load_bundle(session, job_id)
    assert (new.job.crew.people, new.job.crew.start_h, new.job.crew.work_sunday) == (3, 6.5, True)
    assert (new.schools["method"], new.deduction, new.company.currency) == ("spray", "net", "NZD")
    # Of the many Nelsons the one near home is taken; units follow the company.
    assert new.property.time_zone == "Pacific/Auckland"
    assert "Shown in US units" in client.get("/").text


@pytest.mark.parametrize(
    ("field", "typed", "words"),
    [
        ("name", " ", "say what the company is called"),
        ("currency", "pounds", "three letters such as CAD"),
        ("currency", "€€€", "three letters such as CAD"),
        ("lead_cutoff_year", "78", "is not a year from 1900 to 2100"),
        ("place", "Newport", "may be one of"),
        ("people", "two", "is not a number of people"),
        ("start", "dawn", "is no time of the day"),
        ("start", "9" * 400, "is no time of the day"),
        ("end", "06:45", "ends before any work"),
    ],
)
def test_what_cannot_be_is_said_at_its_field_and_nothing_is_half_kept(
    bare: Bare, field: str, typed: str, words: str
) -> None:
    ctx, client = bare
    page = client.post("/settings/company", data={**SET_UP, field: typed})
    assert page.status_code == 422 and words in page.text
    assert 'value="Larkspur &amp; Daughters"' in page.text or field == "name", "what was typed stays"
    assert shelves(ctx).company.name == "My painting company"


def test_a_job_kept_to_begin_others_from_brings_the_house_but_not_what_was_found(
    ctx: Context, client: TestClient
) -> None:
    page = client.post("/jobs/coopers-rise/beginning").text
    assert "New jobs can begin from it" in page
    ((id_, name),) = yard_now(ctx).elsewhere[Shelf.BEGINNINGS]
    assert name == "14 Cooper's Rise" and id_ not in [j.id for j in yard_now(ctx).jobs]
    assert "To begin others from (1)" in client.get("/").text
    job_id = start_job(ctx, {**HOUSE, "begin_from": id_})
    with ctx.reading() as session:
        old, new = load_bundle(session, "coopers-rise"), load_bundle(session, job_id)
    assert (new.property.name, new.property.place, new.job.customer) == ("9 Weir Lane", "New Glasgow", "Nell Hart")
    assert new.property.year_built is None and new.property.lead_found is None and not new.property.photos
    assert len(new.property.zones) == len(old.property.zones) and len(new.property.items) == len(old.property.items)
    assert {z.condition for z in (*new.property.zones, *new.property.items)} == {Condition()}
    assert any(f.horizon or f.blocks for f in old.property.faces)
    assert not any(f.horizon or f.blocks or f.obstacles for f in new.property.faces), (
        "another house's trees shade no wall"
    )
    colours = {f.part: f.colour for f in old.job.finishes}
    assert {f.part: f.colour for f in new.job.finishes} == colours, "its colours come along"
    assert all(f.operations for f in new.job.finishes), "and steps for walls that nobody has looked at yet"
    assert new.job.schools == old.job.schools and new.job.crew == old.job.crew
    assert not new.job.record and not new.job.acknowledged
    submit(client, f"/jobs/{id_}/delete")
    gone = client.post("/jobs", data={**HOUSE, "name": "11 Weir Lane", "begin_from": id_})
    assert gone.status_code == 422 and "is no longer here" in gone.text and 'value="11 Weir Lane"' in gone.text


def test_an_archived_job_leaves_the_board_and_comes_back_whole(ctx: Context, client: TestClient) -> None:
    with ctx.reading() as session:
        before = load_bundle(session, "quarry-lane")
    page = client.post("/jobs/quarry-lane/archive").text
    assert "is in the archive" in page and 'href="/jobs/quarry-lane/today"' not in page
    assert client.get("/jobs/quarry-lane/survey").status_code == 200
    assert "in the archive" in client.get("/jobs/quarry-lane/details").text
    assert 'href="/jobs/quarry-lane/today"' in client.post("/jobs/quarry-lane/unarchive").text
    with ctx.reading() as session:
        assert load_bundle(session, "quarry-lane") == before


def test_the_same_address_is_asked_about(client: TestClient) -> None:
    submit(client, "/jobs", data=HOUSE)
    asked = client.post("/jobs", data={**HOUSE, "name": "9, weir  lane"})
    assert asked.status_code == 422 and "“9 Weir Lane” of Nell Hart in New Glasgow is here already" in asked.text
    # The same street and number in another town is another house.
    assert client.post("/jobs", data={**HOUSE, "place": "Halifax, Canada"}).status_code == 200
    assert client.post("/jobs", data={**HOUSE, "again": "1"}).status_code == 200


def test_the_yard_tells_the_days_work_and_what_waits(ctx: Context, client: TestClient) -> None:
    submit(client, "/clock", data={"to": "2026-09-15T10:30-03:00"})
    today = yard_now(ctx).today
    names = {"The Net Loft", "14 Cooper's Rise", "Quarry Lane", "Heron Deck", "Feed Barn"}
    assert {w.job.name for w in today} == names
    assert [w.begins for w in today] == sorted(w.begins for w in today)
    for work in today:
        assert {t.start.astimezone(work.job.tz).date().isoformat() for t in work.tasks} == {"2026-09-15"}
    page = client.get("/").text
    assert page.index("08:00") < page.index("Quarry Lane"), "in the order of the clock"
    # Nothing was noted of Monday: a job that is planned waits for that first of all.
    waits = {w.stage: w.words for w in what_waits(ctx, "coopers-rise")}
    assert waits["Today"].endswith("late")
    assert waits["Plan"].endswith(("threatened", "unplaced")), "whichever is graver in the plan that was found"
    assert 'href="/jobs/coopers-rise/today">Today <b>' in client.get("/yard/waits/coopers-rise").text
    assert "Nothing waits" in client.get("/yard/waits/nowhere").text
    submit(client, "/clock", data={"to": "2026-09-13T10:30-03:00"})
    assert "Nothing is planned for today. Next: " in client.get("/").text
