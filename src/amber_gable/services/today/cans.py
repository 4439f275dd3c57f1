"""Which can a coat comes from: the containers of its product and colour, opened one after another as planned."""

from collections.abc import Sequence
from datetime import datetime
from functools import cached_property

from amber_gable.core.estimate.containers import boxes
from amber_gable.core.state.progress import cells, progress
from amber_gable.core.work.record import job_work
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.job.plan import Task
from amber_gable.services.job.view import JobView
from amber_gable.services.quantities.quantities import kept_orders

Kind = tuple[str, str]
"""Product and colour."""


class Cans:
    """Of one job, as it was bought by its quantities."""

    def __init__(self, view: JobView) -> None:
        self.view = view

    @cached_property
    def _bought(self) -> dict[Kind, list[float]]:
        """Litres of each can, those of the stock first."""
        orders = kept_orders(self.view)
        return {
            (o.product.code, o.colour): [
                *(c.litres for c in o.stock),
                *(c.litres for c, n in o.purchase.items for _ in range(n)),
            ]
            for o in orders
        }

    @cached_property
    def _used(self) -> dict[Kind, float]:
        """Litres that are gone: by the last can of each that somebody looked into and what was laid since, else by what
        the record says is on the walls."""
        out = self._laid(None)
        for noted in self.view.bundle.cans:
            kind = (noted.product, noted.colour)
            poured = sum(self._bought.get(kind, [])[: noted.number]) - noted.left_l
            out[kind] = max(poured, 0.0) + self._laid(noted.at).get(kind, 0.0)
        return out

    def _laid(self, since: datetime | None) -> dict[Kind, float]:
        """Litres on the walls by the record; of what was laid after a moment, where one is named."""
        bundle = self.view.bundle
        found = progress(bundle.job.record)
        out: dict[Kind, float] = {}
        if not found:
            return out
        operations = {f.part: steps_of(bundle, f) for f in bundle.job.finishes}
        for key, work in job_work(bundle).items():
            for line in (*work.lines, *work.possible):
                if line.paint is not None:
                    step = line.operation.id
                    entries = ((c.share, c.entry_of(step)) for c in cells(key, operations[key], found))
                    share = sum(s for s, e in entries if e is not None and (since is None or e.at > since))
                    kind = (line.paint.product.code, line.paint.colour)
                    out[kind] = out.get(kind, 0.0) + share * line.litres
        return out

    @cached_property
    def _before(self) -> dict[str, float]:
        """Litres of a task's product and colour that are gone when it begins, by task."""
        gone, out = dict(self._used), dict[str, float]()
        board = self.view.board
        for state in board.open if board is not None else ():
            task = state.task
            if task.product is not None and task.colour is not None and task.litres is not None:
                kind = (task.product, task.colour)
                out[task.id] = gone.get(kind, 0.0)
                gone[kind] = out[task.id] + task.litres
        return out

    def number(self, task: Task) -> int | None:
        """Which of the cans bought a task begins with, from 1; None where it takes none, or more than there are."""
        cans = self._bought.get((task.product or "", task.colour or ""), [])
        level, begins = 0.0, self._before.get(task.id)
        for number, can in enumerate(cans, 1):
            level += can
            if begins is not None and begins < level - _HAIR_L:
                return number
        return None

    def size(self, task: Task, number: int) -> float:
        """Litres of that can when it is full."""
        return self._bought[task.product or "", task.colour or ""][number - 1]

    def of(self, task: Task) -> str:
        """'can 2 of 3 (10 L)'; nothing for work without paint or paint that was not bought. Said with it, because it is
        known while the batch is mixed: that a box ends within the work, or that what is there will not do for it."""
        cans = self._bought.get((task.product or "", task.colour or ""), [])
        if not cans or task.id not in self._before:
            return ""
        begins, ends = self._before[task.id], self._before[task.id] + (task.litres or 0.0)
        level = 0.0
        for number, can in enumerate(cans, 1):
            level += can
            if begins < level - _HAIR_L:
                return f"can {number} of {len(cans)} ({can:.3g} L){_mixing(cans, begins, ends)}"
        return f"beyond the {len(cans)} bought"


_HAIR_L = 1e-6


def _mixing(cans: Sequence[float], begins: float, ends: float) -> str:
    """What to know before the batch is mixed, for paint from one level to another of all that is there; '' where it all
    comes out of one box."""
    short = ends - sum(cans)
    if short > _HAIR_L:
        return f"; {max(short, 0.1):.1f} L short of this: fetch more and box it in before the first stroke"
    filled = 0.0
    for box in boxes(cans):
        filled += box.litres
        if begins < filled - _HAIR_L:
            return "; its box ends within this work: pour the next one in first" if ends > filled + _HAIR_L else ""
    return ""
