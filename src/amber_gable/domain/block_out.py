"""A house blocked out: a rectangular footprint under a roof, from which its faces follow."""

from enum import StrEnum
from math import atan, degrees
from typing import Annotated, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import Azimuth, HexColour, Name, Record


class Roof(StrEnum):
    """Where the ridge runs, as one sees it from the street."""

    GABLE_ALONG = "gable-along"
    GABLE_TO_STREET = "gable-to-street"
    HIP = "hip"
    LEAN_TO = "lean-to"
    FLAT = "flat"


Size = Annotated[float, Field(gt=0.5, le=100)]


class BlockOut(Record):
    """width_m along the street and depth_m of the footprint, eaves_m the walls' height, rise_m of the ridge over the
    eaves (a lean-to rises to the back; 0 under a flat roof). looks_deg: where the street side looks. gable_substrate:
    of the walls' triangles, where it is another. base_m: height of a base of `base_substrate` at the foot.
    roof_substrate None: the roof is not painted."""

    building: Name = "House"
    width_m: Size
    depth_m: Size
    eaves_m: Annotated[float, Field(gt=0.5, le=40)]
    roof: Roof
    rise_m: Annotated[float, Field(ge=0, le=30)] = 0.0
    overhang_m: Annotated[float, Field(ge=0, le=4)] = 0.0
    looks_deg: Azimuth
    substrate: str
    colour: HexColour
    gable_substrate: str | None = None
    base_substrate: str | None = None
    base_m: Annotated[float, Field(ge=0, le=10)] = 0.0
    trim: bool = True
    trim_colour: HexColour = "#efe9dc"
    roof_substrate: str | None = None
    roof_colour: HexColour = "#5b5f5e"

    @model_validator(mode="after")
    def _stands(self) -> Self:
        if self.roof is not Roof.FLAT and self.rise_m <= 0:
            raise ValueError("a roof that is not flat rises: give its pitch or its rise")
        if (self.base_substrate is not None) != (self.base_m > 0):
            raise ValueError("a base has a height and is made of something: give both or neither")
        if self.base_m >= self.eaves_m:
            raise ValueError("the base is as high as the wall")
        return self

    @property
    def run_m(self) -> float:
        """Level, from an eave to the ridge."""
        return run_of(self.roof, self.width_m, self.depth_m)

    @property
    def pitch_deg(self) -> float:
        return degrees(atan(self.rise_m / self.run_m))


def run_of(roof: Roof, width_m: float, depth_m: float) -> float:
    """Level, from an eave to the ridge, m; a hip's is half the shorter side."""
    match roof:
        case Roof.GABLE_ALONG:
            return depth_m / 2
        case Roof.GABLE_TO_STREET:
            return width_m / 2
        case Roof.HIP:
            return min(width_m, depth_m) / 2
        case Roof.LEAN_TO | Roof.FLAT:
            return depth_m
