"""Tasks of two made days, the crew's shift from 08:00 to 18:00, for the tests of what places them."""

from dataclasses import replace
from typing import Any

import numpy as np

from amber_gable.core.plan.tasks import After, OpenTask
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.domain.grid import SLOT_S

HALF = 1800 // SLOT_S
"""Slots in a half hour, in which the cases below are written."""
SLOTS = 96 * HALF
CLOCK = np.arange(SLOTS) / HALF
NIGHT = (CLOCK % 48 < 16) | (CLOCK % 48 >= 36)
SHIFT = np.where(NIGHT, -1, (CLOCK // 48).astype(int))
STAGE = DryingStage.RECOAT


def open_task(
    id_: str, minutes: int, *after: str, face: str = "f", open_: str = "", dries: int = 0, **more: Any
) -> OpenTask:
    """`open_` as 'first-end' pairs of half hours; all day without. `after` as 'a' or 'a+90': so many minutes later;
    with `dries` it is a film that takes so many minutes until what names it with 'a*' may follow."""
    allowed = np.ones(SLOTS, dtype=bool)
    if open_:
        allowed[:] = False
        for pair in open_.split():
            a, b = pair.split("-")
            allowed[HALF * int(a) : HALF * int(b)] = True
    edges = []
    for named in after:
        name, _, wait = named.rstrip("*").partition("+")
        edges.append(After(name, int(wait or 0), STAGE if named.endswith("*") else None))
    stages = {STAGE: SLOT_S * (np.arange(SLOTS) + 1.0) + 60.0 * dries} if dries else {}
    letters = np.where(allowed, "", "D")
    return OpenTask(id_, face, minutes, tuple(edges), allowed, letters, stages=stages, **more)


def sanded(task: OpenTask) -> OpenTask:
    """The same where what it is laid on is dulled before."""
    return replace(task, after=tuple(replace(e, sanded=e.stage is not None) for e in task.after))


def clock(minute: int) -> str:
    return f"{minute // 60:02d}:{minute % 60:02d}"
