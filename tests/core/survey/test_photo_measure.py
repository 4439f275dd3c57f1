"""Measuring on a photo: a checkerboard wall is rendered in perspective, its corners are found, sizes come out."""

import numpy as np
import pytest

from amber_gable.core.survey.drawing.homography import is_convex, to_plane, wall_map
from tests.checkerboard import SQUARE_M, Camera, found_corner, photo_of_board

# turn about the upright, tilt, distance m, focal length ÷ longer side
VIEWS = [
    (0.0, 0.0, 9.0, 0.8),
    (28.0, 0.0, 9.0, 0.8),
    (-35.0, 8.0, 11.0, 0.72),
    (20.0, -12.0, 8.0, 1.4),
    (42.0, 5.0, 12.0, 1.0),
]
COLUMNS, ROWS = 8, 5
W, H = COLUMNS * SQUARE_M, ROWS * SQUARE_M


def _corners(camera: Camera) -> tuple[tuple[float, float], ...]:
    return tuple(camera.seen(x, y) for x, y in ((0, 0), (W, 0), (W, H), (0, H)))


@pytest.mark.parametrize("view", VIEWS)
def test_distances_on_a_rendered_checkerboard_come_out_within_one_percent(view: tuple[float, ...]) -> None:
    camera = Camera(*view)
    picture = photo_of_board(camera, COLUMNS, ROWS)
    # Marked by eye: near the true place, then put where the picture's own corner is.
    marks = [found_corner(picture, p) for p in _corners(camera)]
    crossings = [(i, j) for i in range(1, COLUMNS) for j in range(1, ROWS)]
    inner = {(i, j): found_corner(picture, camera.seen(i * SQUARE_M, j * SQUARE_M)) for i, j in crossings}
    known = (inner[2, 1], inner[4, 1], 2 * SQUARE_M)
    second = (inner[6, 1], inner[6, 3], 2 * SQUARE_M)
    wall = wall_map(tuple(marks), camera.size, known)
    if not wall.sure:
        # As the page asks: a second length where the view does not settle the wall's proportions.
        wall = wall_map(tuple(marks), camera.size, known, second)
    pairs = [((1, 1), (7, 1)), ((1, 1), (1, 4)), ((2, 2), (6, 2)), ((7, 1), (7, 4)), ((1, 1), (4, 4))]
    true = [SQUARE_M * np.hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairs]
    read = [wall.distance_m(inner[a], inner[b]) for a, b in pairs]
    worst = max(abs(r / t - 1) for r, t in zip(read, true, strict=True))
    assert worst < 0.01
    assert wall.width_m == pytest.approx(W, rel=0.01)
    assert wall.height_m == pytest.approx(H, rel=0.01)
    x, y = to_plane(wall.matrix, inner[3, 2])
    assert (x, y) == pytest.approx((3 * SQUARE_M, 2 * SQUARE_M), abs=0.01 * W)


def test_a_view_turned_one_way_only_says_that_it_is_not_sure() -> None:
    camera = Camera(28.0, 0.0, 9.0, 0.8)
    known = (camera.seen(1, 1), camera.seen(3, 1), 2.0)
    corners = _corners(camera)
    assert not wall_map(corners, camera.size, known).sure
    assert wall_map(corners, camera.size, known, (camera.seen(1, 1), camera.seen(1, 3), 2.0)).sure
    tilted = Camera(28.0, 9.0, 9.0, 0.8)
    known = (tilted.seen(1, 1), tilted.seen(3, 1), 2.0)
    assert wall_map(_corners(tilted), tilted.size, known).sure


SQUARE_ON = ((100.0, 900.0), (900.0, 900.0), (900.0, 100.0), (100.0, 100.0))
KNOWN = ((100.0, 900.0), (500.0, 900.0), 4.0)
REFUSED = [
    (((100.0, 900.0), (900.0, 100.0), (900.0, 900.0), (100.0, 100.0)), KNOWN, None, "do not make a wall"),
    (((100.0, 100.0), (500.0, 100.0), (900.0, 100.0), (100.0, 900.0)), KNOWN, None, "one line"),
    (((100.0, 100 / 3), (410.0, 410 / 3), (770.0, 770 / 3), (100.0, 900.0)), KNOWN, None, "one line"),
    # Twice the same corner, at a place whose rounding leaves nothing exactly nought.
    (((137.31, 612.47), (803.7, 590.13), (137.31, 612.47), (120.9, 96.2)), KNOWN, None, "one line"),
    (SQUARE_ON, ((200.0, 200.0), (200.0, 200.0), 4.0), None, "fall together"),
    (SQUARE_ON, KNOWN, ((100.0, 800.0), (700.0, 800.0), 6.0), "same way"),
    (SQUARE_ON, ((100.0, 900.0), (100.1, 900.0), 150.0), None, "check the known length"),
]


@pytest.mark.parametrize(("corners", "known", "second", "words"), REFUSED)
def test_marks_that_give_no_scale_are_refused(corners, known, second, words: str) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(ValueError, match=words):
        wall_map(corners, (1000.0, 1000.0), known, second)


def test_corners_must_run_once_round() -> None:
    assert is_convex(SQUARE_ON)
    assert not is_convex(SQUARE_ON[::-1])  # type: ignore[arg-type]
