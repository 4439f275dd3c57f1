"""What was found, told of many surfaces at once: which of them are meant, and how often each answer was given."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from amber_gable.core.survey.amounts.measures import SAID_SHARES, said_share
from amber_gable.core.survey.findings.condition_map import PERCENT_FIELDS
from amber_gable.core.survey.findings.essentials import is_answered, is_essential
from amber_gable.core.survey.findings.moisture import moisture_statistics
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.house.survey import Item, Property, Zone

Surface = Zone | Item
_NUMBERS_OF_MANY = {"coats", "age_years", "built_year"}
"""Typed figures that a whole house can share. Metres, m² and counts belong to one surface."""
_DRAWN = {field: damage for damage, field in PERCENT_FIELDS.items()}


@dataclass(frozen=True)
class SurfaceKind:
    """Surfaces made of one substrate, or items of one kind. `key` is `zone.wood-lap`, `item.sash-window`."""

    key: str
    name: str
    count: int


def kind_key(surface: Surface) -> str:
    return f"item.{surface.spec.kind}" if isinstance(surface, Item) else f"zone.{surface.substrate}"


def surface_kinds(property_: Property) -> list[SurfaceKind]:
    """What can be told of together, zones first, in the order of the survey."""
    counts = Counter(kind_key(s) for s in surfaces_of(property_))
    return [SurfaceKind(key, _kind_name(key), n) for key, n in counts.items()]


def _kind_name(key: str) -> str:
    sort, _, code = key.partition(".")
    return ITEM_NAMES[code] if sort == "item" else SUBSTRATES[code].name


def surfaces_of(property_: Property, kind: str = "", face: str = "") -> list[Surface]:
    """Zones and items of a kind (empty: all) on a face (empty: all)."""
    everything: tuple[Surface, ...] = (*property_.zones, *property_.items)
    return [s for s in everything if kind in ("", kind_key(s)) and face in ("", s.face)]


def tells_of_many(test: GuidedTest) -> bool:
    """Whether one answer can hold for several surfaces: a choice, a share, or a figure that a house can have."""
    return bool(test.answers) or test.field.endswith("_pct") or test.field in _NUMBERS_OF_MANY


def is_drawn(test: GuidedTest, condition: Condition) -> bool:
    """Whether the share was painted on the drawing, which knows it better than a word."""
    return test.field in _DRAWN and condition.marked(_DRAWN[test.field]) is not None


@dataclass(frozen=True)
class Tally:
    """How often each answer was given among the surfaces that a test fits: by the answer, by the word of a share, or
    by the figure. `open` have none, `needed` of them must get one; `drawn` are painted on the drawing; `families` of
    their substrates."""

    test: GuidedTest
    fits: int
    given: dict[str, int]
    open: int
    needed: int
    drawn: int
    essential: bool
    families: frozenset[str]

    @property
    def answers(self) -> tuple[str, ...]:
        """What is offered: the test's own answers, the words of a share, else the figures that were given."""
        if self.test.answers:
            can_be = self.test.answers_on(self.families)
            return tuple(a for a in self.test.answers if a in can_be or a in self.given)
        if self.test.field.endswith("_pct"):
            return tuple(words for words, _ in SAID_SHARES)
        return tuple(sorted(self.given, key=float))


def tallies(surfaces: Sequence[Surface]) -> list[Tally]:
    """One per test that fits any of the surfaces and can be told of many, in the order of the walk."""
    out = []
    for test in filter(tells_of_many, GUIDED_TESTS):
        fitting = [s for s in surfaces if fits(test, s)]
        if not fitting:
            continue
        answered = [s for s in fitting if is_answered(test, s.condition)]
        needing = [s for s in fitting if is_essential(test, s)]
        out.append(
            Tally(
                test,
                len(fitting),
                dict(Counter(_answer(test, s.condition) for s in answered)),
                len(fitting) - len(answered),
                sum(not is_answered(test, s.condition) for s in needing),
                sum(is_drawn(test, s.condition) for s in fitting),
                bool(needing),
                frozenset(SUBSTRATES[s.substrate].family for s in fitting),
            )
        )
    return out


@dataclass(frozen=True)
class Metered:
    """A wooden surface that wants a reading of its own. `kind` and `id` are its address."""

    kind: str
    id: str
    name: str
    readings: int
    mean_pct: float | None


def metered(property_: Property, surfaces: list[Surface]) -> list[Metered]:
    """Zones the meter fits; items are read where they are looked at one by one."""
    meter = next(t for t in GUIDED_TESTS if t.field == "moisture")
    names = {f.id: f.name for f in property_.faces}
    out = []
    for s in surfaces:
        if isinstance(s, Item) or not fits(meter, s):
            continue
        told = moisture_statistics(s.condition.moisture, property_.tz)
        name = f"{names[s.face]}, {s.name}"
        out.append(Metered("zone", s.id, name, len(s.condition.moisture), told.mean if told else None))
    return out


def fits(test: GuidedTest, surface: Surface) -> bool:
    return test.fits(SUBSTRATES[surface.substrate].family)


def _answer(test: GuidedTest, condition: Condition) -> str:
    value = getattr(condition, test.field)
    if isinstance(value, bool):
        return "yes" if value else "no"
    if test.field.endswith("_pct"):
        return said_share(value)
    return f"{value:g}" if isinstance(value, int | float) else str(value)
