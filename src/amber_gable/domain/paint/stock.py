"""What stands in the firm's own store: cans by number, opened or not."""

from datetime import date
from typing import Annotated

from pydantic import Field, model_validator

from amber_gable.domain.base import HexColour, Id, Record


class StockCan(Record):
    """One can: `number` stands on its label; `litres` are in it, of `size_l` when it was full. `good_until` by the
    maker's or the painter's word. `job`: booked to it, and no other job is reckoned with it."""

    number: Annotated[int, Field(ge=1, le=99_999)]
    product: Id
    colour: HexColour
    litres: Annotated[float, Field(gt=0, le=1000)]
    size_l: Annotated[float, Field(gt=0, le=1000)]
    batch: Annotated[str, Field(max_length=40)] = ""
    place: Annotated[str, Field(max_length=60)] = ""
    good_until: date | None = None
    job: Id | None = None

    @model_validator(mode="after")
    def _fits(self) -> "StockCan":
        if self.litres > self.size_l * (1 + 1e-6):
            raise ValueError(f"can {self.number} holds {self.size_l:g} L; {self.litres:g} L do not go into it")
        return self

    def serves(self, job: str, on: date) -> bool:
        """Whether a job may be reckoned with it on a day."""
        return self.job in (None, job) and (self.good_until is None or self.good_until >= on)
