"""What a company sets up once, and every new job of it begins with."""

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Name, Record
from amber_gable.domain.units import UnitSystem
from amber_gable.domain.work.working import CrewDay


class Home(Record):
    """Where the company is at home."""

    place: Name
    latitude: Annotated[float, Field(ge=-66.5, le=66.5)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    time_zone: Annotated[str, Field(max_length=64)]


class Usual(Record):
    """`units` are those its people are shown until they choose others."""

    home: Home | None = None
    units: UnitSystem = UnitSystem.METRIC
    crew: CrewDay = CrewDay()


class Shelf(StrEnum):
    """The list a job stands in."""

    BOARD = "board"
    ARCHIVE = "archive"
    BEGINNINGS = "beginnings"
    """Not a job of its own: what others are begun from."""
