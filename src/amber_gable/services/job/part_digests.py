"""What the rules read of each part of a job, as a key for what is worked out part by part: an edit works out anew only
what it touches."""

from amber_gable.core.survey.amounts.painted import Key, painted_parts
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.finish import Finish
from amber_gable.domain.work.scope import LeftPart
from amber_gable.services.context import Context
from amber_gable.services.workspace import digest


def part_digests(ctx: Context, bundle: JobBundle) -> dict[Key, str]:
    """A part's own survey and finish, those of its face, the house, the schools, the pace and the job's
    sheets."""
    return ctx.space.parts.get("parts" + digest(bundle), lambda: _each(bundle))


def _each(bundle: JobBundle) -> dict[Key, str]:
    place = bundle.property
    house = (place.year_built, place.lead_found, place.time_zone, bundle.company.lead_cutoff_year)
    pace = (
        bundle.company.rates,
        bundle.company.factors,
        bundle.job.crew.people,
        bundle.job.crew.skill,
        bundle.job.estimating,
    )
    common = digest(*house, sorted(bundle.schools.items()), pace, *bundle.products)
    # What is done once for a face depends on what else is worked on there.
    on_face: dict[str, list[Finish | LeftPart]] = {f.id: [] for f in place.faces}
    decided: list[Finish | LeftPart] = [*bundle.job.finishes, *bundle.job.left]
    for other in decided:
        found = place.part(other.part)
        if found is not None:
            on_face[found.face].append(other)
    faces = {f.id: digest(f, *place.zones_of(f.id), *place.items_of(f.id), *on_face[f.id]) for f in place.faces}
    out = {}
    for key, part in painted_parts(place, bundle.deduction).items():
        finish = bundle.finish_of(*key)
        steps = bundle.systems if finish is not None and finish.system is not None else ()
        out[key] = digest(common, faces[part.face.id], key, finish, *steps)
    return out
