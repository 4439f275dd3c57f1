"""The runner of long work: a queue, so many at once, and a list of what runs and what ended lately."""

import os
import threading
from collections import deque
from collections.abc import Callable
from typing import TYPE_CHECKING, Protocol

from amber_gable.domain.progress import Cancelled
from amber_gable.services.runs.run import LongWork, Run, RunState

if TYPE_CHECKING:
    from amber_gable.services.context import Context
    from amber_gable.services.workspace import Workspace

KEPT = 40
"""Ended runs that are still told of."""


class Executor(Protocol):
    """Who carries work out: threads of this program, or one day another machine, which is sent the work's values."""

    def begin(self, run: Run, ended: Callable[[Run, BaseException | None], None]) -> None:
        """Return at once; tell `run.progress` how far it is and call `ended` once, from any thread."""


class Threads:
    """Carries work out in a thread of its own each, which ends with it. Compiled loops, numpy and the database let
    other threads run meanwhile."""

    def __init__(self, space: "Workspace") -> None:
        self._space = space

    def begin(self, run: Run, ended: Callable[[Run, BaseException | None], None]) -> None:
        from amber_gable.services.context import Context

        def carry_out() -> None:
            try:
                run.progress(0.0, "begins")
                with Context(self._space, run.by) as ctx:
                    run.work.do(ctx, run.progress)
            except BaseException as error:
                ended(run, error)
            else:
                ended(run, None)

        threading.Thread(target=carry_out, name=f"run {run.work.key}", daemon=True).start()


class Runner:
    """`patience` is how long a page waits for work it asked for before it shows how far that is, s."""

    def __init__(self, space: "Workspace", executor: Executor | None = None, at_once: int | None = None) -> None:
        self._executor = executor or Threads(space)
        self._at_once = at_once or max(1, os.cpu_count() or 1)
        self._lock = threading.Lock()
        self._waiting, self._running = deque[Run](), list[Run]()
        self._ended: deque[Run] = deque(maxlen=KEPT)
        self.patience = 0.4

    def submit(self, ctx: "Context", work: LongWork) -> Run:
        """Have the work done. The same work that already runs or waits is not begun again; other work of its key makes
        way for it."""
        title = work.title(ctx)
        with self._lock:
            for other in [*self._running, *self._waiting]:
                if other.work == work and not other.stopping:
                    return other
                if other.work.key == work.key:
                    other.stop()
            run = Run(work, title, ctx.actor)
            self._waiting.append(run)
        self._next()
        return run

    def stop(self, id_: str) -> Run | None:
        """Stop a run; None where there is none of that id any more."""
        run = self.find(id_)
        if run is not None:
            run.stop()
            self._next()
        return run

    def find(self, id_: str) -> Run | None:
        return next((r for r in self.runs() if r.id == id_), None)

    def latest(self, key: str) -> Run | None:
        """The last run of a key, over or not."""
        return next((r for r in self.runs() if r.work.key == key), None)

    def runs(self) -> list[Run]:
        """What waits and runs, then what ended; each the latest first."""
        with self._lock:
            return [*reversed(self._waiting), *reversed(self._running), *reversed(self._ended)]

    @property
    def active(self) -> list[Run]:
        return [r for r in self.runs() if not r.state.over]

    def _next(self) -> None:
        """Begin what there is room for. What was stopped while it waited ends without having begun."""
        begun: list[Run] = []
        with self._lock:
            for run in [r for r in self._waiting if r.stopping]:
                self._waiting.remove(run)
                run.end(Cancelled())
                self._ended.append(run)
            while self._waiting and len(self._running) < self._at_once:
                run = self._waiting.popleft()
                run.state = RunState.RUNNING
                self._running.append(run)
                begun.append(run)
        for run in begun:
            try:
                self._executor.begin(run, self._over)
            except Exception as error:
                self._over(run, error)

    def _over(self, run: Run, error: BaseException | None) -> None:
        with self._lock:
            if run in self._running:
                self._running.remove(run)
                self._ended.append(run)
        run.end(error)
        self._next()
