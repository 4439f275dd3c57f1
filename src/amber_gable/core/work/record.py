"""The work record: one line for each operation on each part and for what goes with it, which quantities, comparison,
plan, estimate and price read."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from amber_gable.core.survey.amounts.painted import Key, PaintedPart, painted_parts
from amber_gable.core.work.coverage import LOSS_PCT, coverage_source, theoretical_coverage
from amber_gable.core.work.labour import Labour, moves, part_labour
from amber_gable.core.work.pace import USUAL_PACE, Pace, pace_of
from amber_gable.core.work.steps import steps_of
from amber_gable.core.work.stints import stints
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.access import Access
from amber_gable.domain.work.finish import coat_colour
from amber_gable.domain.work.mending import Mend
from amber_gable.domain.work.operation import Operation


@dataclass(frozen=True)
class Paint:
    """What one coat takes: m² of surface, what a litre covers in theory and by whose word, what the method loses (%),
    how much more a thirsty surface drinks."""

    product: Product
    colour: str
    method: Method
    area_m2: float
    coverage_m2_l: float
    coverage_source: str
    loss_pct: float
    absorption: float

    @property
    def litres(self) -> float:
        return self.area_m2 * self.absorption / (self.coverage_m2_l * (1 - self.loss_pct / 100))


@dataclass(frozen=True)
class WorkLine:
    """One operation on one part: its labour, and the paint it takes where it lays a film."""

    part: Key
    operation: Operation
    labour: Labour
    paint: Paint | None

    @property
    def hours(self) -> float:
        """Of one person."""
        return self.labour.hours

    @property
    def litres(self) -> float:
        return self.paint.litres if self.paint is not None else 0.0


@dataclass(frozen=True)
class SideLine:
    """Work that goes along with operations: moving the ladder, setting up, driving."""

    words: str
    labour: Labour
    part: Key | None = None

    @property
    def hours(self) -> float:
        """Of one person."""
        return self.labour.hours


@dataclass(frozen=True)
class PartWork:
    """All work on a part: its operations in their order, and the moves of ladder, tower or lift for them. `possible`:
    what is only done where a look asks for it; it is in no sum."""

    lines: tuple[WorkLine, ...]
    moves: SideLine | None
    possible: tuple[WorkLine, ...] = ()

    @property
    def hours(self) -> float:
        return sum(line.hours for line in self.lines) + (self.moves.hours if self.moves else 0.0)


def coat_paint(part: PaintedPart, operation: Operation, product: Product, finish_colour: str) -> Paint | None:
    """What a coat of `product` takes on a part; None for an operation without a method of laying it."""
    if operation.method is None:
        return None
    return Paint(
        product=product,
        colour=coat_colour(operation, product, finish_colour),
        method=operation.method,
        area_m2=part.surface_m2 * operation.share,
        coverage_m2_l=theoretical_coverage(product),
        coverage_source=coverage_source(product),
        loss_pct=LOSS_PCT[operation.method],
        absorption=SUBSTRATES[part.substrate].absorption_bare if operation.bare else 1.0,
    )


def part_work(
    part: PaintedPart,
    operations: Sequence[Operation],
    products: Mapping[str, Product],
    finish_colour: str,
    pace: Pace = USUAL_PACE,
) -> PartWork:
    """The operations on a part, in their order."""
    lines = [
        WorkLine(
            part.key,
            o,
            part_labour(part, o, pace),
            coat_paint(part, o, products[o.product], finish_colour) if o.product is not None else None,
        )
        for o in operations
    ]
    sure = tuple(line for line in lines if not line.operation.possible)
    moved = part_moves(part, [line.operation for line in sure], pace)
    return PartWork(sure, moved, tuple(line for line in lines if line.operation.possible))


_MOVED = {Access.LADDER: "Ladder moves", Access.TOWER: "Tower moves", Access.LIFT: "Lift moves"}


def part_moves(part: PaintedPart, operations: Sequence[Operation], pace: Pace) -> SideLine | None:
    """The moves of all rounds of a part; a round is what is done in one go."""
    rounds = [m for s in stints(operations) if (m := moves(part, s.operations, pace)) is not None]
    if not rounds:
        return None
    words = f"{_MOVED[pace.way_up(part.face.id)]}, {len(rounds)} rounds"
    return SideLine(words, replace(rounds[0], amount=sum(m.amount for m in rounds)), part.key)


def job_work(bundle: JobBundle, parts: Mapping[Key, PaintedPart] | None = None) -> dict[Key, PartWork]:
    """The work of every part that has a finish, in the order of the finishes; `parts` where they are at hand."""
    parts, pace = parts or painted_parts(bundle.property, bundle.deduction), pace_of(bundle)
    products = {p.code: p for p in bundle.products}
    return {
        f.part: part_work(parts[f.part], [_of_part(o) for o in steps_of(bundle, f)], products, f.colour, pace)
        for f in bundle.job.finishes
    }


def _of_part(operation: Operation) -> Operation:
    """A step that is only there on a stretch, by its share of the whole part."""
    if not isinstance(operation, Mend):
        return operation
    return operation.model_copy(update={"share": operation.share * (operation.right - operation.left)})
