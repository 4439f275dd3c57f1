"""The person-hours of a job: every operation, every move, every day, and how sure their sum is."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import exp, log

import numpy as np

from amber_gable.core.estimate.draw import AREA_SPREAD, FOUND_SPREAD, Z_10, Draw
from amber_gable.core.estimate.site_days import SiteDays
from amber_gable.core.estimate.site_work import site_work
from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.core.weather.outdoors.air import Array
from amber_gable.core.work.labour import Labour
from amber_gable.core.work.pace import Pace, pace_of
from amber_gable.core.work.record import PartWork, SideLine, job_work
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.operation import Operation
from amber_gable.domain.work.rates import Rate


@dataclass(frozen=True)
class HourLine:
    """One line of the estimate: its work, on which part (none for the whole job), and which operation (none for what
    goes with them)."""

    words: str
    labour: Labour
    part: Key | None = None
    operation: Operation | None = None

    @property
    def hours(self) -> float:
        return self.labour.hours

    @property
    def found(self) -> bool:
        """Whether its amount is a share told by eye."""
        return self.operation is not None and self.operation.share < 1

    @property
    def spread(self) -> float:
        """Geometric standard deviation of its hours."""
        parts = [self.labour.rate.spread, AREA_SPREAD, *([FOUND_SPREAD] if self.found else [])]
        return exp(sum(log(s) ** 2 for s in parts) ** 0.5)

    @property
    def band(self) -> tuple[float, float]:
        """Hours that nine in ten such lines stay above, and below."""
        far = self.spread**Z_10
        return self.hours / far, self.hours * far


@dataclass(frozen=True)
class Doubt:
    """A rate, the hours computed with it, and its share (0-1) of the variance of the job's hours."""

    rate: Rate
    hours: float
    share: float


@dataclass(frozen=True)
class Hours:
    """All hours of a job. `hours` is the sum of the lines, each at its median; the sum of many medians of skew figures
    is rather low, so that the middle of what may come lies above it."""

    lines: tuple[HourLine, ...]
    days: SiteDays
    work: Mapping[Key, PartWork]
    parts: Mapping[Key, PaintedPart]
    pace: Pace
    draw: Draw

    @cached_property
    def hours(self) -> float:
        return sum(line.hours for line in self.lines)

    @cached_property
    def _band(self) -> tuple[float, float, float]:
        if not self.lines:
            return 0.0, 0.0, 0.0
        found = np.quantile(hour_samples(self.lines, self.draw), (0.1, 0.5, 0.9))
        return float(found[0]), float(found[1]), float(found[2])

    @property
    def p10(self) -> float:
        return self._band[0]

    @property
    def p50(self) -> float:
        return self._band[1]

    @property
    def p90(self) -> float:
        return self._band[2]

    @cached_property
    def doubts(self) -> list["Doubt"]:
        """What the range hangs on, the most first: by the share of each rate in the variance of the sum."""
        found: dict[str, list[HourLine]] = {}
        for line in self.lines:
            found.setdefault(line.labour.rate.code, []).append(line)
        sums = {code: sum(line.hours for line in lines) for code, lines in found.items()}
        parts = {code: (sums[code] * log(lines[0].labour.rate.spread)) ** 2 for code, lines in found.items()}
        total = sum(parts.values()) or 1.0
        order = sorted(found, key=lambda code: -parts[code])
        return [Doubt(found[code][0].labour.rate, sums[code], parts[code] / total) for code in order]

    def of_face(self, face: str) -> list[HourLine]:
        """The lines of the parts of a face."""
        return [line for line in self.lines if line.part is not None and self.parts[line.part].face.id == face]

    @property
    def of_job(self) -> list[HourLine]:
        """What belongs to the job and to no part."""
        return [line for line in self.lines if line.part is None]


def job_hours(bundle: JobBundle, draw: Draw | None = None) -> Hours:
    """The hours of everything that has a finish; their range is told from what was drawn."""
    parts, pace = painted_parts(bundle.property, bundle.deduction), pace_of(bundle)
    work = job_work(bundle, parts)
    days, side = site_work(bundle, work, parts, pace)
    return Hours(tuple(_lines(work, side)), days, work, parts, pace, draw or Draw())


def _lines(work: Mapping[Key, PartWork], side: tuple[SideLine, ...]) -> Iterator[HourLine]:
    for key, part in work.items():
        for line in part.lines:
            yield HourLine(line.operation.name, line.labour, key, line.operation)
        if part.moves is not None:
            yield HourLine(part.moves.words, part.moves.labour, key)
    for extra in side:
        yield HourLine(extra.words, extra.labour, extra.part)


def hour_samples(lines: Sequence[HourLine], draw: Draw) -> Array:
    """(samples,): the hours of a job, drawn. Lines of one rate are right or wrong together, for it is one crew's; so
    are all surfaces, and all shares told by eye."""
    total = np.zeros(draw.samples)
    for code in sorted({line.labour.rate.code for line in lines}):
        mine = [line for line in lines if line.labour.rate.code == code]
        sure = sum(line.hours for line in mine if not line.found)
        by_eye = sum(line.hours for line in mine if line.found)
        total += draw.of(f"rate {code}", mine[0].labour.rate.spread) * (sure + draw.found * by_eye)
    return np.asarray(draw.area * total)
