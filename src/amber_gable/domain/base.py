"""Constrained types shared by every record."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Id = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,63}$", description="lower-case letters, digits, hyphens")]
Name = Annotated[str, Field(min_length=1, max_length=120)]
Note = Annotated[str, Field(max_length=2000)]
HexColour = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$", description="sRGB as #rrggbb, lower case")]
Azimuth = Annotated[float, Field(ge=0, lt=360, description="degrees clockwise from true north")]
Percent = Annotated[float, Field(ge=0, le=100)]
Fraction = Annotated[float, Field(ge=0, le=1)]
# No wall, roof or deck edge of a house is longer; a larger figure is a slip of unit (millimetres typed as metres).
Length = Annotated[float, Field(gt=0, le=200, description="metres")]
Offset = Annotated[float, Field(ge=0, le=200, description="metres")]


class Record(BaseModel):
    """An immutable record that refuses unknown fields and numbers that are not finite."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False, defer_build=True)
