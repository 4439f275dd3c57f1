"""Feeds and loggers mapped in Settings: read from a real server, previewed, kept, used, taken out and brought in."""

import json
import re
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta, timezone
from html import unescape
from typing import Any

import pytest
from fastapi import FastAPI, Response
from fastapi.testclient import TestClient

from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.store.weather.series import load_series
from tests.clients import submit
from tests.jobs import coopers_rise
from tests.web.server import running

PLACE = coopers_rise().property
TZ = timezone(timedelta(hours=-3))
WEATHER = "/jobs/coopers-rise/weather"


class Quay:
    """A made-up feed: rows in °F and shares, without a zone; `says` overrides."""

    def __init__(self) -> None:
        self.app, self.asked, self.says = FastAPI(), [], ""  # type: ignore[var-annotated]
        self.days, self.air = 8, 68.0

        @self.app.get("/hours")
        def hours(lat: float, lon: float) -> Response:
            self.asked.append((lat, lon))
            return Response(self.says or json.dumps(self.body()), media_type="application/json")

    def body(self) -> dict[str, Any]:
        first = datetime(2026, 9, 14, tzinfo=TZ)
        moments = [first + timedelta(hours=h) for h in range(24 * self.days)]
        rows = [
            {"validAt": f"{t:%Y-%m-%dT%H:%M}", "tempF": self.air, "humidity": 0.5, "wind": {"km_h": 18, "dir": "SW"}}
            for t in moments
        ]
        return {"station": "quay", "rows": rows}


@pytest.fixture
def quay() -> Iterator[tuple[Quay, str]]:
    feed = Quay()
    with running(feed.app) as address:
        yield feed, f"{address}/hours?lat={{lat}}&lon={{lon}}"


def _form(page: str) -> dict[str, str]:
    """The mapping as the page has it."""
    page = unescape(page)
    out = dict(re.findall(r'<input[^>]*?name="([^"]+)"[^>]*?value="([^"]*)"', page))
    for name, inside in re.findall(r'<select name="(use-\d+|place)".*?>(.*?)</select>', page, re.S):
        chosen = re.search(r'value="([^"]*)" selected', inside)
        out[name] = chosen[1] if chosen else ""
    return out


def _text(page: str) -> str:
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page))


def _read(client: TestClient, address: str) -> str:
    page = client.post("/settings/feed", data={"address": address, "place": PLACE.id})
    assert page.status_code == 200, page.text
    return page.text


def test_a_feed_is_read_guessed_previewed_kept_and_used(
    client: TestClient, ctx: Context, quay: tuple[Quay, str]
) -> None:
    feed, address = quay
    page = _read(client, address)
    assert feed.asked == [(45.25, -62.1)]
    form = _form(page)
    assert {k: v for k, v in form.items() if k.startswith("use-")} == {
        "use-0": "iso", "use-1": "air_c|°F", "use-2": "rh_pct|0–1", "use-3": "wind_ms|km/h",
        "use-4": "wind_from_deg|° or letters",
    }  # fmt: skip
    assert "192 hours, Mon 14 Sep 00:00 to Tue 22 Sep 00:00" in _text(page)
    # 68 °F is 20 °C, 18 km/h 5 m/s; SW is 225°.
    assert re.search(r"Mon 00:00 20\.0 50 5\.0 225 50", _text(page))
    wrong = client.post("/settings/map", data=form | {"use-2": "rh_pct|%"}, headers={"hx-request": "true"}).text
    assert re.search(r"Mon 00:00 20\.0 0 5\.0", _text(wrong)), "half a per cent, for the eye to catch"
    assert feed.asked == [(45.25, -62.1)], "a preview asks nobody"
    said = client.post("/settings/map", data=form | {"name": "Quay hours", "use": "1"}).text
    assert "Forecasts come from Quay hours" in _text(said)
    weather = job_weather(ctx, PLACE)
    assert weather.series is not None and weather.series.source == "Quay hours" and not weather.trouble
    assert weather.series.air_c.tolist() == pytest.approx([20.0] * 192)
    assert feed.asked[-1] == (45.25, -62.1)
    assert "Quay hours" in client.get(WEATHER).text
    submit(client, "/settings/service")
    assert job_weather(ctx, PLACE).series.source == "simulated forecast service"  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("says", "words"),
    [
        ("<html>busy</html>", "HTML"),
        ('{"rows": [{"validAt": "2026-09-14T00:00", "tempF": 60}]}', "holds 1 readings"),
        ('{"rows": []}', "is not there any more"),
    ],
)
def test_a_feed_that_changes_its_mind_leaves_the_last_good_forecast(
    client: TestClient, ctx: Context, quay: tuple[Quay, str], says: str, words: str
) -> None:
    feed, address = quay
    submit(client, "/settings/map", data=_form(_read(client, address)) | {"name": "Quay", "use": "1"})
    assert job_weather(ctx, PLACE).series is not None
    feed.says = says
    after = job_weather(ctx, PLACE, insist=True)
    assert after.series is not None and after.series.source == "Quay" and after.series.air_c[0] == pytest.approx(20)
    assert "Quay" in (after.trouble or "") and words in (after.trouble or "")


@pytest.mark.parametrize(
    ("address", "words"),
    [
        ("ftp://x.example/a", "begins with http"),
        ("http://", "begins with http"),
        ("http://x.example/{place}", "only {lat} and {lon}"),
        ("http://x.example/{lat.real}", "only {lat} and {lon}"),
        ("http://127.0.0.1:9/none", "did not answer"),
        ("", "begins with http"),
    ],
)
def test_an_address_that_cannot_be_asked_is_said_beside_its_field(client: TestClient, address: str, words: str) -> None:
    page = client.post("/settings/feed", data={"address": address})
    assert page.status_code == 422 and words in page.text and f'value="{address}"' in page.text


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"use-0": ""}, "No column is the time"),
        ({"use-1": ""}, "no column is the air"),
        ({"use-2": "air_c|%"}, "is not a unit of air"),
        ({"zone": "Atlantis"}, "is not a time zone"),
        ({"name": ""}, "name"),
    ],
)
def test_a_mapping_that_cannot_be_keeps_what_was_chosen(
    client: TestClient, quay: tuple[Quay, str], change: dict[str, str], words: str
) -> None:
    form = _form(_read(client, quay[1])) | {"name": "Quay"} | change
    page = client.post("/settings/map", data=form)
    assert page.status_code == 422 and words in page.text
    assert _form(page.text)["use-3"] == "wind_ms|km/h"
    assert "Quay" not in _text(client.get("/settings").text)


def test_a_feed_may_be_a_table_and_a_page_is_none(client: TestClient, ctx: Context, quay: tuple[Quay, str]) -> None:
    feed, address = quay
    first = datetime(2026, 9, 14, tzinfo=TZ)
    lines = [f"{first + timedelta(hours=h):%Y-%m-%d %H:%M};{14 + h % 24 / 2:.1f};60;3" for h in range(120)]
    feed.says = "\n".join(["Time;Temp °C;Humidity %;Wind m/s", *lines]).replace(".", ",")
    form = _form(_read(client, address))
    assert form["written"] == "csv" and form["use-1"] == "air_c|°C"
    submit(client, "/settings/map", data=form | {"name": "Quay table", "use": "1"})
    series = job_weather(ctx, PLACE).series
    assert series is not None and series.source == "Quay table" and series.air_c[1] == pytest.approx(14.5)
    feed.says = "<html><table><tr><td>1</td></tr></table></html>"
    shown = client.post("/settings/feed", data={"address": address})
    assert shown.status_code in (404, 422) and "HTML" in shown.text


def test_mappings_go_out_and_come_in_again(client: TestClient, quay: tuple[Quay, str]) -> None:
    submit(client, "/settings/map", data=_form(_read(client, quay[1])) | {"name": "Quay"})
    out = client.get("/settings/sources.json").content
    submit(client, "/settings/sources/quay/drop")
    assert "Quay" not in _text(client.get("/settings").text)
    assert "Quay" in _text(client.post("/settings/sources.json", files={"file": ("s.json", out)}).text)
    again = client.get("/settings/sources/quay").text
    assert _form(again)["use-1"] == "air_c|°F"
    bad = client.post("/settings/sources.json", files={"file": ("s.json", b'[{"kind": "feed"}]')})
    assert bad.status_code == 422
    assert client.get("/settings/sources/other").status_code == 404
    assert client.get("/settings/map?sample=none").status_code == 404


def test_two_sources_of_one_name_are_told_apart(client: TestClient, quay: tuple[Quay, str]) -> None:
    for expected in (200, 422):
        page = client.post("/settings/map", data=_form(_read(client, quay[1])) | {"name": "Quay"})
        assert page.status_code == expected
    assert "already" in page.text


def _log(first: datetime, air: float, hours: int) -> bytes:
    lines = ["Yard box 3", "Date/Time;Temp (°C);RH (%)"]
    for n in range(4 * hours):
        lines.append(f"{first + timedelta(minutes=15 * n):%d/%m/%Y %H:%M};{air};80")
    return "\n".join(lines).encode()


def test_a_logger_is_mapped_once_and_its_next_files_are_known_by_their_columns(
    client: TestClient, ctx: Context
) -> None:
    night = datetime(2026, 9, 13, 12, tzinfo=UTC)
    page = client.post("/settings/logger", files={"file": ("yard box.csv", _log(night, 4.5, 12))}).text
    assert "48" not in _form(page)["header"] and _form(page)["header"] == "2"
    assert "12 hours, Sun 13 Sep 12:00 to Mon 14 Sep 00:00" in _text(page)
    submit(client, "/settings/map", data=_form(page))
    told = job_weather(ctx, PLACE).series
    said = client.post(f"{WEATHER}/readings", files={"file": ("next.csv", _log(night, 4.5, 15))}).text
    assert "as yard box measured it, 15 hours" in _text(said)
    seen = job_weather(ctx, PLACE).series
    assert told is not None and seen is not None
    at = (int(datetime(2026, 9, 13, 12, tzinfo=TZ).timestamp()) - seen.start) // 3600
    assert seen.air_c[at : at + 15].tolist() == [4.5] * 15
    assert seen.air_c[at + 15] == told.air_c[at + 15] and seen.air_c[at - 1] == told.air_c[at - 1]
    assert re.search(r"the forecast had been \d+\.\d K warmer", _text(said))
    with ctx.reading() as session:
        forecast = load_series(session, PLACE.id, "forecast")
    assert forecast is not None and forecast.air_c[at] == told.air_c[at], "the forecast itself is kept as it was"
    submit(client, f"{WEATHER}/readings/drop")
    assert job_weather(ctx, PLACE).series.air_c[at] == told.air_c[at]  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"a,b\n1,2\n3,4\n", "is of no logger that is known"),
        (_log(datetime(2027, 1, 1, tzinfo=UTC), 5, 8), "still to come"),
    ],
)
def test_readings_that_cannot_be_are_refused_and_change_nothing(
    client: TestClient, ctx: Context, data: bytes, words: str
) -> None:
    page = client.post("/settings/logger", files={"file": ("box.csv", _log(datetime(2026, 9, 13, tzinfo=UTC), 4, 8))})
    submit(client, "/settings/map", data=_form(page.text))
    answer = client.post(f"{WEATHER}/readings", files={"file": ("x.csv", data)})
    assert answer.status_code == 422 and words in answer.text
    with ctx.reading() as session:
        assert load_series(session, PLACE.id, "observed") is None


@pytest.mark.weather
def test_a_cold_night_that_was_measured_makes_the_wall_colder(client: TestClient, ctx: Context) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    night = _log(datetime(2026, 9, 13, 18, tzinfo=UTC), 1, 12)
    page = client.post("/settings/logger", files={"file": ("box.csv", night)})
    submit(client, "/settings/map", data=_form(page.text))
    before = job_view(ctx, "coopers-rise", waits=True).site
    submit(client, f"{WEATHER}/readings", files={"file": ("n.csv", night)})
    after = job_view(ctx, "coopers-rise", waits=True).site
    assert before is not None and after is not None
    zone = PLACE.zones[0]
    walls = [s.surface_of(zone, zone.colour_now).climate for s in (before, after)]
    at = int((datetime(2026, 9, 14, 5, tzinfo=TZ).timestamp() - walls[0].steps.start) // 450)
    assert walls[1].surface[0, at] < walls[0].surface[0, at] - 5
