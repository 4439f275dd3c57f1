"""From metres on a face to px on the paper."""

from dataclasses import dataclass

from shapely.geometry.base import BaseGeometry


@dataclass(frozen=True)
class Paper:
    """From metres on the face to px on the paper."""

    left: float
    ground: float
    scale: float

    def x(self, metres: float) -> float:
        return self.left + metres * self.scale

    def y(self, metres: float) -> float:
        return self.ground - metres * self.scale

    def path(self, shape: BaseGeometry) -> str:
        out = []
        for polygon in getattr(shape, "geoms", [shape]):
            if polygon.geom_type != "Polygon" or polygon.is_empty:
                continue
            for ring in (polygon.exterior, *polygon.interiors):
                corners = list(ring.coords)[:-1]
                out.append("M" + "L".join(f"{self.x(x):.1f} {self.y(y):.1f}" for x, y in corners) + "z")
        return "".join(out)
