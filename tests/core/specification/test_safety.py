"""Which safety cards a piece of work calls up, and that what they forbid stays out."""

import pytest

from amber_gable.core.specification.cautions.dangers import ASBESTOS_FORBIDS, DANGERS, LEAD_FORBIDS, SILICA_FORBIDS
from amber_gable.core.specification.cautions.safety import CARDS, Content, job_cards, part_cards
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.domain.paint.product import Hazard
from amber_gable.domain.units import UnitSystem, in_units
from amber_gable.domain.work.operation import Operation
from amber_gable.domain.work.operation import OperationKind as K
from amber_gable.domain.work.operation import Technique as T
from tests.jobs import demo_job

CASES = [
    ("lead and washing", Content(kinds={K.WASH}, lead=True), {"lead"}),
    ("lead and old caulk", Content(kinds={K.CAULK}, lead=True), {"lead"}),
    ("lead, coats only", Content(kinds={K.COAT}, lead=True), set()),
    ("airless", Content(techniques={T.SPRAY_ON}), {"injection", "spray"}),
    ("turbine", Content(techniques={T.AIR_SPRAY_ON}), {"spray"}),
    ("roof and high wall", Content(roof=True, high=True), {"roof", "height"}),
    ("wires, sign", Content(wires=True), {"wires"}),
    ("a stoop without its railing", Content(tags={"floor"}, open_edge=True), {"edge"}),
    ("sign lighting", Content(tags={"sign"}), {"wires"}),
    ("bleach", Content(techniques={T.BLEACH}), {"bleach"}),
    ("stripper and brightener", Content(techniques={T.STRIPPER, T.BRIGHTENER}), {"caustic", "acid"}),
    ("poultice on a wall", Content(techniques={T.POULTICE}), {"caustic"}),
    ("a caustic product of any family", Content(hazards={Hazard.CAUSTIC}), {"caustic"}),
    ("an irritant product", Content(hazards={Hazard.IRRITANT}), {"irritant"}),
    ("deglosser", Content(techniques={T.DEGLOSSER}), {"solvent"}),
    ("fungicide left on", Content(techniques={T.FUNGICIDE}), {"biocide"}),
    ("jet", Content(techniques={T.PRESSURE_WASH}), {"jet"}),
    ("raking out render", Content(tags={"masonry"}, kinds={K.REPAIR}), {"silica"}),
    ("dusting concrete", Content(tags={"masonry"}, kinds={K.DUST}), {"silica"}),
    ("scraping fibre cement", Content(tags={"fibre-cement"}, kinds={K.SCRAPE}), {"silica"}),
    ("painting an old cement sheet", Content(tags={"fibre-cement"}, kinds={K.COAT}, asbestos=True), {"asbestos"}),
    ("painting render", Content(tags={"masonry"}, kinds={K.COAT}), set()),
    ("dry sanding", Content(techniques={T.POWER_SAND}, kinds={K.SAND}), {"dust"}),
    ("wet sanding", Content(techniques={T.WET_SAND}, kinds={K.SAND}), set()),
    ("grinding stubs flush", Content(techniques={T.GRIND_METAL}), {"sparks"}),
    ("oil paint", Content(hazards={Hazard.OILY_RAGS, Hazard.STRONG_FUMES}), {"rags", "fumes"}),
    (
        "sanding an old treated deck",
        Content(techniques={T.HEPA_SAND}, kinds={K.SAND}, arsenic=True),
        {"arsenic", "dust"},
    ),
    ("hot air", Content(techniques={T.HEAT_GUN}, kinds={K.SCRAPE}), {"fire"}),
    ("hot day", Content(hottest_c=31.0, coldest_c=18.0), {"heat"}),
    ("cold day", Content(hottest_c=9.0, coldest_c=3.0), {"cold"}),
]


@pytest.mark.parametrize(("content", "cards"), [c[1:] for c in CASES], ids=[c[0] for c in CASES])
def test_the_cards_of_a_piece_of_work(content: Content, cards: set[str]) -> None:
    assert {c.id for c in CARDS if c.applies(content)} == cards


def test_every_card_is_reached_and_speaks() -> None:
    assert {c.id for c in CARDS} == set().union(*(c[2] for c in CASES))
    assert all(len(c.text) > 40 for c in CARDS)
    in_mil = [c.id for c in CARDS if " mil" in in_units(c.text, UnitSystem.US)]
    assert not in_mil, "lengths in µm become mil, a unit of film thickness"
    assert all(c.instead for c in CARDS if c.forbids), "what forbids says what to do instead"
    assert set(DANGERS) == set(T), "every technique's danger is known"
    assert {T.POWER_SAND, T.PRESSURE_WASH, T.HEAT_GUN, T.OPEN_FLAME, T.SOLVENT_STRIPPER} <= set(LEAD_FORBIDS)
    assert T.MILD_STRIPPER not in LEAD_FORBIDS, "what holds no methylene chloride may strip lead paint"
    assert {T.WIRE_BRUSH, T.CUT_OUT, T.BLOW_OFF, T.HAND_SAND} <= set(LEAD_FORBIDS)
    assert {T.WET_SCRAPE, T.WET_SAND, T.HEPA_SAND, T.DRILL, T.PRESSURE_WASH} <= set(ASBESTOS_FORBIDS)
    assert {T.RAKE_OUT, T.GRIND, T.POWER_SAND, T.BLOW_OFF} <= set(SILICA_FORBIDS)
    assert not {T.WET_SCRAPE, T.HEPA_GRIND, T.WET_RAKE_OUT, T.HEPA_VACUUM} & set(SILICA_FORBIDS)


JOBS = [
    ("1-coopers-rise", {"lead", "height", "bleach", "dust"}, {"roof", "injection", "jet"}),
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


def test_a_railing_that_is_taken_down_leaves_an_open_edge_on_its_deck_alone() -> None:
    bundle = demo_job("4")
    assert "edge" not in {c.id for c in job_cards(bundle)}
    off = Operation(id="take-down", name="Take the railing off", kind=K.FIT, technique=T.FIT)
    railing = next(i for i in bundle.property.items if i.spec.kind == "railing")
    finishes = tuple(
        f.model_copy(update={"operations": (off, *f.operations)}) if f.item == railing.id else f
        for f in bundle.job.finishes
    )
    opened = bundle.model_copy(update={"job": bundle.job.model_copy(update={"finishes": finishes})})
    parts = painted_parts(opened.property, opened.deduction)
    cards = {(p.face.id, p.name): "edge" in {c.id for c in part_cards(opened, p, ())} for p in parts.values()}
    assert {face for (face, _), shown in cards.items() if shown} == {railing.face}
    assert all(shown for (face, _), shown in cards.items() if face == railing.face)
