"""Asking another program over HTTP without trusting it: so many bytes and so much time in all, whatever it sends."""

import ssl
from collections.abc import Mapping
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import cache

import anyio
import httpx2

RETRY_AFTER_S = (0.3, 1.0)
"""Pauses before what was not reached, or failed on its own side, is asked again."""


class NoAnswer(Exception):
    """The other side was not reached, refused, sent too much or took too long; the message says which."""


class _Passing(NoAnswer):
    """What may be otherwise a moment later."""


@dataclass(frozen=True)
class HttpAnswer:
    """`etag`: by what name the other side knows this body; `unchanged`: it is the one of the name that was sent."""

    body: bytes
    etag: str = ""
    unchanged: bool = False


def fetch(
    address: str,
    query: Mapping[str, str | float],
    *,
    connect_s: float,
    total_s: float,
    most_bytes: int,
    etag: str = "",
) -> HttpAnswer:
    """The answer to GET `address`; `etag` names the one already held. Raises NoAnswer.

    `total_s` holds for everything together: a byte a second does not keep a page waiting. Redirects are not followed:
    the configured address is the only one that is asked.
    """
    asked = _Connection(address, dict(query), connect_s, total_s, most_bytes, {"if-none-match": etag} if etag else {})
    # In a thread of its own: whoever asks may have an event loop running.
    with ThreadPoolExecutor(1) as aside:
        return aside.submit(anyio.run, asked.until_answered).result()


@cache
def _trusted() -> ssl.SSLContext:
    """Whose certificates are believed: reading them takes longer than asking a service near by."""
    return httpx2.create_ssl_context(trust_env=False)


@dataclass(frozen=True)
class _Connection:
    address: str
    query: dict[str, str | float]
    connect_s: float
    total_s: float
    most_bytes: int
    headers: dict[str, str]

    async def until_answered(self) -> HttpAnswer:
        try:
            with anyio.fail_after(self.total_s):
                for pause in RETRY_AFTER_S:
                    try:
                        return await self._once()
                    except _Passing:
                        await anyio.sleep(pause)
                return await self._once()
        except TimeoutError as error:
            raise NoAnswer(f"did not answer within {self.total_s:g} s") from error

    async def _once(self) -> HttpAnswer:
        timeout = httpx2.Timeout(self.total_s, connect=min(self.connect_s, self.total_s))
        body = bytearray()
        # Proxies of the environment are for the outside; the configured address is used as it stands.
        client = httpx2.AsyncClient(timeout=timeout, trust_env=False, verify=_trusted())
        try:
            async with (
                client,
                client.stream("GET", self.address, params=self.query or None, headers=self.headers) as answer,
            ):
                if answer.status_code == httpx2.codes.NOT_MODIFIED:
                    return HttpAnswer(b"", self.headers.get("if-none-match", ""), unchanged=True)
                if answer.is_redirect:
                    raise NoAnswer("sends elsewhere, which is not followed: set the address it sends to")
                answer.raise_for_status()
                async for piece in answer.aiter_bytes():
                    body += piece
                    if len(body) > self.most_bytes:
                        raise NoAnswer(f"sent more than {self.most_bytes // 1_000_000} MB")
                return HttpAnswer(bytes(body), answer.headers.get("etag", "")[:200])
        except httpx2.HTTPStatusError as error:
            failed = _Passing if error.response.is_server_error else NoAnswer
            raise failed(f"did not answer as asked (HTTP {error.response.status_code})") from error
        except httpx2.TransportError as error:
            raise _Passing(f"did not answer ({type(error).__name__})") from error
        except (httpx2.HTTPError, httpx2.InvalidURL) as error:
            raise NoAnswer(f"did not answer ({type(error).__name__})") from error
