"""Tasks placed in time."""

import hashlib
from datetime import datetime
from typing import Literal

from amber_gable.domain.base import Id, Record
from amber_gable.domain.job.site_record import Extent
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import OperationKind, Technique


def task_id(extent: Extent, step: str) -> str:
    """The identity of a task: part, first step and extent. Planned again, the same work has the same id, and other work
    never has it; what hangs on a task (forms, notes, calendar entries) names it by this.

    `zone.front/coat-1` on the whole part, `zone.front/coat-1/250000-1000000` on a stretch, in millionths of the width
    from the left; of several parts the first, how many more, and a digest of their names.
    """
    kind, id_ = extent.parts[0]
    name = f"{kind}.{id_}"
    if len(extent.parts) > 1:
        all_of_them = " ".join(sorted(f"{k}.{i}" for k, i in extent.parts))
        name += f"~{len(extent.parts) - 1}.{hashlib.sha256(all_of_them.encode()).hexdigest()[:8]}"
    left, right = round(extent.left * 1e6), round(extent.right * 1e6)
    return f"{name}/{step}" + ("" if (left, right) == (0, 1_000_000) else f"/{left}-{right}")


class Task(Record):
    """One operation (or preparations done in one go) on one section of a zone, or on like items of a face (`item`, and
    `zone` is then the first item's id), placed. `id` is as `task_id` makes it; plans of older versions have others.
    `steps` and `extent` say what the record of the site must hold for it to be done; plans of older versions lack them.
    `crew_hours` is its time with the whole crew at it; `people` of them are, so that it takes from `start` to `end`;
    plans of older versions lack that. `why` and `blocked_by` are sentences for the crew."""

    id: str
    face: str
    face_name: str
    zone: str
    zone_name: str
    item: bool = False
    section: str
    operation: str
    kind: OperationKind
    techniques: tuple[Technique, ...] = ()
    steps: tuple[Id, ...] = ()
    extent: Extent | None = None
    product: str | None = None
    colour: str | None = None
    method: Method | None = None
    area_m2: float
    litres: float | None = None
    crew_hours: float
    people: int | None = None
    start: datetime
    end: datetime
    touch_at: datetime | None = None
    rain_ready_at: datetime | None = None
    ready_at: datetime | None
    why: str
    blocked_by: tuple[str, ...] = ()

    @property
    def hours(self) -> float:
        """That it takes, with those who are at it."""
        return (self.end - self.start).total_seconds() / 3600

    @property
    def part(self) -> tuple[str, str]:
        """Kind and id of the zone or (first) item it is done on."""
        return ("item" if self.item else "zone", self.zone)


class Unplaced(Record):
    """A task that found no place, and what would free it. `cause` is the same for all that wait for one and the same
    thing; `behind` says that it waits only for another of them."""

    id: str
    face_name: str
    zone_name: str
    section: str
    operation: str
    why: str
    cause: str = ""
    behind: bool = False


class Found(Record):
    """How good a plan is known to be. `cost` weighs its days, what is left lying and what was moved
    (`core/plan/model.py`); no plan of the same tasks in the same weather is under `bound`. `status`: `optimal` where
    the two are one. `moves`: what stands on another day than in the plan before, in words."""

    status: Literal["optimal", "feasible", "none"]
    cost: int
    bound: int
    moves: tuple[str, ...] = ()

    @property
    def gap(self) -> float:
        """By what share of its cost it may be from the best; all of it where nothing was found out."""
        if self.status == "none":
            return 1.0
        return (self.cost - self.bound) / self.cost if self.cost else 0.0


class Plan(Record):
    """`found` is there where a solver looked for it; else its tasks stand earliest first."""

    tasks: tuple[Task, ...] = ()
    unplaced: tuple[Unplaced, ...] = ()
    finish: datetime | None = None
    found: Found | None = None

    @property
    def site_days(self) -> int:
        """Days on which anything is done."""
        return len({t.start.date() for t in self.tasks})
