"""What was computed lately: done once for all who ask, kept by its key, and never in the way of anything else."""

import threading
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from typing import Any

import pytest

from amber_gable.domain.condition import Condition
from amber_gable.services.plan.planning import job_climate
from amber_gable.services.workspace import Computed, Workspace
from tests.jobs import coopers_rise
from tests.weather_cases import steady

PATIENCE_S = 60


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
    computed = Computed(size=2)
    with pytest.raises(ValueError, match="no weather"):
        computed.get("a", lambda: (_ for _ in ()).throw(ValueError("no weather")))
    assert computed.get("a", lambda: 1) == 1
    computed.get("b", lambda: 2)
    computed.get("a", lambda: 0)
    computed.get("c", lambda: 3)
    assert computed.get("a", lambda: 0) == 1, "asked for lately"
    assert computed.get("b", lambda: 4) == 4, "thrown away"


# What is changed on the job, and whether a surface feels it.
FELT: list[tuple[str, dict[str, Any], bool]] = [
    ("an item renamed", {"items": {"name": "New name"}}, False),
    ("an item's note of condition", {"items": {"condition": Condition(note="look again")}}, False),
    ("a zone renamed", {"zones": {"name": "New name"}}, False),
    ("a face renamed", {"faces": {"name": "New name"}}, False),
    ("the house's year", {"property": {"year_built": 1850}}, False),
    ("the house's name", {"property": {"name": "New name"}}, False),
    ("a wall turned", {"faces": {"azimuth_deg": 33.0}}, True),
    ("a wall's colour", {"zones": {"colour_now": "#123456"}}, True),
    ("the height over the sea", {"property": {"altitude_m": 900.0}}, True),
]


@pytest.mark.parametrize(("change", "felt"), [f[1:] for f in FELT], ids=[f[0] for f in FELT])
def test_a_climate_is_computed_anew_only_for_what_a_surface_feels(
    change: dict[str, Any], felt: bool, monkeypatch: pytest.MonkeyPatch
) -> None:
    runs: list[object] = []
    monkeypatch.setattr("amber_gable.services.plan.planning.slot_climate", lambda *seen: runs.append(seen))
    space = Workspace(None, None, None, computed=Computed())  # type: ignore[arg-type]
    bundle, begin = coopers_rise(), datetime(2026, 9, 14, tzinfo=UTC)
    series = steady(begin, 96)
    place = bundle.property.model_copy(update=change.get("property", {}))
    for kind in ("faces", "zones", "items"):
        if kind in change:
            first, *others = getattr(place, kind)
            place = place.model_copy(update={kind: (first.model_copy(update=change[kind]), *others)})
    job_climate(space, bundle, series, begin)
    job_climate(space, bundle.model_copy(update={"property": place}), series, begin)
    assert len(runs) == 1 + felt
