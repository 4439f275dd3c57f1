"""Which part of a face a zone takes: what is left, a band, an outline, a size of its own, or trim by its length."""

from enum import StrEnum
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import Offset, Record


class FaceArea(Record):
    """What the face has left after its openings and its other zones."""

    kind: Literal["face"] = "face"


class Lies(StrEnum):
    """What a zone measured by itself lies on: only what lies on the wall is taken off it. Of older jobs it is not said,
    and taken for the wall until it is."""

    NOT_SAID = "not-said"
    WALL = "wall"
    OPENING = "opening"
    NEITHER = "neither"


class OwnArea(Record):
    """A size measured by itself, plan m²; doors and windows are better painted as items in their openings. `trim_m`:
    how long it is, where it is narrow boards, whose work goes by the metre."""

    kind: Literal["own"] = "own"
    area_m2: Annotated[float, Field(gt=0, le=20000)]
    lies: Lies = Lies.NOT_SAID
    trim_m: Annotated[float, Field(gt=0, le=2000)] | None = None

    @property
    def on_wall(self) -> bool:
        return self.lies in (Lies.NOT_SAID, Lies.WALL)


class Band(Record):
    """The part of the face between two heights: a stucco base, a foundation strip, shingle in the gable."""

    kind: Literal["band"] = "band"
    from_m: Offset
    to_m: Offset

    @model_validator(mode="after")
    def _has_height(self) -> Self:
        if self.to_m <= self.from_m:
            raise ValueError("the band's upper edge must lie above its lower edge")
        return self


class Region(Record):
    """A polygon on the face, corners in m from its lower left."""

    kind: Literal["region"] = "region"
    corners: Annotated[tuple[tuple[Offset, Offset], ...], Field(min_length=3, max_length=200)]


class TrimPart(StrEnum):
    """Trim whose length follows from the geometry."""

    CORNER_BOARDS = "corner-boards"
    FASCIA = "fascia"
    CASINGS = "casings"
    SILLS = "sills"
    BASE_BAND = "base-band"


class TrimRun(Record):
    """One kind of trim: painted girth, and how wide it covers the wall (0 where it lies beside it)."""

    part: TrimPart
    girth_m: Annotated[float, Field(gt=0, le=2)]
    cover_m: Annotated[float, Field(ge=0, le=1)] = 0.0


class TrimArea(Record):
    """Trim by length × girth; its lengths are taken from the face."""

    kind: Literal["trim"] = "trim"
    runs: Annotated[tuple[TrimRun, ...], Field(min_length=1, max_length=len(TrimPart))]


ZoneArea = Annotated[FaceArea | OwnArea | Band | Region | TrimArea, Field(discriminator="kind")]
