"""A wall's openings in one line: what is understood, where they stand, and what is said of what is not."""

import pytest
from shapely import Polygon, box

from amber_gable.core.survey.blocks.wall_line import ToldOpening, placed, read_line
from amber_gable.domain.units import UnitSystem

FOOT = 0.3048


def _told(text: str, system: UnitSystem = UnitSystem.METRIC) -> list[tuple[str, float, float, float]]:
    return [(t.usual.item or t.usual.kind.value, t.width_m, t.height_m, t.sill_m) for t in read_line(text, system)]


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("3 sash 0.9 x 1.4 sill 0.9", [("sash-window", 0.9, 1.4, 0.9)] * 3),
        ("3 sashes 0.9 × 1.4 sill 0.9", [("sash-window", 0.9, 1.4, 0.9)] * 3),
        ("two sash windows", [("sash-window", 0.9, 1.4, 0.9)] * 2),
        ("door", [("panelled-door", 0.9, 2.1, 0.0)]),
        ("a garage door 4.9 x 2.1", [("garage-door", 4.9, 2.1, 0.0)]),
        ("casement 120 cm x 110 cm sill 1 m", [("casement", 1.2, 1.1, 1.0)]),
        ("vent 0.5 x 0.6 sill 6.5", [("vent", 0.5, 0.6, 6.5)]),
        ("fixed window 2 x 1.5", [("window", 2.0, 1.5, 0.9)]),
        ("1 sash sill 0.9 and 3.7", [("sash-window", 0.9, 1.4, 0.9), ("sash-window", 0.9, 1.4, 3.7)]),
        (
            "2 sash 0.9x1.4; door 1 x 2.1; sash 0.9x1.4",
            [("sash-window", 0.9, 1.4, 0.9)] * 2 + [("panelled-door", 1.0, 2.1, 0.0), ("sash-window", 0.9, 1.4, 0.9)],
        ),
    ],
)
def test_what_is_understood(text: str, told: list[tuple[str, float, float, float]]) -> None:
    assert _told(text) == [(k, pytest.approx(w), pytest.approx(h), pytest.approx(s)) for k, w, h, s in told]


def test_feet_and_inches() -> None:
    (one,) = _told("sash 3' x 4' 6\" sill 2' 8\"", UnitSystem.US)
    assert one[1:] == pytest.approx((3 * FOOT, 4.5 * FOOT, 8 / 3 * FOOT))


@pytest.mark.parametrize(
    ("text", "panes"),
    [
        ("2/2 sash", (2, 1)),
        ("3 6/6 sash", (3, 2)),
        ("two-over-two sash", (2, 1)),
        ("2 over 2 sash", (2, 1)),
        ("sash", None),
    ],
)
def test_how_windows_are_divided(text: str, panes: tuple[int, int] | None) -> None:
    assert read_line(text)[0].panes == panes


def test_what_goes_with_them() -> None:
    (one,) = read_line("sash 0.8 x 1.4, shutters")
    assert one.shutters and one.leaf_m == pytest.approx(0.4) and one.taken_m == pytest.approx(1.6)
    assert not read_line("sash, not painted")[0].painted


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "nothing is told"),
        ("3 portholes", "names no opening known here"),
        ("0 sash", "none of them"),
        ("5/7 sash", "not a way windows are divided"),
        ("sash, curtains", "“curtains”"),
        ("sash 0.9", "is not a size"),
        ("sash sill high", "high"),
        ("99 sash", "too many"),
    ],
)
def test_what_is_not_understood_is_said_with_its_piece(text: str, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        read_line(text)


def _edges(told: list[ToldOpening]) -> list[tuple[float, float]]:
    return [(t.x_m, t.x_m + t.width_m) for t in told]


def test_a_row_is_spread_evenly_in_the_order_it_was_told() -> None:
    # 9 m less 3 × 0.9 leaves 6.3 m: four gaps of 1.575 m.
    edges = _edges(placed(read_line("sash; door; sash"), box(0, 0, 9.0, 6), []))
    assert edges == [pytest.approx((1.575, 2.475)), pytest.approx((4.05, 4.95)), pytest.approx((6.525, 7.425))]


def test_each_storey_is_a_row_of_its_own() -> None:
    told = placed(read_line("2 sash sill 0.9 and 3.7; sash sill 3.7"), box(0, 0, 8.0, 6), [])
    below, above = [t for t in told if t.sill_m < 2], [t for t in told if t.sill_m > 2]
    assert len(below) == 2 and len(above) == 3
    assert below[0].x_m == pytest.approx((8 - 1.8) / 3, abs=1e-3)
    assert above[0].x_m == pytest.approx((8 - 2.7) / 4, abs=1e-3)


def test_shutters_have_room_of_their_own() -> None:
    (one, two) = placed(read_line("2 sash 0.8 x 1.4, shutters"), box(0, 0, 6.0, 6), [])
    assert one.x_m - one.leaf_m >= 0 and two.x_m - two.leaf_m > one.x_m + one.width_m + one.leaf_m


def test_what_stands_there_already_is_gone_round() -> None:
    (one,) = placed(read_line("sash"), box(0, 0, 9.0, 6), [(1.0, 0.0, 1.0, 2.1)])
    assert one.x_m == pytest.approx(2 + (7 - 0.9) / 2)
    (above,) = placed(read_line("sash sill 3.7"), box(0, 0, 9.0, 6), [(1.0, 0.0, 1.0, 2.1)])
    assert above.x_m == pytest.approx((9 - 0.9) / 2), "nothing stands up there"


def test_a_row_stands_where_the_wall_is() -> None:
    """Under a gable 8 m wide and 3 m high, 2 m up it, 8 × ⅓ = 2.67 m are left; beside a wing, the wall only."""
    gable = Polygon([(0, 0), (8, 0), (8, 3), (4, 6), (0, 3)])
    (vent,) = placed(read_line("vent 0.5 x 0.5 sill 4.5"), gable, [])
    assert vent.x_m == pytest.approx(3.75)
    with pytest.raises(ValueError, match=r"need 3.60 m and their gaps, 2.67 m are free"):
        placed(read_line("4 sash 0.9 x 0.5 sill 4.5"), gable, [])
    beside = box(0, 0, 9, 6).difference(box(5, 0, 9, 3))
    low, high = placed(read_line("sash; sash sill 3.7"), beside, [])
    assert (low.x_m, high.x_m) == (pytest.approx(2.05), pytest.approx(4.05))


def test_what_does_not_fit_is_said_in_figures() -> None:
    with pytest.raises(ValueError, match=r"5 openings at 0.90 m need 4.50 m and their gaps, 4.00 m are free"):
        placed(read_line("5 sash"), box(0, 0, 4.0, 6), [])
