"""What was done on site, and what the customer changed: an append-only record. Nothing in it is altered; what was
entered by mistake is taken back by a later entry."""

from datetime import date
from enum import StrEnum
from typing import Annotated, ClassVar, Literal, Self

from pydantic import AwareDatetime, Field, model_validator

from amber_gable.domain.base import Fraction, HexColour, Id, Name, Record
from amber_gable.domain.paint.method import Method

PartRef = tuple[Literal["zone", "item"], Id]
"""Kind and id of a part."""
Words = Annotated[str, Field(max_length=400)]
Person = Annotated[str, Field(min_length=1, max_length=80)]


class Extent(Record):
    """Where on the house: parts, and how much of each between two shares of its width, counted from the left as one
    stands before it."""

    parts: Annotated[tuple[PartRef, ...], Field(min_length=1, max_length=400)]
    left: Fraction = 0.0
    right: Fraction = 1.0

    @model_validator(mode="after")
    def _has_width(self) -> Self:
        if self.right <= self.left:
            raise ValueError("an extent ends to the right of where it begins")
        return self

    def overlaps(self, left: float, right: float) -> bool:
        """Whether it has some width in common with a stretch."""
        return self.left < right and left < self.right

    def meets(self, other: "Extent") -> bool:
        """Whether it has some of a part in common with another."""
        return bool(set(self.parts) & set(other.parts)) and self.overlaps(other.left, other.right)


class Said(StrEnum):
    """What an entry says of the work it names. `tested`: the test that ends the wait behind a step was passed;
    `not-ready`: it was made, and not passed. `enough` and `one-more`: how a look came out."""

    STARTED = "started"
    DONE = "done"
    PART_DONE = "part-done"
    NOT_DONE = "not-done"
    TESTED = "tested"
    NOT_READY = "not-ready"
    ENOUGH = "enough"
    ONE_MORE = "one-more"
    TAKEN_BACK = "taken-back"


class SiteEntry(Record):
    """One touch on one piece of work. `touch` and `noted` (when it was entered) come from where it was made, so that a
    touch sent twice is entered once; `at` is when it was so. `steps` are operations of the parts' systems; a film's
    product, method and colour are kept as they were laid. `how_far` (part done) counts from the left; `takes_back`
    names the touch that this entry undoes. `work` says in words what was meant."""

    kind: ClassVar[str] = "work"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    said: Said
    work: Words = ""
    extent: Extent | None = None
    steps: Annotated[tuple[Id, ...], Field(max_length=60)] = ()
    how_far: Annotated[float, Field(gt=0, lt=1)] | None = None
    why: Words = ""
    takes_back: Id | None = None
    product: Id | None = None
    method: Method | None = None
    colour: HexColour | None = None

    @model_validator(mode="after")
    def _whole(self) -> Self:
        if self.said is Said.TAKEN_BACK:
            if self.takes_back is None:
                raise ValueError(f"entry '{self.id}' takes back nothing: name the touch it undoes")
            return self
        if self.takes_back is not None:
            raise ValueError(f"entry '{self.id}' says {self.said.value} and cannot take back another")
        if self.extent is None or not self.steps:
            raise ValueError(f"entry '{self.id}' names no work: give its extent and steps")
        if (self.said is Said.PART_DONE) != (self.how_far is not None):
            raise ValueError(f"entry '{self.id}': how far belongs to 'part-done' and only there")
        if self.said is Said.NOT_DONE and not self.why.strip():
            raise ValueError(f"entry '{self.id}' says not done: say why")
        return self


class CustomerChange(Record):
    """What the customer asked for after the work was specified: `old` and `new` as they were called then."""

    kind: ClassVar[str] = "change"

    id: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    what: Literal["colour", "scope"]
    parts: Annotated[tuple[PartRef, ...], Field(min_length=1, max_length=400)]
    old: Name
    new: Name
    old_colour: HexColour | None = None
    new_colour: HexColour | None = None
    words: Words = ""


class OthersNoted(Record):
    """Whether other people did their task (`task` is its id). The latest line of a task holds."""

    kind: ClassVar[str] = "others"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    task: Id
    done: bool


class FoundMore(Record):
    """What was found on a part while working beyond what was surveyed: by field of its condition the figure before and
    the one found, and what the part takes before and with it, person-hours and litres."""

    kind: ClassVar[str] = "found"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    part: PartRef
    found: Annotated[dict[str, tuple[float, float]], Field(min_length=1, max_length=20)]
    hours: tuple[float, float]
    litres: tuple[float, float]


class Mishap(StrEnum):
    """What happened to a film."""

    RAIN = "rain"
    DEW = "dew"
    FROST = "frost"
    TOUCHED = "touched"
    DUST = "dust"
    RAN = "ran"
    COLOUR = "wrong-colour"


class Effect(StrEnum):
    """What it left: nothing to be seen, marks on a film that holds, or a film that came off or lost its hold."""

    NONE = "none"
    MARKED = "marked"
    CAME_OFF = "came-off"


class Spoiled(Record):
    """What became of a film, `step` of the parts of `extent`, when something happened to it `at` a moment; `share` is
    how much of the extent. `words` decide nothing. It is taken back like an entry of work, by its touch."""

    kind: ClassVar[str] = "spoiled"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    what: Mishap
    effect: Effect
    step: Id
    extent: Extent
    share: Annotated[float, Field(gt=0, le=1)] = 1.0
    work: Words = ""
    words: Words = ""


class Rained(Record):
    """Somebody on site said that it rains, `at` that moment."""

    kind: ClassVar[str] = "rained"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person


class CanNoted(Record):
    """How much is left in a can: the `number`th of those bought of a product in a colour, counted from 1 as they are
    opened one after another. 0 L: it is used up."""

    kind: ClassVar[str] = "can"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    product: Id
    colour: HexColour
    number: Annotated[int, Field(ge=1, le=999)]
    left_l: Annotated[float, Field(ge=0, le=1000)]


class Missing(Record):
    """How many people of the crew are missing on a day, in all; of several lines of a day the last holds."""

    kind: ClassVar[str] = "missing"

    id: Id
    touch: Id
    at: AwareDatetime
    noted: AwareDatetime
    by: Person
    day: date
    people: Annotated[int, Field(ge=0, le=40)]


SiteLine = SiteEntry | CustomerChange | OthersNoted | FoundMore | Spoiled | Rained | CanNoted | Missing
LINES: dict[str, type[SiteLine]] = {
    line.kind: line for line in (SiteEntry, CustomerChange, OthersNoted, FoundMore, Spoiled, Rained, CanNoted, Missing)
}
"""Every kind of line of the record, by the kind it is stored under. What is to be recorded besides is a class of its
own here; the store reads it as it stands."""


def withdrawn(record: tuple[SiteEntry, ...]) -> frozenset[str]:
    """The touches that were taken back. Taking back a taking back lets the first stand again."""
    gone: set[str] = set()
    for entry in reversed(record):
        if entry.takes_back is not None and entry.touch not in gone:
            gone.add(entry.takes_back)
    return frozenset(gone)


def standing(record: tuple[SiteEntry, ...]) -> tuple[SiteEntry, ...]:
    """The entries that hold: without what was taken back, and without the taking back."""
    gone = withdrawn(record)
    return tuple(e for e in record if e.takes_back is None and e.touch not in gone)
