"""What an estimate is made with beyond survey and specification."""

from typing import Annotated

from pydantic import Field, field_validator

from amber_gable.domain.base import Id, Percent, Record
from amber_gable.domain.work.access import AccessChoice
from amber_gable.domain.work.consumables import ADDITIVES


class Estimating(Record):
    """`buy_level`: of a hundred such jobs, in how many a paint that is bought is enough. `largest_l`: the largest
    container wished, L. `cold_pct`: share of the work that falls on days below 8 °C. `travel_h`: there and back for a
    person and day, h; the usual figure where not said. `additives` go into the finish
    coats. `access`: the way up by face, a ladder where none is named."""

    buy_level: Annotated[float, Field(ge=50, le=99)] = 80.0
    largest_l: Annotated[float, Field(gt=0, le=1000)] | None = None
    cold_pct: Percent = 0.0
    travel_h: Annotated[float, Field(ge=0, le=8)] | None = None
    additives: tuple[str, ...] = ()
    access: Annotated[dict[Id, AccessChoice], Field(max_length=500)] = Field(default_factory=dict)

    @field_validator("additives")
    @classmethod
    def _known(cls, codes: tuple[str, ...]) -> tuple[str, ...]:
        unknown = [c for c in codes if c not in ADDITIVES]
        if unknown:
            raise ValueError(f"additive '{unknown[0]}' is not known; one of: {', '.join(ADDITIVES)}")
        return tuple(sorted(set(codes)))
