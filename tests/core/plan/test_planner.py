"""The earliest-first planner on made windows, where the right plan is plain."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.tasks import OpenTask, openings
from amber_gable.domain.grid import SLOT_S
from tests.plan_cases import CLOCK, HALF, NIGHT, SHIFT, SLOTS, clock, open_task, sanded

# tasks -> {id: 'begin-end' on the clock}; the shift is 08:00-18:00 on both days, day two has 24 h added
PLANS: list[tuple[str, list[OpenTask], dict[str, str]]] = [
    ("begins with the shift", [open_task("a", 120)], {"a": "08:00-10:00"}),
    ("takes minutes, not half hours", [open_task("a", 7), open_task("b", 2)], {"a": "08:00-08:07", "b": "08:07-08:09"}),
    (
        "another face begins on a mark of the clock",
        [open_task("a", 7), open_task("b", 10, face="g")],
        {"a": "08:00-08:07", "b": "08:10-08:20"},
    ),
    ("waits for its window", [open_task("a", 120, open_="30-40 70-80")], {"a": "15:00-17:00"}),
    (
        "begins inside a slot if the window is long enough",
        [open_task("a", 20), open_task("b", 100, open_="16-20")],
        {"b": "08:00-09:40", "a": "09:40-10:00"},
    ),
    ("a window too short is left", [open_task("a", 120, open_="18-20 70-80")], {"a": "35:00-37:00"}),
    ("never over the night", [open_task("a", 540), open_task("b", 120)], {"a": "08:00-17:00", "b": "32:00-34:00"}),
    (
        "a fixed wait counts from the end",
        [open_task("a", 50), open_task("b", 60, "a+90")],
        {"a": "08:00-08:50", "b": "10:20-11:20"},
    ),
    (
        "the next coat when the film is ready, the last stroke taken at the end of its half hour",
        [open_task("a", 50, dries=180), open_task("b", 60, "a*")],
        {"a": "08:00-08:50", "b": "12:00-13:00"},
    ),
    (
        "ready at night, done in the morning",
        [open_task("a", 240), open_task("b", 120, "a+600")],
        {"a": "08:00-12:00", "b": "32:00-34:00"},
    ),
    (
        "fills the wait with another face",
        [open_task("a", 120), open_task("b", 120, "a+240"), open_task("c", 180, face="g")],
        {"a": "08:00-10:00", "c": "10:00-13:00", "b": "14:00-16:00"},
    ),
    (
        "of two that can begin, the one with fewer chances first",
        [open_task("a", 120, face="g"), open_task("b", 120, open_="16-24")],
        {"b": "08:00-10:00", "a": "10:00-12:00"},
    ),
    (
        "what is under way goes on first",
        [open_task("a", 60, open_="16-30"), open_task("b", 60, under_way=True)],
        {"b": "08:00-09:00", "a": "09:00-10:00"},
    ),
    ("not before the part is ready", [open_task("a", 60, not_before=9 * 60 + 12)], {"a": "09:15-10:15"}),
    (
        "a film that is dulled in between has no longest time",
        [
            open_task("a", 120, dries=30, latest_after=300),
            open_task("s", 30, "a*"),
            sanded(open_task("b", 60, "a*", "s", open_="64-80", dries=30)),
        ],
        {"a": "08:00-10:00", "s": "10:30-11:00", "b": "32:00-33:00"},
    ),
    (
        "a gate lets through when all before it is done",
        [open_task("a", 60), open_task("b", 60), open_task("g", 0, "a", "b"), open_task("c", 60, "g", face="x")],
        {"a": "08:00-09:00", "b": "09:00-10:00", "c": "10:00-11:00"},
    ),
]


@pytest.mark.parametrize(("tasks", "expected"), [p[1:] for p in PLANS], ids=[p[0] for p in PLANS])
def test_plain_plans(tasks: list[OpenTask], expected: dict[str, str]) -> None:
    placed, refused = place(tasks, SHIFT, 0)
    assert {p.id: f"{clock(p.start)}-{clock(p.end)}" for p in placed} == expected
    assert not refused


# tasks -> {id: why it found no place and at whose door it lies}
REFUSALS: list[tuple[str, list[OpenTask], dict[str, str]]] = [
    ("no window", [open_task("a", 120, open_="1-3")], {"a": "short a"}),
    ("closed all day", [open_task("a", 120, open_="0-0")], {"a": "weather a"}),
    (
        "what waits behind it says so, through a gate too",
        [open_task("a", 120, open_="0-0"), open_task("b", 60, "a"), open_task("g", 0, "b"), open_task("c", 60, "g")],
        {"a": "weather a", "b": "after a", "c": "after a"},
    ),
    ("not ready in time", [open_task("a", 120), open_task("b", 60, "a+6000")], {"b": "ready b"}),
    ("no day known", [open_task("a", 60, not_before=None, held_by="the wood read 17 %")], {"a": "held a"}),
    (
        "past the longest recoat time",
        [open_task("a", 120, dries=30, latest_after=300), open_task("b", 60, "a*", open_="64-80", dries=30)],
        {"b": "recoat b"},
    ),
    ("too much for the days", [open_task(f"t{i}", 480, face=str(i)) for i in range(3)], {"t2": "crew t2"}),
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
        tasks.append(open_task(f"t{i}", length, *after, open_=open_, face=str(i % 3)))
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
    tasks = [open_task(f"t{i}", 95, face=str(i % 2)) for i in range(6)]
    placed, _ = place(tasks, SHIFT, 0)
    assert max(p.end for p in placed) == 8 * 60 + 6 * 95


def test_openings_stay_inside_one_shift() -> None:
    found = openings(np.ones(SLOTS, dtype=bool), SHIFT).minutes
    assert set(CLOCK[found >= 570] // 1) == {16, 17, 64, 65}
    assert found[36 * HALF - 1] == SLOT_S // 60
    assert not found[NIGHT].any()
    assert openings(np.ones(4, dtype=bool), SHIFT[:4]).first(0, 10) is None
