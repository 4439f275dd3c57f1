"""Who asks, for what moment, in which units: one context a request, a command or a run."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from datetime import datetime
from functools import cached_property
from types import TracebackType
from typing import Self

from amber_gable.domain.units import UnitSystem
from amber_gable.services.clock import Clock
from amber_gable.services.workspace import Workspace
from amber_gable.store.transaction import Transaction


@dataclass
class Context:
    """What every use case takes. `actor` is who asks, empty where nobody is named; every row that is written carries
    it. `units` are those the reader chose; None where that is still to be guessed (services/company/usual_units.py).

    Used as `with Context(...) as ctx`, all that is read is read at one moment, in one session, until something is
    written: what is read after that is of the moment after it. Not entered, each reading stands for itself. All that is
    written inside one `writing` is saved or nothing of it; a `writing` within another is part of it.
    """

    space: Workspace
    actor: str = ""
    units: UnitSystem | None = None
    _entered: bool = field(default=False, init=False, repr=False)
    _reads: Transaction | None = field(default=None, init=False, repr=False)
    _writes: Transaction | None = field(default=None, init=False, repr=False)
    _failed: bool = field(default=False, init=False, repr=False)

    def __enter__(self) -> Self:
        self._entered = True
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.look_again()
        self._entered = False

    @cached_property
    def _now(self) -> datetime:
        return self.space.clock.now()

    @property
    def now(self) -> datetime:
        """The moment of the request; of a context that is not entered the present one."""
        return self._now if self._entered else self.space.clock.now()

    @property
    def clock(self) -> Clock:
        return self.space.clock

    @contextmanager
    def reading(self) -> Iterator[Transaction]:
        """The session that reads; inside a writing the one that writes, which sees what it wrote."""
        if self._writes is not None:
            yield self._writes
        elif self._entered:
            if self._reads is None:
                self._reads = self.space.database.moment(self.actor)
            yield self._reads
        else:
            with self.space.database.moment(self.actor) as session:
                yield session

    @contextmanager
    def writing(self) -> Iterator[Transaction]:
        """One transaction of the actor's."""
        if self._writes is not None:
            try:
                yield self._writes
            except BaseException:
                # Whoever catches it outside must not save the half of it.
                self._failed = True
                raise
            return
        self.look_again()
        with self.space.database.writing(self.actor) as session:
            self._writes, self._failed = session, False
            try:
                yield session
                if self._failed:
                    raise RuntimeError("a part of this transaction failed: none of it may be saved")
            finally:
                self._writes = None

    def look_again(self) -> None:
        """What is read from now on is of the present moment: after waiting for what another writes."""
        if self._reads is not None:
            self._reads.close()
            self._reads = None
