"""The earliest-first planner on made windows, where the right plan is plain."""

from dataclasses import replace
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.plan.earliest import place
from amber_gable.core.plan.tasks import After, OpenTask, openings
from amber_gable.core.weather.film.drying import DryingStage
from amber_gable.domain.grid import SLOT_S

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
