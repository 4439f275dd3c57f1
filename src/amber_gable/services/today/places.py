"""Where each piece of work stands on the page of Today: what was just noted keeps its place, so that the next never
comes under the finger that noted it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from amber_gable.core.plan.visits import Visit
from amber_gable.core.state.job_state import TaskState
from amber_gable.domain.job.site_record import SiteEntry
from amber_gable.services.today.day_sheet import DaySheet, SheetVisit, Touch
from amber_gable.services.today.noting import Noted

NOTED, BEFORE = "noted:", "before:"
"""How a place is called at which something was noted, or had been noted before: this and the touch. One of open work is
called by its task."""

NOTED_LATE = timedelta(minutes=20)
"""So long after its planned end it is asked whether work that is noted was done when it was planned."""


@dataclass(frozen=True)
class Place:
    """A visit; `touch`: what was noted of it here, or had been `before` it was tapped here."""

    visit: SheetVisit
    touch: Touch | None = None
    before: bool = False

    @property
    def as_planned(self) -> datetime | None:
        """When it was to be behind, where it was noted much later: what follows waits from when it was so."""
        end = self.visit.visit.end
        late = self.touch is not None and not self.before and self.touch.at - end > NOTED_LATE
        return end if late else None

    @property
    def called(self) -> str:
        if self.touch is None:
            return self.visit.first.task.id
        return f"{BEFORE if self.before else NOTED}{self.touch.id}"


def after(called: Sequence[str], tasks: Sequence[str], noted: Noted) -> list[str]:
    """The places once some of their tasks were noted."""
    name = f"{BEFORE if noted.before else NOTED}{noted.touch}"
    out = [name if one in tasks else one for one in called]
    return out if name in out else [*out, name]


def cards(sheet: DaySheet, called: Sequence[str]) -> list[Place]:
    """What is done now and next, in the places they have; what they did not show yet comes last."""
    left = [v for v in (sheet.now, sheet.next) if v is not None]
    out = []
    for one in called:
        place = _noted(sheet, one)
        if place is not None:
            out.append(place)
            continue
        ids = {s.task.id for s in _spoken_of(sheet, one)} or {one}
        found = next((v for v in left if ids & set(v.ids)), None)
        if found is not None:
            out.append(Place(found))
            left.remove(found)
    return out + [Place(v) for v in left]


def rows(sheet: DaySheet, open_visits: Iterable[SheetVisit], called: Sequence[str], *, late: bool) -> list[Place]:
    """Open visits of the day, or of the days before it where they are `late`, with what was noted among them."""
    noted = [p for one in called if (p := _noted(sheet, one)) is not None]
    here = [p for p in noted if (p.visit.visit.start.astimezone(sheet.zone).date() < sheet.day) is late]
    return sorted([*map(Place, open_visits), *here], key=lambda p: p.visit.visit.start)


def _noted(sheet: DaySheet, called: str) -> Place | None:
    """None where it is no such place, where the touch was taken back, or where the work is open after it."""
    touch = next((t for t in sheet.touches_of_any_day if t.id == _touch_of(called)), None)
    behind = [s for s in _spoken_of(sheet, called) if not s.open]
    if touch is None or not behind:
        return None
    visit = SheetVisit(Visit(tuple(behind)), tuple(sheet.line(s) for s in behind))
    return Place(visit, touch, before=called.startswith(BEFORE))


def _touch_of(called: str) -> str:
    """Empty where it is no place at which something was noted."""
    return next((called.removeprefix(kind) for kind in (NOTED, BEFORE) if called.startswith(kind)), "")


def _spoken_of(sheet: DaySheet, called: str) -> list[TaskState]:
    """The tasks of which that touch spoke, taken back or not."""
    touch = _touch_of(called)
    entries = [e for e in sheet.view.bundle.job.record if touch and e.touch == touch and e.extent is not None]
    return [s for s in sheet.states if any(_speaks_of(e, s) for e in entries)]


def _speaks_of(entry: SiteEntry, state: TaskState) -> bool:
    mine, its = entry.extent, state.task.extent
    if mine is None or its is None or not set(entry.steps) & set(state.task.steps):
        return False
    return mine.meets(its)
