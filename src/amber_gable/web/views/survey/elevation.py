"""Faces drawn to scale: zones, openings, items, what stands in front, marks of damage, and dimensions."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any

from shapely import MultiPolygon, Polygon, box

from amber_gable.core.survey.drawing.geometry import face_regions, item_size, marked_region
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Face, Item, Obstacle, Opening, Property, Zone
from amber_gable.domain.house.zone_area import Region
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.units import UnitSystem
from amber_gable.web.views.glyphs import Pattern, Strokes, item_glyph, obstacle_glyph, opening_glyph, texture
from amber_gable.web.views.paper import Paper
from amber_gable.web.views.survey.dimensions import face_dimensions, place_dimensions
from amber_gable.web.views.units import Units
from amber_gable.web.views.weather.lanes import bearing

if TYPE_CHECKING:
    from amber_gable.core.state.progress import Laid

MARGIN_RIGHT, MARGIN_TOP, MARGIN_BOTTOM = 14.0, 14.0, 34.0
# Feet and inches take more room beside the wall.
MARGIN_LEFT, MARGIN_LEFT_US = 58.0, 92.0
WIDTH_MAX, SCALE_MAX = 420.0, 46.0
METRIC = Units(UnitSystem.METRIC)


@dataclass(frozen=True)
class DrawnPart:
    """Something on the face: its box in px, its measures in m for the pointer, and its strokes."""

    kind: str
    id: str
    name: str
    style: str
    x: float
    y: float
    width: float
    height: float
    metres: tuple[float, float, float, float]
    strokes: Strokes
    selected: bool
    says: str
    colour: str = ""
    sizable: bool = True
    hollow: bool = False


@dataclass(frozen=True)
class FilmOnFace:
    """A stretch of a zone with its films so far: 'coat 1 of 2', written where there is room."""

    path: str
    fill: str
    words: str
    x: float
    y: float


@dataclass(frozen=True)
class DrawnZone:
    id: str
    name: str
    path: str
    fill: str
    pattern: Pattern
    selected: bool
    says: str
    films: tuple[FilmOnFace, ...] = ()


@dataclass(frozen=True)
class Drawing:
    """Everything the SVG template needs, in px."""

    face: Face
    bearing: str
    width: float
    height: float
    outline: str
    zones: list[DrawnZone]
    trim: str
    trim_width: float
    trim_lines: str
    parts: list[DrawnPart]
    marks: list[tuple[str, str]]
    ground: tuple[float, float, float] | None
    left: float
    ground_y: float
    scale: float
    dimension_paths: str
    labels: list[tuple[float, float, str, str]]
    size: str
    handles: list[tuple[str, float, float]]
    versions: dict[tuple[str, str], int] = field(default_factory=dict)

    @property
    def bare_box(self) -> tuple[float, float, float, float]:
        """Left, top, width, height of the drawing without its dimensions, px."""
        return self.left - 14, 0.0, self.width - self.left + 14, self.ground_y + 8


def drawing_scale(
    faces: tuple[Face, ...],
    width: float = WIDTH_MAX,
    most: float = SCALE_MAX,
    height: float = 460.0,
    units: Units = METRIC,
) -> float:
    """px per metre at which the widest and highest face fits: one scale for a sheet's faces, so that they compare."""
    widest = max((f.width_m for f in faces), default=10.0)
    highest = max((f.top_m for f in faces), default=5.0)
    across = (width - _left(units) - MARGIN_RIGHT) / widest
    return min(most, across, (height - MARGIN_TOP - MARGIN_BOTTOM) / highest)


def paper_mm(drawing: Drawing, one_to: float = 50.0) -> tuple[float, float]:
    """Width and height on paper at a scale of 1 : `one_to`, mm."""
    mm = 1000 / one_to / drawing.scale
    return drawing.width * mm, drawing.height * mm


def _left(units: Units) -> float:
    return MARGIN_LEFT_US if units.us else MARGIN_LEFT


def finish_colours(bundle: JobBundle) -> dict[tuple[str, str], str]:
    """The colours that the job's parts will have, those among them that others put in place of one."""
    replaced = {x.part: x.colour for x in bundle.job.left if x.colour is not None}
    return replaced | {f.part: f.colour for f in bundle.job.finishes}


def draw(
    property_: Property,
    face: Face,
    scale: float,
    *,
    colours: Mapping[tuple[str, str], str] | None = None,
    selected: tuple[str, str] = ("", ""),
    units: Units = METRIC,
    versions: dict[tuple[str, str], int] | None = None,
    laid: Mapping[tuple[str, str], Sequence[Laid]] | None = None,
) -> Drawing:
    """The face as it stands, or as it will look with these `colours` by part (kind and id); `laid`: with the films that
    stand on its parts."""
    zones = property_.zones_of(face.id)
    finished, finishes = colours is not None, dict(colours or {})
    for key, films in (laid or {}).items():
        if key[0] == "item" and films:
            finishes[key] = films[-1].colour
    points = face.points
    items = property_.items_of(face.id)
    # A chimney stands above the face it is drawn with.
    top = max([face.top_m, *(i.y_m + item_size(i)[1] for i in items)])
    paper = Paper(_left(units), MARGIN_TOP + top * scale, scale)
    right = paper.x(face.width_m)
    trim = next((z for z in zones if SUBSTRATES[z.substrate].is_trim and z.area.kind in ("own", "trim")), None)
    parts = [_opening(o, paper, selected, units) for o in face.openings]
    parts += [_item(i, paper, selected, units, finishes.get(("item", i.id), i.colour_now)) for i in items]
    if not finished:
        # As it will look: nothing parked before it, no damage left.
        parts += [_obstacle(o, paper, selected, units) for o in face.obstacles]
    paths, labels = face_dimensions(face, paper, units)
    chosen = next((p for p in parts if p.selected), None)
    if chosen is not None:
        more = place_dimensions(chosen, paper, units)
        paths, labels = paths + more[0], labels + more[1]
    return Drawing(
        face=face,
        bearing=bearing(face.azimuth_deg),
        width=right + MARGIN_RIGHT,
        height=paper.ground + MARGIN_BOTTOM,
        outline=" ".join(f"{paper.x(x):.1f},{paper.y(y):.1f}" for x, y in points),
        zones=_zones(face, zones, paper, finishes, selected, laid or {}),
        trim=finishes.get(("zone", trim.id), trim.colour_now) if trim else "",
        trim_width=0.12 * scale,
        trim_lines=_corner_boards(points, paper) if trim else "",
        parts=parts,
        marks=[] if finished else _marks(face, zones, paper),
        ground=(paper.left - 24, right + 12, paper.ground) if face.is_wall else None,
        left=paper.left,
        ground_y=paper.ground,
        scale=scale,
        dimension_paths=paths,
        labels=labels,
        size=f"{units.length(face.width_m)} by {units.length(face.top_m)}{'' if units.us else ' m'}",
        handles=_handles(chosen) or _corners(zones, paper, selected),
        versions=versions or {},
    )


def _zones(
    face: Face,
    zones: tuple[Zone, ...],
    paper: Paper,
    finishes: Mapping[tuple[str, str], str],
    selected: tuple[str, str],
    laid: Mapping[tuple[str, str], Sequence[Laid]],
) -> list[DrawnZone]:
    """Zones that have a place; where none takes what is left, the largest measured apart stands for the field."""
    regions = face_regions(face, zones)
    placed = [(z, regions.of(z)) for z in zones if z.area.kind in ("face", "band", "region")]
    if not any(z.area.kind == "face" for z, _ in placed):
        apart = [z for z in zones if z.area.kind == "own" and not SUBSTRATES[z.substrate].is_trim]
        placed += [(z, regions.rest) for z in apart[:1]]
    return [
        DrawnZone(
            id=z.id,
            name=z.name,
            path=paper.path(region),
            fill=finishes.get(("zone", z.id), z.colour_now),
            pattern=texture(z, SUBSTRATES[z.substrate].texture, paper.scale),
            selected=selected == ("zone", z.id),
            says=f"Zone {z.name}, {SUBSTRATES[z.substrate].name}",
            films=tuple(_films(region, face, laid.get(("zone", z.id), ()), paper)),
        )
        for z, region in placed
        if region is not None and not region.is_empty
    ]


def _films(region: Polygon | MultiPolygon, face: Face, laid: Sequence[Laid], paper: Paper) -> Iterator[FilmOnFace]:
    for film in laid:
        strip = box(film.left * face.width_m, -1.0, film.right * face.width_m, face.top_m + 1.0)
        piece = region.intersection(strip)
        if piece.is_empty:
            continue
        at = piece.representative_point()
        words = f"coat {film.films} of {film.of}" if film.films < film.of else "all coats"
        yield FilmOnFace(paper.path(piece), film.colour, words, paper.x(at.x), paper.y(at.y))


def _corner_boards(points: tuple[tuple[float, float], ...], paper: Paper) -> str:
    inset, out = 0.06, ""
    width = max(x for x, _ in points)
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        if abs(x0 - x1) < 1e-9 and abs(y0 - y1) > 0.5:
            x = x0 + (inset if x0 < width / 2 else -inset)
            out += f"M{paper.x(x):.1f} {paper.y(y0):.1f}V{paper.y(y1):.1f}"
    return out


def _marks(face: Face, zones: tuple[Zone, ...], paper: Paper) -> list[tuple[str, str]]:
    marked = [z for z in zones if z.condition.marks]
    if not marked:
        return []
    regions = face_regions(face, zones)
    return [
        (m.damage.value, paper.path(marked_region(m).intersection(regions.of(z) or regions.outline)))
        for z in marked
        for m in z.condition.marks
    ]


def _says(part: Any, metres: tuple[float, float, float, float], units: Units) -> str:
    x, y, w, h = (units.length(v) for v in metres)
    return f"{part.name}: {w} by {h}, {x} from the left, {y} above the foot"


def _part(
    part: Any, kind: str, metres: tuple[float, float, float, float], paper: Paper, units: Units
) -> dict[str, Any]:
    x, y, w, h = metres
    return {
        "kind": kind,
        "id": part.id,
        "name": part.name,
        "x": paper.x(x),
        "y": paper.y(y + h),
        "width": w * paper.scale,
        "height": h * paper.scale,
        "metres": metres,
        "says": _says(part, metres, units),
    }


def _opening(o: Opening, paper: Paper, selected: tuple[str, str], units: Units) -> DrawnPart:
    box = _part(o, "opening", (o.x_m, o.y_m, o.width_m, o.height_m), paper, units)
    strokes = opening_glyph(o.kind, box["width"], box["height"], o.casing_m * paper.scale)
    return DrawnPart(**box, style=o.kind.value, strokes=strokes, selected=selected == ("opening", o.id))


def _item(i: Item, paper: Paper, selected: tuple[str, str], units: Units, colour: str) -> DrawnPart:
    box = _part(i, "item", (i.x_m, i.y_m, *item_size(i)), paper, units)
    fields = type(i.spec).model_fields
    return DrawnPart(
        **box,
        style=f"item {i.spec.kind}",
        strokes=item_glyph(i, box["width"], box["height"]),
        selected=selected == ("item", i.id),
        colour=colour,
        sizable="width_m" in fields and "height_m" in fields,
        hollow=i.spec.kind == "shutter-pair",
    )


def _obstacle(o: Obstacle, paper: Paper, selected: tuple[str, str], units: Units) -> DrawnPart:
    box = _part(o, "obstacle", (o.x_m, o.y_m, o.width_m, o.height_m), paper, units)
    strokes = obstacle_glyph(o.kind, box["width"], box["height"])
    return DrawnPart(**box, style=f"obstacle {o.kind.value}", strokes=strokes, selected=selected == ("obstacle", o.id))


def _corners(zones: tuple[Zone, ...], paper: Paper, selected: tuple[str, str]) -> list[tuple[str, float, float]]:
    """The corners of the chosen zone, where it has an outline of its own, px."""
    zone = next((z for z in zones if selected == ("zone", z.id)), None)
    if zone is None or not isinstance(zone.area, Region):
        return []
    return [(f"{n}", paper.x(x), paper.y(y)) for n, (x, y) in enumerate(zone.area.corners)]


def _handles(part: DrawnPart | None) -> list[tuple[str, float, float]]:
    """The corners by which the chosen part is resized, px."""
    if part is None or not part.sizable:
        return []
    right, bottom = part.x + part.width, part.y + part.height
    return [("nw", part.x, part.y), ("ne", right, part.y), ("sw", part.x, bottom), ("se", right, bottom)]
