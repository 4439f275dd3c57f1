"""The simulated services: GET /forecast?lat=…&lon=…&issued=… answers hourly JSON, GET /reading a hand meter's."""

from datetime import UTC, datetime, timedelta
from typing import Annotated, Any

import numpy as np
from fastapi import FastAPI, Header, Query, Response
from pydantic import BaseModel, Field

from amber_gable.standins.meter import meter_router
from amber_gable.standins.weather.regimes import DEMO_SEED
from amber_gable.standins.weather.truth import forecast, humidity


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
    wind_from_deg: list[float]
    cloud_pct: list[float]
    rain_mm: Annotated[list[float], Field(description="in the hour")]
    rain_probability_pct: list[float]


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
        if_none_match: Annotated[str, Header()] = "",
    ) -> Any:
        """Hourly columns named as in the plain weather CSV; an ETag names what a run says of a place."""
        when = issued if issued.tzinfo else issued.replace(tzinfo=UTC)
        hour = int(when.timestamp()) // 3600
        etag = f'"{seed}/{lat:g}/{lon:g}/{hour}"'
        if if_none_match == etag:
            return Response(status_code=304, headers={"etag": etag})
        response.headers["etag"] = etag
        hours, probability = forecast(seed, lat, lon, when)
        start = datetime.fromtimestamp(hours.start, UTC)
        columns = {
            "air_c": hours.air,
            "rh_pct": humidity(hours.air, hours.dew),
            "wind_m_s": hours.wind,
            "wind_from_deg": hours.wind_from % 360,
            "cloud_pct": 100 * hours.cloud,
            "rain_mm": hours.rain,
            "rain_probability_pct": probability,
        }
        return {
            "source": "simulated forecast service",
            "latitude": lat,
            "longitude": lon,
            "issued": when.astimezone(UTC).replace(minute=0, second=0, microsecond=0).isoformat(),
            "time": [(start + timedelta(hours=h)).isoformat() for h in range(len(hours.air))],
            **{name: np.round(values, 2).tolist() for name, values in columns.items()},
        }

    return app
