"""Days side by side, 04 to 22 h: where a moment stands on the lanes."""

import json
from dataclasses import dataclass
from datetime import datetime, timedelta

from amber_gable.domain.grid import SLOT_H

FIRST_H, LAST_H = 4, 22
HOURS = LAST_H - FIRST_H
HOUR_W, DAY_GAP = 12.0, 12.0


@dataclass(frozen=True)
class TimeScale:
    """Horizontal positions, px, for `days` local days from the midnight `begin`, an hour being `hour_w` wide."""

    begin: datetime
    days: int
    hour_w: float = HOUR_W

    @property
    def slot_w(self) -> float:
        return self.hour_w * SLOT_H

    @property
    def day_w(self) -> float:
        return self.hour_w * HOURS

    @property
    def width(self) -> float:
        return self.day_x(self.days) - DAY_GAP

    def day_x(self, day: int) -> float:
        return day * (self.day_w + DAY_GAP)

    def midnight(self, day: int) -> datetime:
        return self.begin + timedelta(days=day)

    @property
    def starts(self) -> list[int]:
        """Epoch second at which each day's strip begins; days are not all 24 hours long where the clock changes."""
        return [int(self.midnight(day).replace(hour=FIRST_H).timestamp()) for day in range(self.days)]

    def x(self, day: int, hour: float) -> float:
        """Hours before 04 and after 22 stand at the day's edges."""
        return self.day_x(day) + (min(max(hour, FIRST_H), LAST_H) - FIRST_H) * self.hour_w

    def at(self, t: datetime) -> float | None:
        """None outside the days shown."""
        local = t.astimezone(self.begin.tzinfo)
        day = (local.date() - self.begin.date()).days
        if not 0 <= day < self.days:
            return None
        return self.x(day, local.hour + local.minute / 60)

    def pieces(self, start: datetime, end: datetime) -> list[tuple[float, float]]:
        """(x, width) of a stretch of time, one for each day it touches, nights left out."""
        out = []
        start, end = start.astimezone(self.begin.tzinfo), end.astimezone(self.begin.tzinfo)
        first, last = ((t.date() - self.begin.date()).days for t in (start, end))
        for day in range(max(first, 0), min(last + 1, self.days)):
            midnight = self.midnight(day)
            a = max((start - midnight).total_seconds() / 3600, FIRST_H)
            b = min((end - midnight).total_seconds() / 3600, LAST_H)
            if b > a:
                x = self.x(day, a)
                out.append((x, self.x(day, b) - x))
        return out


def between(early: datetime, late: datetime | None, beside: datetime) -> str:
    """'13:50–15:10', 'Tue 23:18–Wed 06:01', or, where the end is not known, 'Tue 13:50 or later'. The day is said where
    it is not that of the moment it stands `beside`."""
    begins = early.strftime("%H:%M" if early.date() == beside.date() else "%a %H:%M")
    if late is None:
        return f"{begins} or later"
    return f"{begins}–{late.strftime('%H:%M' if late.date() == early.date() else '%a %H:%M')}"


def script_json(value: object) -> str:
    """JSON that may stand inside a script element: nothing in it can end that."""
    return json.dumps(value).replace("<", "\\u003c")
