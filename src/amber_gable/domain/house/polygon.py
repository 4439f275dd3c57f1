"""Plain polygons: their area, and whether they cross themselves. Corners in m."""

from collections.abc import Sequence

Point = tuple[float, float]


def signed_area(corners: Sequence[Point]) -> float:
    """Area of a polygon, m², positive anticlockwise (shoelace formula)."""
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in _edges(corners)) / 2


def crossing_edges(corners: Sequence[Point]) -> tuple[int, int] | None:
    """Numbers of two edges of the closed polygon that meet where they should not, or None when it is simple."""
    edges = _edges(corners)
    count = len(edges)
    for i, (a, b) in enumerate(edges):
        if a == b:
            return i, (i + 1) % count
        for j in range(i + 1, count):
            c, d = edges[j]
            if j == i + 1 or (i == 0 and j == count - 1):
                # Neighbours share a corner; they are at fault only when one runs back over the other.
                first, shared, last = (a, b, d) if j == i + 1 else (c, a, b)
                if _turn(first, shared, last) == 0 and _before(first, shared, last):
                    return i, j
            elif _meet(a, b, c, d):
                return i, j
    return None


def _edges(corners: Sequence[Point]) -> list[tuple[Point, Point]]:
    return list(zip(corners, (*corners[1:], corners[0]), strict=True))


def _turn(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _before(a: Point, b: Point, c: Point) -> bool:
    return (a[0] - b[0]) * (c[0] - b[0]) + (a[1] - b[1]) * (c[1] - b[1]) > 0


def _meet(a: Point, b: Point, c: Point, d: Point) -> bool:
    p, q, r, s = _turn(a, b, c), _turn(a, b, d), _turn(c, d, a), _turn(c, d, b)
    if p * q < 0 and r * s < 0:
        return True
    return any(
        turn == 0 and _within(one, other, point)
        for turn, one, other, point in ((p, a, b, c), (q, a, b, d), (r, c, d, a), (s, c, d, b))
    )


def _within(a: Point, b: Point, p: Point) -> bool:
    return min(a[0], b[0]) <= p[0] <= max(a[0], b[0]) and min(a[1], b[1]) <= p[1] <= max(a[1], b[1])
