"""Photos of a survey and what makes one measurable."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from amber_gable.domain.base import Id, Length, Name, Note, Record

PhotoPoint = tuple[Annotated[float, Field(ge=-40_000, le=40_000)], Annotated[float, Field(ge=-40_000, le=40_000)]]

PhotoPartKind = Literal["zone", "item", "opening", "obstacle"]
PhotoPart = tuple[PhotoPartKind, Id]
"""Kind and id of what a photo shows on its face."""


class KnownLength(Record):
    """Two marked points (px from the top left) and their true distance, m."""

    a: PhotoPoint
    b: PhotoPoint
    length_m: Length


class PhotoMarks(Record):
    """What makes a photo measurable: the wall's corners (lower left, lower right, upper right, upper left), px, and one
    known length, or two where the first does not settle the wall's proportions."""

    corners: tuple[PhotoPoint, PhotoPoint, PhotoPoint, PhotoPoint]
    known: KnownLength
    second: KnownLength | None = None


class Photo(Record):
    """A picture's record; its bytes travel beside it and `sha256` is their digest. `part` is what it shows on its face,
    None where it shows the whole face."""

    id: Id
    name: Name
    face: Id | None = None
    part: PhotoPart | None = None
    taken_on: date | None = None
    width_px: Annotated[int, Field(ge=1, le=20_000)]
    height_px: Annotated[int, Field(ge=1, le=20_000)]
    sha256: Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
    marks: PhotoMarks | None = None
    note: Note = ""
