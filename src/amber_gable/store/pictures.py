"""The pictures of photos: files beside the database, each under the digest of its bytes, so that one is stored once and
is never written over. None is deleted: a deleted photo can be brought back."""

import hashlib
import os
from pathlib import Path

from amber_gable.domain.errors import InputError


class Pictures:
    """The folder `NAME.photos` of a database `NAME.sqlite3`."""

    def __init__(self, database: Path) -> None:
        self.folder = database.with_suffix(".photos")

    def path(self, sha256: str) -> Path:
        return self.folder / sha256[:2] / f"{sha256}.jpg"

    def is_there(self, sha256: str) -> bool:
        return self.path(sha256).exists()

    def put(self, data: bytes) -> None:
        """Store a picture, on the disk when this returns. A row may name it only after that."""
        path = self.path(hashlib.sha256(data).hexdigest())
        if path.exists() and path.stat().st_size == len(data):
            return
        path.parent.mkdir(parents=True, exist_ok=True)
        part = path.with_suffix(f".{os.getpid()}.part")
        with part.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        part.replace(path)
        folder = os.open(path.parent, os.O_RDONLY)
        try:
            os.fsync(folder)
        finally:
            os.close(folder)

    def get(self, sha256: str, name: str) -> bytes:
        """Raises InputError where the file is not there, or holds other bytes than were stored; `name` is the
        photo's."""
        try:
            data = self.path(sha256).read_bytes()
        except OSError:
            raise self._fault(name, "is not beside the database") from None
        if hashlib.sha256(data).hexdigest() != sha256:
            raise self._fault(name, "is damaged")
        return data

    def _fault(self, name: str, fault: str) -> InputError:
        where = f"the folder {self.folder.name}"
        return InputError(f"photo '{name}'", f"its picture {fault}", f"put {where} back from a backup, or delete it")
