"""How the steps of a system become the work of a crew: what is done in one go, in lots, and in which order."""

from datetime import datetime

import pytest

from amber_gable.core.climate.job_climate import SiteClimate, site_climate, site_surfaces
from amber_gable.core.plan.order import on_face, within_part
from amber_gable.core.plan.work import WorkItem, work_items
from amber_gable.core.state.job_state import job_state, surroundings
from amber_gable.core.survey.amounts.painted import painted_parts, together
from amber_gable.core.work.labour import part_labour
from amber_gable.core.work.pace import Pace
from amber_gable.core.work.record import job_work
from amber_gable.core.work.stints import Stint, stints
from amber_gable.core.work.wet_edge import section_m2_per_minute
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.paint.method import Method
from amber_gable.domain.work.operation import Operation, OperationKind, Technique
from tests.core.specification.spec_case import case
from tests.jobs import coopers_rise
from tests.weather_cases import real_year

K = OperationKind


def _step(id_: str, kind: OperationKind, wait_h: float = 0.0) -> Operation:
    film = {"product": "p", "method": Method.BRUSH} if kind.lays_film else {}
    return Operation.model_validate({"id": id_, "name": f"Step {id_}", "kind": kind, "wait_h": wait_h, **film})


def _off(id_: str) -> Operation:
    return _step(id_, K.CLEAN).model_copy(update={"technique": Technique.UNMASK})


def _moved(id_: str) -> Operation:
    return _step(id_, K.FIT).model_copy(update={"technique": Technique.MOVE})


GROUPS: list[tuple[str, list[Operation], list[str]]] = [
    ("dry work goes together", [_step("a", K.SCRAPE), _step("b", K.SAND), _step("c", K.DUST)], ["a b c"]),
    ("water and dry work do not", [_step("a", K.WASH), _step("b", K.SCRAPE)], ["a", "b"]),
    ("a wait ends it", [_step("a", K.REPAIR, 4), _step("b", K.SAND)], ["a", "b"]),
    (
        "what fills waits for dry wood, what goes before need not",
        [_step("a", K.SCRAPE), _step("b", K.REPAIR, 4), _step("c", K.SAND)],
        ["a", "b", "c"],
    ),
    ("fillings go together", [_step("a", K.REPAIR), _step("b", K.PUTTY, 72), _step("c", K.SAND)], ["a b", "c"]),
    ("films stand alone", [_step("a", K.DUST), _step("b", K.PRIME), _step("c", K.COAT)], ["a", "b", "c"]),
    ("mildew and wash in one go", [_step("a", K.WASH), _step("b", K.WASH, 48)], ["a b"]),
    ("containment goes with the wash", [_step("a", K.PROTECT), _step("b", K.FIT), _step("c", K.WASH, 48)], ["a b c"]),
    (
        "tape comes off with the soft coat, the rest waits",
        [_step("a", K.COAT), _off("b"), _step("c", K.FIT)],
        ["a b", "c"],
    ),
    (
        "sashes are moved with their last coat, while it is soft",
        [_step("a", K.COAT), _step("b", K.COAT), _moved("c")],
        ["a", "b c"],
    ),
    ("tape stays on between coats", [_step("a", K.COAT), _step("b", K.COAT), _off("c")], ["a", "b c"]),
    ("take down, then wash", [_step("a", K.FIT), _step("b", K.WASH, 24), _step("c", K.SAND)], ["a b", "c"]),
]


@pytest.mark.parametrize(("steps", "groups"), [g[1:] for g in GROUPS], ids=[g[0] for g in GROUPS])
def test_what_is_done_in_one_go(steps: list[Operation], groups: list[str]) -> None:
    assert [" ".join(o.id for o in s.operations) for s in stints(steps)] == groups


def test_a_stint_keeps_the_strictest_rules_and_the_longest_wait() -> None:
    stint = Stint((_step("a", K.DUST), _step("b", K.CAULK, 4)))
    assert stint.kind is K.CAULK, "caulk wants 5 °C"
    assert stint.wait_h == 4
    assert stint.name == "Step a, then step b"
    assert Stint((_step("a", K.FIT), _step("b", K.WASH, 24))).kind is K.WASH
    hepa = _step("c", K.CLEAN).model_copy(update={"name": "HEPA clean-up"})
    assert Stint((_step("a", K.SAND), hepa)).name == "Step a, then HEPA clean-up", "abbreviations keep their letters"


def _site(bundle: JobBundle) -> SiteClimate:
    return site_climate(bundle, real_year(), datetime.fromisoformat("2026-07-06T00:00-03:00"), 6)


def _items(site: SiteClimate) -> list[WorkItem]:
    state = job_state(surroundings(site, site.slots.time(0)))
    return work_items(state.around, state.parts)


def _of(items: list[WorkItem], name: str) -> list[WorkItem]:
    return [i for i in items if name in i.part.name]


def test_like_items_are_done_together_and_no_hour_is_lost() -> None:
    bundle = coopers_rise()
    items = _items(_site(bundle))
    shutters = _of(items, "5 × shutter pair")
    assert shutters
    parts = painted_parts(bundle.property, bundle.deduction)
    pairs = [parts["item", f"shutters-{n}"] for n in range(1, 6)]
    work = job_work(bundle)
    wanted = sum(work[p.key].hours for p in pairs)
    assert sum(i.crew_hours for i in shutters) * bundle.job.crew.people == pytest.approx(wanted)
    one = together(pairs)
    assert one.pieces == 5
    assert one.surface_m2 == pytest.approx(sum(p.surface_m2 for p in pairs))
    # Sashes whose putty is renewed go their own way.
    names = {i.part.name for i in items if i.part.item_kind == "sash-window" and i.part.face.id == "front"}
    assert names == {"2 × sash window", "3 × sash window"}


def test_every_lot_waits_for_the_steps_before_on_its_own_piece() -> None:
    items = _items(_site(coopers_rise()))
    for item in items:
        before = {e.id for e in within_part(item, items)}
        assert bool(before) is (item.number > 0), item.title
        found = [o for o in items if o.id in before]
        assert all(o.number < item.number and o.overlaps(item) for o in found)
        assert {o.number for o in found} == set(range(item.number))


@pytest.mark.parametrize(("school", "first"), [("fields-first", "Siding"), ("trim-first", "Trim and corner boards")])
def test_the_school_of_the_order_on_a_face(school: str, first: str) -> None:
    bundle = coopers_rise()
    bundle = bundle.model_copy(update={"job": bundle.job.model_copy(update={"schools": {"order": school}})})
    items = _items(_site(bundle))
    back = [i for i in items if i.part.face.id == "back" and i.part.key[0] == "zone"]
    late = [i for i in back if i.part.name != first and i.stint.lays_film]
    waits = [e.id for e in on_face(min(late, key=lambda i: i.number), items, bundle)]
    assert waits
    assert all(next(o for o in items if o.id == w).part.name.startswith(first) for w in waits if "/coat-2/" in w)
    early = [i for i in back if i.part.name == first]
    assert all(not on_face(i, items, bundle) for i in early)
    shutters = _of(items, "shutter")
    assert all(not on_face(i, items, bundle) for i in shutters), "taken down, they wait for no wall"


def test_like_surfaces_are_computed_once() -> None:
    bundle = coopers_rise()
    row, surfaces = site_surfaces(bundle)
    first, second = (row[("item", f"front-w{n}-item"), "#f1ead9", None] for n in (1, 4))
    assert first == second
    assert len(surfaces) < len(row)
    assert len(set(surfaces)) == len(surfaces)


def test_a_minute_of_wet_edge_is_so_much_wall_for_the_crew_and_none_for_the_gun() -> None:
    """Ten minutes of two at the brush are a third of an hour's work of one."""
    bundle = coopers_rise()
    part = painted_parts(bundle.property, bundle.deduction)["zone", "back-siding"]
    coat = next(o for o in bundle.operations(bundle.finish_of(*part.key)) if o.kind is OperationKind.COAT)
    brushed = coat.model_copy(update={"method": Method.BRUSH})
    found = section_m2_per_minute(part, brushed, Pace(people=2))
    assert found is not None
    assert 10 * found == pytest.approx(part.surface_m2 / part_labour(part, brushed).hours / 3)
    assert 2.0 < 10 * found < 8.0, "some square metres, as from any two ladders"
    half = coat.model_copy(update={"method": Method.BRUSH, "share": 0.5})
    assert section_m2_per_minute(part, half, Pace(people=2)) == pytest.approx(found)
    assert section_m2_per_minute(part, coat.model_copy(update={"method": Method.AIRLESS}), Pace()) is None


def test_what_a_sheet_says_it_reflects_of_the_sun_wins_over_its_colour() -> None:
    bundle = coopers_rise()
    coats = {o.product for f in bundle.job.finishes for o in bundle.operations(f) if o.kind is OperationKind.COAT}
    told = tuple(p.model_copy(update={"solar_reflectance": 0.71}) if p.code in coats else p for p in bundle.products)
    before, after = (site_surfaces(b)[1] for b in (bundle, bundle.model_copy(update={"products": told})))
    assert all(s.absorptance != pytest.approx(0.29) for s in before)
    known = [s for s in after if s.absorptance == pytest.approx(0.29)]
    assert len(known) > 3 and all(s.absorptance_band == pytest.approx((0.29, 0.29)) for s in known)


def test_a_wall_dries_in_the_colour_that_lies_on_it_and_not_in_the_one_it_will_get() -> None:
    bundle = coopers_rise()
    begin = datetime.fromisoformat("2025-06-02T00:00-05:00")
    site = site_climate(bundle, real_year(), begin, 5, begin.tzinfo)
    part = painted_parts(bundle.property, bundle.deduction)["zone", "front-siding"].part
    product, found = bundle.products[1], []
    for colour in (part.colour_now, bundle.finish_of("zone", "front-siding").colour):
        windows = site.for_coat(part, product, Method.BRUSH, colour)
        found.append(next(c.value for c in windows.checks if c.rule.id == "substrate"))
    assert (found[0] == found[1]).all()


def test_the_first_coat_on_a_bare_slab_is_stippled_in_and_takes_half_as_long_again() -> None:
    slab = {"coating": "bare", "absorbency": "soaks", "masonry": "normal"}
    first, second = (s for s in case("slab", "concrete-slab", slab, "", "").derived().steps if s.role[:4] == "coat")
    assert (first.technique, second.technique) == (Technique.STIPPLE, Technique.ROLL_ON)
    painted = case("slab", "concrete-slab", slab | {"coating": "waterborne"}, "", "").derived()
    assert Technique.STIPPLE not in {s.technique for s in painted.steps}
    rolled = _step("a", K.COAT).model_copy(update={"method": Method.ROLLER, "technique": Technique.ROLL_ON})
    part = painted_parts(coopers_rise().property, "net")["zone", "front-siding"]
    stippled = rolled.model_copy(update={"technique": Technique.STIPPLE})
    assert part_labour(part, stippled).hours == pytest.approx(1.5 * part_labour(part, rolled).hours)
