"""The hand-meter stand-in: the hidden truth with an instrument's noise, through the protocol of a real one."""

from datetime import datetime

import httpx2
import numpy as np
import pytest
from fastapi.testclient import TestClient

from amber_gable.domain.findings.meter import MeterPlace, MeterUnavailable
from amber_gable.exchange.meter import HttpMeter, parse_reading
from amber_gable.standins.weather.service import weather_service

PLACE = MeterPlace(
    latitude=45.25,
    longitude=-62.1,
    at=datetime.fromisoformat("2026-09-16T13:00-03:00"),
    azimuth_deg=188,
    tilt_deg=90,
    substrate="wood-lap",
    colour="#53685c",
    spot="low board",
)


@pytest.fixture(scope="module")
def service() -> TestClient:
    return TestClient(weather_service())


def _read(service: TestClient, **change: object) -> dict[str, float]:
    place = PLACE.model_copy(update=change)
    answer = service.get("/reading", params=place.model_dump(mode="json"))
    found: dict[str, float] = parse_reading(answer.text).model_dump(exclude={"instrument", "at"})
    return found


def test_the_same_spot_reads_the_same_and_spots_scatter_like_an_instrument(service: TestClient) -> None:
    assert _read(service) == _read(service)
    values = [_read(service, spot=f"spot {n}")["wood_pct"] for n in range(16)]
    assert 0.25 < np.std(values) < 1.2
    assert np.mean(values) == pytest.approx(_read(service)["wood_pct"], abs=2.5)


def test_a_sunlit_dark_wall_is_hotter_than_a_shaded_one_and_both_know_the_air(service: TestClient) -> None:
    sunny, shaded = _read(service), _read(service, azimuth_deg=8)
    assert sunny["surface_c"] > shaded["surface_c"] + 10
    assert abs(sunny["air_c"] - shaded["air_c"]) < 1.5
    assert abs(shaded["surface_c"] - shaded["air_c"]) < 8


def test_rain_shows_in_the_wood_of_the_weather_side(service: TestClient) -> None:
    before = _read(service)["wood_pct"]
    after = _read(service, at=datetime.fromisoformat("2026-09-18T07:00-03:00"))["wood_pct"]
    assert after > before + 1.5
    dry = _read(service, at=datetime.fromisoformat("2026-09-18T07:00-03:00"), azimuth_deg=8)["wood_pct"]
    assert dry < after, "the front came from the south-west"


def test_masonry_has_no_wood_reading(service: TestClient) -> None:
    assert _read(service, substrate="brick")["wood_pct"] is None


@pytest.mark.parametrize(
    "text", ["", "{", '{"instrument": "x"}', '{"instrument": "x", "at": "2026-09-16T13:00Z", "wood_pct": 400}']
)
def test_nonsense_from_a_meter_is_told_apart_from_a_reading(text: str) -> None:
    with pytest.raises(MeterUnavailable, match="unusable"):
        parse_reading(text)


def test_a_meter_that_is_not_there_is_told() -> None:
    with pytest.raises(MeterUnavailable, match="did not answer"):
        HttpMeter("http://127.0.0.1:9", timeout_s=0.5).read(PLACE)
    assert issubclass(httpx2.ConnectError, httpx2.HTTPError)
