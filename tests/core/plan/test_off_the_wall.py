"""What is taken down is painted where it lies: on stands under the open sky, or under cover without rain, sun and
ladder."""

from datetime import datetime, timedelta
from itertools import pairwise

import numpy as np
import pytest

from amber_gable.core.climate.job_climate import SiteClimate, site_climate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.specification.derived.sequences import painting_order
from amber_gable.core.state.job_state import surroundings
from amber_gable.core.state.judgement import JudgedWork, work_of
from amber_gable.core.state.part_state import part_states
from amber_gable.core.survey.amounts.painted import painted_parts
from amber_gable.core.weather.judged.slots import mean
from amber_gable.core.work.record import job_work
from amber_gable.core.work.sides import WHOLE, sides
from amber_gable.core.work.stints import stints
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.site_record import Extent, Said, SiteEntry
from amber_gable.domain.work.operation import OperationKind, Where
from tests.small_jobs import five_shutters, one_item, two_sashes
from tests.weather_cases import real_year

BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")
FIRST = ("item", "shutters-1")


def _site(bundle: JobBundle) -> SiteClimate:
    return site_climate(bundle, real_year(), BEGIN, 18)


def _coat(site: SiteClimate) -> JudgedWork:
    """The first coat of the first pair of shutters."""
    finish, part = site.bundle.finish_of(*FIRST), site.bundle.property.part(FIRST)
    assert finish is not None and part is not None
    stint = next(s for s in stints(site.bundle.operations(finish)) if s.first.id == "coat-1")
    return work_of(site, part, finish, stint)


@pytest.mark.parametrize("place", ["stands", "under-cover", "shop"])
def test_the_work_between_taking_down_and_refitting_is_done_elsewhere(place: str) -> None:
    bundle = five_shutters(place)
    finish = bundle.finish_of(*FIRST)
    assert finish is not None
    told = {o.id: o.where for o in bundle.operations(finish)}
    there = Where(place)
    expected = {
        "take-down": None, "take-out": None, "wash": there, "coat-1": there, "coat-2": there,
        "hang": there, "refit": None,
    }  # fmt: skip
    assert told == expected, "what is taken away drips on no ground here: nothing is covered"
    assert {o.where for o in five_shutters().operations(five_shutters().job.finishes[0])} == {None}


def test_hours_of_carrying_are_counted_and_no_ladder_moves_for_what_lies_on_the_ground() -> None:
    """A pair of shutters carried 0.1 h each way; the sashes of a window out and back in 0.6 h each way."""
    carried = {line.operation.id: line.hours for line in job_work(five_shutters("stands"))[FIRST].lines}
    assert (carried["take-out"], carried["hang"]) == pytest.approx((0.1, 0.1))
    sash = job_work(two_sashes("under-cover"))["item", "sash-1"]
    out = {line.operation.id: line.hours for line in sash.lines}
    assert (out["take-out"], out["hang"]) == pytest.approx((0.6, 0.6))
    assert "free" not in out and "edge" in out, "cut free as they are taken out"
    assert sash.moves is None


def test_sashes_that_are_out_swap_no_places() -> None:
    for place, drawn in (("in-place", True), ("stands", False)):
        bundle = two_sashes(place)
        part = painted_parts(bundle.property, bundle.deduction)["item", "sash-1"]
        operations = bundle.operations(bundle.job.finishes[0])
        assert (painting_order(part, (), operations) is not None) is drawn


def test_under_cover_neither_rain_nor_sun_nor_night_stops_a_coat_but_the_crews_day_does() -> None:
    wall, shed = _coat(_site(five_shutters())), _coat(_site(five_shutters("under-cover")))
    rules = {c.rule.id for c in shed.windows.checks}
    assert "daylight" in {c.rule.id for c in wall.windows.checks} - rules and "working-day" in rules
    assert not any(c.stops.any() for c in shed.windows.checks if c.rule.id in ("rain", "rain-depth", "sun", "wind"))
    rain = next(c for c in wall.windows.checks if c.rule.id == "rain-depth").stops[0]
    assert rain.any() and shed.windows.ok[0, rain].any(), "work for wet days"
    inside = (wall.windows.slots.hours >= 7.5) & (wall.windows.slots.hours < 18.5)
    assert not shed.windows.ok[0, ~inside].any()


def test_in_a_shed_a_surface_has_the_air_outside_and_on_stands_the_whole_sky() -> None:
    site = _site(five_shutters("under-cover"))
    part = site.bundle.property.part(FIRST)
    assert part is not None
    shed = site.surface_of(part, part.colour_now, Where.UNDER_COVER).climate
    assert np.abs(shed.surface - shed.steps.air).max() < 3.0, "no sun warms it, no sky cools it"
    assert not shed.poa_global.any() and not shed.wall_rain.any()
    open_ = _site(five_shutters("stands"))
    stands = open_.surface_of(part, part.colour_now, Where.STANDS).climate
    wall = open_.surface_of(part, part.colour_now).climate
    assert wall.poa_direct.any() and not stands.poa_direct.any(), "stands are moved with the shade"
    noon = open_.slots.hours == 12.0
    assert mean(stands.poa_global, open_.slots)[0, noon].mean() > 50, "the sky lights them"
    assert stands.surface.min() < wall.surface.min(), "under the whole sky it cools more at night"


def test_a_heated_shop_is_warm_and_dry_in_winter_where_a_shed_is_as_cold_as_the_air() -> None:
    january = datetime.fromisoformat("2025-01-06T00:00-03:00")
    coats = {}
    for place in ("under-cover", "shop"):
        site = site_climate(five_shutters(place), real_year(), january, 8)
        coats[place] = _coat(site)
        part = site.bundle.property.part(FIRST)
        assert part is not None
        inside = site.surface_of(part, part.colour_now, Where(place)).climate
        if place == "shop":
            assert float(inside.steps.air.min()) >= 18.0 and float(inside.surface.min()) > 16.0
            # Cold air that is warmed is dry: the vapour is that outside.
            assert float(inside.steps.rh.max()) < 80.0
    hours = {place: int(coat.windows.ok.sum()) for place, coat in coats.items()}
    assert hours["under-cover"] < 0.3 * hours["shop"], "in the shed only a mild spell lets it be laid"
    slots = coats["shop"].windows.slots
    shift = (slots.hours >= 8.0) & (slots.hours < 12.0)
    assert coats["shop"].windows.weather_ok[0][shift].all(), "every morning, whatever the weather"


def test_shutters_under_cover_are_done_no_later_than_on_stands() -> None:
    finish = {}
    for place in ("stands", "under-cover"):
        bundle = five_shutters(place)
        plan = plan_job(_site(bundle), BEGIN)
        assert plan.unplaced == () and plan.finish is not None
        order = [step for t in plan.tasks for step in t.steps if "shutters-1" in {k for _, k in t.extent.parts}]
        assert order == ["take-down", "take-out", "wash", *["coat-1"] * 2, *["coat-2"] * 2, "hang", "refit"]
        finish[place] = plan.finish
    assert finish["under-cover"] <= finish["stands"]


def test_what_lies_down_is_painted_on_its_back_then_turned_and_on_its_front() -> None:
    """Shutters lie on one side: it is turned for the other once the sheet's recoat time is over, and again before the
    next film; the side that is seen comes last."""
    bundle = five_shutters("stands")
    site = _site(bundle)
    films = [t for t in plan_job(site, BEGIN).tasks if t.steps[0].startswith("coat-") and FIRST in t.extent.parts]
    assert [(t.steps[0], t.section, (t.extent.left, t.extent.right)) for t in films] == [
        ("coat-1", "back", (0.0, 0.5)), ("coat-1", "front", (0.5, 1.0)),
        ("coat-2", "back", (0.0, 0.5)), ("coat-2", "front", (0.5, 1.0)),
    ]  # fmt: skip
    for before, after in pairwise(films):
        assert before.ready_at is not None and after.start >= before.ready_at, (before.section, after.section)
    whole = job_work(bundle)[FIRST].lines
    coat = next(line for line in whole if line.operation.id == "coat-1")
    assert sum(t.crew_hours * bundle.job.crew.people for t in films[:2]) == pytest.approx(5 * coat.hours, rel=0.01)
    assert sum(t.litres or 0.0 for t in films[:2]) == pytest.approx(5 * coat.litres, rel=0.01)


@pytest.mark.parametrize(
    "spec, where, names",
    [
        ({"kind": "panelled-door", "width_m": 0.9, "height_m": 2.0, "sides": 2}, Where.STANDS, "inside outside"),
        ({"kind": "panelled-door", "width_m": 0.9, "height_m": 2.0}, Where.STANDS, ""),
        ({"kind": "shutter-pair", "leaf_width_m": 0.4, "height_m": 1.4}, Where.SHOP, "back front"),
        ({"kind": "shutter-pair", "leaf_width_m": 0.4, "height_m": 1.4}, None, ""),
        ({"kind": "railing", "length_m": 3.0, "height_m": 1.0}, Where.SHOP, ""),
    ],
)  # fmt: skip
def test_only_what_lies_down_and_is_painted_on_both_sides_is_turned(
    spec: dict[str, object], where: Where | None, names: str
) -> None:
    bundle = one_item(spec)
    part = painted_parts(bundle.property, bundle.deduction)["item", "it"]
    coat = next(o for o in bundle.operations(bundle.job.finishes[0]) if o.kind.lays_film)
    laid = coat.model_copy(update={"where": where})
    assert " ".join(s.name for s in sides(part, laid)) == names
    sanded = coat.model_copy(update={"where": where, "kind": OperationKind.SAND})
    assert sides(part, sanded) == WHOLE


def test_after_its_back_is_noted_the_front_waits_until_it_can_be_turned() -> None:
    bundle = five_shutters("stands")
    done = [("take-down", 0.0, 1.0, 8), ("take-out", 0.0, 1.0, 8), ("wash", 0.0, 1.0, 8), ("coat-1", 0.0, 0.5, 33)]
    record = tuple(
        SiteEntry(id=f"e{n}", touch=f"t{n}", at=BEGIN + timedelta(hours=hour), noted=BEGIN + timedelta(hours=hour),
                  by="crew", said=Said.DONE, steps=(step,), extent=Extent(parts=(FIRST,), left=left, right=right))
        for n, (step, left, right, hour) in enumerate(done)
    )  # fmt: skip
    noted = bundle.model_copy(update={"job": bundle.job.model_copy(update={"record": record})})
    now = BEGIN + timedelta(hours=34)
    state = part_states(surroundings(_site(noted), now))[FIRST]
    cell = state.next_cell
    assert cell is not None and cell.next is not None
    assert (cell.cell.left, cell.cell.right, cell.next.first.id) == (0.5, 1.0, "coat-1")
    turning = [w for w in cell.waits if "turning" in w.words]
    assert [w.letter for w in turning] == ["B"] and turning[0].until is not None
    assert timedelta(hours=1) < turning[0].until - now < timedelta(hours=8), "the recoat time of a usual trim paint"
    front = next(t for t in plan_job(_site(noted), now).tasks if FIRST in t.extent.parts)
    assert front.steps[0] == "coat-1" and front.start >= turning[0].until
