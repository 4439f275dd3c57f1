"""The plan as a problem of constraints for OR-Tools CP-SAT: fewest days until the job is done, and fewest days on site
(docs/physics.md §12).

Time counts in marks of the clock (`VISIT_MIN`). Every task has a literal for each stretch in which it may be done; what
a film asks of its follower is a least wait for each piece of those stretches.
"""

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import ceil, isfinite

import numpy as np
import numpy.typing as npt
from ortools.sat.python import cp_model

from amber_gable.core.plan.serial import MARKS, modes_of
from amber_gable.core.plan.tasks import VISIT_MIN, After, OpenTask, Placement, Soon
from amber_gable.core.weather.film.drying import DryingStage

FINISH, SITE_DAY, LEFT_LYING, UNPLACED = 20_000, 10_000, 1_500, 10_000_000
"""Weights of the day on which the job is done, of each day on site, of each day by which something is left lying too
long, and of what finds no place."""
MOVED_DAY, MOVED = 5, 2
"""Weights of a task that stands on another day than in the plan before, and of one at another time; other hands weigh
1. A thousand tasks together weigh less than a day on site."""
_STEP = 12
"""Marks by which the wait after a film may differ within a piece of a stretch."""
_DAY = 24 * 60 // VISIT_MIN


@dataclass(frozen=True)
class Stretch:
    """Marks [first, end) of one day in which a task may be done."""

    first: int
    end: int

    @property
    def day(self) -> int:
        return self.first // _DAY


@dataclass(frozen=True)
class _Mode:
    """So many hands for so long; `taken` is None where there is no other choice."""

    hands: int
    minutes: int
    marks: int
    taken: cp_model.IntVar | None


@dataclass(frozen=True)
class _Piece:
    """Ends [first, last] of a film after which the waits are nearly alike, from `least` to `wait`, in marks."""

    first: int
    last: int
    least: int
    wait: int

    def takes(self, lag: int) -> bool:
        return max(self.wait, lag) - min(self.least, lag) <= _STEP


class Model:
    """`optional` tasks may be left out, each at a cost that no days outweigh. `stand`: the minute at which a task began
    in the plan before, and with how many hands."""

    def __init__(
        self,
        tasks: Sequence[OpenTask],
        shift: npt.NDArray[np.int64],
        start: int,
        there: npt.NDArray[np.int64],
        begin: int,
        optional: Collection[str],
        stand: Mapping[str, tuple[int, int]],
    ) -> None:
        self.model, self.tasks, self.people = cp_model.CpModel(), {t.id: t for t in tasks}, int(there.max(initial=0))
        self.start, self.horizon = start, len(shift) * MARKS
        self.begins: dict[str, cp_model.IntVar] = {}
        self.ends: dict[str, cp_model.LinearExprT] = {}
        self.end_min: dict[str, cp_model.LinearExprT] = {}
        self.stand = stand
        self.present: dict[str, cp_model.IntVar] = {}
        self.modes: dict[str, list[_Mode]] = {}
        self.at: dict[str, list[tuple[Stretch, cp_model.IntVar]]] = {}
        self.on_site: dict[int, cp_model.IntVar] = {}
        self.waits: dict[tuple[str, DryingStage], list[tuple[int, cp_model.IntVar]]] = {}
        for task in tasks:
            if task.id in optional:
                self.present[task.id] = self.model.new_bool_var(f"{task.id}?")
        self.intervals: list[cp_model.IntervalVar] = []
        self.demands: list[int] = []
        for task in tasks:
            self.begins[task.id] = self.ends[task.id] = self.model.new_int_var(0, self.horizon, task.id)
            self.end_min[task.id] = self.begins[task.id] * VISIT_MIN
            if task.minutes:
                self._work(task, shift, begin)
        self._absent(there, shift)
        self.model.add_cumulative(self.intervals, self.demands, self.people)
        last = self._days(shift, there)
        for task in tasks:
            for edge in task.after:
                self._order(self.tasks[edge.id], task, edge)
        left = [self._left_lying(task, soon) for task in tasks for soon in task.soon if soon.id in self.at]
        missing = sum(1 - p for id_, p in self.present.items() if self.tasks[id_].minutes)
        days = FINISH * last + SITE_DAY * sum(self.on_site.values())
        moved = cp_model.LinearExpr.sum([self._moved(id_, *was) for id_, was in stand.items() if id_ in self.at])
        self.model.minimize(days + LEFT_LYING * sum(left) + UNPLACED * missing + moved)

    def _if(self, *ids: str) -> list[cp_model.IntVar]:
        """The literals of those of the tasks that may be left out."""
        return [self.present[id_] for id_ in ids if id_ in self.present]

    def _work(self, task: OpenTask, shift: npt.NDArray[np.int64], begin: int) -> None:
        m, modes = self.model, modes_of(task, self.people)
        needs = [ceil(minutes / VISIT_MIN) for _, minutes in modes]
        from_ = ceil(max(begin, task.not_before or 0) / VISIT_MIN)
        found = [s for s in stretches(task.allowed, shift, from_) if s.end - s.first >= min(needs)]
        if task.not_before is None:
            found = []
        elif task.under_way:
            found = found[:1]
        begins, there = self.begins[task.id], self.present.get(task.id, 1)
        lits = [m.new_bool_var(f"{task.id}@{s.first}") for s in found]
        m.add(sum(lits) == there)
        chosen: list[_Mode] = []
        apart = len(modes) > 1 or task.id in self.present
        end: cp_model.LinearExprT = begins + (m.new_int_var(min(needs), max(needs), "") if len(modes) > 1 else needs[0])
        for (who, minutes), need in zip(modes, needs, strict=True):
            taken = m.new_bool_var(f"{task.id}x{who}") if apart else None
            chosen.append(_Mode(who, minutes, need, taken))
            if taken is not None:
                m.add(end == begins + need).only_enforce_if(taken)
                self.intervals.append(m.new_optional_fixed_size_interval_var(begins, need, taken, ""))
            else:
                self.intervals.append(m.new_fixed_size_interval_var(begins, need, ""))
            self.demands.append(who)
        if apart:
            m.add(sum(c.taken for c in chosen if c.taken is not None) == there)
        for stretch, lit in zip(found, lits, strict=True):
            m.add(begins >= stretch.first).only_enforce_if(lit)
            m.add(end <= stretch.end).only_enforce_if(lit)
        taken_min = [c.minutes * c.taken for c in chosen if c.taken is not None]
        took = cp_model.LinearExpr.sum(taken_min) if taken_min else modes[0][1]
        self.ends[task.id], self.end_min[task.id] = end, begins * VISIT_MIN + took
        self.modes[task.id], self.at[task.id] = chosen, list(zip(found, lits, strict=True))

    def _absent(self, there: npt.NDArray[np.int64], shift: npt.NDArray[np.int64]) -> None:
        """Who is not there takes the place of a task that cannot be moved."""
        missing = np.where(shift >= 0, self.people - there, 0)
        edges = [0, *(np.flatnonzero(np.diff(missing)) + 1).tolist(), len(missing)]
        for a, b in pairwise(edges):
            if missing[a]:
                span = self.model.new_fixed_size_interval_var(a * MARKS, (b - a) * MARKS, "missing")
                self.intervals.append(span)
                self.demands.append(int(missing[a]))

    def _days(self, shift: npt.NDArray[np.int64], there: npt.NDArray[np.int64]) -> cp_model.IntVar:
        """The last day; which days are days on site, and that no day holds more work than its people have hours."""
        m, on = self.model, dict[int, list[tuple[int, cp_model.IntVar]]]()
        for id_, pairs in self.at.items():
            energy = min(mode.hands * mode.marks for mode in self.modes[id_])
            for stretch, lit in pairs:
                on.setdefault(stretch.day, []).append((energy, lit))
        works = shift >= 0
        room = np.bincount(np.arange(len(shift))[works] * MARKS // _DAY, weights=there[works] * MARKS)
        last = m.new_int_var(0, self.horizon // _DAY + 1, "last day")
        for day, held in on.items():
            used = self.on_site[day] = m.new_bool_var(f"day {day}")
            m.add(sum(e * lit for e, lit in held) <= int(room[day]) * used)
            for _, lit in held:
                m.add_implication(lit, used)
            m.add(last >= day + 1).only_enforce_if(used)
        return last

    def _left_lying(self, task: OpenTask, soon: Soon) -> cp_model.IntVar:
        """By how many days more than it should a task is left lying."""
        m = self.model
        over = m.new_int_var(0, self.horizon // _DAY + 1, "")
        begun, done = (sum(s.day * lit for s, lit in self.at[id_]) for id_ in (task.id, soon.id))
        m.add(over >= begun - done - soon.days).only_enforce_if(self._if(task.id, soon.id))
        return over

    def _moved(self, id_: str, minute: int, hands: int) -> cp_model.LinearExpr:
        """What it costs that a task begins at another time than before, or with other hands."""
        m, at = self.model, minute // VISIT_MIN
        that_day = cp_model.LinearExpr.sum([lit for stretch, lit in self.at[id_] if stretch.day == at // _DAY])
        as_before = m.new_bool_var("")
        if minute % VISIT_MIN or not 0 <= at < self.horizon:
            m.add(as_before == 0)
        else:
            m.add(self.begins[id_] == at).only_enforce_if(as_before)
            for there in self._if(id_):
                m.add_implication(as_before, there)
        same = [mode.taken for mode in self.modes[id_] if mode.hands == hands and mode.taken is not None]
        return MOVED_DAY * (1 - that_day) + MOVED * (1 - as_before) - cp_model.LinearExpr.sum(same)

    def _order(self, before: OpenTask, task: OpenTask, edge: After) -> None:
        m, begins, end = self.model, self.begins[task.id], self.ends[before.id]
        there = self._if(task.id)
        if before.id in self.present:
            m.add_implication(self.present[task.id], self.present[before.id])
        if edge.stage is None or not before.stages:
            m.add(begins * VISIT_MIN >= self.end_min[before.id] + edge.wait_min).only_enforce_if(there)
            return
        for wait, lit in self._waits(before, edge.stage):
            m.add(begins >= end + wait).only_enforce_if(lit, *there)
        if not edge.sanded and before.latest_after is not None and task.stages:
            latest = self.end_min[before.id] + before.latest_after
            m.add(begins * VISIT_MIN <= latest).only_enforce_if(there)

    def _waits(self, task: OpenTask, stage: DryingStage) -> list[tuple[int, cp_model.IntVar]]:
        """What follows a film waits so many marks from its end where a literal holds: one for each piece of its
        stretches."""
        if (task.id, stage) not in self.waits:
            m, end, out = self.model, self.ends[task.id], list[tuple[int, cp_model.IntVar]]()
            for stretch, lit in self.at[task.id]:
                pieces = self._pieces(task, stretch, stage)
                inside = [m.new_bool_var("") for _ in pieces] if len(pieces) > 1 else [lit]
                if len(pieces) > 1:
                    m.add(sum(inside) == lit)
                for piece, chosen in zip(pieces, inside, strict=True):
                    m.add(end >= piece.first).only_enforce_if(chosen)
                    m.add(end <= piece.last).only_enforce_if(chosen)
                    out.append((piece.wait, chosen))
            self.waits[task.id, stage] = out
        return self.waits[task.id, stage]

    def _pieces(self, task: OpenTask, stretch: Stretch, stage: DryingStage) -> list[_Piece]:
        """A stretch by the ends of a film after which the waits are nearly alike."""
        found: list[_Piece] = []
        for end in range(stretch.first + 1, stretch.end + 1):
            lag, last = self.lag(task, end, stage), found[-1] if found else None
            alone = end == self._ended(task)
            if last is not None and last.takes(lag) and not alone and last.last != self._ended(task):
                found[-1] = _Piece(last.first, end, min(last.least, lag), max(last.wait, lag))
            else:
                found.append(_Piece(end, end, lag, lag))
        return found

    def _ended(self, task: OpenTask) -> int | None:
        """The mark at which it ended in the plan before, whose wait is told exactly, so that what follows may stay."""
        if task.id not in self.stand:
            return None
        minute, hands = self.stand[task.id]
        minutes = dict(modes_of(task, self.people)).get(hands)
        return None if minutes is None else minute // VISIT_MIN + ceil(minutes / VISIT_MIN)

    def lag(self, task: OpenTask, end: int, stage: DryingStage) -> int:
        """Marks from the end of a film until a stage is reached; more than there are where it is not."""
        at = float(task.stages[stage][min(max(0, ceil(end / MARKS) - 1), len(task.stages[stage]) - 1)])
        return ceil((at - self.start) / 60 / VISIT_MIN) - end if isfinite(at) else 2 * self.horizon

    def hint(self, placements: Sequence[Placement]) -> None:
        placed = {p.id: p for p in placements}
        for id_, there in self.present.items():
            self.model.add_hint(there, id_ in placed)
        for id_, modes in self.modes.items():
            p = placed.get(id_)
            at = p.start // VISIT_MIN if p is not None else -1
            if p is not None:
                self.model.add_hint(self.begins[id_], at)
            for stretch, lit in self.at[id_]:
                self.model.add_hint(lit, stretch.first <= at < stretch.end)
            for mode in modes:
                if mode.taken is not None:
                    self.model.add_hint(mode.taken, p is not None and mode.hands == (p.hands or self.people))
        days = {p.start // (24 * 60) for p in placements}
        for day, used in self.on_site.items():
            self.model.add_hint(used, day in days)

    def placements(self, value: Callable[[cp_model.LinearExprT], int]) -> tuple[Placement, ...]:
        out = []
        for id_, modes in self.modes.items():
            if id_ in self.present and not value(self.present[id_]):
                continue
            begins = value(self.begins[id_]) * VISIT_MIN
            mode = next(m for m in modes if m.taken is None or value(m.taken))
            out.append(Placement(id_, begins, begins + mode.minutes, begins, None, mode.hands))
        return tuple(sorted(out, key=lambda p: p.start))


def stretches(allowed: npt.NDArray[np.bool_], shift: npt.NDArray[np.int64], begin: int = 0) -> list[Stretch]:
    """Open marks in a row, within one shift each, from mark `begin` on."""
    good = np.where(allowed, shift, -1)
    edges = np.flatnonzero(np.diff(good)) + 1
    bounds = [0, *edges.tolist(), len(good)]
    found = [Stretch(max(a * MARKS, begin), b * MARKS) for a, b in pairwise(bounds) if good[a] >= 0]
    return [s for s in found if s.first < s.end]
