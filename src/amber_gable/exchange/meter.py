"""Hand meters through a small protocol: one reading of what the meter is held against, as JSON over HTTP.

A meter with a cable or radio is reached through a gateway program on the same machine that answers it
(docs/formats.md).
"""

from typing import Protocol

from pydantic import ValidationError

from amber_gable.domain.errors import first_words
from amber_gable.domain.findings.meter import MeterPlace, MeterReading, MeterUnavailable
from amber_gable.exchange.weather.http_answer import NoAnswer, fetch


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
        return parse_reading(answer.body)


def parse_reading(text: str | bytes) -> MeterReading:
    """The gateway's answer, checked. Raises MeterUnavailable."""
    try:
        return MeterReading.model_validate_json(text)
    except ValidationError as error:
        where, words = first_words(error)
        raise MeterUnavailable(f"the meter sent something unusable ({where or 'answer'} {words})") from None
