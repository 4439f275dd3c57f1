"""The why panel: every rule for one slot of one face, with value, limit and headroom."""

from dataclasses import dataclass
from datetime import datetime

import numpy as np

from amber_gable.core.weather.rules import LETTERS
from amber_gable.core.weather.windows import SlotReadings, Windows, moment
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.units import quantity_of
from amber_gable.web.views.units import Units


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
    """`answer` is the one line to read from the ladder; `then` what follows from it."""

    title: str
    ok: bool
    answer: str
    then: str
    rows: list[RuleRow]
    readings: list[tuple[str, str, str]]
    stages: list[tuple[str, str]]
    previous: datetime | None
    following: datetime | None


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


def why_panel(name: str, windows: Windows, readings: SlotReadings, slot: int, units: Units) -> Why:
    """Slot `slot` of the one-row windows."""
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
        rows.append(
            RuleRow(
                number=rule.number,
                letter=rule.letter,
                label=rule.label,
                value=f"{shown} {symbol}",
                limit=f"{sign} {at_most} {symbol}" if np.isfinite(limit) else "no limit now",
                headroom=left if np.isfinite(room) else "–",
                holds=room >= 0,
                helps=rule.helps,
                source=check.source,
            )
        )
    start, ok = slots.time(slot), bool(windows.ok[0, slot])
    end = slot
    while end < len(slots) and windows.ok[0, end] == ok and slots.day[end] == slots.day[slot]:
        end += 1
    until = slots.time(end)
    if ok:
        answer, then = f"Yes, until {until:%H:%M}", "Last stroke of this window. All ten rules hold."
    else:
        letters = windows.letters(0, slot)
        answer = "No: " + LETTERS[letters[0]]
        later = np.flatnonzero(windows.ok[0, slot:])
        opens = slots.time(slot + int(later[0])) if later.size else None
        then = (
            f"Next window opens {opens:%a} {opens.day} {opens:%b %H:%M}." if opens else "No window in the days shown."
        )
    stages = []
    for label, at in (
        ("Dry to touch", windows.touch_at),
        ("Rain-ready", windows.rain_ready_at),
        ("Recoat", windows.recoat_at),
    ):
        t = None if at is None else moment(float(at[0, slot]), slots)
        stages.append((label, f"{t:%a %H:%M}" if t else "not in the days known"))
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
    return Why(
        title=f"{name}, {start:%a} {start.day} {start:%b %H:%M}",
        ok=ok,
        answer=answer,
        then=then,
        rows=rows,
        readings=values,
        stages=stages,
        previous=slots.time(slot - 1) if slot else None,
        following=slots.time(slot + 1) if slot + 1 < len(slots) else None,
    )


def slot_of(windows: Windows, t: datetime) -> int:
    """The slot that holds a moment, kept inside the slots there are."""
    return int(np.clip((t.timestamp() - windows.slots.start) // SLOT_S, 0, len(windows.slots) - 1))
