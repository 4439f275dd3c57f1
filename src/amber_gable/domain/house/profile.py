"""Profiles: how much more surface a textured zone has than its plan area, computed from real dimensions, m."""

from enum import StrEnum
from math import hypot, pi
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import Record

Small = Annotated[float, Field(gt=0, le=5, description="metres")]
SmallOrNone = Annotated[float, Field(ge=0, le=5, description="metres")]


class LapProfile(Record):
    """Lap siding: each course shows its exposure and the butt's thickness."""

    kind: Literal["lap"] = "lap"
    exposure_m: Small
    butt_m: SmallOrNone

    @property
    def factor(self) -> float:
        return (self.exposure_m + self.butt_m) / self.exposure_m


class BattenProfile(Record):
    """Boards with battens over their joints: each batten adds its two edges."""

    kind: Literal["batten"] = "batten"
    pitch_m: Small
    batten_width_m: Small
    batten_thickness_m: SmallOrNone

    @model_validator(mode="after")
    def _battens_apart(self) -> Self:
        if self.batten_width_m >= self.pitch_m:
            raise ValueError("the battens are as wide as their pitch; no board would show")
        return self

    @property
    def factor(self) -> float:
        return (self.pitch_m + 2 * self.batten_thickness_m) / self.pitch_m


class SineProfile(Record):
    """Corrugated sheet as a sine wave of full depth `depth_m` and wave length `pitch_m`."""

    kind: Literal["sine"] = "sine"
    pitch_m: Small
    depth_m: SmallOrNone

    @property
    def factor(self) -> float:
        """Arc length of one wave ÷ pitch: 2/π · √(1+k²) · E(k²/(1+k²)), k = π depth ÷ pitch (complete elliptic)."""
        # Loaded when it is first needed: the program starts without it.
        from scipy.special import ellipe

        k2 = (pi * self.depth_m / self.pitch_m) ** 2
        return float(2 / pi * (1 + k2) ** 0.5 * ellipe(k2 / (1 + k2)))


class TrapezoidProfile(Record):
    """Ribbed sheet: ribs `base_m` wide at the pan and `crest_m` at the top, `depth_m` deep, once per pitch."""

    kind: Literal["trapezoid"] = "trapezoid"
    pitch_m: Small
    base_m: Small
    crest_m: SmallOrNone
    depth_m: SmallOrNone

    @model_validator(mode="after")
    def _rib_fits(self) -> Self:
        if not self.crest_m <= self.base_m <= self.pitch_m:
            raise ValueError(
                "the rib must be no wider at its crest than at its base, and its base no wider than the pitch"
            )
        return self

    @property
    def factor(self) -> float:
        web = hypot((self.base_m - self.crest_m) / 2, self.depth_m)
        return (self.pitch_m - self.base_m + self.crest_m + 2 * web) / self.pitch_m


class BoardRun(StrEnum):
    """Which way deck boards run, seen from the deck's lower edge."""

    ACROSS = "across"
    AWAY = "away"
    DIAGONAL = "diagonal"


class DeckReach(StrEnum):
    """What of a board the brush reaches. TOP only; EDGES too; SIX_SIDED also the underside (protects best)."""

    TOP = "top"
    EDGES = "edges"
    SIX_SIDED = "six-sided"


class DeckProfile(Record):
    """Deck boards with gaps. Board ends are left out: a thousandth of the surface."""

    kind: Literal["deck"] = "deck"
    board_m: Small
    gap_m: SmallOrNone
    thickness_m: Small
    run: BoardRun = BoardRun.ACROSS
    reach: DeckReach = DeckReach.EDGES

    @property
    def factor(self) -> float:
        per_pitch = self.board_m
        if self.reach is not DeckReach.TOP:
            per_pitch += 2 * self.thickness_m
        if self.reach is DeckReach.SIX_SIDED:
            per_pitch += self.board_m
        return per_pitch / (self.board_m + self.gap_m)


class FixedProfile(Record):
    """A factor judged by eye, within the table's range for the surface (docs/trade.md §7)."""

    kind: Literal["fixed"] = "fixed"
    value: Annotated[float, Field(ge=1, le=3)]

    @property
    def factor(self) -> float:
        return self.value


Profile = Annotated[
    LapProfile | BattenProfile | SineProfile | TrapezoidProfile | DeckProfile | FixedProfile,
    Field(discriminator="kind"),
]
