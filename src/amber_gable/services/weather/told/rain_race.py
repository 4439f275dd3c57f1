"""The next coat against the rain: said where rain may catch it before it is rain-ready."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import partial

import numpy as np

from amber_gable.core.state.task_status import Status
from amber_gable.core.weather.film.race import Race, race
from amber_gable.core.weather.futures.members import Coat
from amber_gable.core.weather.wall.surface import surface_climate
from amber_gable.domain.job.plan import Task
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.face_odds import futures
from amber_gable.services.workspace import digest

AHEAD = timedelta(hours=18)
"""Of a coat further off the plan and the lanes speak."""
MATTERS_BELOW = 0.95


@dataclass(frozen=True)
class RainRace:
    """last: until when a stroke is rain-ready before the rain in the share of futures asked for (None: not even the
    first); `all_fine` when that is the end of the coat. rain, early: when rain reaches the face in the middle of the
    futures and in the unlucky tenth, None where it does not in the days looked at."""

    task: Task
    found: Race
    last: datetime | None
    all_fine: bool
    rain: datetime | None
    early: datetime | None


def rain_race(view: JobView) -> RainRace | None:
    """Of the coat under way or next, or of one that is due and that only rain keeps away: who looks at the sky and
    goes all the same must know the odds. None where there is none soon, or no rain to race."""
    board, series, site = view.board, view.weather.series, view.site
    if board is None or series is None or site is None:
        return None
    due = [t for t in board.open if t.status in (Status.LATE, Status.DUE) and t.answer and t.answer.letters == ("R",)]
    wanted = [t for t in (board.now, *due, board.next) if t is not None]
    coming = [t for t in wanted if t.task.kind.lays_film and t.judged is not None]
    for state in coming:
        task, judged = state.task, state.judged
        assert judged is not None
        begins = max(view.now, task.start)
        if begins - view.now > AHEAD or task.end <= begins or not isinstance(judged.work.step, Coat):
            continue
        if not _may_rain(view, begins, task.end + AHEAD):
            continue
        step, key = judged.work.step, digest(series, view.now.date(), begins, task.end, judged.work.step.surface)
        found = view.ctx.space.standing.get(f"race{task.product}" + key, partial(_race, view, step, begins, task.end))
        if found.unhurt < MATTERS_BELOW:
            at = [site.slots.moment(t) for t in found.rain_at]
            last = None if found.last_stroke is None else site.slots.moment(found.last_stroke)
            return RainRace(task, found, last, found.worth_it, at[0], at[1])
    return None


def _may_rain(view: JobView, begin: datetime, end: datetime) -> bool:
    """Whether the forecast has any rain or chance of it between."""
    series = view.weather.series
    assert series is not None
    hours = series.start + 3600 * np.arange(len(series))
    here = (hours >= begin.timestamp() - 3600) & (hours < end.timestamp())
    chance = series.rain_pct is not None and bool((np.nan_to_num(series.rain_pct)[here] >= 5).any())
    return chance or (series.rain_mm is not None and bool((np.nan_to_num(series.rain_mm)[here] >= 0.1).any()))


def _race(view: JobView, coat: Coat, begins: datetime, end: datetime) -> Race:
    climate = surface_climate(futures(view).steps, (coat.surface,))
    return race(
        climate,
        coat.product,
        begins.timestamp(),
        (end - begins).total_seconds() / 3600,
        by_film=view.bundle.policy.by_film,
    )
