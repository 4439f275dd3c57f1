"""What was wished for a part and cannot be, each with the reason and what is done instead: no wish is swapped in
silence."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from amber_gable.core.specification.choices.candidates import goes_on, holds_on
from amber_gable.core.specification.derived.diagnosis import Derivation, derive
from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.planned import PlannedStep
from amber_gable.core.specification.derived.system import pick_of
from amber_gable.core.specification.rules import RULES
from amber_gable.domain.paint.product import Product
from amber_gable.domain.work.aims import AIM_NAMES, Aim, aims_for, allowed_aim
from amber_gable.domain.work.operation import Operation
from amber_gable.domain.work.schools import TOPICS

BEYOND_RULES = frozenset({"season", "method", "back-roll", "damp-limit", "vinyl", "order"})
"""Topics that are read elsewhere than in the rules of preparation."""


@dataclass(frozen=True)
class RefusedWish:
    """What was wished, why it cannot be on this part, and what is done instead."""

    wish: str
    because: str
    instead: str


def refused_wishes(
    derivation: Derivation,
    operations: Iterable[Operation],
    products: Iterable[Product],
    *,
    aim: Aim | None,
    schools: Mapping[str, str],
    picks: Mapping[str, str],
) -> tuple[RefusedWish, ...]:
    """Of the aim, the part's own schools and its products picked by role."""
    tags, by_code = derivation.facts.tags, {p.code: p for p in products}
    out = []
    if allowed_aim(aim, tags) is not aim and aim is not None:
        may = " or ".join(AIM_NAMES[a].lower() for a in aims_for(tags))
        usual = AIM_NAMES[aim_of(derivation.facts)].lower()
        out.append(RefusedWish(AIM_NAMES[aim].lower(), f"on this surface only {may} can be had", f"it gets {usual}"))
    out += [_school(t, s) for t, s in schools.items() if not _speaks(derivation, t, s)]
    used = {o.id: by_code.get(o.product or "") for o in operations if o.product}
    steps = {pick_of(s.role): s for s in derivation.steps if s.families}
    for role, code in picks.items():
        step = steps.get(role)
        laid = next((p for id_, p in used.items() if pick_of(id_) == role), None)
        if laid is None or laid.code != code:
            out.append(_pick(derivation, role, code, step, by_code.get(code), laid))
    return tuple(out)


def aim_of(facts: Facts) -> Aim:
    """What a part is to get, as it was asked for."""
    return Aim(facts.get("keeps_up") or facts.get("aim"))


def _speaks(derivation: Derivation, topic: str, school: str) -> bool:
    """Whether anything on such a surface hangs on the school: the first of its topic is what is done anyway, another
    acts by its own rules or by leaving the first one's out."""
    if topic in BEYOND_RULES or school == TOPICS[topic].schools[0].code:
        return True
    if topic == "look":
        # No rule asks for a look: it follows from what was found and from the coats that were counted.
        return any(s.role == "look" for s in derive(derivation.facts.under(topic, school)).steps)
    return any(r.school is not None and r.school[0] == topic and r.on_surface(derivation.facts.tags) for r in RULES)


def _school(topic: str, school: str) -> RefusedWish:
    named = TOPICS[topic].school(school).name
    return RefusedWish(named, "nothing on this surface hangs on it", "it is specified as without it")


def _pick(
    derivation: Derivation, role: str, code: str, step: PlannedStep | None, wanted: Product | None, laid: Product | None
) -> RefusedWish:
    name = wanted.name if wanted else code
    instead = f"{laid.name} is laid" if laid else "nothing is laid"
    if step is None:
        return RefusedWish(f"{name} for {role}", "no step of this part lays such a film", instead)
    if wanted is None:
        return RefusedWish(f"{name} for {step.name}", "the stores hold no such product", instead)
    if wanted.family not in step.families:
        may = " or ".join(f.value.replace("-", " ") for f in step.families)
        because = f"it is {wanted.family.value.replace('-', ' ')}, and this film is {may}"
    elif not goes_on(wanted, derivation.facts.tags):
        because = "its sheet does not name this surface"
    elif not holds_on(wanted, derivation.facts):
        because = "it does not hold on this ground"
    else:
        because = "another product was put in its place by hand"
    return RefusedWish(f"{name} for {step.name}", because, instead)
