"""Scripts, styles and fonts as they are sent: under an address that tells what is in them, a browser keeps them for
good and still never shows those of an older version."""

import hashlib
import os
from functools import cache
from pathlib import Path

from starlette.responses import Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

_FOLDER = Path(__file__).parent / "static"
_KEPT, _ASKED_AGAIN = "public, max-age=31536000, immutable", "no-cache"


@cache
def shipped_at() -> str:
    """Where pages find them. It changes with any of the files, and what one of them loads from beside it comes with it;
    they do not change while the program runs."""
    out = hashlib.sha256()
    for path in sorted(p for p in _FOLDER.rglob("*") if p.is_file()):
        out.update(path.relative_to(_FOLDER).as_posix().encode() + b"\0" + path.read_bytes())
    return f"/static/as-{out.hexdigest()[:12]}"


class Shipped(StaticFiles):
    """To be mounted at /static. A page of an older version that is still open gets today's files, and does not keep
    them."""

    def __init__(self) -> None:
        super().__init__(directory=_FOLDER)

    async def get_response(self, path: str, scope: Scope) -> Response:
        version, _, rest = path.partition(os.sep)
        versioned = version.startswith("as-")
        answer = await super().get_response(rest if versioned else path, scope)
        answer.headers["cache-control"] = _KEPT if version == shipped_at().rpartition("/")[2] else _ASKED_AGAIN
        return answer
