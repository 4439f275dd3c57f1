"""A system drawn as it builds up: preparations as ticks on the bare line, primers and coats as layers in their colour,
as high as the share of the surface they cover."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.finish import coat_colour
from amber_gable.domain.work.operation import Operation

TICK, FILM, HEIGHT, GAP = 9.0, 24.0, 26.0, 2.0
_LEAST_SHARE = 0.25


@dataclass(frozen=True)
class Layer:
    """One step, in px. `fill` empty for a preparation."""

    x: float
    y: float
    width: float
    height: float
    fill: str
    name: str


@dataclass(frozen=True)
class BuildUp:
    layers: tuple[Layer, ...]
    width: float
    says: str

    @property
    def paper(self) -> float:
        """Width with room for the last line's stroke."""
        return self.width + GAP


def build_up(operations: Sequence[Operation], colour: str, products: Mapping[str, Product]) -> BuildUp:
    """The steps from left to right, as a section through the finished surface laid flat."""
    x, layers = 0.0, []
    for o in operations:
        if o.product is None:
            layers.append(Layer(x, HEIGHT - 8, TICK - GAP, 8, "", o.name))
            x += TICK
        else:
            height = HEIGHT * max(o.share, _LEAST_SHARE)
            fill = coat_colour(o, products[o.product], colour)
            layers.append(Layer(x, HEIGHT - height, FILM - GAP, height, fill, f"{o.name}: {products[o.product].name}"))
            x += FILM
    preparations = sum(1 for o in operations if o.product is None)
    films = len(operations) - preparations
    return BuildUp(tuple(layers), x, f"{preparations} preparations, {films} films")
