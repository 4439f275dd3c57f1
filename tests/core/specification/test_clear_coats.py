"""A clear coat has no colour: the wood beneath stays what the sun meets, and it is bought as clear."""

import pytest

from amber_gable.core.climate.job_climate import site_surfaces
from amber_gable.core.estimate.estimate import job_orders
from amber_gable.core.specification.colour.heat_check import Wanted
from amber_gable.core.specification.derived.completing import completed
from amber_gable.core.specification.derived.part_facts import part_facts
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.work.record import job_work
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.aims import Aim
from amber_gable.domain.work.finish import CLEAR_COLOUR, coat_colour
from tests.jobs import demo_job, demo_products

BLACK = "#101010"
BOARDS = ("zone", "deck-boards")


def _deck(aim: Aim) -> JobBundle:
    """The demo deck's boards asked for in black, derived with what the stores hold."""
    raw = demo_job("4-heron-deck").model_dump(mode="json")
    raw["products"] = [p.model_dump(mode="json") for p in demo_products()]
    raw["job"]["finishes"] = [{"zone": "deck-boards", "colour": BLACK, "aim": aim.value}]
    return completed(JobBundle.model_validate(raw))


@pytest.mark.parametrize(("aim", "clear"), [(Aim.CLEAR, True), (Aim.SOLID_STAIN, False)])
def test_a_coat_that_shows_the_wood_takes_no_colour(aim: Aim, clear: bool) -> None:
    bundle = _deck(aim)
    finish = bundle.finish_of(*BOARDS)
    assert finish is not None
    coat = next(o for o in bundle.operations(finish) if o.id == "coat-1")
    product = bundle.product(coat.product or "")
    assert product.clear is clear
    colour = coat_colour(coat, product, finish.colour)
    assert colour == (CLEAR_COLOUR if clear else BLACK)
    assert {o.colour for o in job_orders(bundle, job_work(bundle)) if o.product.code == product.code} == {colour}
    rows, _ = site_surfaces(bundle)
    assert ((BOARDS, colour, None) in rows) is not clear, "what has no row is judged in the present colour"
    part = painted_parts(bundle.property, bundle.deduction)[BOARDS]
    wanted = Wanted(part, BLACK, product=product)
    assert (wanted.absorbed_then == wanted.absorbed_now) is clear
    told = {f: part_facts(bundle, part, BLACK, aim).get(f) for f in ("dark_colour", "colour_changes")}
    assert told == {"dark_colour": not clear, "colour_changes": not clear}
