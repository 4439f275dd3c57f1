"""Which can a coat comes from, and what is to be known before it is mixed."""

import pytest

from amber_gable.services.context import Context
from amber_gable.services.job.view import job_view
from amber_gable.services.quantities.quantities import kept_quantities
from amber_gable.services.today.cans import Cans, _mixing

PAILS = [18.9, 18.9, 3.8]
"""The two pails are poured together (37.8 L of at most 40), the can is a box of its own."""


@pytest.mark.parametrize(
    ("begins", "ends", "words"),
    [
        (0.0, 12.0, ""),
        (18.0, 37.7, ""),
        (30.0, 39.0, "its box ends within this work"),
        (37.9, 41.5, ""),
        (37.9, 44.0, "2.4 L short of this"),
        (0.0, 41.61, "0.1 L short of this"),
    ],
)
def test_a_box_that_ends_within_the_work_and_paint_that_will_not_do_are_said_before(
    begins: float, ends: float, words: str
) -> None:
    said = _mixing(PAILS, begins, ends)
    assert (words in said) if words else not said


def test_the_cans_of_a_plan_follow_one_another(ctx: Context) -> None:
    view = job_view(ctx, "coopers-rise")
    cans = Cans(view)
    assert view.board is not None
    told = [(s.task, cans.of(s.task)) for s in view.board.open if s.task.product == "skerry-housecoat"]
    bought = next(o for o in kept_quantities(view).orders if o.product.code == "skerry-housecoat")
    count = sum(n for _, n in bought.purchase.items)
    assert told and told[0][1].startswith(f"can 1 of {count} (18.9 L)")
    numbers = [int(words.split()[1]) for _, words in told]
    assert numbers == sorted(numbers) and numbers[-1] > 1
    assert not any("short" in words for _, words in told), "enough was bought for what is planned"
