"""Tape and film that masking takes, by the edges and areas that are really covered."""

from math import sqrt
from typing import NamedTuple

from amber_gable.core.survey.amounts.painted import PaintedPart
from amber_gable.domain.house.items import DoorItem, GarageDoor, ItemSpec
from amber_gable.domain.house.survey import Item
from amber_gable.domain.work.operation import AmountUnit, Operation, Technique

_LAPS = 1.1
"""Tape and film lap at corners and joints."""
_MARGIN_M = 0.3
"""Least width of film beside an edge that is sprayed (docs/trade.md §4.4)."""


class Masked(NamedTuple):
    """Metres of tape, square metres of film."""

    tape_m: float
    film_m2: float

    def times(self, count: float) -> "Masked":
        return Masked(self.tape_m * count, self.film_m2 * count)


def masked(part: PaintedPart, operation: Operation) -> Masked:
    """What an operation of masking covers: openings of a face, an item with its glass, or metres of edge."""
    count = operation.amount or 0.0
    if operation.unit is AmountUnit.M:
        # An edge taped for the brush wants no film beside it.
        return Masked(count * _LAPS, 0.0 if operation.technique is Technique.TAPE else count * _MARGIN_M)
    if isinstance(part.part, Item):
        return _item(part.part.spec).times(count)
    openings = part.face.openings
    if not openings:
        return Masked(0.0, 0.0)
    sprayed = operation.method is not None and operation.method.sprays
    each = [_opening(o.width_m, o.height_m, sprayed=sprayed) for o in openings]
    whole = Masked(sum(e.tape_m for e in each), sum(e.film_m2 for e in each))
    return whole.times(count / len(openings))


def _opening(width_m: float, height_m: float, *, sprayed: bool) -> Masked:
    """Taped all round. For a spray the film stands out past the opening, and its outer edge is held in places."""
    edge = 2 * (width_m + height_m)
    if sprayed:
        return Masked(edge * _LAPS * 1.3, (width_m + 2 * _MARGIN_M) * (height_m + 2 * _MARGIN_M))
    return Masked(edge * _LAPS, width_m * height_m * _LAPS)


def _item(spec: ItemSpec) -> Masked:
    if isinstance(spec, GarageDoor):
        # Jambs and head with a drape of film, taped on both its edges; the gasket once; glazed inserts all round.
        frame, glass = 2 * spec.height_m + spec.width_m, _glass(spec.width_m, spec.height_m, spec.glazed)
        tape = 2 * frame + spec.width_m + glass.tape_m * spec.sides
        return Masked(tape * _LAPS, (frame * _MARGIN_M + glass.film_m2 * spec.sides) * _LAPS)
    if isinstance(spec, DoorItem):
        # The weather strip on three sides, and the glass.
        strip, glass = 2 * spec.height_m + spec.width_m, _glass(spec.width_m, spec.height_m, spec.glazed)
        return Masked((strip + glass.tape_m * spec.sides) * _LAPS, glass.film_m2 * spec.sides * _LAPS)
    return Masked(0.0, 0.0)


def _glass(width_m: float, height_m: float, share: float) -> Masked:
    """Of a pane that takes that share of a leaf, in the leaf's own proportion."""
    return Masked(2 * (width_m + height_m) * sqrt(share), width_m * height_m * share)
