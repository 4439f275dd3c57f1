"""Other people's work in the plan: what waits for it does, and nothing else."""

from datetime import date, datetime
from typing import Any

import pytest

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.problem import plan_problem
from amber_gable.core.state.others_work import others_turns
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.job.site_record import OthersNoted
from tests.small_jobs import five_shutters, shop_front, two_sashes
from tests.weather_cases import real_year

BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")
PANE = {"id": "pane", "who": "Glazier", "what": "sets the cracked pane", "where": ("item", "sash-1")}
SIGN = {"id": "sign", "who": "Electrician", "what": "frees the sign", "where": ("item", "sign")}


def _with(bundle: JobBundle, task: dict[str, Any], *, done: bool = False) -> JobBundle:
    raw = bundle.model_dump(mode="json")
    raw["job"]["others"] = [task]
    if done:
        line = {"id": "n1", "touch": "t1", "at": BEGIN, "noted": BEGIN, "by": "Ada", "task": task["id"], "done": True}
        raw["job"]["others_noted"] = [OthersNoted.model_validate(line).model_dump(mode="json")]
    return JobBundle.model_validate(raw)


def _plan(bundle: JobBundle) -> Plan:
    return plan_job(site_climate(bundle, real_year(), BEGIN, 14), BEGIN)


def _first(plan: Plan, part: str, *, film: bool) -> date:
    """The first day on which a part is worked on, with a film or without one."""
    found = [t for t in plan.tasks if t.extent is not None and part in {id_ for _, id_ in t.extent.parts}]
    return min(t.start.date() for t in found if t.kind.lays_film is film)


def test_films_of_the_glaziers_window_wait_for_him_and_its_preparation_does_not() -> None:
    day = date(2025, 6, 9)
    plan = _plan(_with(two_sashes(), PANE | {"turn": "before-coats", "day": day.isoformat()}))
    assert _first(plan, "sash-1", film=True) > day
    assert _first(plan, "sash-1", film=False) < day
    assert _first(plan, "sash-2", film=True) < day, "the other window has no glazier to wait for"


def test_without_a_day_what_waits_is_not_planned_and_says_for_whom() -> None:
    plan = _plan(_with(two_sashes(), PANE | {"turn": "before-work"}))
    assert {t.zone for t in plan.tasks} == {"sash-2"}
    assert "Glazier first: sets the cracked pane, no day is agreed" in " ".join(u.why for u in plan.unplaced)


@pytest.mark.parametrize("day", [None, "2025-05-20", "2025-06-09"], ids=["no day", "day past", "day to come"])
def test_once_it_is_noted_as_done_nothing_waits(day: str | None) -> None:
    free, bundle = _plan(two_sashes()), _with(two_sashes(), PANE | {"day": day}, done=True)
    assert _first(_plan(bundle), "sash-1", film=True) == _first(free, "sash-1", film=True)


def test_a_day_that_is_past_holds_the_work_until_somebody_says_that_it_is_done() -> None:
    bundle = _with(two_sashes(), PANE | {"day": "2025-05-20"})
    assert {t.zone for t in _plan(bundle).tasks} == {"sash-2"}
    turn = others_turns(bundle, BEGIN, None)[0]
    assert turn.late and not turn.done


def test_work_at_a_part_that_is_not_painted_holds_its_whole_face() -> None:
    day = date(2025, 6, 5)
    plan = _plan(_with(shop_front(), SIGN | {"day": day.isoformat()}))
    assert plan.tasks and min(t.start.date() for t in plan.tasks) > day


def test_what_comes_after_us_may_come_once_the_last_film_there_can_be_worked_beside() -> None:
    bundle = _with(five_shutters(), PANE | {"turn": "after", "where": ("item", "shutters-5")})
    plan = _plan(bundle)
    of_it = [t for t in plan.tasks if t.extent is not None and ("item", "shutters-5") in t.extent.parts]
    assert not plan.unplaced and of_it
    turn = others_turns(bundle, BEGIN, plan)[0]
    assert turn.from_ == max(t.ready_at or t.end for t in of_it)
    cut_short = plan.model_copy(
        update={"tasks": plan.tasks[:-1], "unplaced": _plan(_with(two_sashes(), PANE)).unplaced}
    )
    assert others_turns(bundle, BEGIN, cut_short)[0].from_ is None, "nobody knows when the rest is done"


def test_who_comes_and_what_it_costs_makes_no_other_plan_and_when_does() -> None:
    prints = [
        plan_problem(_with(two_sashes(), PANE | more)).fingerprint
        for more in (
            {"day": "2025-06-09"},
            {"day": "2025-06-09", "who": "Pane & Son", "cost": 90},
            {"day": "2025-06-10"},
        )
    ]
    assert prints[0] == prints[1] != prints[2]
    noted = _with(two_sashes(), PANE | {"day": "2025-06-09"}, done=True)
    assert plan_problem(noted).fingerprint == prints[0], "done as it was planned, the plan stays as it is"
    assert plan_problem(noted).bundle.job.others_noted, "and the planner knows of it"
