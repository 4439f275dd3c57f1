"""Damage marked on the drawing, as m² and share of its zone."""

from collections.abc import Iterable
from dataclasses import dataclass

from amber_gable.core.survey.geometry import face_regions, marked_region, rectangle
from amber_gable.domain.condition import Damage, Mark
from amber_gable.domain.survey import Face, Zone

PERCENT_FIELDS = {Damage.PEELING: "loose_pct", Damage.MILDEW: "mildew_pct", Damage.BARE: "bare_pct"}


@dataclass(frozen=True)
class Extent:
    area_m2: float
    pct: float


def marked_extents(face: Face, zones: tuple[Zone, ...], zone: Zone, plan_m2: float) -> dict[Damage, Extent]:
    """Extent of every mark within the zone and beside its openings; `plan_m2` is the zone's own plan area."""
    region = face_regions(face, zones).of(zone)
    if region is None:
        region = face_regions(face, ()).outline
    for o in face.openings:
        region = region.difference(rectangle(o))
    out = {}
    for mark in zone.condition.marks:
        area = float(region.intersection(marked_region(mark)).area)
        out[mark.damage] = Extent(area, min(100 * area / plan_m2, 100.0) if plan_m2 > 0 else 0.0)
    return out


def runs_of(cells: Iterable[tuple[int, int]]) -> tuple[tuple[int, int, int], ...]:
    """Squares (row, column) as runs (row, first, last), in order."""
    out: list[tuple[int, int, int]] = []
    for row, column in sorted(set(cells)):
        if out and out[-1][0] == row and out[-1][2] == column - 1:
            out[-1] = (row, out[-1][1], column)
        else:
            out.append((row, column, column))
    return tuple(out)


def cells_of(mark: Mark) -> list[tuple[int, int]]:
    """Squares (row, column) of a mark."""
    return [(row, column) for row, first, last in mark.runs for column in range(first, last + 1)]
