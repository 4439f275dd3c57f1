"""A database session: it reads at one moment or writes one set of changes, and remembers what it has read."""

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from sqlalchemy import Engine
from sqlalchemy.orm import Session

if TYPE_CHECKING:
    from amber_gable.store.job.recorder import Recorder
    from amber_gable.store.kept import Entry, Kept, Key
    from amber_gable.store.pictures import Pictures


class Transaction(Session):
    """`by` is who asks; rows that are changed are stamped with it. `kept` holds what all transactions share, `pictures`
    the files beside the database, `fresh` what one that writes has read of its own changes (None in one that only
    reads). The other attributes are read once a transaction: change numbers by scope, rows by table and key, positions
    of parts by table and property, and rows of companies and finishes by job."""

    def __init__(self, bind: Engine, kept: "Kept", pictures: "Pictures", *, by: str = "", writes: bool = False) -> None:
        super().__init__(bind, autoflush=writes)
        self.kept, self.pictures, self.by = kept, pictures, by
        self.fresh: dict[Key, Entry] | None = {} if writes else None
        self.numbers: dict[str, int | None] = {}
        self.rows: dict[tuple[Any, Any], Any] = {}
        self.positions: dict[tuple[Any, str], dict[str, int]] = {}
        self.companies: dict[str, Any] = {}
        self.finishes: dict[str, dict[tuple[str, str], Any]] = {}
        self.recorder: Recorder | None = None
        self.when_committed: list[Callable[[], None]] = []

    @property
    def writes(self) -> bool:
        return self.fresh is not None
