"""Steps changed by hand, put on top of the derived ones; and what of the result must not stand."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from amber_gable.core.specification.derived.facts import Facts
from amber_gable.core.specification.derived.keeping_up import COATLESS, nothing_to_refresh
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.finish import Override, OverrideAction
from amber_gable.domain.work.operation import EARLY_FILMS, Operation, OperationKind, Technique


@dataclass(frozen=True)
class Conflict:
    """Something in the steps that contradicts the findings. STOP means that it must not be saved so."""

    level: Alert
    step: str
    words: str
    todo: str


def overridden(
    operations: Sequence[Operation], overrides: Sequence[Override]
) -> tuple[tuple[Operation, ...], tuple[Conflict, ...]]:
    """The steps with the overrides put on; one that finds no step to act on is told."""
    out, lost = list(operations), []
    for o in overrides:
        at = next((i for i, step in enumerate(out) if step.id == o.step), None)
        if o.action is OverrideAction.ADD and o.operation is not None:
            after = next((i for i, step in enumerate(out) if step.id == o.after), -1)
            if at is None:
                out.insert(after + 1, o.operation)
        elif at is None:
            words = f"your change to step '{o.step}' has no step to act on any more: the findings no longer ask for it"
            lost.append(Conflict(Alert.CHECK, o.step, words, "Drop the change, or add the step by hand."))
        elif o.operation is None:
            del out[at]
        else:
            out[at] = o.operation
    return tuple(out), tuple(lost)


_STRIPS = {Technique.STRIPPER, Technique.SOLVENT_STRIPPER, Technique.MILD_STRIPPER}
_ALKALINE = {Technique.STRIPPER, Technique.POULTICE}
_DISTURBS = (OperationKind.SCRAPE, OperationKind.SAND, OperationKind.STRIP)
_DULLS = {OperationKind.SAND, OperationKind.STRIP}


def conflicts(
    operations: Sequence[Operation], facts: Facts, forbidden: Mapping[Technique, str]
) -> tuple[Conflict, ...]:
    """What in the steps a painter must not do, or must not leave out, on such a surface."""
    return (*forbidden_steps(operations, forbidden), *_ground(operations, facts))


def forbidden_steps(operations: Sequence[Operation], forbidden: Mapping[Technique, str]) -> tuple[Conflict, ...]:
    """Steps done in a way that a safety card forbids on such a surface; of older steps that do not say how they scrape
    or sand, that they must."""
    stops = [
        Conflict(
            Alert.STOP,
            o.id,
            f"'{o.name}': {o.technique.value.replace('-', ' ')} is forbidden here ({forbidden[o.technique]})",
            "Choose another way; the safety card says which are allowed.",
        )
        for o in operations
        if o.technique is not None and o.technique in forbidden
    ]
    unsaid = [
        Conflict(Alert.CHECK, o.id, f"'{o.name}' does not say how, and a safety card forbids some ways", "Derive the "
                 "steps instead, or agree the way with the crew by the card.")
        for o in operations
        if forbidden and o.technique is None and o.kind in _DISTURBS
    ]  # fmt: skip
    return (*stops, *unsaid)


def _ground(operations: Sequence[Operation], facts: Facts) -> list[Conflict]:
    """Clean, dry, dull, and stripped where it must be, before the first film."""
    if facts.get("keeps_up") in COATLESS or nothing_to_refresh(facts):
        return []
    films = [i for i, o in enumerate(operations) if o.kind.lays_film and o.id not in EARLY_FILMS]
    if not any(o.kind is OperationKind.COAT for o in operations):
        return [Conflict(Alert.STOP, "coat-1", "no coat is left", "Keep at least one coat.")]
    first = films[0]
    before = operations[:first]
    out = []
    washes = [i for i, o in enumerate(before) if o.kind is OperationKind.WASH]
    if not washes:
        out.append(Conflict(Alert.STOP, operations[first].id, "nothing is washed before the first film", "Put the "
                            "wash back: a coat on dirt peels with the dirt."))  # fmt: skip
    wet = max((i for i, o in enumerate(before) if o.kind.wets), default=-1)
    if wet >= 0 and not any(o.wait_h > 0 for o in before[wet:]):
        out.append(Conflict(Alert.STOP, before[wet].id, "no time to dry between water and the first film",
                            "Give the last wet step its waiting time."))  # fmt: skip
    glossy = facts.get("film") is not False and facts.get("gloss") not in ("dull", None)
    scraped = any(o.kind is OperationKind.SCRAPE and o.share == 1 and o.amount is None for o in before)
    if glossy and "deck" not in facts.tags and not scraped and not any(o.kind in _DULLS for o in before):
        out.append(Conflict(Alert.STOP, operations[first].id, f"the old film is {facts.get('gloss')} and nothing dulls "
                            "it", "Sand or degloss before the first film."))  # fmt: skip
    shows_wood = facts.get("aim") in ("semi-transparent", "translucent")
    if shows_wood and facts.get("film") is True:
        stripped = scraped or any(o.technique in _STRIPS for o in before)
        if not stripped:
            out.append(Conflict(Alert.STOP, "strip", "a translucent stain over a film that is not stripped",
                                "Strip it, or choose a solid stain."))  # fmt: skip
    if any(o.technique in _ALKALINE for o in before) and not any(o.technique is Technique.BRIGHTENER for o in before):
        out.append(Conflict(Alert.STOP, "brighten", "the wood is left alkaline after the stripper", "Brighten and "
                            "neutralise: a stain over alkaline wood does not bond."))  # fmt: skip
    primes = any(o.kind is OperationKind.PRIME and o.share == 1 for o in operations)
    if facts.get("coating") == "bare" and "wood" in facts.tags and facts.get("aim") == "paint" and not primes:
        out.append(Conflict(Alert.CHECK, "prime", "bare wood is painted without a primer", "Put the primer back, or "
                            "say why not."))  # fmt: skip
    return out
