"""How long work tells what it does, and hears that it is to stop."""

from collections.abc import Callable

Progress = Callable[[float, str], None]
"""Called by long work now and then with the share that is done, 0 to 1, and in words what it does. It raises
`Cancelled` where the work is to stop; nothing is kept then."""


class Cancelled(Exception):
    """The work was to stop and did."""


def unseen(share: float, words: str) -> None:
    """For work that nobody watches."""


def within(progress: Progress, begin: float, end: float) -> Progress:
    """For a part of the work, which tells its own share from 0 to 1."""
    return lambda share, words: progress(begin + share * (end - begin), words)
