"""Damage marked on the drawing, as m² and share of its zone."""

from dataclasses import dataclass

from amber_gable.core.survey.drawing.geometry import face_regions, marked_region, rectangle
from amber_gable.domain.findings.condition import Damage
from amber_gable.domain.house.survey import Face, Zone

PERCENT_FIELDS = {Damage.PEELING: "loose_pct", Damage.MILDEW: "mildew_pct", Damage.BARE: "bare_pct"}


@dataclass(frozen=True)
class DamageExtent:
    area_m2: float
    pct: float


def marked_extents(face: Face, zones: tuple[Zone, ...], zone: Zone, plan_m2: float) -> dict[Damage, DamageExtent]:
    """Extent of every mark within the zone and beside its openings; `plan_m2` is the zone's own plan area."""
    region = face_regions(face, zones).of(zone)
    if region is None:
        region = face_regions(face, ()).outline
    for o in face.openings:
        region = region.difference(rectangle(o))
    out = {}
    for mark in zone.condition.marks:
        area = float(region.intersection(marked_region(mark)).area)
        out[mark.damage] = DamageExtent(area, min(100 * area / plan_m2, 100.0) if plan_m2 > 0 else 0.0)
    return out
