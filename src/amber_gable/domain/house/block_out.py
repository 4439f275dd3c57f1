"""A house blocked out: a rectangular footprint under a roof, with wings or none, from which its faces follow."""

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


class Side(StrEnum):
    """A side of the house as one sees it from the street."""

    FRONT = "front"
    LEFT = "left"
    BACK = "back"
    RIGHT = "right"

    @property
    def turned_deg(self) -> float:
        """By how much it looks clockwise of the front."""
        return 90.0 * list(Side).index(self)

    def turn(self, quarters: int) -> "Side":
        """The side so many quarter turns clockwise."""
        sides = list(Side)
        return sides[(sides.index(self) + quarters) % 4]


class WingRoof(StrEnum):
    """A lean-to rises to the house; a gable's ridge runs out from it, a ridge along it runs beside it."""

    LEAN_TO = "lean-to"
    GABLE_OUT = "gable-out"
    RIDGE_ALONG = "ridge-along"
    FLAT = "flat"


Size = Annotated[float, Field(gt=0.5, le=100)]


class Wing(Record):
    """A part that stands out from one side of the house: with it the footprint is an L, a T, a U or a cross. width_m
    along that side, from_left_m from its left corner as one stands before it, depth_m out from it."""

    name: Name = "Wing"
    side: Side
    from_left_m: Annotated[float, Field(ge=0, le=100)] = 0.0
    width_m: Size
    depth_m: Size
    eaves_m: Annotated[float, Field(gt=0.5, le=40)]
    roof: WingRoof
    rise_m: Annotated[float, Field(ge=0, le=30)] = 0.0

    @model_validator(mode="after")
    def _rises(self) -> Self:
        if self.roof is not WingRoof.FLAT and self.rise_m <= 0:
            raise ValueError(f"{self.name}: a roof that is not flat rises: give its pitch or its rise")
        return self

    @property
    def run_m(self) -> float:
        """Level, from an eave to the ridge or to the house."""
        return wing_run(self.roof, self.width_m, self.depth_m)

    @property
    def pitch_deg(self) -> float:
        return degrees(atan(self.rise_m / self.run_m))


def wing_run(roof: WingRoof, width_m: float, depth_m: float) -> float:
    """Level, from an eave to the ridge or to the house, m."""
    if roof is WingRoof.GABLE_OUT:
        return width_m / 2
    return depth_m / 2 if roof is WingRoof.RIDGE_ALONG else depth_m


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
    wings: Annotated[tuple[Wing, ...], Field(max_length=4)] = ()

    @model_validator(mode="after")
    def _stands(self) -> Self:
        if self.roof is not Roof.FLAT and self.rise_m <= 0:
            raise ValueError("a roof that is not flat rises: give its pitch or its rise")
        if (self.base_substrate is not None) != (self.base_m > 0):
            raise ValueError("a base has a height and is made of something: give both or neither")
        if self.base_m >= self.eaves_m:
            raise ValueError("the base is as high as the wall")
        for wing in self.wings:
            self._holds(wing)
        return self

    def _holds(self, wing: Wing) -> None:
        side = self.side_m(wing.side)
        if wing.from_left_m + wing.width_m > side + 1e-6:
            ends = wing.from_left_m + wing.width_m
            raise ValueError(f"{wing.name}: it ends {ends:.2f} m from the left corner of a side {side:.2f} m long")
        if wing.eaves_m > self.eaves_m + 1e-6:
            raise ValueError(
                f"{wing.name}: its eaves ({wing.eaves_m:.2f} m) stand above the house’s ({self.eaves_m:.2f} m); block "
                "out the higher part as the house"
            )
        if self.base_m >= wing.eaves_m:
            raise ValueError(f"{wing.name}: the base is as high as its wall")
        for other in self.wings:
            if other is wing:
                return
            begin = max(wing.from_left_m, other.from_left_m)
            end = min(wing.from_left_m + wing.width_m, other.from_left_m + other.width_m)
            if other.side is wing.side and end > begin + 1e-6:
                raise ValueError(f"{wing.name} and {other.name} stand in one place: move one")

    def side_m(self, side: Side) -> float:
        """Length of a side."""
        return self.width_m if side in (Side.FRONT, Side.BACK) else self.depth_m

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
