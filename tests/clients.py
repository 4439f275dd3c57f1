"""Clients of an application that runs in the tests' own process."""

import re
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


def in_one_line(page: str) -> str:
    """A page as a browser shows it: where a template's line ends is one blank more, except in what is typed."""
    parts = TEXTAREA.split(page)
    parts[::2] = map(_joined, parts[::2])
    return "".join(parts)


def _joined(part: str) -> str:
    first, *others = part.split("\n")
    if not others:
        return first
    last = others.pop().lstrip()
    return " ".join([first.rstrip(), *filter(None, map(str.strip, others)), last])


class Reader(Client):
    """Follows redirects and reads pages as a browser shows them."""

    def request(self, *args: Any, **options: Any) -> httpx2.Response:
        answer = super().request(*args, **options)
        if not answer.headers.get("content-type", "").startswith("text/html"):
            return answer
        headers = {k: v for k, v in answer.headers.items() if k not in ("content-length", "content-encoding")}
        page = httpx2.Response(
            answer.status_code, headers=headers, text=in_one_line(answer.text), request=answer.request
        )
        page.history = answer.history
        return page


def visit(app: FastAPI, ctx: Context) -> TestClient:
    """A browser-like client: same origin, wants pages, follows redirects."""
    app.state.space = ctx.space
    headers = {"origin": HOST, "accept": "text/html"}
    return Reader(app, base_url=HOST, headers=headers, raise_server_exceptions=False)


def submit(client: TestClient, url: str, **form: Any) -> None:
    """Sends a form whose answer is not looked at, so the page it leads to is not drawn; a refusal fails the test."""
    answer = client.post(url, follow_redirects=False, **form)
    assert answer.status_code < 400, f"{url}: {answer.status_code} {answer.text[:2000]}"
