"""What wind, rain and sun meet before they reach a face."""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Azimuth, Record


class Exposure(StrEnum):
    """How freely wind and rain reach the face."""

    OPEN = "open"
    SHELTERED = "sheltered"


class Terrain(StrEnum):
    """The land round a house, over which the wind comes (ISO 15927-3:2009, terrain categories I to IV)."""

    OPEN_WATER = "open-water"
    FARMLAND = "farmland"
    SUBURB = "suburb"
    TOWN = "town"


TERRAIN_NAMES = {
    Terrain.SUBURB: "houses or woods",
    Terrain.TOWN: "a town of tall buildings",
    Terrain.FARMLAND: "fields, a few hedges and houses",
    Terrain.OPEN_WATER: "open sea, a great lake or a bare plain",
}


@dataclass(frozen=True)
class Eave:
    """An overhang of that depth, and how far below it the middle of a strip of wall lies, m."""

    depth_m: float
    below_m: float

    @property
    def open_sky(self) -> float:
        """Share of the sky a wall sees there that a long overhang leaves open: the cosine of the angle to its edge."""
        return self.below_m / math.hypot(self.below_m, self.depth_m)


class HorizonPoint(Record):
    """Top of what stands in front of the face in one direction, as seen from the face's middle."""

    azimuth_deg: Azimuth
    elevation_deg: Annotated[float, Field(ge=0, le=90)]
