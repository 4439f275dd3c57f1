"""Hours and litres of one operation on one part."""

from amber_gable.core.estimate.coverage import LOSS_PCT, theoretical_coverage
from amber_gable.core.estimate.labour import person_hours, texture_factor
from amber_gable.core.survey.painted import PaintedPart
from amber_gable.domain.operation import Operation
from amber_gable.domain.product import Product
from amber_gable.domain.substrates import SUBSTRATES


def absorption(substrate: str, operation: Operation) -> float:
    """How much more the first coat on bare stuff drinks; 1 on a sealed surface."""
    return SUBSTRATES[substrate].absorption_bare if operation.bare else 1.0


def part_litres(part: PaintedPart, operation: Operation, product: Product) -> float:
    """Litres of `product` for one coat, loss of the method and thirst of the surface included."""
    if operation.method is None:
        return 0.0
    spread = theoretical_coverage(product) * (1 - LOSS_PCT[operation.method] / 100)
    return part.surface_m2 * operation.share * absorption(part.substrate, operation) / spread


def part_hours(part: PaintedPart, operation: Operation) -> float:
    """Person-hours for one operation."""
    substrate = SUBSTRATES[part.substrate]
    return person_hours(
        operation,
        part.surface_m2,
        part.height_m,
        texture_factor(substrate.texture, substrate.profile_factor),
        level=part.face.tilt_deg < 30 and not part.item_kind,
        item_kind=part.item_kind,
        pieces=part.pieces,
    )
