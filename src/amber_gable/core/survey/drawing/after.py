"""The house as it will look when the work is done, with what is not painted."""

from amber_gable.core.survey.amounts.painted import Key
from amber_gable.domain.house.survey import Property
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.scope import Leaving


def colours_left(bundle: JobBundle) -> dict[Key, str]:
    """The colours that no scheme changes: of parts left as they are, and of what others put in place of one."""
    out = {}
    for left in bundle.job.left:
        part = bundle.property.part(left.part)
        if part is not None:
            out[left.part] = left.colour or part.colour_now
    return out


def house_after(bundle: JobBundle) -> Property:
    """The property without what is taken away for good."""
    gone = {x.item for x in bundle.job.left if x.leaving is Leaving.TAKEN_AWAY}
    if not gone:
        return bundle.property
    kept = tuple(i for i in bundle.property.items if i.id not in gone)
    return bundle.property.model_copy(update={"items": kept})
