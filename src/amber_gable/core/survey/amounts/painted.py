"""Everything there is to paint on a property, zones and items alike, with its surface."""

import weakref
from collections.abc import Sequence
from dataclasses import dataclass, replace

from amber_gable.core.survey.amounts.items import item_area
from amber_gable.core.survey.amounts.takeoff import zone_areas
from amber_gable.core.survey.amounts.trim import zone_trim
from amber_gable.core.survey.drawing.geometry import face_regions
from amber_gable.core.survey.drawing.heights import ON_THE_GROUND, Heights, item_heights, zone_heights
from amber_gable.domain.errors import NotFound
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.survey import Face, Item, Property, Zone

Key = tuple[str, str]
"""Kind ('zone' or 'item') and id of a part."""


@dataclass(frozen=True)
class PaintedPart:
    """A zone, an item, or several like items of one face. `surface_m2` is what the paint must cover, `worked_m2` what
    it takes work for, openings that are cut in round among it, `heights` how high it lies; `item_kind` is empty for a
    zone; `trim_m` is the length of a zone of trim."""

    part: Zone | Item
    face: Face
    name: str
    surface_m2: float
    heights: Heights = ON_THE_GROUND
    item_kind: str = ""
    pieces: int = 1
    trim_m: float = 0.0
    worked_m2: float = 0.0

    @property
    def key(self) -> Key:
        return part_key(self.part)

    @property
    def substrate(self) -> str:
        return self.part.substrate

    @property
    def condition(self) -> Condition:
        return self.part.condition

    @property
    def colour_now(self) -> str:
        return self.part.colour_now


def part_key(part: Zone | Item) -> Key:
    return ("zone" if isinstance(part, Zone) else "item", part.id)


_Measured = dict[Key, PaintedPart]
_LATELY: dict[tuple[int, str], tuple[weakref.ref[Property], _Measured]] = {}
"""Parts by `id()` of their property and deduction. An entry is removed when its property is freed."""


def painted_parts(property_: Property, deduction: str) -> _Measured:
    """All parts by key: face by face, zones before items. Measured once for each property object."""
    mine = (id(property_), deduction)
    found = _LATELY.get(mine)
    if found is not None and found[0]() is property_:
        return dict(found[1])
    made = _measured(property_, deduction)
    _LATELY[mine] = (weakref.ref(property_, lambda gone: _forget(mine, gone)), made)
    return dict(made)


def _forget(mine: tuple[int, str], gone: weakref.ref[Property]) -> None:
    """Unless a newer property has taken the place of the one that is gone."""
    found = _LATELY.get(mine)
    if found is not None and found[0] is gone:
        del _LATELY[mine]


def _measured(property_: Property, deduction: str) -> _Measured:
    areas = zone_areas(property_, deduction)
    out: dict[Key, PaintedPart] = {}
    for face in property_.faces:
        zones = property_.zones_of(face.id)
        regions = face_regions(face, zones)
        for zone in zones:
            heights = zone_heights(zone, face, zones, regions)
            area, trim = areas[zone.id], zone_trim(zone, face)
            part = PaintedPart(zone, face, zone.name, area.surface_m2, heights, trim_m=trim, worked_m2=area.worked_m2)
            out[part.key] = part
        for item in property_.items_of(face.id):
            surface, heights = item_area(item.spec), item_heights(item, face)
            part = PaintedPart(item, face, item.name, surface, heights, item.spec.kind, worked_m2=surface)
            out[part.key] = part
    return out


def painted_part(property_: Property, deduction: str, key: Key) -> PaintedPart:
    """The part of that key. Raises NotFound."""
    found = painted_parts(property_, deduction).get(key)
    if found is None:
        raise NotFound(*key)
    return found


def together(parts: Sequence[PaintedPart]) -> PaintedPart:
    """Like items of one face as one part; a single one stays as it is."""
    first = parts[0]
    if len(parts) == 1:
        return first
    name = f"{len(parts)} × {ITEM_NAMES[first.item_kind].lower()}"
    return replace(
        first,
        name=name,
        surface_m2=sum(p.surface_m2 for p in parts),
        worked_m2=sum(p.worked_m2 for p in parts),
        heights=max((p.heights for p in parts), key=lambda h: (h.above_6, h.above_3)),
        pieces=len(parts),
    )
