"""Whether what was measured can be so: everything lies on its face, nothing overlaps that may not."""

from dataclasses import dataclass

from shapely.geometry.base import BaseGeometry

from amber_gable.core.survey.amounts.trim import trim_cover
from amber_gable.core.survey.drawing.geometry import (
    SLIVER_M2,
    face_regions,
    outline_polygon,
    polygon,
    rectangle,
    zone_shape,
)
from amber_gable.domain.house.polygon import crossing_edges
from amber_gable.domain.house.survey import Face, Opening, Property, Zone
from amber_gable.domain.house.zone_area import Band, FaceArea, OwnArea, Region, TrimArea


@dataclass(frozen=True)
class SurveyFault:
    """What is wrong with which record, why, and what to do."""

    kind: str
    id: str
    why: str
    todo: str

    def __str__(self) -> str:
        return f"{self.why}; {self.todo}"


def survey_faults(property_: Property) -> list[SurveyFault]:
    """Every fault of the property's geometry, face by face."""
    return [fault for face in property_.faces for fault in face_faults(face, property_.zones_of(face.id))]


def face_faults(face: Face, zones: tuple[Zone, ...]) -> list[SurveyFault]:
    """Refused of one face: openings and zones outside it, overlaps, openings over two zones, areas that do not fit."""
    placed = _zones_off_the_face(face, zones)
    out = _openings_off_the_face(face) + placed
    if not placed:
        out += _overlapping_zones(face, zones) + _openings_over_two_zones(face, zones)
    return out + _too_much_measured_apart(face, zones)


def _openings_off_the_face(face: Face) -> list[SurveyFault]:
    outline, out = outline_polygon(face), []
    for o in face.openings:
        if o.width_m > face.width_m or o.height_m > face.top_m:
            why = f"face '{face.name}': opening '{o.name}' ({o.width_m:g} × {o.height_m:g} m) is larger than the face"
            out.append(SurveyFault("opening", o.id, why, "correct its size or the face's"))
        elif rectangle(o).difference(outline).area > SLIVER_M2:
            reach = f"right edge {o.x_m + o.width_m:.2f} m, top {o.y_m + o.height_m:.2f} m"
            why = f"face '{face.name}': opening '{o.name}' reaches outside the face ({reach})"
            out.append(SurveyFault("opening", o.id, why, "move it or correct its size"))
    for i, a in enumerate(face.openings):
        for b in face.openings[i + 1 :]:
            if _overlap(a, b):
                why = f"face '{face.name}': openings '{a.name}' and '{b.name}' overlap"
                out.append(SurveyFault("opening", b.id, why, "move one"))
    return out


def _overlap(a: Opening, b: Opening) -> bool:
    slack = 1e-6
    return (
        a.x_m + slack < b.x_m + b.width_m
        and b.x_m + slack < a.x_m + a.width_m
        and a.y_m + slack < b.y_m + b.height_m
        and b.y_m + slack < a.y_m + a.height_m
    )


def _zones_off_the_face(face: Face, zones: tuple[Zone, ...]) -> list[SurveyFault]:
    outline, out = outline_polygon(face), []
    for z in zones:
        if isinstance(z.area, Region):
            crossing = crossing_edges(z.area.corners)
            if crossing is not None:
                why = (
                    f"zone '{z.name}': its outline crosses itself (edge {crossing[0] + 1} meets edge {crossing[1] + 1})"
                )
                out.append(SurveyFault("zone", z.id, why, "put the corners in order"))
            elif polygon(z.area.corners).difference(outline).area > SLIVER_M2:
                beyond = float(polygon(z.area.corners).difference(outline).area)
                why = f"zone '{z.name}' reaches outside face '{face.name}' ({beyond:.2f} m² of it)"
                out.append(SurveyFault("zone", z.id, why, "draw it within the face"))
        elif isinstance(z.area, Band) and z.area.to_m > face.top_m + 1e-6:
            why = f"zone '{z.name}' reaches outside face '{face.name}', which is {face.top_m:.2f} m high"
            out.append(SurveyFault("zone", z.id, why, f"end the band at {face.top_m:.2f} m or below"))
    return out


def _shapes(face: Face, zones: tuple[Zone, ...]) -> list[tuple[Zone, BaseGeometry]]:
    return [(z, zone_shape(face, z.area)) for z in zones if isinstance(z.area, Band | Region)]


def _overlapping_zones(face: Face, zones: tuple[Zone, ...]) -> list[SurveyFault]:
    shapes, out = _shapes(face, zones), []
    for i, (a, shape) in enumerate(shapes):
        for b, other in shapes[i + 1 :]:
            common = float(shape.intersection(other).area)
            if common > SLIVER_M2:
                why = f"face '{face.name}': zones '{a.name}' and '{b.name}' overlap by {common:.2f} m²"
                out.append(SurveyFault("zone", b.id, why, "move their border"))
    return out


def _openings_over_two_zones(face: Face, zones: tuple[Zone, ...]) -> list[SurveyFault]:
    if not any(isinstance(z.area, Band | Region) for z in zones):
        return []
    regions, out = face_regions(face, zones), []
    for o in face.openings:
        if o.spans:
            continue
        shape = rectangle(o)
        under = [
            z.name for z in zones if (r := regions.of(z)) is not None and r.intersection(shape).area > 0.005 * o.area_m2
        ]
        if len(under) > 1:
            why = f"face '{face.name}': opening '{o.name}' lies over two zones, '{under[0]}' and '{under[1]}'"
            out.append(SurveyFault("opening", o.id, why, "say that it spans zones, or move it or the zones' border"))
    return out


def _too_much_measured_apart(face: Face, zones: tuple[Zone, ...]) -> list[SurveyFault]:
    rest = next((z for z in zones if isinstance(z.area, FaceArea)), None)
    taken = sum(z.area.area_m2 for z in zones if isinstance(z.area, OwnArea))
    taken += sum(trim_cover(face, run) for z in zones if isinstance(z.area, TrimArea) for run in z.area.runs)
    if rest is None or taken <= face.area_m2 + SLIVER_M2:
        return []
    why = f"face '{face.name}': its zones take {taken:.1f} m², more than the face's {face.area_m2:.1f} m²"
    return [SurveyFault("zone", rest.id, why, "correct their sizes")]
