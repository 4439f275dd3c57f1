"""Recording who read the safety cards of a job."""

from pydantic import ValidationError

from amber_gable.core.specification.cautions.safety import BY_ID, job_cards
from amber_gable.domain.errors import Refused
from amber_gable.domain.job.job import Acknowledgement
from amber_gable.services.context import Context
from amber_gable.services.job.undo import job_step
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.specification import put_acknowledged


def acknowledge(ctx: Context, job_id: str, by: str, card: str = "") -> None:
    """Note that `by` read a card, or without one all cards of the job not read yet. Raises Refused or NotFound."""
    with job_step(ctx, job_id, "note who read the safety cards") as session:
        bundle = load_bundle(session, job_id)
        held = {a.card: a for a in bundle.job.acknowledged}
        if card and card not in BY_ID:
            raise Refused({"card": f"there is no safety card '{card}'"})
        wanted = [card] if card else [c.id for c in job_cards(bundle) if c.id not in held]
        now = ctx.now
        try:
            held |= {c: Acknowledgement(card=c, by=by.strip(), at=now) for c in wanted}
        except ValidationError:
            raise Refused({"by": "write the name of the person who read them, at least two letters"}) from None
        put_acknowledged(session, job_id, held.values())
