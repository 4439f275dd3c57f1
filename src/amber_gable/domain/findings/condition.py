"""What the survey found on a surface (docs/trade.md §3): judged by eye, by small tests, by meter, and marked on the
drawing."""

from datetime import date, datetime
from enum import StrEnum
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import HexColour, Id, Note, Percent, Record

CELL_M = 0.25
"""Side of a square of the condition map."""


class Grade(StrEnum):
    NONE = "none"
    LIGHT = "light"
    HEAVY = "heavy"


class Gloss(StrEnum):
    DULL = "dull"
    SATIN = "satin"
    GLOSS = "gloss"


class Coating(StrEnum):
    """What is on the surface now."""

    UNKNOWN = "unknown"
    BARE = "bare"
    WATERBORNE = "waterborne"
    OIL = "oil"
    FILM_STAIN = "film-stain"
    PENETRATING_STAIN = "penetrating-stain"
    FACTORY = "factory-coat"
    FACTORY_PRIMER = "factory-primer"
    LIME_WASH = "lime-wash"


class Absorbency(StrEnum):
    SOAKS = "soaks"
    SLOW = "slow"
    BEADS = "beads"


class Masonry(StrEnum):
    DUSTY = "dusty"
    NORMAL = "normal"
    SHINY = "shiny"


class Vinyl(StrEnum):
    SOUND = "sound"
    PITTED = "pitted"
    WARPED = "warped"


class Efflorescence(StrEnum):
    """White salt bloom on masonry: brushed off dry it stays away, or it returns with the water that brings it."""

    NONE = "none"
    DRY = "dry-bloom"
    RETURNS = "returns"


class Adhesion(StrEnum):
    """What a test patch of the new coating on the old did under tape, a week later."""

    HOLDS = "holds"
    LIFTS = "lifts"


class Deposit(StrEnum):
    """What lies on the surface and no usual wash takes off."""

    NONE = "none"
    SOOT = "soot"
    SALT = "sea-salt"
    GRAFFITI = "graffiti"
    WAX = "wax"


class Timber(StrEnum):
    """How new wood came: what drives its wait before a coat."""

    TREATED = "pressure-treated"
    KILN_DRIED = "kiln-dried"
    UNTREATED = "untreated"


class Damage(StrEnum):
    """What is marked on the condition map."""

    PEELING = "peeling"
    MILDEW = "mildew"
    CRACKS = "cracks"
    ROT = "rot"
    BARE = "bare"


class MoistureReading(Record):
    """One meter reading, % of dry mass."""

    pct: Annotated[float, Field(ge=0, le=100)]
    at: datetime | None = None
    spot: Annotated[str, Field(max_length=80)] = ""


class Tested(Record):
    """That a guided test was made, and what goes with it. The reading itself stands in the condition's own field."""

    test: Annotated[str, Field(pattern=r"^[a-z-]{2,40}$")]
    on: date | None = None
    note: Annotated[str, Field(max_length=400)] = ""
    photo: Id | None = None


Run = tuple[
    Annotated[int, Field(ge=0, le=800)], Annotated[int, Field(ge=0, le=800)], Annotated[int, Field(ge=0, le=800)]
]


class Mark(Record):
    """Squares of the condition map as runs (row, first column, last column), counted from the face's lower left."""

    damage: Damage
    runs: Annotated[tuple[Run, ...], Field(max_length=4000)]


class Condition(Record):
    """Percentages are of the zone's area; None where a test has not been made. `made_colour` is that of vinyl as it
    left the factory; `asbestos` what a laboratory said of a cement sheet, `lead_found` what a test
    said of the old paint on this surface, `built_year` when it was put up, where that is not when the house was."""

    coating: Coating = Coating.UNKNOWN
    coats: Annotated[int, Field(ge=0, le=40)] | None = None
    age_years: Annotated[float, Field(ge=0, le=500)] | None = None
    loose_pct: Percent = 0.0
    mildew_pct: Percent = 0.0
    chalking: Grade | None = None
    gloss: Gloss | None = None
    dirt: Grade | None = None
    greyed: bool | None = None
    raised_fibre: bool | None = None
    absorbency: Absorbency | None = None
    masonry: Masonry | None = None
    crack_mm: Annotated[float, Field(ge=0, le=100)] | None = None
    crack_m: Annotated[float, Field(ge=0, le=2000)] = 0.0
    rot_m2: Annotated[float, Field(ge=0, le=2000)] = 0.0
    caulk_m: Annotated[float, Field(ge=0, le=5000)] = 0.0
    putty_m: Annotated[float, Field(ge=0, le=5000)] = 0.0
    nails: Annotated[int, Field(ge=0, le=100_000)] = 0
    stubs: Annotated[int, Field(ge=0, le=10_000)] = 0
    vinyl: Vinyl | None = None
    bare_pct: Percent = 0.0
    efflorescence: Efflorescence | None = None
    tannin: bool | None = None
    rust_pct: Percent | None = None
    timber: Timber | None = None
    made_colour: HexColour | None = None
    adhesion: Adhesion | None = None
    asbestos: bool | None = None
    lead_found: bool | None = None
    built_year: Annotated[int, Field(ge=1500, le=2100)] | None = None
    deposit: Deposit | None = None
    moisture: Annotated[tuple[MoistureReading, ...], Field(max_length=200)] = ()
    marks: Annotated[tuple[Mark, ...], Field(max_length=len(Damage))] = ()
    tests: Annotated[tuple[Tested, ...], Field(max_length=40)] = ()
    note: Note = ""

    @property
    def bare(self) -> bool:
        return self.coating is Coating.BARE

    def marked(self, damage: Damage) -> Mark | None:
        return next((m for m in self.marks if m.damage is damage), None)
