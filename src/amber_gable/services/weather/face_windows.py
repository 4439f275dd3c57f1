"""The one-face question of the command line: when can this coat go on this face?"""

from datetime import date, datetime, timedelta, timezone
from typing import Annotated, Any

import numpy as np
from pydantic import Field

from amber_gable.core.specification.absorptance import absorptance_of
from amber_gable.core.specification.limits import moisture_limit
from amber_gable.core.weather.slots import make_slots
from amber_gable.core.weather.steps import to_steps
from amber_gable.core.weather.surface import FaceSurface, surface_climate
from amber_gable.core.weather.typical import stretch
from amber_gable.core.weather.windows import film_windows, moment, slot_readings
from amber_gable.domain.aims import usual_aim
from amber_gable.domain.base import Azimuth, HexColour, Percent, Record
from amber_gable.domain.errors import InputError
from amber_gable.domain.exposure import Exposure
from amber_gable.domain.generic_products import generic_product
from amber_gable.domain.method import Method
from amber_gable.domain.schools import DEFAULTS
from amber_gable.domain.substrates import substrate
from amber_gable.domain.weather import WeatherSeries
from amber_gable.domain.working import CrewDay, Policy


class FaceQuestion(Record):
    """A face, a coat on it and a stretch of days. Coordinates default to the weather file's own."""

    latitude: Annotated[float, Field(ge=-66.5, le=66.5)] | None = None
    longitude: Annotated[float, Field(ge=-180, le=180)] | None = None
    azimuth: Azimuth
    tilt: Annotated[float, Field(ge=0, le=90)] = 90.0
    substrate: str
    colour: HexColour
    product: str
    method: Method
    exposure: Exposure = Exposure.OPEN
    moisture_pct: Percent | None = None
    day_start: float = 7.0
    day_end: float = 19.0
    start: date
    days: Annotated[int, Field(ge=1, le=366)] = 7
    policy: Policy = Policy()


def answer_windows(question: FaceQuestion, series: WeatherSeries) -> dict[str, Any]:
    """Every half hour of the days: workable or what stops it, readings, and when the coat is touch-dry and rain-ready.

    Times are the weather file's standard time. A coat's times count from the end of its slot.
    """
    q = question
    latitude = q.latitude if q.latitude is not None else series.latitude
    longitude = q.longitude if q.longitude is not None else series.longitude
    if latitude is None or longitude is None:
        raise InputError("--lat, --lon", f"{series.source} does not say where it is", "give both")
    product = generic_product(q.product)
    taken = absorptance_of(q.colour, product.solar_reflectance)
    face = FaceSurface(
        azimuth_deg=q.azimuth,
        tilt_deg=q.tilt,
        substrate=substrate(q.substrate),
        absorptance=taken.likely,
        absorptance_band=(taken.low, taken.high),
        exposure=q.exposure,
    )
    zone = timezone(timedelta(hours=series.utc_offset_h))
    steps = to_steps(stretch(series, q.start, q.days), latitude, longitude, series.altitude_m)
    climate = surface_climate(steps, (face,))
    begin = datetime(q.start.year, q.start.month, q.start.day, tzinfo=zone)
    slots = make_slots(steps, begin, q.days, zone)
    crew = CrewDay(start_h=q.day_start, end_h=q.day_end, setup_h=0, cleanup_h=0)
    # No job says what is aimed at: the usual finish of the surface, under the usual schools.
    tags = face.substrate.tags
    damp = moisture_limit(tags, usual_aim(tags).value, DEFAULTS, product.moisture_max_pct)
    reading = np.array([np.nan if q.moisture_pct is None else q.moisture_pct])
    windows = film_windows(climate, slots, product, q.method, q.policy, crew, reading, damp)
    readings = slot_readings(climate, slots)
    assert windows.touch_at is not None and windows.rain_ready_at is not None
    out = []
    for i in range(len(slots)):
        touch, rain = moment(windows.touch_at[0, i], slots), moment(windows.rain_ready_at[0, i], slots)
        out.append(
            {
                "start": slots.time(i).isoformat(),
                "ok": bool(windows.ok[0, i]),
                "stops": windows.letters(0, i),
                "air_c": round(float(readings.air[0, i]), 2),
                "rh_pct": round(float(readings.rh[0, i]), 1),
                "dew_point_c": round(float(readings.dew[0, i]), 2),
                "surface_c": round(float(readings.surface[0, i]), 2),
                "spread_c": round(float(readings.dew_margin[0, i]), 2),
                "sun_w_m2": round(float(readings.poa_direct[0, i]), 1),
                "film_g_m2": round(float(readings.water_film[0, i]), 2),
                "touch_at": touch and touch.isoformat(),
                "rain_ready_at": rain and rain.isoformat(),
            }
        )
    days: list[dict[str, Any]] = [
        {
            "date": d.date,
            "workable_h": d.workable_h,
            "first": d.first and d.first.isoformat(),
            "last_stroke": d.last_stroke and d.last_stroke.isoformat(),
            "stretches": [[begin.isoformat(), end.isoformat()] for begin, end in d.stretches],
        }
        for d in windows.days(0)
    ]
    total = sum(d["workable_h"] for d in days)
    return {"slots": out, "days": days, "workable_h": total, "notes": list(series.notes)}
