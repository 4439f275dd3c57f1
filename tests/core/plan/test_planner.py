"""The earliest-first planner: on made windows where the right plan is plain, and on the demo house in real weather."""

from dataclasses import replace
from datetime import datetime
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.climate.job_climate import SiteClimate, main_zone, site_climate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.order import breaks_lead_paint, contained_first, touching
from amber_gable.core.plan.tasks import After, OpenTask, openings, shifts
from amber_gable.core.plan.work import work_items
from amber_gable.core.specification.cautions.safety import day_cards
from amber_gable.core.state.job_state import job_state, surroundings
from amber_gable.core.state.judgement import breaks_lead
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.findings.condition import MoistureReading
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan, Task
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Base
from amber_gable.domain.work.working import CrewDay
from tests.jobs import coopers_rise, demo_job, one_wall, opening
from tests.weather_cases import real_year, steady

HALF = 1800 // SLOT_S
"""Slots in a half hour, in which the cases below are written."""
SLOTS = 96 * HALF
CLOCK = np.arange(SLOTS) / HALF
NIGHT = (CLOCK % 48 < 16) | (CLOCK % 48 >= 36)
SHIFT = np.where(NIGHT, -1, (CLOCK // 48).astype(int))
STAGE = DryingStage.RECOAT


def _task(
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


def _sanded(task: OpenTask) -> OpenTask:
    """The same where what it is laid on is dulled before."""
    return replace(task, after=tuple(replace(e, sanded=e.stage is not None) for e in task.after))


# tasks -> {id: 'begin-end' on the clock}; the shift is 08:00-18:00 on both days, day two has 24 h added
PLANS: list[tuple[str, list[OpenTask], dict[str, str]]] = [
    ("begins with the shift", [_task("a", 120)], {"a": "08:00-10:00"}),
    ("takes minutes, not half hours", [_task("a", 7), _task("b", 2)], {"a": "08:00-08:07", "b": "08:07-08:09"}),
    (
        "another face begins on a mark of the clock",
        [_task("a", 7), _task("b", 10, face="g")],
        {"a": "08:00-08:07", "b": "08:10-08:20"},
    ),
    ("waits for its window", [_task("a", 120, open_="30-40 70-80")], {"a": "15:00-17:00"}),
    (
        "begins inside a slot if the window is long enough",
        [_task("a", 20), _task("b", 100, open_="16-20")],
        {"b": "08:00-09:40", "a": "09:40-10:00"},
    ),
    ("a window too short is left", [_task("a", 120, open_="18-20 70-80")], {"a": "35:00-37:00"}),
    ("never over the night", [_task("a", 540), _task("b", 120)], {"a": "08:00-17:00", "b": "32:00-34:00"}),
    (
        "a fixed wait counts from the end",
        [_task("a", 50), _task("b", 60, "a+90")],
        {"a": "08:00-08:50", "b": "10:20-11:20"},
    ),
    (
        "the next coat when the film is ready, the last stroke taken at the end of its half hour",
        [_task("a", 50, dries=180), _task("b", 60, "a*")],
        {"a": "08:00-08:50", "b": "12:00-13:00"},
    ),
    (
        "ready at night, done in the morning",
        [_task("a", 240), _task("b", 120, "a+600")],
        {"a": "08:00-12:00", "b": "32:00-34:00"},
    ),
    (
        "fills the wait with another face",
        [_task("a", 120), _task("b", 120, "a+240"), _task("c", 180, face="g")],
        {"a": "08:00-10:00", "c": "10:00-13:00", "b": "14:00-16:00"},
    ),
    (
        "of two that can begin, the one with fewer chances first",
        [_task("a", 120, face="g"), _task("b", 120, open_="16-24")],
        {"b": "08:00-10:00", "a": "10:00-12:00"},
    ),
    (
        "what is under way goes on first",
        [_task("a", 60, open_="16-30"), _task("b", 60, under_way=True)],
        {"b": "08:00-09:00", "a": "09:00-10:00"},
    ),
    ("not before the part is ready", [_task("a", 60, not_before=9 * 60 + 12)], {"a": "09:15-10:15"}),
    (
        "a film that is dulled in between has no longest time",
        [
            _task("a", 120, dries=30, latest_after=300),
            _task("s", 30, "a*"),
            _sanded(_task("b", 60, "a*", "s", open_="64-80", dries=30)),
        ],
        {"a": "08:00-10:00", "s": "10:30-11:00", "b": "32:00-33:00"},
    ),
    (
        "a gate lets through when all before it is done",
        [_task("a", 60), _task("b", 60), _task("g", 0, "a", "b"), _task("c", 60, "g", face="x")],
        {"a": "08:00-09:00", "b": "09:00-10:00", "c": "10:00-11:00"},
    ),
]


def _clock(minute: int) -> str:
    return f"{minute // 60:02d}:{minute % 60:02d}"


@pytest.mark.parametrize(("tasks", "expected"), [p[1:] for p in PLANS], ids=[p[0] for p in PLANS])
def test_plain_plans(tasks: list[OpenTask], expected: dict[str, str]) -> None:
    placed, refused = place(tasks, SHIFT, 0)
    assert {p.id: f"{_clock(p.start)}-{_clock(p.end)}" for p in placed} == expected
    assert not refused


# tasks -> {id: why it found no place and at whose door it lies}
REFUSALS: list[tuple[str, list[OpenTask], dict[str, str]]] = [
    ("no window", [_task("a", 120, open_="1-3")], {"a": "short a"}),
    ("closed all day", [_task("a", 120, open_="0-0")], {"a": "weather a"}),
    (
        "what waits behind it says so, through a gate too",
        [_task("a", 120, open_="0-0"), _task("b", 60, "a"), _task("g", 0, "b"), _task("c", 60, "g")],
        {"a": "weather a", "b": "after a", "c": "after a"},
    ),
    ("not ready in time", [_task("a", 120), _task("b", 60, "a+6000")], {"b": "ready b"}),
    ("no day known", [_task("a", 60, not_before=None, held_by="the wood read 17 %")], {"a": "held a"}),
    (
        "past the longest recoat time",
        [_task("a", 120, dries=30, latest_after=300), _task("b", 60, "a*", open_="64-80", dries=30)],
        {"b": "recoat b"},
    ),
    ("too much for the days", [_task(f"t{i}", 480, face=str(i)) for i in range(3)], {"t2": "crew t2"}),
]


@pytest.mark.parametrize(("tasks", "expected"), [r[1:] for r in REFUSALS], ids=[r[0] for r in REFUSALS])
def test_refusals_say_what_stands_in_the_way(tasks: list[OpenTask], expected: dict[str, str]) -> None:
    _, refused = place(tasks, SHIFT, 0)
    assert {r.id: f"{r.cause} {r.root}" for r in refused} == expected


@given(
    st.lists(
        st.tuples(st.integers(1, 240), st.integers(0, 600), st.integers(0, 60), st.integers(4, 40), st.booleans()),
        min_size=1,
        max_size=9,
    )
)
def test_every_plan_keeps_windows_order_shifts_and_one_crew(rows: list[tuple[int, int, int, int, bool]]) -> None:
    tasks = []
    for i, (length, wait, first, width, chained) in enumerate(rows):
        after = (f"t{i - 1}+{wait}",) if chained and i else ()
        open_ = f"{first}-{min(first + width, SLOTS // HALF)}"
        tasks.append(_task(f"t{i}", length, *after, open_=open_, face=str(i % 3)))
    by_id = {t.id: t for t in tasks}
    placed, refused = place(tasks, SHIFT, 0)
    assert {p.id for p in placed} | {r.id for r in refused} == set(by_id)
    at = {p.id: p for p in placed}
    for p in placed:
        task = by_id[p.id]
        assert p.end - p.start == task.minutes
        slots = slice(p.start * 60 // SLOT_S, -(-p.end * 60 // SLOT_S))
        assert task.allowed[slots].all()
        assert len(set(SHIFT[slots].tolist()) - {-1}) == 1
        for edge in task.after:
            assert at[edge.id].end + edge.wait_min <= p.start
    taken = sorted((p.start, p.end) for p in placed)
    assert all(end <= begin for (_, end), (begin, _) in pairwise(taken))


def test_without_weather_and_waits_the_finish_is_the_sum_of_the_work() -> None:
    tasks = [_task(f"t{i}", 95, face=str(i % 2)) for i in range(6)]
    placed, _ = place(tasks, SHIFT, 0)
    assert max(p.end for p in placed) == 8 * 60 + 6 * 95


def test_openings_stay_inside_one_shift() -> None:
    found = openings(np.ones(SLOTS, dtype=bool), SHIFT).minutes
    assert set(CLOCK[found >= 570] // 1) == {16, 17, 64, 65}
    assert found[36 * HALF - 1] == SLOT_S // 60
    assert not found[NIGHT].any()
    assert openings(np.ones(4, dtype=bool), SHIFT[:4]).first(0, 10) is None


BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")


def _planned(bundle: JobBundle, begin: datetime = BEGIN, days: int = 12) -> tuple[SiteClimate, Plan]:
    site = site_climate(bundle, real_year(), begin, days, begin.tzinfo)
    return site, plan_job(site, begin)


def test_the_demo_house_is_planned_in_real_weather() -> None:
    bundle = coopers_rise()
    site, plan = _planned(bundle)
    state = job_state(surroundings(site, BEGIN))
    items = {i.id: i for i in work_items(state.around, state.parts)}
    assert {t.id for t in plan.tasks} | {u.id for u in plan.unplaced} == set(items)
    assert len(plan.tasks) > 40
    shift = shifts(site.slots, bundle.job.crew)
    for t in plan.tasks:
        first = int((t.start.timestamp() - site.slots.start) // SLOT_S)
        end = int(-((site.slots.start - t.end.timestamp()) // SLOT_S))
        assert items[t.id].work.windows.ok[0, first:end].all(), t.id
        assert (shift[first:end] >= 0).all()
        assert t.why
        assert t.touch_at is None or (t.rain_ready_at is not None and t.end < t.touch_at <= t.rain_ready_at)
    assert not {t.start.weekday() for t in plan.tasks} & {6}, "nobody works on Sunday"
    assert not [(a.id, b.id) for a, b in pairwise(plan.tasks) if b.start < a.end], "one crew"


def test_small_steps_take_their_minutes() -> None:
    """A day's tasks fill it with their work, not with half hours: three people on the demo house."""
    _, plan = _planned(coopers_rise())
    first = [t for t in plan.tasks if t.start.date() == plan.tasks[0].start.date()]
    assert len(first) > 12
    worked = sum(t.crew_hours for t in first)
    span = (first[-1].end - first[0].start).total_seconds() / 3600
    assert worked > 0.9 * span


DIRTY = {"wash", "strip", "scrape", "sand", "dust", "repair"}


def test_all_dirty_work_of_a_face_and_the_washing_beside_it_stands_before_its_films() -> None:
    bundle = demo_job("3-quarry-lane")
    _, plan = _planned(bundle)
    corner = touching(bundle.property.faces)
    films = [t for t in plan.tasks if t.kind.lays_film]
    assert films
    for film in films:
        before = [t for t in plan.tasks if t.face == film.face and t.kind.value in DIRTY]
        before += [t for t in plan.tasks if t.face in corner[film.face] and t.kind.value == "wash"]
        assert all(t.end <= film.start for t in before), (film.id, [t.id for t in before if t.end > film.start])
    assert {"ql-right", "ql-left"} <= corner["ql-front"]
    assert "ql-garden" not in corner["ql-front"] or len(corner["ql-front"]) == 3


def test_walls_of_two_buildings_do_not_touch_however_near_they_are_drawn() -> None:
    """Each building has a plan of its own: what runs off the barn does not wet the house."""
    rise = coopers_rise().property.faces
    front, others = rise[0], rise[1:]
    beside = touching(rise)[front.id]
    assert beside, "the front has a corner with its neighbours"
    alone = touching((front.model_copy(update={"building": "Barn"}), *others))
    assert alone[front.id] == frozenset()
    assert all(front.id not in found for found in alone.values())


def test_trim_is_coated_after_the_field_it_frames() -> None:
    _, plan = _planned(coopers_rise())
    for face in ("front", "back"):
        field_ = [t for t in plan.tasks if t.zone == f"{face}-siding"]
        trim = [t for t in plan.tasks if t.zone == f"{face}-trim" and t.product]
        if trim:
            assert min(t.start for t in trim) >= max(t.end for t in field_)


def test_blocked_tasks_say_by_what_and_when() -> None:
    _, plan = _planned(coopers_rise())
    said = [b for t in plan.tasks for b in t.blocked_by]
    assert any(b.startswith("crew busy with “") for b in said)
    assert any(b[1] == " " and b[0] in "RDCHWU" for b in said)


def test_a_long_wall_is_cut_at_windows_where_the_sun_leaves_short_openings() -> None:
    openings_ = tuple(opening(f"w{i}", 1.0 + 2.4 * i, 1.0, 1.0, 1.4) for i in range(5))
    bundle = one_wall(13.0, 6.0, openings_, azimuth=180.0, crew={"people": 1})
    site, _ = _planned(bundle)
    state = job_state(surroundings(site, BEGIN))
    coats = [i for i in work_items(state.around, state.parts) if i.stint.first.id == "coat-1"]
    assert len(coats) > 1
    assert sum(i.surface_m2 for i in coats) == pytest.approx(coats[0].part.surface_m2)
    edges = {round(o["x_m"], 3) for o in openings_} | {round(o["x_m"] + 1.0, 3) for o in openings_}
    assert {round(13.0 * i.extent.left, 3) for i in coats[1:]} <= edges


def test_more_people_need_less_crew_time() -> None:
    hours = []
    for people in (1, 3):
        _, plan = _planned(one_wall(crew={"people": people}))
        hours.append(sum(t.crew_hours for t in plan.tasks))
    assert hours[0] == pytest.approx(3 * hours[1], rel=0.02)


def test_the_crews_day_and_days_off_bound_the_shifts() -> None:
    site, _ = _planned(one_wall())
    crew = CrewDay(start_h=8, end_h=16, setup_h=0.5, cleanup_h=0.5, work_saturday=False)
    shift = shifts(site.slots, crew)
    worked = shift >= 0
    assert set(site.slots.weekday[worked]) == {0, 1, 2, 3, 4}
    assert site.slots.hours[worked].min() == 8.5
    assert site.slots.hours[worked].max() == 15.5 - SLOT_S / 3600


def test_a_job_without_zones_or_weather_is_refused_in_words() -> None:
    bundle = one_wall()
    begin = datetime.fromisoformat("2026-06-10T00:00-03:00")
    bare = bundle.model_copy(update={"property": bundle.property.model_copy(update={"zones": ()})})
    with pytest.raises(NoClimate, match="no zones yet"):
        site_climate(bare, real_year(), begin, 3)
    with pytest.raises(NoClimate, match="covers"):
        site_climate(bundle, steady(datetime.fromisoformat("2026-01-01T00:00+00:00"), 96), begin, 3)


def test_the_zone_that_stands_for_a_face_is_its_field() -> None:
    bundle = coopers_rise()
    zone = main_zone(bundle, bundle.property.faces[0])
    assert zone is not None
    assert not SUBSTRATES[zone.substrate].is_trim


def test_cautions_follow_the_work_and_the_house() -> None:
    bundle = coopers_rise()
    _, plan = _planned(bundle)
    wash = [t for t in plan.tasks if t.kind == "wash"]
    coats = [t for t in plan.tasks if t.kind == "coat"]
    assert _cards(bundle, wash) == ["lead", "height", "wires", "bleach"]
    assert _cards(bundle, coats) == ["height", "wires"]
    newer = bundle.model_copy(update={"property": bundle.property.model_copy(update={"year_built": 2004})})
    assert "lead" not in _cards(newer, wash)
    tested = bundle.model_copy(update={"property": bundle.property.model_copy(update={"lead_found": False})})
    assert "lead" not in _cards(tested, wash), "a test that found none beats the year"
    oily = next(p.code for p in GENERIC_PRODUCTS.values() if p.base is Base.ALKYD)
    sprayed = [coats[0].model_copy(update={"method": Method.AIRLESS, "product": oily})]
    with_oil = newer.model_copy(update={"products": (*newer.products, GENERIC_PRODUCTS[oily])})
    assert {"injection", "spray", "rags", "fumes"} <= set(_cards(with_oil, sprayed))
    assert _cards(newer, coats, 33.0, 24.0) == ["height", "wires", "heat"]
    assert _cards(newer, coats, 12.0, 3.0) == ["height", "wires", "cold"]


def _cards(bundle: JobBundle, tasks: list[Task], *air_c: float) -> list[str]:
    return [c.id for c in day_cards(bundle, painted_parts(bundle.property, bundle.deduction), tasks, *air_c)]


def _stopped_siding(bundle: JobBundle) -> JobBundle:
    """The street front's siding too wet for any coat: a stop without a day."""
    place = bundle.property
    wet = MoistureReading(pct=25, at=BEGIN)
    zones = tuple(
        z.model_copy(update={"condition": z.condition.model_copy(update={"moisture": (wet,)})})
        if z.id == "front-siding"
        else z
        for z in place.zones
    )
    return bundle.model_copy(update={"property": place.model_copy(update={"zones": zones})})


def test_lead_paint_is_broken_on_a_face_only_once_it_is_contained() -> None:
    bundle = coopers_rise()
    site, plan = _planned(bundle)
    state = job_state(surroundings(site, BEGIN))
    items = work_items(state.around, state.parts)
    gates, waits = contained_first(items, bundle)
    dusty = {i.id: i for i in items if breaks_lead_paint(i, bundle)}
    assert set(waits) == set(dusty) and len(dusty) > 10
    assert all(waits[id_] == (f"contain.{i.part.face.id}",) for id_, i in dusty.items())
    # Walls whose chalk is only scrubbed are contained too.
    assert {g.removeprefix("contain.") for g in gates} > {i.part.face.id for i in dusty.values()}
    ends = {t.id: t.end for t in plan.tasks}
    for task in (t for t in plan.tasks if t.id in dusty):
        assert all(ends[a.id] <= task.start for a in gates[f"contain.{task.face}"])


def test_where_the_part_with_the_containment_is_stopped_nothing_is_scraped_beside_it() -> None:
    bundle = _stopped_siding(coopers_rise())
    _, plan = _planned(bundle)
    front = [t for t in plan.tasks if t.face == "front"]
    assert not [t for t in front if breaks_lead(bundle, bundle.property.part(t.part), t.techniques)]  # type: ignore[arg-type]
    assert any("the containment of this face stands with Siding, which is stopped" in u.why for u in plan.unplaced)
    assert [t for t in plan.tasks if t.face != "front"], "other faces go on"
