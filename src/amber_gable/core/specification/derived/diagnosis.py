"""From what was found on a surface to the ordered steps that answer it, each with its reasons."""

from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache

from amber_gable.core.specification.derived.coats import coat_count, tinted_where_it_saves
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.keeping_up import COATLESS, speaks_of_cleaning, without_coats
from amber_gable.core.specification.derived.looks import looked_at, masked_again
from amber_gable.core.specification.derived.planned import (
    PlannedStep,
    coat,
    denibbed,
    dusted,
    moved_after_each_film,
    off_the_wall,
    planned,
    quenched,
    said,
    with_drying,
)
from amber_gable.core.specification.derived.rule import Coats, Rule, Step
from amber_gable.core.specification.rules import RULES
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.operation import Technique


@dataclass(frozen=True)
class Finding:
    """What a rule found, in words, and the roles of the steps that answer it. `until` is the day a stop ends by
    itself; a `disclosure` is said before the contract."""

    rule: str
    level: Alert
    words: str
    consequence: str
    todo: str
    source: str
    answers: tuple[str, ...] = ()
    until: date | None = None
    disclosure: bool = False


@dataclass(frozen=True)
class Derivation:
    """All findings (gravest first), the steps in the order of the work, and what the finish is."""

    facts: Facts
    findings: tuple[Finding, ...]
    steps: tuple[PlannedStep, ...]
    coats: Coats
    coat_count: int
    forbidden: dict[Technique, str]

    @property
    def stops(self) -> tuple[Finding, ...]:
        return tuple(f for f in self.findings if f.level is Alert.STOP)


@lru_cache(maxsize=256)
def _speaking(tags: frozenset[str]) -> tuple[Rule, ...]:
    """The rules that speak of such a surface."""
    return tuple(r for r in RULES if r.on_surface(tags))


class _Asked:
    """Facts by what they say, so that like facts are derived once."""

    __slots__ = ("facts", "said")

    def __init__(self, facts: Facts) -> None:
        known, schools = sorted(facts.known.items()), sorted(facts.schools.items())
        self.facts = facts
        self.said = repr((sorted(facts.tags), known, schools, facts.surface_m2, facts.pieces)) + repr(
            (facts.old_colour, facts.new_colour)
        )

    def __hash__(self) -> int:
        return hash(self.said)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Asked) and other.said == self.said


def derive(facts: Facts) -> Derivation:
    """Apply every rule that holds. Raises NoSteps when no rule knows a finish for such a surface."""
    return _derived(_Asked(facts))


@lru_cache(maxsize=2000)
def _derived(asked: _Asked) -> Derivation:
    facts = asked.facts
    holding = [r for r in _speaking(facts.tags) if r.holds(facts)]
    forbidden = {t: r.id for r in reversed(holding) for t in r.forbids}
    finishes = [r for r in holding if r.coats is not None]
    if not finishes:
        raise NoSteps(f"no finish is known for a surface that is {', '.join(sorted(facts.tags))}")
    finish = max(finishes, key=lambda r: r.coats.strength if r.coats else 0)
    coats = finish.coats
    assert coats is not None
    chosen, asked_by, covered = _merged(holding)
    chosen = tinted_where_it_saves(chosen, facts, coats)
    steps = dusted([planned(s, facts, coats, forbidden, asked_by[s.role]) for s in chosen])
    stuck = [s for s in steps if s.technique is None]
    primed = any(s.whole_film for s in steps)
    count, count_rules, why = coat_count(facts, coats, chosen, holding)
    fewer = [r for r in holding if r.id in count_rules]
    why = "; ".join(
        [*(f"{said(r.finding, facts)}: {said(r.consequence, facts)}" for r in fewer or [finish])] + [why] * bool(why)
    )
    if facts.get("keeps_up") in COATLESS:
        count, steps = 0, without_coats(steps, facts)
    steps += [coat(n, count, facts, coats, (finish.id, *count_rules), why, primed) for n in range(1, count + 1)]
    steps = looked_at(sorted(steps, key=lambda s: s.stage), facts)
    steps = off_the_wall(masked_again(denibbed(steps, facts)), facts)
    steps = moved_after_each_film(quenched(with_drying(steps, facts.tags)))
    kept = {s.role for s in steps}
    left = {s.role for s in chosen} - kept
    told = [r for r in holding if (r.coats is None or r is finish) and not set(r.unless) & kept]
    told = [r for r in told if not r.only_with or any(role.startswith(r.only_with) for role in kept)]
    told = [r for r in told if not (r.steps and {s.role for s in r.steps} <= left)]
    if not count:
        told = [r for r in told if speaks_of_cleaning(r, kept)]
        stuck = [s for s in stuck if s.role in kept]
    findings = [_finding(r, facts, finish, kept, covered) for r in told]
    findings += [
        Finding(
            "no-technique",
            Alert.STOP,
            f"no allowed way is known for '{s.name}'",
            "every usual way is forbidden here by a safety rule",
            "Ask a firm licensed for such work.",
            "published standard",
            (s.role,),
        )
        for s in stuck
    ]
    order = list(Alert)
    findings.sort(key=lambda f: order.index(f.level))
    return Derivation(facts, tuple(findings), tuple(steps), coats, count, forbidden)


_UNDER_A_WHOLE_PRIMER = ("prime-joints", "prime-fillings", "prime-mortar")


def _merged(holding: list[Rule]) -> tuple[list[Step], dict[str, list[Rule]], dict[str, str]]:
    """One step per role, the strongest; roles covered by others taken out. Who asked for each, and by which role each
    covered one is."""
    best: dict[str, Step] = {}
    asked: dict[str, list[Rule]] = {}
    for rule in holding:
        for step in rule.steps:
            if step.role not in best or step.strength > best[step.role].strength:
                best[step.role], asked[step.role] = step, [rule]
            elif step.strength == best[step.role].strength:
                asked[step.role].append(rule)
    covered = {role: s.role for s in best.values() for role in s.covers}
    if "prime" in best:
        covered |= dict.fromkeys(_UNDER_A_WHOLE_PRIMER, "prime")
    return [s for s in best.values() if s.role not in covered], asked, covered


def _finding(rule: Rule, facts: Facts, finish: Rule, kept: set[str], covered: dict[str, str]) -> Finding:
    roles = [_final(s.role, covered) for s in rule.steps]
    answers = tuple(dict.fromkeys(r for r in roles if r in kept))
    if rule is finish or rule.coat_count is not None:
        answers = ("coat-1",)
    return Finding(
        rule.id,
        rule.level,
        said(rule.finding, facts),
        said(rule.consequence, facts),
        said(rule.todo, facts),
        rule.source,
        answers,
        _ends(rule, facts),
        rule.disclosure,
    )


def _final(role: str, covered: dict[str, str]) -> str:
    """The role that does the work in the end: what covers one may itself be covered."""
    while role in covered:
        role = covered[role]
    return role


def _ends(rule: Rule, facts: Facts) -> date | None:
    """The day on which the surface is old enough, where it is known when its age was noted."""
    noted, age = facts.get("aged_on"), facts.get("age_years")
    if not rule.ends_after or noted is None or age is None:
        return None
    return date.fromordinal(noted.toordinal()) + timedelta(days=max(0, round(rule.ends_after - age * 365.25)))
