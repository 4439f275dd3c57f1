"""The steps of a part as they are to be done now: those of its finish, those that mend its spoiled films, and coats
that hide a film which was laid in another colour than the part gets."""

import weakref
from collections.abc import Iterator, Sequence

from amber_gable.core.specification.colour.hiding import coats_to_hide, hiding_power
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import Said, SiteEntry, standing
from amber_gable.domain.work.finish import Finish, coat_colour
from amber_gable.domain.work.mending import Mend, mends
from amber_gable.domain.work.operation import Operation, OperationKind

Steps = tuple[Operation, ...]
_LATELY: dict[int, tuple[weakref.ref[JobBundle], dict[tuple[str, str], Steps]]] = {}
"""Steps by part, by `id()` of their job. An entry is removed when its job is freed."""


def steps_of(bundle: JobBundle, finish: Finish) -> Steps:
    """Worked out once for each job object; the steps of a finish that is not the job's own follow its record too."""
    if not bundle.job.record and not bundle.job.spoiled:
        return bundle.operations(finish)
    mine = id(bundle)
    held = _LATELY.get(mine)
    if held is None or held[0]() is not bundle:
        record = standing(bundle.job.record)
        each = {f.part: _steps(bundle, f, record) for f in bundle.job.finishes}
        held = (weakref.ref(bundle, lambda gone: _forget(mine, gone)), each)
        _LATELY[mine] = held
    known = held[1].get(finish.part)
    if known is not None and bundle.finish_of(*finish.part) is finish:
        return known
    return _steps(bundle, finish, standing(bundle.job.record))


def _forget(mine: int, gone: weakref.ref[JobBundle]) -> None:
    """Unless a newer job has taken the place of the one that is gone."""
    held = _LATELY.get(mine)
    if held is not None and held[0] is gone:
        del _LATELY[mine]


def _steps(bundle: JobBundle, finish: Finish, record: Sequence[SiteEntry]) -> Steps:
    out = bundle.operations(finish)
    for over in _hiding(bundle, finish, out, record):
        at = next(n for n, o in enumerate(out) if o.id == over[0])
        out = (*out[: at + 1], *over[1], *out[at + 1 :])
    for spoiled in bundle.spoils:
        film = next((n for n, o in enumerate(out) if o.id == spoiled.step), None)
        product = out[film].product if film is not None else None
        if finish.part in spoiled.extent.parts and film is not None and product is not None:
            out = (*out[: film + 1], *mends(spoiled, out, bundle.product(product)), *out[film + 1 :])
    return out


def _hiding(
    bundle: JobBundle, finish: Finish, operations: Sequence[Operation], record: Sequence[SiteEntry]
) -> Iterator[tuple[str, list[Mend]]]:
    """For each stretch whose last coat in another colour is not hidden by those that follow it: that coat, and so many
    more as hide it. A film counts for what it is: a ground in its own colour."""
    coats = [o for o in operations if o.kind is OperationKind.COAT and not o.possible]
    for entry in _in_another_colour(bundle, finish, coats, record):
        film = next(o for o in coats if o.id in entry.steps)
        assert film.product is not None and entry.colour is not None and entry.extent is not None
        product = bundle.product(film.product)
        colour = coat_colour(film, product, finish.colour)
        power = product.contrast or hiding_power(colour).value
        more = coats_to_hide(entry.colour, colour, power) - len(coats[coats.index(film) + 1 :])
        # They come on top of what was laid since.
        laid = {step for e in record if _over_it(e, entry, finish) for step in e.steps}
        top = next(o for o in reversed(coats) if o.id in laid)
        yield top.id, [_over(top, entry, n) for n in range(1, more + 1)]


def _in_another_colour(
    bundle: JobBundle, finish: Finish, coats: Sequence[Operation], record: Sequence[SiteEntry]
) -> list[SiteEntry]:
    """The entries of the topmost coat that was laid in another colour than it is to have now."""
    by_id = {o.id: n for n, o in enumerate(coats)}
    found: dict[int, list[SiteEntry]] = {}
    for entry in record:
        if entry.said not in (Said.DONE, Said.PART_DONE) or entry.colour is None or entry.extent is None:
            continue
        film = next((by_id[s] for s in entry.steps if s in by_id), None)
        if film is None or finish.part not in entry.extent.parts:
            continue
        product = bundle.product(coats[film].product or "")
        if entry.colour != coat_colour(coats[film], product, finish.colour):
            found.setdefault(film, []).append(entry)
    return found[max(found)] if found else []


def _over_it(entry: SiteEntry, other: SiteEntry, finish: Finish) -> bool:
    """Whether an entry says that something was done on the stretch of another."""
    mine, its = entry.extent, other.extent
    if entry.said not in (Said.DONE, Said.PART_DONE) or mine is None or its is None:
        return False
    return finish.part in mine.parts and mine.overlaps(its.left, its.right)


def _over(film: Operation, entry: SiteEntry, number: int) -> Mend:
    extent = entry.extent
    assert extent is not None, "an entry of work has its extent"
    reach = extent.right - extent.left
    right = extent.left + reach * entry.how_far if entry.how_far and len(extent.parts) == 1 else extent.right
    return Mend.model_validate(
        film.model_dump()
        | {
            "id": f"{film.id[:40]}-over-{number}-{entry.touch[:8]}", "name": f"{film.name} in the new colour",
            "because": "it was laid in another colour, which would show through", "bare": False,
            "left": extent.left, "right": right, "mends": entry.touch,
        }
    )  # fmt: skip
