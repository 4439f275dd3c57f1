"""Measuring on a photo of a flat wall: the map from the picture to the wall's own plane.

Picture points are px from the top left, y down; the wall's plane is m from its lower left corner, y up. Method: the
plane homography from four corners (Hartley & Zisserman, Multiple View Geometry, 2nd ed., ch. 4); the unknown ratio of
the wall's sides from the two vanishing points, with square pixels and the optical axis at the picture's centre (as for
whiteboards: Zhang & He 2007).
"""

from dataclasses import dataclass
from itertools import combinations
from math import hypot

import numpy as np
import numpy.typing as npt

Point = tuple[float, float]
# Focal length ÷ longer side of the picture: a pocket camera's or phone's main lens.
COMMON_FOCAL = 0.72
Matrix = npt.NDArray[np.float64]


@dataclass(frozen=True)
class WallMap:
    """Picture px to m on the wall. `sure` is False where a common lens had to be assumed."""

    matrix: Matrix
    width_m: float
    height_m: float
    sure: bool

    def distance_m(self, a: Point, b: Point) -> float:
        """True distance of two picture points on the wall."""
        (x0, y0), (x1, y1) = to_plane(self.matrix, a), to_plane(self.matrix, b)
        return hypot(x1 - x0, y1 - y0)


def homography(picture: tuple[Point, Point, Point, Point], plane: tuple[Point, Point, Point, Point]) -> Matrix:
    """The 3 × 3 map that takes each picture point to its plane point; no three of them lie in one line."""
    rows = []
    for (x, y), (u, v) in zip(picture, plane, strict=True):
        rows.append([x, y, 1, 0, 0, 0, -u * x, -u * y])
        rows.append([0, 0, 0, x, y, 1, -v * x, -v * y])
    right = np.array([c for point in plane for c in point], dtype=float)
    h = np.linalg.solve(np.array(rows, dtype=float), right)
    return np.append(h, 1.0).reshape(3, 3)


def _in_one_line(a: Point, b: Point, c: Point) -> bool:
    """Whether the triangle is flatter than any wall is seen: a millionth of its longest side squared, of which rounding
    makes far less."""
    longest = max(hypot(p[0] - q[0], p[1] - q[1]) for p, q in combinations((a, b, c), 2))
    twice = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])
    return abs(twice) <= 1e-6 * longest**2


def to_plane(h: Matrix, point: Point) -> Point:
    """A picture point on the wall. Raises ValueError on the wall's horizon, which has no place on it."""
    x, y, w = h @ np.array([point[0], point[1], 1.0])
    if abs(w) < 1e-12:
        raise ValueError("the point lies on the wall's horizon, endlessly far away")
    return float(x / w), float(y / w)


def side_ratio(corners: tuple[Point, Point, Point, Point], size: tuple[float, float]) -> tuple[float, bool]:
    """Width ÷ height of the rectangle whose picture has these corners (lower left, lower right, upper right, upper
    left), and whether the perspective told it; if not, a common lens was assumed and a second known length would be
    better.

    The corners make a wall; `size` is the picture's width and height, px.
    """
    # The unit square's picture: columns are the images of its sides' directions.
    g = np.linalg.inv(homography(corners, ((0, 0), (1, 0), (1, 1), (0, 1))))
    centre = np.array([[1, 0, -size[0] / 2], [0, 1, -size[1] / 2], [0, 0, 1]])
    scale = float(max(size))
    a, b = (np.diag([1 / scale, 1 / scale, 1]) @ centre @ g)[:, :2].T
    # Sides are square to each other: aᵀ ω b = 0 gives the focal length, unless a side runs parallel to the picture.
    across = a[2] * b[2]
    steep = min(abs(a[2]) / hypot(a[0], a[1]), abs(b[2]) / hypot(b[0], b[1]))
    focal2 = -(a[0] * b[0] + a[1] * b[1]) / across if abs(across) > 1e-12 else 0.0
    told = bool(steep > 0.01 and 0.15 < focal2 < 100)
    if not told:
        focal2 = COMMON_FOCAL**2
    lengths = [np.sqrt((v[0] ** 2 + v[1] ** 2) / focal2 + v[2] ** 2) for v in (a, b)]
    square_on = max(abs(a[2]) / hypot(a[0], a[1]), abs(b[2]) / hypot(b[0], b[1])) < 0.01
    return float(lengths[0] / lengths[1]), told or square_on


def is_convex(corners: tuple[Point, Point, Point, Point]) -> bool:
    """Whether the corners run once round without a dent (in a picture: anticlockwise as seen, y down)."""
    turns = []
    for i in range(4):
        (ax, ay), (bx, by), (cx, cy) = (corners[(i + k) % 4] for k in range(3))
        turns.append((bx - ax) * (cy - by) - (by - ay) * (cx - bx))
    return all(t < -1e-9 for t in turns)


def wall_map(
    corners: tuple[Point, Point, Point, Point],
    size: tuple[float, float],
    known: tuple[Point, Point, float],
    second: tuple[Point, Point, float] | None = None,
) -> WallMap:
    """The map from the picture to metres on the wall.

    `known` are two marked points and their true distance, m. A `second` known length, well turned against the first,
    replaces the ratio of the sides read from the perspective. Raises ValueError when the marks cannot give a scale.
    """
    if any(_in_one_line(*three) for three in combinations(corners, 3)):
        raise ValueError("three of the four corners lie in one line; mark the wall's own corners")
    if not is_convex(corners):
        raise ValueError(
            "the four corners do not make a wall: mark them lower left, lower right, upper right, upper left"
        )
    unit = homography(corners, ((0, 0), (1, 0), (1, 1), (0, 1)))
    first = _span(unit, known)
    if second is None:
        ratio, sure = side_ratio(corners, size)
        height = known[2] / hypot(first[0] * ratio, first[1])
        width = height * ratio
    else:
        other = _span(unit, second)
        squares = np.array([[first[0] ** 2, first[1] ** 2], [other[0] ** 2, other[1] ** 2]])
        if abs(np.linalg.det(squares)) < 1e-3 * float(np.prod(squares.sum(axis=1))):
            raise ValueError("the two known lengths run the same way; mark one across and one up")
        solved = np.linalg.solve(squares, np.array([known[2] ** 2, second[2] ** 2]))
        if solved.min() <= 0:
            raise ValueError("the two known lengths contradict each other; check them")
        (width, height), sure = np.sqrt(solved), True
    if not 0.01 <= width <= 1000 or not 0.01 <= height <= 1000:
        raise ValueError(f"the wall would be {width:.3g} × {height:.3g} m; check the known length and its marks")
    matrix = np.asarray(np.diag([width, height, 1.0]) @ unit, dtype=float)
    return WallMap(matrix, float(width), float(height), sure)


def _span(unit: Matrix, known: tuple[Point, Point, float]) -> Point:
    a, b = to_plane(unit, known[0]), to_plane(unit, known[1])
    if hypot(b[0] - a[0], b[1] - a[1]) < 1e-6:
        raise ValueError("the known length's two marks fall together; set them apart")
    return b[0] - a[0], b[1] - a[1]
