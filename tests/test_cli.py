"""The command line as scripts see it: JSON on stdout, one clear line and exit 2 on bad input."""

import json
import math
from datetime import datetime
from pathlib import Path
from typing import Any

import pytest

from amber_gable.cli import main
from amber_gable.demo import JOBS
from tests.exchange.test_typical_years import epw
from tests.exchange.test_weather_csv import plain
from tests.weather_cases import TMY3

RISE = JOBS / "1-coopers-rise.json"
FACE = [
    *("--tilt", "90", "--substrate", "wood-lap", "--colour", "#6b7a5e"),
    *("--product", "exterior-acrylic-standard", "--method", "brush"),
]


def run(capsys: pytest.CaptureFixture[str], *arguments: str) -> Any:
    main([*arguments, "--json"])
    return json.loads(capsys.readouterr().out, parse_constant=lambda c: pytest.fail(f"{c} in JSON"))


def refused(capsys: pytest.CaptureFixture[str], *arguments: str) -> str:
    with pytest.raises(SystemExit) as stop:
        main(list(arguments))
    assert stop.value.code == 2
    captured = capsys.readouterr()
    assert captured.out == ""
    assert captured.err.count("\n") == 1
    assert "Traceback" not in captured.err
    return captured.err


def test_windows_give_the_promised_fields_in_the_files_time(capsys: pytest.CaptureFixture[str]) -> None:
    answer = run(
        capsys, "windows", "--weather", str(TMY3), "--azimuth", "0", *FACE, "--start", "2025-10-06", "--days", "7"
    )
    assert len(answer["slots"]) == 7 * 48, "half hours, unless quarters are asked for"
    slot = answer["slots"][20]
    assert slot["start"] == "2025-10-06T10:00:00-05:00"
    keys = "start ok stops air_c rh_pct dew_point_c surface_c spread_c sun_w_m2 film_g_m2 touch_at rain_ready_at"
    assert list(slot) == [*keys.split(), "moisture_pct", "moisture_band_pct"]
    for s in answer["slots"]:
        assert s["ok"] == (not s["stops"])
        assert s["spread_c"] == pytest.approx(s["surface_c"] - s["dew_point_c"], abs=0.02)
        assert datetime.fromisoformat(s["touch_at"]) < datetime.fromisoformat(s["rain_ready_at"])
    assert answer["workable_h"] == sum(d["workable_h"] for d in answer["days"])
    assert [d["date"] for d in answer["days"]] == [f"2025-10-{d:02d}" for d in range(6, 13)]


def test_windows_with_members_washes_readings_and_events(capsys: pytest.CaptureFixture[str]) -> None:
    ask = [*WINDOWS, "--days", "2", "--slot", "15", "--members", "12", "--seed", "4", "--events"]
    done = ["--wash", "2025-10-06T09:00", "--reading", "2025-10-06T16:00=17.5", "--reading", "2025-10-07T12:00=14"]
    answer, again = run(capsys, *ask, *done), run(capsys, *ask, *done)
    assert answer == again, "the seed makes it the same"
    assert len(answer["slots"]) == 2 * 96
    slots = {s["start"][5:16]: s for s in answer["slots"]}
    for slot in slots.values():
        assert 0 <= slot["probability"] <= 1
        assert (slot["binding"] is None) == (slot["binding_share"] == 0)
        p10, p50, p90 = (slot["rain_ready_at"][p] for p in ("p10", "p50", "p90"))
        assert p10 <= p50 <= p90
        low, high = slot["moisture_band_pct"]
        assert low <= slot["moisture_pct"] <= high
        assert {e["event"] for e in slot["events"]} <= {"rain", "dew", "cold", "frost", "heat", "dust"}
    assert slots["10-06T09:00"]["film_g_m2"] > 40 > slots["10-06T08:45"]["film_g_m2"]
    assert slots["10-06T16:00"]["moisture_pct"] == 17.5 and "M" in slots["10-06T16:00"]["stops"]
    assert answer["moisture"]["limit_pct"] == 15.0 and answer["moisture"]["time_factor"] != 1.0
    (check,) = answer["moisture"]["checks"]
    assert (check["at"][5:16], check["read_pct"]) == ("10-07T12:00", 14.0)
    other = run(capsys, *ask[:-2], "5", *done)
    assert [s["probability"] for s in other["slots"]] != [s["probability"] for s in answer["slots"]]


@pytest.mark.parametrize(("substrate", "opens"), [("metal-door", True), ("aluminium-siding", False)])
def test_a_towel_opens_a_door_and_is_not_for_a_wall(
    capsys: pytest.CaptureFixture[str], substrate: str, opens: bool
) -> None:
    """A clear night leaves dew until nine; of what is wiped at half past seven, half an hour's damp is left."""
    ask = [*_with("--substrate", substrate), "--days", "2", "--towel", "2025-10-11T07:30"]
    ask[ask.index("--start") + 1] = "2025-10-11"
    ask[ask.index("--product") + 1] = "exterior-acrylic-low-temperature"
    if not opens:
        assert "too large to be wiped dry" in refused(capsys, *ask)
        return
    wiped, left = run(capsys, *ask), run(capsys, *ask[:-2])
    at = {s["start"][11:16]: (s, o) for s, o in zip(wiped["slots"][:48], left["slots"][:48], strict=True)}
    dry, wet = at["08:00"]
    assert wet["film_g_m2"] > 10 > dry["film_g_m2"]
    assert "D" in wet["stops"]
    assert at["07:30"][0]["film_g_m2"] > 10, "half an hour of damp"


def test_an_outlook_of_a_year_by_bearing(capsys: pytest.CaptureFixture[str]) -> None:
    coat = ["--weather", str(TMY3), *FACE[2:]]
    answer = run(capsys, "outlook", *coat)
    assert [f["azimuth_deg"] for f in answer["faces"]] == [45.0 * n for n in range(8)]
    for face in answer["faces"]:
        assert [m["month"] for m in face["months"]] == list(range(1, 13))
        assert face["workable_h"] == pytest.approx(sum(m["workable_h"] for m in face["months"]))
        assert face["best_weeks"][0]["workable_h"] >= face["best_weeks"][-1]["workable_h"] > 20
    north, south = (next(f for f in answer["faces"] if f["azimuth_deg"] == a) for a in (0.0, 180.0))
    assert north["workable_h"] > south["workable_h"]
    one = run(capsys, "outlook", *coat, "--azimuth", "180")
    assert one["faces"] == [south]


def test_the_coordinates_given_win_over_the_files(capsys: pytest.CaptureFixture[str]) -> None:
    def sun_on(azimuth: str, *more: str) -> float:
        days = ("--start", "2025-10-06", "--days", "2")
        answer = run(capsys, "windows", "--weather", str(TMY3), "--azimuth", azimuth, *FACE, *days, *more)
        return float(sum(s["sun_w_m2"] for s in answer["slots"]))

    assert sun_on("180") > 10 * sun_on("0")
    south = ("--lat", "-36.1")
    assert sun_on("0", *south) > 10 * sun_on("180", *south)


def test_an_epw_and_a_leap_day(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    path = tmp_path / "made.epw"
    path.write_text(epw())
    answer = run(
        capsys, "windows", "--weather", str(path), "--azimuth", "90", *FACE, "--start", "2028-02-28", "--days", "3"
    )
    assert [d["date"] for d in answer["days"]] == ["2028-02-28", "2028-02-29", "2028-03-01"]
    assert answer["slots"][0]["start"].endswith("+01:00")


def test_quantities_add_up(capsys: pytest.CaptureFixture[str]) -> None:
    answer = run(capsys, "quantities", str(RISE))
    for container in answer["containers"]:
        lines = [
            line["litres"]
            for line in answer["lines"]
            if (line["product"], line["colour"]) == (container["product"], container["colour"])
        ]
        assert sum(lines) == pytest.approx(container["litres"], abs=0.001)
        bought = sum(float(size) * n for size, n in container["sizes"].items())
        assert bought - container["litres"] == pytest.approx(container["leftover_l"], abs=0.001)
    line = next(line for line in answer["lines"] if line["product"] == "skerry-housecoat")
    assert line["spread_m2_per_l"] == pytest.approx(9.5)
    expected = line["area_m2"] * line["absorption"] / (9.5 * (1 - line["loss_pct"] / 100))
    assert line["litres"] == pytest.approx(expected, abs=0.001)


STEP_KEYS = {
    "id", "name", "kind", "technique", "product_family", "product", "colour", "share", "amount", "unit", "method",
    "wait_h", "wait_until", "because",
}  # fmt: skip


def test_a_specification_is_read_from_outside(capsys: pytest.CaptureFixture[str]) -> None:
    parts = run(capsys, "specify", str(RISE))["parts"]
    assert len(parts) == 28
    front = next(p for p in parts if p["part"] == "front-siding")
    assert set(front["steps"][0]) >= STEP_KEYS
    assert all(s["technique"] for p in parts for s in p["steps"])
    assert {f["level"] for p in parts for f in p["findings"]} <= {"stop", "check", "note"}
    forbidden = {t for c in front["cards"] for t in c["forbids"]}
    assert "power-sand" in forbidden
    assert not forbidden & {s["technique"] for s in front["steps"]}
    assert (front["coats"], front["primer"]) == (2, True)
    said = [f["id"] for f in front["findings"] if f["kind"] == "disclosure"]
    assert "lead-said" in said
    main(["specify", str(RISE)])
    text = capsys.readouterr().out
    assert "Street front, Siding (wood-lap, 48.49 m²" in text
    assert "CHECK: lead paint is presumed" in text


def test_a_file_may_say_only_colour_and_aim(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    raw = json.loads(RISE.read_text())
    raw["products"], raw["systems"] = [], []
    for finish in raw["job"]["finishes"]:
        for key in ("operations", "picks", "overrides", "schools", "colour_name", "system"):
            finish.pop(key, None)
    path = tmp_path / "wish.json"
    path.write_text(json.dumps(raw))
    kept = run(capsys, "specify", str(path), "--kept")["parts"]
    assert kept == run(capsys, "specify", str(path))["parts"], "nothing was kept, so both are derived"
    assert "exterior-acrylic-standard" in {s["product"] for p in kept for s in p["steps"]}
    assert run(capsys, "quantities", str(path))["containers"]
    base = tmp_path / "base.sqlite3"
    main(["import", str(path), "--database", str(base)])
    out = tmp_path / "out.json"
    main(["export", "coopers-rise", "--output", str(out), "--database", str(base)])
    assert all(f["operations"] for f in json.loads(out.read_text())["job"]["finishes"])
    capsys.readouterr()


def test_kept_steps_are_shown_as_they_stand(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    raw = json.loads(RISE.read_text())
    finish = next(f for f in raw["job"]["finishes"] if f["zone"] == "wing-back-siding")
    finish["operations"] = [o for o in finish["operations"] if o["id"] != "mildew"]
    path = tmp_path / "kept.json"
    path.write_text(json.dumps(raw))

    def ids(*more: str) -> list[str]:
        parts = run(capsys, "specify", str(path), *more)["parts"]
        return [s["id"] for s in next(p for p in parts if p["part"] == "wing-back-siding")["steps"]]

    assert "mildew" in ids()
    assert "mildew" not in ids("--kept")


def test_the_weather_of_a_far_station_is_said_by_the_commands(capsys: pytest.CaptureFixture[str]) -> None:
    asked = ["--weather", str(TMY3), "--azimuth", "0", *FACE, "--start", "2025-06-02", "--days", "2"]
    near = run(capsys, "windows", *asked)
    far = run(capsys, "windows", *asked, "--lat", "47.4", "--lon", "8.5")
    assert not any("of a place" in note for note in near["notes"])
    assert any("km" in note and "of a place" in note for note in far["notes"])
    light = [s["start"][11:16] for s in far["slots"] if "N" not in s["stops"]]
    assert min(light) == "07:00" and max(light) >= "18:30", "the day is that of the place, not of the station"


@pytest.mark.parametrize("what", ["substrates", "products", "methods"])
def test_lists_hold_kebab_case_codes(capsys: pytest.CaptureFixture[str], what: str) -> None:
    codes = [row["code"] for row in run(capsys, "list", what)[what]]
    assert codes
    assert all(c == c.lower() and " " not in c and "_" not in c for c in codes)


def test_tables_are_readable_without_json(capsys: pytest.CaptureFixture[str]) -> None:
    main(["quantities", str(RISE)])
    assert "2 × 18.927 L" in capsys.readouterr().out
    main(["windows", "--weather", str(TMY3), "--azimuth", "0", *FACE, "--start", "2025-10-06"])
    assert "workable: " in capsys.readouterr().out


def test_the_schema_describes_the_bundle(capsys: pytest.CaptureFixture[str]) -> None:
    main(["schema", "job"])
    schema = json.loads(capsys.readouterr().out)
    assert {"company", "property", "products", "systems", "job"} <= set(schema["properties"])


WINDOWS = ["windows", "--weather", str(TMY3), "--azimuth", "0", *FACE, "--start", "2025-10-06"]


def _with(option: str, value: str) -> list[str]:
    out = list(WINDOWS)
    out[out.index(option) + 1] = value
    return out


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (_with("--substrate", "cheese"), "substrate 'cheese' is not known; one of: wood-lap"),
        (_with("--product", "magic"), "product 'magic' is not known"),
        (_with("--method", "fling"), "method"),
        (_with("--colour", "green"), "colour"),
        (_with("--start", "tomorrow"), "'tomorrow' is not a date"),
        (_with("--azimuth", "400"), "azimuth"),
        (_with("--azimuth", "nan"), "azimuth"),
        (_with("--tilt", "100"), "tilt"),
        ([*WINDOWS, "--days", "0"], "--days"),
        ([*WINDOWS, "--lat", "89"], "latitude"),
        ([*WINDOWS, "--day-start", "20"], "leave no time"),
        (_with("--weather", "nowhere.epw"), "nowhere.epw: cannot be read"),
        ([*WINDOWS, "--members", "0"], "members"),
        ([*WINDOWS, "--members", "10000"], "members"),
        ([*WINDOWS, "--members", "800", "--days", "300"], "ask for 29 at most"),
        ([*WINDOWS, "--wash", "2025-13-41T25:00"], "'2025-13-41T25:00' is not a local time"),
        ([*WINDOWS, "--wash", "2026-01-01T08:00"], "2026-01-01T08:00 is outside the days asked for"),
        ([*WINDOWS, "--reading", "2025-10-06T08:00=300"], "300 % is no meter's reading"),
        ([*WINDOWS, "--reading", "14.5"], "is not TIME=PCT"),
        ([*_with("--substrate", "vinyl-siding"), "--reading", "2025-10-06T08:00=14"], "holds no water"),
        ([*WINDOWS, "--slot", "20"], "--slot"),
        ([*WINDOWS, "--seed", "-1"], "seed"),
        (["outlook", "--weather", str(TMY3), *FACE, "--azimuth", "999"], "azimuths"),
        (["windows"], "required"),
        (["dance"], "invalid choice"),
        (["quantities", "nowhere.json"], "cannot be read"),
        (["export", "nothing"], "is not in the database"),
    ],
)
def test_bad_input_is_one_line_and_exit_two(
    capsys: pytest.CaptureFixture[str],
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    arguments: list[str],
    words: str,
) -> None:
    monkeypatch.setenv("AMBER_GABLE_DATA", str(tmp_path))
    assert words in refused(capsys, *arguments)


def test_bad_files_are_named_with_their_line(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    cut = tmp_path / "cut.epw"
    cut.write_text(epw()[:300_000])
    assert "cut.epw, line" in refused(capsys, *_with("--weather", str(cut)))
    damp = tmp_path / "damp.csv"
    damp.write_text(plain(values="15,140,2,180,40,0"))
    assert "damp.csv, line 4: relative humidity 140" in refused(capsys, *_with("--weather", str(damp)))
    short = tmp_path / "short.csv"
    short.write_text(plain(rows=6))
    ask = _with("--weather", str(short))
    ask[ask.index("--start") + 1] = "2026-09-14"
    ask[ask.index("--product") + 1] = "alkyd-gloss"
    assert "Alkyd gloss is rain-ready after 16 h by its sheet; bring weather" in refused(capsys, *ask)
    outside = tmp_path / "week.csv"
    outside.write_text(plain())
    assert "covers 2026-09-14 to 2026-09-16" in refused(capsys, *_with("--weather", str(outside)))
    job = tmp_path / "job.json"
    job.write_text(RISE.read_text().replace('"height_m": 5.6', '"height_m": -5.6', 1))
    assert "faces[front].outline.height_m" in refused(capsys, "quantities", str(job))


def test_import_export_backup_restore_by_hand(capsys: pytest.CaptureFixture[str], tmp_path: Path) -> None:
    base, out, copy = tmp_path / "a.sqlite3", tmp_path / "out.json", tmp_path / "copy.sqlite3"
    at = ("--database", str(base))
    main(["import", str(RISE), *at])
    main(["export", "coopers-rise", "--output", str(out), *at])
    assert out.read_text() == RISE.read_text()
    assert "is here already" in _last_line(capsys, "import", str(RISE), *at)
    main(["import", str(RISE), "--replace", *at])
    main(["backup", str(copy), *at])
    base.unlink()
    main(["restore", str(copy), *at])
    capsys.readouterr()
    main(["export", "coopers-rise", *at])
    assert capsys.readouterr().out == RISE.read_text()


def _last_line(capsys: pytest.CaptureFixture[str], *arguments: str) -> str:
    capsys.readouterr()
    return refused(capsys, *arguments)


def test_an_estimate_adds_up_and_each_line_is_amount_by_rate_by_factors(capsys: pytest.CaptureFixture[str]) -> None:
    answer = run(capsys, "estimate", str(RISE), "--seed", "3", "--buy-level", "90")
    for line in answer["work"]:
        hours = line["amount"] / line["rate"] * math.prod(line["factors"].values())
        assert line["hours"] == pytest.approx(hours, abs=0.01, rel=2e-3), line["operation"]
        assert line["source"] and line["rate_unit"] == f"{line['unit']}/h"
        assert line["hours_p10"] < line["hours"] < line["hours_p90"]
    totals = answer["totals"]
    assert totals["hours"] == pytest.approx(sum(line["hours"] for line in answer["work"]), abs=0.05)
    assert totals["hours_p10"] < totals["hours"] < totals["hours_p90"]
    assert totals["materials"] == pytest.approx(sum(m["cost"] for m in answer["materials"] if m["cost"] is not None))
    for material in answer["materials"]:
        assert material["p10"] <= material["p50"] <= material["p90"] <= material["buy"], material["item"]
    assert run(capsys, "estimate", str(RISE), "--seed", "3", "--buy-level", "90") == answer
    other = run(capsys, "estimate", str(RISE), "--seed", "4")["totals"]
    assert other["hours"] == totals["hours"] and other["hours_p90"] != totals["hours_p90"]


@pytest.mark.parametrize("wrong", [("--seed", "-1"), ("--seed", "x"), ("--buy-level", "49"), ("--buy-level", "nan")])
def test_a_seed_or_level_that_is_none_is_refused(capsys: pytest.CaptureFixture[str], wrong: tuple[str, str]) -> None:
    with pytest.raises(SystemExit):
        main(["estimate", str(RISE), *wrong])
    assert wrong[1] in capsys.readouterr().err
