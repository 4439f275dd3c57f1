"""Every page, and what a contractor does on them."""

import re
from typing import Any

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.context import Context
from amber_gable.services.job import stages
from tests.clients import submit
from tests.fixtures import StandIn

JOBS = ["coopers-rise", "net-loft", "quarry-lane", "heron-deck", "feed-barn"]
STAGES = [stage.path for stage in stages.STAGES]
RISE = "/jobs/coopers-rise"


@pytest.mark.parametrize("job", JOBS)
def test_every_stage_of_a_demo_job_opens_whole_and_loads_nothing_from_elsewhere(visitor: TestClient, job: str) -> None:
    for path in ("/", *(f"/jobs/{job}/{s}" for s in STAGES)):
        page = visitor.get(path)
        assert page.status_code == 200, path
        assert page.text.count("<h1>") == 1, path
        for trace in ("Traceback", "Undefined", "nan", "None", "{{", "inf "):
            assert not re.search(rf"(?<![\w-]){re.escape(trace)}(?![\w-])", page.text), (path, trace)
        assert " style=" not in page.text, path
        assert "<style" not in page.text, path
        assert not re.search(r"<script(?![^>]* src=)", page.text), path
        assert not re.search(r"(?:src|href)=\"(?:https?:)?//", page.text), path
        assert "'unsafe" not in page.headers["content-security-policy"]


def test_the_jobs_list_names_every_job_and_what_comes_next(visitor: TestClient) -> None:
    page = visitor.get("/").text
    for words in ("14 Cooper&#39;s Rise", "The Net Loft", "Heron Deck", "Contain: ground sheeted"):
        assert words in page


def test_quantities_show_the_litres_that_are_computed(visitor: TestClient) -> None:
    page = visitor.get(f"{RISE}/quantities").text
    # 168.6 m² of house coat twice, at 9.5 m²/L and 4 % lost: 36.97 L.
    assert "36.97" in page
    assert "2 × 18.927 L" in page


def test_the_why_panel_answers_for_the_slot_asked(visitor: TestClient) -> None:
    front = f"{RISE}/weather?product=last&face=front&at=2026-09-15T13:00:00-03:00"
    page = visitor.get(front).text
    assert "No: hot or direct sun" in page
    part = visitor.get(
        f"{RISE}/weather?product=last&face=back&at=2026-09-15T12:00:00-03:00", headers={"hx-request": "true"}
    )
    assert "Yes, until" in part.text
    assert "<html" not in part.text
    assert part.text.count('hx-swap-oob="true"') == 3
    coat = visitor.get(f"{RISE}/weather?product=coat&face=back&at=2026-09-16T15:00:00-03:00").text
    section = re.search(r"Wet section</dt><dd>([\d.]+)<small> m²", coat)
    assert section is not None and 1.0 < float(section[1]) < 12.0, "what two keep wet at the brush"
    assert "reach is filled" not in coat
    floor = visitor.get("/jobs/heron-deck/weather?product=last&face=porch&at=2026-09-16T12:00:00-03:00").text
    at = [
        floor.index(f">{stage}<") for stage in ("Dry to touch", "Rain-ready", "Recoat", "Fit for feet", "For furniture")
    ]
    assert at == sorted(at) and ">Fit for feet<" not in coat, "only on floors"


@pytest.mark.parametrize(
    "query",
    [
        "face=nowhere",
        "product=magic",
        "method=magic",
        "at=2031-01-01T00:00:00-03:00",
        "at=2026-09-15T12:00:00",
        "face=&at=",
    ],
)
def test_odd_addresses_on_the_weather_page_do_no_harm(visitor: TestClient, query: str) -> None:
    assert visitor.get(f"{RISE}/weather?{query}").status_code in (200, 422)


def test_another_product_changes_the_lanes(visitor: TestClient) -> None:
    def hours(product: str) -> float:
        page = visitor.get(f"{RISE}/weather?product={product}").text
        return sum(float(h) for h in re.findall(r'lane-total">([\d.]+) h', page))

    assert hours("skerry-latewall") > hours("gannet-tightbond") > 0


def test_a_forecast_that_cannot_be_had_leaves_the_last_in_use_and_says_so(client: TestClient, ctx: Context) -> None:
    assert isinstance(ctx.space.provider, StandIn)
    ctx.space.provider.down = True
    submit(client, "/clock", data={"hours": "3"})
    page = client.get(f"{RISE}/weather").text
    assert "The last forecast stays in use" in page
    assert "3.5 h old" in page
    assert page.count('class="lane"') == 7
    asked = ctx.space.provider.asked
    client.get(f"{RISE}/plan")
    assert ctx.space.provider.asked == asked, "a service that is down is not asked again at once"
    ctx.space.provider.down = False
    refreshed = client.post(f"{RISE}/weather/refresh").text
    assert "stays in use" not in refreshed
    assert "less than an hour old" in refreshed


def test_a_job_without_any_weather_says_what_to_do(client: TestClient, ctx: Context) -> None:
    ctx.space.provider = None
    page = client.post("/jobs", data=NEW_JOB)
    job = page.url.path.split("/")[2]
    for stage in STAGES:
        assert client.get(f"/jobs/{job}/{stage}").status_code == 200
    assert "import a weather file" in client.get(f"/jobs/{job}/weather").text.lower()


def test_a_weather_file_takes_the_forecasts_place_until_it_is_dropped(client: TestClient, ctx: Context) -> None:
    from tests.weather_cases import TMY3

    asked = client.post(f"{RISE}/weather/file", files={"file": (TMY3.name, TMY3.read_bytes())})
    # It is a station's of another place: how far away is said before it is taken.
    assert re.search(r"made <b>\d+ km \(\d+ miles\) away, near ", asked.text), asked.text
    assert "simulated forecast service" in client.get(f"{RISE}/weather").text
    page = client.post(asked.url.path)
    assert page.status_code == 200
    assert re.search(rf"file <b>{TMY3.name}</b>, made <b>\d+ km", page.text)
    assert client.post(asked.url.path).status_code == 422, "it is held until it is taken"
    assert page.text.count('class="lane"') == 7
    assert "simulated forecast service" in client.post(f"{RISE}/weather/file/drop").text


def test_a_broken_weather_file_changes_nothing(client: TestClient) -> None:
    from tests.exchange.test_weather_csv import plain

    bad = client.post(f"{RISE}/weather/file", files={"file": ("bad.csv", plain(values="15,140,2,180,40,0").encode())})
    assert bad.status_code == 422
    assert "bad.csv, line 4: relative humidity 140" in bad.text
    short = client.post(f"{RISE}/weather/file", files={"file": ("short.csv", plain(10).encode())})
    assert "at least 72" in short.text
    assert "simulated forecast service" in client.get(f"{RISE}/weather").text


NEW_JOB = {
    "name": "Garden shed",
    "customer": "A. Neighbour",
    "place": "Here",
    "latitude": "45,25",
    "longitude": "-62.1",
    "time_zone": "America/Halifax",
    "year_built": "",
}


def test_a_new_job_from_survey_to_day_sheet(client: TestClient) -> None:
    page = client.post("/jobs", data=NEW_JOB)
    job = page.url.path.split("/")[2]
    assert "Walk once round the house" in page.text
    base = f"/jobs/{job}"
    face = {
        "name": "Door side",
        "azimuth_deg": "N",
        "outline.kind": "gable",
        "size": "4,2 x 2.4",
        "outline.rise_m": "0.8",
    }
    page = client.post(
        f"{base}/survey/face/save", data=face | {"tilt_deg": "90", "exposure": "open", "rain_exposure": "1"}
    )
    assert "Saved." in page.text
    assert "add its zone" in page.text
    door = {"name": "Door", "kind": "door", "width_m": "0.9", "height_m": "2", "x_m": "1", "y_m": "0"}
    page = client.post(f"{base}/survey/opening/save", data=door | {"face": "door-side", "casing_m": "90 mm"})
    assert page.status_code == 200
    zone = {"name": "Boards", "substrate": "wood-lap", "area.kind": "face", "colour_now": "#808078"}
    page = client.post(f"{base}/survey/zone/save", data=zone | {"face": "door-side", "profile.kind": ""})
    # (4.2 × 2.4 + ½ × 4.2 × 0.8 - 1.8) × 1.08
    assert "<b>10.8</b> m²" in page.text
    here = f"{base}/survey/zone/boards/condition"
    assert "Every essential test" not in client.get(here).text
    for test, value in (("coating", "oil"), ("scrape", "5"), ("rub", "light"), ("sheen", "dull"), ("bleach", "0")):
        assert client.post(f"{here}/test", data={"test": test, "value": value}).status_code == 200
    assert "Every essential test" in client.post(f"{here}/moisture", data={"pct": "13", "spot": "sill"}).text
    assert "nothing chosen yet" in client.get(f"{base}/specification").text
    finish = {"colour": "#e9dcc1", "colour_name": "Oat", "version": "0"}
    page = client.post(f"{base}/specification/zone/boards/colour", data=finish)
    assert "because 5 % is loose or peeling" in page.text
    assert "Skerry Housecoat" in client.get(f"{base}/quantities").text
    page = client.post(f"{base}/plan")
    assert "Second coat" in page.text
    day = re.search(r"today\?day=([\d-]+)", page.text)
    assert day
    assert "Door side" in client.get(f"{base}/today?day={day.group(1)}").text
    exported = client.get(f"{base}/export")
    assert exported.json()["job"]["finishes"][0]["colour_name"] == "Oat"


@pytest.mark.parametrize(
    ("change", "field", "words"),
    [
        ({"name": ""}, "name", "give the job a name"),
        ({"latitude": "north"}, "latitude", "not a number"),
        ({"latitude": "91"}, "latitude", "outside −66.5 to 66.5"),
        ({"time_zone": "Atlantis"}, "time_zone", "not a time zone"),
        ({"year_built": "19.5"}, "year_built", "not a year"),
    ],
)
def test_a_job_form_with_a_fault_keeps_what_was_typed(
    visitor: TestClient, change: dict[str, str], field: str, words: str
) -> None:
    page = visitor.post("/jobs", data=NEW_JOB | change)
    assert page.status_code == 422
    assert f'id="fault-{field}"' in page.text
    assert words in page.text
    assert 'value="A. Neighbour"' in page.text


def test_changing_the_job_marks_its_plan_out_of_date_and_replanning_clears_it(client: TestClient) -> None:
    submit(client, f"{RISE}/survey/zone/front-trim/delete")
    page = client.get(f"{RISE}/plan").text
    assert "out of date" in page
    assert "out of date" not in client.post(f"{RISE}/plan").text


def test_schools_of_the_house_are_chosen_for_job_or_company_where_they_are_asked(client: TestClient) -> None:
    before = client.get(f"{RISE}/weather?product=last&face=front&at=2026-09-15T13:00:00-03:00").text
    assert "No: hot or direct sun" in before

    def choose(**form: str) -> Any:
        return client.post(f"{RISE}/schools", data=form)

    page = choose(topic="sun", school="temperature", level="job")
    assert page.url.path.endswith("/weather")
    assert "Temperature decides" in page.text
    after = client.get(f"{RISE}/weather?product=last&face=front&at=2026-09-15T10:00:00-03:00").text
    assert "Yes, until" in after
    page = choose(topic="deduction", school="gross", level="company")
    assert page.url.path.endswith("/survey")
    assert re.search(r'value="gross" checked', page.text)
    assert "company" in page.text
    assert choose(topic="sun", school="moon", level="job").status_code == 422


def test_the_day_sheet_shows_cautions_and_limits(visitor: TestClient) -> None:
    page = visitor.get(f"{RISE}/today").text
    for words in ("Presume lead paint", "Work at height", "Local codes and licensed"):
        assert words in page
    assert "Never mix with ammonia" not in page
    assert "Never mix with ammonia" in visitor.get(f"{RISE}/today?day=2026-09-15").text, "the back is bleached then"
    coats = visitor.get(f"{RISE}/today?day=2026-09-16").text
    assert "K over dew point" in coats
    assert "last stroke" in coats


def test_the_demo_clock_steps_and_goes_back(client: TestClient) -> None:
    page = client.post("/clock", data={"hours": "24"}, headers={"referer": f"http://127.0.0.1:8765{RISE}/today"})
    assert "Tue 15 Sep" in page.text
    assert "06:30" in client.post("/clock", data={"to": "start"}).text
    assert client.post("/clock", data={"to": "2026-09-15T08:00"}).status_code == 422


def test_the_night_theme_is_kept_in_a_cookie(client: TestClient) -> None:
    assert 'data-bs-theme="dark"' in client.post("/theme").text
    assert 'data-bs-theme="light"' in client.post("/theme").text
