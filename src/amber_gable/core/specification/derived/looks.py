"""Looked at before the next coat is decided: where one more may be wanted, or the last may not (docs/trade.md §19)."""

from collections.abc import Sequence
from dataclasses import replace

from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.planned import ORDINALS, PlannedStep
from amber_gable.core.specification.derived.rule import Phase
from amber_gable.domain.work.operation import AmountUnit, OperationKind, Technique

_OPAQUE = ("paint", "solid-stain")
_THIRSTY = "soaks"
_WORDS = "Look at it dry, in raking light: enough, or one more coat?"
_IF = "{} coat, if the look asks for it"


def looked_at(steps: Sequence[PlannedStep], facts: Facts) -> list[PlannedStep]:
    """The steps with a look after a coat and the coat after it only a possible one, under the school that wants it:
    the second on sound renders and slabs of like colour, one more where the old colour or a thirsty ground may show
    through, and on doors."""
    coats = [s for s in steps if s.role.startswith("coat-")]
    asked = facts.schools["look"] == "look" and facts.schools["seen"] != "nobody"
    if not asked or facts.get("aim") not in _OPAQUE or not coats:
        return list(steps)
    last, at = coats[-1], steps.index(coats[-1])
    if len(coats) > 1 and _one_may_do(facts):
        possible = replace(last, name=_IF.format(ORDINALS[len(coats) - 1]), possible=True)
        return [*steps[:at], _look(last, _ONE_MAY_DO), possible, *steps[at + 1 :]]
    why = _why_more(facts, len(coats))
    if not why or len(coats) >= len(ORDINALS):
        return list(steps)
    more = replace(
        last, role=f"coat-{len(coats) + 1}", name=_IF.format(ORDINALS[len(coats)]), bare=False, note="", possible=True
    )
    return [*steps[: at + 1], _look(last, why), more, *steps[at + 1 :]]


_ONE_MAY_DO = "sound paint of a like colour: one coat may be enough"


def _one_may_do(facts: Facts) -> bool:
    """A render or slab whose sound paint has about the new colour already."""
    level = facts.tags >= {"masonry", "stucco"} or facts.tags >= {"masonry", "floor"}
    like = (facts.get("hiding_coats") or 1) <= 1 and not facts.get("weak_colour")
    return level and like and facts.get("film") is True and facts.get("absorbency") != _THIRSTY


def _why_more(facts: Facts, coats: int) -> str:
    """Why one more coat than was counted may be wanted; nothing where none is."""
    if facts.get("weak_colour") or (facts.get("hiding_coats") or 0) >= coats:
        return "the old colour may still show through"
    if facts.get("absorbency") == _THIRSTY or (facts.get("coating") == "bare" and facts.tags & {"wood", "masonry"}):
        return "a thirsty ground may leave it patchy"
    return "a door is seen close and in raking light" if "door" in facts.tags else ""


def masked_again(steps: Sequence[PlannedStep]) -> list[PlannedStep]:
    """The steps with tape and film off while the coat before the look is soft, and on again for a possible one: until
    it is dry enough to be judged they would tear its edge."""
    at = next((n for n, s in enumerate(steps) if s.technique is Technique.INSPECT), None)
    coat = next((s for s in steps if s.possible and s.kind.lays_film), None)
    off = [s for s in steps if s.technique is Technique.UNMASK]
    if at is None or coat is None or not off:
        return list(steps)
    on = [s for s in steps[:at] if s.kind is OperationKind.MASK]
    out = [*steps[:at], *(replace(s, stage=Phase.COAT) for s in off), steps[at]]
    for step in steps[at + 1 :]:
        if step is coat:
            out += [*map(_again, on), step, *map(_again, off)]
        elif step not in off:
            out.append(step)
    return out


def _again(step: PlannedStep) -> PlannedStep:
    return replace(step, role=f"{step.role}-again", stage=Phase.COAT, possible=True)


def _look(coat: PlannedStep, why: str) -> PlannedStep:
    return replace(
        coat, role="look", kind=OperationKind.CLEAN, technique=Technique.INSPECT, name=_WORDS, note="", families=(),
        method=None, bare=False, back_roll=False, colour=None, because=why, possible=False, amount=1.0,
        unit=AmountUnit.PIECES,
    )  # fmt: skip
