"""A plan spread out for its check: each step of each part with its stretch, its time and its weather."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import cached_property
from math import ceil, isfinite

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.state.judgement import JudgedWork, work_of
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.core.work.steps import steps_of
from amber_gable.core.work.stints import Stint
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.house.survey import Item, Zone
from amber_gable.domain.job.plan import Plan, Task
from amber_gable.domain.work.operation import Operation, OperationKind, Technique

Key = tuple[str, str]
_LEAST = 1e-6
DUSTY = (OperationKind.STRIP, OperationKind.SCRAPE, OperationKind.SAND, OperationKind.DUST, OperationKind.REPAIR)
"""What leaves chips or dust on whatever is beside it."""


@dataclass(frozen=True)
class Breach:
    """A rule that a plan breaks. `must` is false for what costs quality and may be forced by the weather."""

    rule: str
    words: str
    must: bool = True


@dataclass(frozen=True)
class PlannedStep:
    """One operation on one part in one task; `number` is its place among the part's steps."""

    task: Task
    key: Key
    part: Zone | Item
    number: int
    operation: Operation

    @property
    def left(self) -> float:
        return self.task.extent.left if self.task.extent is not None else 0.0

    @property
    def right(self) -> float:
        return self.task.extent.right if self.task.extent is not None else 1.0

    @property
    def on_wall(self) -> bool:
        return self.operation.where is None

    @property
    def dirty(self) -> bool:
        return self.operation.kind.wets or self.operation.kind in DUSTY

    def meets(self, other: "PlannedStep") -> bool:
        return self.key == other.key and self.left < other.right - _LEAST and other.left < self.right - _LEAST

    @property
    def words(self) -> str:
        return f"“{self.operation.name}” on {self.task.face_name}, {self.part.name} ({self.task.start:%a %d %b %H:%M})"


@dataclass(frozen=True)
class Planned:
    """`begin`: nothing may stand before it."""

    site: SiteClimate
    plan: Plan
    begin: datetime

    @cached_property
    def orders(self) -> Mapping[Key, tuple[Operation, ...]]:
        """The steps of every part that has a finish."""
        bundle = self.site.bundle
        return {f.part: tuple(steps_of(bundle, f)) for f in bundle.job.finishes}

    @cached_property
    def steps(self) -> tuple[PlannedStep, ...]:
        return tuple(self._steps())

    def _steps(self) -> Iterator[PlannedStep]:
        for task in self.plan.tasks:
            for key in task.extent.parts if task.extent is not None else ():
                part = self.site.bundle.property.part(key)
                for number, operation in enumerate(self.orders.get(key, ())):
                    if operation.id in task.steps and isinstance(part, Zone | Item):
                        yield PlannedStep(task, key, part, number, operation)

    @cached_property
    def of_part(self) -> Mapping[Key, list[PlannedStep]]:
        out: dict[Key, list[PlannedStep]] = {}
        for step in self.steps:
            out.setdefault(step.key, []).append(step)
        return out

    @cached_property
    def of_face(self) -> Mapping[str, list[PlannedStep]]:
        out: dict[str, list[PlannedStep]] = {}
        for step in self.steps:
            out.setdefault(step.task.face, []).append(step)
        return out

    def work(self, step: PlannedStep) -> JudgedWork:
        """The whole task in the weather of the part."""
        finish = self.site.bundle.finish_of(*step.key)
        assert finish is not None, "only what has a finish is planned"
        mine = tuple(o for o in self.orders[step.key] if o.id in step.task.steps)
        return work_of(self.site, step.part, finish, Stint(mine))

    def slots(self, task: Task) -> tuple[int, int]:
        """The slots [first, end) that a task touches."""
        start = self.site.slots.start
        return int((task.start.timestamp() - start) // SLOT_S), ceil((task.end.timestamp() - start) / SLOT_S)

    def reached(self, step: PlannedStep, stage: DryingStage) -> datetime | None:
        """When the film of a step reaches a stage; None where the weather ends first, its end where it lays none."""
        windows = self.work(step).windows
        at = {
            DryingStage.TOUCH: windows.touch_at,
            DryingStage.RAIN_READY: windows.rain_ready_at,
            DryingStage.RECOAT: windows.recoat_at,
        }[stage]
        if at is None:
            return step.task.end
        last = min(max(self.slots(step.task)[1] - 1, 0), at.shape[1] - 1)
        found = float(at[0, last])
        return datetime.fromtimestamp(found, step.task.end.tzinfo) if isfinite(found) else None


def days_between(first: date, then: date) -> int:
    return (then - first) // timedelta(days=1)


def has(step: PlannedStep, *techniques: Technique) -> bool:
    return step.operation.technique in techniques
