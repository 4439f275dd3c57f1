"""Planned tasks that the present forecast, or the state of their part, would stop. A margin that is smaller than the
usual change from one forecast to the next neither starts a warning nor ends one."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.state.job_state import Board, TaskState
from amber_gable.core.state.judgement import Judged, Verdict
from amber_gable.core.state.task_status import Status
from amber_gable.core.weather.judged.rules import RULES, helps_against
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.job.plan import Task
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.wording import timed_at

NOISE = {"°C": 1.0, "K": 1.0, "%": 8.0, "mm/h": 0.2, "m/s": 1.0, "W/m²": 80.0, "g/m²": 10.0, "h": 0.5}
"""By how much a forecast for tomorrow usually changes from one hourly issue to the next, in the unit of each rule."""
MOISTURE_NOISE = 1.5
"""The same for the predicted moisture of a substrate (%), which changes with the amount of rain forecast."""
NOISE_AT_H = 24.0
AHEAD_H = 72.0
"""Tasks that begin later get no warning, because forecasts for them change with every issue; they are only counted."""
_STEADY = ("daylight", "working-day")
"""Rules that do not depend on the forecast."""

Warned = tuple[str, str]
"""Id of a task, and id of the rule that it was warned of."""


@dataclass(frozen=True)
class Threat:
    """A task that cannot be done as planned: what stops it and from when, in words, and what to do."""

    task: Task
    rule: str
    letter: str
    at: datetime
    words: str
    todo: str


def noise(rule: str, lead_h: float) -> float:
    """By how much a rule's margin may change between forecasts `lead_h` hours ahead, in the rule's unit; 0 for now."""
    if rule in _STEADY:
        return 0.0
    return (MOISTURE_NOISE if rule == "substrate" else NOISE.get(RULES[rule].unit, 0.0)) * _grown(lead_h)


def _grown(lead_h: float) -> float:
    """Factor of the noise by lead time: 0 now, 1 after a day, then more slowly, 2.3 after ten days."""
    return min(max(lead_h, 0.0) / NOISE_AT_H, 1.0) + max(lead_h - NOISE_AT_H, 0.0) / 168.0


def near(task: Task, now: datetime) -> bool:
    """Whether the task begins soon enough to be warned of."""
    return (task.start - now).total_seconds() <= AHEAD_H * 3600


def unsettled(board: Board, now: datetime) -> int:
    """The number of tasks beyond that time which the present forecast would stop. Planning again would move them."""
    return sum(t.status is Status.AHEAD and not near(t.task, now) and t.shut is not None for t in board.tasks)


def threats(site: SiteClimate, board: Board, now: datetime, warned: Collection[Warned] = ()) -> tuple[Threat, ...]:
    """The threatened tasks, each with what stops it first. A rule starts to warn when its margin is below minus the
    noise, and stops when its margin is above the noise; `warned` names the rules that warned when this was last
    computed. A wait of the part (drying, a stop) has no noise."""
    out = []
    for state in board.tasks:
        close = near(state.task, now)
        if state.status not in (Status.AHEAD, Status.DUE, Status.RUNNING) or (state.ready and not close):
            continue
        found = _by_state(site, state)
        if found is None and close and state.judged is not None:
            found = _by_weather(site, state, state.judged, now, warned)
        if found is not None:
            out.append(found)
    return tuple(out)


def _by_state(site: SiteClimate, state: TaskState) -> Threat | None:
    """A stop or a wait of the part that lasts longer than until the task begins."""
    answer = state.answer
    if answer is None or answer.verdict not in (Verdict.STOPPED, Verdict.WAITS):
        return None
    wait = answer.waits[0]
    until = f", until {timed_at(wait.until, site.slots.tz)}" if wait.until else ""
    return Threat(
        state.task, f"state-{wait.letter}", wait.letter, answer.at, f"not ready: {wait.words}{until}", wait.lifts
    )


def _by_weather(
    site: SiteClimate, state: TaskState, judged: Judged, now: datetime, warned: Collection[Warned]
) -> Threat | None:
    slots, task = judged.slots, state.task
    begin = max(task.start, now)
    first = int((begin.timestamp() - slots.start) // SLOT_S)
    end = int(-((slots.start - task.end.timestamp()) // SLOT_S))
    if first < 0 or end > len(slots) or end <= first:
        return None
    at = slots.start + SLOT_S * np.arange(first, end)
    lead = np.maximum(at - now.timestamp(), 0.0) / 3600
    found: list[tuple[int, str]] = []
    for check in judged.work.windows.checks:
        rule = check.rule.id
        room = check.headroom[0, first:end]
        slack = np.array([noise(rule, h) for h in lead])
        shut = room < (slack if (task.id, rule) in warned else -slack)
        if shut.any():
            found.append((int(np.argmax(shut)), rule))
    if not found:
        return None
    slot, rule = min(found, key=lambda f: (f[0], list(LETTERS).index(RULES[f[1]].letter), f[1]))
    letter = RULES[rule].letter
    when = max(slots.time(first + slot), begin)
    return Threat(task, rule, letter, when, LETTERS[letter], helps_against(letter))


def warned_by(found: Collection[Threat]) -> tuple[Warned, ...]:
    """The rules by which each task is threatened now, to be passed to the next call of `threats` as `warned`."""
    return tuple(sorted((t.task.id, t.rule) for t in found))
