"""The tests still missing on a surface, and what each possible result would change."""

from dataclasses import dataclass
from typing import Any

from amber_gable.core.specification.derived.diagnosis import Derivation, derive
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.rules import RULES
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.work.alert import Alert

_BY_FIELD: dict[str, tuple[Any, ...]] = {
    "coating": ("bare", "waterborne", "oil", "film-stain", "penetrating-stain"),
    "loose_pct": (0.0, 25.0),
    "mildew_pct": (0.0, 20.0),
    "chalking": ("none", "light", "heavy"),
    "gloss": ("dull", "satin", "gloss"),
    "greyed": (True, False),
    "raised_fibre": (True, False),
    "absorbency": ("soaks", "slow", "beads"),
    "moisture": (12.0, 22.0),
    "masonry": ("dusty", "normal", "shiny"),
    "crack_mm": (0.1, 1.0),
    "age_years": (0.05, 5.0, 15.0),
    "vinyl": ("sound", "pitted", "warped"),
    "efflorescence": ("none", "dry-bloom", "returns"),
    "tannin": (True, False),
    "rust_pct": (0.0, 10.0),
    "adhesion": ("holds", "lifts"),
    "timber": ("pressure-treated", "kiln-dried", "untreated"),
}
"""Readings tried for a test that was not made. Stains are found on wood only."""
_STAINS = ("film-stain", "penetrating-stain")


@dataclass(frozen=True)
class TestEffect:
    """What one result of a test would do to the steps, against what stands now."""

    result: str
    adds: tuple[str, ...]
    drops: tuple[str, ...]
    coats: int
    stops: tuple[str, ...]

    @property
    def any(self) -> bool:
        return bool(self.adds or self.drops or self.coats or self.stops)


@dataclass(frozen=True)
class OpenTest:
    """A test not made whose result may change the specification."""

    test: GuidedTest
    changes: tuple[TestEffect, ...]


def open_tests(derivation: Derivation) -> tuple[OpenTest, ...]:
    """Tests not made that would change something, in the order of the walk."""
    facts = derivation.facts
    asked = {t.fact for r in RULES if r.fits(facts) for t in r.when}
    asked |= {"coating"} if asked & {"film", "painted", "coating_known"} else set()
    out = []
    for test in GUIDED_TESTS:
        if test.field not in _BY_FIELD or facts.get(test.field) is not None or test.field not in asked:
            continue
        results = [v for v in _BY_FIELD[test.field] if not (v in _STAINS and "wood" not in facts.tags)]
        changes = tuple(_change(derivation, facts.supposing(test.field, v), v) for v in results)
        if any(c.any for c in changes):
            out.append(OpenTest(test, changes))
    return tuple(out)


def _change(now: Derivation, facts: Facts, value: Any) -> TestEffect:
    then = derive(facts)
    here, there = ({s.role: s.name for s in d.steps if not s.role.startswith("coat-")} for d in (now, then))
    known = {f.rule for f in now.stops}
    return TestEffect(
        result=_named(value),
        adds=tuple(name for role, name in there.items() if here.get(role) != name),
        drops=tuple(name for role, name in here.items() if role not in there),
        coats=then.coat_count - now.coat_count,
        stops=tuple(f.words for f in then.findings if f.level is Alert.STOP and f.rule not in known),
    )


def _named(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float) else str(value).replace("-", " ")
