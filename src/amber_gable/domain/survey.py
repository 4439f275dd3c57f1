"""A property as surveyed: faces with their openings, and the zones that are painted."""

from enum import StrEnum
from typing import Annotated, Literal, Self
from zoneinfo import ZoneInfo, available_timezones

from pydantic import Field, field_validator, model_validator

from amber_gable.domain.base import Azimuth, Fraction, HexColour, Id, Length, Name, Note, Offset, Percent, Record
from amber_gable.domain.substrates import SUBSTRATES

_ZONES = available_timezones()
_SLACK = 1e-6


class Exposure(StrEnum):
    """How freely wind and rain reach the face."""

    OPEN = "open"
    SHELTERED = "sheltered"


class OpeningKind(StrEnum):
    WINDOW = "window"
    DOOR = "door"
    GARAGE_DOOR = "garage-door"
    VENT = "vent"


class Opening(Record):
    """A hole in the face. `x_m` from the face's left edge seen from outside, `y_m` from its bottom edge to the sill."""

    id: Id
    name: Name
    kind: OpeningKind
    width_m: Length
    height_m: Length
    x_m: Offset
    y_m: Offset

    @property
    def area_m2(self) -> float:
        return self.width_m * self.height_m

    def overlaps(self, other: "Opening") -> bool:
        return (
            self.x_m + _SLACK < other.x_m + other.width_m
            and other.x_m + _SLACK < self.x_m + self.width_m
            and self.y_m + _SLACK < other.y_m + other.height_m
            and other.y_m + _SLACK < self.y_m + self.height_m
        )


class HorizonPoint(Record):
    """Top of what stands in front of the face in one direction, as seen from the face's middle."""

    azimuth_deg: Azimuth
    elevation_deg: Annotated[float, Field(ge=0, le=90)]


class Face(Record):
    """One elevation, roof plane or deck. `azimuth_deg` is where it looks; tilt 90 is a wall, 0 a floor.

    For a wall the outline is width × eave height with an optional gable of `gable_rise_m` centred on top; for a sloped
    or level plane `eave_height_m` is its length up the slope.
    """

    id: Id
    name: Name
    azimuth_deg: Azimuth
    tilt_deg: Annotated[float, Field(ge=0, le=90)] = 90.0
    width_m: Length
    eave_height_m: Length
    gable_rise_m: Offset = 0.0
    exposure: Exposure = Exposure.OPEN
    rain_exposure: Fraction = 1.0
    horizon: tuple[HorizonPoint, ...] = ()
    openings: tuple[Opening, ...] = ()
    note: Note = ""

    @property
    def outline_area_m2(self) -> float:
        return self.width_m * (self.eave_height_m + self.gable_rise_m / 2)

    def height_at(self, x_m: float) -> float:
        """Height of the outline at a distance from the left edge, m."""
        return self.eave_height_m + self.gable_rise_m * (1 - abs(2 * x_m / self.width_m - 1))

    @model_validator(mode="after")
    def _openings_fit(self) -> Self:
        for o in self.openings:
            right, top = o.x_m + o.width_m, o.y_m + o.height_m
            if o.width_m > self.width_m or o.height_m > self.eave_height_m + self.gable_rise_m:
                raise ValueError(
                    f"face '{self.name}': opening '{o.name}' ({o.width_m} × {o.height_m} m) is larger than the face; "
                    "correct its size or the face's"
                )
            if right > self.width_m + _SLACK or top > min(self.height_at(o.x_m), self.height_at(right)) + _SLACK:
                raise ValueError(
                    f"face '{self.name}': opening '{o.name}' reaches outside the face "
                    f"(right edge {right:.2f} m, top {top:.2f} m); move it or correct its size"
                )
        for i, a in enumerate(self.openings):
            for b in self.openings[i + 1 :]:
                if a.overlaps(b):
                    raise ValueError(f"face '{self.name}': openings '{a.name}' and '{b.name}' overlap; move one")
        return self


class Grade(StrEnum):
    NONE = "none"
    LIGHT = "light"
    HEAVY = "heavy"


class Gloss(StrEnum):
    DULL = "dull"
    SATIN = "satin"
    GLOSS = "gloss"


class Condition(Record):
    """What the survey found. Percentages of the zone's area; wood moisture by meter, % of dry mass."""

    loose_pct: Percent = 0.0
    mildew_pct: Percent = 0.0
    chalking: Grade = Grade.NONE
    gloss: Gloss = Gloss.DULL
    bare: bool = False
    wood_moisture_pct: Annotated[float, Field(ge=0, le=100)] | None = None
    note: Note = ""


class FaceArea(Record):
    """What the face has left after its openings and the zones with a size of their own."""

    kind: Literal["face"] = "face"


class OwnArea(Record):
    """A size measured by itself, plan m²; part of the face unless it lies beside it (trim on a soffit)."""

    kind: Literal["own"] = "own"
    area_m2: Annotated[float, Field(gt=0, le=20000)]


class Zone(Record):
    """A part of a face with one substrate and one present colour."""

    id: Id
    name: Name
    face: Id
    substrate: str
    area: Annotated[FaceArea | OwnArea, Field(discriminator="kind")]
    colour_now: HexColour
    condition: Condition = Condition()

    @field_validator("substrate")
    @classmethod
    def _known(cls, value: str) -> str:
        if value not in SUBSTRATES:
            raise ValueError(f"substrate '{value}' is not known; one of: {', '.join(SUBSTRATES)}")
        return value


class Property(Record):
    """The place. Coordinates decimal degrees, north and east positive; altitude m; IANA time zone."""

    id: Id
    name: Name
    place: Name
    year_built: Annotated[int, Field(ge=1500, le=2200)] | None = None
    latitude: Annotated[float, Field(ge=-66.5, le=66.5)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    altitude_m: Annotated[float, Field(ge=-430, le=6000)] = 0.0
    time_zone: str
    faces: tuple[Face, ...] = ()
    zones: tuple[Zone, ...] = ()

    @field_validator("time_zone")
    @classmethod
    def _zone_known(cls, value: str) -> str:
        if value not in _ZONES:
            raise ValueError(f"time zone '{value}' is not known; use a name such as Europe/Lisbon")
        return value

    @property
    def tz(self) -> ZoneInfo:
        return ZoneInfo(self.time_zone)

    @model_validator(mode="after")
    def _parts_agree(self) -> Self:
        faces = {f.id: f for f in self.faces}
        for what, ids in (
            ("face", [f.id for f in self.faces]),
            ("zone", [z.id for z in self.zones]),
            ("opening", [o.id for f in self.faces for o in f.openings]),
        ):
            twice = {i for i in ids if ids.count(i) > 1}
            if twice:
                raise ValueError(f"{what} id '{min(twice)}' is used twice; give each its own")
        for z in self.zones:
            if z.face not in faces:
                raise ValueError(f"zone '{z.name}' names face '{z.face}', which is not there")
        for f in self.faces:
            own = [z for z in self.zones if z.face == f.id and isinstance(z.area, FaceArea)]
            if len(own) > 1:
                raise ValueError(
                    f"face '{f.name}': zones '{own[0].name}' and '{own[1].name}' both take what the face has left; "
                    "give one a size of its own"
                )
            taken = sum(z.area.area_m2 for z in self.zones if z.face == f.id and isinstance(z.area, OwnArea))
            if own and taken > f.outline_area_m2:
                raise ValueError(
                    f"face '{f.name}': its zones take {taken:.1f} m², more than the face's {f.outline_area_m2:.1f} m²"
                )
        return self
