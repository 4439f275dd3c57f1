"""Elevations as DXF in millimetres, a layer for each kind of thing."""

import io
from itertools import pairwise
from typing import Any

from ezdxf import units
from ezdxf.filemanagement import new
from ezdxf.layouts.layout import Modelspace
from shapely.geometry.base import BaseGeometry

from amber_gable.core.survey.drawing.geometry import face_regions, item_size
from amber_gable.domain.house.survey import Face, Property

MM = 1000.0
GAP_MM = 3000.0
# name: colour number
LAYERS = {
    "OUTLINE": 7, "ZONES": 8, "OPENINGS": 5, "CASINGS": 4, "ITEMS": 30, "OBSTACLES": 3, "DIMENSIONS": 1, "TEXT": 7,
    "GROUND": 7,
}  # fmt: skip


def write_dxf(property_: Property, faces: tuple[Face, ...]) -> bytes:
    """The faces side by side, each with its lower left corner on the base line."""
    document = new("R2010", setup=True)
    document.units = units.MM
    for name, colour in LAYERS.items():
        document.layers.add(name, color=colour)
    space = document.modelspace()
    left = 0.0
    for face in faces:
        _face(space, property_, face, left)
        left += face.width_m * MM + GAP_MM
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8")


def _face(space: Modelspace, property_: Property, face: Face, left: float) -> None:
    def at(x: float, y: float) -> tuple[float, float]:
        return left + x * MM, y * MM

    def box(x: float, y: float, width: float, height: float, layer: str) -> None:
        corners = [at(x, y), at(x + width, y), at(x + width, y + height), at(x, y + height)]
        space.add_lwpolyline(corners, close=True, dxfattribs={"layer": layer})

    def shape(region: BaseGeometry) -> None:
        for part in getattr(region, "geoms", [region]):
            if part.geom_type == "Polygon" and not part.is_empty:
                for ring in (part.exterior, *part.interiors):
                    points = [at(x, y) for x, y in list(ring.coords)[:-1]]
                    space.add_lwpolyline(points, close=True, dxfattribs={"layer": "ZONES"})

    outline = [at(x, y) for x, y in face.points]
    space.add_lwpolyline(outline, close=True, dxfattribs={"layer": "OUTLINE"})
    for region in face_regions(face, property_.zones_of(face.id)).regions.values():
        shape(region)
    for o in face.openings:
        box(o.x_m, o.y_m, o.width_m, o.height_m, "OPENINGS")
        if o.casing_m:
            under = o.casing_m if o.y_m > 0.4 else 0.0
            box(
                o.x_m - o.casing_m,
                o.y_m - under,
                o.width_m + 2 * o.casing_m,
                o.height_m + o.casing_m + under,
                "CASINGS",
            )
    for i in property_.items_of(face.id):
        box(i.x_m, i.y_m, *item_size(i), "ITEMS")
    for thing in face.obstacles:
        box(thing.x_m, thing.y_m, thing.width_m, thing.height_m, "OBSTACLES")
    if face.is_wall:
        ends = (left - 600, 0), (left + face.width_m * MM + 600, 0)
        space.add_line(*ends, dxfattribs={"layer": "GROUND"})
    override = {"dimtxt": 180, "dimasz": 120, "dimexe": 80, "dimdec": 0, "dimlfac": 1}
    style: dict[str, Any] = {"dxfattribs": {"layer": "DIMENSIONS"}, "override": override}
    space.add_linear_dim(base=(left, -500), p1=at(0, 0), p2=at(face.width_m, 0), **style).render()
    levels = sorted({round(y, 4) for _, y in face.points} | {0.0})
    for low, high in pairwise(levels):
        space.add_linear_dim(base=(left - 500, 0), p1=at(0, low), p2=at(0, high), angle=90, **style).render()
    text = space.add_text(face.name, height=250, dxfattribs={"layer": "TEXT"})
    text.set_placement((left, -1200))
