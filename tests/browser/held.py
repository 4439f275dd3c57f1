"""Requests and answers that come late."""

import re
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from playwright.sync_api import Page, Route


class Held:
    """Requests that wait, in the order they came, until they are let go; `answers`: the server has them at once, and
    what it says waits."""

    def __init__(self, *, answers: bool = False) -> None:
        self.waiting: list[Callable[[], None]] = []
        self.open = False
        self.answers = answers

    def __call__(self, route: Route) -> None:
        if self.open:
            route.continue_()
        elif self.answers:
            said = route.fetch()
            self.waiting.append(lambda: route.fulfill(response=said))
        else:
            self.waiting.append(route.continue_)

    def let_go(self) -> None:
        self.open = True
        while self.waiting:
            self.waiting.pop(0)()


@contextmanager
def held(page: Page, path: str | re.Pattern[str], *, answers: bool = False) -> Iterator[Held]:
    holding = Held(answers=answers)
    page.route(path, holding)
    yield holding
    holding.let_go()
