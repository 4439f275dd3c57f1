"""A property as surveyed: faces with their openings, the zones that are painted, items and what stands in the way."""

from collections.abc import Iterable
from enum import StrEnum
from typing import Annotated, Any, Self
from zoneinfo import ZoneInfo, available_timezones

from pydantic import Field, field_validator, model_validator

from amber_gable.domain.base import Azimuth, Fraction, HexColour, Id, Length, Name, Note, Offset, Record
from amber_gable.domain.errors import NotFound
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.house.exposure import Exposure, HorizonPoint, Terrain
from amber_gable.domain.house.items import ItemSpec
from amber_gable.domain.house.outline import Outline, OutlinePiece
from amber_gable.domain.house.photo import Photo, PhotoPart
from amber_gable.domain.house.polygon import Point
from amber_gable.domain.house.profile import Profile
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.zone_area import FaceArea, ZoneArea

_ZONES = available_timezones()


class OpeningKind(StrEnum):
    WINDOW = "window"
    DOOR = "door"
    GARAGE_DOOR = "garage-door"
    VENT = "vent"


class Opening(Record):
    """A hole in the face. `x_m` from the face's left edge seen from outside, `y_m` from its bottom edge to the sill.

    `casing_m` is the width of the trim round it (below it only where the opening has a sill above the ground).
    `spans` says that it is meant to lie over more than one zone.
    """

    id: Id
    name: Name
    kind: OpeningKind
    width_m: Length
    height_m: Length
    x_m: Offset
    y_m: Offset
    casing_m: Annotated[float, Field(ge=0, le=0.6)] = 0.09
    spans: bool = False

    @property
    def area_m2(self) -> float:
        return self.width_m * self.height_m


class ObstacleKind(StrEnum):
    PLANTING = "planting"
    METER = "meter"
    LAMP = "lamp"
    AIR_CONDITIONER = "air-conditioner"
    WIRES = "wires"
    VEHICLE = "vehicle"
    NEIGHBOUR = "neighbour"
    PLAY = "children-or-pets"
    OTHER = "other"


class Obstacle(Record):
    """Something in front of the face that must be moved, covered or kept clear of."""

    id: Id
    name: Name
    kind: ObstacleKind
    width_m: Length
    height_m: Length
    x_m: Offset
    y_m: Offset = 0.0


class BlockKind(StrEnum):
    TREE = "tree"
    BUILDING = "building"
    HILL = "hill"


class Block(Record):
    """A tree or neighbour before the face. `left_m` from the face's middle line to the block's left edge, negative
    to the left as one looks out from the wall; distance and height m, height above the face's foot."""

    kind: BlockKind
    name: Annotated[str, Field(max_length=60)] = ""
    left_m: Annotated[float, Field(ge=-500, le=500)]
    width_m: Annotated[float, Field(gt=0, le=1000)]
    distance_m: Annotated[float, Field(gt=0, le=2000)]
    height_m: Annotated[float, Field(gt=0, le=1000)]


class PlanPlace(Record):
    """Where the wall's left end (seen from outside) stands on the house plan: m east and north of any fixed point."""

    east_m: Annotated[float, Field(ge=-1000, le=1000)]
    north_m: Annotated[float, Field(ge=-1000, le=1000)]


class Face(Record):
    """One elevation, roof plane or deck. `azimuth_deg` is where it looks; tilt 90 is a wall, 0 a floor.
    `overhang_m`: how far the eave or soffit stands out before a wall's top."""

    id: Id
    name: Name
    building: Name = "House"
    azimuth_deg: Azimuth
    tilt_deg: Annotated[float, Field(ge=0, le=90)] = 90.0
    outline: Outline
    plan: PlanPlace | None = None
    exposure: Exposure = Exposure.OPEN
    rain_exposure: Fraction = 1.0
    overhang_m: Annotated[float, Field(ge=0, le=4)] = 0.0
    horizon: tuple[HorizonPoint, ...] = ()
    blocks: Annotated[tuple[Block, ...], Field(max_length=40)] = ()
    openings: tuple[Opening, ...] = ()
    obstacles: tuple[Obstacle, ...] = ()
    note: Note = ""

    @property
    def points(self) -> tuple[Point, ...]:
        """Corners in the face's plane, m, anticlockwise from the lower left."""
        return self.outline.points(self.tilt_deg)

    @property
    def pieces(self) -> tuple[OutlinePiece, ...]:
        return self.outline.pieces(self.tilt_deg)

    @property
    def width_m(self) -> float:
        return max(x for x, _ in self.points)

    @property
    def top_m(self) -> float:
        """Height of the highest corner; for a plane, its length up the slope."""
        return max(y for _, y in self.points)

    @property
    def area_m2(self) -> float:
        return sum(p.area_m2 for p in self.pieces)

    @property
    def is_wall(self) -> bool:
        return self.tilt_deg >= 85

    @model_validator(mode="after")
    def _slope_has_pitch(self) -> Self:
        if self.outline.kind == "roof-slope" and self.tilt_deg > 80:
            raise ValueError(
                f"face '{self.name}': a roof slope needs a pitch (tilt) of at most 80°, not {self.tilt_deg:g}°"
            )
        return self


def _known_substrate(value: str) -> str:
    if value not in SUBSTRATES:
        raise ValueError(f"substrate '{value}' is not known; one of: {', '.join(SUBSTRATES)}")
    return value


class Zone(Record):
    """A part of a face with one substrate and one present colour. Without a profile the substrate's table value
    holds."""

    id: Id
    name: Name
    face: Id
    substrate: str
    area: ZoneArea
    profile: Profile | None = None
    colour_now: HexColour
    condition: Condition = Condition()

    _known = field_validator("substrate")(_known_substrate)

    @property
    def profile_factor(self) -> float:
        return self.profile.factor if self.profile else SUBSTRATES[self.substrate].profile_factor


class Item(Record):
    """A thing counted on a face: a door, a window, shutters, a railing. Place from the face's lower left, m."""

    id: Id
    name: Name
    face: Id
    x_m: Offset = 0.0
    y_m: Offset = 0.0
    spec: ItemSpec
    substrate: str = "wood-trim"
    colour_now: HexColour
    condition: Condition = Condition()

    _known = field_validator("substrate")(_known_substrate)


Part = Face | Opening | Obstacle | Zone | Item
"""What a survey holds and an edit changes."""


class Property(Record):
    """The place. Coordinates decimal degrees, north and east positive; altitude m; IANA time zone.
    `lead_found` is what a lead test said; None where none was made and the year decides."""

    id: Id
    name: Name
    place: Name
    year_built: Annotated[int, Field(ge=1500, le=2200)] | None = None
    lead_found: bool | None = None
    latitude: Annotated[float, Field(ge=-66.5, le=66.5)]
    longitude: Annotated[float, Field(ge=-180, le=180)]
    altitude_m: Annotated[float, Field(ge=-430, le=6000)] = 0.0
    time_zone: str
    terrain: Terrain = Terrain.SUBURB
    faces: tuple[Face, ...] = ()
    zones: tuple[Zone, ...] = ()
    items: tuple[Item, ...] = ()
    photos: tuple[Photo, ...] = ()

    @field_validator("time_zone")
    @classmethod
    def _zone_known(cls, value: str) -> str:
        if value not in _ZONES:
            raise ValueError(f"time zone '{value}' is not known; use a name such as Europe/Lisbon")
        return value

    @property
    def tz(self) -> ZoneInfo:
        return ZoneInfo(self.time_zone)

    def face(self, id_: str) -> Face:
        """Raises NotFound."""
        for f in self.faces:
            if f.id == id_:
                return f
        raise NotFound("face", id_)

    @property
    def parts(self) -> "tuple[Zone | Item, ...]":
        """All that may be painted."""
        return (*self.zones, *self.items)

    def zones_of(self, face: str) -> tuple[Zone, ...]:
        return tuple(z for z in self.zones if z.face == face)

    def part(self, key: tuple[str, str]) -> "Zone | Item | None":
        """The zone or item of that kind ('zone', 'item') and id; None where it is gone."""
        kind, id_ = key
        parts: tuple[Zone | Item, ...] = self.zones if kind == "zone" else self.items
        return next((p for p in parts if p.id == id_), None)

    def items_of(self, face: str) -> tuple[Item, ...]:
        return tuple(i for i in self.items if i.face == face)

    def shows(self, face: str | None, part: PhotoPart) -> bool:
        """Whether that part is on that face."""
        kind, id_ = part
        on_faces: dict[str, Iterable[Any]] = {
            "zone": self.zones_of(face or ""),
            "item": self.items_of(face or ""),
            "opening": (o for f in self.faces if f.id == face for o in f.openings),
            "obstacle": (o for f in self.faces if f.id == face for o in f.obstacles),
        }
        return any(p.id == id_ for p in on_faces[kind])

    @model_validator(mode="after")
    def _parts_agree(self) -> Self:
        owners: tuple[tuple[str, list[str]], ...] = (
            ("face", [f.id for f in self.faces]),
            ("zone", [z.id for z in self.zones]),
            ("item", [i.id for i in self.items]),
            ("photo", [p.id for p in self.photos]),
            ("opening", [o.id for f in self.faces for o in f.openings]),
            ("obstacle", [o.id for f in self.faces for o in f.obstacles]),
        )
        for what, ids in owners:
            twice = [i for n, i in enumerate(ids) if i in ids[:n]] if len(set(ids)) != len(ids) else []
            if twice:
                raise ValueError(f"{what} id '{min(twice)}' is used twice; give each its own")
        faces = set(owners[0][1])
        placed: list[tuple[str, Any]] = [("zone", z) for z in self.zones] + [("item", i) for i in self.items]
        placed += [("photo", p) for p in self.photos if p.face is not None]
        for what, part in placed:
            if part.face not in faces:
                raise ValueError(f"{what} '{part.name}' names face '{part.face}', which is not there")
        for photo in self.photos:
            if photo.part is not None and not self.shows(photo.face, photo.part):
                raise ValueError(f"photo '{photo.name}' names {' '.join(photo.part)}, which is not on its face")
        for f in self.faces:
            rest = [z for z in self.zones if z.face == f.id and isinstance(z.area, FaceArea)]
            if len(rest) > 1:
                raise ValueError(
                    f"face '{f.name}': zones '{rest[0].name}' and '{rest[1].name}' both take what the face has left; "
                    "give one a size of its own"
                )
        return self
