"""How a crew works: its day, and what the contractor judges the weather by."""

from collections.abc import Mapping
from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, ValidationInfo, field_validator, model_validator

from amber_gable.domain.base import Percent, Record
from amber_gable.domain.work.schools import DEFAULTS, TOPICS

WEATHER_SCHOOLS = ("sun", "hold", "dew", "rain", "recoat")


class Skill(StrEnum):
    """What the hands on a job have behind them; the trade's rates are those of experienced people."""

    EXPERIENCED = "experienced"
    MIXED = "mixed"
    LEARNING = "learning"


class CrewDay(Record):
    """The crew's day, local clock hours; set-up and clean-up lie inside the shift and are not for coating."""

    skill: Skill = Skill.EXPERIENCED
    people: Annotated[int, Field(ge=1, le=40)] = 2
    start_h: Annotated[float, Field(ge=0, le=23)] = 7.0
    end_h: Annotated[float, Field(gt=0, le=24)] = 19.0
    setup_h: Annotated[float, Field(ge=0, le=4)] = 0.5
    cleanup_h: Annotated[float, Field(ge=0, le=4)] = 0.5
    work_saturday: bool = True
    work_sunday: bool = False

    @model_validator(mode="after")
    def _day_has_length(self) -> Self:
        if self.end_h - self.start_h <= self.setup_h + self.cleanup_h:
            raise ValueError("the crew's day ends before any work: start, set-up, clean-up and end leave no time")
        return self

    @property
    def first_h(self) -> float:
        return self.start_h + self.setup_h

    @property
    def last_h(self) -> float:
        return self.end_h - self.cleanup_h


class PolicyLimits(Record):
    """The contractor's own limits (docs/trade.md §10). Wind m/s, rain probability %."""

    rain_probability_max_pct: Percent = 20.0
    spray_wind_max: Annotated[float, Field(gt=0, le=12.5)] = 7.0
    ladder_wind_max: Annotated[float, Field(gt=0, le=12.5)] = 10.0


class Policy(PolicyLimits):
    """The limits with the schools that hold for weather: what a coat in the weather is judged by."""

    sun: str = DEFAULTS["sun"]
    hold: str = DEFAULTS["hold"]
    dew: str = DEFAULTS["dew"]
    rain: str = DEFAULTS["rain"]
    recoat: str = DEFAULTS["recoat"]

    @field_validator(*WEATHER_SCHOOLS)
    @classmethod
    def _known(cls, code: str, info: ValidationInfo) -> str:
        return TOPICS[info.field_name or ""].school(code).code

    @property
    def by_film(self) -> bool:
        """Whether a film's stages may be reached sooner than its sheet says."""
        return self.recoat == "film"

    def in_wind(self, wind_max: float | None) -> Self:
        """The same for work that bears no more than that wind, m/s."""
        if wind_max is None or wind_max >= self.ladder_wind_max:
            return self
        return self.model_copy(update={"ladder_wind_max": wind_max})

    @classmethod
    def under(cls, limits: PolicyLimits, schools: Mapping[str, str]) -> Self:
        """These limits under the schools that hold (`schools.resolved`)."""
        return cls(**limits.model_dump(), **{topic: schools[topic] for topic in WEATHER_SCHOOLS})
