"""The why panel: every rule for one slot of one face, with value, limit and headroom."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, tzinfo
from typing import TYPE_CHECKING

import numpy as np

from amber_gable.domain.units import quantity_of
from amber_gable.domain.weather.letters import LETTERS
from amber_gable.domain.wording import timed, timed_at
from amber_gable.services.weather.faces.judged_faces import JudgedFace
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.timescale import between

if TYPE_CHECKING:
    from amber_gable.core.state.wait import Wait
    from amber_gable.core.weather.film.drying import DryingStage
    from amber_gable.core.weather.futures.members import Odds
    from amber_gable.core.weather.judged.slots import Slots


@dataclass(frozen=True)
class RuleRow:
    number: int
    letter: str
    label: str
    value: str
    limit: str
    headroom: str
    holds: bool
    helps: str
    source: str = ""


@dataclass(frozen=True)
class Why:
    """`answer` is the one line to read from the ladder; `then` what follows from it. stages: what, when, and between
    which times in 8 of 10 futures. sure: share of the futures in which the slot is open (None: not worked out), `risk`
    what closes it in the others."""

    title: str
    what: str
    ok: bool
    answer: str
    then: str
    rows: list[RuleRow]
    readings: list[tuple[str, str, str]]
    stages: list[tuple[str, str, str]]
    sure: float | None
    risk: str
    previous: datetime | None
    following: datetime | None


_STAGES = {
    "touch": "Dry to touch",
    "rain-ready": "Rain-ready",
    "recoat": "Recoat",
    "foot": "Fit for feet",
    "furniture": "For furniture",
}
_DIGITS = {"%": 0, "W/m²": 0, "g/m²": 0}


def _figure(value: float, symbol: str, units: Units) -> tuple[str, str]:
    """A figure and its unit in the reader's system; what both share (%, h, W/m²) stays."""
    kind, digits = quantity_of(symbol), _DIGITS.get(symbol, 1)
    if kind is not None:
        return units.figure(value, kind, digits), units.symbol(kind)
    if not np.isfinite(value):
        return "none", symbol
    text = f"{value:.{digits}f}"
    return (f"{0:.{digits}f}" if float(text) == 0 else text), symbol


def why_panel(row: JudgedFace, at: datetime, units: Units, odds: Odds | None = None) -> Why:
    """Why a face's step may be done at a moment or may not; `odds` of the row where they are worked out."""
    windows, readings, slot = row.windows, row.readings(), row.slot_of(at)
    slots = windows.slots
    rows = []
    for check in sorted(windows.checks, key=lambda c: (not c.stops[0, slot], c.rule.number or 99, c.rule.id)):
        rule = check.rule
        value, limit = float(check.value[0, slot]), float(check.limit[0, slot])
        room = float(check.headroom[0, slot])
        sign = "≥" if rule.least else "≤"
        shown, symbol = _figure(value, rule.unit, units)
        at_most, _ = _figure(limit, rule.unit, units)
        # Room is a difference: 5 °C of it are 9 °F.
        left, _ = _figure(room, "K" if rule.unit == "°C" else rule.unit, units)
        # A rule without a unit asks yes or no.
        told = f"{shown} {symbol}" if rule.unit else "known" if room >= 0 else "not known"
        bound = f"{sign} {at_most} {symbol}" if np.isfinite(limit) else "no limit now"
        rows.append(
            RuleRow(
                number=rule.number,
                letter=rule.letter,
                label=rule.label,
                value=told,
                limit=bound if rule.unit else "",
                headroom=left if rule.unit and np.isfinite(room) else "–",
                holds=room >= 0,
                helps=rule.helps,
                source=check.source,
            )
        )
    start = slots.time(slot)
    answer = row.answer(at)
    words = row.told(at)
    holding = sum(r.holds for r in rows)
    if row.judged is not None and answer.waits:
        rows = [_state_row(w, slots.tz) for w in answer.waits] + rows
    sure = None if odds is None or slot >= len(odds.share) else float(row.share(odds)[slot])
    stages = [
        (_STAGES[stage], f"{t:%a %H:%M}" if t else "not in the days known", _between(stage, t, odds, slot, slots))
        for stage, t in row.stages(slot)
    ]
    measured = [
        ("Air", readings.air, "°C"),
        ("Humidity", readings.rh, "%"),
        ("Dew point", readings.dew, "°C"),
        ("Surface", readings.surface, "°C"),
        ("Above dew", readings.dew_margin, "K"),
        ("Sun on face", readings.poa_direct, "W/m²"),
    ]
    values = [(label, *_figure(float(found[0, slot]), symbol, units)) for label, found, symbol in measured]
    if windows.wet_edge_min is not None:
        values.append(("Wet edge", f"{windows.wet_edge_min[0, slot]:.0f}", "min"))
    laps = " The edge dries before an arm's reach is filled: lap marks." if row.shows_laps(slot) else ""
    section = row.section_m2(slot)
    if section is not None:
        values.append(("Wet section", *_figure(section, "m²", units)))
    return Why(
        title=f"{row.face.name}, {timed(start)}",
        what=row.what,
        ok=words.ok,
        answer=words.headline,
        then=f"{words.then} {holding} of {len(windows.checks)} weather rules hold.{laps}".strip(),
        rows=rows,
        readings=values,
        stages=stages,
        sure=sure,
        risk=_risk(odds, slot) if sure is not None and odds is not None and words.ok else "",
        previous=slots.time(slot - 1) if slot else None,
        following=slots.time(slot + 1) if slot + 1 < len(slots) else None,
    )


def _state_row(wait: Wait, tz: tzinfo) -> RuleRow:
    """What the part waits for, as a row above the weather's rules."""
    until = timed_at(wait.until, tz) if wait.until is not None else "no day known"
    return RuleRow(0, wait.letter, wait.words[:1].upper() + wait.words[1:], "not yet", until, "–", False, wait.lifts)


def _risk(odds: Odds, slot: int) -> str:
    letter = odds.stopping_letter(slot)
    return f"{LETTERS[letter]} in {odds.stopped[slot] * 100:.0f} %" if letter else ""


def _between(stage: DryingStage, likely: datetime | None, odds: Odds | None, slot: int, slots: Slots) -> str:
    """Between which times in 8 of 10 futures; '' where it is not worked out."""
    if odds is None or slot >= len(odds.share):
        return ""
    at = odds.stage_at(stage)
    if at is None or not np.isfinite(at[0, slot]):
        return ""
    early, late = (slots.moment(float(t)) for t in (at[0, slot], at[2, slot]))
    assert early is not None
    return between(early, late, likely or early)
