"""A job's own details: found by its town, a wrong sign asked about, changed, copied, deleted and brought back."""

import re
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.errors import Refused
from amber_gable.domain.house.exposure import Terrain
from amber_gable.services.context import Context
from amber_gable.services.job.details import details_form
from amber_gable.services.job.view import job_view
from amber_gable.services.place_check import place_doubt, read_place
from amber_gable.services.state.climate import job_climate
from amber_gable.store.job.jobs import load_bundle
from tests.clients import submit

NEW = {"name": "9 Weir Lane", "customer": "Nell Hart"}


def _bundle(ctx: Context, job_id: str) -> Any:
    with ctx.reading() as session:
        return load_bundle(session, job_id)


def _started(client: TestClient, form: dict[str, str]) -> str:
    page = client.post("/jobs", data=form)
    assert page.status_code == 200, page.text
    return str(page.url).split("/jobs/")[1].split("/")[0]


def test_a_town_alone_brings_coordinates_and_zone(client: TestClient, ctx: Context) -> None:
    place = _bundle(ctx, _started(client, NEW | {"place": "New Glasgow"})).property
    assert place.time_zone == "America/Halifax"
    assert (round(place.latitude), round(place.longitude)) == (46, -63)


def test_a_town_of_many_places_is_chosen_from_a_list_and_what_was_typed_stays(client: TestClient, ctx: Context) -> None:
    asked = client.post("/jobs", data=NEW | {"place": "Newport"})
    assert asked.status_code == 422 and "may be one of" in asked.text and 'value="9 Weir Lane"' in asked.text
    towns = re.findall(r'name="town" value="([^"]+)"', asked.text)
    oregon = next(t for t in towns if "Los_Angeles" in t)
    place = _bundle(ctx, _started(client, NEW | {"place": "Newport", "town": oregon})).property
    assert place.time_zone == "America/Los_Angeles"
    # Chosen on a job that stands somewhere, the town moves it.
    moved = {**NEW, "place": "Newport", "town": oregon, "latitude": "45.3", "longitude": "-62.2", "time_zone": "x"}
    assert read_place(ctx, moved).time_zone == "America/Los_Angeles"
    live = client.get("/places", params={"place": "Newport"}).text
    assert re.findall(r'name="town" value="([^"]+)"', live) == towns
    assert "No town of that name" in client.get("/places", params={"place": "Qzzxy"}).text


@pytest.mark.parametrize(
    ("latitude", "longitude", "zone", "words"),
    [
        (45.3, -62.2, "America/Halifax", ""),
        # The sun would be eight hours out: the sign of the longitude is wrong.
        (45.3, 62.2, "America/Halifax", "with longitude -62.2 it lies near"),
        (-45.3, -62.2, "America/Halifax", "with latitude 45.3 it lies near"),
        (53.35, -6.26, "Europe/Dublin", ""),
        (53.35, -6.26, "America/New_York", "the zone there is Europe/Dublin"),
        # True places far from their clock's own sun: western Spain and Argentina less than two hours, Ürümqi by two.
        (42.9, -9.2, "Europe/Madrid", ""),
        (-41.1, -71.3, "America/Argentina/Salta", ""),
        (43.8, 87.6, "Asia/Shanghai", "12:"),
        (-36.85, 174.76, "Pacific/Auckland", ""),
        (-36.85, -174.76, "Pacific/Auckland", "with longitude 174.76 it lies near"),
    ],
)
def test_a_place_its_clock_cannot_have_is_asked_about(latitude: float, longitude: float, zone: str, words: str) -> None:
    found = place_doubt(latitude, longitude, zone)
    if words == "12:":
        # Two hours and ten minutes: asked, and then taken.
        assert "highest at 14:09" in found
    else:
        assert words in found and bool(words) == bool(found)


def test_a_doubtful_place_is_taken_when_the_user_says_it_is_so(client: TestClient, ctx: Context) -> None:
    odd = NEW | {"place": "Far off", "latitude": "45.3", "longitude": "62.2", "time_zone": "America/Halifax"}
    asked = client.post("/jobs", data=odd)
    assert asked.status_code == 422 and "Is that the place?" in asked.text and 'value="62.2"' in asked.text
    assert _bundle(ctx, _started(client, odd | {"sure": "1"})).property.longitude == 62.2


@pytest.mark.parametrize(
    ("form", "field", "words"),
    [
        ({"place": "Qzzxy"}, "place", "no town is known"),
        ({"place": ""}, "place", "name the town"),
        ({"place": "x", "latitude": "45"}, "longitude", "is missing"),
        ({"place": "x", "latitude": "45", "longitude": "-200"}, "longitude", "outside"),
        ({"place": "x", "latitude": "n", "longitude": "-62"}, "latitude", "not a number"),
        ({"place": "x", "latitude": "45", "longitude": "-62", "time_zone": "Mars"}, "time_zone", "not a time zone"),
    ],
)
def test_what_a_place_may_not_be(ctx: Context, form: dict[str, str], field: str, words: str) -> None:
    with pytest.raises(Refused) as caught:
        read_place(ctx, form)
    assert words in caught.value.fields[field]


@pytest.mark.parametrize(
    ("year", "words"), [("55", "may be 1955 or 2055"), ("1850.5", "not a year"), ("x", "not a year")]
)
def test_a_year_in_short_is_asked_back(client: TestClient, year: str, words: str) -> None:
    page = client.post("/jobs", data=NEW | {"place": "New Glasgow", "year_built": year})
    assert page.status_code == 422 and words in page.text


def test_details_are_changed_at_any_time_and_the_climate_follows(client: TestClient, ctx: Context) -> None:
    before = _bundle(ctx, "coopers-rise")
    form = details_form(before)
    page = client.get("/jobs/coopers-rise/details").text
    assert all(f'value="{v}"' in page for k, v in form.items() if v and k not in ("name",))
    moved = form | {"name": "16 Cooper's Rise", "latitude": "-36.85", "longitude": "174.76", "time_zone": ""}
    said = client.post("/jobs/coopers-rise/details", data=moved)
    assert "Kept." in said.text
    after = _bundle(ctx, "coopers-rise")
    assert after.job.name == "16 Cooper's Rise" and after.property.time_zone == "Pacific/Auckland"
    assert after.property.faces == before.property.faces and after.job.finishes == before.job.finishes
    weather = job_view(ctx, "coopers-rise").weather.series
    assert weather is not None and weather.longitude == 174.76, "no hour of the other place's forecast is left"
    kept = job_view(ctx, "coopers-rise").kept
    assert kept is not None and kept.job_changed, "a plan for another sun is out of date"
    assert client.post("/jobs/coopers-rise/details", data=form | {"customer": " "}).status_code == 422


def test_the_land_round_a_house_decides_how_much_rain_its_walls_catch(client: TestClient, ctx: Context) -> None:
    form = details_form(_bundle(ctx, "coopers-rise"))
    assert client.post("/jobs/coopers-rise/details", data=form | {"terrain": "moon"}).status_code == 422

    def caught() -> float:
        view = job_view(ctx, "coopers-rise")
        assert view.weather.series is not None
        climate = job_climate(ctx, view.bundle, view.weather.series, ctx.now)
        return float(max(s.climate.wall_rain.max() for s in climate.surfaces))

    among_houses = caught()
    client.post("/jobs/coopers-rise/details", data=form | {"terrain": "open-water"})
    assert caught() == pytest.approx(among_houses * 1.14 / 0.72, rel=0.01) and among_houses > 0
    kept = job_view(ctx, "coopers-rise").kept
    assert kept is not None and kept.job_changed, "a plan for a house among houses is out of date"
    del form["terrain"]
    client.post("/jobs/coopers-rise/details", data=form)
    assert _bundle(ctx, "coopers-rise").property.terrain is Terrain.OPEN_WATER, "what a form does not ask stays"


def test_a_copy_has_the_house_and_the_specification_and_nothing_that_was_done(client: TestClient, ctx: Context) -> None:
    page = client.post("/jobs/coopers-rise/copy")
    new = str(page.url).split("/jobs/")[1].split("/")[0]
    was, copy = _bundle(ctx, "coopers-rise"), _bundle(ctx, new)
    assert new != "coopers-rise" and copy.job.name == f"{was.job.name} (copy)"
    assert copy.property.zones == was.property.zones and copy.job.finishes == was.job.finishes
    assert copy.job.record == () and job_view(ctx, new).kept is None
    submit(client, f"/jobs/{new}/survey/zone/front-trim/delete")
    assert len(_bundle(ctx, "coopers-rise").property.zones) == len(was.property.zones), "they are two houses"


def test_a_deleted_job_leaves_the_board_and_comes_back_whole(client: TestClient, ctx: Context) -> None:
    was = _bundle(ctx, "net-loft")
    exported = client.get("/jobs/net-loft/export").content
    page = client.post("/jobs/net-loft/delete").text
    assert "was deleted" in page and 'href="/jobs/net-loft/' not in page
    assert client.get("/jobs/net-loft/survey").status_code == 404
    submit(client, "/jobs/net-loft/restore")
    assert _bundle(ctx, "net-loft") == was
    assert client.post("/jobs/net-loft/restore").status_code == 404
    submit(client, "/jobs/net-loft/delete")
    brought = client.post("/jobs/import", files={"file": ("net-loft.json", exported)})
    assert brought.status_code == 200 and _bundle(ctx, "net-loft").job.name == was.job.name
    assert client.post("/jobs/import", files={"file": ("net-loft.json", exported)}).status_code == 422


def test_the_board_is_searched_by_name_customer_and_place(client: TestClient) -> None:
    assert 'href="/jobs/coopers-rise/' in client.get("/?find=ottoline").text
    other = client.get("/?find=cooper quay").text
    assert 'href="/jobs/coopers-rise/' in other and 'href="/jobs/heron-deck/' not in other
    assert "No job has “nobody”" in client.get("/?find=nobody").text


def test_a_town_and_coordinates_that_do_not_belong_together_are_asked_about(ctx: Context) -> None:
    house = {"place": "New Glasgow", "latitude": "45.59", "longitude": "-62.65"}
    assert read_place(ctx, house).place == "New Glasgow"
    # The town was typed anew, its coordinates are the old ones: the weather would be another place's.
    with pytest.raises(Refused, match="km from these coordinates; empty them"):
        read_place(ctx, {**house, "place": "Leeds"})
    assert read_place(ctx, {**house, "place": "Leeds", "sure": "1"}).latitude == 45.59
    assert read_place(ctx, {**house, "place": "Saltmarsh Quay"}).latitude == 45.59, "no town of that name is known"
    # Of a name that stands in many places the one near by counts, however small it is among them.
    near = {"place": "Springfield", "latitude": "42.1", "longitude": "-72.6"}
    assert read_place(ctx, near).latitude == 42.1


def test_what_was_answered_about_a_place_is_not_asked_again(client: TestClient, ctx: Context) -> None:
    odd = {**NEW, "place": "Leeds", "latitude": "45.59", "longitude": "-62.65"}
    assert "Is that the place?" in client.post("/jobs", data=odd).text
    job_id = _started(client, odd | {"sure": "1"})
    form = details_form(_bundle(ctx, job_id))
    page = client.post(f"/jobs/{job_id}/details", data=form | {"customer": "Somebody Else"})
    assert page.status_code == 200 and _bundle(ctx, job_id).job.customer == "Somebody Else"
    moved = client.post(f"/jobs/{job_id}/details", data=form | {"latitude": "45.6"})
    assert moved.status_code == 422 and "Is that the place?" in moved.text
