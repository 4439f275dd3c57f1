"""The face, zone and items of a deck or porch, and the sides of a fence, blocked out."""

from amber_gable.core.survey.blocks.block_faces import Made, slug
from amber_gable.domain.house.block_floor import DECKS, FenceBlock, FloorBlock
from amber_gable.domain.house.items import Railing, Stair
from amber_gable.domain.house.outline import Rectangle
from amber_gable.domain.house.profile import DeckProfile
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.domain.house.zone_area import FaceArea

BOARD_M, GAP_M, THICKNESS_M = 0.14, 0.005, 0.028
"""Usual deck boards; to be set right at the zone."""
STACKED_M = 0.2


def floor_made(block: FloorBlock) -> tuple[Made, tuple[Item, ...]]:
    """The level face with its one zone, and its railings and stair; ids are provisional."""
    boards = block.substrate in DECKS
    face = Face(
        id=slug(block.name),
        name=block.name,
        building=block.name,
        azimuth_deg=block.looks_deg,
        tilt_deg=0.0,
        outline=Rectangle(width_m=block.width_m, height_m=block.depth_m),
    )
    usual = DeckProfile(board_m=BOARD_M, gap_m=GAP_M, thickness_m=THICKNESS_M, run=block.boards)
    zone = Zone(
        id=slug(f"{face.id} floor"),
        name="Slab" if block.substrate == "concrete-slab" else "Boards",
        face=face.id,
        substrate=block.substrate,
        area=FaceArea(),
        profile=usual if boards else None,
        colour_now=block.colour,
    )
    return (face, (zone,)), (*_rails(block, face), *_stair(block, face))


def _rails(block: FloorBlock, face: Face) -> list[Item]:
    """One below the other on the drawing of the floor, which has no room for what stands round it."""
    return [
        Item(
            id=slug(f"{face.id} railing {n}"),
            name="Railing" if len(block.rails_m) == 1 else f"Railing {n}",
            face=face.id,
            y_m=round(min((n - 1) * (block.rail_height_m + STACKED_M), block.depth_m), 4),
            spec=Railing(length_m=length, height_m=block.rail_height_m),
            substrate=block.rail_substrate,
            colour_now=block.rail_colour,
        )
        for n, length in enumerate(block.rails_m, 1)
    ]


def _stair(block: FloorBlock, face: Face) -> list[Item]:
    if not block.treads:
        return []
    return [
        Item(
            id=slug(f"{face.id} stair"),
            name="Stair",
            face=face.id,
            x_m=round(max(block.width_m - block.tread_width_m, 0.0), 4),
            spec=Stair(treads=block.treads, width_m=block.tread_width_m, closed=block.closed),
            substrate=block.substrate,
            colour_now=block.colour,
        )
    ]


def fence_made(block: FenceBlock) -> list[Made]:
    """One side or both, the second looking the other way; ids are provisional."""
    made: list[Made] = []
    for turned in (0.0, 180.0)[: 2 if block.both_sides else 1]:
        name = block.name if not turned else f"{block.name}, other side"
        face = Face(
            id=slug(name),
            name=name,
            building=block.name,
            azimuth_deg=(block.looks_deg + turned) % 360,
            outline=Rectangle(width_m=block.length_m, height_m=block.height_m),
        )
        zone = Zone(
            id=slug(f"{face.id} boards"),
            name="Boards",
            face=face.id,
            substrate=block.substrate,
            area=FaceArea(),
            colour_now=block.colour,
        )
        made.append((face, (zone,)))
    return made
