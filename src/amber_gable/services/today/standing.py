"""How far each part has come by the record alone: no weather is asked."""

from dataclasses import dataclass

from amber_gable.core.state.progress import Laid, cells, laid_films, progress, share_behind
from amber_gable.core.survey.painted import Key
from amber_gable.domain.job import JobBundle


@dataclass(frozen=True)
class Standing:
    """`share` of a part's steps that is behind, 0 to 1, and the films that stand on it."""

    share: float
    laid: tuple[Laid, ...]


def standings(bundle: JobBundle) -> dict[Key, Standing]:
    """Of every finished part; empty where nothing was noted yet."""
    found = progress(bundle.job.record)
    if not found:
        return {}
    out = {}
    for finish in bundle.job.finishes:
        operations = bundle.operations(finish)
        pieces = cells(finish.part, operations, found)
        out[finish.part] = Standing(share_behind(operations, pieces), tuple(laid_films(operations, pieces)))
    return out
