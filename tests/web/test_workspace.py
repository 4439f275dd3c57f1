"""What was computed lately: done once for all who ask, kept by its key, and never in the way of anything else."""

import gc
import threading
from concurrent.futures import ThreadPoolExecutor
from dataclasses import fields, replace
from datetime import UTC, datetime
from typing import Any

import numpy as np
import pytest

from amber_gable.core.weather.wall.slot_climate import PlaceWeather
from amber_gable.core.weather.wall.surface import FaceSurface
from amber_gable.domain.findings.condition import Condition
from amber_gable.domain.progress import Cancelled
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.services import workspace
from amber_gable.services.computed import Computed
from amber_gable.services.context import Context
from amber_gable.services.state.climate import job_climate
from amber_gable.services.workspace import Workspace, digest
from amber_gable.store.kept import Kept
from amber_gable.store.scales import weight
from tests.jobs import coopers_rise
from tests.weather_cases import steady

PATIENCE_S = 60
FRONT = 12
"""Surfaces of the front: each of its parts in each colour it has before, between and after its coats."""


def test_two_who_want_the_same_do_the_work_once_and_others_do_not_wait() -> None:
    computed, begun, go = Computed(), threading.Event(), threading.Event()
    runs: list[str] = []

    def slow() -> str:
        runs.append("slow")
        begun.set()
        assert go.wait(PATIENCE_S)
        return "result"

    with ThreadPoolExecutor(3) as pool:
        first = pool.submit(computed.get, "a", slow)
        assert begun.wait(PATIENCE_S)
        second = pool.submit(computed.get, "a", slow)
        other = pool.submit(computed.get, "b", lambda: "at once")
        assert other.result(PATIENCE_S) == "at once", "nobody waits for what another wants"
        go.set()
        assert {first.result(PATIENCE_S), second.result(PATIENCE_S)} == {"result"}
    assert runs == ["slow"]


def test_what_failed_is_tried_anew_and_the_oldest_goes_first() -> None:
    computed = Computed(most=2 * weight(1))
    with pytest.raises(ValueError, match="no weather"):
        computed.get("a", lambda: (_ for _ in ()).throw(ValueError("no weather")))
    assert computed.get("a", lambda: 1) == 1
    computed.get("b", lambda: 2)
    computed.get("a", lambda: 0)
    computed.get("c", lambda: 3)
    assert computed.get("a", lambda: 0) == 1, "asked for lately"
    assert computed.get("b", lambda: 4) == 4, "thrown away"


def test_what_grows_is_weighed_again_and_what_is_too_heavy_is_not_kept() -> None:
    """A surface gathers windows as it is asked for coats: the bound holds all the same."""

    class Growing:
        nbytes = 10

    computed, one = Computed(most=100), Growing()
    computed.get("grows", lambda: one)
    computed.get("other", lambda: np.zeros(10, dtype=np.int8))
    assert computed.held == 20
    one.nbytes = 95
    assert computed.get("grows", Growing) is one
    assert computed.held == 95 and computed.known("other") is None
    heavy = computed.get("heavy", lambda: np.zeros(101, dtype=np.int8))
    assert len(heavy) == 101 and len(computed) == 0 and computed.held == 0


def test_a_thousand_results_hold_no_more_than_they_may() -> None:
    computed = Computed(most=50_000)
    for n in range(1000):
        computed.get(n, lambda n=n: {"rows": [str(n)] * 3, "figures": np.zeros(100)})
    assert 30_000 < computed.held <= 50_000
    assert computed.known(999) is not None and computed.known(0) is None


def test_a_series_is_known_by_everything_but_its_notes() -> None:
    """A field that comes to the series and not to its digest would hand out the climate of another weather."""
    series = steady(datetime(2026, 9, 14, tzinfo=UTC), 24)
    said: dict[str, Any] = {
        "start": 1, "latitude": 45.0, "longitude": -62.0, "altitude_m": 10.0, "utc_offset_h": -3.0,
        "typical_year": True, "state_at_h": 1.0, "light_offset_min": -30.0, "doubt": 1.5, "source": "another",
        "issued": 5, "ensemble": {"air_c": np.ones((2, 24))},
    }  # fmt: skip
    columns = {f.name for f in fields(WeatherSeries)} - said.keys() - {"notes"}
    changed = [replace(series, **{name: value}) for name, value in said.items()]
    changed += [replace(series, **{name: np.full(24, 0.25)}) for name in columns]
    assert len({digest(s) for s in (series, *changed)}) == 1 + len(changed)
    assert digest(replace(series, notes=("read from a file",))) == digest(series)


def test_a_record_that_is_gone_leaves_no_digest_behind_and_none_takes_it_over() -> None:
    gc.collect()
    before = len(workspace._LATELY)
    found = {digest(Condition(note=f"note {n}")) for n in range(200)}
    assert len(found) == 200, "a record that comes to live where another was has a digest of its own"
    assert len(workspace._LATELY) <= before + 1
    kept = Condition(note="kept")
    assert digest(kept) == digest(kept) == digest(Condition(note="kept"))


def test_what_the_store_keeps_is_bounded_too() -> None:
    class Session:
        fresh = None

    kept = Kept(most=50_000)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("amber_gable.store.kept.numbers", lambda *_: ())
        for n in range(500):
            kept.read(Session(), ("job", str(n)), (), lambda n=n: ["x" * 1000, n])  # type: ignore[arg-type]
        assert kept.find(Session(), ("job", "499")) is not None  # type: ignore[arg-type]
        assert kept.find(Session(), ("job", "0")) is None  # type: ignore[arg-type]
    assert 20 < len(kept._entries) < 60


def test_some_of_many_are_known_and_only_the_rest_is_computed_by_whoever_comes_first() -> None:
    computed, begun, go = Computed(), threading.Event(), threading.Event()
    asked: list[list[int]] = []
    computed.get("b", lambda: "B")

    def slowly(which: list[int]) -> list[str]:
        asked.append(which)
        begun.set()
        assert go.wait(PATIENCE_S)
        return ["ABC"[n] for n in which]

    def quickly(which: list[int]) -> list[str]:
        asked.append(which)
        return ["CD"[n] for n in which]

    with ThreadPoolExecutor(2) as pool:
        first = pool.submit(computed.get_all, ["a", "b", "c"], slowly)
        assert begun.wait(PATIENCE_S)
        second = pool.submit(computed.get_all, ["c", "d"], quickly)
        go.set()
        assert first.result(PATIENCE_S) == ["A", "B", "C"]
        assert second.result(PATIENCE_S) == ["C", "D"]
    assert asked == [[0, 2], [1]]


def test_who_waits_for_work_that_is_stopped_does_it_himself() -> None:
    computed, begun, go = Computed(), threading.Event(), threading.Event()

    def stopped() -> str:
        begun.set()
        assert go.wait(PATIENCE_S)
        raise Cancelled

    with ThreadPoolExecutor(2) as pool:
        first = pool.submit(computed.get, "a", stopped)
        assert begun.wait(PATIENCE_S)
        second = pool.submit(computed.get, "a", lambda: "done")
        go.set()
        with pytest.raises(Cancelled):
            first.result(PATIENCE_S)
        assert second.result(PATIENCE_S) == "done"


# What is changed on the job, and which surfaces feel it.
FELT: list[tuple[str, dict[str, Any], str]] = [
    ("an item renamed", {"items": {"name": "New name"}}, "nothing"),
    ("an item's note of condition", {"items": {"condition": Condition(note="look again")}}, "nothing"),
    ("a zone renamed", {"zones": {"name": "New name"}}, "nothing"),
    ("a face renamed", {"faces": {"name": "New name"}}, "nothing"),
    ("the house's year", {"property": {"year_built": 1850}}, "nothing"),
    ("the house's name", {"property": {"name": "New name"}}, "nothing"),
    ("a wall turned", {"faces": {"azimuth_deg": 33.0}}, "a face"),
    ("a wall's colour", {"zones": {"colour_now": "#123456"}}, "one"),
    ("another job on the same house", {"job": {"id": "other", "name": "Another job"}}, "nothing"),
    ("the height over the sea", {"property": {"altitude_m": 900.0}}, "all"),
]


@pytest.mark.parametrize(("change", "felt"), [f[1:] for f in FELT], ids=[f[0] for f in FELT])
def test_only_surfaces_that_feel_a_change_are_computed_anew(
    change: dict[str, Any], felt: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[int] = []

    def counted(weather: PlaceWeather, surfaces: list[FaceSurface], *others: object) -> list[str]:
        asked.append(len(surfaces))
        return ["a surface"] * len(surfaces)

    monkeypatch.setattr("amber_gable.services.state.climate.surfaces_through", counted)
    ctx = Context(Workspace(None, None, None, computed=Computed()))  # type: ignore[arg-type]
    bundle, begin = coopers_rise(), datetime(2026, 9, 14, tzinfo=UTC)
    series = steady(begin, 96)
    place = bundle.property.model_copy(update=change.get("property", {}))
    for kind in ("faces", "zones", "items"):
        if kind in change:
            first, *others = getattr(place, kind)
            place = place.model_copy(update={kind: (first.model_copy(update=change[kind]), *others)})
    job_climate(ctx, bundle, series, begin)
    job = bundle.job.model_copy(update=change.get("job", {}))
    job_climate(ctx, bundle.model_copy(update={"property": place, "job": job}), series, begin)
    assert sum(asked[1:]) == {"nothing": 0, "one": 1, "a face": FRONT, "all": asked[0]}[felt]
