"""A wall with a record, in made weather: small worlds for the tests of state, judgement and plan."""

from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate, site_climate
from amber_gable.core.state.job_state import JobState, job_state, surroundings
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.job.site_record import SiteEntry
from amber_gable.domain.weather.series import WeatherSeries
from tests.jobs import one_wall
from tests.weather_cases import steady

MONDAY = datetime.fromisoformat("2026-06-08T00:00-03:00")
"""Midnight before the first day; the weather begins two days earlier."""
SIDING = ("zone", "siding")
DAYS = 12


def at(day: int, clock: str) -> datetime:
    """'1 08:40': day 0 is the Monday."""
    hours, minutes = clock.split(":")
    return MONDAY + timedelta(days=day, hours=int(hours), minutes=int(minutes))


def entry(said: str, steps: str, when: datetime, n: int = 0, **more: Any) -> SiteEntry:
    """Of the whole siding, unless told otherwise: `left`, `right`, `parts`."""
    extent = {
        "parts": more.pop("parts", [SIDING]),
        "left": more.pop("left", 0.0),
        "right": more.pop("right", 1.0),
    }
    fields = {"id": f"e{n}", "touch": f"t{n}", "at": when, "noted": when, "by": "Ina", "said": said}
    work = {"extent": extent, "steps": steps.split(), "work": steps}
    return SiteEntry.model_validate(fields | ({} if said == "taken-back" else work) | more)


def record(*lines: tuple[Any, ...]) -> tuple[SiteEntry, ...]:
    """Lines of (said, steps, when, more fields)."""
    return tuple(
        entry(said, steps, when, n, **(rest[0] if rest else {})) for n, (said, steps, when, *rest) in enumerate(lines)
    )


def wall(*lines: tuple[Any, ...], system: str = "generic-peeling-wood", readings: Any = (), **job: Any) -> JobBundle:
    """A wood wall with a system, what was noted on it, and meter readings as (%, when)."""
    bundle = one_wall(system=system, record=record(*lines), **job)
    zone = bundle.property.zones[0]
    moisture = [{"pct": pct, "at": when} for pct, when in readings]
    condition = zone.condition.model_validate(zone.condition.model_dump() | {"moisture": moisture})
    place = bundle.property.model_copy(update={"zones": (zone.model_copy(update={"condition": condition}),)})
    return bundle.model_copy(update={"property": place})


def weather(rain: dict[datetime, float] | None = None, **columns: float) -> WeatherSeries:
    """Mild, dry, overcast days from two days before; `rain` in mm by the hour in which it falls, from the north."""
    start = MONDAY - timedelta(days=2)
    series = steady(start, (DAYS + 9) * 24, **columns)
    if not rain:
        return series
    fallen = np.zeros(len(series))
    for when, mm in rain.items():
        fallen[int((when - start).total_seconds() // 3600)] = mm
    return replace(series, rain_mm=fallen, wind_from_deg=np.zeros(len(series)), wind_ms=np.full(len(series), 4.0))


def site_of(bundle: JobBundle, now: datetime, series: WeatherSeries | None = None) -> SiteClimate:
    return site_climate(bundle, series or weather(), now, DAYS)


def state_of(
    bundle: JobBundle, now: datetime, series: WeatherSeries | None = None, plan: Plan | None = None
) -> JobState:
    return job_state(surroundings(site_of(bundle, now, series), now), plan)
