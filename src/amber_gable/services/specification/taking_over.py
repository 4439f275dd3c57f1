"""What the company has changed since a job was specified: offered to the job, taken over only when somebody says so."""

from collections.abc import Collection
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from amber_gable.services.context import Context
from amber_gable.services.job.undo import job_step
from amber_gable.services.specification.specifying import Changed, derived_anew
from amber_gable.store.company.sheets import Newer
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.specification import newer_than_pinned, take_over


@dataclass(frozen=True)
class SheetOffer:
    """A product whose sheet is another in the stores by now: fields as (then, now), and when it was changed."""

    code: str
    name: str
    changed_at: datetime
    differences: dict[str, tuple[Any, Any]]


@dataclass(frozen=True)
class Offers:
    sheets: tuple[SheetOffer, ...]
    settings: dict[str, tuple[Any, Any]]

    def __bool__(self) -> bool:
        return bool(self.sheets or self.settings)


def offers(ctx: Context, job_id: str) -> Offers:
    """Raises NotFound."""
    with ctx.reading() as session:
        company = load_bundle(session, job_id).company.id
        kept, key = session.kept, ("offers", job_id)
        found: Offers | None = kept.find(session, key)
        if found is not None:
            return found

        def read() -> Offers:
            sheets, settings = newer_than_pinned(session, job_id)
            return Offers(tuple(_offer(n) for n in sheets), settings)

        return kept.read(session, key, (f"job:{job_id}", f"company:{company}", f"sheets:{company}"), read)


def _offer(newer: Newer) -> SheetOffer:
    then, now = newer.then.model_dump(mode="json"), newer.now.model_dump(mode="json")
    differences = {k: (then[k], now[k]) for k in then if then[k] != now[k]}
    return SheetOffer(newer.code, newer.now.name, datetime.fromtimestamp(newer.changed_at, UTC), differences)


def take_newer(ctx: Context, job_id: str, codes: Collection[str], *, settings: bool = False) -> list[Changed]:
    """Let the job read the stores' present sheets of these products and the company's present settings, and derive it
    anew. Raises NotFound."""
    with job_step(ctx, job_id, "take over what the company changed") as session:
        take_over(session, job_id, codes, settings=settings)
        return derived_anew(session, load_bundle(session, job_id))
