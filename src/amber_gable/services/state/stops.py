"""What stops parts of a job, whatever the weather."""

from functools import partial

from amber_gable.core.specification.cautions.stops import Stop, gathered, part_stops, vinyl_stops
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.domain.job.job import JobBundle
from amber_gable.services.context import Context
from amber_gable.services.job.part_digests import part_digests
from amber_gable.services.workspace import digest


def kept_stops(ctx: Context, bundle: JobBundle) -> tuple[Stop, ...]:
    """What stops parts of the job, part by part; computed once per change of what it reads."""

    def each() -> tuple[Stop, ...]:
        parts, read = painted_parts(bundle.property, bundle.deduction), part_digests(ctx, bundle)
        found = {
            f.part: ctx.space.parts.get("stops" + read[f.part], partial(part_stops, bundle, parts[f.part], f))
            for f in bundle.job.finishes
        }
        return tuple(s for stops in gathered(found, vinyl_stops(bundle)).values() for s in stops)

    return ctx.space.parts.get("stops-of-all" + digest(bundle), each)
