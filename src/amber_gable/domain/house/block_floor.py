"""A deck, porch or fence blocked out: level boards or slab with railings and a stair, or boards that stand."""

from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Azimuth, HexColour, Length, Name, Record
from amber_gable.domain.house.profile import BoardRun

DECKS = ("wood-deck", "hardwood-deck", "composite-deck")
FLOORS = (*DECKS, "porch-boards", "concrete-slab")
RAILINGS = ("wood-trim", "wood-deck", "metal-railing")


class FloorBlock(Record):
    """width_m along the house, depth_m out from it, looks_deg where its open edge looks. `boards`: which way they run,
    of boards only. `rails_m`: length of each railing run. `treads` 0: no stair."""

    name: Name
    width_m: Length
    depth_m: Length
    looks_deg: Azimuth
    substrate: str
    colour: HexColour
    boards: BoardRun = BoardRun.ACROSS
    rails_m: Annotated[tuple[Length, ...], Field(max_length=12)] = ()
    rail_height_m: Annotated[float, Field(gt=0.2, le=2)] = 0.95
    rail_substrate: str = "wood-trim"
    rail_colour: HexColour
    treads: Annotated[int, Field(ge=0, le=60)] = 0
    tread_width_m: Annotated[float, Field(gt=0.2, le=20)] = 1.2
    closed: bool = False


class FenceBlock(Record):
    """A fence whose one side looks to looks_deg; both sides are painted or that one."""

    name: Name = "Fence"
    length_m: Length
    height_m: Annotated[float, Field(gt=0.2, le=4)]
    looks_deg: Azimuth
    substrate: str
    colour: HexColour
    both_sides: bool = True
