"""Six jobs of a small firm's week, from what was found to the plan: the order of the steps, hours against the
handbook's arithmetic, litres, waits between days, and days of estimate and plan."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import datetime

import pytest

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.work.record import job_work
from amber_gable.domain.job.job import JobBundle
from tests.small_jobs import cold_front, five_shutters, garage_door, one_sash, stoop, two_sashes
from tests.weather_cases import real_year


@dataclass(frozen=True)
class SmallJob:
    """`steps` of its first part in their order, without protection; `hours` of some of them by the handbook's rates,
    person-hours; `litres` of all films together, at the least and most; `overnight`: pairs of steps between which a
    night lies."""

    make: Callable[[], JobBundle]
    begin: str
    steps: str
    hours: dict[str, float]
    litres: tuple[float, float]
    overnight: list[tuple[str, str]] = field(default_factory=list)
    weather_days: int = 3


JOBS = {
    # A single door in an hour and a half of clearing, washing and masking, a quarter of an hour a coat.
    "a steel garage door": SmallJob(
        garage_door, "2025-06-02", "take-down wash dull dust mask coat-1 coat-2 unmask refit",
        {"coat-1": 0.15, "coat-2": 0.15}, (1.2, 3.0),
    ),
    # Out and back in 0.6 h each way; sanded lightly between all films; a coat of a window of two to four panes takes
    # 0.9 h; ten days for the putty.
    "two old sashes apart": SmallJob(
        lambda: two_sashes("under-cover"), "2025-06-02",
        "take-out wash scrape putty-out edge dull feather dust prime-spots prime-rebates putty undercoat denib-coat-1 "
        "coat-1 denib-coat-2 coat-2 hang",
        {"take-out": 0.6, "hang": 0.6, "coat-1": 0.9, "coat-2": 0.9}, (0.8, 2.0),
        [("wash", "prime-spots"), ("putty", "undercoat")],
    ),
    # Cut free where it hangs, moved after every film, and never shut on a fresh one.
    "a sash in place": SmallJob(
        one_sash, "2025-06-02",
        "wash free dust undercoat move-undercoat coat-1 move-coat-1 coat-2 refit",
        {"undercoat": 0.9, "coat-1": 0.9, "coat-2": 0.9}, (0.4, 0.9), [("wash", "undercoat")],
    ),
    # Two leaves of a pair sprayed at 0.15 h each or brushed at 0.4 h each; carried 0.1 h each way.
    "five shutters": SmallJob(
        lambda: five_shutters("stands"), "2025-06-02", "take-down take-out wash coat-1 coat-2 hang refit",
        {"take-out": 0.1, "hang": 0.1, "coat-1": 0.8, "coat-2": 0.8}, (2.5, 6.0), [("wash", "coat-1")],
    ),
    # Two stubs at 0.15 h; 4.7 m² rolled at 20 m² an hour; washed the day before.
    "a stoop with stubs and sealer": SmallJob(
        stoop, "2025-06-02",
        "wash scrape stubs prime-stubs dull dust mask prime-spots coat-1 coat-2 seal unmask",
        {"stubs": 0.3, "coat-1": 0.24, "seal": 0.24}, (1.3, 2.5), [("wash", "coat-1")],
    ),
    # 22.7 m² of boards by brush at 11 m² an hour; two days for the wash to dry.
    "a front in the cold": SmallJob(
        cold_front, "2025-10-27", "wash scrape feather dust prime-spots coat-1 coat-2", {"coat-1": 2.06, "wash": 0.76},
        (4.5, 6.5), [("wash", "prime-spots")],
    ),
}  # fmt: skip
ASIDE = {"contain", "cover", "daily-clean", "final-check", "lay-again"}


@pytest.fixture(params=JOBS.values(), ids=JOBS)
def small(request: pytest.FixtureRequest) -> SmallJob:
    job: SmallJob = request.param
    return job


def test_steps_hours_and_litres_are_those_of_the_trade(small: SmallJob) -> None:
    work = job_work(small.make())
    first = next(iter(work.values()))
    lines = {line.operation.id: line for line in first.lines}
    assert " ".join(id_ for id_ in lines if id_ not in ASIDE) == small.steps
    for step, hours in small.hours.items():
        assert lines[step].hours == pytest.approx(hours, rel=0.12), step
    litres = sum(line.litres for w in work.values() for line in w.lines)
    assert small.litres[0] <= litres <= small.litres[1], litres


def test_nights_lie_where_something_dries_and_the_days_agree(small: SmallJob) -> None:
    bundle = small.make()
    begin = datetime.fromisoformat(f"{small.begin}T00:00-03:00")
    plan = plan_job(site_climate(bundle, real_year(), begin, 40), begin)
    assert not plan.unplaced
    part = next(iter(job_work(bundle)))
    at = {s: t for t in plan.tasks if t.extent is not None and part in t.extent.parts for s in t.steps}
    for before, after in small.overnight:
        assert at[before].end.date() < at[after].start.date(), (before, after)
    estimate = job_estimate(bundle)
    days = len({t.start.date() for t in plan.tasks})
    assert estimate.hours.days.days <= days <= estimate.hours.days.days + small.weather_days, "weather takes some more"
    ours = sum(line.hours for line in estimate.hours.lines if line.part is not None)
    assert sum(t.crew_hours for t in plan.tasks) * bundle.job.crew.people == pytest.approx(ours, rel=0.02)
