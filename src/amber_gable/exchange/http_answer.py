"""Asking another program over HTTP without trusting it: so many bytes and so much time in all, whatever it sends."""

from collections.abc import Mapping
from concurrent.futures import ThreadPoolExecutor

import anyio
import httpx2


class NoAnswer(Exception):
    """The other side was not reached, refused, sent too much or took too long; the message says which."""


def fetch(
    address: str, query: Mapping[str, str | float], *, connect_s: float, total_s: float, most_bytes: int
) -> bytes:
    """The body of the answer to GET `address`. Raises NoAnswer.

    `total_s` holds for everything together: a byte a second does not keep a page waiting.
    """
    # In a thread of its own: whoever asks may have an event loop running.
    with ThreadPoolExecutor(1) as aside:
        return aside.submit(anyio.run, _fetch, address, query, connect_s, total_s, most_bytes).result()


async def _fetch(
    address: str, query: Mapping[str, str | float], connect_s: float, total_s: float, most_bytes: int
) -> bytes:
    timeout = httpx2.Timeout(total_s, connect=min(connect_s, total_s))
    body = bytearray()
    # Proxies of the environment are for the outside; the configured address is used as it stands.
    client = httpx2.AsyncClient(timeout=timeout, trust_env=False)
    try:
        with anyio.fail_after(total_s):
            async with client, client.stream("GET", address, params=dict(query)) as answer:
                answer.raise_for_status()
                async for piece in answer.aiter_bytes():
                    body += piece
                    if len(body) > most_bytes:
                        raise NoAnswer(f"sent more than {most_bytes // 1_000_000} MB")
    except TimeoutError as error:
        raise NoAnswer(f"did not answer within {total_s:g} s") from error
    except httpx2.HTTPStatusError as error:
        raise NoAnswer(f"did not answer as asked (HTTP {error.response.status_code})") from error
    except (httpx2.HTTPError, httpx2.InvalidURL) as error:
        raise NoAnswer(f"did not answer ({type(error).__name__})") from error
    return bytes(body)
