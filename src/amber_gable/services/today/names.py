"""Who works here: the names that a person is picked from."""

from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.people import unnamed
from amber_gable.services.context import Context
from amber_gable.services.today.noting import SOMEBODY
from amber_gable.store.company.crews import hands_of


def known_names(ctx: Context, bundle: JobBundle) -> list[str]:
    """The people of the job's crew who have a name, and everybody who noted something, by name."""
    with ctx.reading() as session:
        hands = hands_of(session, bundle.job.id)
    nameless = {p.name for p in unnamed(len(hands))} | {SOMEBODY}
    job = bundle.job
    noted = {e.by for e in job.record} | {s.by for s in job.spoiled} | {r.by for r in job.rained}
    return sorted(({p.name for p in hands} | noted) - nameless)
