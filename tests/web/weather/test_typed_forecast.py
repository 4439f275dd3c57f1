"""A forecast typed in, as somebody starts who has no service: understood as it is written, refused field by field with
nothing lost, used until it ends."""

import re
from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from amber_gable.services.clock import DemoClock
from amber_gable.services.context import Context
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.services.weather.held.forecasts import NO_SERVICE
from amber_gable.services.weather.held.typing_in import typed_before
from amber_gable.store.weather.series import drop_series
from tests.clients import submit
from tests.fixtures import unchanged
from tests.jobs import coopers_rise

RISE = "/jobs/coopers-rise/weather"
PLACE = coopers_rise().property
FORM = {"units": "metric", "first": "2026-09-14", "low0": "9", "high0": "19"}
WEEK = FORM | {
    "moist0": "65 %", "cloud0": "mostly cloudy", "wind0": "20 km/h", "from0": "SW", "low2": "6", "high2": "15",
    "moist2": "4", "rain2": "showers", "rfrom2": "2 pm", "runtil2": "20:30", "chance2": "60 %", "by_the_sea": "on",
}  # fmt: skip
FAULTS = {
    "no low or high": ({"low0": "", "high0": ""}, "low0", "the day’s low"),
    "only a low": ({"high0": ""}, "high0", "the day’s high"),
    "words for a figure": ({"low0": "cool"}, "low0", "“cool” is not a number"),
    "high under low": ({"low0": "20"}, "high0", "below the low"),
    "hotter than it can be": ({"high0": "80"}, "high0", "55"),
    "dew over the high": ({"moist0": "25"}, "high0", "does not hold so much water"),
    "no humidity": ({"moist0": "wet %"}, "moist0", "65 %"),
    "no sky": ({"cloud0": "pink"}, "cloud0", "overcast"),
    "no wind": ({"wind0": "3 bft"}, "wind0", "20 km/h"),
    "rain that ends first": ({"rain0": "rain", "rfrom0": "20", "runtil0": "8"}, "rain0", "past midnight"),
    "no time": ({"rain0": "rain", "rfrom0": "noonish"}, "rfrom0", "14:30"),
    "no chance": ({"rain0": "rain", "chance0": "120"}, "chance0", "between 0 and 100"),
    "a day long past": ({"first": "2026-09-01"}, "first", "begins today"),
}  # fmt: skip


@pytest.fixture
def alone(ctx: Context) -> Context:
    """Without a service and without any forecast of one."""
    ctx.space.provider = None
    with ctx.writing() as session:
        drop_series(session, PLACE.id, "forecast")
    return ctx


def test_without_a_service_the_page_asks_for_a_forecast_and_shows_lanes_by_it(
    client: TestClient, alone: Context
) -> None:
    page = client.get(RISE).text
    assert 'name="low0"' in page and "lane-drawing" not in page
    shown = client.post(f"{RISE}/typed", data=WEEK).text
    assert "The typed forecast is in use." in shown and 'id="lane-drawing"' in shown
    assert "held less sure than a service" in shown
    kept = typed_before(alone, PLACE.id)
    assert kept is not None and len(kept.days) == 3 and kept.by_the_sea
    first, copied, third = kept.days
    assert (first.rh_pct, first.cloud, first.wind_from_deg) == (65, 0.75, 225)
    assert first.wind_ms == pytest.approx(20 / 3.6)
    assert copied == first, "a day nobody typed is as the day before"
    assert (third.dew_c, third.rh_pct, third.wind_ms) == (4, None, first.wind_ms)
    (rain,) = third.rain
    assert (rain.from_h, rain.until_h, rain.chance_pct, rain.kind.value) == (14, 20.5, 60, "showers")
    again = client.get(f"{RISE}/typed").text
    for field, value in (
        ("low0", "9"),
        ("moist0", "65 %"),
        ("cloud0", "mostly cloudy"),
        ("moist2", "4"),
        ("rfrom2", "14"),
    ):
        assert re.search(rf'name="{field}" value="{value}"', again), field


@pytest.mark.parametrize(("change", "field", "words"), FAULTS.values(), ids=FAULTS)
def test_what_cannot_be_understood_is_said_beside_its_field_and_nothing_is_lost(
    client: TestClient, alone: Context, change: dict[str, str], field: str, words: str
) -> None:
    typed = WEEK | {"low2": "6.5"} | change
    with unchanged(alone):
        answer = client.post(f"{RISE}/typed", data=typed)
    assert answer.status_code == 422
    assert words in answer.text
    assert not re.search(r'id="fault-\w+[1-9]"', answer.text), "days that take over from it are not blamed"
    if field != "first":
        assert f'id="fault-{field}"' in answer.text or field == "rain0"
    assert 'name="low2" value="6.5"' in answer.text


def test_us_readers_type_fahrenheit_and_miles(client: TestClient, alone: Context) -> None:
    submit(client, f"{RISE}/typed", data=FORM | {"units": "us", "low0": "50", "high0": "68", "wind0": "10"})
    kept = typed_before(alone, PLACE.id)
    assert kept is not None
    assert (kept.days[0].low_c, kept.days[0].high_c) == pytest.approx((10, 20))
    assert kept.days[0].wind_ms == pytest.approx(4.47, abs=0.01)


def test_a_typed_forecast_goes_before_the_service_until_it_ends_or_is_dropped(client: TestClient, ctx: Context) -> None:
    submit(client, f"{RISE}/typed", data=FORM)
    assert job_weather(ctx, PLACE).typed
    assert "Forecast of" not in client.get(RISE).text
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.clock.set(ctx.space.clock.now() + timedelta(days=1))
    assert not job_weather(ctx, PLACE).typed, "it told of one day"
    ctx.space.clock.set(ctx.space.clock.now() - timedelta(days=1))
    page = client.post(f"{RISE}/typed/drop").text
    assert "Forecast of" in page and not job_weather(ctx, PLACE).typed


def test_a_typed_forecast_that_ended_leaves_the_page_asking_for_the_next(client: TestClient, alone: Context) -> None:
    submit(client, f"{RISE}/typed", data=FORM)
    assert isinstance(alone.space.clock, DemoClock)
    alone.space.clock.set(alone.space.clock.now() + timedelta(days=2))
    page = client.get(RISE).text
    assert NO_SERVICE[3:] in page and 'name="low0"' in page and 'value="2026-09-16"' in page


def test_a_pasted_table_is_used_and_one_that_cannot_be_read_keeps_its_text(client: TestClient, alone: Context) -> None:
    rows = [f"{h % 24}:00,{12 + h % 7},60,3" for h in range(48)]
    bad = client.post(f"{RISE}/pasted", data={"table": "time,air,rh,wind\n0:00,12,140,3\n1:00,12,80,3"})
    assert bad.status_code == 422 and "humidity 140" in bad.text and "0:00,12,140,3" in bad.text
    late = client.post(f"{RISE}/pasted", data={"table": "time,air\n2026-10-15 06:00,12\n2026-10-15 07:00,12"})
    assert "do not reach now" in late.text
    shown = client.post(f"{RISE}/pasted", data={"table": "\n".join(["time,air,rh,wind", *rows])}).text
    assert 'id="lane-drawing"' in shown and "Pasted: 48 lines" in shown
    assert typed_before(alone, PLACE.id) is None
    assert job_weather(alone, PLACE).typed
