"""Rules of preparation and coating as typed records. They are data: the diagnosis reads them, tables hold them."""

from dataclasses import dataclass
from enum import IntEnum, StrEnum
from typing import Any

from amber_gable.core.specification.derived.facts import Facts
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import AmountUnit, OperationKind, Technique


class Source(StrEnum):
    """Where a rule comes from."""

    STANDARD = "published standard"
    SHEET = "data sheets"
    PRACTICE = "trade practice"


class Phase(IntEnum):
    """The order of the work on one surface: out with what fails, wet work, dry work, covering of what is not painted,
    primer, what goes into the primed rebates and joints, coats, and everything back."""

    PROTECT = 5
    TAKE_DOWN = 10
    BRUSH_OFF = 15
    TREAT = 20
    WASH = 30
    STRIP = 40
    BRIGHTEN = 45
    LEAVE_ON = 47
    REMOVE = 50
    CUT_OUT = 52
    ROT = 53
    BRIGHT_METAL = 54
    REPAIR = 60
    NAIL_PRIME = 62
    CRACK_DUST = 64
    FILL = 65
    SAND = 70
    CLEAN_DAILY = 74
    DUST = 75
    MASK = 78
    RUST_PRIME = 79
    SPOT_PRIME = 80
    REBATE_PRIME = 81
    PRIME = 85
    STAIN_PRIME = 87
    PUTTY = 89
    CAULK = 92
    UNDERCOAT = 97
    COAT = 100
    SEAL = 102
    UNMASK = 105
    REFIT = 110
    FINAL_CHECK = 115


@dataclass(frozen=True)
class Test:
    """A condition on one fact. `op`: 'is' (one of the values), 'not', 'above', 'at most'; a limit given in words is the
    fact of that name. With `or_unknown` a fact not found out counts as fulfilled: the careful side."""

    fact: str
    op: str
    value: Any
    or_unknown: bool = False

    def holds(self, facts: Facts) -> bool | None:
        """None where the fact is not known and that does not count as fulfilled."""
        seen = facts.get(self.fact)
        if seen is None:
            return True if self.or_unknown else None
        limit = facts.get(self.value) if isinstance(self.value, str) and self.op in ("above", "at most") else self.value
        if limit is None:
            return None
        if self.op == "above":
            return bool(seen > limit)
        if self.op == "at most":
            return bool(seen <= limit)
        among = seen in self.value
        return among if self.op == "is" else not among


def one_of(fact: str, *values: Any, or_unknown: bool = False) -> Test:
    return Test(fact, "is", values, or_unknown)


def none_of(fact: str, *values: Any, or_unknown: bool = False) -> Test:
    return Test(fact, "not", values, or_unknown)


def above(fact: str, limit: float | str, *, or_unknown: bool = False) -> Test:
    return Test(fact, "above", limit, or_unknown)


def at_most(fact: str, limit: float | str, *, or_unknown: bool = False) -> Test:
    return Test(fact, "at most", limit, or_unknown)


@dataclass(frozen=True)
class Acts:
    """What a step acts on: shares of the surface added up (`pct`, times `factor`, at least `least_pct`), or a figure
    of its own (`fact`, in `unit`), or the pieces of an item."""

    pct: tuple[str, ...] = ()
    factor: float = 1.0
    least_pct: float = 0.0
    fact: str = ""
    unit: AmountUnit | None = None


WHOLE = Acts()
LOOSE = Acts(pct=("loose_pct",))
BARE_SPOTS = Acts(pct=("loose_pct", "bare_pct"), factor=1.2, least_pct=2.0)


@dataclass(frozen=True)
class Step:
    """A step a rule asks for. `role` names it once per system; of two rules that ask for the same role the stronger
    one's wording holds. `techniques` in order of liking (none: the usual one of the kind): the first that nothing
    forbids is taken; `otherwise` is the step's name when that is not the first of them. `until` is the test that ends
    its wait. `families` of coating, first choice first; `ground` the tags they are laid on, where that is not the
    surface itself. `covers` roles that it makes needless."""

    role: str
    stage: Phase
    kind: OperationKind
    name: str
    note: str = ""
    acts: Acts = WHOLE
    techniques: tuple[Technique, ...] = ()
    otherwise: str = ""
    wait_h: float = 0.0
    until: str = ""
    families: tuple[Family, ...] = ()
    ground: tuple[str, ...] = ()
    method: Method | None = None
    bare: bool = False
    tinted: bool = False
    strength: int = 0
    covers: tuple[str, ...] = ()


@dataclass(frozen=True)
class Coats:
    """The finish a rule asks for. The strongest one holds; `sheen` in words; `on_bare` says how the first coat is
    stippled in where the surface is bare and unprimed."""

    families: tuple[Family, ...]
    count: int
    method: Method
    sheen: str
    spray: Method = Method.AIRLESS
    strength: int = 0
    bare_first: bool = False
    on_bare: str = ""


THIN = 0.7
"""Film of a coat laid 'as thin as possible', as a share of the sheet's: it hides that much less."""


@dataclass(frozen=True)
class Rule:
    """One piece of the trade's judgement. It holds on a surface that has all tags of one of the sets in `on` (none:
    on all) and none of `off`, when every test is fulfilled, under the school (topic, code) where one is named.

    `coat_count` makes so many thin coats of the finish enough, where they hide. A `disclosure` is said to the customer
    before the contract (docs/trade.md §18). A stop with `ends_after` days ends when the surface is that old. `unless`
    names roles whose presence makes the finding pointless ("no primer" where another rule asks for one); `only_with`
    begins the roles one of which must be there. Words may name facts in braces.
    """

    id: str
    finding: str
    consequence: str
    on: tuple[str, ...] = ()
    off: str = ""
    when: tuple[Test, ...] = ()
    steps: tuple[Step, ...] = ()
    coats: Coats | None = None
    coat_count: int | None = None
    unless: tuple[str, ...] = ()
    only_with: str = ""
    forbids: tuple[Technique, ...] = ()
    level: Alert = Alert.STEP
    todo: str = ""
    disclosure: bool = False
    ends_after: int = 0
    school: tuple[str, str] | None = None
    source: Source = Source.PRACTICE

    def on_surface(self, tags: frozenset[str]) -> bool:
        """Whether the rule speaks of a surface with such tags at all."""
        if tags & set(self.off.split()):
            return False
        return not self.on or any(set(one.split()) <= tags for one in self.on)

    def fits(self, facts: Facts) -> bool:
        """Whether the rule speaks of such a surface, under the schools that hold."""
        return self.on_surface(facts.tags) and self.under_school(facts)

    def under_school(self, facts: Facts) -> bool:
        return self.school is None or facts.schools[self.school[0]] == self.school[1]

    def holds(self, facts: Facts) -> bool:
        """Of a rule that speaks of the surface: whether it holds there."""
        return self.under_school(facts) and all(t.holds(facts) is True for t in self.when)
