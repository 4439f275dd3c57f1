"""One context for every request: who asks, in which units, and one session for all it reads."""

from fastapi import Request
from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Receive, Scope, Send

from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context

WHO = "who"
"""The cookie that keeps who works on this device."""
UNITS = "units"
"""The cookie that keeps the reader's choice of units."""


class ContextPerRequest:
    """ASGI middleware. The session opens when something is first read and closes when the answer is sent."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        cookies = HTTPConnection(scope).cookies
        chosen = cookies.get(UNITS)
        units = UnitSystem(chosen) if chosen in set(UnitSystem) else None
        with Context(scope["app"].state.space, cookies.get(WHO, "")[:80], units) as ctx:
            scope.setdefault("state", {})["context"] = ctx
            await self.app(scope, receive, send)


def context_of(request: Request) -> Context:
    ctx: Context = request.state.context
    return ctx
