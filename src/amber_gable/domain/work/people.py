"""The people of a company and the crews they work in."""

from enum import StrEnum
from typing import Annotated

from pydantic import Field

from amber_gable.domain.base import Id, Name, Record

Weekday = Annotated[int, Field(ge=0, le=6)]
"""0 is Monday."""
EVERY_DAY: tuple[Weekday, ...] = (0, 1, 2, 3, 4, 5, 6)


class Craft(StrEnum):
    """What somebody can be sent to do."""

    BRUSH = "brush"
    ROLLER = "roller"
    SPRAY = "spray"
    LADDERS = "ladders"
    LEAD_SAFE = "lead-safe"


class Person(Record):
    """`crafts` empty: nothing is known, and everything is given to them; `days`: on which they work at all, within the
    days of their crew."""

    id: Id
    name: Name
    crafts: tuple[Craft, ...] = ()
    days: tuple[Weekday, ...] = EVERY_DAY


class Crew(Record):
    """People who work together, by id. Their day is the `CrewDay` of the jobs that name the crew."""

    id: Id
    name: Name
    people: Annotated[tuple[Id, ...], Field(min_length=1, max_length=40)]


def unnamed(count: int) -> tuple[Person, ...]:
    """That many people of whom neither name nor crafts are known."""
    return tuple(Person(id=f"painter-{n}", name=f"Painter {n}") for n in range(1, count + 1))
