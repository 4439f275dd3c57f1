"""Which safety cards a piece of work calls up, and that what they forbid stays out."""

import pytest

from amber_gable.core.spec.safety import CARDS, LEAD_FORBIDS, Content, job_cards
from amber_gable.domain.operation import OperationKind as K
from amber_gable.domain.operation import Technique as T
from amber_gable.domain.product import Hazard
from amber_gable.domain.schools import Method
from tests.jobs import demo_job

CASES = [
    ("lead and washing", Content(kinds={K.WASH}, lead=True), {"lead"}),
    ("lead, coats only", Content(kinds={K.COAT}, lead=True), set()),
    ("airless", Content(methods={Method.AIRLESS}), {"injection", "spray"}),
    ("turbine", Content(methods={Method.TURBINE}), {"spray"}),
    ("roof and high wall", Content(roof=True, high=True), {"roof", "height"}),
    ("wires, sign", Content(wires=True), {"wires"}),
    ("sign lighting", Content(tags={"sign"}), {"wires"}),
    ("bleach", Content(techniques={T.BLEACH}), {"bleach"}),
    ("stripper and brightener", Content(techniques={T.STRIPPER, T.BRIGHTENER}), {"caustic", "bleach"}),
    ("jet", Content(techniques={T.PRESSURE_WASH}), {"jet"}),
    ("raking out render", Content(tags={"masonry"}, kinds={K.REPAIR}), {"silica"}),
    ("painting fibre cement", Content(tags={"fibre-cement"}, kinds={K.COAT}), {"sheets"}),
    ("painting render", Content(tags={"masonry"}, kinds={K.COAT}), set()),
    ("dry sanding", Content(techniques={T.POWER_SAND}, kinds={K.SAND}), {"dust"}),
    ("wet sanding", Content(techniques={T.WET_SAND}, kinds={K.SAND}), set()),
    ("oil paint", Content(hazards={Hazard.OILY_RAGS, Hazard.STRONG_FUMES}), {"rags", "fumes"}),
    ("hot day", Content(hottest_c=31.0, coldest_c=18.0), {"heat"}),
    ("cold day", Content(hottest_c=9.0, coldest_c=3.0), {"cold"}),
]


@pytest.mark.parametrize(("content", "cards"), [c[1:] for c in CASES], ids=[c[0] for c in CASES])
def test_the_cards_of_a_piece_of_work(content: Content, cards: set[str]) -> None:
    assert {c.id for c in CARDS if c.applies(content)} == cards


def test_every_card_is_reached_and_speaks() -> None:
    assert {c.id for c in CARDS} == set().union(*(c[2] for c in CASES))
    assert all(len(c.text) > 40 for c in CARDS)
    assert {T.POWER_SAND, T.PRESSURE_WASH, T.HEAT_GUN, T.OPEN_FLAME, T.SOLVENT_STRIPPER} <= set(LEAD_FORBIDS)


JOBS = [
    ("1-coopers-rise", {"lead", "height", "bleach"}, {"roof", "injection", "jet"}),
    ("2-net-loft", {"injection", "spray", "height", "silica"}, {"rags", "caustic"}),
    ("3-quarry-lane", {"jet", "roof"}, {"lead", "injection"}),
    ("4-heron-deck", {"caustic", "dust"}, {"lead", "height", "injection"}),
    ("5-feed-barn", {"roof", "injection", "jet"}, {"lead", "caustic"}),
]


@pytest.mark.parametrize(("job", "there", "absent"), JOBS, ids=[j[0] for j in JOBS])
def test_the_cards_of_the_demo_jobs(job: str, there: set[str], absent: set[str]) -> None:
    bundle = demo_job(job)
    found = {c.id for c in job_cards(bundle)}
    assert there <= found
    assert not absent & found
    forbidden = {t for c in job_cards(bundle) if c.id == "lead" for t in c.forbids}
    for finish in bundle.job.finishes:
        assert not {o.technique for o in bundle.operations(finish)} & forbidden
