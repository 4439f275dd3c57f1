"""Where the hours of a job are: a bar for each face and one for the job, cut into kinds of work, with its lines."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import accumulate, groupby
from typing import TYPE_CHECKING

from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.web.views.estimate.reckoned import reckoned

if TYPE_CHECKING:
    from amber_gable.core.estimate.estimate import Estimate
    from amber_gable.core.estimate.hours import HourLine

KINDS = (
    # key, words; in the order of the work
    ("around", "Cover, mask, clear"),
    ("wash", "Wash"),
    ("strip", "Scrape and sand"),
    ("mend", "Mend and caulk"),
    ("prime", "Prime"),
    ("coat", "Coat"),
    ("up", "Ladders and towers"),
    ("days", "Every day"),
    ("once", "Once a job"),
)
_OF = {
    K.FIT: "around", K.PROTECT: "around", K.MASK: "around", K.CLEAN: "around",
    K.WASH: "wash", K.STRIP: "wash",
    K.SCRAPE: "strip", K.SAND: "strip", K.DUST: "strip",
    K.REPAIR: "mend", K.PUTTY: "mend", K.CAULK: "mend",
    K.PRIME: "prime", K.COAT: "coat",
}  # fmt: skip
_BY_DAY = ("day", "travel", "sprayer-day", "vehicle", "fall-gear")
_TOLD_PCT, _TOLD_NARROW_PCT = 9.0, 24.0
"""Of the longest bar: a piece that wide bears its words on a table, on a phone."""


def kind_of(line: HourLine) -> str:
    if line.operation is not None:
        return _OF[line.operation.kind]
    if line.labour.rate.code == "edge-tape":
        return "around"
    if line.part is not None:
        return "up"
    return "days" if line.labour.rate.code in _BY_DAY else "once"


@dataclass(frozen=True)
class BarPiece:
    """A stretch of a bar: where it begins and how long it is, in % of the longest bar."""

    kind: str
    words: str
    hours: float
    x: float
    width: float

    @property
    def told(self) -> str:
        """Class of its words: always, on a table only, or never shown."""
        return "" if self.width >= _TOLD_NARROW_PCT else "wide" if self.width >= _TOLD_PCT else "never"


@dataclass(frozen=True)
class Row:
    """A line of the estimate as it is shown."""

    words: str
    reckoned: str
    source: str
    hours: float
    low: float
    high: float
    kind: str


@dataclass(frozen=True)
class Group:
    """The lines of one part."""

    name: str
    hours: float
    rows: tuple[Row, ...]


@dataclass(frozen=True)
class HoursBar:
    """A face, or the job where `face` is empty."""

    face: str
    name: str
    hours: float
    pieces: tuple[BarPiece, ...]
    groups: tuple[Group, ...]


def bars(estimate: Estimate) -> list[HoursBar]:
    """Faces in the order of the survey, the job itself last."""
    hours = estimate.hours
    faces = {p.face.id: p.face for p in hours.parts.values()}
    rows = [*((f.id, f.name, hours.of_face(f.id)) for f in faces.values()), ("", "The job", hours.of_job)]
    found = [row for row in rows if row[2]]
    longest = max((sum(line.hours for line in lines) for _, _, lines in found), default=1.0)
    return [
        HoursBar(id_, name, sum(x.hours for x in lines), _pieces(lines, longest), tuple(_groups(lines, estimate)))
        for id_, name, lines in found
    ]


def _pieces(lines: Sequence[HourLine], longest: float) -> tuple[BarPiece, ...]:
    sums = {key: sum(line.hours for line in lines if kind_of(line) == key) for key, _ in KINDS}
    there = [(key, words, sums[key]) for key, words in KINDS if sums[key] > 0]
    starts = accumulate((h for *_, h in there), initial=0.0)
    return tuple(
        BarPiece(key, words, h, 100 * start / longest, 100 * h / longest)
        for (key, words, h), start in zip(there, starts, strict=False)
    )


def _groups(lines: Iterable[HourLine], estimate: Estimate) -> Iterable[Group]:
    for key, some in groupby(lines, key=lambda line: line.part):
        mine = tuple(_row(line) for line in some)
        name = "Not on any part" if key is None else estimate.hours.parts[key].name
        yield Group(name, sum(r.hours for r in mine), mine)


def _row(line: HourLine) -> Row:
    low, high = line.band
    rate = line.labour.rate
    return Row(line.words, reckoned(line.labour), f"{rate.source}: {rate.words}", line.hours, low, high, kind_of(line))


@dataclass(frozen=True)
class KindSum:
    key: str
    words: str
    hours: float
    pct: float


def kind_sums(estimate: Estimate) -> list[KindSum]:
    """The whole job by kinds of work."""
    total = estimate.hours.hours or 1.0
    sums = {key: sum(x.hours for x in estimate.hours.lines if kind_of(x) == key) for key, _ in KINDS}
    return [KindSum(key, words, sums[key], 100 * sums[key] / total) for key, words in KINDS if sums[key] > 0]


@dataclass(frozen=True)
class RangeMark:
    """A point of the range's scale, in % of its width."""

    x: float
    hours: float


@dataclass(frozen=True)
class HourRange:
    """The range on its scale: ends, the sum of the lines, the middle of what may come; ticks at round hours."""

    low: RangeMark
    lines: RangeMark
    middle: RangeMark
    high: RangeMark
    ticks: tuple[RangeMark, ...]


def hour_range(estimate: Estimate) -> HourRange:
    """From a little below nine in ten to a little above."""
    h = estimate.hours
    margin = 0.25 * (h.p90 - h.p10)
    first, last = max(h.p10 - margin, 0.0), h.p90 + margin
    span = last - first or 1.0

    def at(hours: float) -> RangeMark:
        return RangeMark(100 * (hours - first) / span, hours)

    step = next(s for s in (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 10_000) if span / s <= 8)
    ticks = tuple(at(n * step) for n in range(int(first / step) + 1, int(last / step) + 1))
    return HourRange(at(h.p10), at(h.hours), at(h.p50), at(h.p90), ticks)
