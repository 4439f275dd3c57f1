"""The simulated services: GET /forecast?lat=…&lon=…&issued=… answers hourly JSON, GET /reading a hand meter's."""

from datetime import UTC, datetime, timedelta
from typing import Annotated, Any

import numpy as np
from fastapi import FastAPI, Query

from amber_gable.standins.meter import meter_router
from amber_gable.standins.weather.regimes import DEMO_SEED
from amber_gable.standins.weather.truth import forecast, humidity


def weather_service(seed: str = DEMO_SEED) -> FastAPI:
    """An ASGI application of its own; the program reaches it over HTTP like any other provider."""
    app = FastAPI(title="Simulated forecasts", docs_url=None, redoc_url=None)

    app.include_router(meter_router(seed))

    @app.get("/forecast")
    def hourly(
        lat: Annotated[float, Query(ge=-66.5, le=66.5)],
        lon: Annotated[float, Query(ge=-180, le=180)],
        issued: datetime,
    ) -> dict[str, Any]:
        when = issued if issued.tzinfo else issued.replace(tzinfo=UTC)
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
