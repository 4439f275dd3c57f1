"""Colour difference against the published pairs, hiding, tints, contrast."""

from itertools import pairwise
from pathlib import Path

import numpy as np
import pandas as pd
import pvlib
import pytest
from coloraide import Color
from hypothesis import given
from hypothesis import strategies as st

from amber_gable.core.specification.colour.absorptance import (
    INFRARED,
    ULTRAVIOLET,
    VISIBLE,
    Absorptance,
    absorptance_of,
)
from amber_gable.core.specification.colour.difference import (
    as_hex,
    ciede2000,
    contrast_ratio,
    contrast_words,
    difference,
    lab,
    linear,
    luminance,
)
from amber_gable.core.specification.colour.hiding import (
    Hiding,
    Strictness,
    coats_to_hide,
    cover_ups,
    hiding_power,
    ladder,
    undercoat_tint,
)


def test_colours_and_differences_are_those_of_the_colour_library() -> None:
    draw = np.random.default_rng(5)
    for _ in range(60):
        one, other = (f"#{int(n):06x}" for n in draw.integers(0, 2**24, 2))
        theirs = [Color("srgb-linear", linear(c).tolist()).convert("lab-d65") for c in (one, other)]
        found = lab(one)
        assert (found.lightness, found.chroma) == pytest.approx(
            (theirs[0]["l"], float(np.hypot(theirs[0]["a"], theirs[0]["b"]))), abs=1e-9
        )
        assert difference(linear(one), linear(other)) == pytest.approx(
            theirs[0].delta_e(theirs[1], method="2000"), abs=1e-9
        )


# Sharma, Wu & Dalal (2005), table 1: two colours in CIELAB and their difference.
PAIRS = """
50.0000 2.6772 -79.7751  50.0000 0.0000 -82.7485  2.0425
50.0000 3.1571 -77.2803  50.0000 0.0000 -82.7485  2.8615
50.0000 2.8361 -74.0200  50.0000 0.0000 -82.7485  3.4412
50.0000 -1.3802 -84.2814  50.0000 0.0000 -82.7485  1.0000
50.0000 -1.1848 -84.8006  50.0000 0.0000 -82.7485  1.0000
50.0000 -0.9009 -85.5211  50.0000 0.0000 -82.7485  1.0000
50.0000 0.0000 0.0000  50.0000 -1.0000 2.0000  2.3669
50.0000 -1.0000 2.0000  50.0000 0.0000 0.0000  2.3669
50.0000 2.4900 -0.0010  50.0000 -2.4900 0.0009  7.1792
50.0000 2.4900 -0.0010  50.0000 -2.4900 0.0010  7.1792
50.0000 2.4900 -0.0010  50.0000 -2.4900 0.0011  7.2195
50.0000 2.4900 -0.0010  50.0000 -2.4900 0.0012  7.2195
50.0000 -0.0010 2.4900  50.0000 0.0009 -2.4900  4.8045
50.0000 -0.0010 2.4900  50.0000 0.0010 -2.4900  4.8045
50.0000 -0.0010 2.4900  50.0000 0.0011 -2.4900  4.7461
50.0000 2.5000 0.0000  50.0000 0.0000 -2.5000  4.3065
50.0000 2.5000 0.0000  73.0000 25.0000 -18.0000  27.1492
50.0000 2.5000 0.0000  61.0000 -5.0000 29.0000  22.8977
50.0000 2.5000 0.0000  56.0000 -27.0000 -3.0000  31.9030
50.0000 2.5000 0.0000  58.0000 24.0000 15.0000  19.4535
50.0000 2.5000 0.0000  50.0000 3.1736 0.5854  1.0000
50.0000 2.5000 0.0000  50.0000 3.2972 0.0000  1.0000
50.0000 2.5000 0.0000  50.0000 1.8634 0.5757  1.0000
50.0000 2.5000 0.0000  50.0000 3.2592 0.3350  1.0000
60.2574 -34.0099 36.2677  60.4626 -34.1751 39.4387  1.2644
63.0109 -31.0961 -5.8663  62.8187 -29.7946 -4.0864  1.2630
61.2901 3.7196 -5.3901  61.4292 2.2480 -4.9620  1.8731
35.0831 -44.1164 3.7933  35.0232 -40.0716 1.5901  1.8645
22.7233 20.0904 -46.6940  23.0331 14.9730 -42.5619  2.0373
36.4612 47.8580 18.3852  36.2715 50.5065 21.2231  1.4146
90.8027 -2.0831 1.4410  91.1528 -1.6435 0.0447  1.4441
90.9257 -0.5406 -0.9208  88.6381 -0.8985 -0.7239  1.5381
6.7747 -0.2908 -2.4247  5.8714 -0.0985 -2.2286  0.6377
2.0776 0.0795 -1.1350  0.9033 -0.0636 -0.5514  0.9082
"""
ROWS = [tuple(float(v) for v in line.split()) for line in PAIRS.strip().splitlines()]


@pytest.mark.parametrize("row", ROWS, ids=range(1, 35))
def test_the_published_pairs(row: tuple[float, ...]) -> None:
    assert ciede2000(row[0:3], row[3:6]) == pytest.approx(row[6], abs=5e-5)
    assert ciede2000(row[3:6], row[0:3]) == pytest.approx(row[6], abs=5e-5)


WHITE, BLACK, RED, OAT, SLATE = "#f4f1ea", "#101010", "#b3261e", "#e9dcc1", "#53685c"


@pytest.mark.parametrize(
    ("old", "new", "power", "coats"),
    [
        (BLACK, WHITE, Hiding.MEDIUM, 2),
        (WHITE, RED, Hiding.WEAK, 5),
        (SLATE, OAT, Hiding.MEDIUM, 2),
        (WHITE, "#f2c418", Hiding.WEAK, 4),
        (WHITE, BLACK, Hiding.STRONG, 2),
        ("#a39b8b", "#b5ad9c", Hiding.GOOD, 1),
        (OAT, OAT, Hiding.MEDIUM, 1),
    ],
)
def test_coats_that_a_painter_would_expect(old: str, new: str, power: Hiding, coats: int) -> None:
    assert hiding_power(new) is power
    assert coats_to_hide(old, new, power.value) == coats


@pytest.mark.parametrize(
    ("colour", "power"),
    [
        ("#d0202a", Hiding.WEAK), ("#f2a900", Hiding.WEAK), ("#f4d03f", Hiding.WEAK),
        ("#1f4fd0", Hiding.MEDIUM), ("#0a9a3c", Hiding.MEDIUM), ("#f5f3ee", Hiding.MEDIUM),
        ("#8a7f6d", Hiding.GOOD), ("#1a1c20", Hiding.STRONG),
    ],
)  # fmt: skip
def test_clean_reds_and_yellows_hide_weakly_clean_blues_and_greens_better(colour: str, power: Hiding) -> None:
    assert hiding_power(colour) is power


def test_white_over_black_in_the_strict_and_the_relaxed_eye() -> None:
    strict, usual, relaxed = (coats_to_hide(BLACK, WHITE, 0.88, s.value) for s in Strictness)
    assert strict >= usual >= relaxed
    assert coats_to_hide(BLACK, WHITE, Hiding.TINT_BASE.value) > 4


def test_a_grey_undercoat_saves_red_coats() -> None:
    alone, primed = cover_ups(WHITE, RED, Hiding.WEAK.value, Hiding.GOOD.value)
    assert (alone.coats, primed.coats) == (5, 3)
    assert [r.name for r in primed.rungs] == ["as it is", "tinted primer", "coat 1", "coat 2", "coat 3"]
    assert luminance(undercoat_tint(RED)) == pytest.approx(luminance(RED), abs=0.01)
    assert lab(undercoat_tint(RED)).chroma < lab(RED).chroma


colours = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}")


@given(colours, colours, st.sampled_from([p.value for p in Hiding]))
def test_every_coat_brings_the_surface_nearer(old: str, new: str, contrast: float) -> None:
    gaps = [r.difference for r in ladder(old, new, contrast)]
    assert all(b <= a + 1e-9 for a, b in pairwise(gaps[1:])), "CIEDE2000 may bend on the first step"
    stronger = coats_to_hide(old, new, 0.5 + contrast / 2)
    assert stronger <= coats_to_hide(old, new, contrast)
    assert coats_to_hide(old, new, contrast, 2.0) <= coats_to_hide(old, new, contrast, 0.5)


@given(colours)
def test_linear_light_and_back(colour: str) -> None:
    assert as_hex(linear(colour)) == colour
    taken = absorptance_of(colour)
    assert 0.04 < taken.low <= taken.likely <= taken.high < 0.9978


def test_a_colour_tells_the_light_it_reflects_and_the_infrared_only_within_bounds() -> None:
    """The shares of the sun against the standard spectrum that pvlib ships; a sheet that tells leaves no bounds."""
    table = pd.read_csv(Path(pvlib.__file__).parent / "data" / "ASTMG173.csv", skiprows=1)
    length, power = table["wavelength"].to_numpy(), table["global"].to_numpy()
    ends = (280, 400, 700, 2500)
    parts = [np.trapezoid(np.where((length >= a) & (length <= b), power, 0), length) for a, b in pairwise(ends)]
    shares = np.array(parts) / sum(parts)
    assert shares == pytest.approx([ULTRAVIOLET, VISIBLE, INFRARED], abs=0.001)
    green, black, white = (absorptance_of(c) for c in ("#5f7a5e", "#0c0c0c", "#ffffff"))
    assert green.high - green.low > 0.25, "a mid tone may reflect its infrared or not"
    assert black.high - black.low < 0.02 and black.likely > 0.95
    assert 0.14 < white.low < white.likely < 0.2 < white.high < 0.24, "good white paint takes up a fifth or less"
    assert absorptance_of("#5f7a5e", 0.41) == Absorptance(*[pytest.approx(0.59)] * 3)


def test_contrast_of_body_and_trim() -> None:
    assert contrast_ratio("#000000", "#ffffff") == pytest.approx(21)
    assert contrast_ratio(OAT, OAT) == 1
    words = [contrast_words(r) for r in (1.0, 1.3, 2.0, 8.0)]
    assert len(set(words)) == 4
