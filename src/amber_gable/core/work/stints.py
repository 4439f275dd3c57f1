"""Operations of a system put together where one goes on from the other at once."""

from collections.abc import Sequence
from dataclasses import dataclass

from amber_gable.core.work.waits import WHILE_SOFT, seals
from amber_gable.domain.work.operation import EARLY_FILMS, Operation, OperationKind, Technique

HEADLINE = 44
"""Letters of a step's name that a headline bears."""
SET_UP = (OperationKind.FIT, OperationKind.PROTECT)


@dataclass(frozen=True)
class Stint:
    """Operations of a system done in one go. The last one's wait holds; a film is always a stint of its own."""

    operations: tuple[Operation, ...]

    @property
    def first(self) -> Operation:
        return self.operations[0]

    @property
    def name(self) -> str:
        names = [o.name for o in self.operations]
        told = ", then ".join([names[0], *(n if n[1:2].isupper() else n[0].lower() + n[1:] for n in names[1:])])
        return f"{told}, {self.first.where.words}" if self.first.where else told

    @property
    def brief(self) -> str:
        """“Contain” and 4 more: for a headline."""
        first, more = self.operations[0].name, len(self.operations) - 1
        if more or len(first) > HEADLINE:
            first = first.split(":")[0].split(";")[0]
            first = first if len(first) <= HEADLINE else first.split(",")[0]
        return f"“{first}”" + (f" and {more} more" if more else "")

    @property
    def kind(self) -> OperationKind:
        """The kind whose weather rules are the strictest of those in it."""
        kinds = [o.kind for o in self.operations]
        for strict in (OperationKind.WASH, OperationKind.STRIP, OperationKind.CAULK):
            if strict in kinds:
                return strict
        return kinds[0]

    @property
    def lays_film(self) -> bool:
        return self.first.kind.lays_film

    @property
    def wait_h(self) -> float:
        """The longest of its waits; to what follows it may be shorter."""
        return max(o.wait_h for o in self.operations)

    @property
    def full_film(self) -> bool:
        """A film that dirt would spoil: every one but the primers of what is filled and sanded after them."""
        return self.lays_film and self.first.id not in EARLY_FILMS


def stints(operations: Sequence[Operation]) -> list[Stint]:
    """The operations in order, put together where one goes on from the other at once."""
    groups: list[list[Operation]] = []
    for operation in operations:
        if groups and _goes_on(groups[-1], operation):
            groups[-1].append(operation)
        else:
            groups.append([operation])
    return [Stint(tuple(g)) for g in groups]


def _goes_on(group: Sequence[Operation], operation: Operation) -> bool:
    """In one place, both wet or both dry, with no wait between; what is only set up goes with whatever follows it; tape
    comes off and sashes are moved with their coat, while that is soft."""
    first, last = group[0], group[-1]
    if operation.where is not last.where or Technique.INSPECT in (operation.technique, last.technique):
        return False
    if first.kind.lays_film:
        soft = operation.technique in WHILE_SOFT and (last.kind.lays_film or last.technique in WHILE_SOFT)
        # What is done whether the possible coat is laid or not stands by itself.
        return soft and operation.possible is first.possible
    if operation.kind.lays_film or last.wait_h > 0:
        return False
    if seals(operation) and not any(seals(o) for o in group) and first.kind is not OperationKind.DUST:
        # What shuts moisture in waits for a dry substrate; what goes before it need not, but for dusting it out.
        return False
    return last.kind.wets == operation.kind.wets or last.kind in SET_UP
