"""The solver's plans: on made windows, where the best is plain, and for the demo's jobs in real weather."""

from dataclasses import replace
from datetime import datetime
from itertools import pairwise

import numpy as np
import numpy.typing as npt
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from amber_gable.core.climate.job_climate import SiteClimate, place_of, site_climate
from amber_gable.core.plan.build import plan_job, solved_plan
from amber_gable.core.plan.floor import Floor
from amber_gable.core.plan.solve import best_plan
from amber_gable.core.plan.tasks import OpenTask, Soon
from amber_gable.core.plancheck.planned import Planned
from amber_gable.core.plancheck.rules import breaches
from amber_gable.core.weather.futures.ensemble import drawn_weather
from amber_gable.core.weather.futures.members import odds
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.job.site_record import Missing
from tests.jobs import demo_job
from tests.plan_cases import HALF, SHIFT, SLOTS, clock, open_task
from tests.weather_cases import real_year


def _hands(first_day: int, second_day: int | None = None) -> npt.NDArray[np.int64]:
    """So many people on each of the two days."""
    return np.where(np.arange(SLOTS) < 48 * HALF, first_day, first_day if second_day is None else second_day)


ONE, EITHER = ((1, 120),), ((1, 240), (2, 120))
LIES = (Soon("m", 0, "it lies"),)

# tasks for two people -> {id: 'day', or 'day of clock' where that is plain}; the second day's clock has 24 h added
BEST: list[tuple[str, list[OpenTask], dict[str, str]]] = [
    (
        "two people work side by side in one short window",
        [open_task("a", 60, open_="16-20", modes=ONE), open_task("b", 60, face="g", open_="16-20", modes=ONE)],
        {"a": "08:00-10:00", "b": "08:00-10:00"},
    ),
    (
        "both go where the window is too short for one",
        [open_task("a", 120, open_="16-20", modes=EITHER)],
        {"a": "08:00-10:00"},
    ),
    (
        "a small piece is left for the day on which the crew is here anyway",
        [open_task("a", 120, open_="64-84"), open_task("b", 10, face="g", modes=((1, 20),))],
        {"a": "day 1", "b": "day 1"},
    ),
    (
        "but not where what follows would be late",
        [open_task("b", 10, modes=((1, 20),)), open_task("c", 60, "b+900")],
        {"b": "day 0", "c": "day 1"},
    ),
    (
        "what would be left lying is done when it is needed, at no day's cost",
        [
            open_task("x", 60, open_="16-30"),
            open_task("m", 10, face="g", modes=((1, 20),)),
            open_task("f", 60, "m", face="g", open_="64-80", soon=LIES),
        ],
        {"x": "day 0", "m": "day 1", "f": "day 1"},
    ),
    (
        "a coat waits where its follower would come past its longest time",
        [
            open_task("a", 120, dries=30, latest_after=300),
            open_task("b", 60, "a*", open_="64-80", dries=30),
        ],
        {"a": "day 1", "b": "day 1"},
    ),
    (
        "a film ready at night is followed in the morning",
        [open_task("a", 120, dries=600), open_task("b", 60, "a*")],
        {"a": "day 0", "b": "day 1"},
    ),
    ("what no day is known for stays out", [open_task("a", 60, not_before=None), open_task("b", 60)], {"b": "day 0"}),
    (
        "what is under way goes on",
        [open_task("a", 60, open_="64-80"), open_task("b", 60, under_way=True)],
        {"a": "day 1", "b": "08:00-09:00"},
    ),
]


@pytest.mark.parametrize(("tasks", "expected"), [b[1:] for b in BEST], ids=[b[0] for b in BEST])
def test_the_best_is_found(tasks: list[OpenTask], expected: dict[str, str]) -> None:
    found, refused = best_plan(tasks, SHIFT, 0, _hands(2))
    assert found.status == "optimal" and found.cost == found.bound
    told = {
        p.id: f"day {p.start // 1440}" if "day" in expected.get(p.id, "") else f"{clock(p.start)}-{clock(p.end)}"
        for p in found.placements
    }
    assert told == expected
    assert {r.id for r in refused} == {t.id for t in tasks} - set(expected)


def test_who_is_missing_is_not_planned_with() -> None:
    """Two hours for two, or four for one, and one of the two is missing on the first day."""
    both = open_task("a", 120, open_="16-22 64-70", modes=EITHER)
    for there, day in ((_hands(2), 0), (_hands(1, 2), 1), (_hands(0, 2), 1)):
        found, _ = best_plan([both], SHIFT, 0, there)
        assert [(p.start // 1440, p.hands) for p in found.placements] == [(day, 2)]


ROWS = st.lists(
    st.tuples(st.integers(10, 200), st.integers(0, 300), st.integers(14, 60), st.integers(8, 40), st.booleans()),
    min_size=1,
    max_size=6,
)


def _tasks(rows: list[tuple[int, int, int, int, bool]], narrower: int = 0) -> list[OpenTask]:
    out = []
    for i, (length, wait, first, width, chained) in enumerate(rows):
        after = (f"t{i - 1}+{wait}",) if chained and i else ()
        open_ = f"{first}-{max(min(first + width - narrower, SLOTS // HALF), first)}"
        modes = tuple((n, -(-length // n)) for n in (1, 2, 3))
        out.append(open_task(f"t{i}", length, *after, open_=open_, face=str(i % 3), modes=modes))
    return out


@settings(max_examples=25)
@given(ROWS, st.integers(1, 2))
def test_plans_keep_windows_order_and_hands_and_no_less_is_better(
    rows: list[tuple[int, int, int, int, bool]], people: int
) -> None:
    tasks = [replace(t, modes=t.modes[:people]) for t in _tasks(rows)]
    found, refused = best_plan(tasks, SHIFT, 0, _hands(people))
    at = {p.id: p for p in found.placements}
    assert set(at) | {r.id for r in refused} == {t.id for t in tasks} and not set(at) & {r.id for r in refused}
    for task in tasks:
        if task.id not in at:
            continue
        p = at[task.id]
        slots = slice(p.start * 60 // SLOT_S, -(-p.end * 60 // SLOT_S))
        assert task.allowed[slots].all() and len(set(SHIFT[slots].tolist()) - {-1}) == 1
        assert (p.hands, p.end - p.start) in task.modes
        assert all(at[e.id].end + e.wait_min <= p.start for e in task.after)
    for moment in {p.start for p in at.values()}:
        assert sum(p.hands for p in at.values() if p.start <= moment < p.end) <= people
    assert best_plan(tasks, SHIFT, 0, _hands(people))[0] == found, "the same problem, the same plan"
    narrower = [replace(t, modes=t.modes[:people]) for t in _tasks(rows, narrower=2)]
    assert best_plan(narrower, SHIFT, 0, _hands(people))[0].cost >= found.cost, "fewer windows never finish earlier"
    assert best_plan(_tasks(rows), SHIFT, 0, _hands(people + 1))[0].cost <= found.cost, (
        "another hand never finishes later"
    )


BEGIN = datetime.fromisoformat("2025-09-01T00:00-03:00")
# job, hands, days on site at most
JOBS = [("2-net-loft", 2, 5), ("3-quarry-lane", 2, 4), ("4-heron-deck", 2, 5), ("5-feed-barn", 2, 4)]


def _site(stem: str, people: int, days: int = 21, begin: datetime = BEGIN) -> SiteClimate:
    bundle = demo_job(stem)
    crew = bundle.job.crew.model_copy(update={"people": people})
    bundle = bundle.model_copy(update={"job": bundle.job.model_copy(update={"crew": crew})})
    return site_climate(bundle, real_year(), begin, days, begin.tzinfo)


@pytest.mark.weather
@pytest.mark.parametrize(("stem", "people", "most"), JOBS, ids=[j[0] for j in JOBS])
def test_a_small_job_is_proven_in_fewer_days_and_breaks_no_rule(stem: str, people: int, most: int) -> None:
    site = _site(stem, people)
    first, plan = plan_job(site, BEGIN), solved_plan(site, BEGIN)
    assert plan.found is not None and plan.found.status == "optimal" and plan.found.gap == 0
    assert plan.site_days <= most and plan.site_days <= first.site_days
    assert plan.finish is not None and first.finish is not None and plan.finish.date() <= first.finish.date()
    assert {t.id for t in plan.tasks} >= {t.id for t in first.tasks} and not plan.unplaced
    assert [b for b in breaches(Planned(site, plan, BEGIN)) if b.must] == []
    assert all(t.why and t.people for t in plan.tasks)
    for task in (t for t in plan.tasks if "a day on which the crew is here anyway" in t.why):
        assert any(o.id != task.id and o.start.date() == task.start.date() for o in plan.tasks), task.why


@pytest.mark.weather
def test_planned_again_in_the_same_weather_nothing_moves_and_in_another_little() -> None:
    site = _site("2-net-loft", 2)
    plan = solved_plan(site, BEGIN)
    before = {t.id: (t.start, t.people or 0) for t in plan.tasks}
    again = solved_plan(site, BEGIN, before=before)
    assert again.tasks == plan.tasks and again.found is not None and not again.found.moves
    # Nobody comes on the day of the first coats: only what hangs on them moves, and the page can say what.
    day = max({t.start.date() for t in plan.tasks}, key=lambda d: sum(t.start.date() == d for t in plan.tasks))
    missing = Missing(id="m", touch="m", at=BEGIN, noted=BEGIN, by="Ina", day=day, people=2)
    job = site.bundle.job.model_copy(update={"missing": (missing,)})
    other = replace(site, bundle=site.bundle.model_copy(update={"job": job}))
    afresh, kept = solved_plan(other, BEGIN), solved_plan(other, BEGIN, before=before)
    assert kept.found is not None and kept.site_days == afresh.site_days and kept.finish is not None
    assert afresh.finish is not None and kept.finish.date() == afresh.finish.date()

    def moved(of: Plan) -> int:
        return sum(before[t.id][0].date() != t.start.date() for t in of.tasks)

    assert moved(kept) < moved(afresh) and len(kept.found.moves) == moved(kept) > 0
    assert all(t.start.date() != day for t in kept.tasks)
    assert [b for b in breaches(Planned(other, kept, BEGIN)) if b.must] == []


@pytest.mark.weather
def test_a_surer_plan_keeps_to_the_hours_that_are_sure_and_is_never_sooner() -> None:
    site = _site("4-heron-deck", 2, days=10)
    place = place_of(site.bundle.property)
    futures = drawn_weather(place, real_year(), BEGIN, 10, 20, seed=3)
    costs = []
    for share in (0.5, 0.9):
        plan = solved_plan(site, BEGIN, floor=Floor(share, futures))
        assert plan.found is not None and plan.tasks
        costs.append(plan.found.cost)
        found = Planned(site, plan, BEGIN)
        works = {s.task.id: (s.task, found.work(s).step) for s in found.steps}
        told = odds(futures, [step for _, step in works.values()], site.bundle.policy, site.bundle.job.crew)
        for (task, _), sure in zip(works.values(), told, strict=True):
            first, end = found.slots(task)
            assert sure.share[first:end].min() >= share, task.operation
    assert costs[0] <= costs[1]


@pytest.mark.weather
def test_each_plan_that_is_told_is_better_than_the_one_before() -> None:
    told = []
    plan = solved_plan(_site("4-heron-deck", 2), BEGIN, better=told.append)
    costs = [p.found.cost for p in told if p.found is not None]
    assert len(costs) > 1 and all(b < a for a, b in pairwise(costs))
    assert plan.found is not None and costs[-1] == plan.found.cost


def test_nothing_left_is_no_work() -> None:
    site = _site("5-feed-barn", 2, days=3)
    bare = site.bundle.model_copy(update={"job": site.bundle.job.model_copy(update={"finishes": ()})})
    plan = solved_plan(replace(site, bundle=bare), BEGIN)
    assert not plan.tasks and plan.found is not None and plan.found.status == "optimal"
