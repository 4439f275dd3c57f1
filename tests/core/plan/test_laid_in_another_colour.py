"""A coat that was laid in another colour counts for what it is: a ground in its own colour."""

import pytest

from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.state.progress import laid_films
from amber_gable.core.work.steps import steps_of
from amber_gable.domain.job.job import JobBundle
from tests.site_cases import SIDING, at, state_of, wall

WHITE, BLACK, CREAM, YELLOW = "#f4f1ea", "#1b1c1e", "#efe8d8", "#f2c230"
PREPARED = ("done", "wash scrape prime caulk", at(-6, "09:00"))


def _wall(new: str, *coats: tuple[str, str], **more: float) -> JobBundle:
    """The siding that is to be `new`, with coats laid in their colours, (step, colour)."""
    lines = [
        ("done", step, at(-2, f"{9 + 6 * n:02d}:00"), {"colour": colour, **more})
        for n, (step, colour) in enumerate(coats)
    ]
    bundle = wall(PREPARED, *lines)
    finish = bundle.job.finishes[0].model_copy(update={"colour": new})
    return bundle.model_copy(update={"job": bundle.job.model_copy(update={"finishes": (finish,)})})


def _coats(bundle: JobBundle) -> list[str]:
    found = (o for o in steps_of(bundle, bundle.job.finishes[0]) if o.id.startswith("coat"))
    return [o.id.rpartition("-")[0] if "over" in o.id else o.id for o in found]


@pytest.mark.parametrize(
    ("new", "coats", "steps"),
    [
        # In its own colour a coat is a coat.
        (WHITE, [("coat-1", WHITE)], ["coat-1", "coat-2"]),
        # Near-black hides white in two: the one that is left is not enough.
        (BLACK, [("coat-1", WHITE)], ["coat-1", "coat-1-over-1", "coat-2"]),
        (BLACK, [("coat-1", WHITE), ("coat-2", WHITE)], ["coat-1", "coat-2", "coat-2-over-1", "coat-2-over-2"]),
        # A near white over another: the coat that is left hides it.
        (WHITE, [("coat-1", CREAM)], ["coat-1", "coat-2"]),
        # One black coat over it is not enough: the one that is missing comes on top.
        (BLACK, [("coat-1", WHITE), ("coat-2", BLACK)], ["coat-1", "coat-2", "coat-2-over-1"]),
        # A clean yellow lets 28 % through: after three coats 2 % of the black is left, which nobody sees.
        (YELLOW, [("coat-1", BLACK)], ["coat-1", "coat-1-over-1", "coat-1-over-2", "coat-2"]),
    ],
)
def test_as_many_coats_more_as_hide_it(new: str, coats: list[tuple[str, str]], steps: list[str]) -> None:
    assert _coats(_wall(new, *coats)) == steps


def test_plan_hours_and_state_take_the_coat_more() -> None:
    before, bundle = _wall(WHITE, ("coat-1", WHITE)), _wall(BLACK, ("coat-1", WHITE))
    (cell,) = state_of(bundle, at(0, "10:00")).parts[SIDING].cells
    assert cell.next is not None and cell.next.first.name == "First coat in the new colour"
    assert [o.id for o in cell.cell.open][-1] == "coat-2"
    (laid,) = laid_films([cell.cell])
    assert (laid.films, laid.of, laid.colour) == (1, 2, WHITE), "what stands is one coat, and it is white"
    more = job_estimate(bundle).hours.hours - job_estimate(before).hours.hours
    coat = next(x for x in job_estimate(before).hours.lines if x.operation and x.operation.id == "coat-2")
    assert more >= coat.hours > 0


def test_only_the_stretch_that_was_laid_so_gets_it() -> None:
    bundle = _wall(BLACK, ("coat-1", WHITE), right=0.5)
    left, right = state_of(bundle, at(0, "10:00")).parts[SIDING].cells
    assert left.cell.open[0].id.startswith("coat-1-over-1")
    assert not any("over" in o.id for o in right.cell.operations)
