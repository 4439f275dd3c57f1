"""What an estimate is made with beyond survey and specification."""

from typing import Annotated

from pydantic import Field, field_validator

from amber_gable.domain.base import Id, Percent, Record
from amber_gable.domain.work.access import AccessChoice
from amber_gable.domain.work.consumables import ADDITIVES
from amber_gable.domain.work.extras import EXTRAS, MOST_EXTRA


class Estimating(Record):
    """`buy_level`: of a hundred such jobs, in how many a paint that is bought is enough. `largest_l`: the largest
    container wished, L. `cold_pct`: share of the work that falls on days below 8 °C. `travel_h`: there and back for a
    person and day, h; the usual figure where not said. `additives` go into the finish
    coats. `extras`: small work beside the paint, how much of each by its code. `access`: the way up by face, a ladder
    where none is named."""

    buy_level: Annotated[float, Field(ge=50, le=99)] = 80.0
    largest_l: Annotated[float, Field(gt=0, le=1000)] | None = None
    cold_pct: Percent = 0.0
    travel_h: Annotated[float, Field(ge=0, le=8)] | None = None
    additives: tuple[str, ...] = ()
    extras: Annotated[dict[str, Annotated[float, Field(gt=0, le=MOST_EXTRA)]], Field(max_length=50)] = Field(
        default_factory=dict
    )
    access: Annotated[dict[Id, AccessChoice], Field(max_length=500)] = Field(default_factory=dict)

    @field_validator("additives")
    @classmethod
    def _known(cls, codes: tuple[str, ...]) -> tuple[str, ...]:
        unknown = [c for c in codes if c not in ADDITIVES]
        if unknown:
            raise ValueError(f"additive '{unknown[0]}' is not known; one of: {', '.join(ADDITIVES)}")
        return tuple(sorted(set(codes)))

    @field_validator("extras")
    @classmethod
    def _extras_known(cls, amounts: dict[str, float]) -> dict[str, float]:
        unknown = sorted(set(amounts) - set(EXTRAS))
        if unknown:
            raise ValueError(f"extra '{unknown[0]}' is not known; one of: {', '.join(EXTRAS)}")
        return amounts
