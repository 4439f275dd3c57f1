"""The story of a film: the two days after it is laid, for every quarter hour of a day at which it might be."""

from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.climate.job_climate import place_of
from amber_gable.core.weather.film.drying import StageRates, stage_rates
from amber_gable.core.weather.film.film_events import FilmEvent, film_events
from amber_gable.core.weather.film.limits import Limit, coat_limits
from amber_gable.core.weather.futures.members import Coat, Odds
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.weather.wall.surface import surface_climate
from amber_gable.domain.grid import STEP_S
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.face_odds import futures
from amber_gable.services.weather.faces.judged_faces import JudgedFace
from amber_gable.services.workspace import digest

HOURS, FROM_H, UNTIL_H = 48, 4, 22
BAND = (0.1, 0.9)


@dataclass(frozen=True)
class StoryStage:
    """When a stage is reached, and between which times in eight of ten futures (None: not known, or never)."""

    name: str
    likely: datetime | None
    early: datetime | None
    late: datetime | None


@dataclass(frozen=True)
class FilmMoment:
    """A film whose last stroke is at `laid`. letter: what stops it there; sure: in what share of the futures not."""

    start: datetime
    laid: datetime
    letter: str
    sure: float | None
    stages: tuple[StoryStage, ...]
    events: tuple[FilmEvent, ...]


@dataclass(frozen=True)
class FilmStory:
    """Lines of shape (N,) at `times` (epoch s): °C, W/m², mm/h; bands (2, N) of eight in ten futures, as far as they
    are drawn."""

    row: JudgedFace
    begin: datetime
    times: Array
    air: Array
    surface: Array
    dew: Array
    beam: Array
    rain: Array
    surface_band: Array
    dew_band: Array
    limits: dict[str, Limit]
    moments: tuple[FilmMoment, ...]


def film_story(view: JobView, row: JudgedFace, odds: Odds | None, at: datetime) -> FilmStory | None:
    """Of the coat of `row` on the day of `at`; None for what lays no film, and for a day past the weather."""
    coat = row.step
    if not isinstance(coat, Coat):
        return None
    local = at.astimezone(row.windows.slots.tz)
    begin = local.replace(hour=FROM_H, minute=0, second=0, microsecond=0)
    steps = row.climate.steps
    first = int((begin.timestamp() - steps.start) // STEP_S)
    count = min(HOURS * 3600 // STEP_S, len(steps) - first)
    if first < 0 or count < 2:
        return None
    # A point for every quarter of an hour.
    pick = np.arange(first, first + count, 2)
    bands = _bands(view, coat, int(steps.times[pick[0]]), len(pick))
    limits = coat_limits(
        coat.product, view.bundle.policy, coat.damp.limit if coat.damp else None, sprays=coat.method.sprays
    )
    rates = stage_rates(row.climate, coat.product)
    slots = row.windows.slots
    day = slots.day[row.slot_of(begin)]
    of_day = np.flatnonzero((slots.day == day) & (slots.hours >= FROM_H) & (slots.hours < UNTIL_H))
    return FilmStory(
        row=row,
        begin=begin,
        times=steps.times[pick],
        air=steps.air[pick],
        surface=row.climate.surface[0, pick],
        dew=steps.dew[pick],
        beam=row.climate.poa_direct[0, pick],
        rain=row.climate.wall_rain[0, pick],
        surface_band=bands[:2],
        dew_band=bands[2:],
        limits=dict(limits),
        moments=tuple(_moment(row, coat, odds, rates, limits, int(i)) for i in of_day),
    )


def _moment(
    row: JudgedFace, coat: Coat, odds: Odds | None, rates: StageRates, limits: dict[str, Limit], slot: int
) -> FilmMoment:
    slots, windows = row.windows.slots, row.windows
    told = odds is not None and slot < len(odds.share)
    stages = []
    for name, likely, known in (
        ("touch", windows.touch_at, odds.touch_at if odds else None),
        ("rain-ready", windows.rain_ready_at, odds.rain_ready_at if odds else None),
        ("recoat", windows.recoat_at, odds.recoat_at if odds else None),
    ):
        assert likely is not None
        early, late = (
            (slots.moment(float(known[n, slot])) for n in (0, 2)) if told and known is not None else (None, None)
        )
        stages.append(StoryStage(name, slots.moment(float(likely[0, slot])), early, late))
    events = film_events(row.climate, coat.product, rates, limits, int(slots.end[slot]))
    return FilmMoment(
        start=slots.time(slot),
        laid=slots.time(slot + 1),
        letter=str(row.letters[slot]),
        sure=float(row.share(odds)[slot]) if told and odds is not None else None,
        stages=tuple(stages),
        events=tuple(events),
    )


def _bands(view: JobView, coat: Coat, start: int, count: int) -> Array:
    """(4, N): surface and dew point between which eight of ten futures lie, every second step from epoch second
    `start`."""

    def drawn() -> Array:
        weather = futures(view)
        climate = surface_climate(weather.steps, (coat.surface,))
        first = int((start - weather.steps.start) // STEP_S)
        pick = np.arange(first, min(first + 2 * count, len(weather.steps)), 2)
        surface, dew = climate.surface[0][:, pick], weather.steps.dew[:, pick]
        return np.concatenate([np.quantile(surface, BAND, axis=0), np.quantile(dew, BAND, axis=0)])

    key = "film-band" + digest(
        place_of(view.bundle.property), view.weather.series, coat.surface, view.now.date(), start
    )
    return view.ctx.space.standing.get(key, drawn)
