"""Every finding is answered and every wish is kept or refused in words, on every surface."""

import random
from collections.abc import Iterator
from typing import Any

import pytest

from amber_gable.core.specification.choices.candidates import candidates
from amber_gable.core.specification.derived.diagnosis import Derivation, derive
from amber_gable.core.specification.derived.facts import Facts, facts_of
from amber_gable.core.specification.derived.no_matter import NOBODY, no_matter
from amber_gable.core.specification.derived.refused import BEYOND_RULES, RefusedWish, aim_of, refused_wishes
from amber_gable.core.specification.derived.system import pick_of, specify
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.findings.guided_tests import GUIDED_TESTS, GuidedTest
from amber_gable.domain.house.items import ITEM_NAMES
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.paint.families import Family
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.work.aims import Aim, aims_for, allowed_aim
from amber_gable.domain.work.schools import DEFAULTS, AskedBy, topics_of
from tests.core.specification.spec_case import SOUND, case

COATINGS = (
    "bare",
    "waterborne",
    "oil",
    "film-stain",
    "penetrating-stain",
    "factory-coat",
    "factory-primer",
    "lime-wash",
)
FIGURES: dict[str, tuple[Any, ...]] = {
    "coats": (1, 6), "loose_pct": (0, 5, 45), "mildew_pct": (0, 10), "bare_pct": (10, 60), "crack_mm": (0.1, 0.5, 4),
    "crack_m": (3,), "rot_m2": (0.2,), "caulk_m": (5,), "putty_m": (4,), "nails": (12,), "stubs": (3,),
    "age_years": (0.05, 3, 60), "built_year": (1950, 2015),
    "rust_pct": (10, 50), "made_colour": ("#556677",), "moisture": (12, 22),
}  # fmt: skip
"""What is typed; a test of few answers brings its own."""


def _values(test: GuidedTest) -> tuple[Any, ...]:
    told = {"yes": True, "no": False}
    return FIGURES.get(test.field) or tuple(told.get(a, a) for a in test.answers if a != "unknown")


def _found(substrate: str, coating: str, item: str = "", **readings: Any) -> tuple[Facts, Condition]:
    tests = [{"test": t.code} for t in GUIDED_TESTS if t.field in readings]
    if "moisture" in readings:
        readings["moisture"] = [{"pct": readings["moisture"]}]
    condition = Condition.model_validate({"coating": coating, **readings, "tests": tests})
    colours = {"old_colour": "#8a8f86", "new_colour": "#a9ada3"}
    return facts_of(substrate, condition, surface_m2=40.0, item_kind=item, **colours), condition  # type: ignore[arg-type]


def _trace(derivation: Derivation) -> tuple[object, ...]:
    return derivation.steps, derivation.findings, derivation.coats, derivation.coat_count


def _surfaces(whole: bool) -> Iterator[tuple[str, str]]:
    """Every substrate as a zone, and of items one each, or all of them."""
    yield from ((s, "") for s in SUBSTRATES)
    for n, item in enumerate(ITEM_NAMES):
        made_of = ("wood-trim", "aluminium-trim", "metal-door", "vinyl-trim")
        yield from ((s, item) for s in (made_of if whole else (made_of[n % 4],)))


def test_every_finding_leaves_a_trace_or_a_reason(request: pytest.FixtureRequest) -> None:
    """Each value of each test on each surface, against the same surface without it."""
    whole = bool(request.config.getoption("--long"))
    silent, nobody, seen = [], set(), 0
    for substrate, item in _surfaces(whole):
        for coating in COATINGS if whole else COATINGS[:3]:
            without = _trace(derive(_found(substrate, coating, item)[0]))
            for test in GUIDED_TESTS:
                if test.field == "coating" or not test.fits(SUBSTRATES[substrate].family):
                    continue
                for value in _values(test):
                    if item and not value:
                        continue  # on an item nobody looks twice: a zero counts without a test
                    facts, condition = _found(substrate, coating, item, **{test.field: value})
                    derivation, seen = derive(facts), seen + 1
                    told = no_matter(derivation, condition, SUBSTRATES[substrate].family)
                    mine = [n for n in told if n.finding.startswith(f"{test.name}: ")]
                    if _trace(derivation) == without and not mine:
                        silent.append((substrate, item, coating, test.field, value))
                    if any(n.because == NOBODY for n in mine):
                        nobody.add((substrate, item, coating, test.field, value))
    assert seen > 2500
    assert not silent
    assert not nobody, "each has a reason of its own"


def test_two_findings_together_are_each_answered(request: pytest.FixtureRequest) -> None:
    """Pairs of findings drawn at random, each against the same surface with the other alone."""
    draw = random.Random(20261201)
    surfaces = list(_surfaces(whole=True))
    unanswered = []
    for _ in range(12_000 if request.config.getoption("--long") else 800):
        (substrate, item), coating = draw.choice(surfaces), draw.choice(COATINGS)
        family = SUBSTRATES[substrate].family
        pair = draw.sample([t for t in GUIDED_TESTS if t.field != "coating" and t.fits(family)], 2)
        found = {t.field: draw.choice(_values(t)) for t in pair}
        facts, condition = _found(substrate, coating, item, **found)
        derivation = derive(facts)
        told = no_matter(derivation, condition, family)
        for test, other in (pair, pair[::-1]):
            mine = [n for n in told if n.finding.startswith(f"{test.name}: ")]
            alone = _found(substrate, coating, item, **{other.field: found[other.field]})[0]
            silent = not mine and bool(found[test.field] or not item) and _trace(derivation) == _trace(derive(alone))
            if silent or any(n.because == NOBODY for n in mine):
                unanswered.append((substrate, item, coating, test.field, found))
    assert not unanswered


def test_a_finding_that_changes_something_is_not_told_as_changing_nothing() -> None:
    facts, condition = _found("wood-lap", "waterborne", loose_pct=20, dirt="light")
    told = no_matter(derive(facts), condition, "wood")
    assert [n.finding for n in told] == ["Dirt, soot, cobwebs: light"]
    assert told[0].because == "the usual wash takes it off"


@pytest.mark.parametrize("substrate", SUBSTRATES)
def test_an_aim_is_kept_or_refused(substrate: str) -> None:
    tags = SUBSTRATES[substrate].tags
    for aim in Aim:
        allowed = allowed_aim(aim, tags)
        condition = Condition.model_validate({"coating": "bare", "tests": []})
        facts = facts_of(substrate, condition, surface_m2=10.0, aim=allowed)
        derivation = derive(facts)
        refused = refused_wishes(derivation, (), (), aim=aim, schools={}, picks={})
        kept = aim_of(facts) is aim
        assert kept is not bool(refused), (aim, refused)
        assert kept is (aim in aims_for(tags))
        assert all(r.because and r.instead for r in refused)


PRODUCTS = list(GENERIC_PRODUCTS.values())


@pytest.mark.parametrize("substrate", ["wood-lap", "stucco-smooth", "metal-door", "wood-deck", "vinyl-siding"])
def test_every_pick_is_laid_or_refused(substrate: str) -> None:
    """Any product for any film of the part, and for one that it has not."""
    derivation = derive(_found(substrate, "waterborne", loose_pct=10)[0])
    roles = {pick_of(s.role) for s in derivation.steps if s.families} | {"prime", "undercoat"}
    for role in roles:
        for product in PRODUCTS:
            done = specify(derivation, PRODUCTS, {role: product.code})
            laid = {o.product for o in done.operations if pick_of(o.id) == role}
            refused = _refused(derivation, done.operations, picks={role: product.code})
            assert (laid == {product.code}) is not bool(refused), (role, product.code, refused)
            assert all(product.name in r.wish and r.because and r.instead for r in refused)


def _refused(derivation: Derivation, operations: Any, **wished: Any) -> tuple[RefusedWish, ...]:
    usual: dict[str, Any] = {"aim": None, "schools": {}, "picks": {}}
    return refused_wishes(derivation, operations, PRODUCTS, **usual | wished)


@pytest.mark.parametrize("substrate", SUBSTRATES)
def test_a_school_of_a_part_acts_there_or_is_refused(substrate: str) -> None:
    """Where it acts somewhere on the grid of findings, it is not refused; where it never does, it is."""
    grid = [_found(substrate, c, loose_pct=10, mildew_pct=5, chalking="heavy", gloss="gloss")[0] for c in COATINGS[:3]]
    grid += [_found(substrate, "bare", masonry="normal", age_years=0.1, timber="pressure-treated")[0]]
    for topic in topics_of(AskedBy.SPECIFICATION):
        if topic.code in BEYOND_RULES:
            continue
        for school in topic.schools[1:]:
            acts = any(_trace(derive(f)) != _trace(derive(f.under(topic.code, school.code))) for f in grid)
            refused = _refused(derive(grid[0]), (), schools={topic.code: school.code})
            assert not (acts and refused), (topic.code, school.code)
            assert all(r.wish == school.name for r in refused)
    assert _refused(derive(grid[0]), (), schools=dict(DEFAULTS)) == (), "the usual schools are no wishes"


def test_a_deglosser_on_steel_and_a_floor_enamel_on_a_wall_are_refused_in_words() -> None:
    steel = case("", "metal-door", SOUND, "", "").derived()
    (refused,) = _refused(steel, (), schools={"dull": "deglosser"})
    assert refused.because == "nothing on this surface hangs on it"
    wall = case("", "stucco-smooth", {"coating": "waterborne", "masonry": "normal", "loose_pct": 0}, "", "").derived()
    enamel = next(p for p in PRODUCTS if p.family is Family.FLOOR_ALKYD)
    (refused,) = _refused(wall, specify(wall, PRODUCTS).operations, picks={"coat": enamel.code})
    assert "this film is masonry paint" in refused.because and refused.instead.endswith("is laid")
    assert candidates(wall.coats.families, wall.facts, wall.coats.method, PRODUCTS)[0].product.name in refused.instead


@pytest.mark.parametrize(
    ("surface", "found", "family", "role", "words"),
    [
        # Silicate holds on mineral ground alone; an alkyd turns to soap on young concrete and on zinc.
        ("limestone", {"coating": "waterborne", "masonry": "normal"}, Family.SILICATE_PAINT, "coat", "this film is"),
        ("limestone", {"coating": "bare", "masonry": "dusty"}, Family.SILICATE_PAINT, "coat", "this film is"),
        ("concrete-slab", {"coating": "bare", "age_years": 0.3}, Family.FLOOR_ALKYD, "coat", "this film is"),
        ("metal-roof", {"coating": "bare", "age_years": 1}, Family.METAL_PRIMER, "prime", "this film is bonding"),
        ("wood-deck", {"coating": "bare"}, Family.FLOOR_ALKYD, "coat", "this film is deck stain"),
        ("composite-deck", {"coating": "bare"}, Family.DECK_STAIN, "coat", "this film is solid stain"),
    ],
)
def test_a_product_that_the_ground_does_not_bear_is_refused(
    surface: str, found: dict[str, Any], family: Family, role: str, words: str
) -> None:
    derivation = case("", surface, {"loose_pct": 0} | found, "", "").derived()
    wished = next(p for p in PRODUCTS if p.family is family)
    done = specify(derivation, PRODUCTS, {role: wished.code})
    assert wished.code not in {o.product for o in done.operations}
    (refused,) = _refused(derivation, done.operations, picks={role: wished.code})
    assert words in refused.because and refused.instead.endswith("is laid")
