"""What is only washed or refreshed, and a colour under a clear coat, as jobs: hours, litres, colour and plan."""

from datetime import datetime

import pytest

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.work.record import job_work
from amber_gable.services.specification.report import specification
from tests.small_jobs import deck, shop_front, stoop
from tests.weather_cases import real_year

BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")
WALL = ("zone", "wall")


def test_a_wall_washed_only_takes_no_paint_keeps_its_colour_and_is_planned() -> None:
    """Render of 6.0 × 3.2 m, textured by 1.1: 21.1 m² washed at 70 m² an hour."""
    bundle = shop_front(wishes={"wall": {"aim": "wash-only"}})
    finish = bundle.finish_of(*WALL)
    assert finish is not None and (finish.colour, finish.colour_name) == ("#c9bfae", "as it is")
    lines = {line.operation.id: line for line in job_work(bundle)[WALL].lines}
    assert set(lines) == {"cover", "wash"}
    assert lines["wash"].hours == pytest.approx(21.12 / 70, rel=0.15), "round the openings too"
    assert not any(line.litres for line in lines.values())
    plan = plan_job(site_climate(bundle, real_year(), BEGIN, 7), BEGIN)
    assert {s for t in plan.tasks if t.part == WALL for s in t.steps} == {"cover", "wash"}
    told = next(p for p in specification(bundle)["parts"] if p["part"] == "wall")
    assert told["coats"] == 0 and not told["findings"]


def test_a_refreshed_deck_is_less_work_than_a_new_stain() -> None:
    """38 m²: a wash and one coat, no brightener and no sanding."""
    new, kept = (job_estimate(deck(aim)) for aim in ("semi-transparent", "refresh"))
    steps = {line.operation.id for line in kept.hours.lines if line.operation is not None}
    assert {"wash", "coat-1"} <= steps and not steps & {"brighten", "fibre"}
    assert kept.hours.hours < 0.75 * new.hours.hours
    assert sum(o.need.litres for o in kept.orders) <= sum(o.need.litres for o in new.orders)


def test_a_clear_coat_over_the_colour_has_its_own_litres_and_waits_for_the_colour() -> None:
    """A stoop of 4.5 m² with two stubs: ground flush and primed the same day, washed, dry over night and longer, two
    coats of colour, then a sealer of 24 % solids at 20 µm: 12 m² a litre in theory."""
    bundle = stoop()
    work = {line.operation.id: line for line in job_work(bundle)["zone", "slab"].lines}
    order = list(work)
    assert order.index("stubs") < order.index("prime-stubs") < order.index("coat-1") < order.index("seal")
    assert work["stubs"].hours == pytest.approx(2 * 0.15)
    sealed = work["seal"].paint
    assert sealed is not None and sealed.product.family.value == "floor-sealer"
    assert sealed.coverage_m2_l == pytest.approx(12.0)
    plan = plan_job(site_climate(bundle, real_year(), BEGIN, 12), BEGIN)
    at = {s: t for t in plan.tasks for s in t.steps}
    assert at["wash"].end.date() < at["coat-1"].start.date(), "dry overnight at least"
    assert at["coat-2"].ready_at is not None and at["coat-2"].ready_at <= at["seal"].start
