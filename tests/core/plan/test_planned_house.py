"""The demo house planned in real weather, and walls of its kind: windows, crew, order of the trade, cautions."""

from datetime import datetime
from itertools import pairwise

import pytest

from amber_gable.core.climate.job_climate import SiteClimate, main_part, site_climate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.plan.order import contained_first, frees_lead_paint, touching
from amber_gable.core.plan.tasks import shifts
from amber_gable.core.plan.work import work_items
from amber_gable.core.specification.cautions.safety import day_cards
from amber_gable.core.state.job_state import job_state, surroundings
from amber_gable.core.state.judgement import frees_lead
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.domain.errors import NoClimate
from amber_gable.domain.findings.condition import Grade, MoistureReading
from amber_gable.domain.grid import SLOT_S
from amber_gable.domain.house.substrates import SUBSTRATES
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan, Task
from amber_gable.domain.paint.generic_products import GENERIC_PRODUCTS
from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Base
from amber_gable.domain.work.operation import OperationKind, Technique
from amber_gable.domain.work.working import CrewDay
from tests.jobs import coopers_rise, demo_job, one_wall, opening
from tests.small_jobs import five_shutters
from tests.weather_cases import real_year, steady

BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")


def _planned(bundle: JobBundle, begin: datetime = BEGIN, days: int = 12) -> tuple[SiteClimate, Plan]:
    site = site_climate(bundle, real_year(), begin, days, begin.tzinfo)
    return site, plan_job(site, begin)


def test_the_demo_house_is_planned_in_real_weather() -> None:
    bundle = coopers_rise()
    site, plan = _planned(bundle)
    state = job_state(surroundings(site, BEGIN))
    items = {i.id: i for i in work_items(state.around, state.parts)}
    assert {t.id for t in plan.tasks} | {u.id for u in plan.unplaced} == set(items)
    assert len(plan.tasks) > 40
    shift = shifts(site.slots, bundle.job.crew)
    for t in plan.tasks:
        first = int((t.start.timestamp() - site.slots.start) // SLOT_S)
        end = int(-((site.slots.start - t.end.timestamp()) // SLOT_S))
        assert items[t.id].work.windows.ok[0, first:end].all(), t.id
        assert (shift[first:end] >= 0).all()
        assert t.why
        assert t.touch_at is None or (t.rain_ready_at is not None and t.end < t.touch_at <= t.rain_ready_at)
    assert not {t.start.weekday() for t in plan.tasks} & {6}, "nobody works on Sunday"
    assert not [(a.id, b.id) for a, b in pairwise(plan.tasks) if b.start < a.end], "one crew"


def test_small_steps_take_their_minutes() -> None:
    """A day's tasks fill it with their work, not with half hours: three people on the demo house."""
    _, plan = _planned(coopers_rise())
    first = [t for t in plan.tasks if t.start.date() == plan.tasks[0].start.date()]
    assert len(first) > 12
    worked = sum(t.crew_hours for t in first)
    span = (first[-1].end - first[0].start).total_seconds() / 3600
    assert worked > 0.9 * span


DIRTY = {"wash", "strip", "scrape", "sand", "dust", "repair"}


def test_all_dirty_work_of_a_face_and_the_washing_beside_it_stands_before_its_films() -> None:
    bundle = demo_job("3-quarry-lane")
    _, plan = _planned(bundle)
    corner = touching(bundle.property.faces)
    films = [t for t in plan.tasks if t.kind.lays_film]
    assert films
    for film in films:
        before = [t for t in plan.tasks if t.face == film.face and t.kind.value in DIRTY]
        before += [t for t in plan.tasks if t.face in corner[film.face] and t.kind.value == "wash"]
        assert all(t.end <= film.start for t in before), (film.id, [t.id for t in before if t.end > film.start])
    assert {"ql-right", "ql-left"} <= corner["ql-front"]
    assert "ql-garden" not in corner["ql-front"] or len(corner["ql-front"]) == 3


def test_walls_of_two_buildings_do_not_touch_however_near_they_are_drawn() -> None:
    """Each building has a plan of its own: what runs off the barn does not wet the house."""
    rise = coopers_rise().property.faces
    front, others = rise[0], rise[1:]
    beside = touching(rise)[front.id]
    assert beside, "the front has a corner with its neighbours"
    alone = touching((front.model_copy(update={"building": "Barn"}), *others))
    assert alone[front.id] == frozenset()
    assert all(front.id not in found for found in alone.values())


def test_trim_is_coated_after_the_field_it_frames() -> None:
    _, plan = _planned(coopers_rise())
    for face in ("front", "back"):
        field_ = [t for t in plan.tasks if t.zone == f"{face}-siding"]
        trim = [t for t in plan.tasks if t.zone == f"{face}-trim" and t.product]
        if trim:
            assert min(t.start for t in trim) >= max(t.end for t in field_)


def test_blocked_tasks_say_by_what_and_when() -> None:
    _, plan = _planned(coopers_rise())
    said = [b for t in plan.tasks for b in t.blocked_by]
    assert any(b.startswith("crew busy with “") for b in said)
    assert any(b[1] == " " and b[0] in "RDCHWU" for b in said)


def test_a_long_wall_is_cut_at_windows_where_the_sun_leaves_short_openings() -> None:
    openings_ = tuple(opening(f"w{i}", 1.0 + 2.4 * i, 1.0, 1.0, 1.4) for i in range(5))
    bundle = one_wall(13.0, 6.0, openings_, azimuth=180.0, crew={"people": 1})
    site, _ = _planned(bundle)
    state = job_state(surroundings(site, BEGIN))
    coats = [i for i in work_items(state.around, state.parts) if i.stint.first.id == "coat-1"]
    assert len(coats) > 1
    assert sum(i.surface_m2 for i in coats) == pytest.approx(coats[0].part.surface_m2)
    edges = {round(o["x_m"], 3) for o in openings_} | {round(o["x_m"] + 1.0, 3) for o in openings_}
    assert {round(13.0 * i.extent.left, 3) for i in coats[1:]} <= edges


def test_more_people_need_less_crew_time() -> None:
    hours = []
    for people in (1, 3):
        _, plan = _planned(one_wall(crew={"people": people}))
        hours.append(sum(t.crew_hours for t in plan.tasks))
    assert hours[0] == pytest.approx(3 * hours[1], rel=0.02)


def test_the_crews_day_and_days_off_bound_the_shifts() -> None:
    site, _ = _planned(one_wall())
    crew = CrewDay(start_h=8, end_h=16, setup_h=0.5, cleanup_h=0.5, work_saturday=False)
    shift = shifts(site.slots, crew)
    worked = shift >= 0
    assert set(site.slots.weekday[worked]) == {0, 1, 2, 3, 4}
    assert site.slots.hours[worked].min() == 8.5
    assert site.slots.hours[worked].max() == 15.5 - SLOT_S / 3600


def test_a_job_without_zones_or_weather_is_refused_in_words() -> None:
    bundle = one_wall()
    begin = datetime.fromisoformat("2026-06-10T00:00-03:00")
    bare = bundle.model_copy(update={"property": bundle.property.model_copy(update={"zones": (), "items": ()})})
    with pytest.raises(NoClimate, match="nothing to paint yet"):
        site_climate(bare, real_year(), begin, 3)
    with pytest.raises(NoClimate, match="covers"):
        site_climate(bundle, steady(datetime.fromisoformat("2026-01-01T00:00+00:00"), 96), begin, 3)


def test_the_zone_that_stands_for_a_face_is_its_field() -> None:
    bundle = coopers_rise()
    zone = main_part(bundle, bundle.property.faces[0])
    assert zone is not None
    assert not SUBSTRATES[zone.substrate].is_trim


def test_cautions_follow_the_work_and_the_house() -> None:
    bundle = coopers_rise()
    _, plan = _planned(bundle)
    wash = [t for t in plan.tasks if t.kind == "wash"]
    coats = [t for t in plan.tasks if t.kind == "coat"]
    assert _cards(bundle, wash) == ["lead", "height", "wires", "bleach"]
    assert _cards(bundle, coats) == ["height", "wires"]
    newer = bundle.model_copy(update={"property": bundle.property.model_copy(update={"year_built": 2004})})
    assert "lead" not in _cards(newer, wash)
    tested = bundle.model_copy(update={"property": bundle.property.model_copy(update={"lead_found": False})})
    assert "lead" not in _cards(tested, wash), "a test that found none beats the year"
    oily = next(p.code for p in GENERIC_PRODUCTS.values() if p.base is Base.ALKYD)
    sprayed = [coats[0].model_copy(update={"method": Method.AIRLESS, "product": oily})]
    with_oil = newer.model_copy(update={"products": (*newer.products, GENERIC_PRODUCTS[oily])})
    assert {"injection", "spray", "rags", "fumes"} <= set(_cards(with_oil, sprayed))
    assert _cards(newer, coats, 33.0, 24.0) == ["height", "wires", "heat"]
    assert _cards(newer, coats, 12.0, 3.0) == ["height", "wires", "cold"]


def _cards(bundle: JobBundle, tasks: list[Task], *air_c: float) -> list[str]:
    return [c.id for c in day_cards(bundle, painted_parts(bundle.property, bundle.deduction), tasks, *air_c)]


def _stopped_siding(bundle: JobBundle) -> JobBundle:
    """The street front's siding too wet for any coat: a stop without a day."""
    place = bundle.property
    wet = MoistureReading(pct=25, at=BEGIN)
    zones = tuple(
        z.model_copy(update={"condition": z.condition.model_copy(update={"moisture": (wet,)})})
        if z.id == "front-siding"
        else z
        for z in place.zones
    )
    return bundle.model_copy(update={"property": place.model_copy(update={"zones": zones})})


def test_lead_paint_comes_off_a_face_only_once_it_is_contained() -> None:
    bundle = coopers_rise()
    site, plan = _planned(bundle)
    state = job_state(surroundings(site, BEGIN))
    items = work_items(state.around, state.parts)
    gates, waits = contained_first(items, bundle)
    set_up = {a.id for edges in gates.values() for a in edges}
    dusty = {i.id: i for i in items if frees_lead_paint(i, bundle) and i.id not in set_up}
    assert set(waits) == set(dusty) and len(dusty) > 10
    assert all(waits[id_] == (f"contain.{i.part.face.id}",) for id_, i in dusty.items())
    assert {g.removeprefix("contain.") for g in gates} >= {i.part.face.id for i in dusty.values()}
    ends = {t.id: t.end for t in plan.tasks}
    for task in (t for t in plan.tasks if t.id in dusty):
        assert all(ends[a.id] <= task.start for a in gates[f"contain.{task.face}"])


def test_like_items_are_one_lot_whichever_of_them_covers_the_ground() -> None:
    """Five pairs of shutters: the ground is covered with the first of them, before anything drips; the coats go over
    all five, in lots as long as a window lasts."""
    bundle = five_shutters()
    _, plan = _planned(bundle)
    assert plan.unplaced == ()
    covering = [t for t in plan.tasks if "cover" in t.steps]
    assert len(covering) == 1 and covering[0] is plan.tasks[0]
    assert all(t.start >= covering[0].end for t in plan.tasks[1:])
    coats = [t for t in plan.tasks if t.steps[0] == "coat-2"]
    assert sorted(key for t in coats for _, key in t.extent.parts) == [f"shutters-{n}" for n in range(1, 6)]
    assert len(coats) < 5, "not pair by pair"


TAKES_IT_OFF = [
    # work, how, chalking of the part, whether old lead paint comes off with it
    ("scrape", "wet-scrape", "none", True),
    ("strip", "heat-gun", "none", True),
    ("strip", "caustic-stripper", "none", True),
    ("wash", "hose-wash", "heavy", True),
    ("wash", "hose-wash", "light", True),
    ("wash", "hose-wash", "none", False),
    ("caulk", "caulk-bead", "heavy", False),
]


@pytest.mark.parametrize(("kind", "technique", "chalking", "expected"), TAKES_IT_OFF)
def test_lead_paint_comes_off_broken_softened_or_as_chalk(
    kind: str, technique: str, chalking: str, expected: bool
) -> None:
    bundle = coopers_rise()
    part = bundle.property.part(("zone", "front-trim"))
    part = part.model_copy(update={"condition": part.condition.model_copy(update={"chalking": chalking})})
    found = frees_lead(bundle, part, OperationKind(kind), [Technique(technique)])
    assert found is expected
    newer = bundle.model_copy(update={"property": bundle.property.model_copy(update={"year_built": 2004})})
    assert not frees_lead(newer, part, OperationKind(kind), [Technique(technique)])


def test_chalk_on_the_trim_is_scrubbed_once_its_face_is_contained() -> None:
    """The containment stands with the siding, which is washed first."""
    bundle = coopers_rise()
    place = bundle.property
    zones = [
        z.model_copy(update={"condition": z.condition.model_copy(update={"chalking": Grade.HEAVY})})
        if z.id == "front-trim"
        else z
        for z in place.zones
    ]
    chalky = bundle.model_copy(update={"property": place.model_copy(update={"zones": tuple(zones)})})
    state = job_state(surroundings(_planned(chalky)[0], BEGIN))
    items = work_items(state.around, state.parts)
    _, waits = contained_first(items, chalky)
    (wash,) = (i for i in items if i.part.part.id == "front-trim" and i.stint.kind is OperationKind.WASH)
    assert waits[wash.id] == ("contain.front",)


def test_where_the_part_with_the_containment_is_stopped_nothing_is_scraped_beside_it() -> None:
    bundle = _stopped_siding(coopers_rise())
    _, plan = _planned(bundle)
    front = [t for t in plan.tasks if t.face == "front"]
    parts = {t.id: bundle.property.part(t.part) for t in front}
    assert not [t for t in front if frees_lead(bundle, parts[t.id], t.kind, t.techniques)]  # type: ignore[arg-type]
    assert any("the containment of this face stands with Siding, which is stopped" in u.why for u in plan.unplaced)
    assert [t for t in plan.tasks if t.face != "front"], "other faces go on"
