"""Items: things on a face that are counted rather than measured, each with the dimensions its parts follow from."""

from enum import StrEnum
from typing import Annotated, Literal

from pydantic import Field

from amber_gable.domain.base import Length, Record

Small = Annotated[float, Field(gt=0, le=3, description="metres")]
Count = Annotated[int, Field(ge=1, le=500)]
Sides = Annotated[int, Field(ge=1, le=2)]


class DoorItem(Record):
    """A leaf with its frame. `glazed` is the share of the leaf that is glass."""

    kind: Literal["flush-door", "panelled-door", "glazed-door"]
    width_m: Length
    height_m: Length
    sides: Sides = 1
    panels: Annotated[int, Field(ge=0, le=16)] = 0
    glazed: Annotated[float, Field(ge=0, le=0.95)] = 0.0
    frame_girth_m: Small = 0.18


class SashWindow(Record):
    """Two sliding sashes in a surround; panes across and down in each sash."""

    kind: Literal["sash-window"] = "sash-window"
    width_m: Length
    height_m: Length
    panes_across: Count = 1
    panes_down: Count = 1
    sides: Sides = 1
    frame_girth_m: Small = 0.22


class Casement(Record):
    """Hinged leaves side by side in a frame; panes across and down in each leaf."""

    kind: Literal["casement"] = "casement"
    width_m: Length
    height_m: Length
    leaves: Count = 1
    panes_across: Count = 1
    panes_down: Count = 1
    sides: Sides = 1
    frame_girth_m: Small = 0.18


class Fixing(StrEnum):
    """How a shutter hangs: what has to be done to take it down and to put it back."""

    HINGED = "hinged"
    SCREWED = "screwed"
    NAILED_WOOD = "nailed-in-wood"
    NAILED_MASONRY = "nailed-in-masonry"


class ShutterPair(Record):
    """Two leaves, painted on both sides and all edges; louvred ones have nearly twice the surface.

    `apart_m` is the width of the window between them.
    """

    kind: Literal["shutter-pair"] = "shutter-pair"
    leaf_width_m: Length
    height_m: Length
    apart_m: Annotated[float, Field(ge=0, le=10)] = 0.0
    louvred: bool = False
    fixing: Fixing = Fixing.HINGED


class GarageDoor(Record):
    """A sectional door. `glazed` is the share of it that is glass."""

    kind: Literal["garage-door"] = "garage-door"
    width_m: Length
    height_m: Length
    sections: Count = 4
    sides: Sides = 1
    glazed: Annotated[float, Field(ge=0, le=0.95)] = 0.0


class Railing(Record):
    """A run of square balusters between a top and a bottom rail."""

    kind: Literal["railing"] = "railing"
    length_m: Length
    height_m: Length
    baluster_m: Small = 0.038
    pitch_m: Small = 0.1
    rail_girth_m: Small = 0.26


class GutterRun(Record):
    """A gutter with its downspouts; girth is what is painted round, not the full tube where it touches the wall."""

    kind: Literal["gutter"] = "gutter"
    length_m: Length
    girth_m: Small = 0.3
    downspouts: Annotated[int, Field(ge=0, le=50)] = 1
    downspout_m: Length = 3.0
    downspout_girth_m: Small = 0.26


class SignBand(Record):
    kind: Literal["sign-band"] = "sign-band"
    width_m: Length
    height_m: Length
    depth_m: Annotated[float, Field(ge=0, le=2)] = 0.0


class Stair(Record):
    """Straight flight; closed with risers, or open with treads painted all round."""

    kind: Literal["stair"] = "stair"
    treads: Count
    width_m: Length
    going_m: Small = 0.28
    rise_m: Small = 0.18
    closed: bool = True


class Chimney(Record):
    """The shaft above the roof: four sides."""

    kind: Literal["chimney"] = "chimney"
    width_m: Length
    depth_m: Length
    height_m: Length


ItemSpec = Annotated[
    DoorItem | SashWindow | Casement | ShutterPair | GarageDoor | Railing | GutterRun | SignBand | Stair | Chimney,
    Field(discriminator="kind"),
]


ITEM_NAMES = {
    "panelled-door": "Panelled door",
    "flush-door": "Flush door",
    "glazed-door": "Glazed door",
    "sash-window": "Sash window",
    "casement": "Casement window",
    "shutter-pair": "Shutter pair",
    "garage-door": "Sectional garage door",
    "railing": "Railing run",
    "gutter": "Gutter and downspouts",
    "sign-band": "Sign band",
    "stair": "Stair",
    "chimney": "Chimney",
}
