"""The ways up a wall: what each reaches from one place (our own priors; docs/trade.md §17 says what a move takes)."""

from collections.abc import Mapping
from enum import StrEnum
from typing import Annotated, NamedTuple

from pydantic import Field

from amber_gable.domain.base import Record


class Access(StrEnum):
    LADDER = "ladder"
    TOWER = "tower"
    LIFT = "lift"


class Reach(NamedTuple):
    """Width of wall worked from one place, m, and the rate of a move (domain/work/rates.py)."""

    by_hand_m: float
    sprayed_m: float
    move: str


REACHES: Mapping[Access, Reach] = {
    # Buckle between the rails: an arm to each side. A spray pole reaches further; a tower is as long as its platform.
    Access.LADDER: Reach(1.8, 3.0, "ladder-move"),
    Access.TOWER: Reach(3.5, 4.0, "tower-move"),
    Access.LIFT: Reach(5.0, 6.0, "lift-move"),
}


ACCESS_RISKS: Mapping[Access, str] = {
    Access.LADDER: "Firm level ground, 4:1, tied or footed, three points of contact; never reached beyond the rails.",
    Access.TOWER: "Level ground, outriggers, tied; nobody on it while it is moved. Both hands free.",
    Access.LIFT: "Ground that bears it, wires far off, a harness clipped in, people trained for it. Booked ahead.",
}
"""What to mind of each."""


class AccessChoice(Record):
    """The way up chosen for a face, and why."""

    access: Access
    reason: Annotated[str, Field(max_length=200)] = ""
