"""A hand meter that reads the hidden truth with an instrument's noise: GET /reading."""

from datetime import UTC, datetime, timedelta
from functools import lru_cache
from hashlib import sha256
from typing import Annotated, Any

import numpy as np
from fastapi import APIRouter, Query

from amber_gable.core.specification.colour.absorptance import absorptance_of
from amber_gable.core.weather.wall.steps import to_steps
from amber_gable.core.weather.wall.surface import FaceSurface, surface_climate
from amber_gable.core.weather.wall.wood import equilibrium_moisture
from amber_gable.domain.grid import STEP_S
from amber_gable.domain.house.exposure import Exposure
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.standins.weather.truth import humidity, truth

BEFORE_H, AFTER_H = 120, 3
# Siding near the pins follows the air's mean of some days (docs/physics.md §6); rain wets it faster than it dries.
DRY_H, WET_H, SATURATED_PCT = 60.0, 18.0, 30.0
NOISE = {"wood_pct": 0.6, "surface_c": 0.4, "air_c": 0.2, "rh_pct": 1.2}


@lru_cache(maxsize=64)
def true_state(seed: str, latitude: float, longitude: float, at: datetime, surface: FaceSurface) -> dict[str, float]:
    """Wood moisture %, surface and air °C, and relative humidity % at a moment, without noise."""
    hour = at.astimezone(UTC).replace(minute=0, second=0, microsecond=0)
    start = hour - timedelta(hours=BEFORE_H)
    real = truth(seed, latitude, longitude, start, BEFORE_H + AFTER_H)
    series = WeatherSeries(
        start=real.start,
        air_c=real.air,
        rh_pct=humidity(real.air, real.dew),
        wind_ms=real.wind,
        wind_from_deg=real.wind_from % 360,
        cloud=real.cloud,
        rain_mm=real.rain,
    )
    climate = surface_climate(to_steps(series, latitude, longitude, 0.0), (surface,))
    now = int((at.timestamp() - series.start) // STEP_S)
    hourly = equilibrium_moisture(series.air_c, series.rh_pct)
    rain_on_it = climate.wall_rain[0].reshape(-1, 3600 // STEP_S).mean(axis=1)
    wood = float(hourly[:24].mean())
    for aim, wet in zip(hourly[:BEFORE_H], rain_on_it[:BEFORE_H], strict=True):
        wood += (SATURATED_PCT - wood) / WET_H if wet > 0.05 else (float(aim) - wood) / DRY_H
    return {
        "wood_pct": wood,
        "surface_c": float(climate.surface[0, now]),
        "air_c": float(climate.steps.air[now]),
        "rh_pct": float(climate.steps.rh[now]),
    }


def meter_router(seed: str) -> APIRouter:
    """The simulated instrument's gateway. Each spot reads a little differently; the same spot reads the same again."""
    router = APIRouter()

    @router.get("/reading")
    def reading(
        latitude: Annotated[float, Query(ge=-66.5, le=66.5)],
        longitude: Annotated[float, Query(ge=-180, le=180)],
        at: datetime,
        azimuth_deg: Annotated[float, Query(ge=0, lt=360)],
        tilt_deg: Annotated[float, Query(ge=0, le=90)],
        substrate: str,
        colour: Annotated[str, Query(pattern="^#[0-9a-f]{6}$")],
        spot: Annotated[str, Query(max_length=80)] = "",
    ) -> dict[str, Any]:
        when = at if at.tzinfo else at.replace(tzinfo=UTC)
        kind = SUBSTRATES.get(substrate, SUBSTRATES["wood-trim"])
        surface = FaceSurface(azimuth_deg, tilt_deg, kind, absorptance_of(colour).likely, Exposure.OPEN, 1.0, ())
        state = true_state(seed, latitude, longitude, when, surface)
        key = f"{seed}/{when.isoformat()}/{azimuth_deg}/{spot}"
        draw = np.random.default_rng(int.from_bytes(sha256(key.encode()).digest()[:8], "big"))
        read = {name: round(value + NOISE[name] * float(draw.normal()), 1) for name, value in state.items()}
        read["rh_pct"] = min(max(read["rh_pct"], 0.0), 100.0)
        if kind.family != "wood":
            read.pop("wood_pct")
        return {"instrument": "simulated hand meter", "at": when.isoformat(), **read}

    return router
