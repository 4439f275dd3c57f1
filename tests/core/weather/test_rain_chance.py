"""The chance of rain over a whole wait, from that of each hour."""

import numpy as np
import pytest

from amber_gable.core.weather.judged.rain_chance import SHARED, chance_in, chance_over
from amber_gable.domain.grid import STEPS_PER_HOUR

CASES = [
    # chances of the hours, from hour, until hour, chance that it rains at all in them
    ("a dry day", [0.0] * 8, 0, 8, 0.0),
    ("one hour", [20.0] * 8, 2, 3, 20.0),
    # 1 - 0.8 x (1 - 0.2 x 0.4)^4: it was judged as 20 % over all five.
    ("five alike", [20.0] * 8, 1, 6, 100 * (1 - 0.8 * 0.92**4)),
    ("a front at the end counts whole", [0, 0, 0, 50.0, 0, 0, 0, 0], 0, 4, 50.0),
    ("and one at the beginning", [50.0, 0, 0, 0, 0, 0, 0, 0], 0, 4, 50.0),
    ("rising", [10.0, 50.0, 0, 0, 0, 0, 0, 0], 0, 2, 100 * (1 - 0.9 * (1 - 0.5 + SHARED * 0.1))),
    ("past the end of the weather", [0, 0, 0, 0, 0, 0, 0, 30.0], 6, 40, 30.0),
]


@pytest.mark.parametrize(("hours", "first", "until", "chance"), [c[1:] for c in CASES], ids=[c[0] for c in CASES])
def test_chances_of_hours_are_joined(hours: list[float], first: int, until: int, chance: float) -> None:
    steps = np.repeat(np.array(hours), STEPS_PER_HOUR)
    at = np.array([first * STEPS_PER_HOUR])
    assert chance_over(steps, at, np.array([until * STEPS_PER_HOUR]))[0] == pytest.approx(chance, abs=1e-6)


def test_it_is_between_the_surest_hour_and_hours_that_know_nothing_of_each_other() -> None:
    chance = np.random.default_rng(7)
    for _ in range(200):
        hours = chance.uniform(0, 95, 12) * (chance.random(12) < 0.6)
        steps = np.repeat(hours, STEPS_PER_HOUR)
        a, b = sorted(chance.choice(13, 2, replace=False).tolist())
        ends = np.array([[b * STEPS_PER_HOUR], [min(b + 2, 12) * STEPS_PER_HOUR]])
        found = chance_over(steps, np.array([a * STEPS_PER_HOUR]), ends)[:, 0]
        alone = 100 * (1 - np.prod(1 - hours[a:b] / 100))
        assert found[0] <= alone + 1e-6 and found[1] >= found[0] - 1e-9, "a longer wait is no drier"
        assert found[0] >= 0.8 * hours[a:b].max()


def test_members_that_are_wet_or_dry_are_so() -> None:
    rows = np.repeat(np.array([[0, 100.0, 0, 0], [0, 0, 0, 0.0]]), STEPS_PER_HOUR, axis=1)
    ends = np.full((1, 2, 1), 4 * STEPS_PER_HOUR)
    assert chance_over(rows, np.array([0]), ends)[0, :, 0] == pytest.approx([100.0, 0.0], abs=1e-6)


def test_where_the_source_has_futures_the_chance_is_theirs() -> None:
    """Four futures of four hours: one wet in the first hour, two in the third, one never."""
    wet = np.repeat(
        np.array([[1, 0, 0, 0], [0, 0, 1, 0], [0, 0, 1, 1], [0, 0, 0, 0]], dtype=bool), STEPS_PER_HOUR, axis=1
    )
    hours = [(0, 1, 25.0), (0, 4, 75.0), (1, 2, 0.0), (1, 3, 50.0), (3, 9, 25.0), (3, 3, 25.0)]
    for first, until, chance in hours:
        begin, end = np.array([first * STEPS_PER_HOUR]), np.array([until * STEPS_PER_HOUR])
        assert chance_in(wet, begin, end).tolist() == [chance], (first, until)
    of_faces = wet[:, None, :] & np.array([[True] * wet.shape[1], [False] * wet.shape[1]])
    assert chance_in(of_faces, np.array([0]), np.full((2, 1), wet.shape[1])).tolist() == [[75.0], [0.0]]
