"""Answers that come late."""

import re
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page, Route


class Held:
    """Requests that wait, in the order they came, until they are let go."""

    def __init__(self) -> None:
        self.waiting: list[Route] = []
        self.open = False

    def __call__(self, route: Route) -> None:
        if self.open:
            route.continue_()
        else:
            self.waiting.append(route)

    def let_go(self) -> None:
        self.open = True
        while self.waiting:
            self.waiting.pop(0).continue_()


@contextmanager
def held(page: Page, path: str | re.Pattern[str]) -> Iterator[Held]:
    holding = Held()
    page.route(path, holding)
    yield holding
    holding.let_go()
