"""What wind, rain and sun meet before they reach a face."""

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Azimuth, Record


class Exposure(StrEnum):
    """How freely wind and rain reach the face."""

    OPEN = "open"
    SHELTERED = "sheltered"


class HorizonPoint(Record):
    """Top of what stands in front of the face in one direction, as seen from the face's middle."""

    azimuth_deg: Azimuth
    elevation_deg: Annotated[float, Field(ge=0, le=90)]
