"""Hand meters through a small protocol: one reading of what the meter is held against, as JSON over HTTP.

A meter with a cable or radio is reached through a gateway program on the same machine that answers it
(docs/formats.md).
"""

from datetime import datetime
from typing import Annotated, Protocol

from pydantic import AwareDatetime, Field, ValidationError

from amber_gable.domain.base import Azimuth, Record
from amber_gable.domain.fault_words import first_words
from amber_gable.exchange.http_answer import NoAnswer, fetch


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


class HandMeter(Protocol):
    """Raises MeterUnavailable."""

    def read(self, place: MeterPlace) -> MeterReading: ...


CONNECT_S = 3.0
MAX_BYTES = 1_000_000


class HttpMeter:
    """A gateway that answers GET {address}/reading. One that is there may take its time: the painter holds the pins
    against the board until they settle, and the page says that it waits."""

    def __init__(self, address: str, timeout_s: float = 30.0) -> None:
        self.address, self.timeout_s = address.rstrip("/"), timeout_s

    def read(self, place: MeterPlace) -> MeterReading:
        asked = place.model_dump(mode="json")
        where = f"{self.address}/reading"
        try:
            answer = fetch(where, asked, connect_s=CONNECT_S, total_s=self.timeout_s, most_bytes=MAX_BYTES)
        except NoAnswer as error:
            raise MeterUnavailable(f"the meter {error}") from error
        return parse_reading(answer)


def parse_reading(text: str | bytes) -> MeterReading:
    """The gateway's answer, checked. Raises MeterUnavailable."""
    try:
        return MeterReading.model_validate_json(text)
    except ValidationError as error:
        where, words = first_words(error)
        raise MeterUnavailable(f"the meter sent something unusable ({where or 'answer'} {words})") from None
