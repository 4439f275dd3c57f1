"""How many coats hide the old colour (docs/physics.md §8).

Per channel in linear light R_n = R_new + (R_old - R_new) (1 - c)^n, c the contrast ratio of one coat at its film;
the eye's difference is CIEDE2000 to the new colour. Enough is the first n with a difference at or under the limit.
"""

from dataclasses import dataclass
from enum import Enum
from functools import lru_cache

from amber_gable.core.specification.colour.difference import as_hex, difference, lab, linear, luminance

MOST_COATS = 8


class Hiding(Enum):
    """Hiding power of a colour's pigments: contrast ratio of one coat at its recommended film."""

    STRONG = 0.985
    GOOD = 0.95
    MEDIUM = 0.88
    WEAK = 0.72
    TINT_BASE = 0.5


class Strictness(Enum):
    """Difference (CIEDE2000) at which the old colour counts as hidden."""

    STRICT = 0.5
    USUAL = 1.0
    RELAXED = 2.0


@dataclass(frozen=True)
class Rung:
    """One step of the cover-up ladder: what the surface looks like, how far from the new colour, and if it shows."""

    name: str
    colour: str
    difference: float
    hidden: bool


def hiding_power(colour: str) -> Hiding:
    """Judged from the colour itself: clean reds, oranges and yellows hide weakly, other clean brights and whites
    medium, earths and greys well, near-blacks strongly. A sheet's own figure beats it."""
    seen = lab(colour)
    warm = seen.hue <= 110 or seen.hue >= 345
    if seen.lightness < 22 and seen.chroma < 20:
        return Hiding.STRONG
    if seen.chroma > 50 and warm:
        return Hiding.WEAK
    if seen.chroma > 45 or seen.lightness > 86:
        return Hiding.MEDIUM
    return Hiding.GOOD


@lru_cache(maxsize=4096)
def ladder(old: str, new: str, contrast: float, limit: float = Strictness.USUAL.value) -> tuple[Rung, ...]:
    """The old colour, then coat after coat until it is hidden (at most 8 coats; the last may still show)."""
    start, goal = linear(old), linear(new)
    gap = difference(start, goal)
    rungs = [Rung("as it is", old, gap, gap <= limit)]
    for n in range(1, MOST_COATS + 1):
        light = goal + (start - goal) * (1 - contrast) ** n
        gap = difference(light, goal)
        rungs.append(Rung(f"coat {n}", as_hex(light), gap, gap <= limit))
        if gap <= limit:
            break
    return tuple(rungs)


def coats_to_hide(old: str, new: str, contrast: float, limit: float = Strictness.USUAL.value) -> int:
    """Least number of coats, at least 1, after which the old colour does not show; 9 when 8 are not enough."""
    rungs = ladder(old, new, contrast, limit)
    return len(rungs) - 1 if rungs[-1].hidden or len(rungs) == 1 else MOST_COATS + 1


def undercoat_tint(new: str) -> str:
    """A primer's tint toward the finish: three parts of the colour to one of the grey as light as it, for a primer
    base cannot take all of a clean bright's pigment."""
    goal = linear(new)
    return as_hex(0.75 * goal + 0.25 * luminance(new))


def under_tinted(old: str, new: str, primer: float = Hiding.GOOD.value) -> str:
    """What the surface looks like under one coat of primer tinted toward the finish; `primer` its contrast ratio."""
    tint = linear(undercoat_tint(new))
    return as_hex(tint + (linear(old) - tint) * (1 - primer))


@dataclass(frozen=True)
class CoverUp:
    """A way to hide the old colour: primer or none, then so many finish coats."""

    primer: bool
    tint: str
    coats: int
    rungs: tuple[Rung, ...]


def cover_ups(old: str, new: str, finish: float, primer: float, limit: float = Strictness.USUAL.value) -> list[CoverUp]:
    """Finish coats alone, and behind one coat of tinted primer. `finish`, `primer`: contrast ratios of one coat."""
    alone = CoverUp(False, "", coats_to_hide(old, new, finish, limit), ladder(old, new, finish, limit))
    tint = undercoat_tint(new)
    primed = under_tinted(old, new, primer)
    gap = difference(linear(primed), linear(new))
    rungs = ladder(primed, new, finish, limit)
    below = (alone.rungs[0], Rung("tinted primer", primed, gap, gap <= limit))
    return [alone, CoverUp(True, tint, coats_to_hide(primed, new, finish, limit), below + rungs[1:])]
