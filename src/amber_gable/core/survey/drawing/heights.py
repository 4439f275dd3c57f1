"""How high the work lies: which share of a part is above the reach of short steps, and how many places a ladder is set
up at to get there. Walls only: on floors and roofs one stands."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import hypot

from shapely import clip_by_rect
from shapely.geometry.base import BaseGeometry

from amber_gable.core.survey.amounts.trim import trim_segments, zone_trim
from amber_gable.core.survey.drawing.geometry import FaceRegions, item_size, outline_polygon
from amber_gable.domain.house.items import Chimney, GutterRun, Stair
from amber_gable.domain.house.polygon import Point
from amber_gable.domain.house.survey import Face, Item, Zone
from amber_gable.domain.house.zone_area import TrimArea

HIGH_M, HIGHER_M = 3.0, 6.0
"""From here on a ladder is needed, and a long one (docs/trade.md §17)."""
STRIP_M = 3.5
"""Height of wall that one place on a ladder reaches, its rungs gone up and down."""


@dataclass(frozen=True)
class Heights:
    """Shares of a part above 3 m and above 6 m (the latter within the former). `run_m`: how much width of wall, added
    up over strips of 3.5 m height, is reached from a ladder (what one place takes of it is the access's affair);
    `spots`: places that a thing takes whatever its width."""

    above_3: float = 0.0
    above_6: float = 0.0
    run_m: float = 0.0
    spots: float = 0.0

    @property
    def high(self) -> bool:
        return self.above_3 > 0


ON_THE_GROUND = Heights()


def face_run(face: Face) -> float:
    """Width of the wall above 3 m, once for each strip above one another, m."""
    high = _above(outline_polygon(face), face, HIGH_M)
    if high.is_empty:
        return 0.0
    left, bottom, right, top = high.bounds
    return float((right - left) * max(1.0, high.area / (right - left) / STRIP_M)) if top > bottom else 0.0


def _above(shape: BaseGeometry, face: Face, level: float) -> BaseGeometry:
    return clip_by_rect(shape, -1.0, level, face.width_m + 1.0, max(face.top_m, level) + 1.0)


def zone_heights(zone: Zone, face: Face, zones: Iterable[Zone], regions: FaceRegions) -> Heights:
    """Of a zone: by its region, or the face's outline where it is measured apart, or the lengths of its trim. Zones of
    one face share its places on the ladder: fields by their area above 3 m, trim, which goes all round, by length."""
    if not face.is_wall or face.top_m <= HIGH_M:
        return ON_THE_GROUND
    run, trim = face_run(face), zone_trim(zone, face)
    of_trim = trim / sum(zone_trim(z, face) for z in zones) if trim else 0.0
    if isinstance(zone.area, TrimArea):
        total, high, higher = _trim_lengths(face, zone.area)
        return Heights(high / total, higher / total, run * of_trim) if high else ON_THE_GROUND
    region = regions.of(zone)
    shape = regions.outline if region is None or region.is_empty else region
    upper, whole = _above(shape, face, HIGH_M), _above(regions.outline, face, HIGH_M).area
    if upper.area <= 0 or whole <= 0 or shape.area <= 0:
        return ON_THE_GROUND
    higher = _above(shape, face, HIGHER_M).area
    share = min(zone.area.area_m2 / shape.area, 1.0) if zone.area.kind == "own" else 1.0
    if trim:
        return Heights(upper.area / shape.area, higher / shape.area, run * of_trim)
    return Heights(upper.area / shape.area, higher / shape.area, run * upper.area / whole * share)


def item_heights(item: Item, face: Face) -> Heights:
    """Of an item: its middle counts. A gutter takes places along its run, other things one; a chimney is worked from a
    scaffold of its own."""
    if not face.is_wall or isinstance(item.spec, Stair | Chimney):
        return ON_THE_GROUND
    gutter = isinstance(item.spec, GutterRun)
    middle = item.y_m + (0.0 if gutter else item_size(item)[1] / 2)
    if middle <= HIGH_M:
        return ON_THE_GROUND
    run = item_size(item)[0] if gutter else 0.0
    return Heights(1.0, 1.0 if middle > HIGHER_M else 0.0, run, 0.0 if gutter else 1.0)


def _trim_lengths(face: Face, area: TrimArea) -> tuple[float, float, float]:
    """All of it, above 3 m, above 6 m."""
    segments = [s for run in area.runs for s in trim_segments(face, run.part)]
    lengths = [hypot(b[0] - a[0], b[1] - a[1]) for a, b in segments]
    above = [
        sum(n * _share_above(a, b, level) for n, (a, b) in zip(lengths, segments, strict=True))
        for level in (HIGH_M, HIGHER_M)
    ]
    return sum(lengths), above[0], above[1]


def _share_above(a: Point, b: Point, level: float) -> float:
    low, high = sorted((a[1], b[1]))
    if high <= level:
        return 0.0
    return 1.0 if low >= level else (high - level) / (high - low)
