"""What people type: lengths, sizes and bearings, and what is refused with a word of help."""

import pytest

from amber_gable.core.survey.amounts.measures import parse_bearing, parse_length, parse_size
from amber_gable.domain.units import UnitSystem
from tests.jobs import FOOT

IN = FOOT / 12
M, US = UnitSystem.METRIC, UnitSystem.US
LENGTHS = [
    ("6.7", M, 6.7), ("6,7", M, 6.7), ("6.7 m", US, 6.7), ("670 cm", M, 6.7), ("6700", M, 6.7), ("6700 mm", US, 6.7),
    ("27'", M, 27 * FOOT), ("27", US, 27 * FOOT), ("27' 6\"", M, 27 * FOOT + 6 * IN), ("27 ft 6 in", US, 27.5 * FOOT),
    ("27’ 6½”".replace("½", " 1/2"), M, 27 * FOOT + 6.5 * IN), ("7-1/2 in", M, 7.5 * IN), ("1/2\"", US, IN / 2),
    ("27' 6", US, 27.5 * FOOT), ("1 m 20", M, 1.2), ("0", M, 0.0), (".5 m", M, 0.5), ("8''", M, 8 * IN),
]  # fmt: skip


@pytest.mark.parametrize(("text", "system", "metres"), LENGTHS)
def test_lengths_as_typed(text: str, system: UnitSystem, metres: float) -> None:
    assert parse_length(text, system) == pytest.approx(metres, abs=1e-6)


SIZES = [
    ("27' x 9'", M, (27 * FOOT, 9 * FOOT)), ("8.4 x 2.9 m", M, (8.4, 2.9)), ("8400x2900", M, (8.4, 2.9)),
    ("27 × 9", US, (27 * FOOT, 9 * FOOT)), ("2 m by 80 cm", M, (2.0, 0.8)), ("900 x 2100", US, (0.9, 2.1)),
    ("3' x 6'8\"", M, (3 * FOOT, 6 * FOOT + 8 * IN)), ("1,2*1,5", M, (1.2, 1.5)), ("36 x 80 in", M, (36 * IN, 80 * IN)),
]  # fmt: skip


@pytest.mark.parametrize(("text", "system", "size"), SIZES)
def test_sizes_as_typed(text: str, system: UnitSystem, size: tuple[float, float]) -> None:
    assert parse_size(text, system) == pytest.approx(size, abs=1e-6)


REFUSED = [
    ("wide", "not a length"), ("", "needed"), ("150", "centimetres or millimetres"), ("3 furlongs", "not a unit"),
    ("-3", "less than nothing"), ("1e9", "not a unit"), ("1000000000 m", "no wall is longer"), ("nan", "not a length"),
    ("6 m 2 m", "mixes units"), ("1/0 in", "divides by zero"), ("3 4 m", "two numbers"), ("inf", "not a length"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "words"), REFUSED)
def test_what_is_no_length_is_refused_with_a_reason(text: str, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        parse_length(text)


@pytest.mark.parametrize("text", ["6.7", "6 x", "x 3", "6 x 3 x 2", "6.7 kg x 3", "six by three"])
def test_what_is_no_size_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match=r"write|unit"):
        parse_size(text)


BEARINGS = [
    ("SW", 225), ("south-west", 225), ("188", 188), ("188°", 188), ("N 30 E", 30), ("S 10 W", 190), ("360", 0),
    ("North north east", 22.5), ("12,5", 12.5), ("w", 270),
]  # fmt: skip


@pytest.mark.parametrize(("text", "degrees"), BEARINGS)
def test_bearings_as_said(text: str, degrees: float) -> None:
    assert parse_bearing(text) == degrees


@pytest.mark.parametrize("text", ["", "up", "400", "-3", "nan", "N 95 E", "SX"])
def test_what_is_no_bearing_is_refused(text: str) -> None:
    with pytest.raises(ValueError, match="not a bearing"):
        parse_bearing(text)
