"""Candidate colours for a whole house, by the groups in which a painter speaks of colour."""

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import HexColour, Id, Name, Record


class ColourGroup(StrEnum):
    BODY = "body"
    TRIM = "trim"
    DOOR = "door"
    ACCENT = "accent"
    FLOOR = "floor"
    ROOF = "roof"


GROUP_NAMES = {
    ColourGroup.BODY: "Body",
    ColourGroup.TRIM: "Trim and windows",
    ColourGroup.DOOR: "Doors",
    ColourGroup.ACCENT: "Shutters, signs, railings",
    ColourGroup.FLOOR: "Decks and floors",
    ColourGroup.ROOF: "Roof",
}


def colour_group(tags: frozenset[str]) -> ColourGroup:
    """The group of a surface with these tags."""
    for group, words in (
        (ColourGroup.ROOF, {"roof"}),
        (ColourGroup.FLOOR, {"deck", "floor", "stair"}),
        (ColourGroup.DOOR, {"door", "garage-door"}),
        (ColourGroup.ACCENT, {"shutter", "sign", "railing"}),
        (ColourGroup.TRIM, {"trim", "window", "gutter"}),
    ):
        if tags & words:
            return group
    return ColourGroup.BODY


class NamedColour(Record):
    colour: HexColour
    name: Name


class Scheme(Record):
    """A proposal: a colour for each group it speaks of; the others stay as they are."""

    id: Id
    name: Name
    colours: Annotated[dict[ColourGroup, NamedColour], Field(max_length=len(ColourGroup))] = Field(default_factory=dict)
