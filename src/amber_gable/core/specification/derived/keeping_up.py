"""What is washed or stripped and then left: the steps without any of a finish, and what is still to be said of them."""

from collections.abc import Collection, Sequence

from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.planned import PlannedStep
from amber_gable.core.specification.derived.rule import Phase, Rule, Source
from amber_gable.domain.work.aims import Aim
from amber_gable.domain.work.alert import Alert

COATLESS = frozenset({Aim.WASH_ONLY.value, Aim.STRIP_ONLY.value})
"""Aims that lay no film."""
_WASHED = (Phase.PROTECT, Phase.BRUSH_OFF, Phase.TREAT, Phase.WASH, Phase.LEAVE_ON, Phase.CLEAN_DAILY,
           Phase.FINAL_CHECK)  # fmt: skip
_STRIPPED = (*_WASHED, Phase.STRIP, Phase.BRIGHTEN)
_ABOUT = ("near-", "wires", "lead", "arsenic", "asbestos", "mildew", "planting")
"""Rules whose words hold whatever is done there, by the beginning of their names."""


def nothing_to_refresh(facts: Facts) -> bool:
    """Whether a refreshed coat is wished where no sound stain is: that alone stops the part."""
    sound = facts.get("coating") == "penetrating-stain" and facts.get("greyed") is not True
    return facts.get("keeps_up") == Aim.REFRESH.value and not sound


def without_coats(steps: Sequence[PlannedStep], facts: Facts) -> list[PlannedStep]:
    """Of the steps of a finish those that clean, or take the old film off, with what protects the ground and people."""
    kept = _WASHED if facts.get("keeps_up") == Aim.WASH_ONLY.value else _STRIPPED
    return [s for s in steps if s.stage in kept and s.role not in ("mask", "unmask", "look-over")]


def speaks_of_cleaning(rule: Rule, kept: Collection[str]) -> bool:
    """Whether a finding still matters where no coat is laid: it is answered by a step that is left or speaks of
    what is kept up, it forbids a way of working, or it is about people, poison and what stands near."""
    answered = any(s.role in kept for s in rule.steps) or any(t.fact == "keeps_up" for t in rule.when)
    safe = bool(rule.forbids) or rule.source is Source.STANDARD or rule.id.startswith(_ABOUT)
    return answered or (safe and rule.level is not Alert.STEP and not rule.steps)
