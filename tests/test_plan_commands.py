"""The commands that plan a job, check a plan, and solve published schedules."""

import json
from datetime import datetime, timedelta
from pathlib import Path

import pytest

from amber_gable.cli import main
from amber_gable.demo import JOBS
from tests.exchange.test_schedules import TWO
from tests.test_cli import refused, run
from tests.weather_cases import TMY3

DECK = JOBS / "4-heron-deck.json"
ASKED = ["--weather", str(TMY3), "--start", "2025-09-01", "--days", "14"]


def test_a_plan_is_proven_and_says_why_for_whom_and_in_how_many_days(capsys: pytest.CaptureFixture[str]) -> None:
    answer = run(capsys, "plan", str(DECK), *ASKED)
    tasks = answer["tasks"]
    keys = {"id", "face", "operation", "start", "end", "ready_at", "why", "blocked_by", "people"}
    assert tasks and all(keys <= set(t) for t in tasks)
    starts = [datetime.fromisoformat(t["start"]) for t in tasks]
    assert starts == sorted(starts) and all(t["people"] == 1 for t in tasks)
    assert (answer["status"], answer["gap"], answer["bound"]) == ("optimal", 0.0, answer["cost"])
    assert answer["site_days"] == len({t["start"][:10] for t in tasks})
    assert answer["finish"] == max(tasks, key=lambda t: datetime.fromisoformat(t["end"]))["end"]
    # The crew's day is the house's own, summer time included, wherever the year was made; and that is said.
    assert all(t.utcoffset() == timedelta(hours=-3) and t.hour >= 7 for t in starts)
    assert any("the weather is of a place" in note and "km" in note for note in answer["notes"])
    first = run(capsys, "plan", str(DECK), *ASKED, "--seconds", "0")
    assert first["status"] == "earliest-first" and first["site_days"] > answer["site_days"]
    three = run(capsys, "plan", str(DECK), *ASKED, "--people", "3")
    assert three["people"] == 3 and three["cost"] <= answer["cost"], "another hand is never later"


def test_a_plan_is_checked_and_a_spoiled_one_found_out(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    file, weather = tmp_path / "plan.json", ["--weather", str(TMY3)]
    plan = run(capsys, "plan", str(DECK), *ASKED, "--seconds", "0")
    file.write_text(json.dumps(plan))
    main(["plan-check", str(file), str(DECK), *weather])
    assert "no rule broken" in capsys.readouterr().out
    task = next(t for t in plan["tasks"] if "coat-2" in t["steps"])
    task["start"], task["end"] = plan["tasks"][0]["start"], plan["tasks"][0]["end"]
    file.write_text(json.dumps(plan))
    with pytest.raises(SystemExit) as stop:
        main(["plan-check", str(file), str(DECK), *weather])
    told = capsys.readouterr().out
    assert stop.value.code == 1 and "order: “Second coat" in told and "hands: at Mon 01 Sep" in told
    assert "is no work of 5-feed-barn.json" in refused(
        capsys, "plan-check", str(file), str(JOBS / "5-feed-barn.json"), *weather
    )
    for text, words in (("{", "is no JSON"), ("{}", "start"), (json.dumps(plan | {"people": 0}), "people")):
        file.write_text(text)
        assert words in refused(capsys, "plan-check", str(file), str(DECK), *weather)


def test_hands_and_times_that_cannot_be_are_refused(capsys: pytest.CaptureFixture[str]) -> None:
    for wrong in (
        ["--people", "0"],
        ["--floor", "1.5"],
        ["--floor", "0"],
        ["--people", "41"],
        ["--seconds", "-1"],
        ["--seed", "x"],
        ["--days", "0"],
    ):
        assert wrong[1] in refused(capsys, "plan", str(DECK), *ASKED, *wrong)


def test_a_published_schedule_is_solved(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    file = tmp_path / "two.rcp"
    file.write_text(TWO)
    assert run(capsys, "solve-benchmark", str(file)) == {"makespan": 5, "bound": 5, "status": "optimal"}
    file.write_text("4 1")
    assert "cannot be read as .sm or .rcp" in refused(capsys, "solve-benchmark", str(file))
