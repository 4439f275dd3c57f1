"""A stop stops: what is found in the survey keeps its part out of the plan and is marked in the litres."""

from datetime import date, datetime
from typing import Any

import pytest

from amber_gable.core.climate.job_climate import site_climate
from amber_gable.core.plan.build import plan_job
from amber_gable.core.specification.cautions.stops import job_stops
from amber_gable.core.specification.derived.completing import completed
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.job.plan import Plan
from amber_gable.services.quantities.quantities import job_quantities
from tests.jobs import one_wall
from tests.weather_cases import real_year

SOUND = {"coating": "waterborne", "gloss": "dull", "chalking": "none", "moisture": [{"pct": 12}]}
BARE = {"coating": "bare", "masonry": "normal"}
MADE_ON = [{"test": "age", "on": "2025-05-30"}]


def _wall(substrate: str, condition: dict[str, Any], built: int | None = 1995) -> JobBundle:
    """One wall with such a surface, its steps derived."""
    raw = one_wall(substrate=substrate).model_dump(mode="json")
    raw["property"]["zones"][0]["condition"] = condition
    raw["property"]["year_built"] = built
    raw["job"]["finishes"] = [{"zone": "siding", "colour": "#8a8a80", "colour_name": "As it is"}]
    return completed(JobBundle.model_validate(raw))


def _plan(bundle: JobBundle, days: int = 4) -> Plan:
    begin = datetime.fromisoformat("2025-06-02T00:00-05:00")
    return plan_job(site_climate(bundle, real_year(), begin, days, begin.tzinfo), begin)


STOPPED = [
    ("rot over a square metre", "wood-lap", SOUND | {"rot_m2": 2.0}, 1995, "rot-large", "boards replaced"),
    ("wet wood", "wood-lap", SOUND | {"moisture": [{"pct": 19}]}, 1995, "wet-wood", "15 % or less"),
    ("salt that returns", "block", BARE | {"efflorescence": "returns"}, 1995, "bloom-returns", "stop the water"),
    ("an old cement roof", "fibre-cement-roof", {"coating": "bare"}, 1970, "asbestos-roof", "Licensed people"),
    ("an old sheet that flakes", "fibre-cement-panel", SOUND | {"loose_pct": 4.0}, None, "asbestos-failing",
     "laboratory"),
    ("warped vinyl", "vinyl-siding", {"vinyl": "warped"}, 1995, "vinyl-warped", "Replace"),
    ("render of unknown date", "stucco-smooth", BARE | {"age_years": 0.03}, 1995, "green-masonry", "28 to 30 days"),
    ("new treated boards that bead", "wood-deck", {"coating": "bare", "absorbency": "beads", "age_years": 0.1}, 1995,
     "deck-test", "soak in within a minute"),
]  # fmt: skip


COLUMNS = ("substrate", "found", "built", "rule", "lifts")


@pytest.mark.parametrize(COLUMNS, [s[1:] for s in STOPPED], ids=[s[0] for s in STOPPED])
def test_nothing_of_a_stopped_part_is_planned(
    substrate: str, found: dict[str, Any], built: int | None, rule: str, lifts: str
) -> None:
    bundle = _wall(substrate, found, built)
    (stops,) = job_stops(bundle).values()
    assert rule in [s.rule for s in stops]
    plan = _plan(bundle, days=2)
    assert plan.tasks == ()
    (held,) = plan.unplaced
    assert held.why.startswith("Stopped: ")
    assert lifts in held.why
    lines = job_quantities(bundle).lines
    assert lines
    assert all(line.stopped_litres == pytest.approx(line.litres) for line in lines), "counted, and marked"


def test_damp_wood_is_washed_and_scraped_but_not_coated() -> None:
    """Over the limit, not wet: work that seals nothing goes on while it dries, and no day is known for the rest."""
    bundle = _wall("wood-lap", SOUND | {"moisture": [{"pct": 16}], "loose_pct": 8.0})
    assert [s.rule for s in job_stops(bundle)["zone", "siding"]] == ["damp"]
    plan = _plan(bundle)
    assert {t.kind.value for t in plan.tasks} & {"wash", "scrape"}
    assert not [t for t in plan.tasks if t.kind.lays_film]
    heads = [u for u in plan.unplaced if not u.behind]
    assert {u.why for u in heads} == {
        "Not ready: the wood read 16 %; at most 15 % is allowed. No day is known on which that ends."
    }


def test_a_part_waits_for_the_day_its_stop_ends() -> None:
    fresh = BARE | {"age_years": 26 / 365.25, "tests": MADE_ON}
    bundle = _wall("stucco-smooth", fresh)
    (stop,) = job_stops(bundle)["zone", "siding"]
    assert stop.until == date(2025, 6, 1), "26 days old on 30 May: 28 on 1 June"
    assert _plan(bundle).tasks, "over before the plan begins"
    younger = _wall("stucco-smooth", fresh | {"age_years": 23 / 365.25})
    days = {t.start.date() for t in _plan(younger).tasks}
    assert min(days) == date(2025, 6, 4), "23 days old on 30 May: nothing before 4 June"
    youngest = _plan(_wall("stucco-smooth", fresh | {"age_years": 10 / 365.25}))
    assert youngest.tasks == ()
    assert any("Ends by itself on 2025-06-17" in u.why for u in youngest.unplaced), "10 days old on 30 May"


def test_a_lifted_stop_lets_the_part_in() -> None:
    assert _plan(_wall("wood-lap", SOUND)).tasks
    assert job_stops(_wall("fibre-cement-panel", SOUND | {"loose_pct": 4.0, "asbestos": False}, 1970)) == {}
    assert job_stops(_wall("fibre-cement-panel", SOUND | {"loose_pct": 4.0}, 1995)) == {}, "made after the 1990s"
