"""What is not our work: parts that are left, replaced by others or taken away for good, and what other people do."""

from datetime import date
from enum import StrEnum
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import HexColour, Id, Name, Record


class Leaving(StrEnum):
    """What happens to a part that gets no paint from us."""

    AS_IT_IS = "as-it-is"
    REPLACED = "replaced"
    TAKEN_AWAY = "taken-away"

    @property
    def words(self) -> str:
        return LEAVING_WORDS[self]


LEAVING_WORDS = {
    Leaving.AS_IT_IS: "left as it is",
    Leaving.REPLACED: "replaced by others",
    Leaving.TAKEN_AWAY: "taken away for good",
}


class LeftPart(Record):
    """A zone or item that is not painted. `colour` is that of what comes in its place, only where it is replaced; `by`
    names who does that; `note` why."""

    zone: Id | None = None
    item: Id | None = None
    leaving: Leaving = Leaving.AS_IT_IS
    colour: HexColour | None = None
    colour_name: Annotated[str, Field(max_length=120)] = ""
    by: Annotated[str, Field(max_length=120)] = ""
    note: Annotated[str, Field(max_length=400)] = ""

    @property
    def part(self) -> tuple[str, str]:
        """Kind and id of what is left."""
        return ("zone", self.zone) if self.zone is not None else ("item", self.item or "")

    @model_validator(mode="before")
    @classmethod
    def _named_by_its_colour(cls, given: Any) -> Any:
        """A colour without a name is called by its code."""
        if isinstance(given, dict) and given.get("colour") and not given.get("colour_name"):
            return given | {"colour_name": given["colour"]}
        return given

    @model_validator(mode="after")
    def _whole(self) -> Self:
        if (self.zone is None) == (self.item is None):
            raise ValueError("a part that is left names either a zone or an item")
        what, id_ = self.part
        if (self.colour is not None) != (self.leaving is Leaving.REPLACED):
            raise ValueError(
                f"{what} '{id_}' is {self.leaving.words}: "
                + ("give the colour it will have" if self.colour is None else "a colour belongs to what is replaced")
            )
        if what == "zone" and self.leaving is Leaving.TAKEN_AWAY:
            raise ValueError(f"zone '{id_}' cannot be taken away: delete it in the survey, or say what replaces it")
        return self


class Turn(StrEnum):
    """When other people's work comes: before all of ours at that place, before our coats there, or after them."""

    BEFORE_WORK = "before-work"
    BEFORE_COATS = "before-coats"
    AFTER = "after"

    @property
    def words(self) -> str:
        return TURN_WORDS[self]


TURN_WORDS = {
    Turn.BEFORE_WORK: "before any of our work there",
    Turn.BEFORE_COATS: "before our primers and coats there",
    Turn.AFTER: "after our last coat there",
}
MOST_COST = 1_000_000.0


class OthersWork(Record):
    """A task of other people: an electrician who frees a sign, a glazier, a carpenter, the customer who moves the car.

    `where` is a face, zone or item, None the whole job. Our work there waits for it, or it waits for ours (`turn`).
    `day` is the last day of theirs, as agreed. `cost` in the company's currency, where it is known."""

    id: Id
    who: Name
    what: Name
    where: tuple[Literal["face", "zone", "item"], Id] | None = None
    turn: Turn = Turn.BEFORE_WORK
    day: date | None = None
    cost: Annotated[float, Field(ge=0, le=MOST_COST)] | None = None
