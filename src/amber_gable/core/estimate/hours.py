"""The person-hours of a job: every operation, every move, every day, and how sure their sum is."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from math import exp, log

import numpy as np

from amber_gable.core.estimate.site_days import SiteDays
from amber_gable.core.estimate.site_work import site_work
from amber_gable.core.survey.painted import Key, PaintedPart, painted_parts
from amber_gable.core.work.labour import Labour
from amber_gable.core.work.pace import Pace, pace_of
from amber_gable.core.work.record import PartWork, SideLine, job_work
from amber_gable.domain.job import JobBundle
from amber_gable.domain.operation import Operation

SAMPLES = 4000
Z_10 = 1.2815515655446004
"""Standard normal deviate of nine in ten."""
AREA_SPREAD = 1.03
"""Geometric standard deviation of a surface as taken: tape and drawing. An assumption."""
FOUND_SPREAD = 1.3
"""Of a share told by eye: how much is loose or bare is known when it is off. An assumption."""


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
class Hours:
    """All hours of a job. `hours` is the sum of the lines, each at its median; the sum of many medians of skew figures
    is rather low, so that the middle of what may come lies above it."""

    lines: tuple[HourLine, ...]
    days: SiteDays
    work: Mapping[Key, PartWork]
    parts: Mapping[Key, PaintedPart]
    pace: Pace
    seed: int

    @cached_property
    def hours(self) -> float:
        return sum(line.hours for line in self.lines)

    @cached_property
    def _band(self) -> tuple[float, float, float]:
        if not self.lines:
            return 0.0, 0.0, 0.0
        found = np.quantile(hour_samples(self.lines, self.seed), (0.1, 0.5, 0.9))
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

    def of_face(self, face: str) -> list[HourLine]:
        """The lines of the parts of a face."""
        return [line for line in self.lines if line.part is not None and self.parts[line.part].face.id == face]

    @property
    def of_job(self) -> list[HourLine]:
        """What belongs to the job and to no part."""
        return [line for line in self.lines if line.part is None]


def job_hours(bundle: JobBundle, seed: int = 0) -> Hours:
    """The hours of everything that has a finish. `seed` draws the sample its range is told from."""
    parts, pace = painted_parts(bundle.property, bundle.deduction), pace_of(bundle)
    work = job_work(bundle)
    days, side = site_work(bundle, work, parts, pace)
    return Hours(tuple(_lines(work, side)), days, work, parts, pace, seed)


def _lines(work: Mapping[Key, PartWork], side: tuple[SideLine, ...]) -> Iterator[HourLine]:
    for key, part in work.items():
        for line in part.lines:
            yield HourLine(line.operation.name, line.labour, key, line.operation)
        if part.moves is not None:
            yield HourLine(part.moves.words, part.moves.labour, key)
    for extra in side:
        yield HourLine(extra.words, extra.labour)


def hour_samples(lines: tuple[HourLine, ...], seed: int, samples: int = SAMPLES) -> np.ndarray:
    """(samples,): the hours of a job, drawn. Lines of one rate are right or wrong together, for it is one crew's; so
    are all surfaces, and all shares told by eye."""
    draw = np.random.default_rng(seed)
    codes = sorted({line.labour.rate.code for line in lines})
    spread = {line.labour.rate.code: line.labour.rate.spread for line in lines}
    sure, told = dict.fromkeys(codes, 0.0), dict.fromkeys(codes, 0.0)
    for line in lines:
        (told if line.found else sure)[line.labour.rate.code] += line.hours
    pace = np.exp(draw.standard_normal((samples, len(codes))) * np.log([spread[c] for c in codes]))
    area = np.exp(draw.standard_normal(samples) * log(AREA_SPREAD))
    found = np.exp(draw.standard_normal(samples) * log(FOUND_SPREAD))
    by_area = pace @ np.array([sure[c] for c in codes])
    by_eye = pace @ np.array([told[c] for c in codes])
    return np.asarray(area * (by_area + found * by_eye))
