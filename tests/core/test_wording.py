"""Days, hours and figures in words."""

from datetime import datetime

import pytest

from amber_gable.domain import wording

AT = datetime.fromisoformat("2026-09-04T08:05-03:00")


@pytest.mark.parametrize(
    ("hours", "words"),
    [(0, "0 min"), (0.001, "1 min"), (0.5, "30 min"), (1, "1 h"), (1.3334, "1 h 20 min"), (1.9999, "2 h")],
)
def test_a_duration_is_never_nothing_for_work_that_takes_some(hours: float, words: str) -> None:
    assert wording.duration(hours) == words


def test_days_and_moments() -> None:
    assert (wording.dated(AT), wording.timed(AT), wording.clock(AT)) == ("Fri 4 Sep", "Fri 4 Sep 08:05", "08:05")
    assert (wording.hour(7.5), wording.hour(18.0)) == ("07:30", "18:00")


def test_thousands_are_set_apart_from_ten_thousand_on() -> None:
    assert (wording.number(9999.94), wording.number(12345.6, 0)) == ("9999.9", "12\u202f346")
