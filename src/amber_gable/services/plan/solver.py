"""The solver in a process of its own, at low priority: pages answer beside it, and it can be stopped at once.

Run as `python -m amber_gable.services.plan.solver` it reads what is asked, pickled, from its input, and writes a line
of JSON with words for each better plan, and one with the last.
"""

import json
import os
import pickle
import subprocess
import sys
import time
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import datetime
from queue import Empty, SimpleQueue
from threading import Thread
from typing import IO

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.plan.build import Before, solved_plan
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.progress import Progress
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.domain.work.people import Person

_PIPE = subprocess.PIPE
_POLITE = 10
_LOOKS_S = 0.2
_LONGEST = 3.0
"""At most so many seconds go by for one that is asked for."""


@dataclass(frozen=True)
class Asked:
    """What is left of the job in that weather, from `begin` on for so many days, for those hands; `before` as
    `solved_plan` takes it."""

    bundle: JobBundle
    series: WeatherSeries
    begin: datetime
    days: int
    people: tuple[Person, ...]
    seconds: float
    before: Before = field(default_factory=dict)


def solve_apart(asked: Asked, progress: Progress) -> Plan:
    """The best plan that is found. Raises Cancelled when that is asked for; RuntimeError where the process fails."""
    command = [sys.executable, "-m", "amber_gable.services.plan.solver"]
    with subprocess.Popen(command, stdin=_PIPE, stdout=_PIPE, stderr=_PIPE) as child:
        try:
            return _follow(child, asked, progress)
        finally:
            child.kill()


def _follow(child: "subprocess.Popen[bytes]", asked: Asked, progress: Progress) -> Plan:
    assert child.stdin is not None and child.stdout is not None and child.stderr is not None
    lines: SimpleQueue[bytes | None] = SimpleQueue()
    Thread(target=_read, args=(child.stdout, lines), daemon=True).start()
    began, words = time.monotonic(), "looking for fewer days"
    with suppress(BrokenPipeError):
        child.stdin.write(pickle.dumps(asked))
        child.stdin.close()
    while True:
        progress(min(0.95, (time.monotonic() - began) / (_LONGEST * asked.seconds)), words)
        try:
            line = lines.get(timeout=_LOOKS_S)
        except Empty:
            continue
        if line is None:
            said = child.stderr.read().decode(errors="replace")[-2000:]
            raise RuntimeError(f"the solver ended without a plan: {said}")
        told = json.loads(line)
        if "plan" in told:
            return Plan.model_validate(told["plan"])
        words = told["words"]


def _read(stream: IO[bytes], lines: "SimpleQueue[bytes | None]") -> None:
    # It is closed under the reader's hands where the search is stopped.
    with suppress(ValueError, OSError):
        for line in stream:
            lines.put(line)
    lines.put(None)


def _main() -> None:
    if hasattr(os, "nice"):
        os.nice(_POLITE)
    asked: Asked = pickle.load(sys.stdin.buffer)
    site = site_climate(asked.bundle, asked.series, asked.begin, asked.days)

    def tell(plan: Plan) -> None:
        done = "" if plan.finish is None else f", done on {plan.finish:%a %d %b}"
        print(json.dumps({"words": f"{plan.site_days} days on site{done}; looking for fewer"}), flush=True)

    best = solved_plan(site, asked.begin, asked.people, before=asked.before, seconds=asked.seconds, better=tell)
    print(json.dumps({"plan": best.model_dump(mode="json")}), flush=True)


if __name__ == "__main__":
    _main()
