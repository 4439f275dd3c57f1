"""Published schedules with known optima: the problem without weather, for the plan's solver (docs/physics.md §12)."""

from dataclasses import dataclass
from math import ceil

from ortools.sat.python import cp_model

from amber_gable.core.plan.solve import configured, status_name
from amber_gable.domain.project import Project


@dataclass(frozen=True)
class Makespan:
    """`makespan` is None where no schedule was found; none is shorter than `bound`."""

    makespan: int | None
    bound: int
    status: str


def solve_project(project: Project, seconds: float = 15.0, seed: int = 1) -> Makespan:
    """The shortest schedule of the project that is found in that time."""
    m, activities = cp_model.CpModel(), project.activities
    horizon = sum(a.duration for a in activities)
    starts = [m.new_int_var(0, horizon, f"a{n}") for n in range(len(activities))]
    spans = [m.new_fixed_size_interval_var(s, a.duration, "") for s, a in zip(starts, activities, strict=True)]
    last = m.new_int_var(0, horizon, "makespan")
    for start, activity in zip(starts, activities, strict=True):
        m.add(last >= start + activity.duration)
        for follower in activity.followers:
            m.add(starts[follower] >= start + activity.duration)
    for n, capacity in enumerate(project.capacities):
        m.add_cumulative(spans, [a.demands[n] for a in activities], capacity)
    m.minimize(last)
    solver = configured(seconds, seed)
    status = status_name(solver.solve(m))
    bound = ceil(solver.best_objective_bound - 1e-6)
    return Makespan(None if status == "none" else round(solver.objective_value), bound, status)
