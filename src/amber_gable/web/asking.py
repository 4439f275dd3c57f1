"""One context for every request: who asks, in which units, and one session for all it reads."""

from urllib.parse import quote, unquote

from fastapi import Request, Response
from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Receive, Scope, Send

from amber_gable.domain.units import UnitSystem
from amber_gable.services.context import Context

WHO = "who"
"""The cookie that keeps who works on this device, percent-encoded: a header holds no letters beyond Latin-1."""
LONGEST_NAME = 80
YEAR_S = 31_536_000
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
        with Context(scope["app"].state.space, unquote(cookies.get(WHO, ""))[:LONGEST_NAME], units) as ctx:
            scope.setdefault("state", {})["context"] = ctx
            await self.app(scope, receive, send)


def context_of(request: Request) -> Context:
    ctx: Context = request.state.context
    return ctx


def signed_by(request: Request, name: str) -> Context:
    """The request's context, acting for the person whom its form names; where it names nobody, for whoever works on
    this device."""
    ctx = context_of(request)
    ctx.actor = name or ctx.actor
    return ctx


def remember_who(answer: Response, who: str) -> None:
    """Have the device keep who works on it, for a year."""
    answer.set_cookie(WHO, quote(who[:LONGEST_NAME]), max_age=YEAR_S, httponly=True, samesite="strict")
