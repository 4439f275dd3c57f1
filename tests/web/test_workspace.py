"""What was computed lately: done once for all who ask, kept by its key, and never in the way of anything else."""

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from amber_gable.services.workspace import Computed

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
