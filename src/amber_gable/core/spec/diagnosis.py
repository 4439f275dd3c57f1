"""From what was found on a surface to the ordered steps that answer it, each with its reasons."""

import re
from dataclasses import dataclass
from typing import Any

from amber_gable.core.estimate.quantities import PRIMER_COLOUR
from amber_gable.core.spec.facts import Facts
from amber_gable.core.spec.hiding import coats_to_hide, hiding_power, under_tinted, undercoat_tint
from amber_gable.core.spec.rule import Acts, Coats, Level, Rule, Stage, Step
from amber_gable.core.spec.rules import RULES
from amber_gable.domain.families import Family
from amber_gable.domain.operation import OperationKind, Technique, Unit
from amber_gable.domain.schools import Method

MOST_COATS = 6
SHOWS_WOOD = {Family.DECK_STAIN, Family.DECK_CLEAR}
_CLEAR = {Family.MASONRY_CONDITIONER}
_POROUS = {"masonry", "wood"}
_WORDS = {
    "film-stain": "film-forming stain",
    "penetrating-stain": "penetrating stain",
    "oil": "oil paint",
    "waterborne": "waterborne paint",
}


@dataclass(frozen=True)
class Finding:
    """What a rule found, in words, and the roles of the steps that answer it."""

    rule: str
    level: Level
    words: str
    consequence: str
    todo: str
    source: str
    answers: tuple[str, ...] = ()


@dataclass(frozen=True)
class PlannedStep:
    """A step with its amount and technique settled. `avoided` names techniques a safety rule forbade here."""

    role: str
    stage: Stage
    kind: OperationKind
    name: str
    note: str
    share: float
    amount: float | None
    unit: Unit | None
    technique: Technique | None
    avoided: tuple[Technique, ...]
    wait_h: float
    families: tuple[Family, ...]
    method: Method | None
    bare: bool
    back_roll: bool
    colour: str | None
    rules: tuple[str, ...]
    because: str


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
        return tuple(f for f in self.findings if f.level is Level.STOP)


def derive(facts: Facts, rules: tuple[Rule, ...] = RULES) -> Derivation:
    """Apply every rule that holds. Raises ValueError when no rule knows a finish for such a surface."""
    holding = [r for r in rules if r.holds(facts)]
    forbidden = {t: r.id for r in reversed(holding) for t in r.forbids}
    finishes = [r for r in holding if r.coats is not None]
    if not finishes:
        raise ValueError(f"no finish is known for a surface that is {', '.join(sorted(facts.tags))}")
    finish = max(finishes, key=lambda r: r.coats.strength if r.coats else 0)
    coats = finish.coats
    assert coats is not None
    chosen, asked_by, covered = _merged(holding)
    steps = [_planned(s, facts, coats, forbidden, asked_by[s.role]) for s in chosen]
    stuck = [s for s in steps if s.technique is None and s.avoided]
    count, count_rules, why = _coat_count(facts, coats, chosen, holding)
    steps += [_coat(n, count, facts, coats, (finish.id, *count_rules), why) for n in range(1, count + 1)]
    steps.sort(key=lambda s: s.stage)
    kept = {s.role for s in steps}
    told = [r for r in holding if (r.coats is None or r is finish) and not set(r.unless) & kept]
    findings = [_finding(r, facts, finish, kept, covered) for r in told]
    findings += [
        Finding(
            "no-technique",
            Level.STOP,
            f"no allowed way is known for '{s.name}'",
            "every usual way is forbidden here by a safety rule",
            "Ask a firm licensed for such work.",
            "published standard",
            (s.role,),
        )
        for s in stuck
    ]
    order = list(Level)
    findings.sort(key=lambda f: order.index(f.level))
    return Derivation(facts, tuple(findings), tuple(steps), coats, count, forbidden)


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
    return [s for s in best.values() if s.role not in covered], asked, covered


def _amount(acts: Acts, facts: Facts) -> tuple[float, float | None, Unit | None]:
    """Share of the surface, and the amount of its own where the step has one."""
    if acts.fact:
        return 1.0, float(facts.get(acts.fact) or 1.0), acts.unit
    if not acts.pct and not acts.least_pct:
        return 1.0, None, None
    found = sum(facts.get(p) or 0.0 for p in acts.pct) * acts.factor
    return min(max(found, acts.least_pct), 100.0) / 100.0, None, None


def _planned(
    step: Step, facts: Facts, coats: Coats, forbidden: dict[Technique, str], asked_by: list[Rule]
) -> PlannedStep:
    allowed = [t for t in step.techniques if t not in forbidden]
    avoided = tuple(t for t in step.techniques if t in forbidden)
    if allowed:
        avoided = tuple(t for t in avoided if step.techniques.index(t) < step.techniques.index(allowed[0]))
    share, amount, unit = _amount(step.acts, facts)
    colour = None
    if step.tinted:
        colour = undercoat_tint(facts.new_colour) if facts.new_colour else None
    by_spray = facts.schools["method"] == "spray"
    method = (coats.spray if by_spray else coats.method) if step.tinted else step.method
    return PlannedStep(
        role=step.role,
        stage=step.stage,
        kind=step.kind,
        name=step.otherwise if avoided and allowed and step.otherwise else step.name,
        note=step.note,
        share=share,
        amount=amount,
        unit=unit,
        technique=allowed[0] if allowed else None,
        avoided=avoided,
        wait_h=step.wait_h,
        families=step.families,
        method=method,
        bare=step.bare,
        back_roll=method is Method.AIRLESS and _back_rolled(facts, first=True),
        colour=colour,
        rules=tuple(r.id for r in asked_by),
        because="; ".join(dict.fromkeys(said(r.finding, facts) for r in asked_by)),
    )


def _coat_count(facts: Facts, coats: Coats, steps: list[Step], holding: list[Rule]) -> tuple[int, tuple[str, ...], str]:
    """Coats of the finish, the rules that changed the usual number, and why it is not the usual number."""
    fewer = [r for r in holding if r.coat_count is not None]
    count = min((r.coat_count for r in fewer if r.coat_count is not None), default=coats.count)
    ids, why = tuple(r.id for r in fewer), ""
    if facts.new_colour is None or coats.families[0] in SHOWS_WOOD:
        return count, ids, why
    under = facts.old_colour
    whole = next((s for s in steps if s.role == "undercoat"), None) or next(
        (s for s in steps if s.role == "prime"), None
    )
    if whole is not None and (whole.tinted or whole.families[0] not in _CLEAR):
        tinted = under_tinted(facts.old_colour, facts.new_colour)
        under = tinted if whole.tinted else PRIMER_COLOUR
    needed = coats_to_hide(under, facts.new_colour, hiding_power(facts.new_colour).value)
    if needed > count:
        count, why = min(needed, MOST_COATS), f"{needed} coats until the colour beneath no longer shows"
    return count, ids, why


def _coat(n: int, count: int, facts: Facts, coats: Coats, rules: tuple[str, ...], why: str) -> PlannedStep:
    method = coats.spray if facts.schools["method"] == "spray" else coats.method
    ordinal = ("First", "Second", "Third", "Fourth", "Fifth", "Sixth")[n - 1]
    name = "The coat" if count == 1 else f"{ordinal} coat"
    thirsty = coats.bare_first or (facts.get("coating") == "bare" and facts.tags & _POROUS and n == 1)
    return PlannedStep(
        role=f"coat-{n}",
        stage=Stage.COAT,
        kind=OperationKind.COAT,
        name=name,
        note="",
        share=1.0,
        amount=None,
        unit=None,
        technique=None,
        avoided=(),
        wait_h=0.0,
        families=coats.families,
        method=method,
        bare=bool(thirsty),
        back_roll=method is Method.AIRLESS and _back_rolled(facts, first=n == 1),
        colour=None,
        rules=rules,
        because=why,
    )


def _back_rolled(facts: Facts, *, first: bool) -> bool:
    """Whether a sprayed coat is worked in by roller or brush, after the school that holds."""
    school = facts.schools["back-roll"]
    if "roof" in facts.tags or not facts.tags & _POROUS:
        return school == "always" and "siding" in facts.tags
    if school == "always":
        return True
    never_painted = facts.get("coating") in (None, "bare")
    porous = never_painted or facts.get("masonry") == "dusty" or facts.get("absorbency") == "soaks"
    return first and (never_painted if school == "never" else porous)


def _finding(rule: Rule, facts: Facts, finish: Rule, kept: set[str], covered: dict[str, str]) -> Finding:
    roles = [covered.get(s.role, s.role) for s in rule.steps]
    answers = tuple(dict.fromkeys(r for r in roles if r in kept))
    if rule is finish or rule.coat_count is not None:
        answers = ("coat-1",)
    return Finding(
        rule.id, rule.level, said(rule.finding, facts), said(rule.consequence, facts), rule.todo, rule.source, answers
    )


def said(words: str, facts: Facts) -> str:
    """The words with the facts they name, in the reader's terms; what is not known is said to be so."""

    def value(match: re.Match[str]) -> str:
        return _plain(facts.get(match[1]))

    return re.sub(r"\{(\w+)\}", value, words)


def _plain(value: Any) -> str:
    if value is None:
        return "not looked at"
    if isinstance(value, float):
        return f"{value:.0f}" if abs(value) >= 10 else f"{value:.2g}"
    return _WORDS.get(str(value), str(value))
