"""What the states of a job's parts are worked out from, and what of it speaks of one stretch."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, tzinfo
from functools import cached_property

from amber_gable.core.climate.job_climate import SiteClimate
from amber_gable.core.specification.cautions.stops import Stop
from amber_gable.core.state.film import Film, film_of
from amber_gable.core.state.progress import Cell, Progress, cells, progress
from amber_gable.core.survey.amounts.painted import Key, PaintedPart
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import SiteEntry
from amber_gable.domain.work.finish import Finish, coat_colour
from amber_gable.domain.work.operation import Operation


@dataclass(frozen=True)
class Surroundings:
    """What the states of all parts of a job are worked out from."""

    site: SiteClimate
    now: datetime
    record: Progress
    stops: Mapping[Key, Sequence[Stop]]
    parts: Mapping[Key, PaintedPart]

    @property
    def tz(self) -> tzinfo:
        return self.site.slots.tz

    @cached_property
    def _found(self) -> dict[Key, tuple[list[Cell], list[Film | None]]]:
        return {}

    def cells(self, finish: Finish) -> list[Cell]:
        """The stretches of a finished part, worked out once."""
        return self._of(finish)[0]

    def films(self, finish: Finish) -> list[Film | None]:
        """The film on top of each of them."""
        return self._of(finish)[1]

    def _of(self, finish: Finish) -> tuple[list[Cell], list[Film | None]]:
        if finish.part not in self._found:
            found = cells(finish.part, steps_of(self.site.bundle, finish), self.record)
            part = self.parts[finish.part]
            self._found[finish.part] = (found, [top_film(self, part, finish, c) for c in found])
        return self._found[finish.part]


def noted(cell: Cell) -> list[tuple[Operation, SiteEntry]]:
    """The steps behind the work. One that nobody noted is taken to have ended when the next noted one did."""
    out: list[tuple[Operation, SiteEntry]] = []
    later: SiteEntry | None = cell.running
    for operation, entry in reversed(list(zip(cell.operations, cell.done, strict=True))):
        later = entry or later
        if later is not None and (entry is not None or operation in cell.passed):
            out.append((operation, later))
    return out[::-1]


def part_noted(bundle: JobBundle, key: Key) -> list[tuple[Operation, SiteEntry]]:
    """The steps of a part that were noted anywhere on it."""
    finish = bundle.finish_of(*key)
    if finish is None:
        return []
    return [pair for cell in cells(key, steps_of(bundle, finish), progress(bundle.job.record)) for pair in noted(cell)]


def top_film(around: Surroundings, part: PaintedPart, finish: Finish, cell: Cell) -> Film | None:
    """The film on top, as it was noted; None where there is none."""
    laid = laid_in(cell)
    return film_noted(around, part, finish, *laid[-1]) if laid else None


def laid_in(cell: Cell) -> list[tuple[Operation, SiteEntry]]:
    """The films that were noted, in the order of their steps."""
    return [(o, e) for o, e in zip(cell.operations, cell.done, strict=True) if o.kind.lays_film and e is not None]


def film_noted(
    around: Surroundings, part: PaintedPart, finish: Finish, operation: Operation, entry: SiteEntry
) -> Film | None:
    """A film as it was noted; an entry without its product is taken as specified."""
    products = {p.code: p for p in around.site.bundle.products}
    product = products.get(entry.product or "") or products.get(operation.product or "")
    if product is None:
        return None
    colour = entry.colour or coat_colour(operation, product, finish.colour)
    return film_of(around.site, part.part, product, colour, entry.at, operation.where)
