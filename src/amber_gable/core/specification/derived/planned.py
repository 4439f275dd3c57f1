"""Steps as they are really done: amount, allowed technique, name, colour, waits."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from amber_gable.core.specification.cautions.dangers import DANGERS, Danger
from amber_gable.core.specification.colour.hiding import undercoat_tint
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.rule import Acts, Coats, Phase, Rule, Step
from amber_gable.core.work.waits import LEAVES_WET
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import LAYING, AmountUnit, OperationKind, Technique, Where

K, T = OperationKind, Technique
ON_THE_WALL = (Phase.PROTECT, Phase.TAKE_DOWN, Phase.CLEAN_DAILY, Phase.REFIT, Phase.FINAL_CHECK)
"""Stages of the work that are done in place whatever is taken down."""
POROUS = {"masonry", "wood"}
USUAL_WAY = {K.FIT: T.FIT, K.MASK: T.MASK, K.REPAIR: T.FILL, K.PUTTY: T.GLAZE, K.CAULK: T.BEAD}
_DRIES_H = {"wood": 4.0, "masonry": 4.0}
_WIPED_H = 1.0
_ALONG_JOINTS = 0.1
"""Share of a surface dusted off beside cut joints, set nails and the like."""
_SPOKEN = {
    "film-stain": "film-forming stain",
    "penetrating-stain": "penetrating stain",
    "oil": "oil paint",
    "waterborne": "waterborne paint",
    "factory-coat": "a factory coat",
    "factory-primer": "factory primer",
    "lime-wash": "lime or cement wash",
}


@dataclass(frozen=True)
class PlannedStep:
    """A step with its amount and technique settled. `avoided` names techniques a safety rule forbade here; a
    `possible` one is only done where a look asks for it."""

    role: str
    stage: Phase
    kind: OperationKind
    name: str
    note: str
    share: float
    amount: float | None
    unit: AmountUnit | None
    technique: Technique | None
    avoided: tuple[Technique, ...]
    wait_h: float
    wait_until: str
    families: tuple[Family, ...]
    ground: tuple[str, ...]
    method: Method | None
    bare: bool
    back_roll: bool
    colour: str | None
    rules: tuple[str, ...]
    because: str
    where: Where | None = None
    possible: bool = False

    @property
    def whole_film(self) -> bool:
        return self.kind.lays_film and self.share == 1


def planned(
    step: Step, facts: Facts, coats: Coats, forbidden: dict[Technique, str], asked_by: Sequence[Rule]
) -> PlannedStep:
    """The step with the first of its techniques that nothing forbids, and named after it."""
    by_spray = facts.schools["method"] == "spray"
    method = (coats.spray if by_spray else coats.method) if step.tinted else step.method
    ways = step.techniques or _usual_ways(step.kind, method)
    allowed = [t for t in ways if t not in forbidden]
    avoided = tuple(t for t in ways if t in forbidden)
    if allowed:
        avoided = tuple(t for t in avoided if ways.index(t) < ways.index(allowed[0]))
    share, amount, unit = _amount(step.acts, facts)
    tint = undercoat_tint(facts.new_colour) if step.tinted and facts.new_colour else None
    return PlannedStep(
        role=step.role,
        stage=step.stage,
        kind=step.kind,
        name=said(step.otherwise if avoided and allowed and step.otherwise else step.name, facts),
        note=said(step.note, facts),
        share=share,
        amount=amount,
        unit=unit,
        technique=allowed[0] if allowed else None,
        avoided=avoided,
        wait_h=step.wait_h,
        wait_until=said(step.until, facts),
        families=step.families,
        ground=step.ground,
        method=method,
        bare=step.bare,
        back_roll=step.kind.lays_film and method is Method.AIRLESS and _back_rolled(facts, first=True),
        colour=tint,
        rules=tuple(r.id for r in asked_by),
        because="; ".join(dict.fromkeys(said(r.finding, facts) for r in asked_by)),
    )


def _usual_ways(kind: OperationKind, method: Method | None) -> tuple[Technique, ...]:
    if kind.lays_film and method is not None:
        return (LAYING[method],)
    return (USUAL_WAY[kind],) if kind in USUAL_WAY else ()


def _amount(acts: Acts, facts: Facts) -> tuple[float, float | None, AmountUnit | None]:
    """Share of the surface, and the amount of its own where the step has one."""
    if acts.fact:
        return 1.0, float(facts.get(acts.fact) or 1.0), acts.unit
    if not acts.pct and not acts.least_pct:
        return 1.0, None, None
    found = sum(facts.get(p) or 0.0 for p in acts.pct) * acts.factor
    return min(max(found, acts.least_pct), 100.0) / 100.0, None, None


ORDINALS = ("First", "Second", "Third", "Fourth", "Fifth", "Sixth")


def coat(n: int, count: int, facts: Facts, coats: Coats, rules: tuple[str, ...], why: str, primed: bool) -> PlannedStep:
    """The nth coat of the finish. Only the first film on a bare or porous surface drinks more, and only it is worked
    in: the primer's, where there is one all over."""
    method = coats.spray if facts.schools["method"] == "spray" else coats.method
    ordinal = ORDINALS[n - 1]
    first = n == 1 and not primed
    bare = facts.get("coating") == "bare"
    stippled = first and bare and bool(coats.on_bare)
    return PlannedStep(
        role=f"coat-{n}",
        stage=Phase.COAT,
        kind=OperationKind.COAT,
        name="The coat" if count == 1 else f"{ordinal} coat",
        note=coats.on_bare if stippled else "",
        share=1.0,
        amount=None,
        unit=None,
        technique=Technique.STIPPLE if stippled else LAYING[method],
        avoided=(),
        wait_h=0.0,
        wait_until="",
        families=coats.families,
        ground=(),
        method=method,
        bare=first and (coats.bare_first or (bare and bool(facts.tags & POROUS))),
        back_roll=method is Method.AIRLESS and _back_rolled(facts, first=first),
        colour=None,
        rules=rules,
        because=why,
    )


def _back_rolled(facts: Facts, *, first: bool) -> bool:
    """Whether a sprayed coat is worked in by roller or brush, after the school that holds."""
    school = facts.schools["back-roll"]
    if "roof" in facts.tags or not facts.tags & POROUS:
        return school == "always" and "siding" in facts.tags
    if school == "always":
        return True
    never_painted = facts.get("coating") in (None, "bare")
    porous = never_painted or facts.get("masonry") == "dusty" or facts.get("absorbency") == "soaks"
    return first and (never_painted if school == "never" else porous)


def quenched(steps: Sequence[PlannedStep]) -> list[PlannedStep]:
    """The steps with extra paint for a thirsty surface in the first film all over it, and in no later one."""
    out, sealed = [], False
    for step in steps:
        out.append(replace(step, bare=False) if sealed and step.bare else step)
        sealed = sealed or step.whole_film
    return out


_DENIBBED = {"door", "window", "shutter", "trim", "railing", "beam"}


def denibbed(steps: Sequence[PlannedStep], facts: Facts) -> list[PlannedStep]:
    """The steps with every coat that goes onto another film rubbed down for: on what is seen near, on what somebody
    sees where the school wants it, and on sashes that were taken out, which lie flat and catch dust (docs/trade.md
    §19)."""
    lies = "sash" in facts.tags and facts.schools["place"] != "in-place"
    seen = facts.schools["seen"]
    rubbed = seen == "near" or (facts.schools["between"] == "denib" and seen != "nobody")
    if not lies and not (rubbed and facts.tags & _DENIBBED):
        return list(steps)
    out: list[PlannedStep] = []
    for step in steps:
        if step.kind is K.COAT and any(s.whole_film for s in out):
            out.append(
                replace(
                    step, role=f"denib-{step.role}", kind=K.SAND, technique=T.DENIB, name=_DENIB, note=_DENIB_NOTE,
                    families=(), method=None, bare=False, back_roll=False, because=_SEEN,
                )
            )  # fmt: skip
        out.append(step)
    return out


_DENIB, _DENIB_NOTE = "De-nib, 220 grit, wipe off the dust", "Never beside a film that is still wet."
_SEEN = "it is seen close and touched"


def moved_after_each_film(steps: Sequence[PlannedStep]) -> list[PlannedStep]:
    """The steps with sashes that are moved after the last film moved after each before it too: a film that sets while
    they stand shut glues them."""
    move = next((s for s in steps if s.technique is T.MOVE), None)
    films = [s for s in steps if s.whole_film]
    if move is None:
        return list(steps)
    out = []
    for step in steps:
        out.append(replace(step, possible=films[-1].possible) if step is move and films else step)
        if step in films[:-1]:
            out.append(replace(move, role=f"move-{step.role}", stage=step.stage))
    return out


_WORKS = (K.SCRAPE, K.SAND, K.REPAIR)
_ABRADES = {Danger.DUST, Danger.EXTRACTED, Danger.ABRASION}


def dusted(steps: Sequence[PlannedStep]) -> list[PlannedStep]:
    """The steps with dust removed from as much of the surface as was scraped or sanded: the largest share of any such
    step."""
    worked = [s for s in steps if s.kind in _WORKS and s.technique is not None and DANGERS[s.technique] & _ABRADES]
    if not worked:
        return [s for s in steps if s.role != "dust"]
    share = max(_ALONG_JOINTS if s.amount is not None and s.unit is not AmountUnit.M2 else s.share for s in worked)
    return [replace(s, share=max(share, 0.02)) if s.role == "dust" else s for s in steps]


def with_drying(steps: Sequence[PlannedStep], tags: frozenset[str]) -> list[PlannedStep]:
    """Wet work leaves a wait behind it, unless more wet work follows at once. What soaks the wall as the wash did has
    the wash's own time of drying after it."""
    out, wash = [], next((s for s in steps if s.role == "wash"), None)
    for step, after in zip(steps, [*steps[1:], None][: len(steps)], strict=True):
        wet = step.technique in LEAVES_WET
        goes_on = after is not None and (after.technique in LEAVES_WET or after.kind.wets)
        if wet and not goes_on and not step.wait_h:
            quick = step.technique in (T.DAMP_WIPE, T.DEGLOSSER)
            hours = _WIPED_H if quick else max((_DRIES_H.get(t, 1.0) for t in tags), default=1.0)
            step = replace(step, wait_h=hours, wait_until=step.wait_until or "it is dry to see and touch")
        elif step.technique is T.HEPA_VACUUM and "damp" in step.name:
            step = replace(step, wait_h=_WIPED_H, wait_until="it is dry to see and touch")
        elif step.technique is T.ROTARY_NOZZLE and wash is not None:
            step = replace(step, wait_h=max(step.wait_h, wash.wait_h), wait_until=wash.wait_until)
        out.append(step)
    return out


_CONTAINED = {
    Where.STANDS: "Contain round the stands: ground sheeted 3 m out, tape and signs up",
    Where.UNDER_COVER: "Contain the shed: floor sheeted wall to wall, doors shut, tape and signs up",
    Where.SHOP: "Contain the shop: floor sheeted wall to wall, doors shut, tape and signs up",
}


def off_the_wall(steps: Sequence[PlannedStep], facts: Facts) -> list[PlannedStep]:
    """The steps with those between taking down and refitting moved to where the part lies meanwhile, and its
    containment with them."""
    place = facts.schools["place"]
    at = next((n for n, s in enumerate(steps) if s.role == "take-out"), None)
    if place == "in-place" or at is None:
        return list(steps)
    where, out = Where(place), []
    for n, step in enumerate(steps):
        if step.role == "lay-again" and where is not Where.STANDS:
            continue
        if step.role == "contain":
            step = replace(step, name=_CONTAINED[where])
        contained = step.role in ("contain", "lay-again", "daily-clean", "final-check")
        there = n > at and step.stage not in ON_THE_WALL
        out.append(replace(step, where=where) if there or contained else step)
    return out


def said(words: str, facts: Facts) -> str:
    """A text with the facts it names in braces filled in, each in words; an unknown one as 'not looked at'."""
    if "{" not in words:
        return words
    return re.sub(r"\{(\w+)\}", lambda match: _plain(facts.get(match[1])), words)


def _plain(value: Any) -> str:
    if value is None:
        return "not looked at"
    if isinstance(value, float):
        return f"{value:.0f}" if abs(value) >= 10 else f"{value:.2g}"
    return _SPOKEN.get(str(value), str(value))
