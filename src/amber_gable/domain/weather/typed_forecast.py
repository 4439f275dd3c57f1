"""A forecast as it is heard on the radio or read off any page, a day at a time."""

from datetime import date, timedelta
from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import Azimuth, Percent, Record

AirC = Annotated[float, Field(ge=-50, le=55)]
MOST_DAYS = 10


class ForecastWord(StrEnum):
    """Words as a forecast uses them, each with the figure it stands for."""

    figure: float

    def __new__(cls, words: str, figure: float) -> Self:
        said = str.__new__(cls, words)
        said._value_, said.figure = words, figure
        return said

    @classmethod
    def of(cls, words: str) -> Self | None:
        """By its words; None for others."""
        return next((said for said in cls if said.value == words), None)


class Cloud(ForecastWord):
    """The sky, as a share of it that is covered: the middles of the classes an observer gives in eighths."""

    CLEAR = "clear", 0.05
    FAIR = "a few clouds", 0.25
    HALF = "sun and cloud", 0.5
    MOSTLY = "mostly cloudy", 0.75
    OVERCAST = "overcast", 1.0


class WindForce(ForecastWord):
    """The wind, m/s at 10 m: about what Beaufort's forces 1, 2 to 3, 4, 5 and 6 to 7 blow."""

    CALM = "calm", 0.9
    LIGHT = "light", 3.0
    MODERATE = "moderate", 6.5
    FRESH = "fresh", 9.5
    STRONG = "strong", 14.0


class RainKind(ForecastWord):
    """The rain, mm/h while it falls."""

    DRIZZLE = "drizzle", 0.3
    LIGHT = "light rain", 1.0
    SHOWERS = "showers", 1.5
    RAIN = "rain", 2.5
    HEAVY = "heavy rain", 8.0


class TypedRain(Record):
    """From one local hour until another, with its chance."""

    from_h: Annotated[float, Field(ge=0, lt=24)] = 0.0
    until_h: Annotated[float, Field(gt=0, le=24)] = 24.0
    chance_pct: Percent = 80.0
    kind: RainKind = RainKind.RAIN

    @model_validator(mode="after")
    def _has_length(self) -> Self:
        if self.until_h <= self.from_h:
            raise ValueError("the rain ends before it begins; past midnight belongs to the next day")
        return self


class TypedDay(Record):
    """Low and high °C; how moist the air is as a dew point °C or a relative humidity at the middle of the day, %, or
    nothing, where the air is taken to come near saturation at the low."""

    low_c: AirC
    high_c: AirC
    dew_c: AirC | None = None
    rh_pct: Annotated[float, Field(ge=1, le=100)] | None = None
    cloud: Annotated[float, Field(ge=0, le=1)] = 0.5
    wind_ms: Annotated[float, Field(ge=0, le=60)] = 3.0
    wind_from_deg: Azimuth = 270.0
    rain: tuple[TypedRain, ...] = ()

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.high_c < self.low_c:
            raise ValueError("the high is below the low")
        if self.dew_c is not None and self.dew_c > self.high_c:
            raise ValueError("the dew point is above the high: air does not hold so much water")
        return self


class TypedForecast(Record):
    """Days running from the first, as heard; by the sea the day's warmth comes earlier and the night keeps it."""

    first: date
    days: Annotated[tuple[TypedDay, ...], Field(min_length=1, max_length=MOST_DAYS)]
    by_the_sea: bool = False

    @property
    def dates(self) -> list[date]:
        return [self.first + timedelta(days=n) for n in range(len(self.days))]
