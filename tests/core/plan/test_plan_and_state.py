"""Plans that start from what is done, and warnings that name the task, the rule and the hour, and hold still."""

from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

import pytest

from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.left_over import left_over
from amber_gable.core.plan.threats import noise, threats, unsettled, warned_by
from amber_gable.core.plan.visits import visits
from amber_gable.core.state.job_state import Board, JobState, board
from amber_gable.core.state.task_status import Status
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan, Task, task_id
from amber_gable.domain.job.site_record import Extent
from amber_gable.domain.weather.series import WeatherSeries
from tests.jobs import coopers_rise
from tests.site_cases import MONDAY, at, entry, site_of, state_of, wall, weather

SEVEN = at(0, "07:00")
STEPS = ["wash", "scrape", "prime", "caulk", "coat-1", "coat-2"]


def _plan(bundle: JobBundle, now: datetime = SEVEN, series: WeatherSeries | None = None) -> Plan:
    return plan_job(site_of(bundle, now, series), now)


def _steps(plan: Plan) -> list[str]:
    return [s for t in plan.tasks for s in t.steps]


# what is noted -> the steps that are planned
LEFT: list[tuple[str, list[Any], str]] = [
    ("nothing", [], "wash scrape prime caulk coat-1 coat-2"),
    ("washed", [("done", "wash", at(-1, "09:00"))], "scrape prime caulk coat-1 coat-2"),
    ("half of the scraping", [("done", "wash", at(-1, "09:00")), ("part-done", "scrape", SEVEN, {"how_far": 0.5})],
     "scrape prime caulk coat-1 coat-2"),
    ("all of it", [("done", " ".join(STEPS), at(-1, "09:00"))], ""),
    ("passed over", [("done", "prime", at(-3, "09:00"))], "caulk coat-1 coat-2"),
    ("reopened", [("done", "wash scrape prime", at(-3, "09:00")), ("not-done", "scrape", SEVEN, {"why": "missed"})],
     "scrape caulk coat-1 coat-2"),
]  # fmt: skip


@pytest.mark.parametrize(("lines", "expected"), [c[1:] for c in LEFT], ids=[c[0] for c in LEFT])
def test_the_plan_starts_from_what_is_done(lines: list[Any], expected: str) -> None:
    bundle = wall(*lines)
    plan = _plan(bundle)
    assert _steps(plan) == expected.split()
    assert not plan.unplaced
    again = _plan(bundle)
    assert again == plan, "planning twice changes nothing"


def test_waits_of_what_is_done_hold_in_the_plan() -> None:
    plan = _plan(wall(("done", "wash", at(0, "06:00"))))
    starts = {t.steps[0]: t.start for t in plan.tasks}
    assert starts["scrape"] >= at(0, "10:00"), "the surface is dry four hours after the wash"
    assert starts["prime"] >= at(1, "06:00"), "what seals it waits the day, though it was scraped since"


def test_part_done_leaves_its_share_of_the_hours_and_its_stretch() -> None:
    whole, rest = (
        next(t for t in _plan(wall(("done", "wash", at(-1, "09:00")), *more)).tasks if "scrape" in t.steps)
        for more in ((), (("part-done", "scrape", SEVEN, {"how_far": 0.25}),))
    )
    assert rest.crew_hours == pytest.approx(0.75 * whole.crew_hours, rel=0.02)
    assert rest.area_m2 == pytest.approx(0.75 * whole.area_m2, rel=0.02)
    assert rest.extent is not None
    assert (rest.extent.left, rest.extent.right) == (0.25, 1.0)


# noted since the plan was made -> share of the planned area and hours of scraping that is left; None: nothing is said
BEGUN: list[tuple[str, list[Any], float | None]] = [
    ("nothing", [], None),
    ("a quarter", [("part-done", "scrape", SEVEN, {"how_far": 0.25})], 0.75),
    ("a quarter from the right", [("done", "scrape", SEVEN, {"left": 0.75})], 0.75),
    ("two pieces", [("done", "scrape", SEVEN, {"right": 0.5}), ("done", "scrape", SEVEN, {"left": 0.9})], 0.4),
    ("all", [("done", "scrape", SEVEN)], None),
    ("begun", [("started", "scrape", SEVEN)], None),
]


@pytest.mark.parametrize(("lines", "share"), [c[1:] for c in BEGUN], ids=[c[0] for c in BEGUN])
def test_what_is_left_of_a_task_in_area_and_time(lines: list[Any], share: float | None) -> None:
    washed = ("done", "wash", at(-1, "09:00"))
    task = next(t for t in _plan(wall(washed)).tasks if "scrape" in t.steps)
    found = left_over(state_of(wall(washed, *lines), at(0, "08:00")), task)
    if share is None:
        assert found is None
    else:
        assert found is not None
        assert found.area_m2 == pytest.approx(share * task.area_m2)
        assert found.hours == pytest.approx(share * task.hours)


def test_every_stretch_that_is_left_is_planned_however_many_there_are() -> None:
    """Ten patches were scraped with gaps between them: eleven stretches are left, and none of them is forgotten."""
    patches = [("done", "scrape", SEVEN, {"left": 0.05 + 0.09 * n, "right": 0.10 + 0.09 * n}) for n in range(10)]
    washed = ("done", "wash", at(-1, "09:00"))
    whole = sum(t.crew_hours for t in _plan(wall(washed)).tasks if "scrape" in t.steps)
    left = [t for t in _plan(wall(washed, *patches)).tasks if "scrape" in t.steps]
    assert len(left) == 11
    assert sum(t.crew_hours for t in left) == pytest.approx(0.5 * whole, rel=0.02)
    assert len({t.id for t in left}) == 11


def test_a_task_keeps_its_name_through_every_new_plan() -> None:
    """Named by part, step and extent: what is done elsewhere, or planned for another day, changes no name."""
    first = {t.id: (t.extent, t.operation) for t in _plan(wall()).tasks}
    later = _plan(wall(("done", "wash", at(-1, "09:00"))), at(1, "07:00"))
    assert {t.id for t in later.tasks} < set(first)
    assert all(first[t.id] == (t.extent, t.operation) for t in later.tasks)
    half = _plan(wall(("done", "wash", at(-1, "09:00")), ("part-done", "scrape", SEVEN, {"how_far": 0.5})))
    scraping = next(t for t in half.tasks if "scrape" in t.steps)
    assert scraping.id == "zone.siding/scrape/500000-1000000"
    assert scraping.id not in first, "it is other work than the whole wall"


def test_like_items_together_are_named_after_all_of_them() -> None:
    sashes = [("item", f"sash-{n}") for n in range(4)]
    three, others = Extent(parts=tuple(sashes[:3])), Extent(parts=(sashes[0], *sashes[2:]))
    assert task_id(three, "coat-1") != task_id(others, "coat-1"), "the same first one, as many, not the same"
    assert task_id(three, "coat-1") == task_id(Extent(parts=tuple(sashes[:3])), "coat-1")
    assert task_id(Extent(parts=(sashes[0],)), "coat-1") == "item.sash-0/coat-1"


def test_what_is_under_way_goes_on_and_takes_what_is_left_of_its_time() -> None:
    lines = [("done", "wash", at(-1, "09:00")), ("started", "scrape", at(0, "09:00"))]
    now = at(0, "09:10")
    plan = _plan(wall(*lines), now)
    first = plan.tasks[0]
    assert first.steps == ("scrape",)
    assert first.start == now
    assert "under way" in first.why
    whole = next(t for t in _plan(wall(lines[0])).tasks if "scrape" in t.steps)
    assert (first.end - first.start) == (whole.end - whole.start) - timedelta(minutes=10)


def test_a_wet_reading_puts_its_wall_off_until_it_is_surely_dry() -> None:
    """17 % in warm dry air: primed on the third day, not on the first, and not never."""
    plan = _plan(wall(("done", "wash scrape", at(-4, "09:00")), readings=[(17.0, at(0, "06:30"))]))
    assert plan.tasks[0].kind == "prime" and plan.tasks[0].start >= at(1, "08:00")
    assert not plan.unplaced


def test_a_reading_that_will_not_be_dry_leaves_its_wall_out_and_says_so_once() -> None:
    plan = _plan(
        wall(("done", "wash scrape", at(-4, "09:00")), readings=[(17.0, at(0, "06:30"))]), series=weather(rh_pct=84.0)
    )
    assert not plan.tasks
    (head,) = [u for u in plan.unplaced if not u.behind]
    assert head.why.startswith("Not ready: the wood read 17 % on Mon 8 Jun 06:30")
    assert {u.cause for u in plan.unplaced if u.behind} == {f"behind {head.id}"}


def _board(bundle: JobBundle, plan: Plan, now: datetime, series: WeatherSeries | None = None) -> tuple[JobState, Board]:
    state = state_of(bundle, now, series, plan)
    return state, board(state, plan)


def _noted(bundle: JobBundle, *tasks: Task, said: str = "done", when: datetime | None = None) -> JobBundle:
    lines = [
        entry(said, " ".join(t.steps), when or t.end, len(bundle.job.record) + n, product=t.product, colour=t.colour)
        for n, t in enumerate(tasks)
    ]
    job = bundle.job.model_copy(update={"record": (*bundle.job.record, *lines)})
    return bundle.model_copy(update={"job": job})


def test_a_day_on_the_board() -> None:
    """Due, under way, done, late: what is now, what is next, and what is left behind."""
    bundle = wall()
    plan = _plan(bundle)
    wash, scrape = plan.tasks[:2]
    _, before = _board(bundle, plan, SEVEN)
    assert before.now is None
    assert before.next is not None
    assert before.next.task == wash
    _, due = _board(bundle, plan, wash.start)
    assert due.now is not None
    assert (due.now.task, due.now.status) == (wash, Status.DUE)
    begun = _noted(bundle, wash, said="started", when=wash.start)
    _, running = _board(begun, plan, wash.end + timedelta(minutes=40))
    assert running.now is not None
    assert running.now.status is Status.RUNNING, "it takes longer than planned: it is under way, not late"
    assert running.late == []
    _, late = _board(bundle, plan, wash.end + timedelta(minutes=40))
    assert [t.task for t in late.late] == [wash]
    assert late.now is not None
    assert late.now.task == wash
    washed = _noted(bundle, wash)
    _, after = _board(washed, plan, wash.end)
    assert after.tasks[0].status is Status.DONE
    assert after.now is None, "the wall is wet"
    assert after.next is not None
    assert after.next.task == scrape
    done = _noted(bundle, *plan.tasks)
    _, over = _board(done, plan, plan.tasks[-1].end)
    assert over.open == []
    assert over.next is None


def test_a_task_whose_wall_is_not_ready_is_never_now() -> None:
    bundle = wall()
    plan = _plan(bundle)
    coat = next(t for t in plan.tasks if "coat-1" in t.steps)
    _, found = _board(bundle, plan, coat.start)
    assert found.now is not None
    assert "wash" in found.now.task.steps, "nothing was noted: the washing is late and may be done"
    stands = next(t for t in found.tasks if t.task == coat)
    assert not stands.workable
    assert stands.answer is not None
    assert stands.answer.waits[0].words.startswith("first comes “Wash")


def test_a_gone_step_and_an_older_task_are_told_from_work_to_do() -> None:
    bundle = wall()
    plan = _plan(bundle)
    older = plan.tasks[0].model_copy(update={"extent": None, "steps": ()})
    other = plan.tasks[1].model_copy(update={"steps": ("strip",)})
    _, found = _board(bundle, Plan(tasks=(older, other)), SEVEN)
    assert [t.status for t in found.tasks] == [Status.GONE, Status.GONE]


def test_new_rain_threatens_only_the_tasks_it_falls_on_and_says_when_and_what_helps() -> None:
    bundle = wall()
    plan = _plan(bundle)
    coat = next(t for t in plan.tasks if "coat-2" in t.steps)
    now = coat.start - timedelta(hours=20)
    done = _noted(bundle, *[t for t in plan.tasks if t.end < now])
    rain = weather({coat.start.replace(minute=0): 0.8})
    state, found = _board(done, plan, now, rain)
    held = threats(state.around.site, found, now)
    assert {s for t in held for s in t.task.steps} <= {"coat-1", "coat-2"}, "and a coat not rain-ready by then"
    threat = next(t for t in held if t.task == coat)
    assert threat.letter == "R"
    assert threat.at == coat.start
    assert "drier day" in threat.todo
    dry_state, dry = _board(done, plan, now)
    assert threats(dry_state.around.site, dry, now) == ()


def test_rain_that_soaks_a_prepared_wall_threatens_the_first_film_after_it() -> None:
    bundle = wall()
    plan = _plan(bundle)
    prime = next(t for t in plan.tasks if "prime" in t.steps)
    before = prime.start - timedelta(hours=14)
    now = prime.start - timedelta(hours=16)
    done = _noted(bundle, *[t for t in plan.tasks if t.end < now], when=now - timedelta(hours=30))
    state, found = _board(done, plan, now, weather({before.replace(minute=0): 70.0}))
    named = {(t.task.steps[0], t.rule) for t in threats(state.around.site, found, now)}
    assert ("prime", "substrate") in named


def test_a_warning_begins_and_ends_beyond_the_noise() -> None:
    """The wind on one afternoon wanders about the ladder's 10 m/s: 1 m/s is noise a day ahead. In a young house, for
    presumed lead bears less."""
    bundle = wall(("done", "wash", at(-1, "09:00")))
    bundle = bundle.model_copy(update={"property": bundle.property.model_copy(update={"year_built": 2005})})
    plan = _plan(bundle)
    scrape = plan.tasks[0]
    now = scrape.start - timedelta(hours=24)
    hour = int((scrape.start - (MONDAY - timedelta(days=2))).total_seconds() // 3600)
    warned: tuple[tuple[str, str], ...] = ()
    seen = []
    for wind in (9.5, 10.5, 11.2, 10.5, 9.5, 8.8, 9.5, 10.5):
        series = weather()
        blown = series.wind_ms.copy()
        blown[hour - 1 : hour + 4] = wind
        state, found = _board(bundle, plan, now, replace(series, wind_ms=blown))
        held = threats(state.around.site, found, now, warned)
        warned = warned_by(held)
        seen.append(sum(t.task == scrape for t in held))
    assert seen == [0, 0, 1, 1, 1, 0, 0, 0]


def test_the_noise_is_nothing_now_and_grows_with_the_days() -> None:
    lead = [noise("wind", h) for h in (0, 6, 24, 72, 240)]
    # A day's whole, then a week's worth of days for each day's worth more.
    assert lead == pytest.approx([0, 1 / 4, 1, 1 + 2 / 7, 1 + 9 / 7])
    assert noise("substrate", 24) == 1.5
    assert noise("working-day", 100.0) == 0


def test_warnings_reach_three_days_and_the_rest_is_counted() -> None:
    bundle = wall()
    plan = _plan(bundle)
    last = plan.tasks[-1]
    moved = last.model_copy(update={"start": at(6, "10:00"), "end": at(6, "11:00")})
    far = Plan(tasks=(*plan.tasks[:-1], moved))
    rain = weather({at(6, "10:00"): 5.0})
    state, found = _board(bundle, far, SEVEN, rain)
    assert threats(state.around.site, found, SEVEN) == ()
    assert unsettled(found, SEVEN) == 1


def test_a_wall_too_wet_for_its_coat_is_told_of_however_far_ahead_that_is() -> None:
    """No forecast makes it sure, so none is waited for: the meter says 17 % in air that will not dry it."""
    ready = ("done", "wash scrape", at(-4, "09:00"))
    prime = _plan(wall(ready)).tasks[0]
    far = Plan(tasks=(prime.model_copy(update={"start": at(5, "10:00"), "end": at(5, "11:00")}),))
    told = []
    for readings in ([], [(17.0, at(0, "06:30"))]):
        state, found = _board(wall(ready, readings=readings), far, SEVEN, weather(rh_pct=84.0))
        told.append([t.rule for t in threats(state.around.site, found, SEVEN)])
    assert told == [[], ["state-M"]]


def test_small_steps_of_a_face_are_one_visit_and_no_can_is_opened_in_between() -> None:
    bundle = coopers_rise()
    now = datetime.fromisoformat("2026-06-08T07:00-03:00")
    plan = plan_job(site_of(bundle, now), now)
    state = state_of(bundle, now, plan=plan)
    found = visits(board(state, plan).tasks)
    assert sum(len(v.tasks) for v in found) == len(plan.tasks)
    assert len(found) < 0.85 * len(plan.tasks)
    for visit in found:
        assert len({t.task.face for t in visit.tasks}) == 1
        assert len({(t.task.product, t.task.colour) for t in visit.tasks}) == 1
        gaps = [b.task.start - a.task.end for a, b in zip(visit.tasks, visit.tasks[1:], strict=False)]
        # People who work apart begin on marks of the clock, five minutes apart.
        assert all(timedelta(0) <= gap <= timedelta(minutes=5) for gap in gaps)
