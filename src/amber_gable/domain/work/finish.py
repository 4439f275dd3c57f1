"""What one zone or item gets: a colour, and a company's coating system or steps derived for it alone."""

from enum import StrEnum
from typing import Annotated, Any, Self

from pydantic import Field, field_validator, model_validator

from amber_gable.domain.base import HexColour, Id, Name, Record
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.aims import Aim
from amber_gable.domain.work.operation import Operation, unique_operations
from amber_gable.domain.work.schools import checked_part_schools

Schools = Annotated[dict[str, str], Field(max_length=60)]


class OverrideAction(StrEnum):
    ADD = "add"
    REMOVE = "remove"
    CHANGE = "change"


class Override(Record):
    """A step put in, taken out or changed by hand, with the reason. `operation` is the step as it is to be (none where
    it is taken out); an added one comes after the step `after`, or first."""

    action: OverrideAction
    step: Id
    operation: Operation | None = None
    after: Id | None = None
    reason: Annotated[str, Field(min_length=3, max_length=400)]

    @model_validator(mode="after")
    def _step_given(self) -> Self:
        if (self.operation is None) != (self.action is OverrideAction.REMOVE):
            raise ValueError(f"override of '{self.step}': a step added or changed must be given, one removed must not")
        if self.operation is not None and self.operation.id != self.step:
            raise ValueError(f"override of '{self.step}': the step given is '{self.operation.id}'")
        return self


class Finish(Record):
    """The finish of one zone or item. Either `system` names a company's system, or `operations` holds the steps as
    they were derived, with the choices they were derived from: aim, schools of this part, products picked by role, and
    overrides. With neither, the steps are still to be derived."""

    zone: Id | None = None
    item: Id | None = None
    system: Id | None = None
    operations: tuple[Operation, ...] = ()
    colour: HexColour
    colour_name: Name
    aim: Aim | None = None
    schools: Schools = Field(default_factory=dict)
    picks: Annotated[dict[str, Id], Field(max_length=40)] = Field(default_factory=dict)
    overrides: Annotated[tuple[Override, ...], Field(max_length=60)] = ()

    _schools_known = field_validator("schools")(lambda chosen: checked_part_schools(chosen))

    @property
    def part(self) -> tuple[str, str]:
        """Kind and id of what is finished."""
        return ("zone", self.zone) if self.zone is not None else ("item", self.item or "")

    @property
    def derived(self) -> bool:
        return self.system is None

    @model_validator(mode="before")
    @classmethod
    def _named_by_its_colour(cls, given: Any) -> Any:
        """A colour without a name is called by its code."""
        if isinstance(given, dict) and "colour_name" not in given and isinstance(given.get("colour"), str):
            return given | {"colour_name": given["colour"]}
        return given

    @model_validator(mode="after")
    def _one_of_each(self) -> Self:
        if (self.zone is None) == (self.item is None):
            raise ValueError("a finish names either a zone or an item")
        what, id_ = self.part
        if self.system is not None and self.operations:
            raise ValueError(f"finish of {what} '{id_}' has a system and steps of its own; keep one of them")
        unique_operations(self.operations, f"finish of {what} '{id_}'")
        steps = [o.step for o in self.overrides]
        if len(set(steps)) != len(steps):
            raise ValueError(f"finish of {what} '{id_}': two overrides of one step; keep one")
        return self


PRIMER_COLOUR, CLEAR_COLOUR = "#f4f1ea", "#d9d2c0"
"""Of an untinted primer, and of what is drawn, bought and noted as clear."""


def coat_colour(operation: Operation, product: Product, finish_colour: str) -> str:
    """What is in the tin: its own colour where it is tinted, none where it is clear, a primer's white, else the
    finish's."""
    if operation.colour is not None:
        return operation.colour
    if product.clear:
        return CLEAR_COLOUR
    return PRIMER_COLOUR if product.primer else finish_colour
