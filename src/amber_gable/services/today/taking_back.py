"""A touch taken back, or said to have been at another moment. Nothing of the record is rubbed out."""

import uuid
from collections.abc import Sequence

from amber_gable.domain.errors import NotFound, Refused
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import CanNoted, Missing, Rained, Said, SiteEntry, Spoiled, standing, withdrawn
from amber_gable.services.context import Context
from amber_gable.services.forms.types import moment
from amber_gable.services.today.noting import AHEAD, signed
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.site_record import append


def move_touch(ctx: Context, job_id: str, touch: str, typed: str, by: str) -> str:
    """Say that what was noted in a touch was so at another moment, on the house's clock unless it says otherwise: it is
    taken back, and entered anew with that. Returns the new touch. Raises NotFound, and Refused for what is no moment or
    is still to come."""
    try:
        at = moment(typed)
    except ValueError as error:
        raise Refused({"at": str(error)}) from None
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        at = at if at.tzinfo is not None else at.replace(tzinfo=bundle.property.tz)
        if at > ctx.now + AHEAD:
            raise Refused({"at": "that is still to come: give the time at which it was so"})
        entries = [e for e in standing(bundle.job.record) if e.touch == touch]
        if not entries:
            raise NotFound("entry", touch)
        if all(e.at == at for e in entries):
            return touch
        new = uuid.uuid4().hex
        fresh = {"touch": new, "at": at, "noted": ctx.now}
        again = [e.model_copy(update={**fresh, "id": uuid.uuid4().hex}) for e in entries]
        append(session, job_id, [_withdrawal(ctx, touch, by), *again])
    return new


def _taken_back_of(bundle: JobBundle) -> tuple[Sequence[SiteEntry | Spoiled | Rained | CanNoted | Missing], ...]:
    """The lines of the record that a touch may be taken back of."""
    return bundle.job.record, bundle.job.spoiled, bundle.job.rained, bundle.job.cans_noted, bundle.job.missing


def take_back(ctx: Context, job_id: str, touch: str, by: str) -> None:
    """Take a touch back; taking that back too lets it stand again. Raises NotFound."""
    with ctx.writing() as session:
        bundle = load_bundle(session, job_id)
        known = {line.touch for lines in _taken_back_of(bundle) for line in lines}
        if touch not in known:
            raise NotFound("entry", touch)
        if touch in withdrawn(bundle.job.record):
            return
        append(session, job_id, [_withdrawal(ctx, touch, by)])


def _withdrawal(ctx: Context, touch: str, by: str) -> SiteEntry:
    return SiteEntry(
        id=uuid.uuid4().hex,
        touch=uuid.uuid4().hex,
        at=ctx.now,
        noted=ctx.now,
        by=signed(by),
        said=Said.TAKEN_BACK,
        takes_back=touch,
    )
