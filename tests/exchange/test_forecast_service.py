"""The forecast service over HTTP: what it may send, what it does wrong, and what is asked again."""

import asyncio
import json
from collections.abc import AsyncIterator, Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Annotated, Any
from zoneinfo import ZoneInfo

import httpx2
import numpy as np
import pytest
from fastapi import FastAPI, Header, Response
from starlette.responses import StreamingResponse

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.series import ENSEMBLE_COLUMNS
from amber_gable.exchange.weather.forecast import ForecastUnavailable, HttpForecast, parse_forecast
from amber_gable.standins.weather.regimes import DEMO_SEED
from amber_gable.standins.weather.service import hourly_answer, weather_service
from tests.web.server import running


@pytest.fixture(scope="module")
def service() -> Iterator[str]:
    with running(weather_service()) as address:
        yield address


ISSUED = datetime.fromisoformat("2026-09-14T06:30-03:00")


def test_the_simulated_service_is_reached_over_http(service: str) -> None:
    series = HttpForecast(service).forecast(45.25, -62.1, ISSUED)
    assert series.issued == int(datetime(2026, 9, 14, 9, tzinfo=UTC).timestamp())
    assert len(series) == (31 + 3 + 15) * 24, "the weeks that walls remember, three days of analysis, fifteen ahead"
    assert series.rain_pct is not None and set(np.unique(series.rain_pct[: 31 * 24])) == {0.0, 100.0}
    again = HttpForecast(service).forecast(45.25, -62.1, ISSUED)
    assert (again.air_c == series.air_c).all()


def test_a_service_is_asked_for_futures_of_its_own(service: str) -> None:
    series = HttpForecast(service, members=5).forecast(45.25, -62.1, ISSUED)
    assert series.ensemble is not None and set(series.ensemble) == set(ENSEMBLE_COLUMNS)
    assert all(rows.shape == (5, len(series)) for rows in series.ensemble.values())
    assert (series.ensemble["air_c"][:, : 31 * 24] == series.air_c[: 31 * 24]).all(), "what is over is the same in all"
    ahead = series.ensemble["air_c"][:, 24 * (31 + 8) :]
    assert 0.5 < ahead.std(axis=0).mean() < 6, "futures are apart, and no nonsense"
    assert HttpForecast(service).forecast(45.25, -62.1, ISSUED).ensemble is None


def test_weeks_before_that_lack_what_the_futures_tell_are_left_out() -> None:
    """The futures tell a dew point, the hours before only a humidity: the forecast is used without these."""
    told = hourly_answer(DEMO_SEED, 45.25, -62.1, ISSUED, members=2, before_h=48)
    whole = parse_forecast(json.dumps(told).encode())
    told["members"]["dew_point_c"] = told["members"].pop("rh_pct")
    told["members"]["dew_point_c"] = [[a - 3.0 for a in row] for row in told["members"]["air_c"]]
    short = parse_forecast(json.dumps(told).encode())
    assert len(whole) == 48 + len(short) and short.ensemble is not None
    assert all(rows.shape == (2, len(short)) for rows in short.ensemble.values())


def test_gusts_may_be_lacking_in_some_hours_and_in_those_before() -> None:
    told = hourly_answer(DEMO_SEED, 45.25, -62.1, ISSUED, before_h=48)
    told["gust_m_s"][3] = None
    del told["before"]["gust_m_s"]
    series = parse_forecast(json.dumps(told).encode())
    assert series.gust_ms is not None
    assert np.isnan(series.gust_ms).nonzero()[0].tolist() == [*range(48), 51], "the hours before, and the fourth"
    told["gust_m_s"] = [None] * len(told["time"])
    assert parse_forecast(json.dumps(told).encode()).gust_ms is None


@pytest.mark.parametrize(
    ("members", "words"),
    [
        ({"air_c": [[12, 13], [11]]}, "differ in number or length"),
        ({"air_c": [[12, 13]], "rain_mm": [[0, 0], [0, 0]]}, "differ in number or length"),
        ({"air_c": [[12, 900]]}, "air temperature 900"),
        ({"gust": [[1, 2]]}, "'gust' is no column of members"),
        ({"ghi_w_m2": [[1, 2]]}, "is no column of members"),
    ],
)
def test_futures_that_cannot_be_are_refused(members: dict[str, Any], words: str) -> None:
    with pytest.raises(InputError, match=words):
        parse_forecast(json.dumps(ANSWER | {"members": members}).encode())


@pytest.mark.parametrize("path", ["/nowhere", ""])
def test_a_service_that_cannot_be_used_is_unavailable_not_a_crash(service: str, path: str) -> None:
    with pytest.raises(ForecastUnavailable):
        HttpForecast(service + path if path else "http://127.0.0.1:9", timeout_s=1).forecast(45.25, -62.1, ISSUED)


def test_a_place_outside_the_services_world_is_unavailable(service: str) -> None:
    with pytest.raises(ForecastUnavailable, match="HTTP 422"):
        HttpForecast(service).forecast(80.0, -62.1, ISSUED)


ANSWER: dict[str, Any] = {
    "source": "made",
    "latitude": 45.25,
    "longitude": -62.1,
    "issued": "2026-09-14T06:00:00+00:00",
    "time": ["2026-09-14T06:00:00+00:00", "2026-09-14T07:00:00+00:00"],
    "air_c": [12, 13],
    "rh_pct": [90, 85],
    "wind_m_s": [1, 2],
    "wind_from_deg": [180, 190],
    "cloud_pct": [50, 60],
}


def test_a_good_answer_is_a_series() -> None:
    assert parse_forecast(json.dumps(ANSWER).encode()).air_c.tolist() == [12, 13]


@pytest.mark.parametrize(
    "change",
    [
        {"rh_pct": [90, 140]},
        {"air_c": [12]},
        {"time": []},
        {"time": ["x", "y"]},
        {"air_c": [None, 3]},
        {"issued": "soon"},
    ],
)
def test_nonsense_from_a_service_is_refused(change: dict[str, Any]) -> None:
    with pytest.raises((InputError, ValueError)):
        parse_forecast(json.dumps(ANSWER | change).encode())


def _at(*hours: int) -> list[str]:
    return [f"2026-09-14T{hour:02d}:00:00+00:00" for hour in hours]


def _bytes(*pieces: bytes, pause_s: float = 0.0, more: bool = False) -> FastAPI:
    """A service that sends these, one after the other and then for ever the last."""
    app = FastAPI()

    async def body() -> AsyncIterator[bytes]:
        for piece in pieces:
            yield piece
        while more:
            await asyncio.sleep(pause_s)
            yield pieces[-1]

    @app.get("/forecast")
    def answer() -> StreamingResponse:
        return StreamingResponse(body(), media_type="application/json")

    return app


NO_ZONE = ["2026-09-14T06:00", "2026-09-14T07:00"]
# What a service does wrong, and what is said of it.
ABUSES: dict[str, tuple[FastAPI, str]] = {
    "nested deep": (_bytes(b"[" * 900_000), "unusable"),
    "a deep value": (_bytes(b'{"x": ' + b"[" * 500_000), "unusable"),
    "no object": (_bytes(b"[1, 2]"), "unusable"),
    "numbers without end": (_bytes(b'{"latitude": ' + b"9" * 100_000 + b"}"), "unusable"),
    "not a number": (_bytes(json.dumps(ANSWER).replace("12,", "NaN,").encode()), "unusable"),
    "a page instead": (_bytes(b"<!doctype html><html><body>Sign in</body></html>"), "unusable"),
    "a gap of two hours": (_bytes(json.dumps(ANSWER | {"time": _at(6, 9)}).encode()), "does not follow"),
    "an hour twice": (_bytes(json.dumps(ANSWER | {"time": _at(6, 6)}).encode()), "does not follow"),
    "hours of no zone": (_bytes(json.dumps(ANSWER | {"time": NO_ZONE}).encode()), "offset"),
    "a hole": (_bytes(json.dumps(ANSWER | {"rh_pct": [90, None]}).encode()), "not a number"),
    "fifty megabytes": (_bytes(*[b" " * 1_000_000] * 50), "more than 2 MB"),
    "another place": (_bytes(json.dumps(ANSWER | {"latitude": 12.0}).encode()), "another place"),
    "without end": (_bytes(b" " * 400_000, more=True), "more than 2 MB"),
    "a byte at a time": (_bytes(b" ", pause_s=0.05, more=True), "within 0.9 s"),
}


@pytest.mark.parametrize(("app", "words"), ABUSES.values(), ids=ABUSES)
def test_whatever_a_service_sends_is_a_failure_with_words(app: FastAPI, words: str) -> None:
    with running(app) as address, pytest.raises(ForecastUnavailable, match=words):
        # Only the slow one is not waited for: on a busy machine the others take their time.
        HttpForecast(address, timeout_s=0.3 if "within" in words else 20).forecast(45.25, -62.1, ISSUED)


def test_the_day_the_clock_goes_back_has_25_hours_and_each_once() -> None:
    begin = datetime(2026, 10, 31, 20, tzinfo=ZoneInfo("America/Halifax"))
    hours = [datetime.fromtimestamp(begin.timestamp() + 3600 * n, begin.tzinfo).isoformat() for n in range(30)]
    assert len({h[11:13] for h in hours}) == 24 and hours[5][11:13] == hours[6][11:13]
    columns = {name: [values[0]] * 30 for name, values in ANSWER.items() if name.endswith(("_c", "_pct", "_s", "_deg"))}
    assert len(parse_forecast(json.dumps(ANSWER | columns | {"time": hours}).encode())) == 30


@dataclass
class Counted:
    """A service that answers each request as the next of `turns` says: a status, or a good answer."""

    turns: list[int]
    asked: list[str] = field(default_factory=list)

    def app(self) -> FastAPI:
        app = FastAPI()

        @app.get("/forecast")
        def answer(if_none_match: Annotated[str, Header()] = "") -> Response:
            self.asked.append(if_none_match)
            status = self.turns[min(len(self.asked), len(self.turns)) - 1]
            if status == 302:
                return Response(status_code=302, headers={"location": "http://127.0.0.1:9/forecast"})
            body = json.dumps(ANSWER) if status == 200 else ""
            return Response(body, status, {"etag": '"run-6"'})

        return app


@pytest.mark.parametrize(("turns", "asked", "words"), [
    ([503, 200], 2, ""), ([503, 502, 200], 3, ""), ([503], 3, "HTTP 503"), ([404, 200], 1, "HTTP 404"),
    ([302], 1, "not followed"),
])  # fmt: skip
def test_what_fails_on_its_own_side_is_asked_again_and_nothing_else(turns: list[int], asked: int, words: str) -> None:
    service = Counted(turns)
    with running(service.app()) as address:
        provider = HttpForecast(address)
        if words:
            with pytest.raises(ForecastUnavailable, match=words):
                provider.forecast(45.25, -62.1, ISSUED)
        else:
            assert len(provider.forecast(45.25, -62.1, ISSUED)) == 2
    assert len(service.asked) == asked


def test_a_run_that_is_held_is_not_sent_again(service: str) -> None:
    counted = Counted([200, 304, 200])
    with running(counted.app()) as address:
        provider = HttpForecast(address)
        first, again = (provider.forecast(45.25, -62.1, ISSUED) for _ in range(2))
        assert again is first
    assert counted.asked == ["", '"run-6"']
    real = HttpForecast(service)
    assert real.forecast(45.25, -62.1, ISSUED) is real.forecast(45.25, -62.1, ISSUED)
    assert real.forecast(45.25, -62.1, ISSUED + timedelta(hours=7)) is not real.forecast(45.25, -62.1, ISSUED)


def test_the_simulated_service_tells_its_shape(service: str) -> None:
    told = httpx2.get(f"{service}/openapi.json").json()
    shape = told["components"]["schemas"]["HourlyForecast"]["properties"]
    sent = httpx2.get(f"{service}/forecast", params={"lat": 45.25, "lon": -62.1, "issued": ISSUED.isoformat()}).json()
    assert set(shape) == set(sent)
