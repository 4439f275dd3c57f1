"""The colour a coat is bought in."""

from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.operation import Operation

PRIMER_COLOUR, CLEAR_COLOUR = "#f4f1ea", "#d9d2c0"


def coat_colour(operation: Operation, product: Product, finish_colour: str) -> str:
    """Its own where it is tinted, a primer's white, else the finish's."""
    if operation.colour is not None:
        return operation.colour
    return PRIMER_COLOUR if product.primer else finish_colour
