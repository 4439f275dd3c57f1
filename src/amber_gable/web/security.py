"""What every request meets first: who may ask, how much may be sent, and what a page may load."""

from collections.abc import Awaitable, Callable
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from amber_gable.services.settings import LOCAL_NAMES
from amber_gable.services.uploads import SIZE_LIMIT, ZIP_LIMIT

CONTENT_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; "
    "connect-src 'self'; "
    "form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
_HEADERS = {
    "content-security-policy": CONTENT_POLICY,
    "x-content-type-options": "nosniff",
    "referrer-policy": "same-origin",
    "x-frame-options": "DENY",
    "cross-origin-opener-policy": "same-origin",
}
SAFE_METHODS = {"GET", "HEAD", "OPTIONS"}
# A form carries its fields and boundaries beside the file.
BODY_LIMIT = SIZE_LIMIT + 64 * 1024
# A whole job may bring its photos.
LARGER_LIMITS = {"/jobs/import": ZIP_LIMIT + 64 * 1024}
Refuse = Callable[[Scope, Receive, Send, int, str, str], Awaitable[None]]


class Gate:
    """ASGI middleware. Requests under a foreign host name (DNS rebinding) and state changes from another origin are
    refused; so are bodies over 10 MB (100 MB for a job with its photos), also when they do not say their length."""

    def __init__(self, app: ASGIApp, refuse: Refuse, names: frozenset[str] = LOCAL_NAMES) -> None:
        self.app, self.refuse, self.names = app, refuse, names

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        host = headers.get("host", "")
        if urlsplit(f"//{host}").hostname not in self.names:
            await self.refuse(scope, receive, send, 421, "Unknown host name", "Open the program at http://127.0.0.1.")
            return
        if scope["method"] not in SAFE_METHODS:
            origin = headers.get("origin") or headers.get("referer") or ""
            if urlsplit(origin).netloc != host:
                todo = "Open the page from this program and send the form again."
                await self.refuse(scope, receive, send, 403, "The request came from somewhere else", todo)
                return
        length = headers.get("content-length", "0")
        limit = LARGER_LIMITS.get(scope["path"], BODY_LIMIT)
        if not length.isdigit() or int(length) > limit:
            await self.refuse(scope, receive, send, 413, _too_much(limit), "Send a smaller file.")
            return
        await self.app(scope, _counted(receive, limit), _with_headers(send))


def _too_much(limit: int) -> str:
    return f"More than {limit // (1024 * 1024)} MB was sent"


def _counted(receive: Receive, limit: int) -> Receive:
    total = 0

    async def limited() -> Message:
        nonlocal total
        message = await receive()
        total += len(message.get("body", b""))
        if total > limit:
            # Whoever reads the body stops here: nothing of it is used.
            raise HTTPException(413, f"{_too_much(limit)}. Send a smaller file.")
        return message

    return limited


def _with_headers(send: Send) -> Send:
    async def sending(message: Message) -> None:
        if message["type"] == "http.response.start":
            headers = MutableHeaders(scope=message)
            for name, value in _HEADERS.items():
                headers.setdefault(name, value)
        await send(message)

    return sending
