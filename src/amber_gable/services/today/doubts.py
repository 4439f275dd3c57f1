"""A coat that is said to be laid when it can hardly have been: on a film that was not ready, over one that nobody
noted, on wet wood, against a stop. It is asked about once, and taken with a reason."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from itertools import takewhile

from amber_gable.core.state.part_state import CellState, PartState
from amber_gable.core.state.part_waits import waits_of
from amber_gable.core.state.surroundings import Surroundings
from amber_gable.core.state.wait import Wait
from amber_gable.core.survey.amounts.painted import Key
from amber_gable.core.work.stints import stints
from amber_gable.core.work.waits import WHOLE
from amber_gable.domain.errors import Refused
from amber_gable.domain.job.site_record import Extent
from amber_gable.domain.wording import timed_at
from amber_gable.domain.work.mending import Mend
from amber_gable.services.job.view import JobView

Planned = Mapping[tuple[Key, str], datetime]
"""When each step of each part is to be behind, as the plan says."""
_BARS = "BMS"
"""Letters of what bars a coat: a film or step below, water, a stop. What other people do is theirs to note."""


@dataclass(frozen=True)
class Doubt:
    """Why the work can hardly have been done then. `since`: from when on it could be, where that is known."""

    work: str
    words: str
    since: datetime | None


class Doubted(Refused):
    """Work that is asked about before it is entered."""

    def __init__(self, doubts: Sequence[Doubt], at: datetime) -> None:
        said = "; ".join(dict.fromkeys(f"{d.work}: {d.words}" for d in doubts))
        super().__init__({"at": f"{said}. Give another time, or say in a few words why it is so"})
        self.doubts, self.at = tuple(doubts), at


def doubts(view: JobView, work: Iterable[tuple[str, Extent, Sequence[str]]], at: datetime) -> list[Doubt]:
    """Of pieces of work (what they are called, where, which steps) said to be done at that moment. Without weather
    nothing is doubted."""
    state = view.state
    if state is None:
        return []
    around = replace(state.around, now=at.astimezone(state.around.tz))
    out = []
    for name, extent, steps in work:
        found = [
            wait
            for key in extent.parts
            for part, cell in _stretches(state.parts, key, extent)
            for wait in _against(around, state.planned, part, cell, steps)
        ]
        if found:
            # The last of them to end says from when on it could be true.
            ends = [w.until for w in found]
            since = None if None in ends else max(e for e in ends if e is not None)
            told = "; ".join(dict.fromkeys(w.words for w in found))
            out.append(Doubt(name, told, since))
    return out


def _stretches(parts: dict[Key, PartState], key: Key, extent: Extent) -> list[tuple[PartState, CellState]]:
    part = parts.get(key)
    cells = part.cells if part is not None else ()
    return [(part, c) for c in cells if part and extent.overlaps(c.cell.left, c.cell.right)]


def _against(
    around: Surroundings, planned: Planned, part: PartState, cell: CellState, steps: Sequence[str]
) -> list[Wait]:
    """What bars the film among those steps on the stretch. A step before it that nobody noted was done when its planned
    time is over, unless it is a film."""
    stint = next((s for s in stints(cell.cell.open) if s.lays_film and s.first.id in steps), None)
    if stint is None:
        return []
    before = list(takewhile(lambda o: o.id != stint.first.id, cell.cell.open))
    films = [o for o in before if o.kind.lays_film and (o.share >= WHOLE or isinstance(o, Mend))]
    missing = [Wait("B", f"{_lowered(o.name)} is not noted", None) for o in films]
    ends = ((o, planned.get((part.part.key, o.id))) for o in before if o not in films)
    ahead = next(((o, end) for o, end in ends if end is not None and end > around.now), None)
    if ahead is not None:
        words = f"{_lowered(ahead[0].name)} is not noted, and planned until {timed_at(ahead[1], around.tz)}"
        missing.append(Wait("B", words, None))
    waits = waits_of(around, part.part, part.finish, cell.cell, cell.film, stint)
    return missing + [w for w in waits if w.letter in _BARS and (w.until is None or w.until > around.now)]


def _lowered(name: str) -> str:
    return name[:1].lower() + name[1:]
