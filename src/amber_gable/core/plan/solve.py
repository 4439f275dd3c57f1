"""The plan solved: the best that CP-SAT finds of the model in a time, with a bound that proves how far from the best it
may be."""

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from math import ceil
from types import MappingProxyType
from typing import Literal

import numpy as np
import numpy.typing as npt
from ortools.sat.python import cp_model

from amber_gable.core.plan.model import Model
from amber_gable.core.plan.serial import place_hands
from amber_gable.core.plan.tasks import OpenTask, Placement, Refusal


@dataclass(frozen=True)
class Progressed:
    """The best so far: its days, and the bound that no plan of these tasks can be under."""

    cost: int
    bound: int
    placements: tuple[Placement, ...]


@dataclass(frozen=True)
class Solved:
    """`status`: 'optimal', 'feasible' or 'none'. `cost` is the sum of what is weighed, the finishing day counted from
    the first day of the slots; no plan of these tasks can be under `bound`."""

    status: Literal["optimal", "feasible", "none"]
    placements: tuple[Placement, ...]
    cost: int
    bound: int


class _Watch(cp_model.CpSolverSolutionCallback):
    def __init__(self, model: Model, told: Callable[[Progressed], None]) -> None:
        super().__init__()
        self._model, self._told = model, told

    def on_solution_callback(self) -> None:
        cost, bound = round(self.objective_value), round(self.best_objective_bound)
        self._told(Progressed(cost, bound, self._model.placements(self.value)))


def solve(
    tasks: Sequence[OpenTask],
    shift: npt.NDArray[np.int64],
    start: int,
    there: npt.NDArray[np.int64],
    begin: int = 0,
    *,
    first: Sequence[Placement] = (),
    optional: Collection[str] = (),
    stand: Mapping[str, tuple[int, int]] = MappingProxyType({}),
    seconds: float = 15.0,
    workers: int = 1,
    seed: int = 1,
    told: Callable[[Progressed], None] | None = None,
) -> Solved:
    """Place tasks, beginning with the solution `first`; all but the `optional` can be placed. `stand`: the minute at
    which a task began in the plan before and its hands, which it keeps where that costs no day. Other arguments as
    `serial.place_hands`. With one worker the same seed gives the same plan, and `seconds` are counted in the solver's
    own steps."""
    model = Model(tasks, shift, start, there, begin, optional, stand)
    model.hint(first)
    solver = configured(seconds, seed, workers)
    status = status_name(solver.solve(model.model, _Watch(model, told) if told is not None else None))
    if status == "none":
        return Solved("none", tuple(first), 0, 0)
    return Solved(
        status,
        model.placements(solver.value),
        round(solver.objective_value),
        ceil(solver.best_objective_bound - 1e-6),
    )


def best_plan(
    tasks: Sequence[OpenTask],
    shift: npt.NDArray[np.int64],
    start: int,
    there: npt.NDArray[np.int64],
    begin: int = 0,
    *,
    stand: Mapping[str, tuple[int, int]] = MappingProxyType({}),
    seconds: float = 15.0,
    workers: int = 1,
    seed: int = 1,
    told: Callable[[Progressed], None] | None = None,
) -> tuple[Solved, list[Refusal]]:
    """The best that is found, beginning with the earliest-first plan of the same people; and what finds no place, with
    why earliest-first found none. Arguments as `solve`."""
    first, refused = place_hands(tasks, shift, start, there, begin)
    held_up = {r.id for r in refused}
    while more := {t.id for t in tasks if t.id not in held_up and any(e.id in held_up for e in t.after)}:
        held_up |= more
    found = solve(
        tasks, shift, start, there, begin, first=first, optional=held_up, stand=stand, seconds=seconds,
        workers=workers, seed=seed, told=told,
    )  # fmt: skip
    placed = {p.id for p in found.placements}
    return found, [r for r in refused if r.id not in placed]


def configured(seconds: float, seed: int, workers: int = 1) -> cp_model.CpSolver:
    """A solver; with one worker it is stopped by its own steps, of about a second each, so that it ends with
    the same solution on every machine."""
    solver = cp_model.CpSolver()
    p = solver.parameters
    p.random_seed, p.num_workers = seed, workers
    if workers == 1:
        p.max_deterministic_time, p.max_time_in_seconds = seconds, 3 * seconds
    else:
        p.max_time_in_seconds = seconds
    return solver


def status_name(status: object) -> Literal["optimal", "feasible", "none"]:
    return "optimal" if status == cp_model.OPTIMAL else "feasible" if status == cp_model.FEASIBLE else "none"
