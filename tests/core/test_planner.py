"""The earliest-first planner: on made windows where the right plan is plain, and on the demo house in real weather."""

from dataclasses import replace
from datetime import datetime
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.climate.job_climate import SiteClimate, main_zone, site_climate
from amber_gable.core.plan.build import plan_job, threatened_tasks
from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.tasks import OpenTask, runs
from amber_gable.core.plan.work import shifts, work_items
from amber_gable.core.specification.safety import day_cards
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.job import JobBundle
from amber_gable.domain.method import Method
from amber_gable.domain.plan import Plan, Task
from amber_gable.domain.product import Base
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.working import CrewDay
from tests.jobs import coopers_rise, one_wall, opening
from tests.weather_cases import real_year, steady

SLOTS = 96
NIGHT = np.array([i % 48 < 16 or i % 48 >= 36 for i in range(SLOTS)])
SHIFT = np.where(NIGHT, -1, np.arange(SLOTS) // 48)


def _task(
    id_: str,
    length: int,
    after: tuple[str, ...] = (),
    *,
    face: str = "f",
    open_: str = "",
    wait: int = 0,
    **more: float,
) -> OpenTask:
    """`open_` as 'first-end' slot pairs; all day without. `wait` slots until the next step may begin."""
    allowed = np.ones(SLOTS, dtype=bool)
    if open_:
        allowed[:] = False
        for pair in open_.split():
            a, b = pair.split("-")
            allowed[int(a) : int(b)] = True
    letters = np.where(allowed, "", "D")
    ready = SLOT_S * (np.arange(SLOTS) + 1.0 + wait)
    return OpenTask(id_, face, length, after, allowed, letters, ready, **more)


# tasks -> {id: (first, end)}; the day's shift is slots 16-36, the next day's 64-84
PLANS: list[tuple[str, list[OpenTask], dict[str, tuple[int, int]]]] = [
    ("begins with the shift", [_task("a", 4)], {"a": (16, 20)}),
    ("one crew, one thing at a time", [_task("a", 4), _task("b", 4)], {"a": (16, 20), "b": (20, 24)}),
    ("waits for its window", [_task("a", 4, open_="30-40 70-80")], {"a": (30, 34)}),
    ("a window too short is left", [_task("a", 4, open_="18-20 70-80")], {"a": (70, 74)}),
    ("never over the night", [_task("a", 18), _task("b", 4)], {"a": (16, 34), "b": (64, 68)}),
    (
        "next coat when the first is ready",
        [_task("a", 4, wait=6), _task("b", 4, ("a",))],
        {"a": (16, 20), "b": (26, 30)},
    ),
    (
        "ready at night, done in the morning",
        [_task("a", 8, wait=20), _task("b", 4, ("a",))],
        {"a": (16, 24), "b": (64, 68)},
    ),
    (
        "fills the wait with another face",
        [_task("a", 4, wait=8), _task("b", 4, ("a",)), _task("c", 6, face="g")],
        {"a": (16, 20), "c": (20, 26), "b": (28, 32)},
    ),
    (
        "of two that can begin, the one with fewer chances first",
        [_task("a", 4, face="g"), _task("b", 4, open_="16-24")],
        {"b": (16, 20), "a": (20, 24)},
    ),
]


@pytest.mark.parametrize(("tasks", "expected"), [p[1:] for p in PLANS], ids=[p[0] for p in PLANS])
def test_plain_plans(tasks: list[OpenTask], expected: dict[str, tuple[int, int]]) -> None:
    placed, refused = place(tasks, SHIFT, 0)
    assert {p.id: (p.first, p.end) for p in placed} == expected
    assert not refused


# tasks -> {id: why it found no place}
REFUSALS: list[tuple[str, list[OpenTask], dict[str, str]]] = [
    ("no window", [_task("a", 4, open_="1-3")], {"a": "short"}),
    ("closed all day", [_task("a", 4, open_="0-0")], {"a": "weather"}),
    (
        "what it waits for is not placed",
        [_task("a", 4, open_="0-0"), _task("b", 2, ("a",))],
        {"a": "weather", "b": "after"},
    ),
    ("not ready in time", [_task("a", 4, wait=200), _task("b", 2, ("a",))], {"b": "ready"}),
    (
        "past the longest recoat time",
        [_task("a", 4, latest_after=10.0 * SLOT_S), _task("b", 2, ("a",), open_="64-80")],
        {"b": "recoat"},
    ),
    ("too much for the days", [_task(f"t{i}", 16, face=str(i)) for i in range(3)], {"t2": "crew"}),
]


@pytest.mark.parametrize(("tasks", "expected"), [r[1:] for r in REFUSALS], ids=[r[0] for r in REFUSALS])
def test_refusals_say_what_stands_in_the_way(tasks: list[OpenTask], expected: dict[str, str]) -> None:
    _, refused = place(tasks, SHIFT, 0)
    assert {r.id: r.cause for r in refused} == expected


@given(
    st.lists(
        st.tuples(st.integers(1, 8), st.integers(0, 20), st.integers(0, 60), st.integers(4, 40), st.booleans()),
        min_size=1,
        max_size=9,
    )
)
def test_every_plan_keeps_windows_order_shifts_and_one_crew(rows: list[tuple[int, int, int, int, bool]]) -> None:
    tasks = []
    for i, (length, wait, first, width, chained) in enumerate(rows):
        after = (f"t{i - 1}",) if chained and i else ()
        tasks.append(
            _task(f"t{i}", length, after, open_=f"{first}-{min(first + width, SLOTS)}", wait=wait, face=str(i % 3))
        )
    by_id = {t.id: t for t in tasks}
    placed, refused = place(tasks, SHIFT, 0)
    assert {p.id for p in placed} | {r.id for r in refused} == set(by_id)
    at = {p.id: p for p in placed}
    for p in placed:
        task = by_id[p.id]
        assert p.end - p.first == task.duration_slots
        assert task.allowed[p.first : p.end].all()
        assert len(set(SHIFT[p.first : p.end].tolist()) - {-1}) == 1
        for a in task.after:
            assert by_id[a].ready[at[a].end - 1] <= p.first * SLOT_S
    taken = sorted((p.first, p.end) for p in placed)
    assert all(end <= begin for (_, end), (begin, _) in pairwise(taken))


def test_without_weather_and_waits_the_finish_is_the_sum_of_the_work() -> None:
    tasks = [_task(f"t{i}", 3, face=str(i % 2)) for i in range(6)]
    placed, _ = place(tasks, SHIFT, 0)
    assert max(p.end for p in placed) == 16 + 18


def test_runs_stay_inside_one_shift() -> None:
    starts = np.flatnonzero(runs(np.ones(SLOTS, dtype=bool), SHIFT, 19))
    assert starts.tolist() == [16, 17, 64, 65]
    assert not runs(np.ones(4, dtype=bool), SHIFT[:4], 9).any()


def _planned(bundle: JobBundle, start: str = "2025-06-02", days: int = 12) -> tuple[SiteClimate, Plan]:
    begin = datetime.fromisoformat(f"{start}T00:00-05:00")
    site = site_climate(bundle, real_year(), begin, days, begin.tzinfo)
    return site, plan_job(site, begin)


def test_the_demo_house_is_planned_in_real_weather() -> None:
    bundle = coopers_rise()
    site, plan = _planned(bundle)
    items = {i.id: i for i in work_items(site)}
    assert {t.id for t in plan.tasks} | {u.id for u in plan.unplaced} == set(items)
    assert len(plan.tasks) > 40
    shift = shifts(site.slots, bundle.job.crew)
    for t in plan.tasks:
        first = int((t.start.timestamp() - site.slots.start) // SLOT_S)
        end = int((t.end.timestamp() - site.slots.start) // SLOT_S)
        assert items[t.id].windows.ok[0, first:end].all(), t.id
        assert (shift[first:end] >= 0).all()
        assert t.why
        assert t.touch_at is None or (t.rain_ready_at is not None and t.end < t.touch_at <= t.rain_ready_at)
    assert not {t.start.weekday() for t in plan.tasks} & {6}, "nobody works on Sunday"


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
    openings = tuple(opening(f"w{i}", 1.0 + 2.4 * i, 1.0, 1.0, 1.4) for i in range(5))
    bundle = one_wall(13.0, 6.0, openings, azimuth=180.0, crew={"people": 1})
    site, _ = _planned(bundle)
    coats = [i for i in work_items(site) if i.stint.first.id == "coat-1"]
    assert len(coats) > 1
    assert sum(i.surface_m2 for i in coats) == pytest.approx(coats[0].part.surface_m2)
    edges = {round(o["x_m"], 3) for o in openings} | {round(o["x_m"] + 1.0, 3) for o in openings}
    assert {round(i.left_m, 3) for i in coats[1:]} <= edges


def test_new_rain_threatens_only_the_tasks_it_falls_on() -> None:
    """Planned in dry weather; then the forecast puts rain on one afternoon."""
    begin = datetime.fromisoformat("2026-06-10T00:00-03:00")
    start = datetime.fromisoformat("2026-06-08T00:00-03:00")
    bundle, dry = one_wall(), steady(start, 14 * 24)
    site = site_climate(bundle, dry, begin, 6)
    plan = plan_job(site, begin)
    assert not plan.unplaced
    assert threatened_tasks(site, plan, begin) == ()
    coat = next(t for t in plan.tasks if t.operation == "Second coat")
    hour = int((coat.start - start).total_seconds() // 3600)
    rain = replace(steady(start, 14 * 24), rain_mm=np.isin(np.arange(14 * 24), (hour, hour + 1)) * 2.0)
    wet = site_climate(bundle, rain, begin, 6)
    threats = threatened_tasks(wet, plan, begin)
    assert (coat.id, "R") in [(t.id, letter) for t, letter in threats]
    assert "Wash" not in threats[0][0].operation
    assert threatened_tasks(wet, plan, coat.end) == (), "what has begun is no longer a threat"


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
    assert site.slots.hours[worked].max() == 15.0


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
    return [c.id for c in day_cards(bundle, tasks, *air_c)]
