"""Heat and cold for the crew, said on the day it matters and nowhere else."""

import re

import pytest
from fastapi.testclient import TestClient

from tests.clients import submit
from tests.web.weather.test_typed_forecast import RISE, alone

__all__ = ["alone"]
TODAY = RISE.replace("weather", "today")


def _paste(client: TestClient, low: float, swing: float, rh: int, cloud: int, wind: int = 2) -> None:
    """Three days: coolest at 5 h, warmest at 15 h."""
    rows = [f"{h % 24}:00,{low + swing * max(0, 1 - abs(h % 24 - 15) / 10):.1f},{rh},{cloud},{wind}" for h in range(72)]
    page = client.post(f"{RISE}/pasted", data={"table": "\n".join(["time,air,rh,cloud,wind", *rows])})
    assert 'id="lane-drawing"' in page.text


def _notes(page: str) -> str:
    found = re.search(r'<section class="crew-notes[^"]*".*?</section>', page, re.S)
    return re.sub(r"<[^>]+>|\s+", " ", found[0]).strip() if found else ""


@pytest.mark.weather
@pytest.mark.usefixtures("alone")
def test_a_hot_clear_day_names_its_hours_what_to_do_and_where_the_shade_is(client: TestClient) -> None:
    _paste(client, 20, 14, 50, 10)
    for page in (client.get(RISE).text, client.get(TODAY).text):
        said = re.sub(" +", " ", _notes(page))
        assert re.search(r"(Hot|Dangerous heat) 1\d:\d\d to 1\d:\d\d ?: feels like 3\d °C in the shade", said)
        shade, sun = (int(f) for f in re.findall(r"(\d+) °C (?:in the shade|in the sun)", said))
        # 34 °C at 50 % feels like 39 (the chart: 93 °F, 50 % gives 100 °F); the sun adds up to 8.
        assert 36 <= shade <= 40 and shade < sun <= shade + 9
        assert "Out of the sun:" in said and "come first" in said


@pytest.mark.weather
@pytest.mark.usefixtures("alone")
def test_a_cold_morning_and_a_cold_evening_leave_the_mild_noon_between(client: TestClient) -> None:
    # Below 4 °C until ten and from four on, up to 9 °C between, nearly calm.
    rows = [f"{h % 24}:00,{2 if h % 24 < 10 or h % 24 >= 16 else 9},60,60,1" for h in range(72)]
    submit(client, f"{RISE}/pasted", data={"table": "\n".join(["time,air,rh,cloud,wind", *rows])})
    said = re.sub(" +", " ", _notes(client.get(f"{RISE}?at=2026-09-15T08:00-03:00").text))
    found = re.search(r"Cold 07:30 to (\d\d):\d\d and (\d\d):\d\d to \d\d:\d\d", said)
    assert found is not None, said
    assert int(found[1]) in (9, 10) and int(found[2]) in (14, 15, 16)


@pytest.mark.weather
@pytest.mark.usefixtures("alone")
def test_a_raw_morning_is_cold_and_a_mild_day_asks_nothing(client: TestClient) -> None:
    _paste(client, 1, 9, 75, 60, 6)
    said = _notes(client.get(f"{RISE}?at=2026-09-15T08:00-03:00").text)
    # 1 to 3 °C in 22 km/h of wind feels like -4 to -1.
    assert re.search(r"Cold +07:30 to \d\d:\d\d *: +feels like +-[2-5] °C", said)
    _paste(client, 12, 8, 60, 60)
    assert not _notes(client.get(f"{RISE}?at=2026-09-15T08:00-03:00").text)
