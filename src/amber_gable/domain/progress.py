"""How a long computation reports its progress and learns that it was cancelled."""

from collections.abc import Callable

Progress = Callable[[float, str], None]
"""Called by long work now and then with the share that is done, 0 to 1, and in words what it does. It raises
`Cancelled` where the work is to stop; nothing is kept then."""


class Cancelled(Exception):
    """The computation was cancelled."""


def unseen(share: float, words: str) -> None:
    """The progress report of a computation that nobody watches: does nothing."""


def within(progress: Progress, begin: float, end: float) -> Progress:
    """The report for a part of a computation: its own 0 to 1 is reported as `begin` to `end` of the whole."""
    return lambda share, words: progress(begin + share * (end - begin), words)
