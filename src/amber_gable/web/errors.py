"""Errors as pages for people and as problem JSON (RFC 9457) for programs; never a traceback."""

import logging
import uuid
from http import HTTPStatus
from urllib.parse import urlsplit

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse, Response
from starlette.types import Receive, Scope, Send

from amber_gable.domain.errors import InputError, NotFound, Refused, StaleEdit
from amber_gable.services.plan.long_runs import StillRunning
from amber_gable.web.pages import page

_LOG = logging.getLogger("amber_gable")


def problem(request: Request, status: int, title: str, detail: str) -> Response:
    """The error in the form the asker reads."""
    wants = request.headers.get("accept", "")
    # A part of a page that is refused stays as it is; its script tells the words.
    if "text/html" in wants and "hx-request" not in request.headers:
        came_from = urlsplit(request.headers.get("referer", "")).path
        context = {"status": status, "title": title, "detail": detail, "back": came_from if came_from != "/" else ""}
        return page(request, "problem.html", context, status=status)
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail}
    return JSONResponse(body, status_code=status, media_type="application/problem+json")


async def refuse(scope: Scope, receive: Receive, send: Send, status: int, title: str, detail: str) -> None:
    """For the gate, which stands before any route."""
    await problem(Request(scope), status, title, detail)(scope, receive, send)


def install(app: FastAPI) -> None:
    """Hang the handlers on the application."""

    @app.exception_handler(HTTPException)
    def http(request: Request, error: HTTPException) -> Response:
        title = HTTPStatus(error.status_code).phrase
        detail = error.detail if error.detail != title else "Go back, or open the jobs list."
        return problem(request, error.status_code, title, detail)

    @app.exception_handler(RequestValidationError)
    def malformed(request: Request, error: RequestValidationError) -> Response:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"][1:])
        return problem(request, 422, "The address or form does not fit", f"{where}: {first['msg']}")

    @app.exception_handler(InputError)
    def unusable(request: Request, error: InputError) -> Response:
        return problem(request, 422, "This cannot be used", str(error))

    @app.exception_handler(NotFound)
    def missing(request: Request, error: NotFound) -> Response:
        detail = f"There is no {error.what} “{error.name[:60]}” here; it may have been deleted."
        return problem(request, 404, "Not found", detail)

    @app.exception_handler(Refused)
    def refused(request: Request, error: Refused) -> Response:
        return problem(request, 422, "This cannot be taken", f"{error}. Go back and correct it; nothing was saved.")

    @app.exception_handler(StaleEdit)
    def stale(request: Request, error: StaleEdit) -> Response:
        fields = "; ".join(f"{k}: {theirs} there, {mine} here" for k, (theirs, mine) in error.differences.items())
        return problem(request, 409, "Changed meanwhile", f"{error} ({fields}). Open it again, then change it.")

    @app.exception_handler(StillRunning)
    def still_running(request: Request, error: StillRunning) -> Response:
        if "text/html" in request.headers.get("accept", ""):
            return page(request, "yard/still_running.html", {"run": error.run, "refreshes": True}, status=202)
        return problem(request, 503, "Still being worked out", f"{error.run.title}: {error.run.words}. Ask again soon.")

    @app.exception_handler(Exception)
    def unexpected(request: Request, error: Exception) -> Response:
        # One number in the log and on the page, so that what a user tells us can be found.
        reference = uuid.uuid4().hex[:8]
        _LOG.error("fault %s at %s %s", reference, request.method, request.url.path, exc_info=error)
        detail = f"Nothing of this step was saved. Try again; if it comes back, tell us the number {reference}."
        return problem(request, 500, "Something went wrong in the program", detail)
