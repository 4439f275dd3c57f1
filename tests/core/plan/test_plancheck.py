"""The rules that a plan is held against: each finds the fault that is planted for it, and none finds anything in the
plans of many weeks that must not be."""

from collections.abc import Callable
from dataclasses import replace
from datetime import datetime, timedelta

import pytest

from amber_gable.core.climate.job_climate import SiteClimate, site_climate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.plancheck.planned import Planned
from amber_gable.core.plancheck.rules import breaches
from amber_gable.domain.findings.condition import MoistureReading
from amber_gable.domain.job.plan import Plan, Task
from tests.jobs import demo_job
from tests.weather_cases import real_year

pytestmark = pytest.mark.weather
BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")
DAY = timedelta(days=1)
Site = tuple[SiteClimate, Plan]


def _planned(stem: str, begin: datetime = BEGIN, days: int = 21) -> Site:
    site = site_climate(demo_job(stem), real_year(), begin, days, begin.tzinfo)
    return site, plan_job(site, begin)


@pytest.fixture(scope="module")
def jobs() -> dict[str, Site]:
    return {stem: _planned(stem) for stem in ("1-coopers-rise", "3-quarry-lane")}


def _task(plan: Plan, part: str, step: str) -> Task:
    return next(t for t in plan.tasks if t.part[1] == part and step in t.steps)


def _put(plan: Plan, task: Task, start: datetime, people: int | None = None) -> Plan:
    moved = task.model_copy(
        update={"start": start, "end": start + (task.end - task.start), "people": people or task.people}
    )
    return plan.model_copy(update={"tasks": tuple(moved if t.id == task.id else t for t in plan.tasks)})


def _before(plan: Plan, task: Task, other: Task) -> Plan:
    """The task put so that it ends as the other begins."""
    return _put(plan, task, other.start - (task.end - task.start))


def _after(plan: Plan, task: Task, other: Task, minutes: int = 5) -> Plan:
    return _put(plan, task, other.end + timedelta(minutes=minutes))


def _at(plan: Plan, part: str, step: str, clock: str) -> Plan:
    task = _task(plan, part, step)
    hour, minute = (int(x) for x in clock.split(":"))
    return _put(plan, task, task.start.replace(hour=hour, minute=minute))


def _crew(plan: Plan, people: int) -> Plan:
    return plan.model_copy(update={"tasks": tuple(t.model_copy(update={"people": people}) for t in plan.tasks)})


RISE, LANE = "1-coopers-rise", "3-quarry-lane"


# rule -> the job and how its plan is spoiled
PLANTED: dict[str, tuple[str, Callable[[Plan], Plan]]] = {
    "window": (RISE, lambda p: _at(p, "east-gable-siding", "coat-1", "07:00")),
    "day": (LANE, lambda p: _at(p, "ql-gutter", "wash", "21:00")),
    "begin": (LANE, lambda p: _put(p, _task(p, "ql-gutter", "wash"), BEGIN - DAY / 2)),
    "hands": (LANE, lambda p: _crew(p, 3)),
    "order": (RISE, lambda p: _before(p, _task(p, "back-siding", "coat-2"), _task(p, "back-siding", "coat-1"))),
    "film": (RISE, lambda p: _after(p, _task(p, "back-siding", "coat-2"), _task(p, "back-siding", "coat-1"))),
    "wait": (RISE, lambda p: _after(p, _task(p, "back-siding", "coat-1"), _task(p, "back-siding", "wash"))),
    "washed first": (RISE, lambda p: _after(p, _task(p, "back-trim", "wash"), _task(p, "back-siding", "coat-2"))),
    "beside": (RISE, lambda p: _after(p, _task(p, "back-trim", "wash"), _task(p, "back-siding", "coat-1"))),
    "hung back": (LANE, lambda p: _before(p, _task(p, "ql-gutter", "refit"), _task(p, "ql-back-brick", "coat-1"))),
    "contained": (RISE, lambda p: _before(p, _task(p, "back-trim", "dull"), _task(p, "back-trim", "contain"))),
    "masked": (RISE, lambda p: _put(p, _task(p, "back-siding", "mask"), BEGIN + DAY / 3)),
    "bared": (RISE, lambda p: _put(p, _task(p, "west-gable-siding", "prime-spots"), BEGIN + 15 * DAY)),
    "clean-up": (RISE, lambda p: _put(p, _task(p, "back-trim", "daily-clean"), BEGIN + 15 * DAY)),
}


@pytest.mark.parametrize("rule", PLANTED)
def test_each_rule_finds_the_fault_that_was_planted(jobs: dict[str, Site], rule: str) -> None:
    stem, spoil = PLANTED[rule]
    site, plan = jobs[stem]

    def found(of: Plan) -> set[str]:
        return {b.words for b in breaches(Planned(site, of, BEGIN)) if b.rule == rule}

    assert found(spoil(plan)) - found(plan), rule


def _sheets(site: SiteClimate, **sheet: float) -> SiteClimate:
    """The same job with other sheets of its paints."""
    products = tuple(p.model_copy(update=sheet) for p in site.bundle.products)
    return replace(site, bundle=site.bundle.model_copy(update={"products": products}))


def _soaked(site: SiteClimate, part: str) -> SiteClimate:
    """The same job with a zone whose wood is wet and nobody knows why."""
    place = site.bundle.property
    wet = [
        z.model_copy(update={"condition": z.condition.model_copy(update={"moisture": (MoistureReading(pct=26.0),)})})
        if z.id == part
        else z
        for z in place.zones
    ]
    update = {"property": place.model_copy(update={"zones": tuple(wet)})}
    return replace(site, bundle=site.bundle.model_copy(update=update))


def test_a_longest_wait_between_films_and_a_stop_are_seen_too(jobs: dict[str, Site]) -> None:
    site, plan = jobs[RISE]
    hasty, soaked = _sheets(site, max_recoat_h=12.0), _soaked(site, "west-gable-siding")
    found = {b.rule for b in breaches(Planned(hasty, plan, BEGIN))}, breaches(Planned(soaked, plan, BEGIN))
    assert "recoat" in found[0] and any(b.rule == "stop" and "West gable" in b.words for b in found[1])


JOBS = ("2-net-loft", "3-quarry-lane", "4-heron-deck", "5-feed-barn")


@pytest.mark.parametrize("week", range(20))
def test_the_plans_of_many_weeks_break_no_rule(week: int) -> None:
    begin = datetime.fromisoformat("2025-04-28T00:00-03:00") + (week * 7 + 3 * week % 5) * DAY
    site, plan = _planned(JOBS[week % len(JOBS)], begin, 14)
    assert [b for b in breaches(Planned(site, plan, begin)) if b.must] == []
