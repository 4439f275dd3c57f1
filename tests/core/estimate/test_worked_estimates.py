"""Hours of the demo jobs against arithmetic on paper, and what must hold for any job's hours."""

from typing import Any

import numpy as np
import pytest

from amber_gable.core.estimate.draw import Draw
from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.estimate.hours import Hours, hour_samples, job_hours
from amber_gable.core.specification.derived.completing import completed
from amber_gable.core.work.labour import _BY_KIND, _BY_WAY, _COUNTED, _COUNTED_BY_WAY, _FILM, _LEVEL, _TRIM
from amber_gable.core.work.record import job_work
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.access import REACHES, Access, AccessChoice
from amber_gable.domain.work.extras import EXTRAS
from amber_gable.domain.work.rates import RATES
from tests.core.estimate.worked_estimates import WORKED
from tests.jobs import demo_job, one_wall, opening

NEAR: dict[str, float] = {"rel": 2e-3, "abs": 1e-4}


@pytest.mark.parametrize("stem", WORKED)
def test_every_hour_of_a_demo_job_is_what_it_comes_to_on_paper(stem: str) -> None:
    parts, site, _, (least, most) = WORKED[stem]
    bundle = demo_job(stem)
    for (_, part), work in job_work(bundle).items():
        found = {line.operation.id: line.hours for line in work.lines}
        if work.moves is not None:
            found["moves"] = work.moves.hours
        assert found == pytest.approx(parts[part], **NEAR), part
    hours = job_hours(bundle)
    beside = {line.labour.rate.code: line.hours for line in hours.lines if line.operation is None}
    moved = [code for code in beside if code.endswith("-move")]
    assert {code: h for code, h in beside.items() if code not in moved} == pytest.approx(site, **NEAR)
    on_paper = sum(sum(p.values()) for p in parts.values()) + sum(site.values())
    assert hours.hours == pytest.approx(on_paper, rel=1e-3)
    assert least <= hours.hours <= most, "as a foreman would have guessed"


@pytest.mark.parametrize("stem", WORKED)
def test_every_litre_of_a_demo_job_is_what_it_comes_to_on_paper(stem: str) -> None:
    found = {(o.product.code, o.colour): o.litres for o in job_estimate(demo_job(stem)).orders}
    assert found == pytest.approx(WORKED[stem][2], **NEAR)


def test_every_step_that_can_be_goes_by_a_rate_there_is_and_every_rate_is_gone_by() -> None:
    """A code misspelt would stop an estimate the first time somebody strips a wall."""
    named: set[str] = {"mask-spray", "floor-edge", "putty-out", "wash-deck", "to-bare", "feather", "spot-prime"}
    named |= {"back-rolled", "roof-spray", "fitting", "general", "edge-tape", *SITE_RATES, *ITEM_RATES}
    for table in (_BY_WAY, _BY_KIND, _COUNTED, _COUNTED_BY_WAY, _FILM, _TRIM, _LEVEL):
        named |= set(table.values())
    named |= {reach.move for reach in REACHES.values()}
    assert named - set(RATES) == set(), "named, and not there"
    assert set(RATES) - named == set(), "there, and never used"


SITE_RATES = (
    "furniture",
    "scaffold",
    "look-over",
    "walk-round",
    "travel",
    "sprayer-day",
    "vehicle",
    "fall-gear",
    *EXTRAS,
)
ITEM_RATES = (
    "door-panelled", "door-flush", "door-glazed", "door-spray", "sash-1", "sash-4", "sash-6", "sash-prep-1",
    "sash-prep-4", "sash-prep-6", "shutter-brush", "shutter-spray", "shutter-hang", "shutter-hang-high", "leaf-off",
    "sash-out", "shutter-carry", "denib",
    "garage-roller", "garage-spray", "garage-ready", "gutter-brush", "gutter-spray",
    "railing-brush", "railing-spray",
)  # fmt: skip


def _hours(bundle: JobBundle) -> float:
    return job_hours(bundle).hours


def _crew(bundle: JobBundle, **fields: Any) -> JobBundle:
    crew = bundle.job.crew.model_copy(update=fields)
    return bundle.model_copy(update={"job": bundle.job.model_copy(update={"crew": crew})})


def _planned(bundle: JobBundle, **fields: Any) -> JobBundle:
    plan = bundle.job.estimating.model_copy(update=fields)
    return bundle.model_copy(update={"job": bundle.job.model_copy(update={"estimating": plan})})


def _way_up(bundle: JobBundle, access: Access) -> JobBundle:
    return _planned(bundle, access={"wall": AccessChoice(access=access)})


def _windows(count: int) -> JobBundle:
    """A long wall with windows of 1.8 m², as it is derived: large enough to be taken off the paint."""
    wall = one_wall(14, 5, tuple(opening(f"w{i}", 0.2 + 2 * i, 1, 1.5, 1.2) for i in range(count)))
    (finish,) = wall.job.finishes
    bare = finish.model_copy(update={"system": None})
    return completed(wall.model_copy(update={"job": wall.job.model_copy(update={"finishes": (bare,)})}))


GROWING = {
    "wider": [one_wall(width_m=w, height_m=5.0) for w in (0.5, 3, 6, 6.01, 12, 40)],
    "higher": [one_wall(height_m=h) for h in (1.0, 2.9, 3.0, 3.1, 5.9, 6.1, 9, 14)],
    "more openings": [_windows(n) for n in range(6)],
    "coarser": [one_wall(6, 4, substrate=s) for s in ("stucco-smooth", "stucco-medium", "stucco-heavy")],
    "colder": [_planned(one_wall(), cold_pct=p) for p in (0, 20, 100)],
    "less practised": [_crew(one_wall(), skill=s) for s in ("experienced", "mixed", "learning")],
    "longer on the road": [_planned(one_wall(), travel_h=h) for h in (0, 0.2, 2)],
}


@pytest.mark.parametrize("jobs", GROWING.values(), ids=GROWING)
def test_more_work_never_takes_fewer_hours(jobs: list[JobBundle]) -> None:
    hours = [_hours(b) for b in jobs]
    assert hours == sorted(hours)
    assert hours[-1] > hours[0] * 1.01


def test_worse_condition_never_takes_fewer_hours() -> None:
    """Front of Cooper's Rise: every share and count found there, up and up."""
    bundle = demo_job("1")
    steps = job_work(bundle)["zone", "front-siding"]
    by_id = {line.operation.id: line for line in steps.lines}
    assert by_id["scrape"].hours > 0 and by_id["caulk"].hours > 0
    for name, amounts in {"share": (0.05, 0.2, 0.49, 0.5, 0.9, 1.0), "amount": (1, 5, 80)}.items():
        finish = bundle.finish_of("zone", "front-siding")
        totals = []
        for amount in amounts:
            worse = tuple(
                o.model_copy(update={name: amount})
                if o.id in ("scrape", "feather", "caulk-out", "caulk") and (o.amount is None) is (name == "share")
                else o
                for o in finish.operations
            )
            more = finish.model_copy(update={"operations": worse})
            others = tuple(more if f is finish else f for f in bundle.job.finishes)
            totals.append(_hours(bundle.model_copy(update={"job": bundle.job.model_copy(update={"finishes": others})})))
        assert totals == sorted(totals), name


def _cut_in_two(bundle: JobBundle, corners: list[tuple[float, float]]) -> JobBundle:
    """Part of the wall as a zone of its own, with the same finish."""
    (zone,), (finish,) = bundle.property.zones, bundle.job.finishes
    piece = zone.model_copy(update={"id": "piece", "name": "Piece"}).model_dump(mode="json")
    raw = bundle.model_dump(mode="json")
    raw["property"]["zones"].append(piece | {"area": {"kind": "region", "corners": corners}})
    raw["job"]["finishes"].append(finish.model_dump(mode="json") | {"zone": "piece"})
    return JobBundle.model_validate(raw)


CUTS = {
    "upright": [(0, 0), (3.7, 0), (3.7, 5.6), (0, 5.6)],
    "level": [(0, 2.2), (9, 2.2), (9, 5.6), (0, 5.6)],
    "level, up high": [(0, 4), (9, 4), (9, 5.6), (0, 5.6)],
    "aslant": [(0, 0), (9, 0), (9, 5.6)],
}


@pytest.mark.parametrize("corners", CUTS.values(), ids=CUTS)
def test_a_zone_cut_in_two_takes_the_same_hours(corners: list[tuple[float, float]]) -> None:
    whole = one_wall(9.0, 5.6)
    assert _hours(_cut_in_two(whole, corners)) == pytest.approx(_hours(whole), rel=0.03)


def test_alone_on_ladders_takes_a_quarter_more_up_there_and_a_tower_takes_moves_instead() -> None:
    wall = _crew(one_wall(9.0, 6.0), people=1)
    coat = {o.operation.id: o for o in job_work(wall)["zone", "siding"].lines}["coat-1"]
    assert [f.value for f in coat.labour.factors] == pytest.approx([1 + 0.15 / 2, 1 + 0.25 / 2])
    two = {o.operation.id: o for o in job_work(_crew(wall, people=2))["zone", "siding"].lines}["coat-1"]
    assert coat.hours == pytest.approx(two.hours * 1.125)
    tower = job_work(_way_up(wall, Access.TOWER))["zone", "siding"]
    assert not any(line.labour.factors for line in tower.lines)
    assert tower.moves is not None and tower.moves.labour.rate.per_hour == 3
    ladder = job_work(wall)["zone", "siding"].moves
    assert ladder is not None and ladder.labour.amount == pytest.approx(tower.moves.labour.amount * 3.5 / 1.8)


def test_a_companys_own_rate_takes_the_trades_place() -> None:
    raw = one_wall().model_dump(mode="json")
    raw["company"]["rates"] = {"brush": {"per_hour": 5.5, "spread": 1.2, "source": "season 2025"}}
    own = job_work(JobBundle.model_validate(raw))["zone", "siding"]
    usual = job_work(one_wall())["zone", "siding"]
    for mine, theirs in zip(own.lines, usual.lines, strict=True):
        brushed = theirs.labour.rate.code == "brush"
        assert mine.hours == pytest.approx(theirs.hours * (2 if brushed else 1))
        assert (mine.labour.rate.source == "season 2025") is brushed
    raw["company"]["rates"] = {"bruhs": {"per_hour": 5.5}}
    with pytest.raises(ValueError, match="rate 'bruhs' is not known"):
        JobBundle.model_validate(raw)


@pytest.fixture(scope="module")
def house() -> Hours:
    return job_hours(demo_job("1"))


def test_the_range_is_as_wide_as_its_lines_are_unsure(house: Hours) -> None:
    """One rate of spread 1.5 alone: nine in ten below 1.5^1.28 = 1.68 times the middle. Many rates that err each their
    own way: narrower. The middle of a sum of skew figures lies above the sum of their middles."""
    coats = tuple(line for line in house.lines if line.labour.rate.code == "brush")
    alone = np.quantile(hour_samples(coats, Draw(1, 40_000)), (0.1, 0.5, 0.9))
    total = sum(line.hours for line in coats)
    far = np.exp(1.2816 * np.hypot(np.log(1.5), np.log(1.03)))
    assert alone == pytest.approx([total / far, total, total * far], rel=0.02)
    assert house.hours < house.p50 < 1.12 * house.hours
    assert house.p90 / house.p10 < 1.5 < alone[2] / alone[0]
    assert house.p10 < house.hours < house.p90


def test_a_seed_draws_the_same_range_again(house: Hours) -> None:
    again = job_hours(demo_job("1"), Draw(0))
    assert (again.p10, again.p50, again.p90) == (house.p10, house.p50, house.p90)
    other = job_hours(demo_job("1"), Draw(5))
    assert other.p50 != house.p50
    assert other.p50 == pytest.approx(house.p50, rel=0.02)


def test_nothing_to_do_takes_nothing() -> None:
    bundle = one_wall()
    idle = job_hours(bundle.model_copy(update={"job": bundle.job.model_copy(update={"finishes": ()})}))
    assert (idle.hours, idle.p10, idle.p90, idle.days.days) == (0, 0, 0, 0)
