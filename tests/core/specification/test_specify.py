"""From derived steps to a system: products, steps changed by hand, contradictions, schools side by side."""

from dataclasses import replace
from typing import Any

import pytest

from amber_gable.core.specification.choices.candidates import candidates, goes_on
from amber_gable.core.specification.choices.comparison import choices, difference, sums_of
from amber_gable.core.specification.colour.cover_cost import cover_costs
from amber_gable.core.specification.derived.diagnosis import derive
from amber_gable.core.specification.derived.part_facts import lead_presumed, part_facts
from amber_gable.core.specification.derived.part_spec import Wish, fresh_spec, made_finish, part_spec
from amber_gable.core.specification.derived.system import specify
from amber_gable.core.survey.amounts.painted import PaintedPart, painted_parts
from amber_gable.core.work.item_pace import coat_hours
from amber_gable.core.work.record import part_work
from amber_gable.core.work.waits import next_waits
from amber_gable.domain.errors import NoSteps
from amber_gable.domain.house.items import SashWindow
from amber_gable.domain.paint.families import Family, usual_surfaces
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Base, Hazard, Product
from amber_gable.domain.work.alert import Alert
from amber_gable.domain.work.finish import Override
from amber_gable.domain.work.operation import Operation, Technique
from tests.core.specification.spec_case import SOUND, Case, case
from tests.jobs import coopers_rise, demo_products

SHELF = demo_products()
BY_CODE = {p.code: p for p in SHELF}
OILY = {"coating": "oil", "gloss": "gloss", "loose_pct": 20}
LEADED = case("leaded gloss", "wood-lap", SOUND | OILY, "", "", lead=True)
STAINED = {"coating": "film-stain", "moisture": 14, "gloss": "satin"}
DECK = case("deck under a film", "wood-deck", STAINED, "", "", aim="translucent")


def _operations(of: Case) -> dict[str, Operation]:
    return {o.id: o for o in specify(of.derived(), SHELF).operations}


def _remove(step: str) -> dict[str, Any]:
    return {"action": "remove", "step": step, "reason": "the customer asks for it"}


def _change(of: Case, step: str, **fields: Any) -> dict[str, Any]:
    operation = _operations(of)[step].model_copy(update=fields)
    return {"action": "change", "step": step, "operation": operation, "reason": "as we do it"}


STOPPED = [
    (
        "pressure wash on presumed lead",
        LEADED,
        lambda: _change(LEADED, "wash", technique=Technique.PRESSURE_WASH),
        "forbidden",
    ),
    (
        "dry sanding of presumed lead",
        LEADED,
        lambda: _change(LEADED, "dull", technique=Technique.POWER_SAND),
        "forbidden",
    ),
    ("nothing washed", LEADED, lambda: _remove("wash"), "nothing is washed"),
    ("no time to dry", DECK, lambda: _change(DECK, "brighten", wait_h=0.0), "no time to dry"),
    ("stain over a film", DECK, lambda: _remove("strip"), "not stripped"),
    ("left alkaline", DECK, lambda: _remove("brighten"), "alkaline"),
    ("no coat", DECK, lambda: _remove("coat-1"), "no coat is left"),
]


@pytest.mark.parametrize(("of", "override", "words"), [s[1:] for s in STOPPED], ids=[s[0] for s in STOPPED])
def test_what_must_not_be_done_by_hand_is_stopped_with_its_reason(of: Case, override: Any, words: str) -> None:
    assert specify(of.derived(), SHELF).stops == ()
    found = specify(of.derived(), SHELF, overrides=[Override.model_validate(override())])
    assert any(words in c.words for c in found.stops), found.conflicts
    assert all(c.todo for c in found.stops)


def test_gloss_must_not_stay_undulled() -> None:
    satin = case("satin", "wood-lap", SOUND | {"gloss": "satin"}, "", "")
    found = specify(satin.derived(), SHELF, overrides=[Override.model_validate(_remove("dull"))])
    assert [c.step for c in found.stops] == ["coat-1"]
    dull = case("dull", "wood-lap", SOUND, "", "")
    assert specify(dull.derived(), SHELF).stops == ()


def test_overrides_survive_what_the_survey_finds_later_and_lost_ones_are_told() -> None:
    twice = Override.model_validate(
        {
            "action": "add", "step": "own-third", "after": "coat-2", "reason": "windward wall",
            "operation": {"id": "own-third", "name": "Third coat", "kind": "coat", "product": "skerry-housecoat",
                          "method": "brush"},
        }
    )  # fmt: skip
    caulk = _change(replace(LEADED, found=LEADED.found | {"caulk_m": 9.0}), "caulk", wait_h=12.0)
    overrides = [twice, Override.model_validate(caulk)]
    with_caulk = replace(LEADED, found=LEADED.found | {"caulk_m": 20.0})
    first = specify(with_caulk.derived(), SHELF, overrides=overrides)
    assert [o.id for o in first.operations][-3:] == ["coat-1", "coat-2", "own-third"]
    assert next(o for o in first.operations if o.id == "caulk").wait_h == 12.0
    later = specify(LEADED.derived(), SHELF, overrides=overrides)
    assert later.operations[-1].id == "own-third"
    assert [(c.level, c.step) for c in later.conflicts] == [(Alert.CHECK, "caulk")]


def test_products_go_only_where_their_sheet_or_family_allows() -> None:
    brick, siding = frozenset({"masonry", "brick"}), frozenset({"wood", "siding"})
    assert goes_on(BY_CODE["fathom-stonecoat"], brick)
    assert not goes_on(BY_CODE["fathom-stonecoat"], siding)
    assert not goes_on(BY_CODE["gannet-rustguard"], siding)
    narrow = BY_CODE["skerry-housecoat"].model_copy(update={"substrates": ("stucco",)})
    assert not goes_on(narrow, siding)
    assert all(usual_surfaces(f) or f is Family.OTHER for f in Family)


def test_no_alkyd_goes_straight_on_zinc_and_no_silicate_on_old_paint() -> None:
    primers = (Family.METAL_PRIMER, Family.BONDING_PRIMER)
    for substrate, alkyds in (("galvanised-trim", False), ("metal-railing", True)):
        facts = case("metal", substrate, {"coating": "bare"}, "", "").facts
        bases = {c.product.base for c in candidates(primers, facts, Method.BRUSH, SHELF)}
        assert (Base.ALKYD in bases) is alkyds, substrate
        assert Base.WATERBORNE in bases
    for coating, mineral in (("bare", True), ("waterborne", False), ("unknown", False)):
        facts = case("stone", "limestone", {"coating": coating}, "", "").facts
        found = candidates((Family.SILICATE_PAINT, Family.MASONRY_PAINT), facts, Method.ROLLER, SHELF)
        assert (Base.SILICATE in {c.product.base for c in found}) is mineral, coating


def test_the_stores_hold_every_family_and_rank_by_fit_then_price() -> None:
    assert len(SHELF) >= 30
    assert {p.family for p in SHELF} == set(Family) - {Family.OTHER}
    facts = case("siding", "wood-lap", SOUND, "", "").facts
    families = (Family.EXTERIOR_ACRYLIC, Family.LOW_TEMPERATURE_ACRYLIC)
    ranked = candidates(families, facts, Method.BRUSH, SHELF, sheen="low lustre or satin")
    assert [c.product.code for c in ranked[:2]] == ["skerry-housecoat", "corrie-longcoat"]
    assert ranked[0].cost_m2 < ranked[1].cost_m2
    points = {c.product.code: c.points for c in ranked}
    assert points["skerry-latewall"] < points["skerry-housecoat"], "the second family of choice"
    assert points["skerry-flatwall"] < points["skerry-housecoat"], "flat, where low lustre suits"
    by_turbine = {c.product.code: c for c in candidates(families, facts, Method.TURBINE, SHELF)}
    assert any("turbine" in r for r in by_turbine["skerry-housecoat"].reasons)
    wet = case("wet", "wood-lap", SOUND | {"moisture": 15.5}, "", "", schools={"damp-limit": "17"}).facts
    primers = {c.product.code: c.points for c in candidates((Family.ACRYLIC_WOOD_PRIMER,), wet, Method.BRUSH, SHELF)}
    assert primers["corrie-woodstart"] > primers["gannet-barewood"], "15.5 % is above what one sheet allows"


COLD = [
    # surface, what was found, and what is laid there first, in mild weeks and in cold ones
    ("wood-lap", SOUND, "coat-1", "skerry-housecoat", "skerry-latewall"),
    ("wood-lap", SOUND | {"coating": "bare", "bare_pct": 100}, "prime", "gannet-barewood", "corrie-woodstart"),
    ("wood-trim", SOUND, "coat-1", "skerry-trimline", "skerry-trimline"),
    ("stucco-smooth", {"coating": "waterborne", "loose_pct": 0}, "coat-1", "fathom-stonecoat", "fathom-stonecoat"),
]


@pytest.mark.parametrize(("surface", "found", "step", "mild", "cold"), COLD)
def test_cold_weeks_take_the_paint_that_may_be_laid_in_them(
    surface: str, found: dict[str, Any], step: str, mild: str, cold: str
) -> None:
    for season, code in (("mild", mild), ("cold", cold)):
        laid = _operations(case(surface, surface, found, "", "", schools={"season": season}))[step]
        assert laid.product == code
        told = f"only from {BY_CODE[code].air_min_c:g} °C up" in laid.because
        assert told == (season == "cold" and BY_CODE[code].air_min_c > 2), "what cannot be had is said"


def test_a_part_is_compared_in_mild_and_cold_weeks() -> None:
    bundle, front = _front()
    found = {c.topic.code: c for c in choices(front, part_facts(bundle, front, "#b5ad9c"), SHELF)}
    cold = next(o for o in found["season"].options if o.school.code == "cold")
    assert any("Latewall" in words for words in cold.adds), cold.adds
    mild = next(o for o in found["season"].options if o.holds)
    assert mild.sums.cost < cold.sums.cost


def test_a_pick_holds_while_it_fits_and_a_bare_shelf_is_told() -> None:
    derivation = LEADED.derived()
    picked = specify(derivation, SHELF, {"coat": "corrie-longcoat", "prime-spots": "fathom-stonecoat"})
    used = {o.id: o.product for o in picked.operations}
    assert used["coat-1"] == used["coat-2"] == "corrie-longcoat"
    assert used["prime-spots"] in ("gannet-tightbond", "corrie-edgelock"), "masonry paint is no peel-bonding primer"
    with pytest.raises(NoSteps, match="no product in Stores serves 'First coat'"):
        specify(derivation, [p for p in SHELF if "acrylic" not in p.family.value])


def _front() -> tuple[Any, PaintedPart]:
    bundle = coopers_rise()
    return bundle, painted_parts(bundle.property, bundle.deduction)["zone", "front-siding"]


def test_schools_side_by_side_cost_what_they_say() -> None:
    bundle, part = _front()
    facts = part_facts(bundle, part, "#e9dcc1")
    found = {c.topic.code: {o.school.code: o for o in c.options} for c in choices(part, facts, SHELF)}
    failing = found["failing"]
    assert failing["encapsulate"].holds
    assert failing["strip"].sums.hours > 2 * failing["encapsulate"].sums.hours
    assert failing["strip"].life_years > failing["encapsulate"].life_years
    assert "off to bare wood" in " ".join(failing["strip"].adds)
    everything = found["prime-sound"]["everything"]
    # One film more, and the fillings need none of their own under it.
    assert everything.sums.coats == found["prime-sound"]["spots"].sums.coats
    assert everything.sums.hours > found["prime-sound"]["spots"].sums.hours
    assert everything.sums.litres > found["prime-sound"]["spots"].sums.litres
    assert found["method"]["spray"].sums.hours < found["method"]["hand"].sums.hours
    assert found["method"]["spray"].sums.litres > found["method"]["hand"].sums.litres
    assert "putty" not in found, "siding has no putty"


def test_sums_follow_from_the_operations() -> None:
    _, part = _front()
    product = BY_CODE["skerry-housecoat"]
    coat = Operation(id="coat-1", name="First coat", kind="coat", product=product.code, method=Method.BRUSH)
    one = sums_of(part_work(part, [coat], BY_CODE, "#ffffff"))
    assert one.coats == 1
    assert one.litres == pytest.approx(part.surface_m2 / (9.5 * 0.96))
    assert float(one.cost) == pytest.approx(one.litres * float(product.price_per_litre), rel=1e-6)
    assert difference([coat], [coat]) == ((), ())
    halved = coat.model_copy(update={"share": 0.5})
    assert difference([coat], [halved]) == (("First coat, brush on 50 %",), ("First coat, brush",))
    six = SashWindow(width_m=0.9, height_m=1.5, panes_across=3, panes_down=2)
    assert coat_hours(six, Method.BRUSH) == pytest.approx(1.25)


def test_a_stored_part_tells_when_the_survey_moved_on() -> None:
    bundle, part = _front()
    spec = part_spec(bundle, part, SHELF)
    assert not spec.changed
    worse = part.part.model_copy(update={"condition": part.condition.model_copy(update={"loose_pct": 60.0})})
    place = bundle.property.model_copy(update={"zones": (worse, *bundle.property.zones[1:])})
    later = bundle.model_copy(update={"property": place})
    moved = painted_parts(later.property, later.deduction)["zone", "front-siding"]
    assert part_spec(later, moved, SHELF).changed
    wish = Wish.of(spec.finish) if spec.finish else Wish("#e9dcc1", "Oat")
    assert made_finish(part, wish, fresh_spec(bundle, part, wish, SHELF).operations) == spec.finish


LEAD = [
    (1931, None, True), (1978, None, False), (None, None, True), (1931, False, False), (2005, True, True),
]  # fmt: skip


@pytest.mark.parametrize(("year", "found", "presumed"), LEAD)
def test_lead_is_presumed_by_age_unless_it_was_tested(year: int | None, found: bool | None, presumed: bool) -> None:
    bundle = coopers_rise()
    place = bundle.property.model_copy(update={"year_built": year, "lead_found": found})
    assert lead_presumed(bundle.model_copy(update={"property": place})) is presumed
    stricter = bundle.company.model_copy(update={"lead_cutoff_year": 1925})
    if found is None and year is not None:
        assert not lead_presumed(bundle.model_copy(update={"property": place, "company": stricter}))


def test_the_cheapest_way_to_hide_counts_paint_and_labour() -> None:
    _, part = _front()
    part = replace(part, part=part.part.model_copy(update={"colour_now": "#f4f1ea"}))
    coat = Operation(id="coat-1", name="First coat", kind="coat", product="skerry-housecoat", method=Method.BRUSH)
    alone, primed = cover_costs(part, "#b3261e", coat, BY_CODE["skerry-housecoat"], BY_CODE["gannet-keyprime"])
    assert (alone.way.coats, primed.way.coats) == (5, 3)
    assert primed.best
    assert not alone.best
    assert primed.hours == pytest.approx(alone.hours * 4 / 5)
    better = BY_CODE["skerry-housecoat"].model_copy(update={"contrast": 0.97})
    assert cover_costs(part, "#b3261e", coat, better, None)[0].way.coats == 2, (
        "a sheet's own figure beats the judgement"
    )


def test_alkyds_carry_their_hazards() -> None:
    for product in (*SHELF, *GENERIC_PRODUCTS.values()):
        assert (product.base.value == "alkyd") == (Hazard.OILY_RAGS in product.hazards), product.code


def test_a_double_override_and_a_mismatched_one_are_refused() -> None:
    with pytest.raises(ValueError, match="must be given"):
        Override.model_validate({"action": "add", "step": "own-x", "reason": "because"})
    other = Operation(id="own-y", name="Y", kind="wash")
    with pytest.raises(ValueError, match="the step given is 'own-y'"):
        Override(action="add", step="own-x", operation=other, reason="because")
    sheet: Product = BY_CODE["skerry-housecoat"]
    assert sheet.wet_film_um == pytest.approx(40 / 0.38)


def test_deriving_the_demo_again_changes_nothing() -> None:
    bundle = coopers_rise()
    for part in painted_parts(bundle.property, bundle.deduction).values():
        spec = part_spec(bundle, part, SHELF)
        assert spec.operations == spec.fresh.operations, part.name
        assert derive(spec.derivation.facts).steps == spec.derivation.steps


@pytest.mark.parametrize(
    ("after", "hours"),
    [("scrape", 4.0), ("sand", 4.0), ("mask", 4.0), ("prime", 48.0), ("coat", 48.0), ("caulk", 48.0), ("", 48.0)],
)
def test_a_wash_has_one_wait_for_each_step_that_follows(after: str, hours: float) -> None:
    """What wants a dry surface follows in hours; what seals the wood waits until it is dry within."""
    film = {"product": "exterior-acrylic-standard", "method": "brush"} if after in ("prime", "coat") else {}
    wash = Operation.model_validate(
        {"id": "wash", "name": "Wash", "kind": "wash", "technique": "hose-wash", "wait_h": 48}
    )
    steps = [wash]
    if after:
        steps.append(Operation.model_validate({"id": "next", "name": "Next", "kind": after, **film}))
    assert next_waits(steps)[0] == hours
