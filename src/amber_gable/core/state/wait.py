"""What keeps a step of a part from being done yet."""

from dataclasses import dataclass
from datetime import datetime


@dataclass(frozen=True)
class Wait:
    """Why the next step may not begin yet. `letter`: S a stop, O other people's work, M a damp substrate, B what lies
    below. `until` is None where no day is known; `lifts` says what ends or shortens it. `order`: a step before it is
    not done yet. `test`: the step whose wait a test ends, and what must be seen."""

    letter: str
    words: str
    until: datetime | None
    lifts: str = ""
    order: bool = False
    test: tuple[str, str] | None = None
