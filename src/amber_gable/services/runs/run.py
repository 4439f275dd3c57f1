"""One piece of long work: what it is, how far it is, and how it ended."""

import logging
import threading
import time
import uuid
from dataclasses import dataclass, field
from enum import StrEnum
from typing import TYPE_CHECKING, Protocol

from amber_gable.domain.errors import InputError, NoClimate, NotFound, Refused, StaleEdit
from amber_gable.domain.progress import Cancelled, Progress

if TYPE_CHECKING:
    from amber_gable.services.context import Context

_LOG = logging.getLogger("amber_gable")
TOLD_FOR_S = 600.0
_TOLD_AS_THEY_ARE = (InputError, NoClimate, NotFound, Refused, StaleEdit)


class LongWork(Protocol):
    """What is to be done, as plain values: it may be carried out here or elsewhere. Two that are equal are the same
    work; of one `key` only the latest is wanted."""

    @property
    def key(self) -> str:
        """What its result is of, such as 'plan/coopers-rise'."""

    @property
    def back(self) -> str:
        """The page on which the result is seen."""

    @property
    def when_stopped(self) -> str:
        """The page for whoever stopped it: not one that would begin it anew."""

    def title(self, ctx: "Context") -> str:
        """What it does, for a list."""

    def do(self, ctx: "Context", progress: Progress) -> None:
        """Carry it out and keep the result; nothing is kept where `progress` raises Cancelled."""


class RunState(StrEnum):
    WAITING = "waiting"
    RUNNING = "running"
    DONE = "done"
    FAILED = "failed"
    STOPPED = "stopped"

    @property
    def over(self) -> bool:
        return self not in (RunState.WAITING, RunState.RUNNING)


@dataclass(eq=False)
class Run:
    """Work that was asked for, `by` whom. `share` 0 to 1 and `words` say how far it is; `error` what it failed of,
    `trouble` that in words, with a reference to the log where the program itself is at fault."""

    work: LongWork
    title: str
    by: str = ""
    id: str = field(default_factory=lambda: uuid.uuid4().hex[:12])
    state: RunState = RunState.WAITING
    share: float = 0.0
    words: str = "waits for its turn"
    error: Exception | None = None
    trouble: str = ""
    asked_at: float = field(default_factory=time.monotonic)
    ended_at: float | None = None
    _stop: threading.Event = field(default_factory=threading.Event, repr=False)
    _over: threading.Event = field(default_factory=threading.Event, repr=False)

    @property
    def percent(self) -> int:
        return int(100 * self.share)

    @property
    def seconds(self) -> float:
        """Since it was asked for, until it ended."""
        return (self.ended_at or time.monotonic()) - self.asked_at

    @property
    def untold(self) -> bool:
        """It came to nothing, lately enough that whoever asked for it is to be told."""
        failed = self.state in (RunState.FAILED, RunState.STOPPED)
        return failed and self.ended_at is not None and time.monotonic() - self.ended_at < TOLD_FOR_S

    @property
    def stopping(self) -> bool:
        return self._stop.is_set() and not self.state.over

    def wait(self, seconds: float) -> bool:
        """Whether it is over, at the latest after so long."""
        return self._over.wait(seconds)

    def stop(self) -> None:
        """It ends where it next tells how far it is."""
        self._stop.set()

    def progress(self, share: float, words: str) -> None:
        """The `Progress` of this run."""
        if self._stop.is_set():
            raise Cancelled
        self.share, self.words = min(max(share, 0.0), 1.0), words

    def end(self, error: BaseException | None) -> None:
        """Called once by whoever carries it out."""
        if error is None:
            self.state, self.share = RunState.DONE, 1.0
        elif isinstance(error, Cancelled):
            self.state = RunState.STOPPED
        else:
            self.state, self.trouble = RunState.FAILED, _words(self.title, error)
            self.error = error if isinstance(error, Exception) else None
        self.ended_at = time.monotonic()
        self._over.set()


def _words(title: str, error: BaseException) -> str:
    if isinstance(error, _TOLD_AS_THEY_ARE):
        return str(error)
    reference = uuid.uuid4().hex[:8]
    _LOG.error("fault %s in %s", reference, title, exc_info=error)
    return f"something went wrong in the program; try again, and if it comes back tell us the number {reference}"
