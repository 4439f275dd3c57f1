"""Outlines of faces: the shapes a surveyor measures, each with its corners and its arithmetic.

Corners lie in the face's own plane, m, anticlockwise from the lower left, x to the right seen from outside, y up (for a
roof or deck: up the slope). `pieces` is the area as a painter works it out.
"""

from dataclasses import dataclass
from enum import StrEnum
from math import cos, radians
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from amber_gable.domain.base import Length, Offset, Record
from amber_gable.domain.house.polygon import Point, crossing_edges, signed_area


@dataclass(frozen=True)
class OutlinePiece:
    """One line of arithmetic: `share` × the product of `sizes` (m), ÷ the cosine of `pitch_deg`."""

    words: str
    sizes: tuple[float, ...]
    share: float = 1.0
    pitch_deg: float = 0.0

    @property
    def area_m2(self) -> float:
        area = self.share
        for size in self.sizes:
            area *= size
        return area / cos(radians(self.pitch_deg))


class Rectangle(Record):
    kind: Literal["rectangle"] = "rectangle"
    width_m: Length
    height_m: Length

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        return _box(self.width_m, self.height_m)

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        return (OutlinePiece("width × height", (self.width_m, self.height_m)),)


class Gable(Record):
    """A wall under a pitched roof. `peak_m` from the left edge; None in the middle."""

    kind: Literal["gable"] = "gable"
    width_m: Length
    eave_height_m: Length
    rise_m: Length
    peak_m: Offset | None = None

    @model_validator(mode="after")
    def _peak_over_wall(self) -> Self:
        if self.peak_m is not None and self.peak_m > self.width_m:
            raise ValueError(f"the peak is {self.peak_m:g} m from the left edge of a wall {self.width_m:g} m wide")
        return self

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        w, h = self.width_m, self.eave_height_m
        peak = w / 2 if self.peak_m is None else self.peak_m
        return _ring(((0, 0), (w, 0), (w, h), (peak, h + self.rise_m), (0, h)))

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        return (
            OutlinePiece("width × eave height", (self.width_m, self.eave_height_m)),
            OutlinePiece("gable, ½ width × rise", (self.width_m, self.rise_m), 0.5),
        )


class LeanTo(Record):
    """A half gable: one sloping top from the left height to the right height."""

    kind: Literal["lean-to"] = "lean-to"
    width_m: Length
    left_m: Offset
    right_m: Offset

    @model_validator(mode="after")
    def _has_height(self) -> Self:
        if self.left_m + self.right_m <= 0:
            raise ValueError("both heights are zero; give the wall a height on one side at least")
        return self

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        return _ring(((0, 0), (self.width_m, 0), (self.width_m, self.right_m), (0, self.left_m)))

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        low, high = sorted((self.left_m, self.right_m))
        lines = [OutlinePiece("width × lower height", (self.width_m, low))] if low else []
        if high > low:
            lines.append(OutlinePiece("slope, ½ width × difference", (self.width_m, high - low), 0.5))
        return tuple(lines)


class HipEnd(Record):
    """A gable cut off by a hip: the top runs level for `ridge_m`."""

    kind: Literal["hip-end"] = "hip-end"
    width_m: Length
    eave_height_m: Length
    rise_m: Length
    ridge_m: Length

    @model_validator(mode="after")
    def _narrows(self) -> Self:
        if self.ridge_m > self.width_m:
            raise ValueError(f"the level top ({self.ridge_m:g} m) is wider than the wall ({self.width_m:g} m)")
        return self

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        w, h, inset = self.width_m, self.eave_height_m, (self.width_m - self.ridge_m) / 2
        top = h + self.rise_m
        return _ring(((0, 0), (w, 0), (w, h), (w - inset, top), (inset, top), (0, h)))

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        return (
            OutlinePiece("width × eave height", (self.width_m, self.eave_height_m)),
            OutlinePiece("cut gable, ½ (width + top) × rise", (self.width_m + self.ridge_m, self.rise_m), 0.5),
        )


class OutlineSide(StrEnum):
    LEFT = "left"
    RIGHT = "right"


class DormerCheek(Record):
    """The triangular side of a dormer: upright at its front, running out up the roof."""

    kind: Literal["dormer-cheek"] = "dormer-cheek"
    width_m: Length
    height_m: Length
    front: OutlineSide = OutlineSide.LEFT

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        w, h = self.width_m, self.height_m
        return ((0, 0), (w, h), (0, h)) if self.front is OutlineSide.LEFT else ((w, 0), (w, h), (0, h))

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        return (OutlinePiece("½ width × height", (self.width_m, self.height_m), 0.5),)


class Parapet(Record):
    """A wall that rises past the roof, with a raised middle part or none. Height to the top of the ends."""

    kind: Literal["parapet"] = "parapet"
    width_m: Length
    height_m: Length
    middle_width_m: Offset = 0.0
    middle_rise_m: Offset = 0.0

    @model_validator(mode="after")
    def _middle_fits(self) -> Self:
        if self.middle_width_m > self.width_m:
            raise ValueError(
                f"the raised middle ({self.middle_width_m:g} m) is wider than the wall ({self.width_m:g} m)"
            )
        return self

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        w, h, up = self.width_m, self.height_m, self.height_m + self.middle_rise_m
        a, b = (w - self.middle_width_m) / 2, (w + self.middle_width_m) / 2
        if not self.middle_width_m or not self.middle_rise_m:
            return _box(w, h)
        return _ring(((0, 0), (w, 0), (w, h), (b, h), (b, up), (a, up), (a, h), (0, h)))

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        lines = [OutlinePiece("width × height", (self.width_m, self.height_m))]
        if self.middle_width_m and self.middle_rise_m:
            lines.append(OutlinePiece("raised middle", (self.middle_width_m, self.middle_rise_m)))
        return tuple(lines)


class RoofEdge(StrEnum):
    """How a slope ends at its side: straight up (verge), drawn in over a hip, or running out into a valley."""

    VERGE = "verge"
    HIP = "hip"
    VALLEY = "valley"


class RoofSlope(Record):
    """A roof plane measured on plan: eave length and run, level m; its pitch is the face's tilt.

    Hips and valleys run at 45° on plan, as between slopes of one pitch.
    """

    kind: Literal["roof-slope"] = "roof-slope"
    eave_m: Length
    run_m: Length
    left: RoofEdge = RoofEdge.VERGE
    right: RoofEdge = RoofEdge.VERGE

    @property
    def ridge_m(self) -> float:
        return self.eave_m + sum(self.run_m * _DRAW_IN[e] for e in (self.left, self.right))

    @model_validator(mode="after")
    def _hips_meet_at_ridge(self) -> Self:
        if self.ridge_m < -1e-9:
            raise ValueError(
                f"the hips meet below the ridge: with a run of {self.run_m:g} m the eave must be at least "
                f"{self.eave_m - self.ridge_m:g} m long"
            )
        return self

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        slope = self.run_m / cos(radians(tilt_deg))
        left, right = -self.run_m * _DRAW_IN[self.left], self.eave_m + self.run_m * _DRAW_IN[self.right]
        shift = max(0.0, -left)
        return _ring(((shift, 0), (self.eave_m + shift, 0), (right + shift, slope), (left + shift, slope)))

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        words = "plan area ÷ cos pitch" if self.ridge_m == self.eave_m else "½ (eave + ridge) × run ÷ cos pitch"
        if self.ridge_m == self.eave_m:
            return (OutlinePiece(words, (self.eave_m, self.run_m), 1.0, tilt_deg),)
        return (OutlinePiece(words, (self.eave_m + max(self.ridge_m, 0.0), self.run_m), 0.5, tilt_deg),)


_DRAW_IN = {RoofEdge.VERGE: 0.0, RoofEdge.HIP: -1.0, RoofEdge.VALLEY: 1.0}


class FreeOutline(Record):
    """Any simple polygon by its corners."""

    kind: Literal["free"] = "free"
    corners: Annotated[tuple[tuple[Offset, Offset], ...], Field(min_length=3, max_length=200)]

    @model_validator(mode="after")
    def _simple(self) -> Self:
        crossing = crossing_edges(self.corners)
        if crossing is not None:
            a, b = crossing
            raise ValueError(f"the outline crosses itself: edge {a + 1} meets edge {b + 1}; put the corners in order")
        if abs(signed_area(self.corners)) < 1e-4:
            raise ValueError("the outline encloses no area; its corners lie in one line")
        return self

    def points(self, tilt_deg: float) -> tuple[Point, ...]:
        left, low = min(x for x, _ in self.corners), min(y for _, y in self.corners)
        moved = tuple((x - left, y - low) for x, y in self.corners)
        return moved if signed_area(moved) > 0 else moved[::-1]

    def pieces(self, tilt_deg: float) -> tuple[OutlinePiece, ...]:
        return (OutlinePiece(f"outline of {len(self.corners)} corners", (abs(signed_area(self.corners)),)),)


Outline = Annotated[
    Rectangle | Gable | LeanTo | HipEnd | DormerCheek | Parapet | RoofSlope | FreeOutline, Field(discriminator="kind")
]


def _box(width: float, height: float) -> tuple[Point, ...]:
    return ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))


def _ring(corners: tuple[Point, ...]) -> tuple[Point, ...]:
    """The corners with those that fall together (a hip that ends in a point, a lean-to down to nothing) kept once."""
    out: list[Point] = []
    for p in corners:
        if not out or max(abs(p[0] - out[-1][0]), abs(p[1] - out[-1][1])) > 1e-9:
            out.append(p)
    if max(abs(out[0][0] - out[-1][0]), abs(out[0][1] - out[-1][1])) <= 1e-9:
        out.pop()
    return tuple(out)
