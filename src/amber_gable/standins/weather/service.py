"""The simulated services: GET /forecast?lat=…&lon=…&issued=… answers hourly JSON, GET /reading a hand meter's."""

from datetime import UTC, datetime, timedelta
from typing import Annotated, Any

import numpy as np
from fastapi import FastAPI, Header, Query, Response
from pydantic import BaseModel, Field

from amber_gable.core.weather.outdoors.air import Array
from amber_gable.standins.meter import meter_router
from amber_gable.standins.weather.regimes import DEMO_SEED
from amber_gable.standins.weather.truth import Hourly, ensemble, forecast, humidity, truth


class HourlyForecast(BaseModel):
    """One list for each column, as long as `time`. A real source may leave out what it does not know, but air, humidity
    or dew point, wind with where it comes from, and cloud or sunshine."""

    source: Annotated[str, Field(description="whose forecast it is, in words for the page")]
    latitude: Annotated[float, Field(ge=-90, le=90)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    issued: Annotated[datetime, Field(description="when it was made, with offset from UTC")]
    time: Annotated[
        list[datetime], Field(description="consecutive full hours with their offset; each value is its hour's")
    ]
    air_c: list[float]
    rh_pct: list[float]
    wind_m_s: Annotated[list[float], Field(description="at 10 m")]
    gust_m_s: Annotated[list[float], Field(description="the strongest of the hour, at 10 m")]
    wind_from_deg: list[float]
    cloud_pct: list[float]
    rain_mm: Annotated[list[float], Field(description="in the hour")]
    rain_probability_pct: list[float]
    members: Annotated[
        dict[str, list[list[float]]],
        Field(description="the source's own futures: of a column as many lists as there are members, each as `time`"),
    ] = {}
    before: Annotated[
        dict[str, list[Any]],
        Field(description="`time` and the same columns of the hours before, as they were; `before_h` asks for so many"),
    ] = {}


_GUSTS, _SQUALL = 1.5, 2.2
"""Gusts to the wind, in fair weather and in a shower."""


def _columns(members: list[Hourly]) -> dict[str, list[list[float]]]:
    told = {
        "air_c": [m.air for m in members],
        "rh_pct": [humidity(m.air, m.dew) for m in members],
        "wind_m_s": [m.wind for m in members],
        "cloud_pct": [100 * m.cloud for m in members],
        "rain_mm": [m.rain for m in members],
    }
    return {name: [np.round(row, 2).tolist() for row in rows] for name, rows in told.items()}


def weather_service(seed: str = DEMO_SEED) -> FastAPI:
    """An ASGI application of its own; the program reaches it over HTTP like any other provider."""
    app = FastAPI(title="Simulated forecasts", docs_url=None, redoc_url=None)

    app.include_router(meter_router(seed))

    @app.get(
        "/forecast", response_model=HourlyForecast, responses={304: {"description": "The one named is the newest"}}
    )
    def hourly(
        lat: Annotated[float, Query(ge=-66.5, le=66.5)],
        lon: Annotated[float, Query(ge=-180, le=180)],
        issued: datetime,
        response: Response,
        members: Annotated[int, Query(ge=0, le=100)] = 0,
        before_h: Annotated[int, Query(ge=0, le=1440)] = 0,
        if_none_match: Annotated[str, Header()] = "",
    ) -> Any:
        """Hourly columns named as in the plain weather CSV; an ETag names what a run says of a place."""
        when = issued if issued.tzinfo else issued.replace(tzinfo=UTC)
        hour = int(when.timestamp()) // 3600
        etag = f'"{seed}/{lat:g}/{lon:g}/{hour}/{members}/{before_h}"'
        if if_none_match == etag:
            return Response(status_code=304, headers={"etag": etag})
        response.headers["etag"] = etag
        return hourly_answer(seed, lat, lon, when, members, before_h)

    return app


def hourly_answer(
    seed: str, lat: float, lon: float, when: datetime, members: int = 0, before_h: int = 0
) -> dict[str, Any]:
    """What the service answers of a place (degrees) at a time that knows its offset: JSON as `HourlyForecast`."""
    hours, probability = forecast(seed, lat, lon, when)
    start = datetime.fromtimestamp(hours.start, UTC)
    columns = _told(hours, probability)
    return {
        "source": "simulated forecast service",
        "latitude": lat,
        "longitude": lon,
        "issued": when.astimezone(UTC).replace(minute=0, second=0, microsecond=0).isoformat(),
        "time": _times(start, len(hours.air)),
        **columns,
        "members": _columns(ensemble(seed, lat, lon, when, members)) if members else {},
        "before": _before(seed, lat, lon, start, before_h) if before_h else {},
    }


def _before(seed: str, lat: float, lon: float, end: datetime, hours: int) -> dict[str, list[Any]]:
    """What the weather was in the hours up to `end`."""
    begin = end - timedelta(hours=hours)
    was = truth(seed, lat, lon, begin, hours)
    return {"time": _times(begin, hours), **_told(was, np.where(was.rain >= 0.1, 100.0, 0.0))}


def _times(start: datetime, hours: int) -> list[str]:
    return [(start + timedelta(hours=h)).isoformat() for h in range(hours)]


def _told(hours: Hourly, probability: Array) -> dict[str, list[float]]:
    columns = {
        "air_c": hours.air,
        "rh_pct": humidity(hours.air, hours.dew),
        "wind_m_s": hours.wind,
        "gust_m_s": hours.wind * np.where(hours.shower > 0, _SQUALL, _GUSTS),
        "wind_from_deg": hours.wind_from % 360,
        "cloud_pct": 100 * hours.cloud,
        "rain_mm": hours.rain,
        "rain_probability_pct": probability,
    }
    return {name: np.round(values, 2).tolist() for name, values in columns.items()}
