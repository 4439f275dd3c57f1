"""A real server on a free loopback port, for tests that need HTTP."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager

import uvicorn
from fastapi import FastAPI


class _Server(uvicorn.Server):
    """Tells when it answers, and where."""

    def __init__(self, config: uvicorn.Config) -> None:
        super().__init__(config)
        self.answers = threading.Event()

    async def startup(self, sockets: list[object] | None = None) -> None:  # type: ignore[override]
        await super().startup(sockets)  # type: ignore[arg-type]
        self.answers.set()


@contextmanager
def running(app: FastAPI) -> Iterator[str]:
    server = _Server(uvicorn.Config(app, host="127.0.0.1", port=0, log_level="warning"))
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        assert server.answers.wait(60), "the server did not start"
        port = server.servers[0].sockets[0].getsockname()[1]
        yield f"http://127.0.0.1:{port}"
    finally:
        server.should_exit = True
        thread.join(60)
