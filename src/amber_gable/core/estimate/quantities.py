"""Litres per product and colour (handbook §8): theoretical spread, loss of the method, thirst of the surface."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass

from amber_gable.core.estimate.coverage import LOSS_PCT, theoretical_coverage
from amber_gable.core.estimate.part_work import absorption, part_litres
from amber_gable.core.survey.painted import Key, painted_parts
from amber_gable.domain.job import JobBundle
from amber_gable.domain.operation import Operation
from amber_gable.domain.product import Product

RESERVE_SHARE, RESERVE_LEAST_L = 0.02, 0.5
PRIMER_COLOUR, CLEAR_COLOUR = "#f4f1ea", "#d9d2c0"


@dataclass(frozen=True)
class Line:
    """Paint for one coat, summed over the parts that take it in this product, colour and method; `stopped_litres` of it
    for parts that a stop holds."""

    product: str
    colour: str
    coat: str
    method: str
    area_m2: float
    coverage_m2_l: float
    loss_pct: float
    absorption: float
    litres: float
    stopped_litres: float = 0.0


def coat_colour(operation: Operation, product: Product, finish_colour: str) -> str:
    """The colour this coat is bought in."""
    if operation.colour is not None:
        return operation.colour
    return PRIMER_COLOUR if product.primer else finish_colour


def quantity_lines(bundle: JobBundle, stopped: Collection[Key] = ()) -> list[Line]:
    """Every coat of the job, in the order of the systems, like coats of like parts added up. `stopped`: parts that a
    stop holds; their paint is counted and marked."""
    parts = painted_parts(bundle.property, bundle.job.deduction)
    lines: dict[tuple[object, ...], Line] = {}
    for finish in bundle.job.finishes:
        part = parts[finish.part]
        for operation in bundle.operations(finish):
            if operation.product is None or operation.method is None:
                continue
            product = bundle.product(operation.product)
            thirst, loss = absorption(part.substrate, operation), LOSS_PCT[operation.method]
            spread = theoretical_coverage(product)
            area = part.surface_m2 * operation.share
            litres = part_litres(part, operation, product)
            colour = coat_colour(operation, product, finish.colour)
            key = (product.code, colour, operation.name, operation.method, thirst)
            before = lines.get(key)
            lines[key] = Line(
                product=product.code,
                colour=colour,
                coat=operation.name,
                method=operation.method.value,
                area_m2=area + (before.area_m2 if before else 0.0),
                coverage_m2_l=spread,
                loss_pct=loss,
                absorption=thirst,
                litres=litres + (before.litres if before else 0.0),
                stopped_litres=(litres if part.key in stopped else 0.0) + (before.stopped_litres if before else 0.0),
            )
    return list(lines.values())


def litres_by_colour(lines: Sequence[Line]) -> dict[tuple[str, str], float]:
    """Litres per (product, colour), in first-seen order: containers are shared over all coats and faces."""
    out: dict[tuple[str, str], float] = {}
    for line in lines:
        out[line.product, line.colour] = out.get((line.product, line.colour), 0.0) + line.litres
    return out


def touch_up_reserve(litres: float) -> float:
    """Labelled touch-up paint to keep: 2 %, at least half a litre."""
    return max(RESERVE_SHARE * litres, RESERVE_LEAST_L)
