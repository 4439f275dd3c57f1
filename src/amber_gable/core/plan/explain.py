"""Sentences that say why a task stands where it does and what kept it from standing earlier."""

from datetime import timedelta

import numpy as np
import numpy.typing as npt

from amber_gable.core.plan.tasks import SLOT_MIN, VISIT_MIN, OpenTask, Placement, Refusal
from amber_gable.core.weather.judged.rules import helps_against
from amber_gable.core.weather.judged.slots import Slots
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.wording import timed


def _helps(letter: str) -> str:
    return helps_against(letter) or "what it waits for"


def blocked_stretches(slots: Slots, letters: npt.NDArray[np.str_], first: int, end: int) -> list[str]:
    """What stopped the slots [first, end), nights left out: 'D dew or wet surface, Tue 15 Sep 07:30-09:30'."""
    out, i = [], first
    while i < end:
        letter, j = letters[i], i
        while j < end and letters[j] == letter:
            j += 1
        if letter not in ("", "N"):
            finish = slots.time(j)
            upto = f"{finish:%H:%M}" if finish.date() == slots.time(i).date() else timed(finish)
            out.append(f"{letter} {LETTERS[str(letter)]}, {timed(slots.time(i))}-{upto}")
        i = j
    return out


Titles = dict[str, str]
"""Short names for people by task."""


def why(task: OpenTask, placement: Placement, slots: Slots, titles: Titles) -> tuple[str, tuple[str, ...]]:
    """Why then, and what blocked earlier."""
    first, begins = placement.earliest // SLOT_MIN, placement.start // SLOT_MIN
    blocked = blocked_stretches(slots, task.letters, first, begins)
    ready = timed(slots.time(0) + timedelta(minutes=placement.earliest))
    if task.under_way:
        text = "It is under way and goes on"
    elif placement.behind is not None:
        text = f"Earliest window after “{titles[placement.behind]}”, from {ready}"
    elif task.not_before:
        text = f"Earliest window once the part is ready, {ready}"
    else:
        text = "First step on this section: earliest window for the crew"
    if placement.could is not None:
        moment = timed(slots.time(0) + timedelta(minutes=placement.could))
        return f"{text}. Left from {moment} for a day on which the crew is here anyway.", tuple(blocked)
    if placement.busy_with is not None:
        blocked.insert(0, f"crew busy with “{titles[placement.busy_with]}”")
    if placement.start - placement.earliest < VISIT_MIN:
        return text + ": begins at once.", tuple(blocked)
    if not blocked:
        waited = task.letters[first:begins]
        outside = bool(((waited == "N") | (waited == "")).all()) and not task.allowed[min(first, len(task.allowed) - 1)]
        blocked.append("outside the crew's day" if outside else "no stretch long enough inside one shift before this")
    return text + ".", tuple(blocked)


def why_not(refusal: Refusal, titles: Titles) -> str:
    """Why a task found no place and what would free it."""
    match refusal.cause:
        case "after":
            return f"Waits for “{titles[refusal.root]}”, which found no place."
        case "held":
            return f"Not ready: {refusal.detail}. No day is known on which that ends."
        case "ready":
            return "What lies below is not ready within the days looked at; look further ahead."
        case "late":
            return "When it is ready, only nights and days off are left of the days looked at; look further ahead."
        case "recoat":
            return "Its window comes after the longest recoat time of the coat below; plan a light sand between them."
        case "crew":
            return "The crew has no time left in its windows; a second crew or more days would free it."
        case "short":
            name = LETTERS[refusal.detail]
            return (
                f"No window is long enough for it ({name} cuts them). What would help: {_helps(refusal.detail)}, "
                "or smaller sections and more people."
            )
    return f"No window at all: {LETTERS[refusal.detail]}. What would help: {_helps(refusal.detail)}."
