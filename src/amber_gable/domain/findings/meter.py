"""A hand meter: what it is held against, and what it reads."""

from datetime import datetime
from typing import Annotated

from pydantic import AwareDatetime, Field

from amber_gable.domain.base import Azimuth, Record


class MeterUnavailable(Exception):
    """The meter could not be reached or answered nonsense; the message says which."""


class MeterPlace(Record):
    """What the meter is held against. A real meter needs none of it; gateways ignore what they have no use for."""

    latitude: float
    longitude: float
    at: datetime
    azimuth_deg: Azimuth
    tilt_deg: float
    substrate: str
    colour: str
    spot: str = ""


class MeterReading(Record):
    """% of dry mass, °C, % relative humidity; None for what the instrument does not measure."""

    instrument: Annotated[str, Field(min_length=1, max_length=80)]
    at: AwareDatetime
    wood_pct: Annotated[float, Field(ge=0, le=100)] | None = None
    surface_c: Annotated[float, Field(ge=-60, le=120)] | None = None
    air_c: Annotated[float, Field(ge=-60, le=70)] | None = None
    rh_pct: Annotated[float, Field(ge=0, le=100)] | None = None
