"""Which answer of a forecast service is taken, and how often it is asked."""

from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta

import pytest

from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.weather.forecast import ForecastUnavailable
from amber_gable.services.clock import DEMO_START, DemoClock
from amber_gable.services.context import Context
from amber_gable.services.weather.held.asking import job_weather
from amber_gable.store.weather.series import drop_series
from tests.jobs import coopers_rise
from tests.weather_cases import steady

PLACE = coopers_rise().property
HOUR = timedelta(hours=1)


@dataclass
class Service:
    """Answers with `hours` of steady weather from `start`, issued `age` before it is asked; None: it is down."""

    start: datetime | None = DEMO_START
    hours: int = 240
    age: timedelta = timedelta()
    air_c: float = 20.0
    asked: list[datetime] = field(default_factory=list)

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        self.asked.append(at)
        if self.start is None:
            raise ForecastUnavailable("the forecast service did not answer (test)")
        series = steady(self.start.replace(minute=0), self.hours, air_c=self.air_c)
        return replace(series, issued=int((at - self.age).timestamp()))


# What comes after a good forecast, and what is said of it; '' where it is taken.
ANSWERS: dict[str, tuple[Service, str]] = {
    "another good one": (Service(), ""),
    "shorter, still three days": (Service(hours=80), ""),
    "one hour": (Service(hours=1), "only"),
    "last week's": (Service(start=DEMO_START - 9 * 24 * HOUR, hours=48), "do not reach now"),
    "next week's": (Service(start=DEMO_START + 48 * HOUR), "do not reach now"),
    "none": (Service(start=None), "did not answer"),
}


@pytest.mark.parametrize(("service", "words"), ANSWERS.values(), ids=ANSWERS)
def test_an_answer_that_is_no_use_never_takes_the_place_of_one_that_is(
    ctx: Context, service: Service, words: str
) -> None:
    ctx.space.provider = Service(air_c=11.0)
    before = job_weather(ctx, PLACE, insist=True).series
    assert before is not None and before.air_c[0] == 11.0
    ctx.space.provider = service
    after = job_weather(ctx, PLACE, insist=True)
    assert after.series is not None
    assert after.series.air_c[0] == (11.0 if words else 20.0)
    assert words in (after.trouble or "")
    assert bool(after.trouble) == bool(words)


def test_trouble_is_said_on_every_page_until_the_service_answers_again(ctx: Context) -> None:
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.provider = bad = Service(hours=1)
    job_weather(ctx, PLACE, insist=True)
    ctx.space.provider = Service(start=None)
    for _ in range(3):
        assert job_weather(ctx, PLACE, insist=True).trouble
    assert job_weather(ctx, PLACE).trouble, "also where it is not asked again"
    assert len(bad.asked) == 1


@pytest.mark.parametrize(
    ("service", "minutes", "asked"),
    [
        (Service(), 30, 1),
        (Service(), 61, 2),
        (Service(age=5 * HOUR), 1, 1),
        (Service(age=5 * HOUR), 11, 2),
        (Service(start=None), 0.5, 1),
        (Service(start=None), 1, 2),
    ],
)
def test_how_soon_a_service_is_asked_again(ctx: Context, service: Service, minutes: float, asked: int) -> None:
    """A service whose newest forecast is hours old is not asked at every page."""
    assert isinstance(ctx.space.clock, DemoClock)
    ctx.space.provider = service
    place = PLACE.model_copy(update={"id": "net-loft"})
    with ctx.writing() as session:
        drop_series(session, place.id, "forecast")
    for _ in range(2):
        job_weather(ctx, place)
    assert len(service.asked) == 1
    ctx.space.clock.step(minutes / 60)
    job_weather(ctx, place)
    assert len(service.asked) == asked
