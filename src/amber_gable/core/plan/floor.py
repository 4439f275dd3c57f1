"""A plan that is sure enough: only slots in which a step holds in so many of the futures, and waits as long as nine in
ten of them ask for (docs/physics.md §10, §12)."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from amber_gable.core.plan.tasks import OpenTask
from amber_gable.core.plan.work import WorkItem
from amber_gable.core.weather.futures.members import Odds, odds
from amber_gable.core.weather.wall.slot_climate import PlaceWeather
from amber_gable.domain.job.job import JobBundle

_LONG = 2
"""Of the quantiles that are kept of a film's stages: later than that in one of ten futures only."""


@dataclass(frozen=True)
class Floor:
    """`share`, 0 to 1, of the futures in `weather` in which a step must hold; its slots are those of the site."""

    share: float
    weather: PlaceWeather


def sure_enough(
    tasks: Sequence[OpenTask], items: Mapping[str, WorkItem], bundle: JobBundle, floor: Floor
) -> list[OpenTask]:
    """The tasks with what is not sure enough closed, by the letter of the rule that stops most futures there."""
    steps = list(dict.fromkeys(items[t.id].work.step for t in tasks if t.minutes))
    found = dict(zip(steps, odds(floor.weather, steps, bundle.policy, bundle.job.crew), strict=True))
    return [_under(t, found[items[t.id].work.step], floor.share) if t.minutes else t for t in tasks]


def _under(task: OpenTask, told: Odds, share: float) -> OpenTask:
    sure = told.share >= share - 1e-9
    letters = task.letters.copy()
    for slot in np.flatnonzero(task.allowed & ~sure):
        letters[slot] = told.stopping_letter(int(slot)) or "?"
    late = {stage: at[_LONG] for stage in task.stages if (at := told.stage_at(stage)) is not None}
    stages = {stage: np.maximum(at, late[stage]) if stage in late else at for stage, at in task.stages.items()}
    return replace(task, allowed=task.allowed & sure, letters=letters, stages=stages)
