"""Look, then decide: the possible coat is planned and told apart, and one answer settles it."""

from datetime import datetime, timedelta

import pytest

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.estimate.estimate import job_estimate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.state.progress import cells, laid_films, progress
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.domain.job.site_record import Extent, Said, SiteEntry
from tests.small_jobs import entry_door
from tests.weather_cases import real_year

BEGIN = datetime.fromisoformat("2025-06-02T00:00-03:00")
DOOR = ("item", "door")


def _steps(bundle: JobBundle) -> list[str]:
    return [o.id for o in bundle.operations(bundle.job.finishes[0])]


def _noted(bundle: JobBundle, said: Said | None) -> JobBundle:
    """Everything before the look noted as done, and the look answered."""
    before = _steps(bundle)[: _steps(bundle).index("look")]
    entries = [_entry(n, step, Said.DONE) for n, step in enumerate(before)]
    entries += [] if said is None else [_entry(len(before), "look", said)]
    return bundle.model_copy(update={"job": bundle.job.model_copy(update={"record": tuple(entries)})})


def _entry(n: int, step: str, said: Said) -> SiteEntry:
    at = BEGIN + timedelta(hours=6 * n)
    return SiteEntry(id=f"e-{n}", touch=f"t-{n}", at=at, noted=at, by="Ada", said=said, steps=(step,),
                     extent=Extent(parts=(DOOR,)), colour="#e9dcc1" if step.startswith("coat") else None)  # fmt: skip


def _plan(bundle: JobBundle, begin: datetime = BEGIN) -> Plan:
    return plan_job(site_climate(bundle, real_year(), BEGIN, 16), begin)


def test_the_possible_coat_is_in_no_sum_and_told_apart() -> None:
    counted, looked = job_estimate(entry_door("counted")), job_estimate(entry_door("look"))
    named = {line.operation.name: line for line in looked.possible}
    assert [line.operation.id for line in looked.possible] == ["mask-again", "coat-3", "unmask-again"], (
        "what was masked for the coat before is masked again for it"
    )
    coat = next(line for line in looked.hours.lines if line.operation and line.operation.id == "coat-2")
    third = named["Third coat, if the look asks for it"]
    assert third.hours == pytest.approx(coat.hours) and third.litres > 0
    assert looked.hours.hours - counted.hours.hours == pytest.approx(0.1), "only the look itself is added: six minutes"
    assert not counted.possible
    assert sum(o.need.litres for o in looked.orders) == pytest.approx(sum(o.need.litres for o in counted.orders))


def test_the_plan_keeps_the_time_of_the_possible_coat_behind_the_look_at_the_dry_one() -> None:
    plan = {t.steps[0]: t for t in _plan(entry_door("look")).tasks}
    assert plan["coat-2"].end < plan["look"].start < plan["coat-3"].start
    assert plan["coat-2"].ready_at is not None and plan["coat-2"].ready_at <= plan["look"].start
    assert plan["look"].steps == ("look",), "a look is answered by itself"
    assert plan["coat-2"].steps == ("coat-2", "unmask"), "tape does not wait for the look: it would tear the edge"
    assert plan["look"].end <= plan["mask-again"].start < plan["coat-3"].start
    assert plan["coat-3"].steps == ("coat-3", "unmask-again")


@pytest.mark.parametrize(
    ("said", "left"),
    [
        (None, ["look", "mask-again", "coat-3", "unmask-again"]),
        (Said.ONE_MORE, ["mask-again", "coat-3", "unmask-again"]),
        (Said.ENOUGH, []),
    ],
    ids=["not answered", "one more", "enough"],
)
def test_the_answer_settles_what_is_left(said: Said | None, left: list[str]) -> None:
    bundle = _noted(entry_door("look"), said)
    operations = bundle.operations(bundle.job.finishes[0])
    (cell,) = cells(DOOR, operations, progress(bundle.job.record))
    settled = ("look", "mask-again", "coat-3", "unmask-again")
    assert [o.id for o in cell.open if o.id in settled] == left
    assert "coat-3" not in {o.id for o in cell.passed}
    of = 2 if said is Said.ENOUGH else 3
    assert [(laid.films, laid.of) for laid in laid_films([cell])] == [(2, of)]
    planned = {s for t in _plan(bundle, BEGIN + timedelta(days=4)).tasks for s in t.steps}
    assert planned & set(settled) == set(left)
    assert "refit" in planned, "what comes after the possible coat is done either way"
