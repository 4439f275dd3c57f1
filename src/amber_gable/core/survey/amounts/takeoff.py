"""Areas to paint (docs/trade.md §7): plan area of a zone after deductions, times its profile factor. m², m."""

from dataclasses import dataclass

from amber_gable.core.survey.amounts.trim import NAMES, trim_cover, trim_length
from amber_gable.core.survey.drawing.geometry import FaceRegions, face_regions, rectangle
from amber_gable.domain.house.outline import OutlinePiece
from amber_gable.domain.house.survey import Face, Opening, Property, Zone
from amber_gable.domain.house.zone_area import Band, OwnArea, Region, TrimArea

THRESHOLD_M2 = 1.5


@dataclass(frozen=True)
class AreaLine:
    """One line of the arithmetic. `sizes` in m are what is multiplied; none where the value stands by itself."""

    words: str
    value_m2: float
    sizes: tuple[float, ...] = ()
    share: float = 1.0
    pitch_deg: float = 0.0


@dataclass(frozen=True)
class ZoneArea:
    """A zone's area: plan as measured, surface with its profile factor, and the arithmetic line by line. `openings_m2`
    of plan were taken off."""

    zone: Zone
    face: Face
    plan_m2: float
    profile_factor: float
    lines: tuple[AreaLine, ...]
    openings_m2: float = 0.0

    @property
    def surface_m2(self) -> float:
        return self.plan_m2 * self.profile_factor

    @property
    def worked_m2(self) -> float:
        """What it takes work for: cutting in round an opening costs what the opening saves (docs/trade.md §7)."""
        return (self.plan_m2 + self.openings_m2) * self.profile_factor


def deducted(openings: tuple[Opening, ...], school: str) -> tuple[Opening, ...]:
    """The openings that the school takes off the wall."""
    if school == "gross":
        return ()
    if school == "net":
        return openings
    return tuple(o for o in openings if o.area_m2 > THRESHOLD_M2)


def face_areas(property_: Property, face: Face, school: str) -> dict[str, ZoneArea]:
    """Areas of the zones of one face by zone id."""
    zones = property_.zones_of(face.id)
    regions = face_regions(face, zones)
    return {z.id: _zone_area(zone=z, face=face, zones=zones, regions=regions, school=school) for z in zones}


def zone_areas(property_: Property, school: str) -> dict[str, ZoneArea]:
    """Areas of all zones by zone id, in the property's order."""
    out: dict[str, ZoneArea] = {}
    for face in property_.faces:
        out |= face_areas(property_, face, school)
    return {z.id: out[z.id] for z in property_.zones}


def _zone_area(zone: Zone, face: Face, zones: tuple[Zone, ...], regions: FaceRegions, school: str) -> ZoneArea:
    area, openings = zone.area, list[AreaLine]()
    if isinstance(area, OwnArea):
        lines = [AreaLine("as measured", area.area_m2)]
    elif isinstance(area, TrimArea):
        lines = []
        for run in area.runs:
            length = trim_length(face, run.part)
            lines.append(
                AreaLine(
                    f"{NAMES[run.part]}, length × girth", length.length_m * run.girth_m, (length.length_m, run.girth_m)
                )
            )
    else:
        openings = _deductions(zone, face, regions, school)
        lines = _shape_lines(zone, face, zones, regions) + openings
        if zone.area.kind == "face":
            lines += _covered(face, zones)
    plan = max(sum(line.value_m2 for line in lines), 0.0)
    taken = -sum(line.value_m2 for line in openings) if plan > 0 else 0.0
    return ZoneArea(zone, face, plan, zone.profile_factor, tuple(lines), taken)


def _shape_lines(zone: Zone, face: Face, zones: tuple[Zone, ...], regions: FaceRegions) -> list[AreaLine]:
    """The face's own pieces less the zones placed on it; or the zone's own shape."""
    if zone.area.kind == "face":
        lines = [_line(p) for p in face.pieces]
        return lines + [
            AreaLine(f"less {z.name}", -regions.regions[z.id].area) for z in zones if z.id in regions.regions
        ]
    region = regions.regions[zone.id]
    if isinstance(zone.area, Band):
        height = zone.area.to_m - zone.area.from_m
        width = region.area / height
        level = abs(width - face.width_m) < 1e-9
        return [
            AreaLine(
                "width × height of the band" if level else "mean width × height of the band",
                region.area,
                (width, height),
            )
        ]
    corners = len(zone.area.corners) if isinstance(zone.area, Region) else 0
    return [AreaLine(f"outline of {corners} corners", region.area)]


def _line(piece: OutlinePiece) -> AreaLine:
    return AreaLine(piece.words, piece.area_m2, piece.sizes, piece.share, piece.pitch_deg)


def _deductions(zone: Zone, face: Face, regions: FaceRegions, school: str) -> list[AreaLine]:
    """What openings take off this zone: each with the part of it that lies here."""
    region = regions.of(zone)
    lines = []
    for o in deducted(face.openings, school):
        alone = region is None or not regions.regions
        value = o.area_m2 if region is None or alone else float(region.intersection(rectangle(o)).area)
        if value > 1e-9:
            complete = abs(value - o.area_m2) < 1e-6
            words = f"less {o.name}" if complete else f"less the part of {o.name} that lies here"
            lines.append(AreaLine(words, -value, (o.width_m, o.height_m) if complete else ()))
    return lines


def _covered(face: Face, zones: tuple[Zone, ...]) -> list[AreaLine]:
    """What zones measured apart take from the field they lie on."""
    lines = []
    for z in zones:
        if isinstance(z.area, OwnArea) and z.area.on_wall:
            lines.append(AreaLine(f"less {z.name}", -z.area.area_m2))
        elif isinstance(z.area, TrimArea):
            value = sum(trim_cover(face, run) for run in z.area.runs)
            if value:
                lines.append(AreaLine(f"less {z.name}, where it covers the wall", -value))
    return lines
