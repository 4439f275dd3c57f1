"""Areas to paint (handbook §7): plan area of a zone after deductions, times its profile factor. m², m."""

from dataclasses import dataclass
from itertools import pairwise

from amber_gable.domain.schools import DeductionSchool
from amber_gable.domain.substrates import SUBSTRATES
from amber_gable.domain.survey import Face, FaceArea, Opening, OwnArea, Property, Zone

THRESHOLD_M2 = 1.5


@dataclass(frozen=True)
class ZoneArea:
    """A zone's area: plan as measured, surface with its profile factor, and the arithmetic line by line."""

    zone: Zone
    face: Face
    plan_m2: float
    profile_factor: float
    lines: tuple[tuple[str, float], ...]

    @property
    def surface_m2(self) -> float:
        return self.plan_m2 * self.profile_factor


def deducted(openings: tuple[Opening, ...], school: DeductionSchool) -> tuple[Opening, ...]:
    """The openings that the school takes off the wall."""
    if school is DeductionSchool.GROSS:
        return ()
    if school is DeductionSchool.NET:
        return openings
    return tuple(o for o in openings if o.area_m2 > THRESHOLD_M2)


def zone_area(property_: Property, zone: Zone, school: DeductionSchool) -> ZoneArea:
    """Area of one zone of the property. A zone of its own size is taken as measured, openings already left out."""
    face = next(f for f in property_.faces if f.id == zone.face)
    factor = SUBSTRATES[zone.substrate].profile_factor
    if isinstance(zone.area, OwnArea):
        lines = [("as measured", zone.area.area_m2)]
    else:
        lines = [(f"{face.width_m:g} × {face.eave_height_m:g} m", face.width_m * face.eave_height_m)]
        if face.gable_rise_m:
            lines.append(
                (f"gable ½ × {face.width_m:g} × {face.gable_rise_m:g} m", face.width_m * face.gable_rise_m / 2)
            )
        lines += [
            (f"less {o.name}, {o.width_m:g} × {o.height_m:g} m", -o.area_m2) for o in deducted(face.openings, school)
        ]
        lines += [
            (f"less {z.name}", -z.area.area_m2)
            for z in property_.zones
            if z.face == face.id and isinstance(z.area, OwnArea)
        ]
    plan = max(sum(value for _, value in lines), 0.0)
    return ZoneArea(zone=zone, face=face, plan_m2=plan, profile_factor=factor, lines=tuple(lines))


def zone_areas(property_: Property, school: DeductionSchool) -> dict[str, ZoneArea]:
    """Areas of all zones by zone id."""
    return {z.id: zone_area(property_, z, school) for z in property_.zones}


def natural_breaks(face: Face) -> tuple[float, ...]:
    """Where work may stop without a lap mark: the edges of openings, as distances from the left edge, m, ascending."""
    edges = {round(x, 3) for o in face.openings for x in (o.x_m, o.x_m + o.width_m)}
    return tuple(sorted(x for x in edges if 0.3 < x < face.width_m - 0.3))


def sections(face: Face, count: int) -> tuple[tuple[float, float], ...]:
    """The face cut into `count` strips at the natural breaks nearest to equal parts.

    Fewer strips come back when there are not enough breaks; a face with none is cut at a panel or board joint.
    """
    if count <= 1:
        return ((0.0, face.width_m),)
    wanted = [face.width_m * i / count for i in range(1, count)]
    breaks = natural_breaks(face) or tuple(wanted)
    cuts = sorted({min(breaks, key=lambda x: abs(x - w)) for w in wanted})
    ends = [0.0, *cuts, face.width_m]
    return tuple(pairwise(ends))


def section_share(face: Face, left_m: float, right_m: float) -> float:
    """Part of the face's outline area between two distances from its left edge."""

    def area_to(x: float) -> float:
        half = face.width_m / 2
        rise = face.gable_rise_m
        up = min(x, half)
        triangle = rise * up * up / (2 * half)
        if x > half:
            triangle += rise * ((x - half) - (x - half) ** 2 / (2 * half))
        return face.eave_height_m * x + triangle

    return (area_to(right_m) - area_to(left_m)) / face.outline_area_m2


def working_height(zone: Zone, face: Face) -> float:
    """Height above ground of the middle of the zone's upper part, m: decides the labour factor for height."""
    top = face.eave_height_m + face.gable_rise_m / 2
    return top / 2 if isinstance(zone.area, FaceArea) else top * 0.6
