"""Planned work that what is known now would stop: named once, held steady against the noise of forecasts."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.state.job_state import Board, Status, TaskState
from amber_gable.core.state.judgement import Judged, Verdict
from amber_gable.core.weather.rules import LETTERS, RULES, helps_against
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.plan import Task

NOISE = {"°C": 1.0, "K": 1.0, "%": 8.0, "mm/h": 0.2, "m/s": 1.0, "W/m²": 80.0, "g/m²": 10.0, "h": 0.5}
"""How far a forecast of a day ahead strays from one hour's issue to the next, in the unit of each rule."""
NOISE_AT_H = 24.0
_STEADY = ("daylight", "working-day", "substrate")
"""Rules that no forecast moves."""

Warned = tuple[str, str]
"""Task and rule."""


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
    """How much of a margin is only noise, that many hours ahead; nothing for the hour that is here."""
    if rule in _STEADY:
        return 0.0
    return NOISE.get(RULES[rule].unit, 0.0) * min(max(lead_h, 0.0) / NOISE_AT_H, 1.0)


def threats(board: Board, now: datetime, warned: Collection[Warned] = ()) -> tuple[Threat, ...]:
    """The threatened tasks, each with what stops it first. A rule begins to warn when it fails by more than the noise,
    and goes on until it holds by more than the noise; `warned` says which did. What a part waits for has no noise."""
    out = []
    for state in board.tasks:
        if state.status not in (Status.AHEAD, Status.DUE, Status.RUNNING) or state.judged is None:
            continue
        found = _by_state(state) or _by_weather(state, state.judged, now, warned)
        if found is not None:
            out.append(found)
    return tuple(out)


def _by_state(state: TaskState) -> Threat | None:
    """What the part waits for beyond the task's beginning."""
    answer = state.answer
    if answer is None or answer.verdict not in (Verdict.STOPPED, Verdict.WAITS):
        return None
    wait = answer.waits[0]
    until = f", until {wait.until:%a %H:%M}" if wait.until else ""
    return Threat(
        state.task, f"state-{wait.letter}", wait.letter, answer.at, f"not ready: {wait.words}{until}", wait.lifts
    )


def _by_weather(state: TaskState, judged: Judged, now: datetime, warned: Collection[Warned]) -> Threat | None:
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
    if judged.damp[first:end].any():
        found.append((int(np.argmax(judged.damp[first:end])), "substrate"))
    if not found:
        return None
    slot, rule = min(found)
    letter = RULES[rule].letter
    when = max(slots.time(first + slot), begin)
    return Threat(task, rule, letter, when, LETTERS[letter], helps_against(letter))


def warned_by(found: Collection[Threat]) -> tuple[Warned, ...]:
    """What is to be remembered for the next time."""
    return tuple(sorted((t.task.id, t.rule) for t in found))
