"""Clients of an application that runs in the tests' own process."""

import re
import weakref
from collections.abc import Callable
from functools import cached_property, partial
from typing import Any, Self

import httpx2
from anyio.from_thread import BlockingPortal
from fastapi import FastAPI
from fastapi.testclient import TestClient

from amber_gable.services.context import Context

HOST = "http://127.0.0.1:8765"
LOOPS: list[BlockingPortal] = []
"""The event loop in which applications run, one for all tests: making one takes as long as a small page."""


class Client(TestClient):
    """Of an application that does nothing at its start and end."""

    def __init__(self, *args: Any, **options: Any) -> None:
        super().__init__(*args, **options)
        self.portal = LOOPS[0] if LOOPS else None

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()


TEXTAREA = re.compile(r"(<textarea.*?</textarea>)", re.DOTALL)


class Shown(httpx2.Response):
    """A page as a browser shows it: where a template's line ends is one blank more."""

    @cached_property
    def text(self) -> str:  # type: ignore[override]
        parts = TEXTAREA.split(self.content.decode())
        parts[::2] = map(_in_one_line, parts[::2])
        return "".join(parts)


def _in_one_line(part: str) -> str:
    first, *others = part.split("\n")
    if not others:
        return first
    last = others.pop().lstrip()
    return " ".join([first.rstrip(), *filter(None, map(str.strip, others)), last])


class Led:
    """An answer that leads elsewhere: the page it leads to is fetched as soon as anything of it is looked at, or before
    the next request while somebody holds it. Nobody sees the page that nobody holds, so it is not drawn. Who moves the
    clock meanwhile looks first."""

    def __init__(self, follow: Callable[[], Any]) -> None:
        self._follow: Callable[[], Any] | None = follow
        self._there: Any = None

    def there(self) -> Any:
        if self._follow is not None:
            follow, self._follow = self._follow, None
            self._there = follow()
        return self._there

    def __getattr__(self, name: str) -> Any:
        return getattr(self.there(), name)


class Reader(Client):
    """Reads pages as a browser shows them."""

    _held: Callable[[], Led | None] = staticmethod(lambda: None)

    def send(
        self, request: httpx2.Request, *, follow_redirects: Any = httpx2.USE_CLIENT_DEFAULT, **options: Any
    ) -> Any:
        held = self._held()
        if held is not None:
            held.there()
        answer = super().send(request, follow_redirects=False, **options)
        follows = self.follow_redirects if follow_redirects is httpx2.USE_CLIENT_DEFAULT else follow_redirects
        if follows and answer.next_request is not None:
            led = Led(partial(self.send, answer.next_request, follow_redirects=True, **options))
            self._held = weakref.ref(led)
            return led
        if answer.headers.get("content-type", "").startswith("text/html"):
            answer.__class__ = Shown
        return answer


def visit(app: FastAPI, ctx: Context) -> TestClient:
    """A browser-like client: same origin, wants pages, follows redirects."""
    app.state.space = ctx.space
    headers = {"origin": HOST, "accept": "text/html"}
    return Reader(app, base_url=HOST, headers=headers, raise_server_exceptions=False)
