"""Loops through time compiled to machine code with numba, and kept on disk for the next start.

Each loop stands beside a twin in plain numpy that gives the same numbers to 1e-9; without numba the twin is used. The
place on disk is named after the sources that the code was made from, so that code of another version is never used:
numba itself looks only at the file of the loop, not at the constants it takes from others.
"""

import hashlib
import os
import shutil
import threading
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any

PLAIN = "AMBER_GABLE_PLAIN"
"""Set to anything, this variable of the environment keeps compiled loops away."""
PLACE = "AMBER_GABLE_COMPILED"
"""Where compiled loops are kept, in place of a folder beside the sources."""
_HERE = Path(__file__).parent
_WEATHER = _HERE.parent
_READ_BY_LOOPS = (_WEATHER, _WEATHER.parents[1] / "domain" / "grid.py")
_COMPILING = threading.Lock()
_PLAIN_STEPS_LEFT = 0
"""Steps of plain loops that may still be taken before numba is loaded."""


def go_without(steps: int = 6000) -> None:
    """Let this process take so many steps in plain numpy before it loads numba, which takes as long as about 8,000: for
    a command that computes little. A program that serves pages loads it beforehand (`warming.warm`)."""
    global _PLAIN_STEPS_LEFT
    _PLAIN_STEPS_LEFT = steps


class Loop:
    """A function on arrays that writes into its last ones. `arguments` has a word for each: f and i for
    arrays of float64 and int64 that are read, w and v for such that are written, with their number of axes; n an int64,
    x a float64."""

    def __init__(self, function: Callable[..., None], arguments: str) -> None:
        self.function, self._arguments = function, arguments
        self._made: Callable[..., None] | None = None

    @property
    def code(self) -> Callable[..., None] | None:
        """The machine code; None where the plain twin is to be used. It lets other threads run meanwhile."""
        return self.code_for(0)

    def code_for(self, steps: int) -> Callable[..., None] | None:
        """The same for work that would take the plain twin so many steps."""
        global _PLAIN_STEPS_LEFT
        if os.environ.get(PLAIN):
            return None
        if self._made is None and 0 < steps <= _PLAIN_STEPS_LEFT:
            _PLAIN_STEPS_LEFT -= steps
            return None
        if self._made is None:
            with _COMPILING:
                self._made = self._made or _compile(self.function, self._arguments)
        return self._made


def engine() -> str:
    """How loops run here: 'compiled' or 'plain'."""
    return "plain" if os.environ.get(PLAIN) or _numba() is None else "compiled"


def sources_digest(places: tuple[Path, ...] = _READ_BY_LOOPS) -> str:
    """Changes with every source that a loop may take a constant from."""
    out = hashlib.sha256()
    for place in places:
        for path in sorted(place.rglob("*.py")) if place.is_dir() else [place]:
            out.update(path.name.encode() + path.read_bytes())
    return out.hexdigest()[:16]


@cache
def _numba() -> Any | None:
    """The library, told where to keep what it compiles; None where it is not installed."""
    try:
        import numba
    except ImportError:
        return None
    kept = Path(os.environ.get(PLACE) or _HERE / "__pycache__")
    mine = f"loops-{sources_digest()}"
    for other in kept.glob("loops-*"):
        if other.name != mine:
            shutil.rmtree(other, ignore_errors=True)
    vars(numba.config)["CACHE_DIR"] = str(kept / mine)
    return numba


def _compile(function: Callable[..., None], arguments: str) -> Callable[..., None] | None:
    numba = _numba()
    if numba is None:
        return None
    kinds = {"f": numba.float64, "i": numba.int64, "w": numba.float64, "v": numba.int64}

    def typed(word: str) -> Any:
        if word in ("n", "x"):
            return numba.int64 if word == "n" else numba.float64
        return numba.types.Array(kinds[word[0]], int(word[1]), "C", readonly=word[0] in "fi")

    signature = numba.void(*(typed(word) for word in arguments.split()))
    try:
        made: Callable[..., None] = numba.njit(signature, cache=True, nogil=True)(function)
    except (RuntimeError, OSError):
        # Nowhere to keep it: it is compiled at every start.
        made = numba.njit(signature, nogil=True)(function)
    return made
