"""What is done once for a face moves to another of its parts when the part that had it is left as it is."""

from amber_gable.services.context import Context
from amber_gable.services.job.undo import undo_step
from amber_gable.services.specification.leaving import leave_part
from amber_gable.services.specification.specifying import change_wish
from amber_gable.store.job.jobs import load_bundle
from amber_gable.store.job.specification import finish_versions

JOB = "coopers-rise"
SIDING, TRIM = ("zone", "west-gable-siding"), ("zone", "west-gable-trim")


def _roles(ctx: Context, key: tuple[str, str]) -> set[str]:
    with ctx.reading() as session:
        bundle = load_bundle(session, JOB)
    finish = bundle.finish_of(*key)
    return set() if finish is None else {o.id for o in bundle.operations(finish)}


def _version(ctx: Context, key: tuple[str, str]) -> int:
    with ctx.reading() as session:
        return finish_versions(session, JOB).get(key, 0)


def test_containment_goes_to_the_next_part_that_is_worked_on_and_back(ctx: Context) -> None:
    assert "contain" in _roles(ctx, SIDING) and "contain" not in _roles(ctx, TRIM)
    leave_part(ctx, JOB, SIDING, _version(ctx, SIDING), {})
    assert _roles(ctx, SIDING) == set()
    assert {"contain", "daily-clean", "final-check"} <= _roles(ctx, TRIM), "the trim is sanded: it is contained now"
    change_wish(ctx, JOB, SIDING, _version(ctx, SIDING), lambda wish, _: wish)
    assert "contain" in _roles(ctx, SIDING) and "contain" not in _roles(ctx, TRIM)


def test_it_moves_in_one_step_that_is_taken_back_in_one(ctx: Context) -> None:
    before = _roles(ctx, SIDING), _roles(ctx, TRIM)
    leave_part(ctx, JOB, SIDING, _version(ctx, SIDING), {})
    assert (_roles(ctx, SIDING), _roles(ctx, TRIM)) != before
    assert undo_step(ctx, JOB)
    assert (_roles(ctx, SIDING), _roles(ctx, TRIM)) == before
