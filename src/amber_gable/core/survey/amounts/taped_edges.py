"""Edges of a wall's part that are taped where edges are taped by hand: against a neighbour of another colour or one
that is not painted, against trim, and along the ground (docs/trade.md §9.2)."""

from collections.abc import Iterator
from typing import NamedTuple

from shapely import LineString
from shapely.geometry.base import BaseGeometry

from amber_gable.core.survey.amounts.trim import zone_trim
from amber_gable.core.survey.drawing.geometry import FaceRegions, face_regions
from amber_gable.domain.house.survey import Face, Zone
from amber_gable.domain.job.job import JobBundle

_HAIR_M = 0.001
_AT_THE_GROUND_M = 0.05
_THE_GROUND = "the ground"


class Edge(NamedTuple):
    """What the tape sits on, and along how many metres."""

    on: str
    length_m: float


def taped_edges(bundle: JobBundle, face: Face, zone: Zone) -> tuple[Edge, ...]:
    """Of two painted neighbours the one that is painted later is taped, on the other when that is dry: a band on the
    field round it, and trim on the field unless trim goes first. Casings and frames of openings are covered with them.
    """
    if not face.is_wall:
        return ()
    zones = bundle.property.zones_of(face.id)
    regions = face_regions(face, zones)
    mine = regions.of(zone)
    found = _of_trim(bundle, face, zone, zones) if mine is None else _of_wall(bundle, zone, zones, regions, mine)
    ground = () if mine is None else (Edge(_THE_GROUND, _along_the_ground(face, mine)),)
    return tuple(e for e in (*found, *ground) if e.length_m > _AT_THE_GROUND_M)


def _of_wall(
    bundle: JobBundle, zone: Zone, zones: tuple[Zone, ...], regions: FaceRegions, mine: BaseGeometry
) -> Iterator[Edge]:
    trim_first = bundle.schools["order"] == "trim-first"
    for other in zones:
        if other.id == zone.id or not _differ(bundle, zone, other):
            continue
        unpainted, region = bundle.finish_of("zone", other.id) is None, regions.of(other)
        if region is None:
            if zone.area.kind == "face" and (trim_first or unpainted):
                yield Edge(other.name, _trim_m(bundle, other))
        elif unpainted or _later(zone, other, zones):
            yield Edge(other.name, mine.boundary.intersection(region.buffer(_HAIR_M)).length)


def _of_trim(bundle: JobBundle, face: Face, zone: Zone, zones: tuple[Zone, ...]) -> Iterator[Edge]:
    field = next((z for z in zones if z.area.kind == "face"), None)
    if field is None or not _differ(bundle, zone, field):
        return
    if bundle.schools["order"] != "trim-first" or bundle.finish_of("zone", field.id) is None:
        yield Edge(field.name, zone_trim(zone, face))


def _trim_m(bundle: JobBundle, zone: Zone) -> float:
    return zone_trim(zone, bundle.property.face(zone.face))


def _differ(bundle: JobBundle, zone: Zone, other: Zone) -> bool:
    """Whether paint of the one may not get onto the other. Of what nobody decided on yet nothing is known."""
    mine, its = bundle.finish_of("zone", zone.id), bundle.finish_of("zone", other.id)
    if its is None:
        return bundle.left_of("zone", other.id) is not None
    return mine is None or mine.colour != its.colour


def _later(zone: Zone, other: Zone, zones: tuple[Zone, ...]) -> bool:
    """Whether the zone is painted after the other one: what stands in a field after it, of two bands the one that was
    surveyed later."""
    if "face" in (zone.area.kind, other.area.kind):
        return other.area.kind == "face"
    return zones.index(zone) > zones.index(other)


def _along_the_ground(face: Face, mine: BaseGeometry) -> float:
    """Without the doors that stand on it."""
    foot = LineString([(0.0, 0.0), (face.width_m, 0.0)])
    doors = sum(o.width_m for o in face.openings if o.y_m < _AT_THE_GROUND_M)
    return max(float(mine.intersection(foot).length) - doors, 0.0)
